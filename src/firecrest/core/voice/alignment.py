"""Lining ways up: levels, delays, polarity, and how well they follow each other.

Definitions are in docs/physics.md, "Lining up". Sum and quadrature: Vanderkooy & Lipshitz, JAES 34
(1986) 236; the delay finder is our own.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import sqrt
from typing import Literal

import numpy as np

from firecrest.core.arrays import Complex, Real, decibel
from firecrest.core.voice.chain import delayed
from firecrest.core.voice.response import REFERENCE

Criterion = Literal["sum", "phase", "flattest"]
TIE = 0.05
"""DB within which delays are as good as one another."""
STEP = 5e-8
"""S to which a delay is found."""
HOLE = 6.0
"""DB of a hole from which polarity is spoken of."""
TOO_DEEP = 40.0
"""DB from which a reverse null is only said to be over that."""
IN_STEP = 20.0
"""DB of a reverse null from which two ways are well in phase."""
PLAY = np.linspace(-1.0, 1.0, 401)
"""Delays tried first, in half periods of the crossover."""


def gains_of(levels: Sequence[float]) -> tuple[float, ...]:
    """Gains in dB that turn louder ways down to the softest; never positive."""
    return tuple(min(levels) - level for level in levels)


def band_of_way(
    lower: float | None, upper: float | None, reach: float, top: float = 10e3
) -> tuple[float, float]:
    """Where a way's level is taken: between its crossovers, half an octave in from each.

    The lowest way starts at twice the brief's bass frequency ``reach`` (an eighth of its upper
    crossover at the least), the highest ends at ``top``; a band under an octave takes all of it.
    """
    high = top if upper is None else upper / sqrt(2)
    if lower is None:
        end = upper if upper is not None else top
        return max(2 * reach, end / 8), high
    low = lower * sqrt(2)
    if high < 2 * low:
        return lower, top if upper is None else upper
    return low, high


def octave(corner: float) -> tuple[float, float]:
    """The octave about a crossover."""
    return corner / sqrt(2), corner * sqrt(2)


WayAt = Callable[[Real], Complex]
"""Pressure in Pa of a way through its chain, at frequencies in Hz."""


@dataclass(frozen=True)
class Pair:
    """Two neighbouring ways and the rising points (Hz) at which their curves are known."""

    points: Real
    low: WayAt
    high: WayAt

    def over(self, low: float, high: float) -> "Both":
        """The two at the points of a band and at its ends."""
        inner = self.points[(self.points > low) & (self.points < high)]
        frequency = np.concatenate(([low], inner, [high]))
        return Both(frequency, self.low(frequency), self.high(frequency))


@dataclass(frozen=True)
class Both:
    """The pressures of a pair on a band's points and ends."""

    frequency: Real
    low: Complex
    high: Complex

    def mean(self, values: Real) -> Real:
        """Means (...) of values (..., F) over the band, by trapezoids over ln f."""
        x = np.log(self.frequency)
        return np.asarray(np.trapezoid(values, x, axis=-1) / (x[-1] - x[0]))

    def together(self, delays: Real, sign: int) -> Complex:
        """The sum with the higher way later by each of ``delays`` (D,): (D, F)."""
        late = delayed(np.reshape(delays, (-1, 1)), self.frequency)
        return np.asarray(self.low + sign * self.high * late)


@dataclass(frozen=True)
class Setting:
    """A delay (s) of the higher way against the lower, whether it is turned, its worth."""

    delay: float
    inverted: bool
    worth: float


@dataclass(frozen=True)
class Found:
    """The best setting of a pair, the next best of another kind, and by what it was judged."""

    criterion: Criterion
    best: Setting
    runner_up: Setting | None
    phase_match: Setting
    flatness: float | None = None


Judge = Callable[[Real, int], Real]


def _sum_level(both: Both, delays: Real, sign: int) -> Real:
    """Mean of the sum in dB."""
    return both.mean(decibel(both.together(delays, sign) / REFERENCE))


def _out_of_phase(both: Both, delays: Real, sign: int) -> Real:
    """Root of the mean square of the phase between the two, rad."""
    late = delayed(np.reshape(delays, (-1, 1)), both.frequency)
    return np.asarray(np.sqrt(both.mean(np.angle(both.low / (sign * both.high * late)) ** 2)))


def _ripple(both: Both, delays: Real, sign: int) -> Real:
    """Standard deviation in dB of the sum."""
    level = decibel(both.together(delays, sign))
    return np.asarray(np.sqrt(both.mean((level - both.mean(level)[:, None]) ** 2)))


def _maxima(judge: Judge, start: float, half: float, sign: int) -> list[Setting]:
    """Local maxima of a judge around ``start``, window's ends included when it falls from them."""
    delays = start + half * PLAY
    worth: Real = np.concatenate(([-np.inf], judge(delays, sign), [-np.inf]))
    found = []
    for k in np.nonzero((worth[1:-1] >= worth[:-2]) & (worth[1:-1] > worth[2:]))[0]:
        low, high = delays[max(int(k) - 1, 0)], delays[min(int(k) + 1, len(delays) - 1)]
        at = _peak(lambda d: float(judge(np.array([d]), sign)[0]), float(low), float(high))
        found.append(Setting(at, sign < 0, float(judge(np.array([at]), sign)[0])))
    return found


