"""Closed forms that start a design: closed, vented and bandpass boxes from Fs, Qts and Vas.

They are lossless but for the leak, without inductance: starting points, which the network then
judges as they are.
"""

from dataclasses import dataclass
from math import sqrt

import numpy as np

from firecrest.core.arrays import Real, decibel

FLAT = 0.5
"""dB below the pass band that still counts as flat."""
RIPPLE, SHELF_RIPPLE = 0.1, 1.0
"""dB by which a flat response, or a shelf, may fall again above where it has risen."""
DEEPEST = 60
SPAN_CLOSED = (1e-4, 1e3)
"""Compliance ratios between which a closed box is looked for."""
SPAN_ALPHA, SPAN_H = (0.05, 30.0), (0.3, 2.5)
GRID = 41
SLACK = 0.02
"""dB of ripple that the search leaves over what it may."""


@dataclass(frozen=True)
class Vented:
    """A vented box: compliance ratio Vas/Vb and tuning ratio Fb/Fs."""

    alpha: float
    h: float


@dataclass(frozen=True)
class Bandpass:
    """Volumes behind and before the cone (m3) and the tuning of the front one (Hz)."""

    rear: float
    front: float
    tuning: float


@dataclass(frozen=True)
class BoxLoss:
    """Leak Q and absorption Q of a closed box at its own resonance; None is no loss."""

    leak_q: float | None = None
    absorption_q: float | None = None


LOSSLESS = BoxLoss()


def closed_volume(vas: float, qts: float, qtc: float, loss: BoxLoss = LOSSLESS) -> float | None:
    """Air in m3 that brings a driver of ``qts`` to ``qtc``, which is the response at the box's
    resonance re the pass band; None when none does.

    Lossless that is Vb = Vas/((Qtc/Qts)^2 - 1): Small, JAES 20 (1972) 798-808, eq. 20.
    """

    def _reached(alpha: float) -> float:
        fc = np.array([sqrt(1 + alpha)])
        return 10 ** (float(closed_response(alpha, qts, loss, fc)[0]) / 20)

    ratios = np.geomspace(*SPAN_CLOSED, 200)
    enough = [bool(_reached(float(ratio)) >= qtc) for ratio in ratios]
    if enough[0] or not any(enough):
        return None
    first = enough.index(True)
    low, high = float(ratios[first - 1]), float(ratios[first])
    for _ in range(DEEPEST):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if _reached(middle) < qtc else (low, middle)
    return vas / high


def closed_response(alpha: float, qts: float, loss: BoxLoss, x: Real) -> Real:
    """Response in dB re the pass band of a closed box at ``x`` = f/Fs; alpha is Vas/Vb.

    With t = jx, the leak's share counted as radiation (Small's convention) and a = QL/sqrt(1 +
    alpha) for R C ws: H = a t^3/((t^2 + t/Q + 1)(1 + a t) + a alpha t), which without a leak is
    t^2/(t^2 + t/Q + 1 + alpha). Absorption adds alpha/(QA sqrt(1 + alpha)) to 1/Q. Own derivation
    from the circuit of Small, JAES 20 (1972) 798-808, fig. 2.
    """
    t, root = 1j * np.asarray(x), sqrt(1 + alpha)
    damping = 1 / qts
    if loss.absorption_q is not None:
        damping += alpha / (loss.absorption_q * root)
    driver = t * t + damping * t + 1
    if loss.leak_q is None:
        return np.asarray(decibel(t * t / (driver + alpha)))
    a = loss.leak_q / root
    return np.asarray(decibel(a * t**3 / (driver * (1 + a * t) + a * alpha * t)))


def polynomial(
    alpha: Real | float, h: Real | float, qts: float, leak_q: float | None
) -> tuple[Real | float, Real | float, Real | float]:
    """(a1, a2, a3) of s^4/(s^4 + a1 s^3 + a2 s^2 + a3 s + 1), s over sqrt(Fb Fs).

    Source: Small, JAES 21 (1973) 363-372, eq. 20 to 24 (leak only).
    """
    leak = 0.0 if leak_q is None else 1.0 / leak_q
    root = np.sqrt(h)
    a1 = 1.0 / (root * qts) + root * leak
    a2 = leak / qts + (alpha + 1.0 + np.asarray(h) ** 2) / h
    a3 = root / qts + leak / root
    return a1, a2, a3


def magnitude_db(terms: tuple[Real | float, Real | float, Real | float], x: Real) -> Real:
    """Response in dB re the pass band at ``x`` times sqrt(Fb Fs)."""
    a1, a2, a3 = terms
    square = x * x
    real = square * square - a2 * square + 1.0
    imaginary = x * (a3 - a1 * square)
    return np.asarray(40 * np.log10(x) * 2 - 10 * np.log10(real**2 + imaginary**2))


def quasi_third_order(qts: float, leak_q: float | None = None) -> Vented | None:
    """The vented box whose response has no x^6 and x^4 term: third-order flat; B4 at its limit.

    None when ``qts`` is too high: the response would rise before it falls.
    Source: Thiele, JAES 19 (1971) 382-392; Small, JAES 21 (1973) 438-444, 10 (QB3).
    """
    low, high = SPAN_H[0], 12.0
    if _fourth(low, qts, leak_q) * _fourth(high, qts, leak_q) > 0:
        return None
    for _ in range(DEEPEST):
        middle = 0.5 * (low + high)
        if _fourth(low, qts, leak_q) * _fourth(middle, qts, leak_q) <= 0:
            high = middle
        else:
            low = middle
    h = 0.5 * (low + high)
    alpha = _alpha_without_sixth(h, qts, leak_q)
    _, a2, a3 = polynomial(alpha, h, qts, leak_q)
    rises = float(a3) ** 2 - 2 * float(a2) < -1e-6
    return None if rises or alpha <= 0 else Vented(alpha, h)


