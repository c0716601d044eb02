"""The shell of a case as watertight meshes, in pieces that the bed holds; STL and 3MF, in mm.

Shells are solids of one boolean library, which only ever gives closed and oriented ones: outside
less inside, openings and recesses. Circles are of 180 points: 16 micrometres of chord at 105 mm.
"""

import io
import struct
import zipfile
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any
from xml.sax.saxutils import quoteattr

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.cabinet.pieces import print_plan
from firecrest.assessment.cabinet.spots import spots_of
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.cutouts import framed
from firecrest.core.cabinet.outlines import cloud
from firecrest.core.cabinet.shapes.vase import Vase
from firecrest.core.cabinet.solids import prism
from firecrest.core.cabinet.weighing import shell_body
from firecrest.core.errors import FileError
from firecrest.files.seams import LONG, Pegged, Seam, pegged

MM, OVER, TURN = 1e3, 1e-4, 180
KEEPS_OFF, CLOSE, APART = 0.008, 2e-3, 0.012
"""m that a seam keeps off openings; share by which a mesh may differ from the ledger; m between
equal things on the bed."""
CORE_3MF = "http://schemas.microsoft.com/3dmanufacturing/core/2015/02"
TYPES = "http://schemas.openxmlformats.org/package/2006/"


@dataclass(frozen=True, eq=False)
class Mesh:
    """A closed surface: ``vertices`` (n, 3) in mm, ``triangles`` (m, 3) counter-clockwise outside.

    ``volume`` in m3. ``count``: how many of it are printed.
    """

    name: str
    vertices: Real
    triangles: Real
    volume: float
    count: int = 1


def shell_meshes(drawing: Drawing) -> list[Mesh]:
    """The shell, split as the print plan has it, with its pegs; one piece of a case of sheets.

    FileError, with the openings concerned, when the solid is not as large as the ledger says.
    """
    whole = _shell(drawing)
    _agrees(drawing, float(whole.volume()))
    plan = print_plan(drawing)
    split = (1, 1, 1) if plan is None else plan.split
    seams = [seam for axis, count in enumerate(split) for seam in _seams(drawing, axis, count)]
    outer = _body(drawing.rolled.shape, inside=False)
    made = pegged(whole, outer, seams, float(drawing.shell.printed_wall))
    pieces = [("case", made.solid)]
    for axis in range(3):
        places = [at for own, at in seams if own == axis]
        pieces = [part for piece in pieces for part in _cut(piece, axis, places)]
    return [*(mesh_of(name, solid) for name, solid in pieces), *_pegs(made)]


def _pegs(made: Pegged) -> Iterator[Mesh]:
    """A peg of each size, and how many of it."""
    from manifold3d import Manifold

    for d, count in made.pegs:
        if count:
            peg = Manifold.cylinder(LONG, d / 2, circular_segments=TURN)
            yield replace(mesh_of(f"peg {d * MM:g} mm", peg), count=count)


def _agrees(drawing: Drawing, volume: float) -> None:
    """Openings that overlap or leave their panel are counted twice in the ledger: not to print."""
    said = float(shell_body(drawing.shell, [s.part for s in drawing.sited]).volume)
    if abs(volume - said) <= CLOSE * said:
        return
    wrong = [" and ".join(s.names) for s in spots_of(drawing) if s.impossible]
    where = f": {'; '.join(wrong[:3])}" if wrong else ""
    raise FileError(
        f"The walls are {1e6 * volume:.0f} cm³, {1e6 * said:.0f} by the ledger: openings overlap "
        f"or reach beyond their panels{where}. Move them apart, then save again."
    )


def _shell(drawing: Drawing) -> Any:
    """Outside less inside, openings and recesses, as one solid in m."""
    shape = drawing.rolled.shape
    made = _body(shape, inside=False) - _body(shape, inside=True)
    for s in drawing.sited:
        cut = core.cut_of(s.part)
        if cut is None:
            continue
        thick = float(s.at.t)
        made -= _hull(prism(s.at, cut, -OVER, thick + OVER))
        deep = float(getattr(s.part, "recess", 0.0))
        if deep > 0 and isinstance(s.part, core.Driver | core.Radiator):
            made -= _hull(prism(s.at, framed(s.part.cut, s.part.frame), -OVER, deep))
    if made.is_empty():
        raise FileError("Nothing is left of the case: its walls are all opening.")
    return made


def _body(shape: Any, *, inside: bool) -> Any:
    """The outside or the inside: a hull, or a profile turned about its axis."""
    from manifold3d import CrossSection, Manifold  # compiled: loaded when first asked for

    if not isinstance(shape, Vase):
        return Manifold.hull_points(cloud(shape, inside=inside))
    profile = np.array(shape.inner if inside else shape.outer, dtype=float)
    wide = float(np.array(shape.outer, dtype=float)[:, 1].max())
    ring = [(0.0, profile[0, 0]), *((r, y) for y, r in profile), (0.0, profile[-1, 0])]
    turned = CrossSection([ring]).revolve(TURN)
    upright = turned.rotate([-90.0, 0.0, 0.0])
    return upright.translate([0.0, -float(shape.height) / 2, -wide])


