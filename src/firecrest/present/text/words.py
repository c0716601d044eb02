"""Words for promises, limits and links: names, units, margins, one place for each."""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.assessment.verdicts import WALL, Promise
from firecrest.assessment.wiring import driver_count, wiring_of
from firecrest.core.limits.elements import Limit
from firecrest.core.limits.kinds import row_of
from firecrest.core.power.discharge import EMPTY
from firecrest.core.uncertainty.spread import HIGH, LOW, Band
from firecrest.core.units import MINUS, THIN_SPACE, figure, from_si, shown
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.present.text.notes import is_code, said
from firecrest.present.text.units import told, units

PROMISE_NAMES = {
    "loudness": "Loudness",
    "bass": "Bass reach",
    "runtime": "Runtime",
    "size": "Size",
    "weight": "Weight",
    "cost": "Cost",
}

LINK_NAMES = {
    "pack": "Pack",
    "dsp": "DSP",
    "amplifier": "Amp",
    "drivers": "Drivers",
    "radiators": "Radiators",
    "box": "Box",
    "listener": "Listener",
}

STATE_WORDS = {
    "met": "kept",
    "close": "close call",
    "short": "short",
    "unknown": "not known",
    "none": "no promise",
}


SHOWN_IN = {
    "loudness": ("level", "dB", 1),
    "bass": ("frequency", "Hz", 0),
    "runtime": ("time", "h", 1),
    "size": ("length", "mm", 0),
    "weight": ("mass", "kg", 2),
    "cost": ("money", "€", 0),
}
"""Quantity, usual unit and decimals of each promise."""


@dataclass(frozen=True)
class PromiseUnit:
    """Quantity, unit and decimals in which a promise is shown, and the words around it."""

    quantity: str
    unit: str
    digits: int
    suffix: str


def promise_unit(key: str, design: Design) -> PromiseUnit:
    """How the figures of one promise are shown."""
    brief = design.brief
    quantity, usual, digits = SHOWN_IN[key]
    unit = units.unit(quantity, usual)
    suffix = {
        "loudness": f"{unit} at {brief.listening.distance:g} m",
        "bass": f"{unit} at {MINUS}{brief.bass.drop} dB",
        "runtime": f"{unit} of play",
        "size": f"{unit} to spare",
        "weight": unit,
        "cost": "in parts",
    }[key]
    return PromiseUnit(quantity, unit, units.digits(quantity, usual, digits), suffix)


def limit_name(limit: Limit, code: str) -> str:
    """Name of a limit as tints and sentences have it."""
    return row_of(limit, code).title


def numeral(promise: Promise, design: Design) -> str:
    """The big figure of a meter: what is predicted, without its unit."""
    unit = promise_unit(promise.key, design)
    value = promise.margin if promise.key == "size" else promise.predicted
    if value is None:
        return "–"
    return ("€" if unit.unit == "€" else "") + figure(_in_unit(value, unit), unit.digits)


def _in_unit(value: float, unit: PromiseUnit) -> float:
    return from_si(value, unit.quantity, unit.unit)


def margin_text(promise: Promise, design: Design) -> str:
    """Margin with sign in words: "1.8 dB short", "0.6 h in hand", "7 over"."""
    if promise.state == "none":
        return said(promise.reason) if is_code(promise.reason, WALL) else "no promise set"
    if promise.state == "unknown":
        return said(promise.reason)
    if promise.margin is None:
        return said(promise.reason) or "short"
    if promise.key == "runtime" and promise.reason:
        return "level too high"
    if promise.state == "close":
        if waits_for_high_pass(promise):
            return said(promise.reason)
        likely = either_way(promise, design)
        return f"close, {likely}" if likely else "close"
    return distance_text(promise, design)


def distance_text(promise: Promise, design: Design) -> str:
    """How far a promise with a margin is from its target, whatever the doubt."""
    unit = promise_unit(promise.key, design)
    amount = shown(abs(promise.margin or 0.0), unit.quantity, unit.unit, _margin_digits(unit))
    if (promise.margin or 0.0) < 0:
        return f"{amount} short" if promise.floor else f"{amount} over"
    return "fits" if promise.key == "size" else f"{amount} in hand"


def waits_for_high_pass(promise: Promise) -> bool:
    """Whether a promise is close because a held low note takes a part too far."""
    kept = promise.margin is not None and promise.margin >= 0
    return kept and promise.state == "close" and is_code(promise.reason, "high-pass")


def either_way(promise: Promise, design: Design) -> str:
    """Half of a promise's likely range, as "±2.8 dB"; "" where there is no doubt to show."""
    if promise.band is None or promise.band.width <= 0:
        return ""
    unit = promise_unit(promise.key, design)
    return f"±{_wide(promise.band.width / 2, unit)}"


def likely_range(promise: Promise, design: Design) -> str:
    """A promise's likely range and how often it is kept; "" where that is not known."""
    band = promise.band
    if band is None or band.width <= 0 or promise.key == "size":
        return ""
    unit = promise_unit(promise.key, design)
    ends = [figure(_in_unit(v, unit), _margin_digits(unit)) for v in (band.low, band.high)]
    span = f"{ends[0]} to {ends[1]}"
    span = f"€{span}" if unit.unit == "€" else f"{span}{THIN_SPACE}{unit.unit}"
    return f"{span}, {kept_in(band)}"


