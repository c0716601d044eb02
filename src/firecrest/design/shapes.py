"""A case as a shape of the core: of floats or columns; what panels are called and how thick."""

from collections.abc import Iterator
from typing import Any

import numpy as np

from firecrest.core.arrays import Number
from firecrest.core.cabinet.frames import Vector
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes import ball, box, cylinder, prism, stack, taper, vase
from firecrest.core.cabinet.shapes.polygon import is_convex
from firecrest.core.cabinet.shapes.shell import Shell
from firecrest.design.case import Case
from firecrest.design.case_shape import Joint

SIX = ("front", "back", "left", "right", "top", "bottom")
ENDS = {"x": ("left", "right"), "y": ("bottom", "top"), "z": ("back", "front")}
CoreShape = (
    box.Box | taper.Taper | prism.Prism | cylinder.Cylinder | ball.Ball | vase.Vase | stack.Stack
)
_MODULES: dict[type, Any] = {
    box.Box: box,
    taper.Taper: taper,
    prism.Prism: prism,
    cylinder.Cylinder: cylinder,
    ball.Ball: ball,
    vase.Vase: vase,
    stack.Stack: stack,
}


def thickness_of(case: Case, panel: str) -> Number:
    """How thick a panel is: its own thickness, else that of all."""
    own = getattr(case.thickness, panel, None)
    return case.wall if own is None else own


def panel_names(case: Case) -> tuple[str, ...]:
    """Flat panels that things can be mounted on."""
    kind = case.shape.kind
    if case.shape.kind == "cylinder":
        return ENDS[case.shape.axis]
    if kind == "stack":
        return "front", "back"
    return {"ball": ("front", "bottom"), "vase": ("bottom", "top")}.get(
        kind, _outlined(case) if kind == "prism" else SIX
    )


def _outlined(case: Case) -> tuple[str, ...]:
    shape = case.shape
    assert shape.kind == "prism"
    return (*edge_names(shape.corners, shape.axis), *ENDS[shape.axis])


def edge_names(corners: Any, axis: str) -> tuple[str, ...]:
    """Names of an outline's edges by where they face; those without one are numbered."""
    free = {"x": ("front", "top", "back", "bottom"), "y": ("right", "back", "left", "front")}[axis]
    ways = {"front": (1, 0), "back": (-1, 0), "top": (0, 1), "bottom": (0, -1)}
    if axis == "y":
        ways = {"right": (1, 0), "left": (-1, 0), "front": (0, 1), "back": (0, -1)}
    points = np.array([(float(np.ravel(c.a)[0]), float(np.ravel(c.b)[0])) for c in corners])
    edges = np.roll(points, -1, axis=0) - points
    area = float(np.sum(points[:, 0] * np.roll(points[:, 1], -1)
                        - np.roll(points[:, 0], -1) * points[:, 1]))  # fmt: skip
    out = np.stack([edges[:, 1], -edges[:, 0]], axis=1) * (1.0 if area > 0 else -1.0)
    out = out / np.maximum(np.sqrt(np.sum(out**2, axis=1)), 1e-12)[:, None]
    names = [f"edge-{k + 1}" for k in range(len(points))]
    for name in free:
        facing = out @ np.array(ways[name])
        best = int(np.argmax([f if names[k].startswith("edge-") else -2
                              for k, f in enumerate(facing)]))  # fmt: skip
        if facing[best] > 0.5:
            names[best] = name
    return tuple(names)


def _joint(joint: Joint, cover: str) -> box.Joint:
    through = cover if joint.through == "cover" else joint.through
    return box.Joint(joint.type, through, joint.depth, joint.offset)


def shape_of(case: Case) -> CoreShape:
    """The case's shape with its figures, which may be columns."""
    shape, size = case.shape, (case.length, case.height, case.depth)
    six = {name: thickness_of(case, name) for name in SIX}
    if shape.kind == "box":
        rounding = None
        if shape.edges != "square" and not _nothing(shape.radius):
            rounding = box.Rounding(shape.edges, shape.radius, shape.follow)
        joints = shape.joints
        ring = _joint(joints.ring, "top_bottom")
        front, back = _joint(joints.front, "front"), _joint(joints.back, "back")
        return box.Box(*size, six, ring, front, back, rounding)
    if shape.kind == "taper":
        back_size = shape.back_length * case.length, shape.back_height * case.height
        return taper.Taper(*size, *back_size, shape.shift_right, shape.shift_up, six)
    if shape.kind == "prism":
        return _prism(case)
    if shape.kind == "cylinder":
        ends = ENDS[shape.axis]
        thick = tuple(thickness_of(case, n) for n in ends)
        radius, length = across(case) / 2, size["xyz".index(shape.axis)]
        return cylinder.Cylinder(
            shape.axis, radius, length, case.wall, (thick[0], thick[1]), shape.ends_through
        )
    if shape.kind == "ball":
        r = case.length / 2
        flats = shape.front * r, shape.foot * r
        return ball.Ball(r, *flats, case.wall, six["front"], six["bottom"])
    if shape.kind == "vase":
        shares = tuple((p.height, p.radius) for p in shape.profile)
        return vase.Vase(
            shares, case.height, across(case) / 2, case.wall, six["bottom"], six["top"]
        )
    layers = np.floor(case.depth / case.wall + 0.5)  # whole ones, next to the depth asked for
    rings = np.maximum(layers - shape.solid_front - shape.solid_back, 0.0)
    outline = stack.rectangle(case.length, case.height)
    if len(shape.corners) > 2:
        outline = tuple(
            ((c.a - 0.5) * case.length, (c.b - 0.5) * case.height) for c in shape.corners
        )
    return stack.Stack(
        outline, shape.radius, shape.ring, case.wall, shape.solid_front, rings, shape.solid_back
    )


