"""How long a box stands with nothing played: silent, asleep, switched off."""

from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.electrical import boards_of, loads_list, store_of
from firecrest.assessment.power.given import HALF, asleep, left_on, source_now, taken
from firecrest.core.power.boards import Boards, Load, Standing, drawn_at_rest, load_power
from firecrest.core.power.chemistry import CHEMISTRIES
from firecrest.core.power.discharge import Player, player_of
from firecrest.core.power.runtime import stood

SILENT, ASLEEP, OFF = "silent", "asleep", "off"
WEEK = 7 * 24.0


@dataclass(frozen=True)
class Stood:
    """A and W that a state takes at half charge; hours until a cut-off opens and what that is
    (None where nothing runs empty), share of the charge lost in a week.
    """

    state: str
    amperes: float
    watts: float
    hours: float | None
    ended_by: str
    weekly: float | None


def standing_states(assessment: Assessment) -> list[Stood]:
    """Silent, asleep and off."""
    power = assessment.numbers.power
    if power.source is None:
        return []
    boards, loads = boards_of(power, assessment.numbers.carried), loads_list(power)
    resting, quiet = asleep(assessment)
    found = [_stood(assessment, SILENT, boards, loads), _stood(assessment, ASLEEP, resting, quiet)]
    return [*found, _stood(assessment, OFF, None, left_on(assessment))]


def _stood(assessment: Assessment, state: str, boards: Boards | None, loads: list[Load]) -> Stood:
    """One state; without ``boards`` only loads before the switch are left."""
    power, design = assessment.numbers.power, assessment.design
    if boards is None:
        watts = load_power([replace(load, converter=None) for load in loads], [])
        stands, player = Standing(0.0, watts), Player(Standing(0.0, watts), watts, None, None)
    else:
        stands = taken(power, boards, loads)
        player = player_of(boards, load_power(loads, list(boards.converters)))
    source = source_now(assessment, HALF)
    volts = float(np.ravel(source.voltage)[0])
    amperes = float(np.ravel(drawn_at_rest(source, stands))[0])
    store = store_of(power, design.brief.conditions.temperature)
    if store is None:
        return Stood(state, amperes, volts * amperes, None, "", None)
    lost = 0.0
    if design.power.source.kind == "pack":
        lost = CHEMISTRIES[design.power.source.cell.chemistry].self_discharge
    found = stood(store, player, lost)
    hours = float(np.ravel(found.hours)[0])
    weekly = WEEK / hours * (1.0 - float(np.ravel(found.end_charge)[0])) if hours > 0 else None
    ended = found.names[int(np.ravel(found.which)[0])]
    return Stood(state, amperes, volts * amperes, hours, ended, weekly)
