"""What a board really gives: clean watts of a sine into resistors on the bus that it has.

All channels of one kind of its outputs are driven alike; the other boards and loads stand idle.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from math import inf

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.limits.bus import Bus, average_current_limit, mean_bus_current
from firecrest.core.limits.ceiling import code_at
from firecrest.core.limits.draw import Output, draw_of
from firecrest.core.limits.elements import Asked, Ratings
from firecrest.core.limits.kinds import Ask, reached
from firecrest.core.limits.material import HELD_SINE
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.board_heat import Place, losses
from firecrest.core.power.boards import Board, Boards, Feed, Standing
from firecrest.core.power.source import Source

HALVINGS = 60
EFFICIENCY_LEVELS = np.linspace(-40.0, 0.0, 25)
"""DB re clipping at which efficiency is told."""
EFFICIENCY_LEVELS.flags.writeable = False
RESISTOR = Ratings((), (), (), (), (), (None,), ())
"""Nothing but a resistor behind the board."""


@dataclass(frozen=True)
class Tried:
    """A sine into ``load`` ohm on ``count`` outputs of a board, on a source with what stands on it.

    ``boards`` has one feed, these outputs.
    """

    boards: Boards
    bus: Bus
    load: float
    count: int

    @property
    def model(self) -> AmplifierModel:
        """Of the outputs."""
        return self.boards.feeds[0].outputs

    def amperes(self, drive: float) -> float:
        """Mean current of the source at ``drive`` V rms."""
        return float(np.ravel(mean_bus_current(self.bus, np.full(1, drive)))[0])

    def rail(self, drive: float) -> float:
        """Volts that the board has at ``drive``, means."""
        if self.model.rail is not None:
            return float(self.model.rail)
        converter = self.boards.converter_of(self.boards.feeds[0])
        if converter is not None:
            return float(converter.output_voltage)
        source = self.bus.source
        return float(source.voltage) - float(source.resistance) * self.amperes(drive)

    def lost(self, drive: float) -> float:
        """W that the board turns into heat."""
        return float(losses(self.model, self.rail(drive), drive / self.load, self.count))


def tried(
    boards: Boards,
    board: int,
    outputs: AmplifierModel,
    standing: Standing,
    source: Source,
    load: float,
    count: int,
) -> Tried:
    """A trial on the bus of a design; see ``Tried``."""
    own = Boards(boards.boards, boards.converters, (Feed(outputs, board),))
    draw = draw_of((Output(np.ones(1), np.full(1, 1.0 / load), count),), own, HELD_SINE)
    return Tried(own, Bus(source, standing, draw), load, count)


def tried_as_claimed(outputs: AmplifierModel, supply: float, load: float, count: int) -> Tried:
    """The same on a bench: the board alone, on a stiff supply, with no limit of current."""
    alone = replace(outputs, current_limit=inf)
    boards = Boards((Board(alone),), (), ())
    standing = Standing(outputs.idle_current, 0.0)
    return tried(boards, 0, alone, standing, Source(supply, 0.0), load, count)


@dataclass(frozen=True)
class Clean:
    """Clean watts a channel and what ends them: its name, its place and its code letter.

    ``drive`` is the volts rms of each output.
    """

    drive: float
    watts: float
    limit: str
    index: int
    code: str


def clean(trial: Tried) -> Clean:
    """Clean burst: the smallest of swing, collapse, output, source and converter currents.

    The long-term rating of a supply is left out, as it bears more for a burst.
    """
    bus = replace(trial.bus, source=replace(trial.bus.source, continuous=None))
    limits = reached(Ask(Asked(np.ones(1)), RESISTOR, trial.boards, bus, HELD_SINE.above))
    first = min(limits, key=lambda limit: float(np.ravel(limit.factor)[0]))
    drive = float(np.ravel(first.factor)[0])
    return Clean(drive, drive**2 / trial.load, first.name, first.index, code_at(first, 0))


@dataclass(frozen=True)
class Lasting:
    """Watts a channel that a board keeps up: by its heat, and by everything; seconds until its case
    is at its limit at clean watts (None: never, or not known), K it comes to after long.
    """

    by_heat: float | None
    watts: float
    seconds: float | None
    case: float | None


def lasting_watts(
    trial: Tried, found: Clean, place: Place | None, time_constant: float | None
) -> Lasting:
    """What ``found`` comes to after long; ``place`` is None where the heat is not known.

    Continuous watts are the least of clean ones, those at which the case stays at its limit, and
    those at the supply's continuous current.
    """
    drive = found.drive
    if trial.bus.source.continuous is not None:
        most = average_current_limit(trial.bus, trial.bus.source.continuous)
        drive = min(drive, float(np.ravel(most)[0]))
    if place is None:
        return Lasting(None, drive**2 / trial.load, None, None)
    lost = trial.lost(found.drive)
    cool = found.drive
    if lost > place.most:
        cool = _drive_at(lambda g: trial.lost(g) - place.most, found.drive)
    seconds = None
    if time_constant is not None:
        seconds = place.seconds(trial.lost(0.0), lost, time_constant)
    return Lasting(
        cool**2 / trial.load, min(drive, cool) ** 2 / trial.load, seconds, place.after_long(lost)
    )


def _drive_at(over: Callable[[float], float], most: float) -> float:
    """The drive below ``most`` at which a rising figure passes 0, by halving; 0 where it is over
    at rest already.
    """
    low, high = 0.0, most
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        low, high = (low, middle) if over(middle) > 0 else (middle, high)
    return 0.5 * (low + high)


def efficiency(trial: Tried, found: Clean) -> Real:
    """Share of what the board takes that comes out, at ``EFFICIENCY_LEVELS`` below clipping."""
    shares = []
    for level in EFFICIENCY_LEVELS:
        drive = found.drive * 10 ** (level / 20)
        given = trial.count * drive**2 / trial.load
        shares.append(given / (given + trial.lost(drive)) if given > 0 else 0.0)
    return np.array(shares)