def _nothing(value: Number) -> bool:
    return bool(np.all(np.asarray(value) <= 0))


def across(case: Case) -> Number:
    """Diameter of a round case."""
    return case.height if getattr(case.shape, "axis", "y") == "x" else case.length


def sides_of(case: Case) -> tuple[str, ...]:
    """Names of the outer sides that a shape goes by; the others follow."""
    shape = case.shape
    if shape.kind == "ball":
        return ("length",)
    if shape.kind == "vase":
        return "length", "height"
    if shape.kind == "cylinder":
        return {"x": ("length", "height"), "y": ("length", "height"), "z": ("length", "depth")}[
            shape.axis
        ]
    return "length", "height", "depth"


def _prism(case: Case) -> prism.Prism:
    shape = case.shape
    assert shape.kind == "prism"
    along_x = shape.axis == "x"
    names = edge_names(shape.corners, shape.axis)
    ends = ENDS[shape.axis]
    wide, high = (case.depth, case.height) if along_x else (case.length, case.depth)
    points = []
    for corner in shape.corners:
        if along_x:
            points.append(((corner.a - 1.0) * wide, (corner.b - 0.5) * high))
        else:
            points.append(((corner.a - 0.5) * wide, (corner.b - 1.0) * high))
    return prism.Prism(
        shape.axis,
        case.length if along_x else case.height,
        tuple(points),
        names,
        tuple(thickness_of(case, n) for n in names),
        (thickness_of(case, ends[0]), thickness_of(case, ends[1])),
        shape.ends_through,
    )


def volumes(shape: CoreShape) -> tuple[Number, Number]:
    """Outside and inside in m3."""
    made: tuple[Number, Number] = _MODULES[type(shape)].volumes(shape)
    return made


def inner_corners(shape: CoreShape) -> tuple[Vector, Vector]:
    """Lowest and highest corner of what holds the inside."""
    made: tuple[Vector, Vector] = _MODULES[type(shape)].corners(shape)
    return made


def inside_of(shape: CoreShape) -> Inside:
    """The inside, which planes can be laid through."""
    return Inside(shape, volumes(shape)[1], *inner_corners(shape))


def inner_size(shape: CoreShape) -> Vector:
    """Size inside the walls, over everything."""
    low, high = inner_corners(shape)
    return high[0] - low[0], high[1] - low[1], high[2] - low[2]


def outer_size(shape: CoreShape) -> tuple[Number, Number, Number]:
    """Size over everything."""
    made: tuple[Number, Number, Number] = _MODULES[type(shape)].outer_size(shape)
    return made


def standing_size(case: Case) -> Vector:
    """Size over everything as it stands: on its feet and with its grille, where it has any."""
    sides = list(outer_size(shape_of(case)))
    if case.feet is not None:
        sides[1] = sides[1] + case.feet.height
    if case.grille is not None:
        k = PROUD.get(case.grille.panel, 2)
        sides[k] = sides[k] + case.grille.gap + case.grille.thickness
    return sides[0], sides[1], sides[2]


PROUD = {"left": 0, "right": 0, "top": 1, "bottom": 1, "front": 2, "back": 2}
"""The side of the case that a thing before a panel makes longer."""


def frames_of(shape: CoreShape) -> dict[str, Any]:
    """Outer faces of the flat panels; their figures may be columns."""
    made: dict[str, Any] = _MODULES[type(shape)].panel_frames(shape)
    return made


def shell_of(shape: CoreShape) -> Shell:
    """The whole shell of a shape of floats."""
    made: Shell = _MODULES[type(shape)].shell(shape)
    return made


def shape_problems(case: Case) -> Iterator[str]:
    """Why a case cannot be: no room inside, flats that meet, edges rounder than its walls."""
    size = f"{case.length * 1e3:.4g} x {case.height * 1e3:.4g} x {case.depth * 1e3:.4g} mm"
    made = shape_of(case)
    if isinstance(made, ball.Ball):
        yield from _ball_problems(made)
    drawn = made.points if isinstance(made, prism.Prism) else getattr(made, "corners", None)
    if drawn is not None and not is_convex(np.array(drawn)):
        yield "an outline has to turn the same way at every corner"
        return
    if isinstance(made, box.Box) and made.rounding is not None:
        yield from _edge_problems(made, made.rounding)
    if isinstance(made, stack.Stack):
        least = min(case.length, case.height)
        if 2 * made.radius > least:
            yield f"corners of {made.radius * 1e3:.4g} mm are rounder than the outline"
        if made.rings < 1:
            yield "layers are all whole: a deeper case has rings between"
        if 2 * made.wall >= least - 2e-3:
            yield f"rings of {made.wall * 1e3:.3g} mm leave no room inside {size}"
            return
    if min(float(side) for side in inner_size(made)) <= 1e-3:
        yield f"panels of {case.wall * 1e3:.3g} mm leave no room inside {size}"


def _ball_problems(made: ball.Ball) -> Iterator[str]:
    r, front, foot = (float(x) for x in (made.radius, made.front, made.foot))
    if front**2 + foot**2 < r**2:
        yield "front and foot of the ball meet: move one of them out"


def _edge_problems(made: box.Box, edge: box.Rounding) -> Iterator[str]:
    """A round-over deeper than the wall leaves less than half of it at the corner."""
    r, least = float(edge.radius), min(float(side) for side in outer_size(made))
    if 2 * r > least:
        yield f"edges of {r * 1e3:.3g} mm are rounder than the case"
    thin = min(float(t) for t in made.t.values())
    if not edge.follow and thin + (1 - 2**0.5) * (r - thin) < thin / 2:
        yield f"rounding edges by {r * 1e3:.3g} mm cuts through panels of {thin * 1e3:.3g} mm"
