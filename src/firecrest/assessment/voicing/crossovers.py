"""Where ways meet: pairs of channels of which one ends where the other begins."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import inf, log, sqrt

from firecrest.core.voice.alignment import half_turns
from firecrest.design.blocks import Block, HighPass, LowPass, OwnCrossover, passes
from firecrest.design.voice import Channel, Voice

FAR = 4.0
"""Corners further apart than this ratio are no crossover."""
Filtering = HighPass | LowPass | OwnCrossover


@dataclass(frozen=True)
class Crossover:
    """Channels ``lower`` and ``higher`` meet at ``frequency`` Hz, the middle of their corners.

    ``low_pass`` and ``high_pass`` are the places of the two blocks in their chains.
    """

    lower: int
    higher: int
    frequency: float
    low_pass: int
    high_pass: int
    quadrature: bool


def edge(channel: Channel, kind: str) -> tuple[int, Filtering] | None:
    """(place, block) of a channel's lowest low-pass or highest high-pass in force."""
    found = [
        (k, block)
        for k, block in enumerate(channel.blocks)
        if isinstance(block, HighPass | LowPass | OwnCrossover) and passes(block) == kind
    ]
    if not found:
        return None
    pick = min if kind == "low_pass" else max
    return pick(found, key=lambda item: item[1].frequency)


def middle(channel: Channel) -> float:
    """Ln of about the middle of what a channel plays, to put ways in order."""
    low, high = edge(channel, "high_pass"), edge(channel, "low_pass")
    bottom = 20.0 if low is None else low[1].frequency
    top = 20e3 if high is None else high[1].frequency
    return log(sqrt(bottom * top))


def in_order(voice: Voice) -> list[int]:
    """Places of the channels from the lowest way to the highest."""
    return sorted(range(len(voice.channels)), key=lambda k: middle(voice.channels[k]))


def crossovers(voice: Voice) -> list[Crossover]:
    """Every pair of ways that meet, going up; each way but the lowest is the higher one once."""
    order = in_order(voice)
    found = []
    for place, higher in enumerate(order):
        begins = edge(voice.channels[higher], "high_pass")
        if begins is None:
            continue
        best: tuple[float, Crossover] | None = None
        for lower in order[:place]:
            ends = edge(voice.channels[lower], "low_pass")
            if ends is None:
                continue
            apart = abs(log(ends[1].frequency / begins[1].frequency))
            if apart < log(FAR) and (best is None or apart < best[0]):
                best = apart, _crossover(lower, higher, ends, begins)
        if best is not None:
            found.append(best[1])
    return found


def _crossover(
    lower: int, higher: int, ends: tuple[int, Filtering], begins: tuple[int, Filtering]
) -> Crossover:
    frequency = sqrt(ends[1].frequency * begins[1].frequency)
    both = all(half_turns(block.family, block.order) for _, block in (ends, begins))
    return Crossover(lower, higher, frequency, ends[0], begins[0], both)


def corners(voice: Voice, channel: int, met: Sequence[Crossover]) -> tuple[float, float]:
    """(lower, upper) crossover of a way in Hz; 0 and inf where it has none."""
    below = [c.frequency for c in met if c.higher == channel]
    above = [c.frequency for c in met if c.lower == channel]
    return max(below, default=0.0), min(above, default=inf)


def plain_blocks(channel: Channel) -> tuple[Block, ...]:
    """The blocks without those that cross over: bands, shelves and the like."""
    return tuple(block for block in channel.blocks if passes(block) is None)
