"""Everything between the wall or the cells and the drivers, as it is fitted in a design."""

from typing import Annotated, Literal

from pydantic import Field
from pydantic.dataclasses import dataclass

from firecrest.design.amplifiers import Amplifier, DspBoard, Receiver
from firecrest.design.fields import MODEL, identity, items, number, text
from firecrest.design.sources import Converter, Source

BUS = "bus"
"""The rail of what hangs on the source itself."""


@dataclass(frozen=True, kw_only=True, config=MODEL)
class OtherLoad:
    """Lamps, a phone outlet, a radio: watts through a regulator."""

    name: str = text("Name")
    power: float = number("Power", "power", 0, 1000, "W", digits=2)
    efficiency: float = number("Regulator efficiency", "share", 0.1, 1, "%", default=0.85, digits=0)
    rail: str = identity(BUS, "Fed by")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FittedAmplifier:
    """An amplifier board in the design; ``rail`` is the source itself, or a converter."""

    kind: Literal["amplifier"] = "amplifier"
    id: str = identity("amplifier")
    part: Amplifier
    rail: str = identity(BUS, "Fed by")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FittedDsp:
    """The signal processor in the design."""

    kind: Literal["dsp"] = "dsp"
    id: str = identity("dsp")
    part: DspBoard
    rail: str = identity(BUS, "Fed by")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FittedReceiver:
    """A receiver in the design."""

    kind: Literal["receiver"] = "receiver"
    id: str = identity("receiver")
    part: Receiver
    rail: str = identity(BUS, "Fed by")


Board = Annotated[FittedAmplifier | FittedDsp | FittedReceiver, Field(discriminator="kind")]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Power:
    """Everything between the wall or the cells and the drivers, all on one source."""

    boards: tuple[Board, ...] = items("Boards", least=2, most=12)
    source: Source
    converters: tuple[Converter, ...] = items("Converters", default=(), most=8)
    other_loads: tuple[OtherLoad, ...] = items("Other loads", default=())

    @property
    def amplifiers(self) -> list[tuple[int, FittedAmplifier]]:
        """(place among the boards, amplifier board) of each."""
        return [(k, b) for k, b in enumerate(self.boards) if isinstance(b, FittedAmplifier)]

    @property
    def dsp(self) -> DspBoard:
        """The signal processor, of which a design has one."""
        return self.boards[self.dsp_place].part  # type: ignore[return-value]

    @property
    def dsp_place(self) -> int:
        """Its place among the boards."""
        return [board.kind for board in self.boards].index("dsp")
