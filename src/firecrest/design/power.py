"""Amplifier board, DSP board, pack or supply, converter, and other loads."""

from typing import Annotated, Literal

from pydantic import Field
from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, identity, items, number, text
from firecrest.design.sheet import Sheet

BUS = "bus"
"""The rail of what hangs on the source itself."""


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Claim:
    """What a board's sheet says: power into a load, at a supply and a distortion."""

    power: float = number("Claimed power", "power", 0.001, 10000, "W", digits=2)
    load: float = number("Into", "resistance", 0.5, 200, "Ω", digits=1)
    supply: float | None = number("At a supply of", "voltage", 1, 400, "V", default=None)
    thd: float | None = number(
        "At a distortion of",
        "share",
        1e-4,
        0.3,
        "%",
        default=None,
        empty="10 %",
        digits=1,
        help="Empty: 10 %, an estimate.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class OutputKind:
    """Outputs of a board that are unlike its first ones, as on a 2.1 board, with their claims."""

    channels: int = number("Channels", "number", 1, 8, "", default=1, digits=0)
    bridged: bool = choice("Bridge-tied outputs", default=True)
    claims: tuple[Claim, ...] = items("Claims", least=1, most=12)
    least_load: float | None = number(
        "Rated down to", "resistance", 0.5, 1000, "Ω", default=None, empty="by claims", digits=1
    )
    current_limit: float | None = number(
        "Current limit", "current", 0.05, 200, "A", default=None, empty="estimate"
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Efficiency:
    """One efficiency figure and the claim (counted from 0) it was stated for."""

    value: float = number("Efficiency", "share", 0.05, 0.999, "%", digits=0)
    claim: int = number("For claim", "number", 0, 11, "", default=0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class BoardPart(Sheet):
    """What boards share: a brick in the case, weight and price."""

    length: float | None = number("Length", "length", 0.003, 1, "mm", default=None, digits=0)
    width: float | None = number("Width", "length", 0.003, 1, "mm", default=None, digits=0)
    height: float | None = number("Height", "length", 0.001, 1, "mm", default=None, digits=0)
    volume: float = number("Air it takes", "volume", 0, 0.1, "L", default=0.0, digits=2)
    mass: float = number("Weight", "mass", 0, 100, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e5, "€", default=0.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Amplifier(BoardPart):
    """An amplifier board."""

    form: Literal["board", "plate", "headphone output", "phone output"] = choice(
        "Form", default="board"
    )
    least_load: float | None = number(
        "Rated down to",
        "resistance",
        0.5,
        1000,
        "Ω",
        default=None,
        empty="by claims",
        digits=1,
        help="Least load per output. Empty: the least load among its claims.",
    )
    claims: tuple[Claim, ...] = items("Claims", least=1, most=12)
    channels: int = number("Channels", "number", 1, 8, "", default=2, digits=0)
    bridged: bool = choice("Bridge-tied outputs", default=True)
    boosted: bool = choice("Has its own boost converter", default=False)
    own_mains: bool = choice("Has its own mains supply", default=False)
    gain: float = number(
        "Gain", "gain", 0, 60, "dB", default=26.0, help="From its input to its output."
    )
    current_limit: float | None = number(
        "Current limit",
        "current",
        0.05,
        200,
        "A",
        default=None,
        empty="estimate",
        help="Peak, per output. Empty: 1.25 x the largest clean peak of the claims, an estimate.",
    )
    idle_current: float = number(
        "Idle current",
        "current",
        0,
        20,
        "A",
        default=0.1,
        digits=2,
        help="Of the whole board, playing silence.",
    )
    efficiency: Efficiency | None = choice("Efficiency", default=None)
    cut_off: float | None = number(
        "Stops below", "voltage", 0.5, 400, "V", default=None, empty="none"
    )
    highest_supply: float | None = number(
        "Supply at most",
        "voltage",
        1,
        400,
        "V",
        default=None,
        empty="not known",
        help="Above it the board may break: nothing is promised there.",
    )
    other_outputs: tuple[OutputKind, ...] = items("Outputs of another kind", default=(), most=4)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Receiver(BoardPart):
    """What receives the sound, by radio or by wire."""

    power: float = number("Power it draws", "power", 0, 100, "W", default=0.0, digits=2)
    regulator: float = number("Regulator efficiency", "share", 0.1, 1, "%", default=0.85, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class DspBoard(BoardPart):
    """The signal processor that runs the voice."""

    full_scale: float = number(
        "Output at full scale",
        "voltage",
        0.05,
        20,
        "V",
        default=1.0,
        digits=2,
        help="Volts rms at its output for a 0 dBFS sine.",
    )
    headroom: float = number(
        "Headroom inside",
        "gain",
        0,
        60,
        "dB",
        default=0.0,
        digits=0,
        help="How far filters may go over full scale between its input and its output.",
    )
    sample_rate: float = number(
        "Sample rate", "frequency", 32000, 384000, "kHz", default=96000.0, digits=1
    )
    filters: int = number("Filters it has", "number", 0, 500, "", default=20, digits=0)
    power: float = number("Power it draws", "power", 0, 100, "W", default=0.0, digits=2)
    regulator: float = number("Regulator efficiency", "share", 0.1, 1, "%", default=0.85, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class CellPoint:
    """Rest voltage and resistance of a cell at one charge."""

    charge: float = number("Charge", "share", 0, 1, "%", digits=0)
    rest_voltage: float = number("Rest voltage", "voltage", 0.5, 5, "V", digits=2)
    resistance: float = number("Resistance", "resistance", 0, 2, "mΩ", digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class CellWarmth:
    """What a cell holds and how it resists at one temperature, against 20 °C."""

    temperature: float = number("Temperature", "temperature", 233.15, 333.15, "°C", digits=0)
    capacity: float = number("Capacity left", "share", 0.05, 1.5, "%", digits=0)
    resistance: float = number("Resistance, times", "number", 0.2, 20, "", digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Cell(Sheet):
    """One cell; its tables rise, in charge and in temperature, and are flat beyond their ends.

    Without a table by temperature the usual one of its chemistry is taken, an estimate.
    """

    chemistry: Literal[
        "lithium ion", "lithium iron phosphate", "nickel metal hydride", "lead acid"
    ] = choice("Chemistry", default="lithium ion")
    capacity: float = number("Capacity", "charge", 36, 3.6e6, "Ah", digits=2)
    max_current: float | None = number("Current at most", "current", 0.01, 500, "A", default=None)
    cut_off: float | None = number(
        "Empty below", "voltage", 0.5, 4, "V", default=None, empty="none", digits=2
    )
    table: tuple[CellPoint, ...] = items("Voltage and resistance", least=2, most=60)
    warmth: tuple[CellWarmth, ...] = items("By temperature", default=(), most=20)
    volume: float = number("Room it takes", "volume", 0, 1, "L", default=0.0, digits=3)
    mass: float = number("Weight", "mass", 0, 20, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=1)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class ProtectionBoard:
    """The board that opens when the pack is asked too much."""

    max_current: float | None = number("Opens above", "current", 0.1, 500, "A")
    cut_off: float | None = number(
        "Opens below", "voltage", 0.5, 400, "V", default=None, empty="none", digits=2
    )
    resistance: float = number("Board resistance", "resistance", 0, 1, "mΩ", default=0.0, digits=0)
    volume: float = number("Room it takes", "volume", 0, 1, "L", default=0.0, digits=3)
    mass: float = number("Weight", "mass", 0, 20, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Pack:
    """Cells in series x parallel, behind a protection board and leads."""

    kind: Literal["pack"]
    cell: Cell
    series: int = number("Cells in series", "number", 1, 100, "", default=1, digits=0)
    parallel: int = number("Cells in parallel", "number", 1, 100, "", default=1, digits=0)
    board: ProtectionBoard | None = choice("Protection board", default=None)
    health: float = number(
        "Capacity left by age",
        "share",
        0.3,
        1,
        "%",
        default=1.0,
        digits=0,
        help="100 % is new. At 80 % a cell has some 1.6 times the resistance of a new one.",
    )
    lead_resistance: float = number(
        "Lead resistance", "resistance", 0, 5, "mΩ", default=0.02, digits=0
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class WallSupply(Sheet):
    """A wall supply or laptop brick."""

    kind: Literal["wall"]
    name: str = text("Name", default="Wall supply")
    form: Literal["wall supply", "laptop brick", "house battery", "power bank"] = choice(
        "Form", default="wall supply"
    )
    energy: float | None = number(
        "Energy it holds",
        "energy",
        360,
        1e9,
        "Wh",
        default=None,
        empty="no end",
        digits=0,
        help="Of a battery or power bank, at its output. Empty: from the wall, without end.",
    )
    voltage: float = number("Voltage", "voltage", 1, 400, "V")
    resistance: float = number("Regulation", "resistance", 0, 10, "mΩ", default=0.0, digits=0)
    continuous_current: float = number("Continuous current", "current", 0.05, 500, "A")
    burst_current: float | None = number(
        "Burst current",
        "current",
        0.05,
        1000,
        "A",
        default=None,
        empty="continuous",
        help="Empty: its continuous one.",
    )
    mass: float = number(
        "Weight carried",
        "mass",
        0,
        20,
        "g",
        default=0.0,
        digits=0,
        help="0 when it stays on the wall.",
    )
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Mains:
    """The amplifier has its own mains supply."""

    kind: Literal["mains"]


Source = Annotated[Pack | WallSupply | Mains, Field(discriminator="kind", title="Power from")]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Converter:
    """A step between source and boards."""

    id: str = identity("converter")
    name: str = text("Name", default="Converter")
    output_voltage: float = number("Output", "voltage", 1, 400, "V")
    efficiency: float = number("Efficiency", "share", 0.1, 1, "%", default=0.9, digits=0)
    input_current: float | None = number(
        "Input current at most", "current", 0.05, 500, "A", default=None
    )
    output_current: float | None = number(
        "Output current at most", "current", 0.05, 500, "A", default=None, empty="none stated"
    )
    idle_power: float = number(
        "Takes by itself", "power", 0, 50, "W", default=0.0, digits=2, help="With nothing on it."
    )
    cut_off: float | None = number(
        "Stops below", "voltage", 0.5, 400, "V", default=None, empty="none"
    )
    mass: float = number("Weight", "mass", 0, 20, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=0)


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
