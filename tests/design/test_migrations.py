"""Designs of older schemas open and say the same; what does not look like one is refused."""

import json
from math import nan
from pathlib import Path

import pytest

from firecrest.assessment.assess import assess
from firecrest.core.errors import DesignError
from firecrest.design.design import SCHEMA_VERSION
from firecrest.design.migrations import STEPS
from firecrest.design.project import project_of
from firecrest.design.text import project_from_json, project_to_json

OLD = Path(__file__).parent / "old"
PROMISED = {
    "boathouse": [103.9503, 37.37137, nan, 0.44, 23.71779, 384.8494],
    "breakwater": [101.5347, 38.0151, nan, 0.5, 7.992271, 269.0378],
    "slipway": [95.15722, 51.11591, 35838.52, 0.338, 5.509701, 246.2607],
    "regatta": [95.46985, 84.31797, nan, 0.2, 3.991151, 154.0778],
}
"""Loudness, bass, runtime, size, weight and cost as they were promised then, SI."""


def test_there_is_a_step_from_every_schema_and_a_fixture_of_each():
    assert list(STEPS) == list(range(1, SCHEMA_VERSION))
    schemas = {json.loads(file.read_text())["schema"] for file in OLD.iterdir()}
    assert schemas == set(STEPS)


@pytest.mark.parametrize("file", sorted(OLD.iterdir()), ids=lambda file: file.stem)
def test_an_old_design_opens_and_keeps_what_it_promised(file):
    old = project_from_json(file.read_text()).design
    then = [nan if p.predicted is None else p.predicted for p in assess(old).promises]
    assert then == pytest.approx(PROMISED[file.stem.split("-")[0]], rel=1e-6, nan_ok=True)
    assert project_from_json(project_to_json(project_of(old))).design == old


def test_schema_3_named_its_elements_and_4_refers_by_id():
    text = (OLD / "breakwater-schema3.json").read_text().replace('"sub"', '"Sub: 10 in!"')
    body = json.loads(text)
    body["box"]["ports"] *= 2
    made = project_from_json(json.dumps(body)).design
    chamber, channel, group = made.box.chambers[0], made.voice.channels[0], made.box.groups[0]
    assert (chamber.name, channel.name) == ("Sub: 10 in!", "Sub: 10 in!")
    assert chamber.id == channel.id == group.chamber == group.channel == "sub-10-in"
    ids = [o.id for o in made.box.openings]
    assert ids == ["port", "port-2"]


@pytest.mark.parametrize(
    "box", [[], {"chambers": 3, "groups": []}, {"chambers": [1], "ports": [None]}, {"ports": "x"}]
)
def test_what_does_not_look_like_a_design_is_refused_and_not_more(box):
    with pytest.raises(DesignError, match="box"):
        project_from_json(json.dumps({"schema": 3, "name": "x", "box": box, "voice": []}))
