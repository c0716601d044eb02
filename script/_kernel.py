"""A fused hand-written NumPy kernel of one radiator box: the yardstick for the engine on columns.

One driver group, one radiator, four limits, 160 frequencies, level and ceiling; no voice, no
programme, no runtime, no promises, double precision.
"""

import time

import numpy as np

FREQUENCY = np.geomspace(20, 500, 160)
S = 2j * np.pi * FREQUENCY
RHO, C = 1.204, 343.2


def rate(count: int) -> float:
    """Designs per second of one pass over ``count`` random designs."""
    draw = np.random.default_rng(0)

    def column(low: float, high: float) -> np.ndarray:
        return draw.uniform(low, high, (count, 1))

    re, bl, m_ms, c_ms = column(3, 4), column(4, 6), column(0.01, 0.02), column(5e-4, 1e-3)
    r_ms, s_d, volume = column(0.5, 1), column(0.007, 0.009), column(0.002, 0.006)
    m_p, c_p, r_p, s_p = (
        column(0.02, 0.04),
        column(5e-4, 1e-3),
        column(0.3, 0.6),
        column(0.012, 0.016),
    )
    start = time.perf_counter()
    passive = (r_p + S * m_p + 1 / (S * c_p)) / s_p**2
    box = S * volume / (RHO * C * C) + 1 / passive + 1e-7
    mechanical = r_ms + S * m_ms + 1 / (S * c_ms) + s_d**2 / box
    whole = (re + S * 3e-4) * mechanical + bl * bl
    velocity, current = 2.83 * bl / whole, 2.83 * mechanical / whole
    through = s_d * velocity / box / passive
    pressure = S * RHO / (2 * np.pi) * (s_d * velocity - through)
    cone = np.abs(velocity) / np.abs(S) * np.sqrt(2)
    radiator = np.abs(through) / s_p / np.abs(S) * np.sqrt(2)
    level = 20 * np.log10(np.abs(pressure) / 2e-5)
    gain = np.minimum(
        np.minimum(0.006 / cone, 0.01 / radiator),
        np.minimum(15 / 2.83, 5 / (np.abs(current) * np.sqrt(2))),
    )
    level + 20 * np.log10(gain)
    return count / (time.perf_counter() - start)
