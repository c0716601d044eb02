"""What is heard of each way and of all of them, up to 20 kHz, on the axis and off it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import degrees, pi

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.cabinet.places import place_of
from firecrest.assessment.sound import Scene, voice_rows, whole_flow
from firecrest.assessment.ways import Measured, curve_response
from firecrest.core.acoustics.radiation import heard
from firecrest.core.arrays import Complex, Real
from firecrest.core.voice.directivity import between_angles, piston_at, power_average
from firecrest.core.voice.joining import extended
from firecrest.core.voice.phase import from_geometry, path_to
from firecrest.core.voice.response import Response
from firecrest.design.blocks import passes
from firecrest.design.edits.paths import rebuilt
from firecrest.design.voice import Channel, Voice, WayResponse

VOICE_GRID = np.geomspace(20.0, 20e3, 481)
VOICE_GRID.flags.writeable = False
"""48 points an octave: of every view of the voice."""
USUAL_ANGLES = (0.0, 15.0, 30.0, 45.0, 60.0, 75.0, 90.0)
"""Degrees of the fan where nothing is measured."""


@dataclass(frozen=True)
class WaysHeard:
    """Pressures in Pa at the listener per unit input, one row a channel, at ``frequency`` (F,).

    ``ways`` are played through their chains, ``bare`` through none, ``crossed`` through all but
    bands and shelves. ``known`` is the band that every curve covers.
    """

    frequency: Real
    ways: tuple[Complex, ...]
    bare: tuple[Complex, ...]
    crossed: tuple[Complex, ...]
    known: tuple[float, float]

    @property
    def whole(self) -> Complex:
        """All ways together."""
        return np.asarray(np.sum(self.ways, axis=0))

    @property
    def before(self) -> Complex:
        """All ways together, without bands and shelves."""
        return np.asarray(np.sum(self.crossed, axis=0))

    @property
    def inside(self) -> Real:
        """Where every curve tells something."""
        low, high = self.known
        f = self.frequency
        return (f >= low * (1 - 1e-9)) & (f <= high * (1 + 1e-9))


def ways_heard(assessment: Assessment, a: Acoustic, frequency: Real = VOICE_GRID) -> WaysHeard:
    """The ways of a design at ``frequency``; what does not change with an EQ is remembered."""
    design, memo = assessment.design, assessment.memo
    if frequency is VOICE_GRID:
        bare = memo(bare_ways, a.scene)
    elif frequency is a.scene.frequency:
        bare = _bare(a.scene, a.scene)
    else:
        bare = bare_at(a.scene, frequency)
    rate = design.power.dsp.sample_rate
    ways, crossed = [], []
    for channel, pressure in zip(design.voice.channels, bare, strict=True):
        ways.append(pressure * memo(voice_rows, channel, rate, frequency)[-1])
        crossed.append(
            pressure * memo(voice_rows, memo(without_bands, channel), rate, frequency)[-1]
        )
    return WaysHeard(frequency, tuple(ways), bare, tuple(crossed), known_band(a.scene))


def bare_ways(scene: Scene) -> tuple[Complex, ...]:
    """Pressures of the ways without any voice on ``VOICE_GRID``."""
    return bare_at(scene, VOICE_GRID)


def bare_at(scene: Scene, frequency: Real) -> tuple[Complex, ...]:
    """The same at any frequencies: the box is solved there."""
    return _bare(scene, scene.at(frequency))


def _bare(scene: Scene, there: Scene) -> tuple[Complex, ...]:
    around, air = scene.around, scene.air
    return tuple(heard(row, there.frequency, around, air) for row in whole_flow(there))


def known_band(scene: Scene) -> tuple[float, float]:
    """(lowest, highest) Hz that the model or every curve tells something of."""
    curves = [way.curve for way in scene.ways.measured if way is not None]
    return 20.0, min([20e3, *(curve.high for curve in curves)])


def without_bands(channel: Channel) -> Channel:
    """A channel with nothing but level, delay, polarity and what crosses it over."""
    kept = tuple(block for block in channel.blocks if passes(block) is not None)
    return rebuilt(channel, blocks=kept)


@dataclass(frozen=True)
class Fan:
    """Pressures (angle in degrees -> (F,)) of the sum, and which ways are pistons there."""

    frequency: Real
    sums: Mapping[float, Complex]
    pistons: tuple[int, ...]

    @property
    def average(self) -> Real:
        """Root of the mean intensity over the fan, Pa."""
        return power_average(self.sums)

    @property
    def reach(self) -> float:
        """Widest angle of the fan in degrees."""
        return max(abs(angle) for angle in self.sums)


def fan_of(assessment: Assessment, a: Acoustic, channel: int | None = None) -> Fan:
    """The sum, or one ``channel``, at every angle that the measured ways reach."""
    heard_on, channels = ways_heard(assessment, a), assessment.design.voice.channels
    angles = fan_angles([channel.response for channel in channels])
    sums: dict[float, Complex] = {}
    spreads = [
        assessment.memo(_spreads, a.scene, c.response, k, angles, _place_of(assessment, k))
        for k, c in enumerate(channels)
    ]
    for n, angle in enumerate(angles):
        rows = [way * spread[n] for way, spread in zip(heard_on.ways, spreads, strict=True)]
        rows = rows if channel is None else rows[channel : channel + 1]
        sums[angle] = np.asarray(np.sum(rows, axis=0))
    pistons = tuple(k for k, c in enumerate(channels) if not measured_angles(c.response))
    return Fan(VOICE_GRID, sums, pistons)


def _place_of(assessment: Assessment, channel: int) -> tuple[float, tuple[float, float, float]]:
    """(cone area in m2, place in m) of the first drivers of a channel."""
    design = assessment.design
    group = next(
        k for k, g in enumerate(design.box.groups) if g.channel == design.voice.channels[channel].id
    )
    constants = assessment.numbers.box.groups[group].driver.constants
    place = place_of(design.box.case, design.box.groups[group])
    assert constants is not None
    return float(constants.s_d), (place.right, place.up, place.forward)


def measured_angles(response: WayResponse) -> list[float]:
    """Degrees of a way's curves; none where nothing off the axis is measured."""
    found = sorted({round(degrees(curve.angle), 3) for curve in response.curves})
    return found if len(found) > 1 and 0.0 in found else []