def _peak(worth: Callable[[float], float], low: float, high: float) -> float:
    """Where a function with one maximum between ``low`` and ``high`` has it, by golden section."""
    share = (sqrt(5) - 1) / 2
    a, b = high - share * (high - low), low + share * (high - low)
    left, right = worth(a), worth(b)
    while high - low > STEP / 4:
        if left >= right:
            high, b, right = b, a, left
            a = high - share * (high - low)
            left = worth(a)
        else:
            low, a, left = a, b, right
            b = low + share * (high - low)
            right = worth(b)
    return (low + high) / 2


def _nearest(found: list[Setting], start: float) -> Setting:
    """Of all within ``TIE`` of the best the one nearest ``start``, rather not turned."""
    best = max(s.worth for s in found)
    near = [s for s in found if s.worth >= best - TIE]
    return min(near, key=lambda s: (abs(s.delay - start), s.inverted))


def best_delay(pair: Pair, corner: float, start: float, quadrature: bool) -> Found:
    """The delay and polarity of the higher of two ways that make most of their sum.

    ``pair`` is without the delays and polarities of both; ``corner`` is their crossover in Hz,
    ``start`` what their arrivals say (s). Two ways in quadrature by design are made flattest over
    two octaves instead: the largest sum would turn flat into a hump.
    """
    half = 1 / (2 * corner)
    whole, wide = pair.over(*octave(corner)), pair.over(corner / 2, 2 * corner)
    criterion: Criterion = "flattest" if quadrature else "sum"

    def _judge(d: Real, s: int) -> Real:
        return -_ripple(wide, d, s) if quadrature else _sum_level(whole, d, s)

    found = [m for sign in (1, -1) for m in _maxima(_judge, start, half, sign)]
    best = _nearest(found, start)
    others = [m for m in found if m is not best]
    sign = -1 if best.inverted else 1
    matches = _maxima(lambda d, s: -_out_of_phase(whole, d, s), start, half, sign)
    match = max(matches, key=lambda s: s.worth)
    return Found(
        criterion,
        best,
        max(others, key=lambda s: s.worth) if others else None,
        Setting(match.delay, match.inverted, -match.worth),
    )


def delays_of(found: Sequence[Setting]) -> tuple[tuple[float, ...], tuple[bool, ...]]:
    """Delays (s, none negative) and polarities of all ways from those pair by pair, going up."""
    delays, turned = [0.0], [False]
    for setting in found:
        delays.append(delays[-1] + setting.delay)
        turned.append(turned[-1] != setting.inverted)
    return tuple(d - min(delays) for d in delays), tuple(turned)


@dataclass(frozen=True)
class Tracking:
    """How two ways follow each other through their crossover: phase in rad, dB.

    ``null`` is the deepest that turning one of them digs, at ``null_frequency``; ``hole`` is what
    turning one would fill, at ``hole_frequency`` (0 or less: nothing).
    """

    difference_max: float
    difference_rms: float
    loss: float
    null: float
    null_frequency: float
    hole: float
    hole_frequency: float


def tracking(pair: Pair, corner: float) -> Tracking:
    """Phase difference and loss of the sum in the octave, null and hole within two octaves."""
    near = pair.over(*octave(corner))
    apart = np.angle(near.high / near.low)
    lost = decibel(near.low + near.high) - decibel(np.abs(near.low) + np.abs(near.high))
    null, at = _extreme(pair, corner, 1.0)
    hole, where = _extreme(pair, corner, -1.0)
    return Tracking(
        float(np.max(np.abs(apart))),
        float(np.sqrt(near.mean(apart**2))),
        float(np.min(lost)),
        null,
        at,
        hole,
        where,
    )


def _extreme(pair: Pair, corner: float, sign: float) -> tuple[float, float]:
    """(dB, Hz) of the largest sum over difference (``sign`` 1), or difference over sum (-1).

    Within an octave of a crossover, refined between the points.
    """
    places = pair.over(corner / 2, 2 * corner).frequency
    for _ in range(5):
        low, high = pair.low(places), pair.high(places)
        found = sign * (decibel(low + high) - decibel(low - high))
        k = int(np.argmax(found))
        best = float(found[k]), float(places[k])
        places = np.geomspace(places[max(k - 1, 0)], places[min(k + 1, len(places) - 1)], 101)
    return best


def half_turns(family: str, order: int) -> bool:
    """Whether two ways of this filter stand in quadrature: odd Butterworth, any first order."""
    return order == 1 or (family == "butterworth" and order % 2 == 1)


def offset_in(delay: float, rate: float, speed: float) -> tuple[float, float, float]:
    """A delay (s) in ms, samples and mm."""
    return delay * 1e3, delay * rate, delay * speed * 1e3


def to_sample(delay: float, rate: float) -> float:
    """The delay (s) of a board that delays by whole samples."""
    return round(delay * rate) / rate
