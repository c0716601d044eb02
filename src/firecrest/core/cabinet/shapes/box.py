"""A box of six panels: joints of its ring, front and back, and rounded edges.

The ring is left, right, top and bottom; front and back close it. A panel let in deeper than flush
leaves an open recess outside it, which is neither case nor air.
"""

from dataclasses import dataclass
from math import pi
from typing import Literal

import numpy as np

from firecrest.core.arrays import Number, Real
from firecrest.core.cabinet.frames import Frame, Vector, frame
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell, Wall, difference, plane

PANELS = ("front", "back", "left", "right", "top", "bottom")


@dataclass(frozen=True)
class Joint:
    """How panels meet; ``through`` runs through: "sides" or "top_bottom" of the ring, "front" or
    "back" covers it, or the "ring" runs past. ``depth`` of a rabbet or groove, ``offset`` of a
    groove from the edge, in m.
    """

    type: Literal["butt", "rabbet", "dado", "mitre"] = "butt"
    through: str = "ring"
    depth: Number = 0.0
    offset: Number = 0.0

    @property
    def tongue(self) -> Number:
        """How much longer the one that does not run through is at each end."""
        return self.depth if self.type in ("rabbet", "dado") else 0.0

    @property
    def set_in(self) -> Number:
        """How far the one that does not run through sits in from the outside."""
        return self.offset if self.type == "dado" else 0.0


@dataclass(frozen=True)
class Rounding:
    """Rounded edges of radius ``radius``: the four along y, all, or the front's four.

    The inside follows them, or is left sharp (a router's round-over).
    """

    edges: Literal["vertical", "all", "front"]
    radius: Number
    follow: bool


@dataclass(frozen=True)
class Box:
    """Outer size in m, thickness of each panel, joints and rounding."""

    length: Number
    height: Number
    depth: Number
    t: dict[str, Number]
    ring: Joint = Joint("butt", "top_bottom")
    front: Joint = Joint("butt", "front")
    back: Joint = Joint("butt", "back")
    rounding: Rounding | None = None

    def in_from(self, panel: str) -> Number:
        """How far the outer face of a panel sits in from the case's outer rectangle."""
        if panel in ("front", "back"):
            joint: Joint = getattr(self, panel)
            return joint.set_in if joint.through == "ring" else 0.0
        let_in = ("top", "bottom") if self.ring.through == "sides" else ("left", "right")
        return self.ring.set_in if panel in let_in else 0.0

    def within(self, panel: str) -> Number:
        """How far the inner face of a panel is from the case's outer rectangle."""
        return self.t[panel] + self.in_from(panel)

    @property
    def inner(self) -> tuple[Number, Number, Number]:
        """Length, height and depth between inner faces."""
        return (
            self.length - self.within("left") - self.within("right"),
            self.height - self.within("top") - self.within("bottom"),
            self.depth - self.within("front") - self.within("back"),
        )

    @property
    def inner_radius(self) -> Number:
        """Of the inside's rounded edges; 0 where they are sharp."""
        edge = self.rounding
        if edge is None or not edge.follow:
            return 0.0
        names = ("front", "back", "left", "right") if edge.edges == "vertical" else PANELS
        thick: Number = 0.0
        for name in names:
            thick = np.maximum(thick, self.t[name])
        return np.maximum(edge.radius - thick, 0.0)


def rounded_volume(sides: tuple[Number, Number, Number], edges: str, r: Number) -> Number:
    """Of a block with rounded edges of radius ``r``: along y, all, or the front's."""
    length, height, depth = sides
    if edges == "vertical":
        return height * (length * depth - (4 - pi) * r * r)
    if edges == "all":
        a, b, c = (side - 2 * r for side in sides)
        flat = a * b * c + 2 * r * (a * b + b * c + c * a)
        return flat + pi * r * r * (a + b + c) + 4 / 3 * pi * r**3
    gone = 2 * (length + height) * (1 - pi / 4) * r * r - 4 * r**3 * (5 / 3 - pi / 2)
    return length * height * depth - gone


def open_recess(box: Box) -> Number:
    """Air outside panels that are let in deeper than flush."""
    length, height, _ = box.inner
    ends = (box.in_from("front") + box.in_from("back")) * length * height
    ring_depth = box.depth - sum(
        box.t[name] for name in ("front", "back") if getattr(box, name).through == name
    )
    if box.ring.through == "sides":
        return ends + 2 * box.ring.set_in * length * ring_depth
    return ends + 2 * box.ring.set_in * height * ring_depth


def volumes(box: Box) -> tuple[Number, Number]:
    """Outside and inside in m3, of floats or columns."""
    outer = (box.length, box.height, box.depth)
    if box.rounding is None:
        length, height, depth = box.inner
        return box.length * box.height * box.depth - open_recess(box), length * height * depth
    edges = box.rounding.edges
    outside = rounded_volume(outer, edges, box.rounding.radius)
    return outside - open_recess(box), rounded_volume(box.inner, edges, box.inner_radius)


def outer_size(box: Box) -> Vector:
    """Size over everything."""
    return box.length, box.height, box.depth


