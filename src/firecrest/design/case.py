"""The case: its panels, braces, feet, and what else is fitted to it; its shape stands beside.

The outer size is stored as length, height and depth for every shape; what a shape adds to these
is kept with it, as shares of them where it has to grow along.
"""

from typing import Literal

from pydantic.dataclasses import dataclass

from firecrest.design.case_shape import Axis, Rectangular, Shape
from firecrest.design.case_within import Grille, InnerBox
from firecrest.design.fields import MODEL, choice, identity, items, number, text
from firecrest.design.mount import Mount


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
    form: Literal["plate", "shelf", "dowel"] = choice(
        "Form", default="plate", help="A whole plate with a window, a shelf on a wall, or a rod."
    )
    against: Literal["front", "back", "left", "right", "top", "bottom"] = choice(
        "Stands against", default="back", help="The wall that a shelf holds."
    )
    reach: float = number(
        "Shelf, reaches", "length", 0.002, 3, "mm", default=0.06, digits=0, help="From its wall."
    )
    spot_a: float = number(
        "Dowel, across", "length", -3, 3, "mm", default=0.0, digits=1, help="From the middle."
    )
    spot_b: float = number(
        "Dowel, up", "length", -3, 3, "mm", default=0.0, digits=1, help="From the middle."
    )
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
    """A cup for terminals or a handle, a knob, or a plate over a hole that knobs sit in."""

    id: str = identity("fitting")
    name: str = text("Name", default="Terminal cup")
    kind: Literal["terminal", "handle", "knob", "plate"] = choice("Kind", default="terminal")
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

    width: float = number(
        "Sheet, width", "length", 0.05, 5, "mm", default=1.25, digits=0, help="Along its grain."
    )
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
    grain: Literal["free", "longer", "upright"] = choice(
        "Grain", default="free", help="Along the sheet's width; pieces with grain are not turned."
    )
    batch: int = number("Cases made at once", "number", 1, 500, "", default=1, digits=0)
    once: float = number(
        "Jigs, once a batch",
        "money",
        0,
        1e5,
        "€",
        default=0.0,
        digits=0,
        help="Templates and jigs that all cases of the batch share.",
    )


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
    inner: tuple[InnerBox, ...] = items("Inner boxes", default=(), most=8)
    grille: Grille | None = choice("Grille", default=None)
    feet: Feet | None = choice("Feet", default=None)
    fittings: tuple[Fitting, ...] = items("Fittings", default=(), most=24)
    printing: Printing | None = choice("Printed", default=None)
    sheet: SheetStock = choice("Sheet", default=SheetStock())
    contents: tuple[ContentItem, ...] = items("Other contents", default=())
