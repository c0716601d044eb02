"""What is said of effects beyond small signals."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.portloss import ceiling_loss
from firecrest.design.brief import LINEAR
from firecrest.design.edits.brief import with_edges
from firecrest.design.edits.paths import set_number
from firecrest.files.demos import read_demo
from firecrest.present.plot.ceiling import ceiling_plot
from firecrest.present.text.edges import assumed, edges_of
from firecrest.present.text.sentences import why

TEMPERATURE = ("brief", "conditions", "temperature")


def told(design):
    return {edge.key: edge.text for edge in edges_of(assess(design))}


def test_only_what_matters_is_told(slipway):
    assert set(told(slipway)) == {"hot_coils", "large_signal"}
    assert set(told(read_demo("breakwater"))) == {"turbulence", "large_signal", "hot_coils"}
    cold = told(set_number(slipway, TEMPERATURE, 263.15))
    assert cold["suspensions"].startswith("27 % stiffer")
    assert "softer than at 20" in told(set_number(slipway, TEMPERATURE, 303.15))["suspensions"]


def test_what_it_takes_is_what_the_ceiling_lost():
    design = read_demo("breakwater")
    a = assess(design)
    lost, at = ceiling_loss(a.acoustic).worst
    assert f"{lost:.1f} dB of the ceiling, at {at:.0f}" in told(design)["turbulence"]
    said = [s.plain for s in why(a)]
    assert any("port's own turbulence takes up to" in s for s in said)
    labels = [curve.label for curve in ceiling_plot(a).curves]
    assert "without turbulence" in labels


@pytest.mark.parametrize("name", ["slipway", "lantern"])
def test_what_is_left_out_is_said(name):
    linear = with_edges(set_number(read_demo(name), TEMPERATURE, 263.15), LINEAR)[1]
    for text in told(linear).values():
        assert text.startswith("left out")
    lines = assumed(assess(linear))
    assert any(line.startswith("Hot coils: left out") for line in lines)
    assert not any("turbulence takes" in s.plain for s in why(assess(linear)))


def test_a_box_that_plays_nothing_warms_nothing(slipway):
    dead = set_number(slipway, ("power", "source", "series"), 2)
    assert told(dead)["hot_coils"] == "nothing plays here that could warm them"


def test_coils_in_cold_air_are_louder_than_at_20_degrees(slipway):
    text = told(set_number(slipway, TEMPERATURE, 263.15))["hot_coils"]
    assert "0.5 dB louder than with coils at 20" in text
    assert "softer than with coils at 20" in told(slipway)["hot_coils"]
