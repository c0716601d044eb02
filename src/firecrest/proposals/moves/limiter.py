"""A limiter, at the volts at which the first part gives out where loudness is held."""

from collections.abc import Iterator
from math import floor, sqrt

import numpy as np

from firecrest.core.limits.ceiling import code_at
from firecrest.core.note import note
from firecrest.proposals.moves.kinds import Proposal, Scene, number

PART_LIMITS = ("C", "R", "U", "H")
"""Limits that harm or are heard when they are passed: not the amplifier's own."""


def limiter(scene: Scene) -> Iterator[Proposal]:
    """Of the channel whose part gives first, where it has no limiter yet."""
    a = scene.assessment.acoustic
    if a is None or a.loudness is None:
        return
    point, limit = a.loudness.point, a.limits[a.loudness.limit]
    if code_at(limit, point) not in PART_LIMITS:
        return
    drive = float(np.ravel(np.broadcast_to(limit.factor, a.frequency.shape))[point])
    for place, output in enumerate(a.transfers.outputs):
        channel = scene.design.voice.channels[place]
        if channel.limiter is None:
            volts = sqrt(2.0) * drive * float(np.abs(np.ravel(output.voltage)[point]))
            path = ("voice", "channels", place, "limiter")
            title = note("limiter move", volts=floor(10 * volts) / 10, channel=channel.name)
            yield from number(scene, "limiter", path, floor(10 * volts) / 10, title)
            return
