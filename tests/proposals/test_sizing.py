"""Starts, ports to choose from, turbulence, shared air and protection."""

import dataclasses
from contextlib import suppress

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.memo import Memo
from firecrest.assessment.openings.port import loss_coefficient, port_area
from firecrest.assessment.portloss import port_loss
from firecrest.assessment.protection import protected, wanted_corner, with_high_pass
from firecrest.assessment.sharing import shared_air
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.errors import DesignError, FirecrestError, RangeError
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.design.mount import Mount
from firecrest.files.demos import demo_names, read_demo
from firecrest.proposals.confirming import GRID, bare_response
from firecrest.proposals.inverse import tuning_of
from firecrest.proposals.layouts import figures_of, with_kind, with_layout
from firecrest.proposals.ports import (
    candidates,
    choice_of,
    fit_in_case,
    length_for,
    space_of,
    with_port,
    worst_speed,
)
from firecrest.proposals.sizing import scaled, starts, with_air
from firecrest.proposals.tunings import best_tunings


@pytest.fixture(scope="module")
def ported(slipway):
    return with_kind(slipway, "port")


@pytest.fixture(scope="module")
def shared():
    return with_layout(read_demo("breakwater"), "one")


def test_air_is_reached_in_the_same_proportions(slipway):
    made = with_air(slipway, 0.02)
    case, old = made.box.case, slipway.box.case
    assert assess(made).cabinet.air[0] == pytest.approx(0.02, rel=1e-3)
    assert case.length / case.depth == pytest.approx(old.length / old.depth)
    with pytest.raises(DesignError, match=r"No case of these proportions holds 4000\.00 L"):
        with_air(slipway, 4.0)


def test_the_flattest_start_has_the_air_and_tuning_of_its_closed_form(ported):
    made = starts()["flat"](ported)
    fs, _, vas = figures_of(ported, ported.box.groups[0])
    alpha, h = vas / assess(made).cabinet.air[0], tuning_of(made) / fs
    a = assess(made).acoustic
    response = a.level_before_voice - a.reaches.reference
    band = (a.frequency > 1.3 * tuning_of(made)) & (a.frequency < 300)
    assert 0.3 < alpha < 3
    assert 0.5 < h < 1.5
    assert np.ptp(response[band]) < 3.0


@pytest.mark.parametrize("qtc", [0.577, 0.707, 1.0])
@pytest.mark.parametrize("leak_q", [None, 5.0])
def test_a_closed_start_has_its_qtc_with_the_losses_of_its_box(slipway, qtc, leak_q):
    """The response at fc is 20 lg Qtc, as the solver finds it."""
    leaky = set_number(slipway, ("box", "chambers", 0, "leak_q"), leak_q)
    made = starts(qtc)["closed"](leaky)
    fc = float(assess(made).acoustic.model.reference[0])
    found = np.interp(np.log(fc), np.log(GRID), bare_response(made))
    assert found == pytest.approx(20 * np.log10(qtc), abs=0.02)


def test_a_closed_start_that_takes_a_room_is_none(slipway):
    qes = 1 / (1 / 0.7 - 1 / slipway.box.groups[0].driver.qms)
    high = set_number(slipway, ("box", "groups", 0, "driver", "qes"), qes)
    with pytest.raises(DesignError, match="close to it by itself"):
        starts()["closed"](set_number(high, ("box", "chambers", 0, "leak_q"), None))


@pytest.mark.parametrize("key", ["flat", "third", "shelf"])
def test_stuffing_makes_the_case_of_a_start_smaller_by_as_much(ported, key):
    low = set_number(ported, ("box", "groups", 0, "driver", "qes"), 0.36)
    empty = starts()[key](set_number(low, ("box", "chambers", 0, "stuffing"), 0.0))
    filled = starts()[key](set_number(low, ("box", "chambers", 0, "stuffing"), 0.15))
    ratio = assess(empty).cabinet.air[0] / assess(filled).cabinet.air[0]
    assert ratio == pytest.approx(1.15, rel=2e-3)
    assert tuning_of(filled) == pytest.approx(tuning_of(empty), rel=1e-3)


@pytest.mark.parametrize("qes", [0.75, 0.9, 1.2])
@pytest.mark.parametrize("key", ["flat", "third", "shelf"])
def test_no_vented_start_is_offered_to_a_driver_that_humps_in_any_box(ported, key, qes):
    with pytest.raises(DesignError, match="too high for it"):
        starts()[key](set_number(ported, ("box", "groups", 0, "driver", "qes"), qes))


