"""Small parts of a case that can be printed: plates, rings round frames, feet, tubs; in mm."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.assessment.cabinet.spots import plate_under
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.cutouts import CutOut, framed, grown, outline
from firecrest.core.cabinet.frames import dot
from firecrest.core.errors import FileError
from firecrest.design.case_within import InnerBox
from firecrest.files.meshes import Mesh, mesh_of

RIM, LOOSE, RING = 0.008, 0.0006, 0.012
"""m that a plate goes beyond its hole on every side; what a ring is wider than its frame, inside
and outside."""
FOOT_LEAST, SCREW = 0.008, 0.0035
"""Least half-width of a foot, and the hole through it, m."""
THINNEST = 0.001


@dataclass(frozen=True)
class _Flat:
    """A flat part: its outline, holes as (outline, right, up), and how thick it is, m."""

    name: str
    outer: CutOut
    holes: tuple[tuple[CutOut, float, float], ...]
    thick: float


def small_meshes(drawing: Drawing) -> list[Mesh]:
    """Plates with the holes of their knobs, rings round frames that stand proud, feet, inner boxes.

    Equal ones are one mesh with a count. FileError where there is nothing of the kind.
    """
    flats = Counter([*_plates(drawing), *_rings(drawing)])
    found = [replace(_extruded(flat), count=count) for flat, count in flats.items()]
    if drawing.case.feet is not None:
        found.append(replace(_foot(drawing.case.feet.height), count=len(drawing.feet)))
    found += [mesh_of(box.name, _tub(box)) for box in drawing.case.inner]
    if not found:
        raise FileError("There is nothing small to print: add feet or a plate, or place drivers.")
    return found


def _plates(drawing: Drawing) -> Iterator[_Flat]:
    knobs = [s for s in drawing.sited if isinstance(s.part, core.Knob)]
    for s in drawing.sited:
        if not isinstance(s.part, core.Cup) or not _is_plate(drawing, s):
            continue
        mine = [k for k in knobs if plate_under(drawing, k) is s.part]
        holes = tuple((_cut(k), *_off(s, k)) for k in mine)
        yield _Flat(s.part.name, grown(s.part.cut, RIM), holes, float(s.part.depth))


def _is_plate(drawing: Drawing, s: Sited) -> bool:
    return s.part.kind == "cup" and drawing.case.fittings[int(s.path[3])].kind == "plate"


def _cut(s: Sited) -> CutOut:
    cut = core.cut_of(s.part)
    assert cut is not None
    return cut


def _off(plate: Sited, other: Sited) -> tuple[float, float]:
    """Where a thing is on a plate, in the plate's own axes, m."""
    x, y, z = (a - b for a, b in zip(other.at.o, plate.at.o, strict=True))
    away = (x, y, z)
    return round(float(dot(away, plate.at.u)), 6), round(float(dot(away, plate.at.v)), 6)


def _rings(drawing: Drawing) -> Iterator[_Flat]:
    for s in drawing.sited:
        if not isinstance(s.part, core.Driver | core.Radiator) or s.part.from_inside:
            continue
        proud = core.FLANGE - float(s.part.recess)
        if proud >= THINNEST:
            frame = framed(s.part.cut, s.part.frame)
            hole = (grown(frame, LOOSE / 2), 0.0, 0.0)
            yield _Flat(f"ring {_size(s.part)}", grown(frame, RING / 2), (hole,), proud)


def _size(part: core.Framed) -> str:
    return f"{1e3 * float(part.frame):g} mm"


def _section(cut: CutOut, right: float = 0.0, up: float = 0.0) -> Any:
    from manifold3d import CrossSection

    return CrossSection([outline(cut)]).translate([right, up])


def _extruded(flat: _Flat) -> Mesh:
    section = _section(flat.outer)
    for cut, right, up in flat.holes:
        section -= _section(cut, right, up)
    return mesh_of(flat.name, section.extrude(flat.thick))


def _tub(box: InnerBox) -> Any:
    """An inner box without its panel, standing on its back: what is glued to the panel is open."""
    from manifold3d import Manifold

    a, b, t = box.width - 2 * box.wall, box.height - 2 * box.wall, box.wall
    whole = Manifold.cube((box.width, box.height, box.depth))
    return whole - Manifold.cube((a, b, box.depth)).translate((t, t, t))


def _foot(height: float) -> Mesh:
    from manifold3d import Manifold

    wide = max(0.8 * height, FOOT_LEAST)
    body = Manifold.cylinder(height, wide, -1.0, 120)
    return mesh_of("foot", body - Manifold.cylinder(height, SCREW / 2, -1.0, 60))
