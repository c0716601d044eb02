"""Coils that warm up: what long-term limits and the programme level lose to it.

A warm coil is the cold one with a further resistance, a voltage against its own current. Ceilings
of what does not last are those of cold coils; the coil's own limit is told at its own temperature.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.lower import inputs
from firecrest.assessment.network import BoxModel
from firecrest.assessment.sites import added, answers_of, combined
from firecrest.assessment.sound import Scene
from firecrest.core.acoustics.thermal import rise_per_watt, warmer
from firecrest.core.air import STANDARD_TEMPERATURE
from firecrest.core.arrays import Complex, Number, Real, decibel, largest
from firecrest.core.circuit.settling import loaded
from firecrest.core.limits.ceiling import smallest
from firecrest.core.limits.elements import Hot, Limit, Transfers

CLOSE = 1e-4
"""Share of its resistance to which a coil agrees with the power that it lets in: 0.03 K."""
MOST_STEPS = 40
STRAIGHT = 8
"""Steps all of the way; where that swings, half of it after these."""
STEADY = 0.003
"""Share by which a drive may still move without new limits: less than 0.01 dB of warmth."""
LEAST_DRIVE = 1e-9


@dataclass(frozen=True)
class Warming:
    """The coils of a box: ohm at 20 C, K per watt of long-term power, rated W (None: not known),
    one for each driver of the network; ``air`` is K by which the air is above 20 C.
    """

    ohms: tuple[Number, ...]
    rises: tuple[Number, ...]
    rated: tuple[Number | None, ...]
    air: Number


def warming_of(box: inputs.Elements, model: BoxModel, temperature: Number) -> Warming:
    """How the coils of a box warm; those that nothing is known of stay as they are."""
    drivers = [box.groups[k].driver for k in model.owners]
    return Warming(
        tuple(group.constants.r_e for group in model.network.drivers),
        tuple(0.0 if d.thermal is None else rise_per_watt(d.thermal) for d in drivers),
        tuple(d.pe for d in drivers),
        temperature - STANDARD_TEMPERATURE,
    )


@dataclass(frozen=True)
class Heated:
    """A box with what a volt in each coil does, per unit input and volt: see ``Yielding``."""

    still: Transfers
    warming: Warming
    answers: Transfers
    answer: Complex

    def gained(self, k: int, watts: Number | Real) -> Number:
        """Ohm that coil ``k`` gains while it takes ``watts`` for long."""
        return warmer(self.warming.ohms[k], self.warming.air + self.warming.rises[k] * watts)

    def currents(self, gains: Sequence[Number]) -> Complex:
        """Current of each coil per unit input with so many further ohms, (D, ..., F)."""
        still = np.stack(np.broadcast_arrays(*self.still.coil_current))
        load = {(k, k): np.atleast_1d(gain) for k, gain in enumerate(gains)}
        return loaded(still, self.answer, load)

    def at(self, gains: Sequence[Number]) -> Transfers:
        """Everything per unit input with warm coils."""
        pushes = [-gain * i for gain, i in zip(gains, self.currents(gains), strict=True)]
        return combined(self.still, pushes, self.answers)

    def warmed(self, drive: Number, weights: Real) -> tuple[Number, ...]:
        """Ohm that each coil gains while programme of ``drive`` V rms, with a spectrum of
        ``weights`` (F,), plays for long.
        """
        each = range(len(self.warming.ohms))
        gains = [self.gained(k, 0.0) for k in each]
        for step in range(MOST_STEPS):
            current = self.currents(gains)
            heat = [drive**2 * (np.abs(i) ** 2 @ weights)[..., None] for i in current]
            found = [self.gained(k, heat[k] * (self.warming.ohms[k] + gains[k])) for k in each]
            moved = [np.abs(found[k] - gains[k]) / self.warming.ohms[k] for k in each]
            moving = np.asarray(largest(moved)) >= CLOSE
            if not moving.any():
                break
            share = 1.0 if step < STRAIGHT else 0.5
            gains = [
                np.where(moving, gains[k] + share * (found[k] - gains[k]), gains[k]) for k in each
            ]
        return tuple(gains)

    def at_rated(self) -> Transfers:
        """The cold box, with what its coils carry when each is as hot as its rated power makes it,
        and what the listener then misses.
        """
        shares, losses, ohms = [], [], []
        whole = np.abs(self.still.pressure)
        for k, power in enumerate(self.warming.rated):
            gain = self.gained(k, 0.0 if power is None else power)
            share = 1.0 / (1.0 + self.answer[k, k] * gain)
            push = -gain * share * self.still.coil_current[k]
            hot = added(self.still.pressure, [push], self.answers.pressure[k : k + 1])
            shares.append(share)
            losses.append(_missed(whole, np.abs(hot)))
            ohms.append(self.warming.ohms[k] + gain)
        return replace(self.still, heated=Hot(tuple(shares), tuple(losses), tuple(ohms)))


def _missed(cold: Real, hot: Real) -> Real:
    """DB from one pressure to a lower one; 0 where there is no sound to be missed."""
    heard = (cold > 0) & (hot > 0)
    cold, hot = np.broadcast_arrays(cold, hot)
    return np.asarray(decibel(np.divide(cold, hot, out=np.ones(heard.shape), where=heard)))


def heated(scene: Scene, still: Transfers, warming: Warming, first: int) -> Heated:
    """A box whose coils may warm; ``scene`` is solved for a volt in each, from ``first`` on."""
    count = len(warming.ohms)
    answers = answers_of(scene, range(first, first + count), still)
    own = np.stack(np.broadcast_arrays(*answers.coil_current))
    return Heated(still, warming, answers, own)


@dataclass(frozen=True)
class Lasting:
    """What lasts: level per unit input of programme and its limits with coils as warm as they get,
    and by how many K each is then above 20 C.
    """

    unit_level: Real
    limits: tuple[Limit, ...]
    rises: tuple[Number, ...]


def lasting(
    box: Heated,
    rated: Hot,
    weights: Real,
    start: Real,
    allowed: Callable[[Transfers], tuple[Real, tuple[Limit, ...]]],
) -> Lasting:
    """How far programme goes with coils as warm as it makes them.

    ``start`` is the drive (..., 1) that its limits allow with cold coils; ``allowed`` gives level
    and limits of programme of what the box then is. The coil's own limit is told at the
    temperature of its ``rated`` power, whatever the rest.
    """
    drive = np.where(np.isfinite(start), start, 0.0)
    rated = replace(rated, cold=box.still.coil_current)
    for _ in range(MOST_STEPS):
        gains = box.warmed(drive, weights)
        unit, limits = allowed(replace(box.at(gains), heated=rated))
        found = smallest(limits)
        found = np.where(np.isfinite(found), found, 0.0)
        moving = np.abs(found - drive) >= STEADY * np.maximum(drive, LEAST_DRIVE)
        if not moving.any():
            break
        drive = np.where(moving, found, drive)
    ohms = box.warming.ohms
    rises = tuple(gain / warmer(ohm, 1.0) for gain, ohm in zip(gains, ohms, strict=True))
    return Lasting(unit, limits, rises)
