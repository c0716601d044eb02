"""Bands that bring a response to its target: bounded, never past what may be boosted.

The problem is that of docs/physics.md, "Automatic EQ": least weighted rms of the error in dB under
bounds of every figure and a ceiling of the boost at every point. Solved by damped least squares
(Nocedal & Wright, Numerical Optimization (2006), 10.3) with an augmented Lagrangian for the ceiling
(17.4), from bands placed one by one where they take most away, and by placing bands anew.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import log, pi, sqrt

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.voice.dips import FILLED, Dip, weights_of

ALLOWED = 0.01
"""DB by which a boost may pass its ceiling."""
_DB = 10 / log(10)
_SLOPE = log(10) / 20
_SHAPE_Q = (0.4, 0.7, 1.2, 2.0, 3.5, 6.0, 10.0)
_SHAPES = 60
"""Frequencies at which a new band is tried first."""
_DENSE = 48
"""Points an octave on which bands are looked for; the last polish is on all."""
_LOOSE = 0.03
"""DB below its ceiling at which a boost that was held back is let go on."""
_NEAR = 1.2
"""A try that is no nearer to the best than this, after a few steps, is given up."""
_PUSH = 0.5
"""Weight of a point past the ceiling against all points of the band together."""


@dataclass(frozen=True)
class Bounds:
    """Where bands lie (Hz) and between what their gain (dB) and Q are held."""

    band: tuple[float, float]
    gain: tuple[float, float] = (-12.0, 6.0)
    q: tuple[float, float] = (0.4, 8.0)


@dataclass(frozen=True)
class Task:
    """What is to be flattened, at rising ``frequency`` (F,) in Hz.

    ``error`` is response less target in dB with its mean already taken off, ``weights`` (F,) sum to
    1 and are 0 where nothing counts, ``ceiling`` is the boost in dB allowed at each point. Bands
    lie in ``band``; their gain and Q within their bounds. ``rate`` is the board's.
    """

    frequency: Real
    error: Real
    weights: Real
    ceiling: Real
    rate: float
    band: tuple[float, float]
    gain: tuple[float, float]
    q: tuple[float, float]

    def rms(self, boost: Real) -> float:
        """Root of the weighted mean square of the error with a ``boost`` (F,) in dB."""
        return float(np.sqrt(np.sum(self.weights * (self.error + boost) ** 2)))

    def thinned(self) -> "Task":
        """The points that matter, and of these no more than ``_DENSE`` an octave."""
        matter = (self.weights > 0) | np.isfinite(self.ceiling)
        octaves = np.log2(self.frequency[matter][-1] / self.frequency[matter][0])
        dense = np.count_nonzero(matter) / (octaves * _DENSE)
        first = np.arange(0, np.count_nonzero(matter), max(1, round(dense)))
        return Task(
            self.frequency[matter][first],
            self.error[matter][first],
            np.add.reduceat(self.weights[matter], first),
            self.ceiling[matter][first],
            self.rate,
            self.band,
            self.gain,
            self.q,
        )


def task_of(
    response: tuple[Real, Real],
    target: Real,
    left_out: Sequence[Dip],
    ceiling: Real | None,
    bounds: Bounds,
    rate: float,
    offset: float = 0.0,
) -> Task:
    """What is to be done to a ``response`` (Hz, dB; (F,) each) to come to a ``target`` (dB, (F,)).

    The mean over what counts is taken off first, so that no EQ wins by turning all down; a negative
    ``offset`` (dB) favours cuts. Nothing in ``left_out`` counts or is lifted by more than 1 dB;
    ``ceiling`` is the boost allowed at each point, None: any.
    """
    frequency, level = response
    weights = weights_of(frequency, bounds.band, left_out)
    error = level - target
    allowed = np.full(len(frequency), np.inf) if ceiling is None else np.maximum(ceiling, 0.0)
    for dip in left_out:
        inside = (frequency >= dip.low * (1 - 1e-9)) & (frequency <= dip.high * (1 + 1e-9))
        allowed = np.where(inside, np.minimum(allowed, FILLED), allowed)
    error = error - np.sum(weights * error) - offset
    return Task(frequency, error, weights, allowed, rate, bounds.band, bounds.gain, bounds.q)


ROUNDS = {False: 20, True: 10}
"""Times that bands are placed anew: fewer where a ceiling makes each of them slower."""
Bands = Real
"""(N, 3): ln Hz, dB, ln Q."""


def _warped(task: Task) -> Real:
    return np.asarray(np.tan(pi * task.frequency / task.rate))


def boost_of(task: Task, bands: Bands) -> Real:
    """DB of all bands together at the points, (F,)."""
    return _boost(_warped(task), task.rate, bands)


def _boost(warped: Real, rate: float, bands: Bands) -> Real:
    u, p, q, _ = _parts(warped, rate, bands)
    return np.asarray(_DB * np.log(np.prod((u + p) / (u + q), axis=0)))


def _levels(warped: Real, rate: float, bands: Bands) -> Real:
    """DB of each band, (N, F): 10 lg((u + p)/(u + q)), u = (1/x - x)^2, x the warped f/f0."""
    u, p, q, _ = _parts(warped, rate, bands)
    return np.asarray(_DB * np.log((u + p) / (u + q)))


def _parts(warped: Real, rate: float, bands: Bands) -> tuple[Real, Real, Real, Real]:
    """u, p and q of each band, and the square of its warped f/f0."""
    corner = np.exp(bands[:, 0]) * pi / rate
    square = (warped[None, :] / np.tan(corner)[:, None]) ** 2
    u = 1 / square + square - 2
    up = _SLOPE * bands[:, 1]
    p = np.exp(up - 2 * bands[:, 2])[:, None]
    q = np.exp(-up - 2 * bands[:, 2])[:, None]
    return u, p, q, square


def _derived(warped: Real, rate: float, bands: Bands) -> tuple[Real, Real]:
    """(boost (F,), its derivatives (3N, F) with respect to the rows of ``bands``)."""
    u, p, q, square = _parts(warped, rate, bands)
    corner = np.exp(bands[:, 0]) * pi / rate
    moved = (4 * corner / np.sin(2 * corner))[:, None] * (1 / square - square)
    above, below = 1 / (u + p), 1 / (u + q)
    boost = _DB * np.log(np.prod(below / above, axis=0))
    rows = np.empty((len(bands), 3, len(warped)))
    rows[:, 0] = _DB * (above - below) * moved
    rows[:, 1] = 0.5 * (p * above + q * below)
    rows[:, 2] = -2 * _DB * (p * above - q * below)
    return boost, rows.reshape(-1, len(warped))


_NOTHING = np.zeros(1)


class _Search:
    """The state of one search: shapes to try, and how far each polishing goes."""

    def __init__(self, task: Task) -> None:
        self.task, self.warped = task, _warped(task)
        self.low = np.array([log(task.band[0]), task.gain[0], log(task.q[0])])
        self.high = np.array([log(task.band[1]), task.gain[1], log(task.q[1])])
        self.held = np.isfinite(task.ceiling)
        self.limited = bool(self.held.any())
        self.ways = (False, True) if self.limited else (True,)
        corners = np.linspace(self.low[0], self.high[0], _SHAPES)
        qualities = [log(q) for q in _SHAPE_Q if task.q[0] <= q <= task.q[1]] or [self.low[2]]
        self.shapes = np.array([(f, 1.0, q) for q in qualities for f in corners])
        self.unit = _levels(self.warped, task.rate, self.shapes)
        self.power = self.unit**2 @ task.weights

    def left(self, bands: Bands) -> float:
        """The rms that bands leave."""
        return self.task.rms(boost_of(self.task, bands))

    def placed(self, bands: Bands, held: bool) -> Bands:
        """The bands and one more, where a single one takes most of what is left.

        It stays below the ceiling where that is ``held``; else polishing will see to it.
        """
        task, boost = self.task, boost_of(self.task, bands)
        left = task.error + boost
        gain = -(self.unit @ (task.weights * left)) / self.power
        gain = np.clip(gain, task.gain[0], task.gain[1])
        if held:
            room = np.maximum(task.ceiling - boost, 0.0)[self.held] + 0.25
            most = np.min(room / np.maximum(self.unit[:, self.held], 1e-3), axis=1)
            gain = np.minimum(gain, np.maximum(most, 0.0))
        taken = self.power * gain**2 + 2 * gain * (self.unit @ (task.weights * left))
        best = int(np.argmin(taken))
        new = self.shapes[best].copy()
        new[1] = gain[best]
        return np.concatenate((bands, new[None, :]))

    def starts(self, count: int) -> list[tuple[Bands, bool, int]]:
        """Where bands begin: (bands, ``free``, how many too many to begin with).

        With none, or with deep cuts where nothing counts; ``free``: the ceiling is seen to at the
        end only.
        """
        none: Bands = np.empty((0, 3))
        if not self.limited:
            return [(none, True, more) for more in (0, 2, 4)]
        cuts = self.cuts()
        found = [(none, False, 0), (none, True, 0), (none, False, 2), (none, True, 4)]
        if len(cuts) and len(cuts) < count:
            doubled = np.concatenate((cuts, cuts))[: count - 1]
            found += [(cuts, False, 0), (doubled, False, 0)]
        return found

    def cuts(self) -> Bands:
        """A deep narrow cut in the middle of each stretch of the band where nothing counts."""
        f, band = self.task.frequency, self.task.band
        left_out = (f >= band[0]) & (f <= band[1]) & (self.task.weights == 0)
        edges = np.flatnonzero(np.diff(np.concatenate(([0], left_out.astype(int), [0]))))
        middles = [
            (log(sqrt(f[a] * f[b - 1])), self.low[1], log(4.0))
            for a, b in zip(edges[::2], edges[1::2], strict=True)
        ]
        return np.asarray(np.clip(np.reshape(middles, (-1, 3)), self.low, self.high))

    def grown(self, bands: Bands, count: int, free: bool) -> Bands:
        """The bands with more, one by one, up to ``count``."""
        while len(bands) < count:
            bands = self.polished(self.placed(bands, not free), 12, not free)
        return bands

    def pruned(self, bands: Bands, count: int, free: bool) -> Bands:
        """The bands without those that are missed least, one by one, down to ``count``."""
        while len(bands) > count:
            bands = np.delete(bands, self.least_missed(bands)[0], axis=0)
            bands = self.polished(bands, 10, not free)
        return bands

    def least_missed(self, bands: Bands) -> list[int]:
        """Places of bands, first that whose loss costs least."""
        levels = _levels(self.warped, self.task.rate, bands)
        cost = [self.task.rms(levels.sum(axis=0) - own) for own in levels]
        return [int(k) for k in np.argsort(cost)]

    def polished(self, bands: Bands, steps: int, held: bool = True) -> Bands:
        """Damped least squares within the bounds and, where it is ``held``, below the ceiling."""
        pressed = np.zeros(len(self.warped))
        if not held:
            return self._damped(bands, steps, pressed, 0.0)[0]
        push, past = _PUSH, np.inf
        for _ in range(12 if self.limited else 1):
            bands, boost = self._damped(bands, steps, pressed, push)
            before, past = past, float(np.max(boost - self.task.ceiling))
            slack = boost - self.task.ceiling
            if past <= 0.5 * ALLOWED and not np.any((pressed > 0) & (slack < -_LOOSE)):
                break
            pressed = np.maximum(pressed + slack, 0.0)
            if past > 0.5 * before:
                push, pressed = 2 * push, pressed / 2
        return bands

    def _damped(self, bands: Bands, steps: int, pressed: Real, push: float) -> tuple[Bands, Real]:
        task, damping = self.task, 1e-3
        low, high = np.tile(self.low, len(bands)), np.tile(self.high, len(bands))
        boost, rows = _derived(self.warped, task.rate, bands)
        value, over = self._value(boost, pressed, push)
        for _ in range(steps):
            slope = rows @ (task.weights * (task.error + boost) + push * over)
            bend = (rows * (task.weights + push * (over > 0))) @ rows.T
            flat = bands.ravel()
            free = ~(((flat <= low) & (slope > 0)) | ((flat >= high) & (slope < 0)))
            if not free.any():
                break
            inner, down = bend[np.ix_(free, free)], -slope[free]
            scale, before, grew = np.diag(np.diag(inner) + 1e-9), value, False
            for _ in range(6):
                moved = flat.copy()
                moved[free] += np.linalg.solve(inner + damping * scale, down)
                moved = np.clip(moved, low, high)
                raised = _boost(self.warped, task.rate, moved.reshape(-1, 3))
                tried, past = self._value(raised, pressed, push)
                if tried < value:
                    break
                damping, grew = 4 * damping, True
            if tried >= before:
                break
            bands, value, over = moved.reshape(-1, 3), tried, past
            boost, rows = _derived(self.warped, task.rate, bands)
            damping = damping if grew else max(damping / 4, 1e-7)
            if before - value < 1e-4 * value:
                break
        return bands, boost

    def _value(self, boost: Real, pressed: Real, push: float) -> tuple[float, Real]:
        """What is minimised, and how far the boost is past its ceiling (F,)."""
        task = self.task
        value = float(np.sum(task.weights * (task.error + boost) ** 2))
        if not self.limited:
            return value, _NOTHING
        over = np.maximum(boost - task.ceiling + pressed, 0.0)
        return value + push * float(np.sum(over**2)), over

    def kept_below(self, bands: Bands) -> Bands:
        """The bands with boosts turned down until none passes its ceiling."""
        for _ in range(60):
            boost = boost_of(self.task, bands)
            if not self.limited or np.max(boost - self.task.ceiling) <= 0.9 * ALLOWED:
                return bands
            bands = bands.copy()
            bands[:, 1] = np.where(bands[:, 1] > 0, bands[:, 1] * 0.98, bands[:, 1])
        return bands


@dataclass(frozen=True)
class Solved:
    """Bands as (Hz, dB, Q), the rms in dB that they leave, and the share of the search done."""

    bands: tuple[tuple[float, float, float], ...]
    rms: float
    done: float


def _solved(search: _Search, bands: Bands, done: float) -> Solved:
    rows = sorted((float(np.exp(f)), float(g), float(np.exp(q))) for f, g, q in bands)
    return Solved(tuple(rows), search.left(bands), done)


def equalise(task: Task, count: int, rounds: int | None = None) -> Iterator[Solved]:
    """Better and better sets of at most ``count`` bands; the last one is the answer.

    First one by one from several beginnings, some with too many of which the least missed go; then
    up to ``rounds`` times one band comes back elsewhere, or some come and go. The same task has the
    same answer.
    """
    search, whole = _Search(task.thinned()), _Search(task)
    if rounds is None:
        rounds = ROUNDS[search.limited]
    best: Bands = np.empty((0, 3))
    least, starts = search.left(best), search.starts(count)
    for k, (seed, free, more) in enumerate(starts):
        bands = search.pruned(search.grown(seed, count + more, free), count, free)
        bands = search.kept_below(search.polished(bands, 60))
        if search.left(bands) < least:
            best, least = bands, search.left(bands)
        yield _solved(whole, best, (k + 1) / (len(starts) + rounds))
    moves = _moves(search, best, count)
    for k in range(rounds):
        tried = next(moves, None)
        if tried is None:
            break
        bands = search.polished(tried, 8)
        if search.left(bands) < _NEAR * least:
            bands = search.polished(bands, 25)
        bands = search.kept_below(bands)
        if search.left(bands) < least * (1 - 1e-4):
            best, least = bands, search.left(bands)
            moves = _moves(search, best, count)
        yield _solved(whole, best, (len(starts) + k + 1) / (len(starts) + rounds))
    best = whole.kept_below(best)
    last = whole.kept_below(whole.polished(best, 60))
    yield _solved(whole, last if whole.left(last) < whole.left(best) else best, 1.0)


def _moves(search: _Search, bands: Bands, count: int) -> Iterator[Bands]:
    """Sets of bands near a good one: each placed anew, or some come and the least missed go."""
    if not len(bands):
        return
    for place in search.least_missed(bands):
        yield search.placed(search.polished(np.delete(bands, place, axis=0), 4), False)
    for free in search.ways:
        yield search.pruned(search.grown(bands, count + 3, free), count, free)
