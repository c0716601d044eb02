"""What a change does to the promises, in few words."""

from collections.abc import Sequence

from firecrest.assessment.verdicts import Promise
from firecrest.core.units import MINUS, to_si
from firecrest.present.text.units import told

SHOWN_IN = (
    ("loudness", "level", "dB", 1),
    ("bass", "frequency", "Hz", 1),
    ("runtime", "time", "h", 1),
    ("weight", "mass", "g", 0),
    ("cost", "money", "€", 0),
)
"""Promise, quantity, usual unit and decimals of its change."""


def changes(before: Sequence[Promise], after: Sequence[Promise]) -> list[str]:
    """Each promise's change, e.g. "+2.1 dB", "−3 Hz", "+160 g", "+€14"; slight ones left out."""
    now = {p.key: p.predicted for p in before}
    then = {p.key: p.predicted for p in after}
    said = []
    for key, quantity, usual, digits in SHOWN_IN:
        a, b = now.get(key), then.get(key)
        slight = to_si(0.5 * 10.0**-digits, quantity, usual)
        if a is not None and b is not None and abs(b - a) >= slight:
            sign = "+" if b > a else MINUS
            said.append(sign + told(abs(b - a), quantity, usual, digits))
    return said
