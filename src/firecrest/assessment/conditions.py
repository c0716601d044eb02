"""What a box plays in and what it plays: air, surroundings, programme."""

from math import inf

from firecrest.core.acoustics.radiation import SOLID_ANGLES, Surroundings, baffle_corner, room_of
from firecrest.core.acoustics.suspension import softness
from firecrest.core.air import Air, air_at
from firecrest.core.arrays import Number, largest, least
from firecrest.core.limits.programme import PROGRAMMES, Programme
from firecrest.design.blocks import passes
from firecrest.design.brief import Brief, Conditions, Edges, Listening
from firecrest.design.case import Case
from firecrest.design.design import Design
from firecrest.design.shapes import outer_size, shape_of
from firecrest.design.voice import Channel

RUNTIME_BELOW = 9.0
"""Playing level when none is set: this many dB below the promised loudness."""


def air_of(conditions: Conditions) -> Air:
    """Air in which the design plays."""
    return air_at(conditions.temperature, conditions.pressure, conditions.humidity)


def softness_of(conditions: Conditions, edges: Edges) -> Number:
    """Compliance of suspensions as a multiple of what it is at 20 C."""
    return softness(conditions.temperature) if edges.suspensions else 1.0


def front_width(case: Case) -> Number:
    """What a front counts as wide for the baffle step: its shorter side, m."""
    if case.shape.kind == "box":
        return least((case.length, case.height))
    wide, high, _ = outer_size(shape_of(case))
    return least((wide, high))


def surroundings_of(listening: Listening, width: Number, air: Air) -> Surroundings:
    """What stands around a box with a front ``width`` m wide."""
    room = None if listening.room is None else room_of(listening.room, listening.room_lift, air)
    baffle = baffle_corner(width) if listening.baffle else None
    return Surroundings(listening.distance, SOLID_ANGLES[listening.place], room, baffle)


def around_of(design: Design) -> Surroundings:
    """What stands around a design's box."""
    air = air_of(design.brief.conditions)
    return surroundings_of(design.brief.listening, front_width(design.box.case), air)


def programme_of(listening: Listening) -> Programme:
    """Programme with the brief's own crest and burst where they are set."""
    default = PROGRAMMES[listening.material]
    crest = default.crest if listening.crest is None else listening.crest
    burst = default.burst if listening.burst is None else listening.burst
    return Programme(default.kind, crest, burst, default.low_corner)


def duty_of(listening: Listening) -> Number:
    """D in dB: 0 for a steady tone."""
    return 0.0 if listening.steady_tone else programme_of(listening).duty


def playing_level(brief: Brief) -> Number:
    """Level in dB at which runtime is promised."""
    level = brief.runtime.level
    return brief.loudness.level - RUNTIME_BELOW if level is None else level


def lowest_low_pass(channels: tuple[Channel, ...]) -> Number | None:
    """Lowest low-pass corner of the channels that no other channel continues upwards; Hz."""
    tops = [
        least([b.frequency for b in c.blocks if passes(b) == "low_pass"] or [inf]) for c in channels
    ]
    top = largest(tops)
    return None if isinstance(top, float) and top == inf else top
