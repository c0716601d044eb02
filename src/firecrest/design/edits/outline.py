"""Points that a case is drawn through: corners of an outline, points of a turned profile.

A point is (across, up) in m: of an outline from the middle of what it is drawn in, of a profile
its radius and its height over the foot.
"""

from itertools import pairwise
from math import hypot

from firecrest.core.errors import DesignError
from firecrest.design.case import Case
from firecrest.design.case_shape import Corner, ProfilePoint
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at

SHAPE: Path = ("box", "case", "shape")
LEAST = {"corners": 3, "profile": 2}
CUT = 0.25
"""How far along its edges a corner is cut off."""
STEP = 1e-4
"""Share of the size to which a point is kept."""


def points_field(case: Case) -> str | None:
    """The name of the points that a shape is drawn through; None of one without."""
    shape = case.shape
    if shape.kind == "vase":
        return "profile"
    if shape.kind == "prism" or (shape.kind == "stack" and shape.corners):
        return "corners"
    return None


def sheet_size(case: Case) -> tuple[float, float]:
    """What an outline's points are shares of, across and up, in m."""
    shape = case.shape
    if shape.kind == "vase":
        return case.length / 2, case.height
    if shape.kind == "prism":
        return (case.depth, case.height) if shape.axis == "x" else (case.length, case.depth)
    return case.length, case.height


def outline_point(design: Design, path: Path) -> tuple[float, float]:
    """A point in m."""
    case = design.box.case
    wide, high = sheet_size(case)
    point = getattr(case.shape, str(path[-2]))[int(path[-1])]
    if isinstance(point, ProfilePoint):
        return point.radius * wide, point.height * high
    return (point.a - 0.5) * wide, (point.b - 0.5) * high


def with_outline_point(design: Design, path: Path, across: float, up: float) -> Design:
    """A point moved; the ends of a profile keep their height."""
    case = design.box.case
    wide, high = sheet_size(case)
    points = getattr(case.shape, str(path[-2]))
    place = int(path[-1])
    if path[-2] == "profile":
        ends = place in (0, len(points) - 1)
        height = points[place].height if ends else _share(up / high)
        made: object = rebuilt(points[place], radius=_share(across / wide, 0.05), height=height)
    else:
        made = rebuilt(points[place], a=_share(across / wide + 0.5), b=_share(up / high + 0.5))
    return replace_at(design, path, made)


def _share(value: float, least: float = 0.0) -> float:
    return round(min(max(value, least), 1.0) / STEP) * STEP


def add_outline_point(design: Design) -> tuple[str, Design]:
    """(label, design) with a point more: in the longest stretch of a profile, or a corner cut off.

    An outline stays convex: the corner between its longest edges gives way to two.
    """
    case = design.box.case
    name = points_field(case)
    if name is None:
        raise DesignError("This shape is not drawn through points.")
    made = _halved(case) if name == "profile" else _cut(case)
    return "Add a point", replace_at(design, (*SHAPE, name), tuple(made))


def _halved(case: Case) -> list[ProfilePoint]:
    points: list[ProfilePoint] = list(getattr(case.shape, "profile", ()))
    wide, high = sheet_size(case)
    long = [
        hypot((b.radius - a.radius) * wide, (b.height - a.height) * high)
        for a, b in pairwise(points)
    ]
    k = long.index(max(long))
    a, b = points[k], points[k + 1]
    middle = ProfilePoint(radius=(a.radius + b.radius) / 2, height=(a.height + b.height) / 2)
    return [*points[: k + 1], middle, *points[k + 1 :]]


def _cut(case: Case) -> list[Corner]:
    corners: list[Corner] = list(getattr(case.shape, "corners", ()))
    wide, high = sheet_size(case)
    count = len(corners)

    def _long(k: int) -> float:
        a, b = corners[k], corners[(k + 1) % count]
        return hypot((b.a - a.a) * wide, (b.b - a.b) * high)

    k = max(range(count), key=lambda k: (min(_long(k - 1), _long(k)), k))
    here = corners[k]
    cut = [
        Corner(a=here.a + CUT * (other.a - here.a), b=here.b + CUT * (other.b - here.b))
        for other in (corners[k - 1], corners[(k + 1) % count])
    ]
    return [*corners[:k], *cut, *corners[k + 1 :]]


def remove_outline_point(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without a point; DesignError where a shape needs it."""
    name = points_field(design.box.case)
    assert name is not None
    points = getattr(design.box.case.shape, name)
    if len(points) <= LEAST[name]:
        raise DesignError(f"This shape needs {LEAST[name]} points at least.")
    if name == "profile" and place in (0, len(points) - 1):
        raise DesignError("A profile keeps its lowest and its highest point.")
    kept = (*points[:place], *points[place + 1 :])
    return "Remove a point", replace_at(design, (*SHAPE, name), kept)


def free_outline(design: Design, *, on: bool) -> tuple[str, Design]:
    """(label, design) of stacked layers with an outline of their own, or a rectangle."""
    square = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0))
    made = tuple(Corner(a=a, b=b) for a, b in square) if on else ()
    label = "Draw the outline" if on else "Make the outline a rectangle"
    return label, replace_at(design, (*SHAPE, "corners"), made)
