"""Edits of supplies that give several voltages: which there are, and which is asked for."""

from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, built, rebuilt, replace_at, value_at
from firecrest.design.sources import SupplyStep, WallSupply

SOURCE: Path = ("power", "source")
NEXT = {5.0: 9.0, 9.0: 12.0, 12.0: 15.0, 15.0: 20.0}
"""The usual next voltage of chargers and power banks."""


def _supply(design: Design) -> WallSupply:
    part = value_at(design, SOURCE)
    if not isinstance(part, WallSupply):
        raise DesignError("Only a supply has voltages that can be asked for.")
    return part


def add_step(design: Design) -> tuple[str, Design]:
    """(label, design) with one more voltage: first the present one, then the usual next."""
    part = _supply(design)
    last = part.steps[-1].voltage if part.steps else None
    volts = part.voltage if last is None else NEXT.get(last, min(last + 5.0, 60.0))
    step = built(
        SupplyStep,
        voltage=min(volts, 60.0),
        continuous_current=min(part.continuous_current, 50.0),
        burst_current=None if part.burst_current is None else min(part.burst_current, 100.0),
    )
    return "Add a voltage", replace_at(design, SOURCE, rebuilt(part, steps=(*part.steps, step)))


def remove_step(design: Design) -> tuple[str, Design]:
    """(label, design) without the last voltage; DesignError where there is none."""
    part = _supply(design)
    if not part.steps:
        raise DesignError("There is no voltage to remove.")
    return "Remove a voltage", replace_at(design, SOURCE, rebuilt(part, steps=part.steps[:-1]))


def ask_for(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) whose supply is asked for one of its voltages."""
    part = _supply(design)
    return f"Ask for {part.steps[place].voltage:g} V", replace_at(
        design, SOURCE, at_step(part, part.steps[place])
    )


def at_step(part: WallSupply, step: SupplyStep) -> WallSupply:
    """A supply that gives one of its voltages."""
    made: WallSupply = rebuilt(
        part,
        voltage=step.voltage,
        continuous_current=step.continuous_current,
        burst_current=step.burst_current,
    )
    return made
