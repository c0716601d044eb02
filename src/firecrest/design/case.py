"""The case: its shape, panels, joints, braces, feet, and what else is fitted to it.

The outer size is stored as length, height and depth for every shape; what a shape adds to these
is kept with it, as shares of them where it has to grow along.
"""

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, identity, items, number, text
from firecrest.design.mount import Mount

Axis = Literal["x", "y", "z"]


def _thickness(label: str) -> float | None:
    value: float | None = number(
        label, "length", 0.0005, 0.2, "mm", default=None, empty="as the others", digits=1
    )
    return value


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Thickness:
    """Panels that are not as thick as the others."""

    front: float | None = _thickness("Front, thickness")
    back: float | None = _thickness("Back, thickness")
    left: float | None = _thickness("Left, thickness")
    right: float | None = _thickness("Right, thickness")
    top: float | None = _thickness("Top, thickness")
    bottom: float | None = _thickness("Bottom, thickness")


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
    """Layers of one sheet, front to back: whole ones at both ends, rings between."""

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
    solid_front: int = number("Whole layers in front", "number", 1, 8, "", default=1, digits=0)
    solid_back: int = number("Whole layers behind", "number", 1, 8, "", default=1, digits=0)


Shape = Annotated[
    Rectangular | Tapered | Outlined | Cylindrical | Spherical | Turned | Layered,
    Field(discriminator="kind"),
]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Brace:
    """A plate square to an axis over the whole inside, with a window; or one that parts rooms."""

    name: str = text("Name", default="Brace")
    axis: Axis = choice("Stands square to", default="x")
    at: float = number(
        "At",
        "length",
        -3,
        3,
        "mm",
        default=0.0,
        digits=1,
        help="Its middle: to the right or up from the middle; from the front, negative, if it "
        "stands parallel to it.",
    )
    thickness: float | None = number(
        "Brace, thickness",
        "length",
        0.0005,
        0.2,
        "mm",
        default=None,
        empty="as the panels",
        digits=1,
    )
    divider: bool = choice(
        "Parts two chambers", default=False, help="Without a window; it takes air and weighs."
    )
    window_a: float = number("Window, width", "length", 0, 3, "mm", default=0.06, digits=0)
    window_b: float = number("Window, height", "length", 0, 3, "mm", default=0.06, digits=0)
    window_radius: float = number("Window, corners", "length", 0, 1, "mm", default=0.008, digits=0)
    groove: float = number(
        "In a groove",
        "length",
        0,
        0.05,
        "mm",
        default=0.0,
        digits=1,
        help="So deep in all walls around it.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Feet:
    """Four feet near the corners."""

    height: float = number("Feet, height", "length", 0.0005, 0.5, "mm", default=0.008, digits=0)
    inset: float = number("Feet, in from the edges", "length", 0, 1, "mm", default=0.02, digits=0)
    mass: float = number("Foot, weight", "mass", 0, 10, "g", default=0.006, digits=0)
    price: float = number("Foot, price", "money", 0, 1e4, "€", default=0.0, digits=1)
    ground: Literal[
        "rubber on wood", "rubber on stone", "rubber, wet", "felt on wood", "plastic on varnish"
    ] = choice("Stands on", default="rubber on wood", help="For whether the box walks.")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Fitting:
    """A cup for terminals or a handle, or a knob, in a panel."""

    id: str = identity("fitting")
    name: str = text("Name", default="Terminal cup")
    kind: Literal["terminal", "handle", "knob"] = choice("Kind", default="terminal")
    mount: Mount = Mount(panel="back")
    chamber: str = identity("main", "Chamber")
    round: bool = choice("Round", default=False)
    width: float = number(
        "Cut-out, width", "length", 0.002, 1, "mm", default=0.06, digits=1, help="Or its diameter."
    )
    height: float = number("Cut-out, height", "length", 0.002, 1, "mm", default=0.05, digits=1)
    corner: float = number("Cut-out, corners", "length", 0, 0.2, "mm", default=0.004, digits=1)
    depth: float = number(
        "Cup, depth", "length", 0, 1, "mm", default=0.022, digits=0, help="From the outer face."
    )
    bushing: float = number("Knob, bushing", "length", 0, 0.1, "mm", default=0.009, digits=1)
    nut: float = number("Knob, nut", "length", 0, 0.05, "mm", default=0.003, digits=1)
    mass: float = number("Weight", "mass", 0, 100, "g", default=0.06, digits=0)
    price: float = number("Price", "money", 0, 1e5, "€", default=0.0, digits=1)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class SheetStock:
    """The sheet that panels are cut from."""

    width: float = number("Sheet, width", "length", 0.05, 5, "mm", default=1.25, digits=0)
    height: float = number("Sheet, height", "length", 0.05, 5, "mm", default=1.25, digits=0)
    kerf: float = number(
        "Saw cut", "length", 0, 0.01, "mm", default=0.0028, digits=1, help="What the blade takes."
    )
    margin: float = number("Rim left", "length", 0, 0.1, "mm", default=0.01, digits=0)
    bush: float = number(
        "Router bush",
        "length",
        0,
        0.1,
        "mm",
        default=0.0,
        digits=1,
        help="Outside, of the guide bush; templates of holes are larger by half of what it is "
        "wider than the cutter. 0: holes at their size.",
    )
    cutter: float = number("Router cutter", "length", 0, 0.05, "mm", default=0.0, digits=1)
    batch: int = number("Cases cut at once", "number", 1, 500, "", default=1, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Printing:
    """How a case is printed: infill makes its walls lighter and softer."""

    skin: float = number(
        "Walls, each side",
        "length",
        0.0002,
        0.02,
        "mm",
        default=0.00135,
        digits=2,
        help="Perimeters or floors that are whole, on either face: three of 0.45 mm.",
    )
    infill: float = number("Infill", "share", 0, 1, "%", default=0.2, digits=0)
    layer: float = number("Layer", "length", 5e-5, 0.002, "mm", default=0.0002, digits=2)
    bed_x: float = number("Bed, width", "length", 0.05, 3, "mm", default=0.22, digits=0)
    bed_y: float = number("Bed, depth", "length", 0.05, 3, "mm", default=0.22, digits=0)
    bed_z: float = number("Bed, height", "length", 0.05, 3, "mm", default=0.25, digits=0)
    price: float = number("Filament", "money per mass", 0, 1e4, "€/kg", default=22.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class ContentItem:
    """Something else in the case: brace, terminal, handle, feet, paint."""

    name: str = text("Name")
    count: int = number("Count", "number", 1, 1000, "", default=1, digits=0)
    volume: float = number("Air it takes", "volume", 0, 1, "L", default=0.0, digits=2)
    mass: float = number("Weight", "mass", 0, 100, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e5, "€", default=0.0, digits=0)
    chamber: str = identity("main", "Chamber")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Case:
    """What is around everything."""

    length: float = number("Length", "length", 0.03, 3, "mm", digits=0)
    height: float = number("Height", "length", 0.03, 3, "mm", digits=0)
    depth: float = number("Depth", "length", 0.03, 3, "mm", digits=0)
    wall: float = number("Panel thickness", "length", 0.001, 0.1, "mm", default=0.012, digits=1)
    shape: Shape = choice("Shape", default=Rectangular())
    thickness: Thickness = choice("Panels of their own thickness", default=Thickness())
    density: float = number(
        "Panel density",
        "density",
        20,
        9000,
        "kg/m³",
        default=680.0,
        digits=0,
        help="Birch ply about 680, MDF 750, solid PLA 1240.",
    )
    stiffness: float = number(
        "Panel stiffness",
        "elasticity",
        1e7,
        5e11,
        "GPa",
        default=8.0e9,
        digits=1,
        help="Young's modulus: birch ply about 8, MDF 3, PLA 3.3. Within 25 %, an estimate.",
    )
    poisson: float = number(
        "Poisson's number", "number", 0, 0.49, "", default=0.2, digits=2, help="Ply 0.2, PLA 0.35."
    )
    price_per_area: float = number(
        "Panel price", "money per area", 0, 1e4, "€/m²", default=30.0, digits=0
    )
    braces: tuple[Brace, ...] = items("Braces", default=(), most=12)
    feet: Feet | None = choice("Feet", default=None)
    fittings: tuple[Fitting, ...] = items("Fittings", default=(), most=24)
    printing: Printing | None = choice("Printed", default=None)
    sheet: SheetStock = choice("Sheet", default=SheetStock())
    contents: tuple[ContentItem, ...] = items("Other contents", default=())