@pytest.mark.parametrize("name", demo_names())
@pytest.mark.parametrize("kind", ["port", "radiators"])
def test_what_a_start_says_is_what_the_solver_finds(name, kind):
    """Nothing is offered that humps by more than it says, or sags in its band."""
    design = with_kind(read_demo(name), kind)
    for key, hump in (("flat", 0.3), ("third", 0.3), ("shelf", 1.3)):
        with suppress(DesignError, RangeError):
            found = bare_response(starts()[key](design))
            assert np.max(np.maximum.accumulate(found) - found) < hump
            assert np.max(found) < hump


def test_a_radiator_with_a_stiff_suspension_is_told_not_offered():
    design = with_kind(read_demo("boathouse"), "radiators")
    with pytest.raises(DesignError, match=r"does not confirm it.*suspension of its own"):
        starts()["flat"](design)


def test_cases_tuned_together_find_what_each_finds_alone(ported):
    """Room for the port, air and upper edge are each case's own."""
    cases = [scaled(ported, factor) for factor in (0.7, 0.85, 1.0, 1.4, 2.0)]
    together = best_tunings(cases, Memo())
    for case, made in zip(cases, together, strict=True):
        (alone,) = best_tunings([case], Memo())
        assert made.box.openings[0].length == pytest.approx(alone.box.openings[0].length, rel=1e-9)


def test_a_long_port_comes_out_folded_and_a_short_one_straight(ported):
    longer = starts()["loudest"](set_number(ported, ("brief", "bass", "frequency"), 38.0))
    port = longer.box.openings[0]
    assert port.bends == fit_in_case(longer, 0).bends
    bent = set_number(ported, ("box", "openings", 0, "bends"), 4)
    for key in ("loudest", "flat"):
        made = starts()[key](bent)
        assert made.box.openings[0].bends == fit_in_case(made, 0).bends < 4


def test_what_a_driver_does_not_allow_is_said(slipway, ported):
    with pytest.raises(DesignError, match=r"Qts 0\.45 of this driver is too high"):
        starts()["third"](ported)
    with pytest.raises(DesignError, match="above it in any box"):
        starts(0.4)["closed"](slipway)
    with pytest.raises(DesignError, match="one kind of driver in one chamber"):
        starts()["flat"](read_demo("breakwater"))
    with pytest.raises(DesignError, match="closed box has no tuning"):
        starts()["loudest"](with_kind(slipway, "sealed"))


def test_quasi_third_order_suits_a_driver_of_low_qts(ported):
    low = set_number(ported, ("box", "groups", 0, "driver", "qes"), 0.3)
    made = starts()["third"](low)
    assert tuning_of(made) > 58.0
    shelf = starts()["shelf"](low)
    assert assess(shelf).cabinet.air[0] > 2 * assess(made).cabinet.air[0]


def test_the_smallest_case_keeps_every_promise_and_a_smaller_one_does_not(slipway):
    easy = set_number(slipway, ("brief", "loudness", "level"), 90.0)
    easy = set_number(easy, ("brief", "bass", "frequency"), 70.0)
    made = starts()["smallest"](easy)
    assert all(p.state != "short" for p in assess(made).promises)
    assert made.box.case.length < easy.box.case.length
    tight = starts()["loudest"](scaled(made, 0.97))
    assert any(p.state == "short" for p in assess(tight).promises)
    with pytest.raises(DesignError, match="stays short"):
        starts()["smallest"](set_number(slipway, ("brief", "bass", "frequency"), 20.0))


def test_the_loudest_start_is_louder_than_its_neighbours(ported):
    made = starts()["loudest"](ported)
    best = assess(made).promise("loudness").predicted
    for factor in (0.9, 1.1):
        length = made.box.openings[0].length * factor
        other = set_number(made, ("box", "openings", 0, "length"), length)
        assert assess(other).promise("loudness").predicted <= best + 0.05


# ports ------------------------------------------------------------------------------------


def test_every_choice_keeps_the_tuning_and_its_fit_is_true(ported):
    tuning = tuning_of(ported)
    found = [c for p in candidates(ported, 0, 3.0) if (c := choice_of(ported, 0, p))]
    assert len(found) >= 4
    for choice in found:
        assert tuning_of(choice.design) == pytest.approx(tuning, rel=1e-6)
        fit = fit_in_case(choice.design, 0)
        if fit.bends is not None:
            assert choice.design.box.openings[0].bends == fit.bends
            assert fit.longest >= choice.length
    speeds = [c.speed * c.area for c in found]
    assert max(speeds) / min(speeds) < 1.6


