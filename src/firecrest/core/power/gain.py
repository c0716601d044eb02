"""From the player to full power, and what is heard when nothing plays: gain and hiss."""

from dataclasses import dataclass
from math import log10, sqrt

USUAL_INPUT = 20e3
"""Ohm of an input that states none: an estimate."""
WHITE_TO_A = 2.048
"""DB that white noise, 20 Hz to 20 kHz, reads less through the A-curve."""
HALF_SPACE_VOLTS = 9.036
"""20 lg of 2.83 V over 1 V."""


@dataclass(frozen=True)
class Player:
    """What plays: volts rms into an open end, and ohms behind them."""

    name: str
    volts: float
    resistance: float


PLAYERS = (
    Player("phone", 0.5, 2.0),
    Player("headphone output", 1.2, 10.0),
    Player("line output", 2.0, 600.0),
)
"""Estimates of what is usual."""


@dataclass(frozen=True)
class Processor:
    """The signal processor on the way: volts rms at full scale in and out, ohms of its input."""

    full_scale_in: float
    full_scale_out: float
    resistance: float


@dataclass(frozen=True)
class Driven:
    """What a player brings: volts at the board's input, whether the processor's own input
    overloads, dB over what full power takes (negative: short of it), share of the full power.
    """

    volts: float
    overloads: bool
    margin: float
    share: float


def driven(
    player: Player, input_resistance: float, processor: Processor | None, wanted: float
) -> Driven:
    """How far ``player`` drives a board whose input needs ``wanted`` V rms for full power."""
    ohms = input_resistance if processor is None else processor.resistance
    volts, overloads = player.volts * ohms / (player.resistance + ohms), False
    if processor is not None:
        share = volts / processor.full_scale_in
        overloads = share > 1.0
        volts = min(share, 1.0) * processor.full_scale_out
    margin = 20 * log10(volts / wanted)
    return Driven(volts, overloads, margin, min(1.0, 10 ** (margin / 10)))


def noise_from_ratio(power: float, load: float, ratio: float) -> float:
    """V rms of noise at an output whose signal-to-noise ratio (dB) refers to a claim."""
    return sqrt(power * load) * 10 ** (-ratio / 20)


def noise_at_output(board: float, weighted: bool, gain: float, processor: float | None) -> float:
    """V(A) at a board's output: its own noise, and that of a processor before its ``gain``.

    An unweighted figure of white noise loses ``WHITE_TO_A`` dB through the A-curve.
    """
    own = board**2 * (1.0 if weighted else 10 ** (-WHITE_TO_A / 10))
    fed = 0.0 if processor is None else (gain * processor) ** 2
    return sqrt(own + fed)


@dataclass(frozen=True)
class Hissing:
    """Equal outputs with ``volts`` of noise each; the level at 1 m of what one drives at 2.83 V."""

    volts: float
    count: int
    level: float


def hiss(outputs: list[Hissing], distance: float) -> float:
    """DB(A) at ``distance`` m from all outputs together, whose noises do not know each other."""
    power = sum(
        o.count * 10 ** ((o.level - HALF_SPACE_VOLTS) / 10) * o.volts**2 / distance**2
        for o in outputs
    )
    return 10 * log10(power) if power > 0 else -120.0
