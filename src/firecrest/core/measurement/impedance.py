"""A driver's figures from its measured impedance in free air, with their likely ranges.

Z = Re + jwLe + (Re/Qes) jx/(1 - x^2 + jx/Qms), x = f/Fs: Small, JAES 20 (1972) 383-395. Fitted by
least squares on the logarithm of the complex impedance (of its magnitude where no phase is
measured), which weighs every frequency by its share; ranges from the Jacobian at the minimum.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.arrays import Complex, Real

FIGURES = ("re", "fs", "qms", "qes", "le")
UPPER = 12.0
"""Multiples of the resonance up to which a coil is taken as Re and Le: above, eddies rule."""
LIKELY = 1.645
"""Standard deviations of a 5 to 95 % range."""
PROMINENT = 0.14
"""Ln of the least ratio of a resonance to the lower of the dips beside it."""
LEAST = 12
"""Points below which nothing is fitted."""
FINEST = 0.005
"""A range is no narrower than this share: meters are not better."""


@dataclass(frozen=True)
class Fitted:
    """Figures in SI by the keys of ``FIGURES``, each with the half width of its range as a share.

    ``error`` is the rms of what the fit leaves, as a share of |Z|; ``band`` in Hz is what was used.
    """

    figures: Mapping[str, float]
    ranges: Mapping[str, float]
    error: float
    band: tuple[float, float]


def impedance(frequency: Real, figures: Mapping[str, float]) -> Complex:
    """Impedance in ohm of a driver in free air."""
    x = frequency / figures["fs"]
    motional = figures["re"] / figures["qes"] * 1j * x
    resonant = motional / (1 - x**2 + 1j * x / figures["qms"])
    return np.asarray(figures["re"] + 2j * pi * frequency * figures["le"] + resonant)


def fitted(frequency: Real, magnitude: Real, degrees: Real | None) -> Fitted:
    """Figures of a measured impedance (Hz, ohm, degrees or None; (F,) each).

    Raises ValueError, with what is missing, when there is no resonance in the curve.
    """
    from scipy.optimize import least_squares

    start = _start(frequency, magnitude)
    used = frequency <= UPPER * start["fs"]
    if np.count_nonzero(used) < LEAST:
        raise ValueError("fewer than 12 points below 12 times the resonance")
    f, measured = frequency[used], magnitude[used].astype(np.complex128)
    if degrees is not None:
        measured = measured * np.exp(1j * np.radians(degrees[used]))
    keys = list(FIGURES)

    def _left(logs: Real) -> Real:
        ratio = impedance(f, dict(zip(keys, np.exp(logs), strict=True))) / measured
        if degrees is None:
            return np.asarray(np.log(np.abs(ratio)))
        return np.concatenate((np.log(np.abs(ratio)), np.angle(ratio)))

    begin = np.log([start[key] for key in keys])
    found = least_squares(_left, begin, x_scale=0.1, max_nfev=400)
    left = found.fun
    freedom = max(len(left) - len(keys), 1)
    spread = np.linalg.pinv(found.jac.T @ found.jac) * (left @ left) / freedom
    ranges = LIKELY * np.sqrt(np.maximum(np.diag(spread), 0.0))
    return Fitted(
        {key: float(value) for key, value in zip(keys, np.exp(found.x), strict=True)},
        {key: max(float(r), FINEST) for key, r in zip(keys, ranges, strict=True)},
        float(np.sqrt(np.mean(left**2))),
        (float(f[0]), float(f[-1])),
    )


def _resonance(height: Real) -> int:
    """Place of the peak that stands out most above the lower of the dips beside it."""
    inner = height[1:-1]
    peaks = 1 + np.flatnonzero((inner > height[:-2]) & (inner >= height[2:]))
    if len(peaks) == 0:
        raise ValueError("no resonance: the impedance has no peak inside the curve")
    stands = []
    for peak in peaks:
        sides = []
        for side in (height[:peak][::-1], height[peak + 1 :]):
            higher = np.flatnonzero(side > height[peak])
            reach = side[: higher[0]] if len(higher) else side
            sides.append(float(np.min(reach)) if len(reach) else float(height[peak]))
        stands.append(float(height[peak]) - max(sides))
    if max(stands) < PROMINENT:
        raise ValueError("no resonance: the impedance hardly rises")
    return int(peaks[int(np.argmax(stands))])


def _start(frequency: Real, magnitude: Real) -> dict[str, float]:
    """Figures to begin with: from the peak, its width at the geometric mean, and the floor."""
    peak = _resonance(np.log(magnitude))
    fs, top = float(frequency[peak]), float(magnitude[peak])
    floor = float(np.min(magnitude))
    middle = np.sqrt(top * floor)
    below = frequency[:peak][magnitude[:peak] < middle]
    above = frequency[peak:][magnitude[peak:] < middle]
    low = float(below[-1]) if len(below) else fs / 2
    high = float(above[0]) if len(above) else 2 * fs
    r0 = top / floor
    qms = fs * np.sqrt(r0) / (high - low)
    qes = qms / (r0 - 1)
    end = float(magnitude[-1])
    rise = max(end**2 - floor**2, (0.2 * floor) ** 2)
    le = float(np.sqrt(rise)) / (2 * pi * float(frequency[-1]))
    return {"re": floor, "fs": fs, "qms": float(qms), "qes": float(qes), "le": le}
