"""Amplifier boards, signal processors and receivers: what their sheets say."""

from typing import Any, Literal

from pydantic.dataclasses import dataclass

from firecrest.design.blocks import Family, Order
from firecrest.design.fields import MODEL, choice, items, number
from firecrest.design.sheet import Sheet


def standby_power(most: float) -> Any:
    """Watts of a thing in standby, up to ``most``."""
    return number(
        "In standby",
        "power",
        0,
        most,
        "W",
        default=0.0,
        digits=2,
        help="While the box is on and asleep; 0 when it is switched off with the rest.",
    )


def _input_resistance() -> Any:
    return number(
        "Input resistance",
        "resistance",
        100,
        1e7,
        "kΩ",
        default=None,
        empty="20 kΩ",
        digits=0,
        help="Of each input. Empty: 20 kΩ, an estimate.",
    )


def _noise(help: str) -> Any:
    return number("Noise at the output", "voltage", 0, 1, "µV", default=None, digits=0, help=help)


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
class OwnFilter:
    """A crossover that an amplifier has built in: what its knobs reach, its family and slope."""

    side: Literal["low_pass", "high_pass"] = choice("Passes", default="low_pass")
    family: Family = choice("Family", default="butterworth")
    order: Order = choice("Order", default=2)
    lowest: float = number("From", "frequency", 20, 5000, "Hz", default=40.0, digits=0)
    highest: float = number("Up to", "frequency", 20, 5000, "Hz", default=200.0, digits=0)
    phase: bool = choice("Has a phase knob", default=True)


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
    fins: Literal["none", "length", "width"] = choice(
        "Cooling fins run",
        default="none",
        help="Along its length or its width; in the case they want to stand upright.",
    )
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
    start_voltage: float | None = number(
        "Starts above",
        "voltage",
        0.5,
        400,
        "V",
        default=None,
        empty="as it stops",
        help="Volts it needs to switch on. Empty: as much as it stops below.",
    )
    sleep_current: float | None = number(
        "Current asleep",
        "current",
        0,
        20,
        "mA",
        default=None,
        empty="cannot sleep",
        digits=0,
        help="Of the whole board, once it has gone to sleep. Empty: it never does.",
    )
    sleep_after: float = number(
        "Sleeps after",
        "time",
        1,
        86400,
        "min",
        default=600.0,
        digits=0,
        help="After the last signal.",
    )
    input_resistance: float | None = _input_resistance()
    noise: float | None = _noise("Volts rms with nothing at the input, gain at its highest.")
    noise_ratio: float | None = number(
        "Signal to noise",
        "gain",
        20,
        150,
        "dB",
        default=None,
        digits=0,
        help="Where no noise in volts is stated: re the power of the first claim.",
    )
    noise_weighted: bool = choice(
        "Noise is A-weighted",
        default=True,
        help="Unweighted noise reads some 2 dB more than the ear hears of it.",
    )
    bulk_capacitance: float = number(
        "Bulk capacitance",
        "capacitance",
        0,
        0.2,
        "µF",
        default=0.0,
        digits=0,
        help="Of the large capacitors at its supply: they draw a surge when it is switched on.",
    )
    heat_resistance: float | None = number(
        "Heat, case to air",
        "thermal resistance",
        0.05,
        200,
        "K/W",
        default=None,
        empty="by its size",
        help="Empty: from the six faces of its brick, an estimate to 40 %.",
    )
    other_outputs: tuple[OutputKind, ...] = items("Outputs of another kind", default=(), most=4)
    own_filter: OwnFilter | None = choice("Crossover of its own", default=None)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Receiver(BoardPart):
    """What receives the sound, by radio or by wire."""

    power: float = number("Power it draws", "power", 0, 100, "W", default=0.0, digits=2)
    standby_power: float = standby_power(100)
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
    whole_samples: bool = choice(
        "Delays by whole samples only",
        default=False,
        help="The response shown is that of the rounded delay.",
    )
    filters: int = number("Filters it has", "number", 0, 500, "", default=20, digits=0)
    full_scale_input: float | None = number(
        "Input at full scale",
        "voltage",
        0.05,
        20,
        "V",
        default=None,
        empty="as its output",
        digits=2,
        help="Volts rms at its input that reach 0 dBFS. Empty: as many as at its output.",
    )
    input_resistance: float | None = _input_resistance()
    noise: float | None = _noise("Volts rms, A-weighted, with nothing at the input.")
    power: float = number("Power it draws", "power", 0, 100, "W", default=0.0, digits=2)
    standby_power: float = standby_power(100)
    regulator: float = number("Regulator efficiency", "share", 0.1, 1, "%", default=0.85, digits=0)
