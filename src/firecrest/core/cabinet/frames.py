"""Where a flat panel lies: its outer face seen from outside, and places on it.

The case's frame: origin in the middle of the front's outer rectangle, x to the listener's right as
the box is faced, y up, z forward, so that the whole case has z <= 0.
"""

from dataclasses import dataclass
from math import cos, sin

from firecrest.core.arrays import Number, root

Vector = tuple[Number, Number, Number]
X, Y, Z = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)


def added(a: Vector, b: Vector, times: Number = 1.0) -> Vector:
    """A + times b."""
    return a[0] + times * b[0], a[1] + times * b[1], a[2] + times * b[2]


def dot(a: Vector, b: Vector) -> Number:
    """Scalar product."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Vector, b: Vector) -> Vector:
    """Vector product."""
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def unit(a: Vector) -> Vector:
    """``a`` made as long as 1."""
    return scaled(a, 1.0 / root(dot(a, a)))


def scaled(a: Vector, times: Number) -> Vector:
    """``a`` times a number."""
    return a[0] * times, a[1] * times, a[2] * times


@dataclass(frozen=True)
class Frame:
    """A panel: ``o`` its middle, ``u`` to the right and ``v`` up as seen from outside, ``t`` thick.

    u x v points outwards; lengths in m.
    """

    o: Vector
    u: Vector
    v: Vector
    t: Number

    @property
    def normal(self) -> Vector:
        """Outwards."""
        return cross(self.u, self.v)

    def at(self, u: Number, v: Number, w: Number = 0.0) -> Vector:
        """The point ``u`` right, ``v`` up and ``w`` inwards of the outer face's middle."""
        on_face = added(added(self.o, self.u, u), self.v, v)
        if isinstance(w, float) and w == 0.0:
            return on_face
        return added(on_face, self.normal, -w)

    def turned(self, rot: float) -> "Frame":
        """The same face with its axes turned by ``rot`` rad, counter-clockwise from outside."""
        if rot == 0.0:
            return self
        c, s = cos(rot), sin(rot)
        right = added(scaled(self.u, c), self.v, s)
        return Frame(self.o, right, added(scaled(self.v, c), self.u, -s), self.t)

    def placed(self, u: Number, v: Number, rot: float) -> "Frame":
        """A frame whose middle is the place (u, v) and whose axes are turned by ``rot``."""
        turned = self.turned(rot)
        return Frame(self.at(u, v), turned.u, turned.v, self.t)


AXES: dict[str, tuple[Vector, Vector]] = {
    "front": (X, Y),
    "back": (scaled(X, -1.0), Y),
    "left": (Z, Y),
    "right": (scaled(Z, -1.0), Y),
    "top": (X, scaled(Z, -1.0)),
    "bottom": (X, Z),
}
"""u and v of the panels of a box, so that the six unfold around the front."""


def frame(name: str, o: Vector, t: Number) -> Frame:
    """The panel ``name`` of a box with its outer face's middle at ``o``."""
    u, v = AXES[name]
    return Frame(o, u, v, t)
