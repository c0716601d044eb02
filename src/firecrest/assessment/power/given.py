"""What all questions about the power of a design begin with: source, boards, what is played."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.columns import put
from firecrest.assessment.electrical import (
    boards_of,
    converter_model,
    loads_list,
    source_at,
    standing_of,
)
from firecrest.assessment.lower import inputs
from firecrest.assessment.sounding import lasting_in, sounding
from firecrest.core.arrays import Number, Real
from firecrest.core.limits.bus import Bus
from firecrest.core.limits.draw import Draw
from firecrest.core.power.boards import Board, Boards, Load, Standing, load_power, standing
from firecrest.core.power.source import Source

CHARGE = ("brief", "conditions", "charge")
HALF = 0.5


def counts_of(assessment: Assessment) -> list[int]:
    """Equal outputs of each channel."""
    return [channel.outputs for channel in assessment.design.voice.channels]


def source_now(assessment: Assessment, charge: float | None = None) -> Source:
    """The source at a charge, that of the brief where none is given."""
    conditions = assessment.design.brief.conditions
    held = conditions.charge if charge is None else charge
    return source_at(assessment.numbers.power, held, conditions.temperature)


def drive_for(a: Acoustic, level: Number) -> Number:
    """V rms of programme that play ``level`` dB at the listener."""
    unit = float(np.ravel(a.sound.programmed.unit_level)[0])
    return 10 ** ((level - unit) / 20)


def playing_bus(assessment: Assessment, draw: Draw, charge: float | None = None) -> Bus:
    """The bus at a charge while ``draw`` is played."""
    return Bus(source_now(assessment, charge), standing_of(assessment.numbers.power), draw)


def flat_out_at(assessment: Assessment, charges: Sequence[float]) -> list[float]:
    """Highest programme level in dB at each of ``charges``; NaN where nothing can be heard."""
    if assessment.acoustic is None:
        return [float("nan")] * len(charges)
    column = np.array(charges)[:, None]
    numbers = put(assessment.numbers, CHARGE, column)
    sound = sounding(numbers, assessment.acoustic.frequency, assessment.memo)
    level = lasting_in(sound, assessment.memo).level
    return [float(x) for x in np.ravel(np.broadcast_to(level, column.shape))]


def least_impedances(a: Acoustic) -> list[float]:
    """Least |Z| in ohm of each channel's load, 20 Hz to 20 kHz."""
    found = []
    for output in a.transfers.outputs:
        heard = a.frequency >= 20.0
        volts, amperes = (np.abs(x)[heard] for x in (output.voltage, output.current))
        plays = amperes > 0
        found.append(float(np.min(volts[plays] / amperes[plays])) if plays.any() else np.inf)
    return found


def asleep(assessment: Assessment) -> tuple[Boards, list[Load]]:
    """(boards, loads) once everything that can has gone to sleep."""
    power, design = assessment.numbers.power, assessment.design.power
    boards = boards_of(power, assessment.numbers.carried)
    made = tuple(
        _sleeping(board, part.part.sleep_current)
        for board, (_, part) in zip(boards.boards, design.amplifiers, strict=True)
    )
    return replace(boards, boards=made), [
        replace(load, power=watts)
        for load, watts in zip(loads_list(power), standby_watts(assessment), strict=True)
    ]


def _sleeping(board: Board, current: float | None) -> Board:
    if current is None:
        return board
    return Board(replace(board.model, idle_current=current), board.converter)


def standby_watts(assessment: Assessment) -> list[float]:
    """W of DSP, receivers and other loads in standby, in the order of ``loads_list``."""
    power = assessment.design.power
    receivers = [b.part.standby_power for b in power.boards if b.kind == "receiver"]
    return [
        power.dsp.standby_power,
        *receivers,
        *(load.standby_power for load in power.other_loads),
    ]


def left_on(assessment: Assessment) -> list[Load]:
    """Loads that are wired before the switch, as they draw while the box is off."""
    design, power = assessment.design.power, assessment.numbers.power
    places = zip(design.other_loads, power.load_rails, strict=True)
    return [
        Load(load.standby_power, load.efficiency, rail) for load, rail in places if load.always_on
    ]


def taken(power: inputs.Power, boards: Boards, loads: list[Load]) -> Standing:
    """What boards and loads take before anything plays."""
    converters = [converter_model(part) for part in power.converters]
    return standing(boards, load_power(loads, converters))


def programme_draw(a: Acoustic) -> Draw:
    """What programme of 1 V rms draws."""
    return a.sound.programmed.draw


def at_last(value: Number | Real) -> float:
    """The figure of programme."""
    return float(np.ravel(value)[-1])
