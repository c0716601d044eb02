"""A project: one brief for all variants, undo of whole projects, curves in the model."""

import json

import pytest

from firecrest.core.errors import DesignError
from firecrest.design.curve import MeasuredCurve
from firecrest.design.edits.curves import curve_of, in_unit, with_curve, without_curve
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of, with_design
from firecrest.design.text import project_from_json, project_to_json
from firecrest.files.demos import read_demo

DRIVER = ("box", "groups", 0, "driver")


@pytest.fixture
def lantern():
    return read_demo("lantern")


@pytest.fixture
def two(slipway, lantern):
    """Slipway as A, and the parts of Lantern as B, which is in force."""
    body = json.loads(project_to_json(project_of(slipway)))
    (other,) = json.loads(project_to_json(project_of(lantern)))["variants"]
    body["variants"].append({**other, "letter": "B"})
    return project_from_json(json.dumps({**body, "in_force": "B"}))


def test_the_brief_is_for_all_and_the_rest_for_the_variant_in_force(two, slipway, lantern):
    assert (two.design.box, two.design.brief) == (lantern.box, slipway.brief)
    louder = set_number(two.design, ("brief", "loudness", "level"), 101.0)
    made = with_design(two, set_number(louder, ("box", "case", "depth"), 0.3))
    assert made.design.box.case.depth == 0.3
    assert made.design_of(made.variants[0]).brief.loudness.level == 101.0
    assert made.variants[0].box is two.variants[0].box
    assert project_from_json(project_to_json(made)) == made


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"in_force": "C"}, "there is no variant C"),
        ({"variants": []}, "variants"),
        ({"name": "x" * 99}, "name"),
    ],
)
def test_what_hangs_apart_is_refused(two, change, words):
    with pytest.raises(DesignError, match=words):
        project_from_json(json.dumps({**json.loads(project_to_json(two)), **change}))


def test_every_variant_hangs_together_or_the_file_is_refused(two):
    body = json.loads(project_to_json(two))
    body["variants"][0]["box"]["groups"][0]["channel"] = "nobody"
    with pytest.raises(DesignError, match="no voice channel nobody"):
        project_from_json(json.dumps(body))
    body["variants"][1]["letter"] = "A"
    with pytest.raises(DesignError, match="same letter"):
        project_from_json(json.dumps(body))


def test_a_curve_takes_the_place_of_its_kind(slipway):
    z = MeasuredCurve(what="impedance", name="z", content="20 4")
    r = MeasuredCurve(what="response", name="r", content="20 80")
    for curve in (z, r, z):
        said, slipway = with_curve(slipway, DRIVER, curve)
    assert (said, slipway.box.groups[0].driver.curves) == ("Attach z", (r, z))
    slipway = in_unit(slipway, DRIVER, "impedance", "kHz")[1]
    assert curve_of(slipway.box.groups[0].driver, "impedance").unit == "kHz"
    assert without_curve(slipway, DRIVER, "impedance")[1].box.groups[0].driver.curves == (r,)
