"""The case in the round without pixels: flat faces of panels and parts, turned and sorted.

Orthographic, seen from ``yaw`` and ``pitch``; faces are painted from the farthest to the nearest.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.assessment.cabinet.template import outline_points
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.outlines import outline
from firecrest.core.cabinet.solids import Solid
from firecrest.design.shapes import CoreShape
from firecrest.design.standing import is_divider
from firecrest.present.cabinet.inks import Style

RINGS, SPREAD = 24, 0.45
"""Points round a circle; how far panels go apart, as a share of the case's size."""
LIGHT = np.array([0.35, 0.75, 0.55]) / np.sqrt(0.35**2 + 0.75**2 + 0.55**2)
SHOWN = ("whole", "open", "apart")


@dataclass(frozen=True, eq=False)
class Face:
    """A flat polygon (n, 3) in m; ``hollow`` is drawn as its rim alone."""

    style: Style
    points: Real
    hollow: bool = False


@dataclass(frozen=True, eq=False)
class Seen:
    """A face on paper (n, 2), with how brightly it is lit, 0 to 1."""

    style: Style
    points: Real
    light: float
    hollow: bool


def turned(yaw: float, pitch: float) -> Real:
    """Rows: right, up and towards the eye, from x, y, z."""
    c, s, k, n = np.cos(yaw), np.sin(yaw), np.cos(pitch), np.sin(pitch)
    return np.array([[c, 0.0, s], [s * n, k, -c * n], [-s * k, n, c * k]])


def seen(faces: list[Face], yaw: float, pitch: float) -> list[Seen]:
    """Faces on paper, the farthest first."""
    axes = turned(yaw, pitch)
    found = []
    for face in faces:
        flat = face.points @ axes.T
        normal = _normal(face.points)
        lit = 0.62 + 0.38 * abs(float(normal @ LIGHT))
        found.append((float(flat[:, 2].mean()), Seen(face.style, flat[:, :2], lit, face.hollow)))
    return [s for _, s in sorted(found, key=lambda f: f[0])]


def _normal(points: Real) -> Real:
    """Of a polygon, by Newell's rule; zero of one without area."""
    after = np.roll(points, -1, axis=0)
    n = np.cross(points, after).sum(axis=0)
    long = float(np.sqrt(n @ n))
    return np.asarray(n / long if long > 0 else n)


def faces_of(drawing: Drawing, shown: str, yaw: float, pitch: float) -> list[Face]:
    """Panels and parts: whole, with the panels before the eye open, or taken apart."""
    eye = turned(yaw, pitch)[2]
    size = max(float(s) for s in drawing.shell.size)
    found: list[Face] = []
    for name, panel in drawing.frames.items():
        normal = np.asarray(panel.normal, dtype=float)
        shift = SPREAD * size * normal if shown == "apart" else np.zeros(3)
        hollow = shown == "open" and float(normal @ eye) > 0.05
        if is_divider(name):
            shift = np.zeros(3)
        else:
            found += _panel(drawing, name, panel, shift, hollow=hollow)
        for s in drawing.sited:
            if s.part.mount.panel == name:
                found += [Face(f.style, f.points + shift) for f in _part(s)]
    found += list(_round_wall(drawing.rolled.shape, drawing))
    for standing in drawing.standing:
        found += list(_solid(standing.solid, "brace"))
    return found


def _panel(
    drawing: Drawing, name: str, panel: Frame, shift: Real, *, hollow: bool
) -> Iterator[Face]:
    """A panel as a slab: both faces and its edges."""
    rim = outline_points(drawing, name)
    outer, inner = (
        np.array([panel.at(float(u), float(v), w) for u, v in rim], dtype=float) + shift
        for w in (0.0, float(panel.t))
    )
    yield Face("panel", outer, hollow)
    if hollow:
        return
    yield Face("panel", inner)
    for k in range(len(rim)):
        j = (k + 1) % len(rim)
        yield Face("panel", np.array([outer[k], outer[j], inner[j], inner[k]]))


def _round_wall(shape: CoreShape, drawing: Drawing) -> Iterator[Face]:
    """What is between the flat panels of a round shape: outlines at several heights."""
    kind = drawing.case.shape.kind
    if kind in ("box", "taper", "prism"):
        return
    low, high = drawing.shell.low, drawing.shell.high
    views = (((1.0, 0.0, 0.0), (0.0, 1.0, 0.0)), ((0.0, 0.0, 1.0), (0.0, 1.0, 0.0)))
    middle = [(float(a) + float(b)) / 2 for a, b in zip(low, high, strict=True)]
    for right, up in views:
        flat = outline(shape, (right, up))
        step = max(len(flat) // (3 * RINGS), 1)
        points = np.array(
            [
                [middle[0] if right[0] == 0 else p[0], p[1], middle[2] if right[2] == 0 else p[0]]
                for p in flat[::step]
            ]
        )
        yield Face("panel", points, hollow=True)
    plan = outline(shape, ((1.0, 0.0, 0.0), (0.0, 0.0, -1.0)))
    step = max(len(plan) // (3 * RINGS), 1)
    yield Face("panel", np.array([[p[0], middle[1], -p[1]] for p in plan[::step]]), hollow=True)


@lru_cache(256)
def _part(s: Sited) -> tuple[Face, ...]:
    """Faces of a part; remembered, as most stay where they are."""
    style: dict[str, Style] = {
        "driver": "cone", "radiator": "cone", "board": "board", "pack": "pack", "port": "port",
        "cup": "cup", "knob": "cup", "vent": "cup", "inner box": "panel",
    }  # fmt: skip
    solid = s.solid(swept=False)
    if solid is None:
        return ()
    found = list(_solid(solid, style[s.part.kind]))
    if isinstance(s.part, core.Driver | core.Radiator):
        found += list(_frame(s, s.part))
    return tuple(found)


def _frame(s: Sited, part: core.Framed) -> Iterator[Face]:
    """Frame, basket and dust cap as they are seen from outside, a little before the panel."""
    turn = np.linspace(0, 2 * np.pi, RINGS, endpoint=False)
    cut = float(part.cut.d if not hasattr(part.cut, "a") else part.cut.a)
    rings: tuple[tuple[Style, float, float], ...] = (
        ("frame", float(part.frame), -0.001),
        ("cone", 0.86 * cut, -0.0015),
        ("dust", 0.34 * cut, -0.002),
    )
    for style, d, w in rings:
        yield Face(
            style,
            np.array(
                [s.at.at(d / 2 * float(np.cos(t)), d / 2 * float(np.sin(t)), w) for t in turn],
                dtype=float,
            ),
        )


def _solid(solid: Solid, style: Style) -> Iterator[Face]:
    """Caps and sides of every piece, with few points round a circle."""
    for piece in solid.pieces:
        step = max(piece.shape[1] // RINGS, 1)
        thin = piece[:, ::step]
        yield Face(style, thin[0])
        yield Face(style, thin[-1])
        for a, b in pairwise(thin):
            for k in range(len(a)):
                j = (k + 1) % len(a)
                yield Face(style, np.array([a[k], a[j], b[j], b[k]]))
