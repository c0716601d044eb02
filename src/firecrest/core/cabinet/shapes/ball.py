"""A ball with a flat front and a flat foot, which may not meet."""

from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from firecrest.core.arrays import Number
from firecrest.core.cabinet.frames import Frame, Vector, frame
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, ball_wall, difference, plane


@dataclass(frozen=True)
class Ball:
    """Radius; flats ``front`` before and ``foot`` below the centre; wall, and flats' thickness."""

    radius: Number
    front: Number
    foot: Number
    t: Number
    t_front: Number
    t_foot: Number


def cap_volume(r: Number, off: Number) -> Number:
    """Of the cap of a ball beyond a plane ``off`` from its centre."""
    high = r - off
    return pi * high * high * (3 * r - high) / 3


def cap_middle(r: float, off: float) -> float:
    """How far from the ball's centre the middle of that cap is."""
    high = r - off
    return 3 * (2 * r - high) ** 2 / (4 * (3 * r - high))


def volumes(ball: Ball) -> tuple[Number, Number]:
    """Outside and inside in m3, of floats or columns."""
    r, inner = ball.radius, ball.radius - ball.t
    outside = 4 / 3 * pi * r**3 - cap_volume(r, ball.front) - cap_volume(r, ball.foot)
    front, foot = ball.front - ball.t_front, ball.foot - ball.t_foot
    inside = 4 / 3 * pi * inner**3 - cap_volume(inner, front) - cap_volume(inner, foot)
    return outside, inside


def outer_size(ball: Ball) -> Vector:
    """Size over everything."""
    return 2 * ball.radius, ball.radius + ball.foot, ball.radius + ball.front


def corners(ball: Ball) -> tuple[Vector, Vector]:
    """Lowest and highest corner of what holds the inside."""
    inner = ball.radius - ball.t
    low = (-inner, ball.t_foot - ball.foot, -ball.front - inner)
    return low, (inner, inner, -ball.t_front)


def panel_frames(ball: Ball) -> dict[str, Frame]:
    """The flats; the front's is the plane z = 0."""
    return {
        "front": frame("front", (0.0, 0.0, 0.0), ball.t_front),
        "bottom": frame("bottom", (0.0, -ball.foot, -ball.front), ball.t_foot),
    }


def shell(ball: Ball) -> Shell:
    """A ball of floats; its front flat is the plane z = 0."""
    r, f, b = float(ball.radius), float(ball.front), float(ball.foot)
    centre: Vector = (0.0, 0.0, -f)
    frames = panel_frames(ball)
    inner = r - float(ball.t)
    flats = {"front": f - float(ball.t_front), "bottom": b - float(ball.t_foot)}
    turn = 2 * np.pi * np.arange(720) / 720
    foot = sqrt(max(r * r - b * b, 0.0))
    return Shell(
        size=outer_size(ball),
        outside=_cut(r, f, b, centre),
        inside=_cut(inner, flats["front"], flats["bottom"], centre),
        frames=frames,
        walls=(*(plane(n, panel) for n, panel in frames.items()), ball_wall("wall", centre, inner)),
        fields={n: Field(frames[n].t, r=sqrt(max(inner**2 - flats[n] ** 2, 0.0))) for n in frames},
        lowest=-b,
        stands_on=np.stack([foot * np.cos(turn), foot * np.sin(turn) - f], axis=1),
        low=corners(ball)[0],
        high=corners(ball)[1],
        printed_wall=float(ball.t),
    )


def _cut(r: float, front: float, foot: float, centre: Vector) -> Body:
    """A ball without its two caps, and its middle."""
    caps = []
    for off, (x, y, z) in ((front, (0.0, 0.0, 1.0)), (foot, (0.0, -1.0, 0.0))):
        away = cap_middle(r, off)
        middle = (centre[0] + x * away, centre[1] + y * away, centre[2] + z * away)
        caps.append(Body(float(cap_volume(r, off)), middle))
    return difference(Body(4 / 3 * pi * r**3, centre), *caps)
