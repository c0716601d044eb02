"""The blocks of a voice chain."""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field
from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, number

Family = Literal["butterworth", "linkwitz_riley", "bessel"]
Order = Literal[1, 2, 3, 4, 5, 6, 7, 8]
CORNER = ("Corner", "frequency", 5, 20000, "Hz")
EVEN_Q = 0.7071067811865476


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Switched:
    """What can be bypassed; it then does nothing and costs the board nothing."""

    bypassed: bool = choice("Bypassed", default=False)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class HighPass(Switched):
    """Takes away what lies below; Linkwitz-Riley needs an even order."""

    kind: Literal["high_pass"]
    frequency: float = number(*CORNER)
    family: Family = choice("Family", default="butterworth")
    order: Order = choice("Order", default=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class LowPass(Switched):
    """Takes away what lies above; Linkwitz-Riley needs an even order."""

    kind: Literal["low_pass"]
    frequency: float = number(*CORNER)
    family: Family = choice("Family", default="butterworth")
    order: Order = choice("Order", default=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class LowShelf(Switched):
    """Lifts or lowers everything below; half the dB at the corner."""

    kind: Literal["low_shelf"]
    frequency: float = number(*CORNER)
    gain: float = number("Gain", "gain", -30, 30, "dB", default=0.0)
    q: float = number("Q", "number", 0.1, 5, "", default=EVEN_Q, digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class HighShelf(Switched):
    """Lifts or lowers everything above; half the dB at the corner."""

    kind: Literal["high_shelf"]
    frequency: float = number(*CORNER)
    gain: float = number("Gain", "gain", -30, 30, "dB", default=0.0)
    q: float = number("Q", "number", 0.1, 5, "", default=EVEN_Q, digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Parametric(Switched):
    """Lifts or lowers around one frequency."""

    kind: Literal["parametric"]
    frequency: float = number("Centre", "frequency", 5, 20000, "Hz")
    gain: float = number("Gain", "gain", -30, 30, "dB", default=0.0)
    q: float = number("Q", "number", 0.1, 30, "", default=1.0, digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Notch(Switched):
    """Takes one frequency out altogether."""

    kind: Literal["notch"]
    frequency: float = number("Centre", "frequency", 5, 20000, "Hz")
    q: float = number("Q", "number", 0.1, 30, "", default=4.0, digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class AllPass(Switched):
    """Turns the phase and leaves the level: half of its whole turn at the corner."""

    kind: Literal["all_pass"]
    frequency: float = number(*CORNER)
    order: Literal[1, 2] = choice("Order", default=1)
    q: float = number(
        "Q", "number", 0.1, 10, "", default=EVEN_Q, digits=2, help="Of a second-order one."
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class LinkwitzTransform(Switched):
    """Gives a closed box another corner and Q: what it has, and what it should have."""

    kind: Literal["linkwitz_transform"]
    source_frequency: float = number("Box has", "frequency", 5, 2000, "Hz")
    source_q: float = number("Its Q", "number", 0.2, 5, "", default=0.9, digits=2)
    frequency: float = number("New corner", "frequency", 5, 2000, "Hz")
    q: float = number("New Q", "number", 0.2, 5, "", default=EVEN_Q, digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class OwnCrossover(Switched):
    """A crossover that the amplifier has by itself: its family and slope are the board's."""

    kind: Literal["own_crossover"]
    side: Literal["low_pass", "high_pass"] = choice("Passes", default="low_pass")
    family: Family = choice("Family", default="butterworth")
    order: Order = choice("Order", default=2)
    frequency: float = number("Frequency", "frequency", 20, 5000, "Hz", default=90.0)
    level: float = number("Level", "gain", -40, 12, "dB", default=0.0)
    turn: float = number(
        "Phase",
        "angle",
        0,
        3.141592653589793,
        "°",
        default=0.0,
        digits=0,
        help="The knob of many plate amplifiers, 0 to 180°: how late it is at its corner.",
    )


Block = Annotated[
    HighPass
    | LowPass
    | LowShelf
    | HighShelf
    | Parametric
    | Notch
    | AllPass
    | LinkwitzTransform
    | OwnCrossover,
    Field(discriminator="kind"),
]


def followed(blocks: Sequence[Block], *more: Block) -> tuple[Block, ...]:
    """A chain with more filters of the board at its end: before a crossover that the amplifier
    has by itself, which comes last.
    """
    own = next((k for k, b in enumerate(blocks) if isinstance(b, OwnCrossover)), len(blocks))
    return (*blocks[:own], *more, *blocks[own:])


def passes(block: Block) -> Literal["low_pass", "high_pass"] | None:
    """What a block in force lets through; None of one that takes neither end away."""
    if block.bypassed:
        return None
    if isinstance(block, HighPass | LowPass):
        return block.kind
    return block.side if isinstance(block, OwnCrossover) else None


def boost_of(block: Block) -> float:
    """Gain in dB of a band or shelf in force, 0 of anything else."""
    return 0.0 if block.bypassed else getattr(block, "gain", 0.0)
