"""What Power shows: amplifier truth, where the energy goes, currents against what bears them."""

from dataclasses import dataclass
from itertools import groupby
from typing import Any

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.electrical import source_at
from firecrest.assessment.motion import motion_of
from firecrest.assessment.sounding import boards_in, bus_in
from firecrest.assessment.truth import clean_watts
from firecrest.core.limits.bus import mean_bus_current
from firecrest.core.limits.draw import draw_of
from firecrest.core.limits.material import HELD_SINE
from firecrest.core.power.amplifier import DEFAULT_THD
from firecrest.core.power.cold import USUAL
from firecrest.core.units import figure
from firecrest.design.amplifiers import Amplifier
from firecrest.design.design import Design
from firecrest.design.outputs import dealt
from firecrest.design.power import BUS
from firecrest.design.sources import Cell, WallSupply
from firecrest.present.text.units import told
from firecrest.present.text.words import joined

PEAK = float(np.sqrt(2.0))
CHEMISTRIES = tuple(USUAL)


@dataclass(frozen=True)
class TruthRow:
    """A claim, what of it is clean, and what the bus at the brief's charge leaves of it."""

    load: str
    claimed: str
    clean: str
    here: str
    impossible: bool


def amplifier_truth(assessment: Assessment, board: int) -> list[TruthRow]:
    """Printed watts of an amplifier board (by its number) against clean ones, and against those at
    the bus of the brief's charge; the claims of its first outputs, then of those of other kinds.
    """
    conditions = assessment.design.brief.conditions
    part = assessment.design.power.amplifiers[board][1].part
    kinds = [(part.channels, part.claims), *((o.channels, o.claims) for o in part.other_outputs)]
    rows, first = [], 1
    for kind, (channels, claims) in enumerate(kinds):
        outputs = "" if len(kinds) == 1 else f", {_outputs(first, channels)}"
        first += channels
        for claim, clean in zip(claims, assessment.claims[board][kind].claims, strict=True):
            power = assessment.numbers.power
            here = clean_watts(power, board, kind, claim.load, channels, conditions)
            thd = DEFAULT_THD if claim.thd is None else claim.thd
            at = "" if claim.supply is None else f" at {claim.supply:g} V"
            rows.append(
                TruthRow(
                    f"{claim.load:g} Ω{outputs}",
                    f"{claim.power:g} W{at}, {100 * thd:g} %",
                    f"{figure(clean.power, 1)} W",
                    f"{figure(here.watts, 1)} W",
                    clean.impossible,
                )
            )
    return rows


def rails(design: Design) -> list[tuple[str, str]]:
    """(id, name) of everything a board or load can be fed by."""
    source = {"pack": "the pack", "wall": "the supply", "mains": "the mains"}
    converters = [(c.id, c.name) for c in design.power.converters]
    return [(BUS, source[design.power.source.kind]), *converters]


def amplifier_names(design: Design) -> list[tuple[str, str]]:
    """(id, name) of the amplifier boards; equal names are told apart by their number."""
    boards = [board for _, board in design.power.amplifiers]
    names = [board.part.name for board in boards]
    numbers = [f", {k}" if names.count(n) > 1 else "" for k, n in enumerate(names, 1)]
    return [(b.id, b.part.name + number) for b, number in zip(boards, numbers, strict=True)]


def outputs_words(design: Design, board: int) -> str:
    """What each output of an amplifier board (by its number) carries."""
    boards = [b for _, b in design.power.amplifiers]
    names = dealt(boards[board], boards, design.voice.channels)
    said = []
    for name, run in groupby(enumerate(names, 1), key=lambda item: item[1]):
        places = [str(k) for k, _ in run]
        span = joined(places) if len(places) < 3 else f"{places[0]} to {places[-1]}"
        said.append(f"{name} on {span}" if name else f"{span} free")
    return f"Outputs: {', '.join(said)}"


def _outputs(first: int, count: int) -> str:
    """Outputs of a board, counted from 1."""
    return f"output {first}" if count == 1 else f"outputs {first} to {first + count - 1}"


def bus_words(assessment: Assessment, board: int) -> str:
    """The bus that "here" refers to for an amplifier board."""
    power, conditions = assessment.design.power, assessment.design.brief.conditions
    rail = assessment.claims[board][0].model.rail
    if rail:
        return f"its own rail of {rail:.1f} V"
    converter = assessment.numbers.power.rails[board]
    if converter is not None:
        part = power.converters[converter]
        return f"{part.output_voltage:.1f} V behind {part.name}"
    source = source_at(assessment.numbers.power, conditions.charge, conditions.temperature)
    if power.source.kind == "pack":
        return f"{float(source.voltage):.1f} V, the pack at rest at {conditions.charge:.0%} charge"
    return f"{float(source.voltage):.1f} V from the supply"


