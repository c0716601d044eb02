"""A measured curve joined to the low-frequency model of its way.

The blend is our own: over one octave the logarithm of the pressure goes from one to the other.
Only the pressure is joined; travel, flow, current and heat per volt stay the model's.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from firecrest.core.arrays import Complex, Real, decibel
from firecrest.core.voice.phase import Tails, phase_of_level, tails_of
from firecrest.core.voice.response import REFERENCE, Response

Hold = Literal["measurement", "model"]
"""Whose level stays at the join."""


@dataclass(frozen=True)
class Join:
    """Where a curve and its model meet: ``step`` dB and ``turn`` rad from curve to model there.

    ``turned``: the model had the other polarity. Arrays (..., 1) where designs are columns.
    """

    frequency: float
    hold: Hold
    step: Real
    turn: Real
    turned: Real

    def moved(self, model: Complex, frequency: Real) -> Complex:
        """The model turned in time (and polarity) so that it meets the curve in phase."""
        sign = np.where(self.turned, -1.0, 1.0)
        return np.asarray(sign * model * np.exp(-1j * self.turn * frequency / self.frequency))


def share_of_curve(frequency: Real, join: float) -> Real:
    """Share of the curve, 0 half an octave below a join to 1 half an octave above."""
    x = np.clip(np.log2(frequency / join) + 0.5, 0.0, 1.0)
    return np.asarray((1 - np.cos(np.pi * x)) / 2)


def join_of(model: Complex, curve: Response, join: float, hold: Hold) -> Join:
    """How a curve meets ``model``, the model's pressure in Pa at ``join`` Hz, (..., 1).

    The curve must cover the octave about the join; without phase only levels meet.
    """
    at = np.array([join])
    if curve.phase is None:
        step = decibel(model / REFERENCE) - curve.level_at(at)
        return Join(join, hold, step, np.zeros_like(step), np.zeros_like(step, dtype=bool))
    apart = model / curve.at(at)
    turn = np.angle(apart)
    turned = np.abs(turn) > np.pi / 2
    turn = np.where(turned, turn - np.pi * np.sign(turn), turn)
    return Join(join, hold, decibel(apart), turn, turned)


def joined(
    join: Join, model: Complex, curve: Response, frequency: Real, low_tail: float
) -> Complex:
    """Pressure in Pa of a way, (..., F): the ``model`` (..., F) below, the curve above the join.

    Without a measured phase the joined level gets its minimum phase, with ``low_tail`` dB an octave
    below: 12 of a closed box, 24 of others. Above the last point of a curve its tail goes on.
    """
    share, beyond = share_of_curve(frequency, join.frequency), extended(curve, frequency)
    up = 10 ** (join.step / 20)
    below, above = (model / up, 1.0) if join.hold == "measurement" else (model, up)
    if curve.phase is None:
        measured = beyond.level + decibel(above)
        level = (1 - share) * decibel(below / REFERENCE) + share * measured
        tails = Tails(low_tail, tails_of(curve).high)
        phase = phase_of_level(frequency, level, frequency, tails)
        return np.asarray(REFERENCE * 10 ** (level / 20) * np.exp(1j * phase))
    assert beyond.phase is not None
    below = join.moved(below, frequency)
    measured = above * REFERENCE * 10 ** (beyond.level / 20) * np.exp(1j * beyond.phase)
    with np.errstate(divide="ignore", invalid="ignore"):
        blend = below * np.exp(share * np.log(measured / below))
    return np.asarray(np.where(share == 0, below, np.where(share == 1, measured, blend)))


def extended(curve: Response, frequency: Real) -> Response:
    """A curve at any ``frequency``: its tails in level beyond its ends, the phase as it was there.

    What lies beyond is no measurement: views leave it out, sums need some value.
    """
    tails = tails_of(curve)
    level = np.interp(np.log(frequency), np.log(curve.frequency), curve.level)
    level = level + tails.low * np.minimum(np.log2(frequency / curve.low), 0.0)
    level = level + tails.high * np.maximum(np.log2(frequency / curve.high), 0.0)
    if curve.phase is None:
        return Response(frequency, level, None)
    phase = np.interp(np.log(frequency), np.log(curve.frequency), curve.phase)
    return Response(frequency, level, phase)
