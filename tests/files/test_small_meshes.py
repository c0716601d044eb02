"""Rings, plates and feet for a case of wood."""

import io
import zipfile
from math import pi
from xml.etree import ElementTree

import numpy as np
import pytest
from tests.assessment.cabinet.made import bare, drawn, placed

from firecrest.app.stages.cabinet.outputs import write_meshes
from firecrest.core.errors import FileError
from firecrest.design.case import Feet
from firecrest.design.case_within import InnerBox
from firecrest.design.edits.cabinet import add_fitting
from firecrest.design.edits.paths import replace_at
from firecrest.design.mount import Mount
from firecrest.files.meshes import threemf
from firecrest.files.small_meshes import LOOSE, RIM, RING, small_meshes

CASE = ("box", "case")


def found(design):
    return {m.name: m for m in small_meshes(drawn(design)[1])}


def test_equal_rings_are_one_mesh_and_a_recessed_frame_needs_none():
    """Frames of 132 and 165 mm, 4 mm proud."""
    rings = found(placed())
    assert {name: m.count for name, m in rings.items()} == {"ring 132 mm": 2, "ring 165 mm": 2}
    ring = rings["ring 132 mm"]
    area = pi / 4 * ((0.132 + RING) ** 2 - (0.132 + LOOSE) ** 2)
    assert ring.volume == pytest.approx(area * 0.004, rel=2e-3)
    mounts = tuple(Mount(panel="front", u=u, recess=0.004) for u in (-0.075, 0.075))
    sunk = found(replace_at(placed(), ("box", "groups", 0, "mounts"), mounts))
    assert list(sunk) == ["ring 165 mm"]


def test_a_plate_has_the_holes_of_its_knobs_and_feet_their_screw():
    place = Mount(panel="back", u=-0.12, v=-0.07)
    design = bare()
    for k, kind in enumerate(("plate", "knob")):
        design = add_fitting(design, kind)[1]
        design = replace_at(design, (*CASE, "fittings", k, "mount"), place)
    design = replace_at(design, (*CASE, "feet"), Feet(height=0.02))
    parts = found(design)
    whole = (0.06 + 2 * RIM) * (0.04 + 2 * RIM) - (4 - pi) * (0.005 + RIM) ** 2
    assert parts["Control plate"].volume == pytest.approx(
        (whole - pi / 4 * 0.0072**2) * 0.003, rel=2e-3
    )
    assert parts["foot"].count == 4
    assert parts["foot"].volume == pytest.approx(pi * (0.016**2 - 0.00175**2) * 0.02, rel=2e-3)


def test_an_inner_box_is_a_tub_open_to_its_panel():
    made = InnerBox(name="Tub", width=0.1, height=0.08, depth=0.06, wall=0.004)
    tub = found(replace_at(placed(), (*CASE, "inner"), (made,)))["Tub"]
    walls = 0.1 * 0.08 * 0.06 - 0.092 * 0.072 * 0.056
    assert tub.volume == pytest.approx(walls)
    assert np.ptp(tub.vertices, axis=0) == pytest.approx([100.0, 80.0, 60.0])


def test_nothing_small_is_said():
    with pytest.raises(FileError, match="add feet or a plate"):
        small_meshes(drawn(bare())[1])


def test_a_name_with_marks_is_a_name_in_the_file_too(tmp_path):
    design = add_fitting(bare(), "plate")[1]
    design = replace_at(design, (*CASE, "fittings", 0, "name"), 'Knobs <b>&</b> "more" / less')
    design = replace_at(design, (*CASE, "feet"), Feet())
    meshes = small_meshes(drawn(design)[1])
    with zipfile.ZipFile(io.BytesIO(threemf(meshes))) as archive:
        model = ElementTree.fromstring(archive.read("3D/3dmodel.model"))
    names = [item.get("name") for item in model.iter() if item.tag.endswith("}object")]
    assert names == ['Knobs <b>&</b> "more" / less', "foot"]
    write_meshes(tmp_path / "small.stl", meshes)
    written = {file.name for file in tmp_path.iterdir()}
    assert written == {"small-Knobs-b-b-more-less.stl", "small-foot-x4.stl"}