def energy_rows(assessment: Assessment) -> list[tuple[str, float]]:
    """(where, W) at half charge and the playing level; they add up to what the pack gives."""
    a = assessment.acoustic
    if a is None or a.runtime is None:
        return []
    watts = a.runtime.watts
    return [
        ("Drivers and output stage", watts["audio"]),
        ("Amplifier idle and switching", watts["idle"]),
        ("DSP and other loads", watts["other"]),
        ("Cells, board and leads", watts["wires"]),
    ]


@dataclass(frozen=True)
class CurrentRow:
    """A current at the promised level against what bears it, A."""

    name: str
    asked: float
    bears: float


def current_rows(assessment: Assessment) -> list[CurrentRow]:
    """Largest currents of a held sine at the promise: peak per output, mean on the bus."""
    a = assessment.acoustic
    if a is None:
        return []
    numbers, memo = assessment.numbers, assessment.memo
    boards = boards_in(numbers, memo)
    band = (a.frequency >= assessment.design.brief.bass.frequency) & (a.frequency <= a.f_hi)
    drive, rows = motion_of(assessment, a).drive, []
    outputs = a.answers_at(drive).outputs
    for k, output in enumerate(outputs):
        limit = float(boards.feeds[k].outputs.current_limit)
        peak = PEAK * np.abs(output.current) * drive
        name = assessment.design.voice.channels[k].name
        asked = float(np.max(peak[band], initial=0.0))
        rows.append(CurrentRow(f"Amp output, {name}", asked, limit))
    bus = bus_in(numbers, draw_of(outputs, boards, HELD_SINE), memo)
    current = mean_bus_current(bus, drive)
    asked = float(np.max(current[band], initial=0.0))
    rows += [
        CurrentRow(name.capitalize(), asked, float(most)) for name, most in bus.source.burst.items()
    ]
    return rows


HARMFUL = 85.0
"""dB above which long listening harms ears."""

CAUTION_PACK = (
    "Lithium pack: use a protection board, matched cells and a fuse at the pack; charge only with "
    "the right charger, never unattended, never below 0 °C. Check your carrier's and local rules "
    "before you ship or fly it."
)
CAUTION_MAINS = (
    "Mains voltage kills. Leave mains wiring to licensed people and follow local codes; prefer a "
    "certified external supply."
)
CAUTION_HEARING = (
    "Above about 85 dB for long, or 100 dB briefly, hearing suffers. Near the box it is louder "
    "than at the listener: wear protection when you test at level."
)


CAUTION_NICKEL = (
    "Nickel pack: a short circuit burns leads, so fuse it at the pack; charge only with a charger "
    "for these cells that notices when they are full, never unattended."
)
CAUTION_LEAD = (
    "Lead battery: it holds acid and gives off gas that can explode, so leave its case open to the "
    "air and flames away; fuse it at its terminal, keep rings and tools off, and charge it only "
    "with a charger for this kind."
)
CAUTION_BATTERY = (
    "A battery of this kind can melt metal and burn: fuse it at its terminal, keep rings and tools "
    "away, give it air, and charge it only with the right charger. On boats and vehicles follow "
    "the local rules."
)


CAUTION_BANK = (
    "Power bank: there are lithium cells in it. Keep it whole, dry and out of the sun, give it air "
    "while it works, charge it with its own charger, and check your carrier's rules before you "
    "ship or fly it."
)


def usual_warmth(cell: Cell) -> list[tuple[str, str, str]]:
    """(temperature, capacity, resistance) of cells of this chemistry, as shown."""
    usual = USUAL[cell.chemistry]
    return [
        (told(t, "temperature", "°C", 0), f"{100 * c:.0f} %", f"× {r:.2f}")
        for t, c, r in zip(usual.temperature, usual.capacity, usual.resistance, strict=True)
    ]


def caution(assessment: Assessment) -> str:
    """The caution that goes with the source."""
    source = assessment.design.power.source
    if source.kind == "pack":
        return part_caution(source.cell)
    return part_caution(source) or CAUTION_MAINS


def part_caution(part: Any) -> str:
    """The caution that goes with a part, at its own sheet; empty for harmless ones."""
    if isinstance(part, Cell):
        own = {"nickel metal hydride": CAUTION_NICKEL, "lead acid": CAUTION_LEAD}
        return own.get(part.chemistry, CAUTION_PACK)
    if isinstance(part, WallSupply):
        own = {"house battery": CAUTION_BATTERY, "power bank": CAUTION_BANK}
        return own.get(part.form, CAUTION_MAINS)
    if isinstance(part, Amplifier) and part.own_mains:
        return CAUTION_MAINS
    return ""


def hearing_caution(assessment: Assessment) -> str:
    """The caution for ears where the box reaches their limit at the listener or at 1 m."""
    distance = assessment.design.brief.listening.distance
    level = assessment.promise("loudness").predicted
    level = assessment.design.brief.loudness.level if level is None else level
    nearest = level + max(0.0, 20 * float(np.log10(distance)))
    return CAUTION_HEARING if nearest >= HARMFUL else ""