def fan_angles(ways: Sequence[WayResponse]) -> tuple[float, ...]:
    """The angles that all measured ways reach: their own, or the usual ones."""
    measured = [angles for angles in map(measured_angles, ways) if angles]
    if not measured:
        return USUAL_ANGLES
    low, high = max(a[0] for a in measured), min(a[-1] for a in measured)
    every = sorted({angle for angles in measured for angle in angles})
    return tuple(angle for angle in every if low <= angle <= high)


def _spreads(
    scene: Scene,
    response: WayResponse,
    place: int,
    angles: tuple[float, ...],
    cone: tuple[float, tuple[float, float, float]],
) -> tuple[Complex, ...]:
    return tuple(spread(scene, response, place, angle, cone) for angle in angles)


def spread(
    scene: Scene,
    response: WayResponse,
    place: int,
    angle: float,
    cone: tuple[float, tuple[float, float, float]],
) -> Complex:
    """Pressure of a way at an ``angle`` (degrees) over that on its axis, on ``VOICE_GRID``.

    From its curves; a rigid piston, with its path, where nothing off the axis is measured.
    """
    if angle == 0:
        return np.ones(len(VOICE_GRID), dtype=np.complex128)
    area, spot = cone
    measured = scene.ways.measured[place]
    if measured is not None and measured_angles(response):
        curves = _by_angle(response, measured, float(scene.air.speed))
        off, on = (extended(between_angles(curves, x), VOICE_GRID) for x in (angle, 0.0))
        assert off.phase is not None
        assert on.phase is not None
        size = 10 ** ((off.level - on.level) / 20)
        return np.asarray(size * np.exp(1j * (off.phase - on.phase)))
    distance, speed = float(scene.around.distance), float(scene.air.speed)
    further = path_to(spot, distance, angle) - path_to(spot, distance, 0.0)
    late = np.exp(-2j * pi * VOICE_GRID * further / speed)
    return np.asarray(piston_at(area, angle, VOICE_GRID, speed) * late)


def _by_angle(response: WayResponse, measured: Measured, speed: float) -> dict[float, Response]:
    """The curves of a way by their degrees, all with phase."""
    found: dict[float, Response] = {}
    for curve in response.curves:
        angle, found_at = round(degrees(curve.angle), 3), curve_response(curve)
        if found_at.phase is None:
            path = path_to(measured.place, measured.distance, angle)
            found_at = from_geometry(found_at, path, measured.distance, speed)
        found.setdefault(angle, found_at)
    return found


def preset_heard(assessment: Assessment, a: Acoustic, voice: Voice) -> Complex:
    """The sum on ``VOICE_GRID`` with another voice on the same box."""
    rate = assessment.design.power.dsp.sample_rate
    bare = assessment.memo(bare_ways, a.scene)
    rows = [
        pressure * assessment.memo(voice_rows, channel, rate, VOICE_GRID)[-1]
        for channel, pressure in zip(voice.channels, bare, strict=True)
    ]
    return np.asarray(np.sum(rows, axis=0))
