"""Whether the solver confirms what a closed form says of a box."""

from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.columns import put
from firecrest.assessment.conditions import air_of
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.sounding import model_in
from firecrest.core.arrays import Real, decibel
from firecrest.core.circuit.solve import solve
from firecrest.core.errors import DesignError
from firecrest.design.box import Port, RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.proposals.inverse import solvable

GRID = np.append(np.geomspace(5.0, 2000.0, 500), 50e3)
"""Hz; the last point stands for the pass band."""
WITHIN = 0.5
"""dB by which the solver may find another response, and still confirm a closed form."""
WANTED = -6.0
"""Compared from where the closed form is this many dB down, upwards."""


def bare_response(design: Design) -> Real:
    """Response in dB re the pass band on ``GRID``, of the first channel, into half space.

    As closed forms have it: the coil a resistance, ports lumps, everything at one place, no voice.
    Losses, stuffing and radiators are those of the design. MissingFigureError names what is not
    known.
    """
    numbers = solvable(design).inputs
    for k, group in enumerate(numbers.box.groups):
        constants = group.driver.constants
        assert constants is not None
        plain = replace(constants, l_e=0.0, l_2=0.0, r_2=0.0)
        numbers = put(numbers, ("box", "groups", k, "driver", "constants"), plain)
    for k, _ in placed(numbers.box.openings, Port):
        numbers = put(numbers, ("box", "openings", k, "resonances"), False)
    model = model_in(numbers, Memo(AFRESH))
    solution = solve(model.network, GRID)
    flow = solution.radiated[0]
    if model.network.leaks_count:
        flow = flow + solution.leaked[0]
    level = decibel(GRID * flow * air_of(design.brief.conditions).density)
    return np.asarray(level - level[-1])


@dataclass(frozen=True)
class Apart:
    """By how many dB the solver differs from a closed form, most, and where in Hz."""

    decibels: float
    frequency: float


class UnconfirmedError(DesignError):
    """The solver finds another response than a closed form, which leaves out what is named."""

    def __init__(self, apart: Apart, *, radiators: bool) -> None:
        way = "more" if apart.decibels > 0 else "less"
        cause = "the losses of this box are too large for it"
        if radiators:
            cause = "a radiator has a suspension of its own"
        super().__init__(
            f"The solver does not confirm it: {abs(apart.decibels):.1f} dB {way} at "
            f"{apart.frequency:.0f} Hz, since {cause}."
        )


def most_apart(design: Design, said: Real) -> Apart:
    """Where the solver's response differs most from ``said`` (dB on ``GRID``), from -6 dB up."""
    found = bare_response(design)
    judged = np.logical_and.accumulate((said >= WANTED)[::-1])[::-1]
    apart = np.where(judged, found - said, 0.0)
    worst = int(np.argmax(np.abs(apart)))
    return Apart(float(apart[worst]), float(GRID[worst]))


def confirm(design: Design, said: Real) -> Design:
    """``design``, when the solver confirms the response ``said``; otherwise UnconfirmedError."""
    apart = most_apart(design, said)
    if abs(apart.decibels) <= WITHIN:
        return design
    raise UnconfirmedError(apart, radiators=bool(placed(design.box.openings, RadiatorSet)))
