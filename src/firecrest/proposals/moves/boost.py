"""Boost: the largest one of a channel cut by one or two dB."""

from collections.abc import Iterator

from firecrest.core.note import note
from firecrest.design.blocks import boost_of
from firecrest.proposals.moves.kinds import Proposal, Scene, number

CUTS = (1.0, 2.0)


def boost(scene: Scene) -> Iterator[Proposal]:
    """Of every channel that boosts."""
    for k, channel in enumerate(scene.design.voice.channels):
        boosts = [(boost_of(b), n) for n, b in enumerate(channel.blocks)]
        gain, place = max(boosts, default=(0.0, 0))
        for cut in CUTS:
            if gain >= cut:
                path = ("voice", "channels", k, "blocks", place, "gain")
                corner = channel.blocks[place].frequency
                title = note("boost", cut=cut, frequency=corner)
                yield from number(scene, "boost", path, gain - cut, title)