def shell(box: Box) -> Shell:
    """A box of floats."""
    outside, inside = volumes(box)
    low, high = corners(box)
    middle = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2)
    frames = panel_frames(box)
    return Shell(
        size=(box.length, box.height, box.depth),
        outside=_outside(box, outside),
        inside=Body(inside, _front_heavy(box, middle, box.inner, box.inner_radius, inside)),
        frames=frames,
        walls=(*(plane(n, f) for n, f in frames.items()), *_rounded_walls(box, low, high)),
        fields=_fields(box),
        lowest=-box.height / 2,
        stands_on=_rectangle(box),
        low=low,
        high=high,
        recess=float(open_recess(box)),
        printed_wall=float(box.t["front"]),
    )


def corners(box: Box) -> tuple[Vector, Vector]:
    """Lowest and highest corner of the inside."""
    low = (
        -box.length / 2 + box.within("left"),
        -box.height / 2 + box.within("bottom"),
        -box.depth + box.within("back"),
    )
    high = (
        box.length / 2 - box.within("right"),
        box.height / 2 - box.within("top"),
        -box.within("front"),
    )
    return low, high


def panel_frames(box: Box) -> dict[str, Frame]:
    """Outer faces of the six panels."""
    length, height, depth = box.length, box.height, box.depth
    middles = {
        "front": (0.0, 0.0, -box.in_from("front")),
        "back": (0.0, 0.0, -depth + box.in_from("back")),
        "left": (-length / 2 + box.in_from("left"), 0.0, -depth / 2),
        "right": (length / 2 - box.in_from("right"), 0.0, -depth / 2),
        "top": (0.0, height / 2 - box.in_from("top"), -depth / 2),
        "bottom": (0.0, -height / 2 + box.in_from("bottom"), -depth / 2),
    }
    return {name: frame(name, middles[name], box.t[name]) for name in PANELS}


def _outside(box: Box, volume: Number) -> Body:
    """The outside with its middle; recesses are taken out of the whole block."""
    outer = (box.length, box.height, box.depth)
    radius: Number = 0.0 if box.rounding is None else box.rounding.radius
    middle = (0.0, 0.0, -box.depth / 2)
    whole = volume + float(open_recess(box))
    body = Body(whole, _front_heavy(box, middle, outer, radius, whole))
    length, height, _ = box.inner
    ends = (("front", -box.in_from("front") / 2), ("back", -box.depth + box.in_from("back") / 2))
    low, high = corners(box)
    across = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2)
    gaps = [Body(box.in_from(n) * length * height, (*across, at)) for n, at in ends]
    # what is left is the ring's recess, on either side alike
    ring = float(open_recess(box)) - sum(g.volume for g in gaps)
    front = box.t["front"] if box.front.through == "front" else 0.0
    back = box.t["back"] if box.back.through == "back" else 0.0
    gaps.append(Body(ring, (*across, (-front - box.depth + back) / 2)))
    return difference(body, *gaps)


def _front_heavy(box: Box, middle: Vector, sides: Vector, r: Number, volume: Number) -> Vector:
    """The middle of a block whose front's edges alone are rounded; else ``middle``.

    The material gone is 2(L + H) d - 4 d^2 at each depth s, d = r - sqrt(r^2 - (r - s)^2).
    """
    if box.rounding is None or box.rounding.edges != "front" or not float(r) > 0:
        return middle
    length, height, depth = sides
    gone = length * height * depth - volume
    moment = 2 * (length + height) * r**3 * (5 / 6 - pi / 4) - 4 * r**4 * (19 / 12 - pi / 2)
    front = middle[2] + depth / 2
    whole = length * height * depth * middle[2] - gone * front + moment
    return middle[0], middle[1], whole / volume


def _rounded_walls(box: Box, low: Vector, high: Vector) -> tuple[Wall, ...]:
    """Inner rounded edges: points beyond the flats in two or three directions."""
    r = float(box.inner_radius)
    if r <= 0 or box.rounding is None:
        return ()
    looked = {"vertical": (0, 2), "all": (0, 1, 2), "front": (0, 1, 2)}[box.rounding.edges]
    least, most = np.asarray(low) + r, np.asarray(high) - r
    front_only = box.rounding.edges == "front"

    def _gap(points: Real) -> Real:
        over = np.maximum(np.maximum(least - points, points - most), 0.0)
        if front_only:
            over[:, 2] = np.maximum(points[:, 2] - most[2], 0.0)
            across = np.maximum(over[:, 0], over[:, 1])
            over = np.stack([across, over[:, 2]], axis=1)
        else:
            over = over[:, looked]
        beyond = np.sum(over > 0, axis=1) >= 2
        return np.where(beyond, r - np.sqrt(np.sum(over**2, axis=1)), np.inf)

    return (Wall("rounded edge", _gap),)


def _fields(box: Box) -> dict[str, Field]:
    """Fields between inner faces, less the inner radius where edges are rounded."""
    length, height, depth = (float(s) for s in box.inner)
    r = float(box.inner_radius)
    edges = box.rounding.edges if box.rounding is not None else ""
    across = 2 * r if edges in ("vertical", "all") else 0.0
    upright = 2 * r if edges == "all" else 0.0
    t = {name: float(value) for name, value in box.t.items()}
    sizes = {
        "front": (length - across, height - upright),
        "back": (length - across, height - upright),
        "left": (depth - across, height - upright),
        "right": (depth - across, height - upright),
        "top": (length - upright, depth - upright),
        "bottom": (length - upright, depth - upright),
    }
    return {name: Field(t[name], *size) for name, size in sizes.items()}


def _rectangle(box: Box) -> Real:
    half, depth = box.length / 2, box.depth
    return np.array([(-half, -depth), (half, -depth), (half, 0.0), (-half, 0.0)])
