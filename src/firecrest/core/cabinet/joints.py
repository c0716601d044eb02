"""Panels of a box by their joints: sizes to cut, and what is left of each.

The ring is looked at along z: each of its panels fills a region of the outline, and front and back
take from it, or lose to it, where they are let in.
"""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.cabinet.shapes.box import Box, corners
from firecrest.core.cabinet.shapes.polygon import area_and_middle, clipped

RING = ("left", "right", "top", "bottom")


@dataclass(frozen=True)
class Cut:
    """A panel to cut: ``a`` along u, ``b`` along v, ``t`` thick, in m; ``volume`` is left of it."""

    name: str
    a: float
    b: float
    t: float
    volume: float


def cut_panels(box: Box) -> list[Cut]:
    """All six, before openings."""
    sizes = {name: _size(box, name) for name in ("front", "back", *RING)}
    volumes = _volumes(box)
    return [
        Cut(name, float(a), float(b), float(box.t[name]), float(volumes[name]))
        for name, (a, b) in sizes.items()
    ]


Bounds = tuple[tuple[Number, Number], tuple[Number, Number]]


def piece_bounds(box: Box, name: str) -> Bounds:
    """Lowest and highest (u, v) of a panel as it is cut, from the middle of the case's side."""
    low, high = corners(box)
    if name in ("front", "back"):
        ends = {side: _cover_end(box, name, side) for side in RING}
        x = (low[0] - ends["left"], high[0] + ends["right"])
        v = (low[1] - ends["bottom"], high[1] + ends["top"])
        u = x if name == "front" else (-x[1], -x[0])
        return (u[0], v[0]), (u[1], v[1])
    half = box.depth / 2
    z = (low[2] - _depth_end(box, "back") + half, high[2] + _depth_end(box, "front") + half)
    flipped = (-z[1], -z[0])
    if name in ("left", "right"):
        y = (low[1] - _ring_end(box, name, "bottom"), high[1] + _ring_end(box, name, "top"))
        u = z if name == "left" else flipped
        return (u[0], y[0]), (u[1], y[1])
    x = (low[0] - _ring_end(box, name, "left"), high[0] + _ring_end(box, name, "right"))
    v = flipped if name == "top" else z
    return (x[0], v[0]), (x[1], v[1])


def panel_area(box: Box) -> Number:
    """Area in m2 of all six panels as they are cut, of floats or columns."""
    total: Number = 0.0
    for name in ("front", "back", *RING):
        a, b = _size(box, name)
        total = total + a * b
    return total


def _ring_end(box: Box, panel: str, neighbour: str) -> Number:
    """What a ring panel is longer than the inside at the end where it meets a neighbour."""
    ring = box.ring
    through = ("left", "right") if ring.through == "sides" else ("top", "bottom")
    if ring.type == "mitre" or panel in through:
        return box.t[neighbour] + box.in_from(neighbour)
    return ring.tongue


def _depth_end(box: Box, cover: str) -> Number:
    """What a ring panel is longer than the inside towards the front or the back."""
    joint = getattr(box, cover)
    if joint.type == "mitre" or joint.through == "ring":
        return box.t[cover] + box.in_from(cover)
    tongue: Number = joint.tongue
    return tongue


def _cover_end(box: Box, cover: str, neighbour: str) -> Number:
    """What front or back is longer than the inside at one edge."""
    joint = getattr(box, cover)
    if joint.type == "mitre" or joint.through == cover:
        return box.t[neighbour] + box.in_from(neighbour)
    tongue: Number = joint.tongue
    return tongue


def _size(box: Box, name: str) -> tuple[Number, Number]:
    length, height, depth = box.inner
    if name in ("front", "back"):
        return (
            length + _cover_end(box, name, "left") + _cover_end(box, name, "right"),
            height + _cover_end(box, name, "bottom") + _cover_end(box, name, "top"),
        )
    along = depth + _depth_end(box, "front") + _depth_end(box, "back")
    if name in ("left", "right"):
        return along, height + _ring_end(box, name, "bottom") + _ring_end(box, name, "top")
    return length + _ring_end(box, name, "left") + _ring_end(box, name, "right"), along


def _rectangle(x0: float, x1: float, y0: float, y1: float) -> Real:
    return np.array([(x0, y0), (x1, y0), (x1, y1), (x0, y1)])


