"""Templates of panels at 1:1: outline, holes, recesses, screws, grain, in the panel's own u and v.

Seen from outside, u to the right and v up, from the middle of the panel; lengths in m.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from math import cos, pi, sin

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.braces import Brace, outlines, sides
from firecrest.core.cabinet.cutouts import framed, grown
from firecrest.core.cabinet.frames import added, dot
from firecrest.core.cabinet.joints import piece_bounds
from firecrest.core.cabinet.loops import Loop, circle, filleted, loop_of, moved, rectangle
from firecrest.core.cabinet.sections import ACROSS
from firecrest.core.cabinet.shapes import box, cylinder, prism, stack
from firecrest.core.cabinet.shapes.polygon import hull, moved_in
from firecrest.design.standing import FAR, is_divider, plate_of

LAYERS = ("OUTLINE", "THROUGH", "RECESS", "DRILL", "GRAIN", "CENTRE", "TEXT")
FEW, MANY, LARGE = 4, 8, 0.18
"""Screws of a frame, and of one wider than so many m: where its sheet does not say, estimates."""
PILOT = 0.003
CROSS = 0.008


@dataclass(frozen=True)
class Words:
    """A text at a place."""

    at: tuple[float, float]
    text: str


@dataclass(frozen=True)
class Template:
    """One panel: closed loops and circles by layer, lines of crosses and grain, words.

    ``size`` is of the outline's rectangle, from ``low``.
    """

    name: str
    low: tuple[float, float]
    size: tuple[float, float]
    loops: tuple[tuple[str, Loop], ...]
    circles: tuple[tuple[str, float, float, float], ...]
    lines: tuple[tuple[str, tuple[float, float], tuple[float, float]], ...]
    words: tuple[Words, ...] = field(default=())


def template_of(drawing: Drawing, panel: str, bush: float = 0.0) -> Template:
    """The template of a panel; ``bush``: half of router bush less cutter, m, moves the holes' rims.

    A divider's has what is mounted on either face. KeyError when the case has no such panel.
    """
    outer = _outline(drawing, panel)
    loops: list[tuple[str, Loop]] = [("OUTLINE", outer)]
    circles: list[tuple[str, float, float, float]] = []
    lines, words = list(_grain(outer, drawing)), []
    for s in drawing.sited:
        if s.part.mount.panel not in (panel, panel + FAR):
            continue
        place = _place(drawing, panel, s)
        for layer, loop in _holes(s, place, bush):
            loops.append((layer, loop))
        circles += _screws(s, place)
        u, v, _ = place
        lines += [
            ("CENTRE", (u - CROSS, v), (u + CROSS, v)),
            ("CENTRE", (u, v - CROSS), (u, v + CROSS)),
        ]
        words.append(Words((u, v), s.part.name))
        deep = float(getattr(s.part, "recess", 0.0))
        if deep > 0:
            behind = "" if s.part.mount.panel == panel else " from behind"
            said = f"recess {1e3 * deep:.1f} mm{behind}"
            words.append(Words((u, v - 2 * CROSS), said))
    points = _sampled(outer)
    low, high = points.min(axis=0), points.max(axis=0)
    return Template(
        panel,
        (float(low[0]), float(low[1])),
        (float(high[0] - low[0]), float(high[1] - low[1])),
        tuple(loops),
        tuple(circles),
        tuple(lines),
        tuple(words),
    )


def _place(drawing: Drawing, panel: str, s: Sited) -> tuple[float, float, float]:
    """(u, v, rot) of a part as its panel is looked at, whichever face it is mounted on."""
    mount = s.part.mount
    if mount.panel == panel:
        return float(mount.u), float(mount.v), float(mount.rot)
    frame = drawing.frames[panel]
    away = added(s.at.o, frame.o, -1.0)
    return float(dot(away, frame.u)), float(dot(away, frame.v)), -float(mount.rot)


def _outline(drawing: Drawing, panel: str) -> Loop:
    """The piece as it is cut."""
    shape, shell = drawing.rolled.shape, drawing.shell
    frame = drawing.frames[panel]
    if is_divider(panel):
        dividers = [b for b in drawing.rolled.braces if b.divider]
        brace = dividers[plate_of(panel)]
        return _plate(brace, drawing, panel)
    if isinstance(shape, box.Box):
        (u0, v0), (u1, v1) = ((float(u), float(v)) for u, v in piece_bounds(shape, panel))
        return moved(rectangle(u1 - u0, v1 - v0), (u0 + u1) / 2, (v0 + v1) / 2)
    if isinstance(shape, stack.Stack):
        mirror = -1.0 if panel == "back" else 1.0
        corners = [(mirror * float(x), float(y)) for x, y in shape.corners]
        middle = float(dot(frame.o, frame.u)), float(dot(frame.o, frame.v))
        corners = [(x - middle[0], y - middle[1]) for x, y in corners]
        return filleted(corners if mirror > 0 else corners[::-1], float(shape.radius))
    if isinstance(shape, prism.Prism):
        return _prism_outline(shape, panel, drawing)
    field_ = shell.fields[panel]
    if field_.r is not None:
        r = float(field_.r)
        if isinstance(shape, cylinder.Cylinder) and shape.ends_through:
            r = float(shape.radius)
        return circle(2 * r)
    return _by_face(panel, drawing)


def _plate(brace: Brace, drawing: Drawing, panel: str) -> Loop:
    """A divider as it is cut, its tongues in grooves included."""
    frame, groove = drawing.frames[panel], float(brace.groove)
    if isinstance(drawing.rolled.shape, box.Box) or not outlines(brace, drawing.inside):
        a, b = (side + 2 * groove for side in sides(brace, drawing.inside))
        return rectangle(a, b)
    points = []
    for first, second in hull(np.concatenate(outlines(brace, drawing.inside))):
        at = [0.0, 0.0, 0.0]
        for axis, value in zip(ACROSS[brace.axis], (first, second), strict=True):
            at["xyz".index(axis)] = float(value) - float(frame.o["xyz".index(axis)])
        points.append((dot((at[0], at[1], at[2]), frame.u), dot((at[0], at[1], at[2]), frame.v)))
    moved_out = moved_in(points, [-groove] * len(points)) if groove > 0 else points
    return [(float(u), float(v), 0.0) for u, v in moved_out]


def _prism_outline(shape: prism.Prism, panel: str, drawing: Drawing) -> Loop:
    frame = drawing.frames[panel]
    if panel in shape.names:
        k = shape.names.index(panel)
        edge = float(prism.edge_lengths(shape)[k])
        long = float(shape.clear if shape.ends_through else shape.length)
        along_u = abs(float(dot(frame.u, (1.0, 0.0, 0.0)))) > 0.5 if shape.axis == "x" else False
        return rectangle(long, edge) if along_u else rectangle(edge, long)
    outer = shape.points if shape.ends_through else shape.inner
    points = [shape.point(p, 0.0) for p in outer]
    flat = [
        (float(dot(added(p, frame.o, -1.0), frame.u)), float(dot(added(p, frame.o, -1.0), frame.v)))
        for p in points
    ]
    return [(u, v, 0.0) for u, v in flat]


def _by_face(panel: str, drawing: Drawing) -> Loop:
    """A slanted side: its outer face between the neighbours' outer faces."""
    taper = drawing.rolled.shape
    frame = drawing.frames[panel]
    points = []
    for deep in (0.0, float(taper.depth)):  # type: ignore[union-attr]
        for x, y in ((-1, -1), (1, -1), (1, 1), (-1, 1)):
            sides = ("left" if x < 0 else "right", "bottom" if y < 0 else "top")
            if panel not in sides and panel not in ("front", "back"):
                continue
            if panel in ("front", "back") and (deep == 0.0) != (panel == "front"):
                continue
            at = [float(taper.outer_at(s, deep)) for s in sides]  # type: ignore[union-attr]
            points.append((x * at[0], y * at[1], -deep))
    flat = [
        (float(dot(added(p, frame.o, -1.0), frame.u)), float(dot(added(p, frame.o, -1.0), frame.v)))
        for p in points
    ]
    middle = np.mean(flat, axis=0)
    order = sorted(flat, key=lambda p: float(np.arctan2(p[1] - middle[1], p[0] - middle[0])))
    return [(u, v, 0.0) for u, v in order]


