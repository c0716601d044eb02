"""What a board really gives: clean watts into a resistor on the bus that a design has."""

from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.electrical import boards_of, source_at, standing_of
from firecrest.assessment.lower import inputs
from firecrest.core.limits.bus import Bus
from firecrest.core.limits.draw import Output, draw_of
from firecrest.core.limits.elements import Asked, Ratings
from firecrest.core.limits.kinds import Ask, reached
from firecrest.core.limits.material import HELD_SINE
from firecrest.design.brief import Conditions


@dataclass(frozen=True)
class CleanWatts:
    """Watts of a clean sine from each of a board's channels, all driven, and what ends it."""

    watts: float
    limit: str


def clean_watts(
    power: inputs.Power, board: int, kind: int, load: float, channels: int, held: Conditions
) -> CleanWatts:
    """Clean burst of a sine into ``load`` ohm on all ``channels`` of one kind of a board's outputs
    in the conditions ``held``; everything else stands idle.

    The smallest of swing, collapse, output and source currents; the long-term rating of a supply
    is left out, as it bears more for a burst.
    """
    boards = boards_of(power, ((board, kind, 0),))
    output = Output(np.ones(1), np.full(1, 1.0 / load), channels)
    ratings = Ratings((), (), (), (), (), (None,), ())
    source = replace(source_at(power, held.charge, held.temperature), continuous=None)
    bus = Bus(source, standing_of(power), draw_of((output,), boards, HELD_SINE))
    limits = reached(Ask(Asked(np.ones(1)), ratings, boards, bus, HELD_SINE.above))
    first = min(limits, key=lambda limit: float(np.ravel(limit.factor)[0]))
    drive = float(np.ravel(first.factor)[0])
    return CleanWatts(drive**2 / load, first.name)
