"""Shapes of a case: what each adds to the outer size, as shares of it where it grows along."""

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, items, number

Axis = Literal["x", "y", "z"]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Joint:
    """How panels meet. The ring is left, right, top and bottom; front and back close it."""

    type: Literal["butt", "rabbet", "dado", "mitre"] = choice("Joint", default="butt")
    through: Literal["sides", "top_bottom", "cover", "ring"] = choice(
        "Runs through", default="ring", help="Whose edges are seen from outside."
    )
    depth: float = number(
        "Cut deep",
        "length",
        0,
        0.05,
        "mm",
        default=0.0,
        digits=1,
        help="Of a rabbet or groove, into the panel that runs through.",
    )
    offset: float = number(
        "In from the edge",
        "length",
        0,
        0.2,
        "mm",
        default=0.0,
        digits=1,
        help="Of a groove: the panel in it then sits so far in from the outside.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Joints:
    """Joints of a box."""

    ring: Joint = Joint(through="top_bottom")
    front: Joint = Joint(through="cover")
    back: Joint = Joint(through="cover")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Rectangular:
    """Six panels, edges square or rounded."""

    kind: Literal["box"] = "box"
    joints: Joints = Joints()
    edges: Literal["square", "vertical", "all", "front"] = choice(
        "Edges rounded", default="square", help="Which edges are rounded."
    )
    radius: float = number("Edge radius", "length", 0, 0.5, "mm", default=0.012, digits=1)
    follow: bool = choice(
        "Inside follows",
        default=False,
        help="Printed or bent: the inside is rounded too. Else a router rounds the outside only.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Tapered:
    """A box whose back is narrower or lower than its front, or shifted."""

    kind: Literal["taper"] = "taper"
    back_length: float = number(
        "Back, length", "share", 0.1, 2, "%", default=0.8, digits=0, help="Of the front's."
    )
    back_height: float = number(
        "Back, height", "share", 0.1, 2, "%", default=0.8, digits=0, help="Of the front's."
    )
    shift_right: float = number("Back moved right", "length", -1, 1, "mm", default=0.0, digits=0)
    shift_up: float = number("Back moved up", "length", -1, 1, "mm", default=0.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Corner:
    """A corner of an outline, as shares of the outer size from its lower left."""

    a: float = number("Across", "share", 0, 1, "%", digits=1)
    b: float = number("Up", "share", 0, 1, "%", digits=1)


def _wedge() -> tuple[Corner, ...]:
    """Front leaning back by a quarter of the depth: (front is a = 1)."""
    return (Corner(a=1.0, b=0.0), Corner(a=0.76, b=1.0), Corner(a=0.0, b=1.0), Corner(a=0.0, b=0.0))


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Outlined:
    """A convex outline drawn along x (seen from the side) or y (seen from above).

    From the side a runs from back to front and b upwards; from above a runs to the right and b
    from back to front.
    """

    kind: Literal["prism"] = "prism"
    axis: Literal["x", "y"] = choice("Drawn along", default="x")
    corners: tuple[Corner, ...] = items("Corners", default=_wedge(), least=3, most=12)
    ends_through: bool = choice(
        "End plates cover", default=True, help="Else they are let in between the others."
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Cylindrical:
    """A round tube: its diameter is the case's length, or its height where it lies along x."""

    kind: Literal["cylinder"] = "cylinder"
    axis: Axis = choice("Lies along", default="y")
    ends_through: bool = choice(
        "End plates cover", default=False, help="Else they are let into the tube."
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Spherical:
    """A ball of the case's length with a flat front and a flat foot."""

    kind: Literal["ball"] = "ball"
    front: float = number(
        "Front, from the middle", "share", 0.1, 1, "%", default=0.72, digits=0, help="Of a radius."
    )
    foot: float = number(
        "Foot, from the middle", "share", 0.1, 1, "%", default=0.88, digits=0, help="Of a radius."
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class ProfilePoint:
    """A point of a turned profile: how high, and how wide there, as shares of the largest."""

    height: float = number("At height", "share", 0, 1, "%", digits=1)
    radius: float = number("Radius", "share", 0.05, 1, "%", digits=1)


def _vase() -> tuple[ProfilePoint, ...]:
    shares = ((0.0, 0.7), (0.21, 0.95), (0.5, 1.0), (0.79, 0.75), (1.0, 0.62))
    return tuple(ProfilePoint(height=h, radius=r) for h, r in shares)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Turned:
    """A profile turned about an upright axis, as wide as the case is long; for a print.

    Its wall is measured level.
    """

    kind: Literal["vase"] = "vase"
    profile: tuple[ProfilePoint, ...] = items("Profile", default=_vase(), least=2, most=40)

    @model_validator(mode="after")
    def _rises(self) -> Self:
        heights = [p.height for p in self.profile]
        if heights[0] != 0 or heights[-1] != 1:
            raise ValueError("a profile begins at 0 % and ends at 100 % of the height")
        if any(b - a < 0.01 for a, b in pairwise(heights)):
            raise ValueError("points of a profile rise by 1 % of the height or more")
        return self


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Layered:
    """Layers of one sheet, front to back: whole ones at both ends, rings between.

    Their outline is a rectangle, or a convex one through ``corners``: a to the right, b upwards.
    """

    kind: Literal["stack"] = "stack"
    radius: float = number("Corner radius", "length", 0, 1, "mm", default=0.04, digits=1)
    ring: float = number(
        "Ring, wall",
        "length",
        0.003,
        0.3,
        "mm",
        default=0.022,
        digits=1,
        help="How wide the rings are; the panel thickness is that of the sheet.",
    )
    corners: tuple[Corner, ...] = items("Corners", default=(), most=12)
    solid_front: int = number("Whole layers in front", "number", 1, 8, "", default=1, digits=0)
    solid_back: int = number("Whole layers behind", "number", 1, 8, "", default=1, digits=0)


Shape = Annotated[
    Rectangular | Tapered | Outlined | Cylindrical | Spherical | Turned | Layered,
    Field(discriminator="kind"),
]
