"""Everything between the wall or the cells and the drivers, as it is fitted in a design."""

from typing import Annotated, Literal

from pydantic import Field
from pydantic.dataclasses import dataclass

from firecrest.core.power.wire import resistance
from firecrest.design.amplifiers import Amplifier, DspBoard, Receiver, standby_power
from firecrest.design.fields import MODEL, choice, identity, items, number, text
from firecrest.design.mount import Mount
from firecrest.design.sources import Contact, Converter, Source

BUS = "bus"
"""The rail of what hangs on the source itself."""


@dataclass(frozen=True, kw_only=True, config=MODEL)
class OtherLoad:
    """Lamps, a phone outlet, a radio: watts through a regulator."""

    name: str = text("Name")
    power: float = number("Power", "power", 0, 1000, "W", digits=2)
    efficiency: float = number("Regulator efficiency", "share", 0.1, 1, "%", default=0.85, digits=0)
    standby_power: float = standby_power(1000)
    always_on: bool = choice(
        "Wired before the switch",
        default=False,
        help="It draws what it draws in standby also when the box is switched off.",
    )
    rail: str = identity(BUS, "Fed by")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FittedAmplifier:
    """An amplifier board in the design; ``rail`` is the source itself, or a converter."""

    kind: Literal["amplifier"] = "amplifier"
    id: str = identity("amplifier")
    part: Amplifier
    rail: str = identity(BUS, "Fed by")
    mount: Mount | None = choice("Place", default=None)
    stands: Literal["closed case", "vented case", "outer plate"] = choice(
        "Stands in",
        default="closed case",
        help="The air around it is warmer than outside: 15 K, 5 K, none. Estimates.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Lead:
    """Two wires of one length, with what is plugged or switched on the way."""

    length: float | None = number(
        "Length, one way",
        "length",
        0,
        50,
        "m",
        default=None,
        digits=2,
        help="Current goes there and back: both ways are counted.",
    )
    area: float = number(
        "Wire", "area", 0.05e-6, 100e-6, "mm²", default=0.75e-6, digits=2, help="Copper, each way."
    )
    contacts: float = number(
        "Plugs and switch",
        "resistance",
        0,
        5,
        "mΩ",
        default=0.015,
        digits=0,
        help="Both ways together: about 5 mΩ a plug pair or switch, a fuse 0.1 V at its rating.",
    )

    @property
    def resistance(self) -> float:
        """Ohm of both ways together; contacts alone while the length is not known."""
        if self.length is None:
            return self.contacts
        return self.contacts + resistance(self.length, self.area)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FittedFuse:
    """The fuse at the source."""

    kind: Literal["blade", "ceramic tube, slow"] = choice("Type", default="blade")
    rating: float = number("Rating", "current", 0.1, 200, "A", digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Switch:
    """The switch between source and boards."""

    rating: float = number("Switch bears", "current", 0.05, 200, "A", default=6.0)
    volts: float | None = number(
        "Up to, direct current",
        "voltage",
        1,
        400,
        "V",
        default=None,
        empty="a.c. only",
        digits=0,
        help="Empty: rated for alternating current alone; its amperes then hold up to 30 V.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FittedDsp:
    """The signal processor in the design."""

    kind: Literal["dsp"] = "dsp"
    id: str = identity("dsp")
    part: DspBoard
    rail: str = identity(BUS, "Fed by")
    mount: Mount | None = choice("Place", default=None)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class FittedReceiver:
    """A receiver in the design."""

    kind: Literal["receiver"] = "receiver"
    id: str = identity("receiver")
    part: Receiver
    rail: str = identity(BUS, "Fed by")
    mount: Mount | None = choice("Place", default=None)


Board = Annotated[FittedAmplifier | FittedDsp | FittedReceiver, Field(discriminator="kind")]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Power:
    """Everything between the wall or the cells and the drivers, all on one source."""

    boards: tuple[Board, ...] = items("Boards", least=2, most=12)
    source: Source
    converters: tuple[Converter, ...] = items("Converters", default=(), most=8)
    other_loads: tuple[OtherLoad, ...] = items("Other loads", default=())
    lead: Lead = choice("Lead from the source", default=Lead())
    speaker_lead: Lead = choice("Leads to the drivers", default=Lead(contacts=0.0))
    fuse: FittedFuse | None = choice("Fuse", default=None)
    switch: Switch | None = choice("Switch", default=None)
    plug: Contact | None = choice("Plug at the source", default=None)

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
