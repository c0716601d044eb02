"""What stands on a source: amplifier boards with their outputs, converters, and other loads.

A board hangs on the bus itself, or behind a converter. Before anything plays they take a current
(idle of boards on the bus) and a power (loads, and everything behind converters).
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, root
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.source import Converter, Source


@dataclass(frozen=True)
class Board:
    """An amplifier board: ``model`` has its idle current and its cut-offs; ``converter`` is the
    place of the one it hangs behind, None on the bus.
    """

    model: AmplifierModel
    converter: int | None = None


@dataclass(frozen=True)
class Feed:
    """The outputs that carry one voice channel: what they give, and the place of their board."""

    outputs: AmplifierModel
    board: int = 0


@dataclass(frozen=True)
class Boards:
    """All boards and converters of one source, and one feed for each voice channel."""

    boards: tuple[Board, ...]
    converters: tuple[Converter, ...]
    feeds: tuple[Feed, ...]

    def converter_of(self, feed: Feed) -> Converter | None:
        """What lies between a feed's board and the source."""
        place = self.boards[feed.board].converter
        return None if place is None else self.converters[place]

    def on_bus(self) -> list[AmplifierModel]:
        """The boards that the source feeds directly."""
        return [b.model for b in self.boards if b.converter is None and b.model.rail is None]

    def behind(self, converter: int) -> list[AmplifierModel]:
        """The boards behind one converter."""
        return [b.model for b in self.boards if b.converter == converter]


def on_bus(board: Board, *others: AmplifierModel) -> Boards:
    """One board on the bus; its outputs carry one channel, ``others`` of its kinds one each."""
    return Boards((board,), (), tuple(Feed(m) for m in (board.model, *others)))


@dataclass(frozen=True)
class Load:
    """Something that takes ``power`` W through a regulator; ``converter`` as of a board."""

    power: Number
    efficiency: Number
    converter: int | None = None


def load_power(loads: Sequence[Load], converters: Sequence[Converter]) -> Number:
    """Power in W that loads take from the source."""
    return sum(
        load.power / load.efficiency
        if load.converter is None
        else load.power / load.efficiency / converters[load.converter].efficiency
        for load in loads
    )


@dataclass(frozen=True)
class Standing:
    """What is taken before anything plays: A at whatever voltage, and W."""

    amperes: Number = 0.0
    watts: Number = 0.0


def standing(boards: Boards, loads: Number) -> Standing:
    """Idle currents of boards on the bus; ``loads`` W and what converters take for idle boards."""
    watts = loads
    for place, converter in enumerate(boards.converters):
        idle = sum(model.idle_current for model in boards.behind(place))
        watts = watts + converter.output_voltage * idle / converter.efficiency
        watts = watts + converter.idle_power
    return Standing(sum((model.idle_current for model in boards.on_bus()), 0.0), watts)


def drawn_at_rest(source: Source, stands: Standing) -> Number:
    """A that a source gives before anything plays; NaN where it cannot.

    I0 + P/V at the larger root of V^2 - (Voc - R I0) V + R P = 0.
    """
    open_voltage = source.voltage - source.resistance * stands.amperes
    under = root(open_voltage**2 - 4 * source.resistance * stands.watts)
    volts = (open_voltage + under) / 2
    asked = np.asarray(stands.watts) > 0  # no watts take no current, whatever is left of the volts
    return stands.amperes + stands.watts / np.where(asked, np.where(volts > 0, volts, np.nan), 1.0)