def kept_in(band: Band) -> str:
    """How many builds of ten keep a promise, in words."""
    tenths = round(10 * band.kept)
    if band.kept >= HIGH / 100:
        return "kept in nearly every build"
    if band.kept <= LOW / 100:
        return "kept in hardly any build"
    return f"kept in {min(max(tenths, 1), 9)} of 10 builds"


def how_sure(promise: Promise, design: Design) -> str:
    """Margin, and of a close promise how many builds of ten keep it: "close, ±2.8 dB, 3 of 10"."""
    text = margin_text(promise, design)
    band = promise.band
    if promise.state != "close" or band is None or band.width <= 0:
        return text
    return f"{text}, {min(max(round(10 * band.kept), 1), 9)} of 10"


def _wide(half: float, unit: PromiseUnit) -> str:
    """A width: without what an offset of the unit would add."""
    span = from_si(half, unit.quantity, unit.unit) - from_si(0.0, unit.quantity, unit.unit)
    digits = _margin_digits(unit)
    text = figure(span, digits)
    return f"€{text}" if unit.unit == "€" else f"{text}{THIN_SPACE}{unit.unit}"


def _margin_digits(unit: PromiseUnit) -> int:
    return max(unit.digits, 1) if unit.unit == "Hz" else unit.digits


def short_margin(promise: Promise, design: Design) -> str:
    """Shortest form of the margin, for narrow meters: a sign and a figure."""
    if promise.margin is None or promise.state in ("none", "unknown"):
        return ""
    unit = promise_unit(promise.key, design)
    value = _in_unit(abs(promise.margin), unit)
    sign = MINUS if promise.margin < 0 else "+"
    return f"{sign}{figure(value, _margin_digits(unit))}"


def target_text(promise: Promise, design: Design) -> str:
    """The promised figure with its unit."""
    unit = promise_unit(promise.key, design)
    return shown(promise.target, unit.quantity, unit.unit, unit.digits)


def ending(ended_by: str) -> str:
    """What ends the play, in words."""
    return "then it is empty" if ended_by == EMPTY else f"the {ended_by} ends it"


def part_of_link(key: str, assessment: Assessment) -> str:
    """The part named under a link of the chain."""
    design = assessment.design
    box, power = design.box, design.power
    if key == "pack":
        return source_name(design)
    if key == "dsp":
        return power.dsp.name
    if key == "amplifier":
        return ", ".join(board.part.name for _, board in power.amplifiers)
    if key == "drivers":
        named = [
            (driver_count(g, wiring_of(design.voice.channels)), g.driver.name) for g in box.groups
        ]
        return ", ".join(f"{n} × {name}" for n, name in named)
    if key == "radiators":
        radiators = [r for _, r in placed(box.openings, RadiatorSet)]
        return ", ".join(f"{r.count} × {r.radiator.name}" for r in radiators) or "none fitted"
    if key == "box":
        return box_facts(assessment)
    listening = design.brief.listening
    return f"{listening.distance:g} m, {PLACES[listening.place]}"


def surroundings(design: Design) -> str:
    """What stands around the box when its response is judged: place, room, baffle step."""
    listening = design.brief.listening
    room = "" if listening.room is None else f" with a room's lift below {listening.room:g} m"
    step = "with the baffle step" if listening.baffle else "without the baffle step"
    return f"{SPACES[listening.place]}{room}, {step}"


SPACES = {
    "pole": "on a pole, free all round",
    "ground": "on the ground in open air",
    "wall": "on the floor against a wall",
    "corner": "on the floor in a corner",
}
PLACES = {
    "pole": "on a pole",
    "ground": "open air",
    "wall": "against a wall",
    "corner": "in a corner",
}

MATERIALS = {
    "music": "music",
    "pink": "pink noise",
    "speech": "speech",
    "instrument": "an instrument",
    "sine": "a sine",
}


def source_name(design: Design) -> str:
    """Pack, supply or mains in a few words."""
    source = design.power.source
    if source.kind == "pack":
        return f"{source.series}S{source.parallel}P {source.cell.name}"
    return source.name if source.kind == "wall" else "own mains supply"


def box_facts(assessment: Assessment) -> str:
    """Air and tuning of the first chamber."""
    air = told(assessment.cabinet.air[0], "volume", "L", 1)
    tuning = assessment.acoustic.model.tuning[0] if assessment.acoustic else None
    return f"{air}, tuned {tuning:.0f}{THIN_SPACE}Hz" if tuning else f"{air}, closed"


def told_mass(assessment: Assessment) -> str:
    """Weight of everything."""
    return told(float(assessment.cabinet.mass), "mass", "kg", 2)


def decibels(value: float, digits: int = 1) -> str:
    """A level difference with sign: +1.9, −1.8."""
    text = figure(value, digits)
    return text if text.startswith(MINUS) or text == "–" else f"+{text}"


def joined(names: list[str]) -> str:
    """Names as in a sentence: a, b and c."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
