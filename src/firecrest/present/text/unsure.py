"""What makes the doubt of a promise, in words: each figure with the one test that settles it."""

from collections.abc import Sequence

from firecrest.assessment.assess import Assessment
from firecrest.assessment.doubt.doubt import Unsure
from firecrest.core.errors import FirecrestError
from firecrest.core.units import figure
from firecrest.design.edits.paths import value_at
from firecrest.design.fields import field_facts, label_of
from firecrest.design.sheet import Sheet
from firecrest.present.text.pieces import Piece, Sentence
from firecrest.present.text.words import PROMISE_NAMES, either_way

TESTS = {
    "added mass": "the resonance with a known mass on the cone, or in a known volume",
    "free air": "an impedance curve in free air",
    "radiator": "its resonance with a known mass on it",
    "ohmmeter": "an ohmmeter, its leads taken off",
    "rule": "a rule or a calliper",
    "travel": "a slow sine, raised until it sounds wrong, and a rule beside the cone",
    "heat": "the coil's resistance after half an hour of play",
    "scales": "the kitchen scales",
    "water": "water or rice, and scales",
    "bill": "the bill",
    "thermometer": "a thermometer, on the evening",
    "tuning": "the dip of the impedance in the box",
    "listen": "a sine at the tuning, raised until the port is heard",
    "seal": "how fast a pushed cone comes back",
    "in the box": "the impedance in the box",
    "draw": "an ammeter",
    "load": "a sine into a resistor, raised until it clips",
    "discharge": "one discharge, timed",
}
"""What settles a figure, as the subject of "settles it"."""
NAMES = {
    "temperature": "the air's temperature",
    "density": "density of the panels",
    "wall": "thickness of the panels",
    "claims": "claimed power",
    "efficiency": "losses",
    "resistance": "resistance",
    "end_correction": "end correction",
    "speed_limit": "air speed limit",
    "edges": "what fast air loses",
    "r_tv": "heat of the coil",
}
"""Names of figures that no single field names as well."""


def unsure_sentences(assessment: Assessment, found: Sequence[Unsure]) -> list[Sentence]:
    """One sentence a figure, most first."""
    return [_sentence(assessment, one) for one in found]


def _sentence(assessment: Assessment, one: Unsure) -> Sentence:
    design, known = assessment.design, one.figure
    promise = assessment.promise(one.promise)
    try:
        part = value_at(design, known.path[:-1])
    except FirecrestError:
        part = None
    origin = part.origins.get(known.name, "") if isinstance(part, Sheet) else "estimate"
    of = "" if known.name in ("temperature", "density", "wall") else f" of {known.owner}"
    share = "" if known.tolerance is None else f" (±{100 * known.tolerance:.0f} %)"
    if known.name == "temperature":
        share = f" (±{known.tolerance or 0:.0f} K)"
    name = _name(part, known.name)
    text = f"{name[0].upper()}{name[1:]}{of}"
    makes = f"{share} makes {figure(100 * one.share, 0)} % of {_doubt(assessment, one)}: "
    return Sentence(
        f"origin:{origin or 'sheet'}",
        (Piece(text, known.path), Piece(f"{makes}{TESTS[known.test]} settles it.")),
        about=promise.key,
    )


def _doubt(assessment: Assessment, one: Unsure) -> str:
    promise = assessment.promise(one.promise)
    return f"{PROMISE_NAMES[promise.key]}'s {either_way(promise, assessment.design)}"


def _name(part: object, name: str) -> str:
    """A figure's name: its symbol, or its field's label."""
    if name in NAMES:
        return NAMES[name]
    facts = field_facts(type(part), name)
    if facts is not None and facts.symbol:
        return facts.symbol
    return label_of(type(part), name).lower() if facts is not None else name