def _alpha_without_sixth(h: float, qts: float, leak_q: float | None) -> float:
    """Compliance ratio at which a1^2 = 2 a2."""
    a1, a2, _ = polynomial(0.0, h, qts, leak_q)
    return h * (float(a1) ** 2 / 2 - float(a2))


def _fourth(h: float, qts: float, leak_q: float | None) -> float:
    """Coefficient a2^2 + 2 - 2 a1 a3 of x^4 where that of x^6 is gone."""
    a1, a2, a3 = polynomial(_alpha_without_sixth(h, qts, leak_q), h, qts, leak_q)
    return float(a2) ** 2 + 2 - 2 * float(a1) * float(a3)


def flattest(qts: float, leak_q: float | None = None) -> Vented | None:
    """The vented box that stays within 0.5 dB to the lowest note, with no hump over 0.1 dB.

    None when ``qts`` is too high: every box humps. At the Butterworth value of Qts it is close to
    that alignment. Own search over both ratios.
    """
    return _searched(qts, leak_q, SPAN_ALPHA, FLAT, RIPPLE)


def extended_shelf(qts: float, leak_q: float | None, alpha: float) -> Vented | None:
    """The tuning at ``alpha`` that holds -6 dB lowest: an early, long shelf, ripple to 1 dB.

    None when every tuning ripples more.
    """
    return _searched(qts, leak_q, (alpha, alpha), 6.0, SHELF_RIPPLE)


def _searched(
    qts: float, leak_q: float | None, alphas: tuple[float, float], drop: float, ripple: float
) -> Vented | None:
    """Both ratios scanned and refined for the lowest corner of a response with little ripple."""
    hs = SPAN_H
    for _ in range(4):
        alpha = np.geomspace(*alphas, GRID if alphas[0] != alphas[1] else 1)
        h = np.geomspace(*hs, GRID)
        a, b = (g.ravel() for g in np.meshgrid(alpha, h))
        corner, rough = _corners(a, b, qts, leak_q, drop)
        best = int(np.argmin(corner + 100.0 * np.maximum(rough - ripple, 0.0)))
        alphas, hs = _around(alpha, a[best], alphas), _around(h, b[best], hs)
    if rough[best] > ripple + SLACK:
        return None
    return Vented(float(a[best]), float(b[best]))


def _around(grid: Real, value: float, bounds: tuple[float, float]) -> tuple[float, float]:
    """Two grid steps either way of ``value``, inside the bounds."""
    if len(grid) == 1:
        return bounds
    ratio = (grid[1] / grid[0]) ** 2
    return max(value / ratio, bounds[0]), min(value * ratio, bounds[1])


def _corners(
    alpha: Real, h: Real, qts: float, leak_q: float | None, drop: float
) -> tuple[Real, Real]:
    """(lowest frequency over Fs from which each stays above -``drop`` dB, its ripple in dB).

    Steps of 1/48 octave, refined by a straight line between them.
    """
    x = np.geomspace(0.15, 12.0, 304)
    scale = np.sqrt(h)[:, None]
    terms = polynomial(alpha[:, None], h[:, None], qts, leak_q)
    response = magnitude_db(terms, x / scale)
    below = response < -drop
    last = np.where(below.any(axis=1), x.size - 1 - np.argmax(below[:, ::-1], axis=1), 0)
    after = np.minimum(last + 1, x.size - 1)
    rows = np.arange(len(alpha))
    low, high = response[rows, last], response[rows, after]
    share = np.clip((-drop - low) / np.where(high > low, high - low, 1.0), 0.0, 1.0)
    corner = x[last] * (x[after] / x[last]) ** share
    ripple = np.max(np.maximum.accumulate(response, axis=1) - response, axis=1)
    return np.asarray(corner), np.asarray(ripple)


def flat_bandpass(fs: float, qts: float, vas: float, low: float) -> Bandpass | None:
    """Fourth-order bandpass, flat between its corners, with the lower one (-3 dB) at ``low`` Hz.

    The closed rear chamber brings the driver to fc and Qtc, the front one is tuned to fc. With
    y = x - 1/x the response is 1/(1 + j a y - a Qtc y^2), a = Cf/(C Qtc): second order in y and
    symmetric about fc; flat when a = 2 Qtc, that is Vf = 2 Qts^2 Vas, then -3 dB at
    y = 1/(sqrt2 Qtc). None when even the largest rear chamber brings the corner above ``low``.
    Source: Geddes, JAES 37 (1989) 350-370; derived again here.
    """

    def _corner(qtc: float) -> float:
        y = 1 / (sqrt(2.0) * qtc)
        return fs * qtc / qts * (sqrt(y * y / 4 + 1) - y / 2)

    least, most = qts * 1.02, qts * 20.0
    if _corner(least) > low or _corner(most) < low:
        return None
    for _ in range(DEEPEST):
        middle = 0.5 * (least + most)
        least, most = (middle, most) if _corner(middle) < low else (least, middle)
    rear = closed_volume(vas, qts, least)
    assert rear is not None
    return Bandpass(rear, 2 * qts**2 * vas, fs * least / qts)
