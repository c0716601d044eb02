"""What flows through one opening while all channels play."""

from collections.abc import Sequence
from dataclasses import dataclass

from firecrest.core.arrays import Complex


@dataclass(frozen=True)
class Flow:
    """Volume velocity of one opening, out of its far end and into its near one, (channels, ..., F).

    ``voices`` are the responses of the channels, ``integrated`` the same over jw.
    """

    out: Complex
    into: Complex
    voices: Sequence[Complex]
    integrated: Sequence[Complex]
