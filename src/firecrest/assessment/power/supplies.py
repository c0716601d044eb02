"""Supplies other than packs: what they do when asked too much, and whether boards start."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.electrical import standing_of
from firecrest.assessment.power.standing import OFF, standing_states
from firecrest.core.power.boards import Standing
from firecrest.core.power.supply import FOLD_BACK, HICCUP, Supply, silent_share
from firecrest.design.amplifiers import Amplifier
from firecrest.design.power import BUS
from firecrest.design.sources import SupplyStep, WallSupply

USUAL_SHORT = 0.25
"""Share of the burst current that a supply which folds back gives into a short circuit."""
SOURCE_LIMITS = ("supply", "supply rating")


@dataclass(frozen=True)
class SupplyFacts:
    """W in bursts, how it behaves, share of silence of one that tries again, A to spare when the
    boards start (None: no start voltage is known), share of the full level above which it is the
    bottleneck and where in frequency, states in which it goes off and the W that would keep it on.
    """

    largest_power: float
    behaviour: str
    silence: float | None
    start_margin: float | None
    bottleneck: float | None
    band: tuple[float, float] | None
    keep_alive: tuple[tuple[str, float], ...]
    time_out: float


def supply_model(part: WallSupply) -> Supply:
    """A wall supply of the design."""
    burst = part.continuous_current if part.burst_current is None else part.burst_current
    short = None
    if part.behaviour == FOLD_BACK:
        short = USUAL_SHORT * burst if part.short_current is None else part.short_current
    return Supply(part.voltage, part.resistance, burst, short)


def supply_facts(assessment: Assessment) -> SupplyFacts | None:
    """None of a pack, and of an amplifier with its own mains supply."""
    part = assessment.design.power.source
    if not isinstance(part, WallSupply):
        return None
    model = supply_model(part)
    silence = None
    if part.behaviour == HICCUP:
        silence = silent_share(part.trip_time, part.retry_time)
    return SupplyFacts(
        model.largest_power,
        part.behaviour,
        silence,
        start_margin(assessment, model),
        bottleneck(assessment),
        _band(assessment),
        _kept_alive(assessment, part),
        part.time_out,
    )


def start_voltage(part: Amplifier) -> float | None:
    """V at which a board starts; as it stops where nothing is stated."""
    return part.cut_off if part.start_voltage is None else part.start_voltage


def start_margin(assessment: Assessment, model: Supply) -> float | None:
    """A to spare at the highest start voltage of the boards on the bus."""
    on_bus = [b.part for _, b in assessment.design.power.amplifiers if b.rail == BUS]
    volts = [v for v in map(start_voltage, on_bus) if v is not None]
    if not volts:
        return None
    stands: Standing = standing_of(assessment.numbers.power)
    amperes, watts = (float(np.ravel(x)[0]) for x in (stands.amperes, stands.watts))
    if max(volts) > model.voltage:
        return -amperes
    return model.start_margin(max(volts), amperes, watts)


def bottleneck(assessment: Assessment) -> float | None:
    """Share of the full level (in volts) above which the supply's currents are the limit.

    Full is what everything else would give; 1 and more: it is none.
    """
    a = assessment.acoustic
    if a is None:
        return None
    factors = [(x.name, float(np.ravel(x.factor)[0])) for x in a.lasting.allowed]
    own = [f for name, f in factors if name in SOURCE_LIMITS]
    rest = [f for name, f in factors if name not in SOURCE_LIMITS]
    if not own or not rest or not min(rest) > 0:
        return None
    return min(own) / min(rest)


def _band(assessment: Assessment) -> tuple[float, float] | None:
    """Hz between which held notes are held by the supply."""
    a = assessment.acoustic
    if a is None:
        return None
    names = np.array([limit.name in SOURCE_LIMITS for limit in a.limits])
    held = names[a.top.first] & (a.frequency >= 20.0)
    if not held.any():
        return None
    return float(a.frequency[held][0]), float(a.frequency[held][-1])


def _kept_alive(assessment: Assessment, part: WallSupply) -> tuple[tuple[str, float], ...]:
    """(state, W missing) of the states in which it goes off."""
    if part.keep_current is None:
        return ()
    return tuple(
        (found.state, part.voltage * (part.keep_current - found.amperes))
        for found in standing_states(assessment)
        if found.state != OFF and found.amperes < part.keep_current
    )


def usable_steps(assessment: Assessment, steps: Sequence[SupplyStep]) -> list[bool]:
    """Which voltages every board on the bus takes: not above its highest, nor below its cut-off."""
    parts = [b.part for _, b in assessment.design.power.amplifiers if b.rail == BUS]

    def _takes(part: Amplifier, volts: float) -> bool:
        low = part.cut_off is None or volts >= part.cut_off
        return low and (part.highest_supply is None or volts <= part.highest_supply)

    return [all(_takes(part, step.voltage) for part in parts) for step in steps]
