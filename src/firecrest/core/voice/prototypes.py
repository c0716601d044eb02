"""Analogue prototypes of the filters, normalised to a corner of 1 rad/s.

Source: Linkwitz, JAES 24 (1976) 2-8 (Linkwitz-Riley); Zverev, Handbook of Filter Synthesis
(1967) (Butterworth, Bessel, all-passes); Linkwitz, Wireless World (1978) (his transform); shelves
and parametric bands: own derivation from the definitions that the gain is A^2 at one end (shelf) or
at the corner (parametric) and that boost and cut of equal dB are inverse to one another.
"""

from dataclasses import dataclass
from functools import cache

import numpy as np

from firecrest.core.arrays import Complex, Number, Real, root

Powers = tuple[Number, Number, Number]


@dataclass(frozen=True)
class Section:
    """(c0 + c1 s + c2 s^2) over the same; s in units of the corner of the whole block."""

    numerator: Powers
    denominator: Powers

    def response(self, frequency: Real, corner: Number) -> Complex:
        """Complex response at ``frequency`` in Hz with the corner at ``corner`` Hz."""
        s = 1j * np.asarray(frequency) / corner
        top, bottom = (c0 + s * (c1 + s * c2) for c0, c1, c2 in (self.numerator, self.denominator))
        return np.asarray(top / bottom)


def _butterworth_poles(order: int) -> Complex:
    """Left half of 2n poles spread evenly on the unit circle."""
    steps = np.arange(1, order + 1)
    return np.asarray(np.exp(1j * np.pi * (2 * steps + order - 1) / (2 * order)))


def _bessel_poles(order: int) -> Complex:
    """Poles of the Bessel low-pass that is 3.01 dB down at 1 rad/s."""
    from scipy.signal import bessel

    return np.asarray(bessel(order, 1.0, analog=True, output="zpk", norm="mag")[1])


@cache
def low_pass_poles(family: str, order: int) -> tuple[tuple[float, float | None], ...]:
    """(scale, Q) of each section of a low-pass with its nominal corner at 1; Q None: first order.

    Butterworth and Bessel are 3.01 dB down at the corner; Linkwitz-Riley (even orders) is two
    Butterworth low-passes of half the order, 6.02 dB down.
    """
    if family == "linkwitz_riley":
        return low_pass_poles("butterworth", order // 2) * 2
    poles = _butterworth_poles(order) if family == "butterworth" else _bessel_poles(order)
    sections: list[tuple[float, float | None]] = []
    for pole in sorted(poles, key=lambda p: -abs(p.imag)):
        if pole.imag > 1e-9:
            sections.append((abs(pole), abs(pole) / (-2 * pole.real)))
        elif abs(pole.imag) <= 1e-9:
            sections.append((abs(pole), None))
    return tuple(sections)


def pass_sections(kind: str, family: str, order: int) -> tuple[Section, ...]:
    """Sections of a ``low_pass`` or ``high_pass``; a high-pass is s -> 1/s."""
    sections = []
    for scale, q in low_pass_poles(family, order):
        first = q is None
        linear = 1.0 / scale if q is None else 1.0 / (q * scale)
        denominator = (1.0, linear, 0.0 if first else 1.0 / scale**2)
        if kind == "low_pass":
            sections.append(Section((1.0, 0.0, 0.0), denominator))
        elif first:
            sections.append(Section((0.0, 1.0, 0.0), (linear, 1.0, 0.0)))
        else:
            sections.append(Section((0.0, 0.0, 1.0), denominator[::-1]))
    return tuple(sections)


def second_order_high_pass(q: float) -> Section:
    """s^2/(s^2 + s/Q + 1)."""
    return Section((0.0, 0.0, 1.0), (1.0, 1.0 / q, 1.0))


def parametric(gain_db: Number, q: Number) -> Section:
    """(s^2 + s A/Q + 1)/(s^2 + s/(A Q) + 1), A = 10^(dB/40): gain ``gain_db`` at the corner."""
    a = 10 ** (gain_db / 40)
    return Section((1.0, a / q, 1.0), (1.0, 1.0 / (a * q), 1.0))


def low_shelf(gain_db: Number, q: Number) -> Section:
    """A (s^2 + s sqrtA/Q + A)/(A s^2 + s sqrtA/Q + 1): half the dB at the corner."""
    a = 10 ** (gain_db / 40)
    slope = root(a) / q
    return Section((a * a, a * slope, a), (1.0, slope, a))


def high_shelf(gain_db: Number, q: Number) -> Section:
    """The mirror of ``low_shelf`` under s -> 1/s."""
    low = low_shelf(gain_db, q)
    return Section(low.numerator[::-1], low.denominator[::-1])


def all_pass(order: int, q: Number) -> Section:
    """(1 - s)/(1 + s), or (s^2 - s/Q + 1)/(s^2 + s/Q + 1): half of its whole turn at the corner."""
    if order == 1:
        return Section((1.0, -1.0, 0.0), (1.0, 1.0, 0.0))
    return Section((1.0, -1.0 / q, 1.0), (1.0, 1.0 / q, 1.0))


def notch(q: Number) -> Section:
    """(s^2 + 1)/(s^2 + s/Q + 1): nothing at all at the corner."""
    return Section((1.0, 0.0, 1.0), (1.0, 1.0 / q, 1.0))


def linkwitz_transform(source: Number, source_q: Number, corner: Number, q: Number) -> Section:
    """Turns a closed box of ``source`` Hz and ``source_q`` into one of ``corner`` Hz and ``q``.

    (s^2 + s r/Q1 + r^2)/(s^2 + s/Q + 1), r = source/corner: r^2 at the bottom, 1 at the top.
    """
    r = source / corner
    return Section((r * r, r / source_q, 1.0), (1.0, 1.0 / q, 1.0))
