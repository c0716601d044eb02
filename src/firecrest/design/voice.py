"""The voice: one chain of blocks per channel, in the order of the board."""

from typing import Annotated, Literal

from pydantic import Field
from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, identity, items, number, text

Family = Literal["butterworth", "linkwitz_riley", "bessel"]
Order = Literal[1, 2, 3, 4, 5, 6, 7, 8]
CORNER = ("Corner", "frequency", 5, 20000, "Hz")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class HighPass:
    """Takes away what lies below; Linkwitz-Riley needs an even order."""

    kind: Literal["high_pass"]
    frequency: float = number(*CORNER)
    family: Family = choice("Family", default="butterworth")
    order: Order = choice("Order", default=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class LowPass:
    """Takes away what lies above; Linkwitz-Riley needs an even order."""

    kind: Literal["low_pass"]
    frequency: float = number(*CORNER)
    family: Family = choice("Family", default="butterworth")
    order: Order = choice("Order", default=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class LowShelf:
    """Lifts or lowers everything below; half the dB at the corner."""

    kind: Literal["low_shelf"]
    frequency: float = number(*CORNER)
    gain: float = number("Gain", "gain", -30, 30, "dB", default=0.0)
    q: float = number("Q", "number", 0.1, 5, "", default=0.7071067811865476, digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class HighShelf:
    """Lifts or lowers everything above; half the dB at the corner."""

    kind: Literal["high_shelf"]
    frequency: float = number(*CORNER)
    gain: float = number("Gain", "gain", -30, 30, "dB", default=0.0)
    q: float = number("Q", "number", 0.1, 5, "", default=0.7071067811865476, digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Parametric:
    """Lifts or lowers around one frequency."""

    kind: Literal["parametric"]
    frequency: float = number("Centre", "frequency", 5, 20000, "Hz")
    gain: float = number("Gain", "gain", -30, 30, "dB", default=0.0)
    q: float = number("Q", "number", 0.1, 30, "", default=1.0, digits=2)


Block = Annotated[
    HighPass | LowPass | LowShelf | HighShelf | Parametric, Field(discriminator="kind")
]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Channel:
    """One chain; ``outputs`` equal outputs of an amplifier board carry it, from ``first`` on."""

    id: str = identity("all")
    name: str = text("Name", default="all")
    board: str = identity("amplifier", "Amplifier board")
    outputs: int = number("Outputs", "number", 1, 8, "", default=1, digits=0)
    first: int | None = number(
        "First output",
        "number",
        1,
        32,
        "",
        default=None,
        empty="next free",
        digits=0,
        help="Of those of its board, counted from 1. Empty: the next one that is free.",
    )
    gain: float = number("Level", "gain", -60, 30, "dB", default=0.0)
    inverted: bool = choice("Polarity turned", default=False)
    blocks: tuple[Block, ...] = items("Blocks", default=(), most=32)
    limiter: float | None = number(
        "Limiter",
        "voltage",
        0.1,
        400,
        "V",
        default=None,
        empty="none",
        help="Peak volts at the amplifier's output at which it holds; empty: none.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Voice:
    """All channels; each plays the same input through its own chain."""

    channels: tuple[Channel, ...] = items("Channels", default=(Channel(),), most=8, least=1)
