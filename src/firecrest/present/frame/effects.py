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


def said_changes(before: Sequence[Promise], after: Sequence[Promise]) -> list[str]:
    """The words of ``changes``."""
    return [text for text, _ in changes(before, after)]


def changes(before: Sequence[Promise], after: Sequence[Promise]) -> list[tuple[str, str]]:
    """Each promise's change, e.g. "+2.1 dB", "−3 Hz", "+160 g", "+€14", and whether it is good or
    bad; slight ones left out.
    """
    now = {p.key: p for p in before}
    then = {p.key: p for p in after}
    said = []
    for key, quantity, usual, digits in SHOWN_IN:
        if key not in now or key not in then:
            continue
        a, b = now[key].predicted, then[key].predicted
        slight = to_si(0.5 * 10.0**-digits, quantity, usual)
        if a is not None and b is not None and abs(b - a) >= slight:
            sign = "+" if b > a else MINUS
            good = (b > a) == now[key].floor
            text = sign + told(abs(b - a), quantity, usual, digits)
            said.append((text, "good" if good else "bad"))
    return said
