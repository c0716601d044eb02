"""A case of another shape that keeps the present air, and proportions by a rule."""

from firecrest.assessment.assess import cabinet_of
from firecrest.core.errors import DesignError, FirecrestError
from firecrest.design.case_shape import (
    Cylindrical,
    Layered,
    Outlined,
    Rectangular,
    Shape,
    Spherical,
    Tapered,
    Turned,
)
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import WORDS
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.shapes import standing_size

SHAPES: dict[str, Shape] = {
    "box": Rectangular(),
    "taper": Tapered(),
    "prism": Outlined(),
    "cylinder": Cylindrical(),
    "ball": Spherical(),
    "vase": Turned(),
    "stack": Layered(),
}
GOLDEN = (1.618, 1.0, 0.618)
STEPS = 60
CLOSE = 1e-6


def with_shape(design: Design, kind: str) -> tuple[str, Design]:
    """(label, design) of another shape whose first chamber holds as much air as before.

    It begins with the same proportions, made round where the shape is; parts keep their places
    where their panels remain. DesignError when no size of it holds the air.
    """
    air = float(cabinet_of(design).air[0])
    case = design.box.case
    length, height, depth = case.length, case.height, case.depth
    shape = SHAPES[kind]
    if kind in ("cylinder", "vase"):
        length = depth = (length * depth) ** 0.5
    if kind == "ball":
        r = (length * height * depth) ** (1 / 3) / 2
        ball = Spherical()
        length, depth, height = 2 * r, r * (1 + ball.front), r * (1 + ball.foot)
    if kind == "stack":
        shape = rebuilt(Layered(), radius=round(min(length, height) / 5, 3))
    made = _scaled_to(design, (length, height, depth), shape, air)
    if kind == "stack":  # as deep as whole layers are: the outline makes up for it
        _, _, deep = (float(side) for side in standing_size(made.box.case))
        made = _scaled_to(design, (length, height, deep), shape, air, deep=True)
    return f"Shape: {WORDS[kind]}", made


def _scaled_to(
    design: Design,
    sides: tuple[float, float, float],
    shape: Shape,
    air: float,
    *,
    deep: bool = False,
) -> Design:
    """The case of a shape with sides in these proportions and ``air`` m3 in its first chamber.

    ``deep``: its depth stays as it is.
    """
    low, high = 0.3, 4.0
    best: Design | None = None
    for _ in range(STEPS):
        factor = (low * high) ** 0.5
        try:
            best = _with(design, sides, shape, factor, 1.0 if deep else factor)
            holds = float(cabinet_of(best).air[0])
        except FirecrestError:
            holds = -1.0
        if abs(holds - air) < CLOSE:
            break
        low, high = (factor, high) if holds < air else (low, factor)
    if best is None:
        raise DesignError("No case of this shape holds the present air.")
    return best


def _with(
    design: Design, sides: tuple[float, float, float], shape: Shape, factor: float, deep: float
) -> Design:
    names, factors = ("length", "height", "depth"), (factor, factor, deep)
    sizes = {n: round(s * f, 5) for n, s, f in zip(names, sides, factors, strict=True)}
    case = rebuilt(design.box.case, shape=shape, **sizes)
    return replace_at(design, ("box", "case"), case)


def golden(design: Design) -> tuple[str, Design]:
    """(label, design) with sides as 1.618 : 1 : 0.618 and the present air.

    The longest side stays the longest.
    """
    case = design.box.case
    air = float(cabinet_of(design).air[0])
    order = sorted(("length", "height", "depth"), key=lambda n: -getattr(case, n))
    shares = dict(zip(order, GOLDEN, strict=True))
    middle = (case.length * case.height * case.depth) ** (1 / 3)
    sides = tuple(middle * shares[n] for n in ("length", "height", "depth"))
    return "Golden proportions", _scaled_to(design, (sides[0], sides[1], sides[2]), case.shape, air)
