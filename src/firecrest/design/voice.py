"""The voice: one chain of blocks per channel, in the order of the board, and stored presets."""

from typing import Literal

from pydantic.dataclasses import dataclass

from firecrest.design.blocks import Block
from firecrest.design.curve import WayCurve
from firecrest.design.fields import MODEL, choice, identity, items, number, text

Mix = Literal["left", "right", "mono", "sub"]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Chain:
    """What one channel does to its signal, from input to output."""

    mix: Mix = choice(
        "Input",
        default="mono",
        help="Left, right, half of both (mono), or shares of both (sub). Sides without anything in "
        "common lose 3 dB in mono; what is on one side only loses 6 dB.",
    )
    left_share: float = number("Share of left", "number", -2, 2, "", default=0.5, digits=2)
    right_share: float = number("Share of right", "number", -2, 2, "", default=0.5, digits=2)
    gain: float = number("Level", "gain", -60, 30, "dB", default=0.0)
    inverted: bool = choice("Polarity turned", default=False)
    delay: float = number(
        "Delay",
        "delay",
        0,
        0.1,
        "ms",
        default=0.0,
        digits=3,
        help="By which this channel comes later; ms, µs, or a path in mm at 343.2 m/s.",
    )
    blocks: tuple[Block, ...] = items("Blocks", default=(), most=40)
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
    limiter_rms: float | None = number(
        "Long-term limiter",
        "voltage",
        0.05,
        300,
        "V",
        default=None,
        empty="none",
        help="Volts rms at the amplifier's output at which it holds, to keep coils cool.",
    )
    limiter_attack: float = number(
        "Its attack",
        "time",
        0.01,
        120,
        "s",
        default=1.0,
        help="A tenth of the coil's time constant; where that is not known 1 s, an estimate.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class WayResponse:
    """What was measured of a way, and how it meets the model of its bass.

    Without curves the way sounds as its model says.
    """

    curves: tuple[WayCurve, ...] = items("Curves", default=(), most=48)
    join: float | None = number(
        "Joined at",
        "frequency",
        20,
        10000,
        "Hz",
        default=None,
        empty="by itself",
        help="Below it the model, above it the curve. Empty: half an octave above the curve's low "
        "end; in the middle of a curve that states neither distance nor volts.",
    )
    hold: Literal["by itself", "measurement", "model"] = choice(
        "Level of",
        default="by itself",
        help="By itself: of the measurement where it states distance and volts, else of the model.",
    )
    low_tail: float | None = number(
        "Slope below",
        "number",
        0,
        30,
        "",
        default=None,
        empty="from the curve",
        help="DB an octave below the first point, for its minimum phase.",
    )
    high_tail: float | None = number(
        "Slope above",
        "number",
        -60,
        0,
        "",
        default=None,
        empty="from the curve",
        help="DB an octave above the last point.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Channel(Chain):
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
    link: str = text(
        "Linked as",
        default="",
        longest=20,
        help="Channels with the same word here share one chain.",
    )
    response: WayResponse = choice("Response", default=WayResponse())


@dataclass(frozen=True, kw_only=True, config=MODEL)
class StoredChain(Chain):
    """The chain of a channel as a preset keeps it."""

    channel: str = identity("all", "Channel")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Preset:
    """A whole voice for one place, under its name."""

    name: str = text("Name", longest=40)
    chains: tuple[StoredChain, ...] = items("Chains", default=(), most=8)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Voice:
    """All channels; each plays its mix of the input through its own chain.

    ``presets`` holds those that are set aside, and the place of the one in force under its name
    ``preset``; what is in force is in the channels.
    """

    channels: tuple[Channel, ...] = items("Channels", default=(Channel(),), most=8, least=1)
    preset: str = text("Preset", default="As set", longest=40)
    presets: tuple[Preset, ...] = items("Presets", default=(), most=12)
