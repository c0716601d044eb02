"""Closed outlines of straight lines and true arcs, for files and templates.

A loop is a list of (x, y, bulge): the bulge of a corner is the tangent of a quarter of the arc to
the next one, counter-clockwise positive, 0 for a straight line. Lengths in m.
"""

from math import asin, atan, cos, hypot, pi, sin, sqrt, tan

from firecrest.core.cabinet.cutouts import CutOut, Rectangle, Round, Truncated

Loop = list[tuple[float, float, float]]
QUARTER = tan(pi / 8)


def rectangle(a: float, b: float, r: float = 0.0) -> Loop:
    """A x b about the origin, corners of radius ``r``."""
    x, y, r = a / 2, b / 2, min(r, a / 2, b / 2)
    if r <= 0:
        return [(-x, -y, 0.0), (x, -y, 0.0), (x, y, 0.0), (-x, y, 0.0)]
    return [
        (-x + r, -y, 0.0),
        (x - r, -y, QUARTER),
        (x, -y + r, 0.0),
        (x, y - r, QUARTER),
        (x - r, y, 0.0),
        (-x + r, y, QUARTER),
        (-x, y - r, 0.0),
        (-x, -y + r, QUARTER),
    ]


def truncated(d: float, flats: float) -> Loop:
    """A circle cut by two parallels ``flats`` apart, square to x."""
    r, half = d / 2, min(flats, d) / 2
    high = sqrt(max(r * r - half * half, 0.0))
    if high <= 0:
        return circle(d)
    bulge = tan(asin(half / r) / 2)
    return [(half, -high, 0.0), (half, high, bulge), (-half, high, 0.0), (-half, -high, bulge)]


def circle(d: float) -> Loop:
    """A circle as two half arcs."""
    return [(-d / 2, 0.0, 1.0), (d / 2, 0.0, 1.0)]


def loop_of(cut: CutOut) -> Loop:
    """A cut-out about its own middle."""
    if isinstance(cut, Round):
        return circle(float(cut.d))
    if isinstance(cut, Truncated):
        return truncated(float(cut.d), float(cut.flats))
    assert isinstance(cut, Rectangle)
    return rectangle(float(cut.a), float(cut.b), float(cut.r))


def moved(loop: Loop, u: float, v: float, rot: float = 0.0) -> Loop:
    """Turned by ``rot`` rad about the origin, then moved."""
    c, s = cos(rot), sin(rot)
    return [(u + c * x - s * y, v + s * x + c * y, bulge) for x, y, bulge in loop]


def area(loop: Loop) -> float:
    """Signed area: the polygon's, and a segment for each arc."""
    total = 0.0
    for (x, y, bulge), (nx, ny, _) in zip(loop, [*loop[1:], loop[0]], strict=True):
        total += (x * ny - nx * y) / 2
        if bulge:
            angle = 4 * atan(bulge)
            r = hypot(nx - x, ny - y) / (2 * sin(angle / 2))
            total += r * r * (angle - sin(angle)) / 2
    return total


def filleted(corners: list[tuple[float, float]], r: float) -> Loop:
    """A convex outline, counter-clockwise, with all its corners rounded."""
    if r <= 0:
        return [(x, y, 0.0) for x, y in corners]
    made: Loop = []
    count = len(corners)
    for k in range(count):
        (px, py), (x, y), (nx, ny) = corners[k - 1], corners[k], corners[(k + 1) % count]
        before, after = hypot(px - x, py - y), hypot(nx - x, ny - y)
        a, b = ((px - x) / before, (py - y) / before), ((nx - x) / after, (ny - y) / after)
        half = asin(min(hypot(a[0] - b[0], a[1] - b[1]) / 2, 1.0))
        off = r / tan(half)
        made.append((x + a[0] * off, y + a[1] * off, tan((pi - 2 * half) / 4)))
        made.append((x + b[0] * off, y + b[1] * off, 0.0))
    return made
