"""How drivers hang on the voice's channels: all that the box needs to know of the voice."""

from firecrest.assessment.lower import inputs
from firecrest.design.box import DriverGroup
from firecrest.design.voice import Channel

Wiring = tuple[tuple[str, int], ...]
"""(id, outputs) of each voice channel."""


def wiring_of(channels: tuple[Channel, ...]) -> Wiring:
    """The wiring that a voice stands for."""
    return tuple((c.id, c.outputs) for c in channels)


def cone_count(group: DriverGroup | inputs.Group, wiring: Wiring) -> int:
    """Cones of a group that move air of their own, over all outputs; a pair counts once."""
    return group.in_series * group.in_parallel * dict(wiring)[group.channel]


def driver_count(group: DriverGroup | inputs.Group, wiring: Wiring) -> int:
    """Drivers of a group over all outputs of its channel."""
    return cone_count(group, wiring) * (1 if group.pair == "alone" else 2)