def test_length_for_is_the_length_of_the_port_in_force(ported):
    port = ported.box.openings[0]
    mass = float(assess(ported).acoustic.model.network.openings[0].mass)
    assert length_for(port, port_area(port), mass, DATA_SHEET_AIR) == pytest.approx(port.length)


def test_slots_are_cut_from_the_case_s_own_sheet(ported):
    slot = dataclasses.replace(ported.box.openings[0], shape="slot", width=0.15, height=0.012)
    made = replace_at(ported, ("box", "openings", 0), slot)
    heights = [p.height for p in candidates(made, 0)]
    assert heights == pytest.approx([0.012, 0.024, 0.036, 0.048])
    with pytest.raises(FirecrestError):
        with_port(made, 0, dataclasses.replace(slot, height=0.3))


def test_turbulence_grows_with_level_and_shrinks_with_flares(ported):
    def worst(level, edges="plain"):
        made = set_number(ported, ("brief", "loudness", "level"), level)
        made = replace_at(made, ("box", "openings", 0, "edges"), edges)
        return port_loss(assess(made)).worst[0]

    assert 0 < worst(70.0) < 0.2
    assert worst(96.0) > 3 * worst(80.0)
    assert worst(96.0, "both_flared") < worst(96.0)
    port = ported.box.openings[0]
    assert loss_coefficient(dataclasses.replace(port, bends=3)) == pytest.approx(
        loss_coefficient(dataclasses.replace(port, bends=0)) + 0.6
    )


def test_the_turbulent_solution_agrees_with_itself(ported):
    """Where most is lost: the speed that sets the resistance is the speed that results."""
    found = port_loss(assess(ported))
    assert np.all(found.loss > -1.5)
    assert found.worst[0] == pytest.approx(found.loss.max())
    assert worst_speed(assess(ported), 0).speed > 17


# shared air, protection ------------------------------------------------------------------------


def test_shared_air_is_found_and_gone_with_chambers_of_their_own(shared):
    found = shared_air(assess(shared))
    assert found.places == (1, 2)
    assert found.loss > 1.0
    assert 33 < found.frequency < 60
    assert shared_air(assess(read_demo("breakwater"))) is None


def test_cones_that_share_air_move_against_the_port_below_its_tuning(shared):
    """Pushed out by the pressure that pulls the port's air in: opposite to the sum."""
    a = assess(shared).acoustic
    at = np.argmin(np.abs(a.frequency - shared_air(assess(shared)).frequency))
    solution, area = a.solution, a.model.network.drivers[1].constants.s_d
    forced = solution.velocity[1][0, at] * area
    rest = solution.radiated[0, at] - 2 * forced
    assert np.cos(np.angle(forced / rest)) < -0.5


def test_a_high_pass_is_wanted_where_the_low_note_check_asks_and_cures_it():
    design = read_demo("boathouse")
    corner = wanted_corner(assess(design))
    assert 20 < corner < 30
    least, made = protected(assess(design))
    assert corner <= least < 1.2 * corner
    cured = assess(made)
    assert cured.acoustic.low_note.passed
    assert not assess(with_high_pass(design, corner - 2)).acoustic.low_note.passed


def test_chains_that_play_no_bass_are_left_alone():
    design = with_high_pass(read_demo("breakwater"), 30.0)
    counts = [sum(b.kind == "high_pass" for b in c.blocks) for c in design.voice.channels]
    assert counts == [2, 1, 1]


def test_a_high_pass_comes_before_the_crossover_that_an_amplifier_has_by_itself():
    chain = with_high_pass(read_demo("capstan"), 200.0).voice.channels[0].blocks
    assert [b.kind for b in chain] == ["high_pass", "high_pass", "own_crossover"]


def test_a_port_has_the_room_behind_the_panel_it_is_on(ported):
    case = ported.box.case
    for panel, deep in (("front", case.depth), ("right", case.length), ("top", case.height)):
        path = ("box", "openings", 0, "mounts")
        on = replace_at(ported, path, (Mount(panel=panel),))
        own = space_of(on.box.case, on.box.openings[0])
        assert own.depth == pytest.approx(deep - 2 * case.wall)


@pytest.mark.parametrize("key", ["closed", "flat"])
def test_a_start_that_cannot_be_confirmed_says_which_figure_is_not_known(slipway, key):
    sealed = with_kind(slipway, "sealed" if key == "closed" else "port")
    bare = replace_at(sealed, ("box", "groups", 0, "driver", "re"), None)
    with pytest.raises(FirecrestError, match="Re"):
        starts()[key](bare)
