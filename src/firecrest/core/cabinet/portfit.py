"""Whether a port fits into a case: straight, or folded along its walls.

The port starts flush with the outside of the front, runs to the back, turns along the widest free
side, back to the front, and so on inwards. Its middle line stays half its outer thickness off
walls and other runs, its open end half its bore off the wall it faces. A round turn of one
thickness saves (2 - pi/2)/2 of it against a sharp corner. Own construction.
"""

from dataclasses import dataclass
from math import ceil, pi

MOST_BENDS = 6
TURN_SAVES = (2 - pi / 2) / 2


@dataclass(frozen=True)
class Duct:
    """A port as a solid: length along its middle, bore across the fold, outer thickness there,
    outer width the other way, in m, and how many lie side by side.
    """

    length: float
    bore: float
    thickness: float
    width: float
    count: int = 1


@dataclass(frozen=True)
class Space:
    """Room for a port, in m: the front panel, depth behind it, and the two inner sides."""

    panel: float
    depth: float
    side: float
    across: float


@dataclass(frozen=True)
class PortFit:
    """How a port fits with its bends: ``longest`` it could be so, and the ``bends`` it needs.

    ``bends`` is None when it fits in no way; ``narrow`` when it is too thick for the case.
    """

    longest: float
    bends: int | None
    narrow: bool


def longest_run(duct: Duct, space: Space, bends: int) -> float:
    """Longest middle line in m of a port with ``bends`` right-angle turns; 0 when none fits."""
    end, thick = duct.bore / 2, duct.thickness
    if bends == 0:
        return max(space.panel + space.depth - end, 0.0)
    runs = [space.panel + space.depth - thick / 2]
    for k in range(1, bends + 1):
        reach = (space.side if k % 2 else space.depth) - thick * ceil(k / 2)
        runs.append(reach + thick / 2 - end if k == bends else reach)
    if min(runs) <= 0:
        return 0.0
    return sum(runs) - bends * TURN_SAVES * thick


def port_fit(duct: Duct, space: Space, bends: int) -> PortFit:
    """How ``duct`` fits with ``bends`` turns, and the fewest turns with which it does."""
    narrow = duct.thickness > min(space.depth, space.side) or duct.width * duct.count > space.across
    if narrow:
        return PortFit(0.0, None, True)
    reach = [longest_run(duct, space, k) for k in range(MOST_BENDS + 1)]
    needed = next((k for k, longest in enumerate(reach) if longest >= duct.length), None)
    return PortFit(reach[bends], needed, False)
