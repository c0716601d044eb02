"""Which outputs of which board carry each voice channel."""

from collections.abc import Sequence

from firecrest.design.power import FittedAmplifier
from firecrest.design.voice import Channel

Carried = tuple[int, int, int]
"""Outputs of one channel: place of its board among the amplifiers, kind of output there (0: the
first ones, then ``other_outputs``), and the first output, counted from 0 on the board.
"""


def output_kinds(board: FittedAmplifier) -> list[int]:
    """Kind of every output of a board, in order."""
    counts = [board.part.channels, *(kind.channels for kind in board.part.other_outputs)]
    return [kind for kind, count in enumerate(counts) for _ in range(count)]


def carried(
    amplifiers: Sequence[FittedAmplifier], channels: Sequence[Channel]
) -> tuple[list[Carried], list[str]]:
    """(outputs of each channel, what stands in the way, in words).

    Channels that name their first output take theirs, then the others the next free ones of equal
    kind, in order. The list is complete only where nothing stands in the way.
    """
    found: dict[int, Carried] = {}
    problems: list[str] = []
    used: list[set[int]] = [set() for _ in amplifiers]
    ids = [board.id for board in amplifiers]
    for k in sorted(range(len(channels)), key=lambda k: channels[k].first is None):
        channel = channels[k]
        if channel.board not in ids:
            problems.append(f"there is no amplifier board {channel.board}")
            continue
        board = ids.index(channel.board)
        kinds = output_kinds(amplifiers[board])
        firsts = range(len(kinds)) if channel.first is None else [channel.first - 1]
        fits = (f for f in firsts if _free(kinds, used[board], f, channel.outputs))
        first = next(fits, None)
        if first is None:
            problems.append(_lacks(amplifiers[board], kinds, channel, channels))
            continue
        used[board] |= set(range(first, first + channel.outputs))
        found[k] = (board, kinds[first], first)
    return [found[k] for k in sorted(found)], problems


def _free(kinds: Sequence[int], used: set[int], first: int, count: int) -> bool:
    """Whether ``count`` equal outputs from ``first`` on are there and free."""
    wanted = range(first, first + count)
    return (
        first + count <= len(kinds)
        and len({kinds[place] for place in wanted}) == 1
        and not used.intersection(wanted)
    )


def _lacks(
    board: FittedAmplifier, kinds: Sequence[int], channel: Channel, channels: Sequence[Channel]
) -> str:
    """Why a channel gets no outputs."""
    name, wanted = board.part.name, sum(c.outputs for c in channels if c.board == board.id)
    if wanted > len(kinds):
        return f"the voice uses {wanted} outputs, {name} has {len(kinds)}"
    if channel.first is not None:
        last = channel.first + channel.outputs - 1
        return f"outputs {channel.first} to {last} of {name} are not there, unlike, or in use"
    return f"{name} has no {channel.outputs} equal outputs left for voice channel {channel.id}"


def dealt(
    board: FittedAmplifier, amplifiers: Sequence[FittedAmplifier], channels: Sequence[Channel]
) -> list[str]:
    """Name of the channel on each output of a board, in order; "" where one is free."""
    names = [""] * len(output_kinds(board))
    for channel, (place, _, first) in zip(channels, carried(amplifiers, channels)[0], strict=True):
        if amplifiers[place] is board:
            for k in range(first, first + channel.outputs):
                names[k] = channel.name
    return names