def _regions(box: Box) -> dict[str, list[tuple[float, Real]]]:
    """Signed convex regions of the outline that each ring panel fills."""
    half_x, half_y = float(box.length) / 2, float(box.height) / 2
    x0, x1 = -half_x + float(box.within("left")), half_x - float(box.within("right"))
    y0, y1 = -half_y + float(box.within("bottom")), half_y - float(box.within("top"))
    if box.ring.type == "mitre":
        return _mitred(half_x, half_y, x0, x1, y0, y1)
    q = float(box.ring.tongue)
    if box.ring.through == "sides":
        top, bottom = half_y - float(box.in_from("top")), -half_y + float(box.in_from("bottom"))
        across = [(y1, top, "top"), (bottom, y0, "bottom")]
        made: dict[str, list[tuple[float, Real]]] = {
            "left": [(1.0, _rectangle(-half_x, x0, -half_y, half_y))],
            "right": [(1.0, _rectangle(x1, half_x, -half_y, half_y))],
        }
        for low, high, name in across:
            made[name] = [(1.0, _rectangle(x0 - q, x1 + q, low, high))]
            made["left"].append((-1.0, _rectangle(x0 - q, x0, low, high)))
            made["right"].append((-1.0, _rectangle(x1, x1 + q, low, high)))
        return made
    left, right = -half_x + float(box.in_from("left")), half_x - float(box.in_from("right"))
    made = {
        "top": [(1.0, _rectangle(-half_x, half_x, y1, half_y))],
        "bottom": [(1.0, _rectangle(-half_x, half_x, -half_y, y0))],
    }
    for low, high, name in ((left, x0, "left"), (x1, right, "right")):
        made[name] = [(1.0, _rectangle(low, high, y0 - q, y1 + q))]
        made["bottom"].append((-1.0, _rectangle(low, high, y0 - q, y0)))
        made["top"].append((-1.0, _rectangle(low, high, y1, y1 + q)))
    return made


def _mitred(
    half_x: float, half_y: float, x0: float, x1: float, y0: float, y1: float
) -> dict[str, list[tuple[float, Real]]]:
    outer = [(-half_x, -half_y), (half_x, -half_y), (half_x, half_y), (-half_x, half_y)]
    inner = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
    sides = {"bottom": 0, "right": 1, "top": 2, "left": 3}
    return {
        name: [(1.0, np.array([outer[k], outer[(k + 1) % 4], inner[(k + 1) % 4], inner[k]]))]
        for name, k in sides.items()
    }


def _area_within(
    regions: list[tuple[float, Real]], low: tuple[float, float], high: tuple[float, float]
) -> float:
    """Area of regions inside the rectangle between two corners."""
    total = 0.0
    sides = (((1, 0), high[0]), ((-1, 0), -low[0]), ((0, 1), high[1]), ((0, -1), -low[1]))
    for sign, region in regions:
        part = region
        for normal, level in sides:
            if len(part) < 3:
                break
            part = clipped(part, np.array(normal, dtype=float), level)
        if len(part) >= 3:
            total += sign * abs(area_and_middle(part)[0])
    return total


def _whole(regions: list[tuple[float, Real]]) -> float:
    return sum(sign * abs(area_and_middle(region)[0]) for sign, region in regions)


def _volumes(box: Box) -> dict[str, float]:
    """Material of each panel before openings."""
    regions = _regions(box)
    whole = {name: _whole(regions[name]) for name in RING}
    _, _, depth = (float(s) for s in box.inner)
    long = float(depth + _depth_end(box, "front") + _depth_end(box, "back"))
    left = {name: whole[name] * long for name in RING}
    for cover in ("front", "back"):
        a, b = (float(side) for side in _size(box, cover))
        joint, t = getattr(box, cover), float(box.t[cover])
        left[cover] = a * b * t
        if joint.through == cover:
            left[cover] -= sum(whole.values()) * float(joint.tongue)
            continue
        low, high = corners(box)
        more = {side: float(_cover_end(box, cover, side)) for side in RING}
        start = float(low[0]) - more["left"], float(low[1]) - more["bottom"]
        end = float(high[0]) + more["right"], float(high[1]) + more["top"]
        for name in RING:
            left[name] -= _area_within(regions[name], start, end) * t
    return left
