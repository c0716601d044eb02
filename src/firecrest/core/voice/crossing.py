"""Where two ways may be crossed over: how low a way bears it, and what the range is.

Displacement limit: Small, JAES 20 (1972) 798. The rule of the range is our own.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from math import inf, pi, sqrt

import numpy as np

from firecrest.core.arrays import Complex, Real
from firecrest.core.limits.programme import weights
from firecrest.core.voice.chain import Filter, analogue_response

RANGE = (100.0, 15e3)
"""Hz between which a corner is looked for; what would do below the first has no limit."""
GRID = np.geomspace(20.0, 20e3, 2401)
MARGIN = 1.2
"""A corner is proposed this much above the lowest safe one."""
LUMPED = 3.0
"""ka up to which a cone is taken as one piece."""


@dataclass(frozen=True)
class Borne:
    """What a way bears and does per volt at ``GRID``: coil ``ohms``, its current and cone speed.

    ``xmax`` in m and ``pe`` in W are None where they are not known; ``volts`` is the rms of the
    sine that makes the promised level far above resonance.
    """

    velocity: Complex
    current: Complex
    ohms: float
    xmax: float | None
    pe: float | None
    volts: float


def volts_for(
    pressure: float, solid_angle: float, distance: float, driver: Sequence[float], density: float
) -> float:
    """Volts rms for a ``pressure`` (Pa rms) where mass rules: p Omega r Re Mms/(rho Bl Sd).

    ``driver`` is (Re, Mms, Bl, Sd), ``density`` the air's.
    """
    r_e, m_ms, bl, s_d = driver
    return pressure * solid_angle * distance * r_e * m_ms / (density * bl * s_d)


def lowest_by_travel(borne: Borne, corner: Filter) -> float | None:
    """Hz above which a high-pass keeps a cone within Xmax; 0: no limit; None: not known."""
    if borne.xmax is None:
        return None
    travel = sqrt(2) * borne.volts * np.abs(borne.velocity) / (2 * pi * GRID)
    limit = borne.xmax
    return _lowest(lambda gain: float(np.max(travel * gain)) <= limit, corner)


def lowest_by_heat(borne: Borne, corner: Filter, kind: str, duty: float) -> float | None:
    """The same of the coil: programme of ``kind``, its power ``duty`` dB below a sine's."""
    if borne.pe is None:
        return None
    long_term = (borne.volts * 10 ** (-duty / 20)) ** 2
    watts = long_term * borne.ohms * np.abs(borne.current) ** 2 * weights(kind, GRID)
    limit = borne.pe
    return _lowest(lambda gain: float(np.sum(watts * gain**2)) <= limit, corner)


def _lowest(kept: Callable[[Real], bool], corner: Filter) -> float:
    def _bears(f: float) -> bool:
        return kept(np.abs(analogue_response(replace(corner, frequency=f), GRID)))

    low, high = RANGE
    if _bears(low):
        return 0.0
    if not _bears(high):
        return inf
    while high / low > 1.00005:
        middle = sqrt(low * high)
        low, high = (low, middle) if _bears(middle) else (middle, high)
    return high


@dataclass(frozen=True)
class CrossingRange:
    """Where two ways may be crossed: from ``low`` to ``high`` Hz, each with the code of its reason.

    ``low`` above ``high``: the two disagree.
    """

    low: float
    high: float
    low_reason: str
    high_reason: str

    @property
    def agrees(self) -> bool:
        """Whether there is such a range."""
        return self.low <= self.high


def crossing_range(
    lows: Sequence[tuple[float, str]], highs: Sequence[tuple[float, str]]
) -> CrossingRange:
    """The range that the highest of ``lows`` and the lowest of ``highs`` leave."""
    low, high = max(lows), min(highs)
    return CrossingRange(low[0], high[0], low[1], high[1])
