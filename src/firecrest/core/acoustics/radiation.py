"""Far-field pressure of volume velocities, what stands around the box, and phase."""

from collections.abc import Callable
from dataclasses import dataclass
from math import sqrt

import numpy as np

from firecrest.core.acoustics.driver import REFERENCE_PRESSURE
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real

SOLID_ANGLES = {"pole": 4 * np.pi, "ground": 2 * np.pi, "wall": np.pi, "corner": np.pi / 2}
"""Space into which the box plays, in sr; "pole" has no ground image, "wall" is floor and wall."""

BAFFLE_METRES = 115.0
"""Half of the baffle step (3 dB) is reached at this over the width in m; Hz m.

Source: sphere and square panels of Olson, JAES 17 (1969) 34-38, as the usual rule of thumb.
"""


@dataclass(frozen=True)
class Room:
    """A room's lift of the bass: from ``upper`` Hz down, fully reached at ``lower`` Hz."""

    upper: Number
    lower: Number


@dataclass(frozen=True)
class Surroundings:
    """Where the listener is and what stands around: distance in m, space in sr.

    ``baffle`` is the frequency in Hz of ``baffle_step``; None without one.
    """

    distance: Number
    solid_angle: Number
    room: Room | None = None
    baffle: Number | None = None


def room_of(longest: Number, lift: Number, air: Air) -> Room:
    """The lift of a room whose ``longest`` dimension is in m, of ``lift`` dB at the very bottom.

    Below its first mode c/(2 L) a closed room is squeezed as a whole, which adds 12 dB an octave to
    a source of falling velocity; leaks and yielding walls end the rise after ``lift`` dB. A simple
    stated model: no modes, no position. Source: Beranek & Mellow, Acoustics (2012), 10.14 (small
    enclosure below its first mode); the shelf is our own simplification.
    """
    upper = air.speed / (2 * longest)
    return Room(upper, upper * 10 ** (-lift / 40))


def room_gain(room: Room, frequency: Real) -> Complex:
    """Pressure in the room over that without: (s^2 + s wu sqrt2 + wu^2)/(the same with wl)."""
    return _second_order(frequency, room.upper) / _second_order(frequency, room.lower)


def _second_order(frequency: Real, corner: Number) -> Complex:
    s = 1j * frequency
    return np.asarray(s**2 + s * corner * sqrt(2.0) + np.asarray(corner) ** 2)


def baffle_corner(width: Number) -> Number:
    """Frequency in Hz of the first-order step of a front ``width`` m wide; 3 dB at 115/width."""
    return BAFFLE_METRES / width * sqrt(2.0)


def baffle_step(corner: Number, frequency: Real, solid_angle: Number = 4 * np.pi) -> Complex:
    """Pressure on the axis of a front over that of a small source in the same space.

    At low f the box is small and plays into all of ``solid_angle``; at high f its front plays into
    the half space before it, whatever stands behind. So the gain goes from 1 to s = angle/2pi: 2 on
    a pole, 1 on the ground, 1/2 at a wall, 1/4 in a corner. First order, (1 + s jx)/(1 + jx), x =
    f/corner: no ripple of edges, which is what the place of a source on its front would change.
    """
    x = 1j * frequency / corner
    return np.asarray((1 + solid_angle / (2 * np.pi) * x) / (1 + x))


def far_pressure(
    flow: Complex, frequency: Real, distance: Number, solid_angle: Number, air: Air
) -> Complex:
    """Pressure (Pa rms) at ``distance`` (m) of a simple source of ``flow`` (m3/s, (..., F)).

    p = j w rho U/(Omega r); the flight time is left out of the phase.
    Source: Beranek & Mellow, Acoustics (2012), eq. 4.71 for 4 pi; images for smaller angles.
    """
    omega = 2 * np.pi * frequency
    scale = air.density / (solid_angle * distance)
    return np.asarray(1j * omega * scale * flow)


def heard(flow: Complex, frequency: Real, around: Surroundings, air: Air) -> Complex:
    """Pressure (Pa rms) at the listener of ``flow`` (m3/s) with what stands around the box."""
    pressure = far_pressure(flow, frequency, around.distance, around.solid_angle, air)
    if around.room is not None:
        pressure = pressure * room_gain(around.room, frequency)
    if around.baffle is not None:
        pressure = pressure * baffle_step(around.baffle, frequency, around.solid_angle)
    return pressure


def from_place(
    frequency: Real, place: tuple[Number, Number, Number], distance: Number, air: Air
) -> Complex:
    """What a source's place does to its share of the sum: e^{-jk(r_k - r)} r/r_k.

    ``place`` is (right, up, forward) in m from the middle of the front; the listener is
    ``distance`` m straight before that.
    """
    right, up, forward = place
    path = np.sqrt(right**2 + up**2 + (distance - forward) ** 2)
    wave_number = 2 * np.pi * frequency / air.speed
    return np.asarray(np.exp(-1j * wave_number * (path - distance)) * distance / path)


def level(pressure: Complex | Real) -> Real:
    """Sound pressure level in dB re 20 uPa of an rms ``pressure``; 0 Pa gives -inf."""
    with np.errstate(divide="ignore"):
        return np.asarray(20.0 * np.log10(np.abs(pressure) * (1.0 / REFERENCE_PRESSURE)))


def group_delay(pressure_at: Callable[[Real], Complex], frequency: Real) -> Real:
    """Group delay -dphi/dw in s at ``frequency``, from the model itself, not from a grid.

    -Im(p'/p) with a central difference over 1e-5 of the frequency; relative error below 1e-8.
    """
    step = 1e-5
    above, below = pressure_at(frequency * (1 + step)), pressure_at(frequency * (1 - step))
    slope = (above - below) / (4 * np.pi * step * frequency)
    return np.asarray(-np.imag(slope / pressure_at(frequency)))
