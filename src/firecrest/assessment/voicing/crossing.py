"""Where two ways may be crossed over, by what beams and what gives out."""

from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import duty_of, programme_of
from firecrest.assessment.sound import Scene
from firecrest.assessment.voicing.crossovers import Crossover
from firecrest.assessment.voicing.heard import VOICE_GRID, bare_ways, measured_angles
from firecrest.assessment.voicing.lining import way_bands
from firecrest.assessment.ways import Measured, curve_response
from firecrest.core.arrays import Real
from firecrest.core.voice.chain import Filter
from firecrest.core.voice.crossing import (
    GRID,
    LUMPED,
    MARGIN,
    Borne,
    CrossingRange,
    crossing_range,
    lowest_by_heat,
    lowest_by_travel,
    volts_for,
)
from firecrest.core.voice.directivity import (
    begins_to_beam,
    between_angles,
    measured_falls,
    piston_falls,
    radius_of,
)
from firecrest.core.voice.response import REFERENCE, response_from
from firecrest.design.blocks import HighPass, OwnCrossover
from firecrest.design.parts import DriverPart
from firecrest.design.voice import WayResponse

BEAMS_BY, BEAMS_AT = 6.0, 45.0
"""DB and degrees from which a way beams too much for a crossover."""


@dataclass(frozen=True)
class WayLimits:
    """What bounds a way in Hz: beaming, what it bears, what its sheet says.

    ``by_travel`` and ``by_heat`` are 0 where there is no limit, None where it is not known.
    ``measured`` tells whether the beaming is.
    """

    begins_to_beam: float
    falls: float
    measured: bool
    lumped: float
    by_travel: float | None
    by_heat: float | None
    recommended: tuple[float | None, float | None]
    volts: float


@dataclass(frozen=True)
class Crossing:
    """A crossover with the limits of both ways, and the range that they leave."""

    crossover: Crossover
    lower: WayLimits
    higher: WayLimits
    range: CrossingRange


def crossing(assessment: Assessment, a: Acoustic, crossover: Crossover) -> Crossing:
    """Where two ways may meet, with the filter of the higher one."""
    block = assessment.design.voice.channels[crossover.higher].blocks[crossover.high_pass]
    assert isinstance(block, HighPass | OwnCrossover)
    corner = Filter("high_pass", block.frequency, family=block.family, order=block.order)
    lower = way_limits(assessment, a, crossover.lower, corner)
    higher = way_limits(assessment, a, crossover.higher, corner)
    lows = [(MARGIN * f, code) for f, code in _lowest(higher)]
    highs = [(lower.falls, "beaming"), (LUMPED * lower.lumped, "lumped")]
    if lower.recommended[1] is not None:
        highs.append((lower.recommended[1], "sheet"))
    return Crossing(crossover, lower, higher, crossing_range(lows, highs))


def _lowest(way: WayLimits) -> list[tuple[float, str]]:
    known = [(way.by_travel, "travel"), (way.by_heat, "heat"), (way.recommended[0], "sheet")]
    return [(f, code) for f, code in known if f is not None] or [(0.0, "unknown")]


def way_limits(assessment: Assessment, a: Acoustic, channel: int, corner: Filter) -> WayLimits:
    """Limits of one way, by its first drivers, at the promised level."""
    design, listening = assessment.design, assessment.design.brief.listening
    own = design.voice.channels[channel]
    place = next(k for k, g in enumerate(design.box.groups) if g.channel == own.id)
    part, lowered = design.box.groups[place].driver, assessment.numbers.box.groups[place].driver
    assert lowered.constants is not None
    area, speed = float(lowered.constants.s_d), float(a.scene.air.speed)
    falls = _falls(own.response, a.scene.ways.measured[channel], area, speed)
    borne = _borne(assessment, a, channel, place)
    programme = programme_of(listening)
    kind = "pink" if programme.kind == "sine" else programme.kind
    return WayLimits(
        begins_to_beam(area, speed),
        falls,
        bool(measured_angles(own.response)),
        speed / (2 * np.pi * radius_of(area)),
        lowest_by_travel(borne, corner),
        lowest_by_heat(borne, corner, kind, float(duty_of(listening))),
        _recommended(part),
        borne.volts,
    )


def _recommended(part: DriverPart) -> tuple[float | None, float | None]:
    return part.play_from, part.play_to


def _falls(response: WayResponse, measured: Measured | None, area: float, speed: float) -> float:
    """Hz from which a way is 6 dB down at 45 degrees: measured where it is, else of a piston."""
    angles = measured_angles(response)
    if measured is not None and angles and max(angles) >= BEAMS_AT:
        curves = {
            round(float(np.degrees(c.angle)), 3): replace(curve_response(c), phase=None)
            for c in response.curves
        }
        on, off = curves[0.0], between_angles(curves, BEAMS_AT)
        return measured_falls(on.frequency, off.level, on.level, BEAMS_BY)
    return piston_falls(area, BEAMS_AT, BEAMS_BY, speed)


def _borne(assessment: Assessment, a: Acoustic, channel: int, place: int) -> Borne:
    """What the first drivers of a way do per volt, and the volts of the promised level."""
    scene: Scene = assessment.memo(_on_grid, a.scene)
    n = a.model.owners.index(place)
    driver = a.model.network.drivers[n]
    return Borne(
        scene.solution.velocity[n][channel],
        scene.solution.current[n][channel],
        float(driver.constants.r_e),
        None if a.ratings.x_max[n] is None else float(a.ratings.x_max[n]),  # type: ignore[arg-type]
        None if a.ratings.coil_power[n] is None else float(a.ratings.coil_power[n]),  # type: ignore[arg-type]
        _volts(assessment, a, channel, n),
    )


def _on_grid(scene: Scene) -> Scene:
    return scene.at(GRID)


def _volts(assessment: Assessment, a: Acoustic, channel: int, driver: int) -> float:
    """Volts rms of the promised level: by the way's measured mean level, else where mass rules."""
    asked = assessment.design.brief.loudness.level
    if a.scene.ways.measured[channel] is not None:
        level = _mean_level(assessment, a, channel)
        return float(10 ** ((asked - level) / 20))
    constants, group = a.model.network.drivers[driver].constants, a.model.network.drivers[driver]
    one = volts_for(
        REFERENCE * 10 ** (asked / 20),
        float(a.scene.around.solid_angle),
        float(a.scene.around.distance),
        [float(x) for x in (constants.r_e, constants.m_ms, constants.bl, constants.s_d)],
        float(a.scene.air.density),
    )
    return one / (group.in_parallel * group.outputs)


def _mean_level(assessment: Assessment, a: Acoustic, channel: int) -> float:
    """Mean level of one volt over the band of the level match."""
    bare: Real = assessment.memo(bare_ways, a.scene)[channel]
    low, high = way_bands(assessment)[channel]
    return response_from(VOICE_GRID, bare).mean(low, high)