def _holes(s: Sited, place: tuple[float, float, float], bush: float) -> Iterator[tuple[str, Loop]]:
    """Cut-out and recess of a part, where it sits."""
    cut = core.cut_of(s.part)
    if cut is None:
        return
    yield "THROUGH", moved(loop_of(grown(cut, bush)), *place)
    if isinstance(s.part, core.Driver | core.Radiator) and float(core.recess(s.part)) > 0:
        rim = grown(framed(s.part.cut, s.part.frame), bush)
        yield "RECESS", moved(loop_of(rim), *place)


def _screws(s: Sited, place: tuple[float, float, float]) -> list[tuple[str, float, float, float]]:
    """Pilot holes on a circle between cut-out and frame; none where there is no room."""
    part = s.part
    if not isinstance(part, core.Driver | core.Radiator):
        return []
    d = float(part.cut.d if not hasattr(part.cut, "a") else part.cut.a)
    frame = float(part.frame)
    if frame - d < 2 * PILOT:
        return []
    count = MANY if frame > LARGE else FEW
    found = []
    for k in range(count):
        turn = place[2] + pi / count + 2 * pi * k / count
        r = (frame + d) / 4
        u, v = place[0] + r * cos(turn), place[1] + r * sin(turn)
        found.append(("DRILL", u, v, PILOT))
    return found


