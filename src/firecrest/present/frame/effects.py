"""What a change does to the promises, in few words."""

from collections.abc import Sequence

from firecrest.assessment.verdicts import Promise
from firecrest.core.units import THIN_SPACE, figure

SCALES = (
    ("loudness", 1.0, 1, f"{THIN_SPACE}dB"),
    ("bass", 1.0, 1, f"{THIN_SPACE}Hz"),
    ("runtime", 1 / 3600.0, 1, f"{THIN_SPACE}h"),
    ("weight", 1000.0, 0, f"{THIN_SPACE}g"),
    ("cost", 1.0, 0, ""),
)


def changes(before: Sequence[Promise], after: Sequence[Promise]) -> list[str]:
    """Each promise's change, e.g. "+2.1 dB", "−3 Hz", "+160 g", "+€14"; slight ones left out."""
    now = {p.key: p.predicted for p in before}
    then = {p.key: p.predicted for p in after}
    said = []
    for key, scale, digits, unit in SCALES:
        a, b = now.get(key), then.get(key)
        if a is None or b is None or abs(b - a) * scale < 0.5 * 10.0**-digits:
            continue
        change = figure((b - a) * scale, digits)
        sign = "+" if b > a else ""
        if key == "cost":
            said.append(f"+€{change}" if b > a else f"−€{change[1:]}")
        else:
            said.append(f"{sign}{change}{unit}")
    return said
