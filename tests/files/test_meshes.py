"""Shells as meshes: closed, oriented, as much as the ledger says, in pieces the bed holds."""

import io
import re
import struct
import zipfile

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.assessment.cabinet.made import bare, drawn, placed

from firecrest.core.cabinet.weighing import shell_body
from firecrest.core.errors import FileError
from firecrest.design.case import Fitting, Printing
from firecrest.design.case_shape import Rectangular
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.mount import Mount
from firecrest.design.shapes import panel_names
from firecrest.files.meshes import shell_meshes, stl, threemf
from firecrest.proposals.shaping import SHAPES, with_shape

CASE = ("box", "case")


def is_closed(triangles):
    """Every edge is walked once each way."""
    edges = np.concatenate([triangles[:, [0, 1]], triangles[:, [1, 2]], triangles[:, [2, 0]]])
    there = {(int(a), int(b)) for a, b in edges}
    return len(there) == len(edges) and all((b, a) in there for a, b in there)


def volume_of(mesh):
    """By the divergence theorem, mm3; positive when normals look outwards."""
    a, b, c = (mesh.vertices[mesh.triangles[:, k]].astype(float) for k in range(3))
    return float(np.sum(a * np.cross(b, c)) / 6)


def check(drawing, gone=0.0):
    """All closed and oriented; the pieces are the ledger's shell less what is ``gone`` at seams."""
    meshes = shell_meshes(drawing)
    for mesh in meshes:
        assert is_closed(mesh.triangles)
        assert volume_of(mesh) == pytest.approx(1e9 * mesh.volume, rel=1e-3)
    body = shell_body(drawing.shell, [s.part for s in drawing.sited])
    pieces = sum(m.volume for m in meshes if not m.name.startswith("peg"))
    assert pieces == pytest.approx(float(body.volume) - gone, rel=2e-3)
    return meshes


@pytest.mark.parametrize("kind", list(SHAPES))
def test_every_shape_with_its_openings_is_watertight_and_as_heavy_as_the_ledger(kind):
    made = with_shape(bare(), kind)[1]
    mount = Mount(panel=panel_names(made.box.case)[0])
    cup = Fitting(mount=mount, width=0.03, height=0.02)
    made = replace_at(made, (*CASE, "fittings"), (cup,))
    assert len(check(drawn(made)[1])) == 1


def test_openings_in_one_place_are_refused_with_their_names():
    wrong = moved(placed(), ("box", "groups", 0, "mounts", 0), 0.06, 0.0)
    with pytest.raises(FileError, match=r"openings overlap .*Alder W13-4"):
        shell_meshes(drawn(wrong)[1])


@settings(max_examples=25)
@given(
    st.floats(0.28, 0.4),
    st.floats(0.2, 0.3),
    st.floats(0.19, 0.3),
    st.sampled_from(["square", "vertical", "all", "front"]),
    st.floats(0.01, 0.03),
)
def test_boxes_of_every_size_and_rounding_are_watertight(length, height, depth, edges, radius):
    shape = rebuilt(Rectangular(), edges=edges, radius=radius, follow=True)
    sizes = {"length": length, "height": height, "depth": depth}
    case = rebuilt(placed().box.case, shape=shape, **sizes)
    check(drawn(replace_at(placed(), CASE, case))[1])


def test_a_long_print_is_split_and_its_seam_keeps_off_the_openings():
    printed = replace_at(placed(), (*CASE, "printing"), Printing())
    drawing = drawn(printed)[1]
    (peg,) = [m for m in shell_meshes(drawing) if m.name.startswith("peg")]
    holes = peg.count * np.pi * 0.0031**2 * 0.0162
    meshes = check(drawing, gone=holes + 1.3e-6)[:2]
    sizes = [m.vertices.max(axis=0) - m.vertices.min(axis=0) for m in meshes]
    for size in sizes:
        assert size[0] <= 250.01
    edge = meshes[0].vertices[:, 0].max()
    for mount in printed.box.groups[0].mounts:
        assert abs(edge - 1e3 * mount.u) >= 58 + 7.9


def test_an_stl_holds_its_triangles_in_millimetres_and_a_3mf_every_piece():
    printed = replace_at(placed(), (*CASE, "printing"), Printing())
    meshes = shell_meshes(drawn(printed)[1])
    data = stl(meshes[0])
    (count,) = struct.unpack("<I", data[80:84])
    assert count == len(meshes[0].triangles)
    assert len(data) == 84 + 50 * count
    with zipfile.ZipFile(io.BytesIO(threemf(meshes))) as archive:
        text = archive.read("3D/3dmodel.model").decode()
        assert archive.testzip() is None
    assert 'unit="millimeter"' in text
    assert len(re.findall("<object ", text)) == 3
    assert len(re.findall("<item ", text)) == 2 + meshes[2].count
    assert text.count("<triangle ") == sum(len(m.triangles) for m in meshes)


def test_a_recess_and_a_thicker_panel_come_off_the_shell():
    deep = set_number(placed(), ("box", "groups", 0, "mounts", 0, "recess"), 0.005)
    volumes = [sum(m.volume for m in check(drawn(d)[1])) for d in (placed(), deep)]
    ring = np.pi / 4 * (0.132**2 - 0.116**2) * 0.005
    assert volumes[0] - volumes[1] == pytest.approx(ring, rel=5e-3)