def _hull(piece: Real) -> Any:
    from manifold3d import Manifold

    return Manifold.hull_points(piece.reshape(-1, 3))


def _cut(piece: tuple[str, Any], axis: int, places: Sequence[float]) -> list[tuple[str, Any]]:
    """A piece cut square to an axis, from the lowest place to the highest."""
    name, solid = piece
    if not places:
        return [piece]
    found = []
    for k, at in enumerate(places, start=1):
        normal = [0.0, 0.0, 0.0]
        normal[axis] = 1.0
        solid, below = solid.split_by_plane(normal, at)
        found.append((f"{name} {'xyz'[axis]}{k}", below))
    return [*found, (f"{name} {'xyz'[axis]}{len(places) + 1}", solid)]


def _seams(drawing: Drawing, axis: int, count: int) -> Iterator[Seam]:
    """Seams square to an axis, off the openings where that can be."""
    outer = cloud(drawing.rolled.shape, inside=False)[:, axis]
    low, high = float(outer.min()), float(outer.max())
    for k in range(1, count):
        yield axis, _seam(drawing, axis, low + (high - low) * k / count, (high - low) / count)


def _seam(drawing: Drawing, axis: int, wanted: float, room: float) -> float:
    """The place nearest to the one wanted that keeps off openings, within a fifth of a piece."""
    taken = []
    for s in drawing.sited:
        cut = core.cut_of(s.part)
        if cut is None or abs(float(s.at.normal[axis])) > 0.7:
            continue
        points = prism(s.at, cut, 0.0, float(s.at.t)).reshape(-1, 3)[:, axis]
        taken.append((points.min() - KEEPS_OFF, points.max() + KEEPS_OFF))
    tries = sorted((wanted + off for off in np.linspace(-room / 5, room / 5, 41)),
                   key=lambda at: abs(at - wanted))  # fmt: skip
    return next((float(at) for at in tries if all(not a < at < b for a, b in taken)), wanted)


def mesh_of(name: str, solid: Any) -> Mesh:
    """A solid in m as a mesh in mm."""
    mesh = solid.to_mesh()
    vertices = np.asarray(mesh.vert_properties)[:, :3] * MM
    return Mesh(name, vertices, np.asarray(mesh.tri_verts), float(solid.volume()))


def stl(mesh: Mesh) -> bytes:
    """A binary STL of one piece."""
    corners = mesh.vertices[mesh.triangles].astype("<f4")
    normals = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    long = np.sqrt(np.sum(normals**2, axis=1, keepdims=True))
    rows = np.zeros(len(corners), dtype=[("n", "<f4", 3), ("v", "<f4", (3, 3)), ("a", "<u2")])
    rows["n"], rows["v"] = normals / np.maximum(long, 1e-12), corners
    head = mesh.name.encode("ascii", "replace")[:80].ljust(80, b"\0")
    return head + struct.pack("<I", len(rows)) + rows.tobytes()


def _item(number: int, aside: float) -> str:
    """An object on the bed; more of one kind stand beside each other."""
    moved = f' transform="1 0 0 0 1 0 0 0 1 {aside:g} 0 0"' if aside else ""
    return f'<item objectid="{number}"{moved}/>'


def threemf(meshes: list[Mesh]) -> bytes:
    """A 3MF with every piece as an object of its own."""
    objects, items = [], []
    for k, mesh in enumerate(meshes, start=1):
        points = "".join(
            f'<vertex x="{x:.5f}" y="{y:.5f}" z="{z:.5f}"/>' for x, y, z in mesh.vertices
        )
        faces = "".join(f'<triangle v1="{a}" v2="{b}" v3="{c}"/>' for a, b, c in mesh.triangles)
        objects.append(
            f'<object id="{k}" name={quoteattr(mesh.name)} type="model"><mesh>'
            f"<vertices>{points}</vertices><triangles>{faces}</triangles></mesh></object>"
        )
        items += [_item(k, n * APART * MM) for n in range(mesh.count)]
    model = (
        f'<?xml version="1.0" encoding="UTF-8"?><model unit="millimeter" xml:lang="en" '
        f'xmlns="{CORE_3MF}"><resources>{"".join(objects)}</resources>'
        f"<build>{''.join(items)}</build></model>"
    )
    kinds = (
        f'<?xml version="1.0" encoding="UTF-8"?><Types xmlns="{TYPES}content-types">'
        f'<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.'
        f'relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.'
        f'3dmanufacturing-3dmodel+xml"/></Types>'
    )
    links = (
        f'<?xml version="1.0" encoding="UTF-8"?><Relationships xmlns="{TYPES}relationships">'
        f'<Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/'
        f'3dmanufacturing/2013/01/3dmodel"/></Relationships>'
    )
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("[Content_Types].xml", kinds)
        archive.writestr("_rels/.rels", links)
        archive.writestr("3D/3dmodel.model", model)
    return stream.getvalue()
