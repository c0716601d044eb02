"""Thresholds of limiters: the volts that no part is driven past, and what coils bear for long.

Reach and thresholds are our own; definitions in docs/physics.md, "Limiters".
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import floor, log10, sqrt

import numpy as np

from firecrest.core.arrays import Complex, Real, decibel
from firecrest.core.limits.bands import refined_peak
from firecrest.core.limits.programme import weights

GRID = np.geomspace(20.0, 20e3, 1201)
STEP_DB = 0.1
"""DB of full scale in which thresholds are set."""


@dataclass(frozen=True)
class Board:
    """Peak volts at an output for 0 dBFS, and the chain's response at ``GRID``."""

    full_scale: float
    chain: Complex

    def reach(self, low_corner: float) -> Real:
        """Peak volts that a held sine gets to; programme holds less below its ``low_corner`` Hz."""
        held = 1 / np.sqrt(1 + (low_corner / GRID) ** 4)
        return np.asarray(self.full_scale * np.minimum(1.0, np.abs(self.chain)) * held)

    def dbfs(self, peak: float) -> float:
        """DB of full scale of peak volts."""
        return 20 * log10(peak / self.full_scale)


@dataclass(frozen=True)
class Lowest:
    """Peak volts that a part allows, and the Hz at which; None: the same at all."""

    volts: float
    frequency: float | None


@dataclass(frozen=True)
class Threshold:
    """A limiter: exact volts, what gives first, DB of full scale, and both as they are set."""

    volts: float
    dbfs: float
    dbfs_set: float
    volts_set: float
    first: str


def allowed(volts: Mapping[str, Real], reach: Real) -> dict[str, Lowest]:
    """The least peak volts of each part where a held sine gets past it; others are left out.

    ``volts`` are peak volts at ``GRID``; a single number is the same at all frequencies.
    """
    found = {}
    for key, bears in volts.items():
        lowest = _lowest(np.asarray(bears, dtype=np.float64), reach)
        if lowest is not None:
            found[key] = lowest
    return found


def _lowest(bears: Real, reach: Real) -> Lowest | None:
    if bears.ndim == 0:
        return Lowest(float(bears), None) if float(np.max(reach)) > float(bears) else None
    x = np.log(GRID)
    with np.errstate(divide="ignore"):
        own, over = np.log(bears), np.log(reach) - np.log(bears)
    places = np.nonzero(over > 0)[0]
    if len(places) == 0:
        return None
    best = places[np.argmin(own[places])]
    candidates = [(float(own[best]), float(GRID[best]))]
    if 0 < best < len(x) - 1 and over[best - 1] > 0 and over[best + 1] > 0:
        at, height = refined_peak(GRID, own, int(best))
        candidates.append((height, at))
    for k in np.nonzero((over[1:] > 0) != (over[:-1] > 0))[0]:
        share = over[k] / (over[k] - over[k + 1])
        height = own[k] + share * (own[k + 1] - own[k])
        candidates.append((float(height), float(np.exp(x[k] + share * (x[k + 1] - x[k])))))
    height, at = min(candidates)
    return Lowest(float(np.exp(height)), at)


def peak_threshold(board: Board, found: Mapping[str, Lowest]) -> Threshold | None:
    """The peak limiter that keeps every sine within all parts; None: not needed.

    No threshold is low enough for a part that bears nothing at all: it is left out.
    """
    bearing = {key: lowest.volts for key, lowest in found.items() if lowest.volts > 0}
    if not bearing:
        return None
    first = min(bearing, key=lambda key: bearing[key])
    return _threshold(board, bearing[first], first)


def _threshold(board: Board, volts: float, first: str, crest: float = 1.0) -> Threshold:
    dbfs = board.dbfs(volts * crest)
    down = floor(round(dbfs / STEP_DB, 9)) * STEP_DB
    return Threshold(volts, dbfs, down, board.full_scale * 10 ** (down / 20) / crest, first)


@dataclass(frozen=True)
class LongTerm:
    """The rms limiter of a coil, and the loudest programme at its output (V rms)."""

    threshold: Threshold
    loudest: float

    @property
    def needed(self) -> bool:
        """Whether programme can get past it."""
        return self.threshold.volts < self.loudest


def rms_threshold(
    board: Board, impedance: Complex, ohms: float, pe: float, kind: str, duty: float
) -> LongTerm:
    """The rms volts at which programme of ``kind`` heats a coil of ``ohms`` with ``pe`` W.

    ``impedance`` is of one driver at ``GRID``; the programme's power is ``duty`` dB below a sine's.
    """
    power = weights(kind, GRID) * np.abs(board.chain) ** 2
    passed = float(np.sum(power))
    share = float(np.sum(power / np.abs(impedance) ** 2)) / passed
    loudest = board.full_scale / sqrt(2) * 10 ** (-duty / 20) * sqrt(passed)
    return LongTerm(_threshold(board, sqrt(pe / (ohms * share)), "coil", sqrt(2)), loudest)


def lost(board: Board, threshold: Threshold, low: float, high: float) -> float:
    """DB that a peak limiter takes of the loudest note between ``low`` and ``high`` Hz."""
    among = (low <= GRID) & (high >= GRID)
    reach = float(np.max(board.reach(0.0)[among], initial=0.0))
    return max(0.0, float(decibel(reach / threshold.volts_set))) if reach > 0 else 0.0
