"""Names of what feeds and what is fed, and of the bus that boards have."""

from itertools import groupby

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.electrical import source_at
from firecrest.core.power.board_heat import RISE_INSIDE
from firecrest.core.power.cold import USUAL
from firecrest.core.power.fuse import KINDS
from firecrest.design.design import Design
from firecrest.design.outputs import dealt
from firecrest.design.power import BUS
from firecrest.design.sources import Cell
from firecrest.present.text.units import told
from firecrest.present.text.words import joined

PEAK = float(np.sqrt(2.0))
CHEMISTRIES = tuple(USUAL)
FUSES = [(name, name[0].upper() + name[1:]) for name in KINDS]
PLACES = [(place, place) for place in RISE_INSIDE]
BEHAVIOURS = [
    (b, b[0].upper() + b[1:]) for b in ("constant current", "fold-back", "hiccup", "latch")
]
FORMS = [
    (f, f[0].upper() + f[1:])
    for f in ("wall supply", "laptop brick", "house battery", "car outlet", "power bank")
]
CONTACTS = [
    ("barrel 5.5 mm", "Barrel, 5 A"),
    ("magnetic contact", "Magnetic, 2 A"),
    ("USB-C", "USB-C, 3 A"),
    ("USB-C, marked lead", "USB-C marked, 5 A"),
    ("screw terminal", "Screw terminal, 10 A"),
    ("pack plug, small", "Pack plug, 30 A"),
    ("pack plug, large", "Large plug, 60 A"),
]
"""What charges or feeds through a wall, as it is chosen."""


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


def usual_warmth(cell: Cell) -> list[tuple[str, str, str]]:
    """(temperature, capacity, resistance) of cells of this chemistry, as shown."""
    usual = USUAL[cell.chemistry]
    return [
        (told(t, "temperature", "°C", 0), f"{100 * c:.0f} %", f"× {r:.2f}")
        for t, c, r in zip(usual.temperature, usual.capacity, usual.resistance, strict=True)
    ]
