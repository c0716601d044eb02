import pytest

from firecrest.assessment.assess import assess, cabinet_of
from firecrest.core.errors import RangeError
from firecrest.design.edits.paths import set_number
from firecrest.proposals.inverse import tuning_of, with_air_volume, with_tuning
from firecrest.proposals.layouts import kind_of, with_kind


@pytest.mark.parametrize("litres", [3.0, 7.1, 12.0])
def test_typing_a_volume_moves_the_depth(slipway, litres):
    made = with_air_volume(slipway, litres / 1e3)
    assert cabinet_of(made).air[0] == pytest.approx(litres / 1e3, rel=1e-9)
    assert made.box.case.length == slipway.box.case.length
    assert made.box.case.depth != slipway.box.case.depth


def test_a_volume_out_of_reach_is_refused_with_the_range(slipway):
    with pytest.raises(RangeError, match=r"By its depth this case can hold 0.00.L to 16\d.*L"):
        with_air_volume(slipway, 0.5)


def test_a_measured_volume_is_replaced_as_it_stands(slipway):
    measured = set_number(slipway, ("box", "chambers", 0, "stated_volume"), 0.0065)
    made = with_air_volume(measured, 0.0066)
    assert made.box.case == slipway.box.case
    assert cabinet_of(made).air[0] == 0.0066


@pytest.mark.parametrize("hertz", [35.0, 47.0, 52.0])
def test_typing_a_tuning_moves_added_mass(slipway, hertz):
    made = with_tuning(slipway, hertz)
    assert tuning_of(made) == pytest.approx(hertz, rel=1e-9)
    assert made.box.openings[0].added_mass != slipway.box.openings[0].added_mass


def test_typing_a_tuning_moves_port_length(slipway):
    ported = with_kind(slipway, "port")
    made = with_tuning(ported, 62.0)
    assert tuning_of(made) == pytest.approx(62.0, rel=1e-6)
    assert made.box.openings[0].length < ported.box.openings[0].length


def test_a_tuning_out_of_reach_is_refused_with_the_range(slipway):
    with pytest.raises(RangeError, match=r"can be tuned from .* by added mass"):
        with_tuning(slipway, 300.0)
    with pytest.raises(RangeError, match="no tuning"):
        with_tuning(with_kind(slipway, "sealed"), 50.0)


@pytest.mark.parametrize("kind", ["sealed", "port", "radiators"])
def test_every_kind_starts_with_something_that_plays(slipway, blank, kind):
    for design in (slipway, blank):
        made = with_kind(design, kind)
        assert kind_of(made) == kind
        assert assess(made).promise("loudness").predicted is not None
    assert with_kind(slipway, "radiators") is slipway


def test_a_new_port_is_tuned_to_the_promised_note(slipway):
    assert tuning_of(with_kind(slipway, "port")) == pytest.approx(50.0, rel=1e-6)