def _grain(
    outer: Loop, drawing: Drawing
) -> Iterator[tuple[str, tuple[float, float], tuple[float, float]]]:
    """An arrow's shaft along the longer side, of sheets."""
    if drawing.case.printing is not None:
        return
    points = _sampled(outer)
    low, high = points.min(axis=0), points.max(axis=0)
    size, middle = high - low, (low + high) / 2
    k = int(np.argmax(size))
    way = np.zeros(2)
    way[k] = size[k] / 6
    edge = middle - 0.4 * size * np.array([0.0, 1.0] if k == 0 else [1.0, 0.0])
    a, b = edge - way, edge + way
    yield "GRAIN", (float(a[0]), float(a[1])), (float(b[0]), float(b[1]))


def outline_points(drawing: Drawing, panel: str) -> Real:
    """Points (n, 2) round a panel as it is cut."""
    return _sampled(_outline(drawing, panel))


def _sampled(loop: Loop) -> Real:
    """Points of a loop that reach as far as it does."""
    found = []
    for (x, y, bulge), (nx, ny, _) in zip(loop, [*loop[1:], loop[0]], strict=True):
        found.append((x, y))
        chord = np.hypot(nx - x, ny - y)
        if bulge and chord > 0:  # a ball that is cut at its pole has a foot of no size
            angle = 4 * np.arctan(bulge)
            r = chord / (2 * np.sin(angle / 2))
            out = np.array([ny - y, x - nx]) / chord
            centre = np.array([(x + nx) / 2, (y + ny) / 2]) - out * r * np.cos(angle / 2)
            start = np.arctan2(y - centre[1], x - centre[0])
            turns = start + np.linspace(0, angle, 33)[1:-1]
            found += [(centre[0] + r * np.cos(t), centre[1] + r * np.sin(t)) for t in turns]
    return np.array(found)


def templates_of(drawing: Drawing, bush: float = 0.0) -> Sequence[Template]:
    """Those of all flat panels and dividers."""
    return [template_of(drawing, name, bush) for name in drawing.plates]
