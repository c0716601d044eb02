"""The picture of a box, facts, consequences, moves, views and ports as they are shown."""

import dataclasses

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.files.demos import read_demo
from firecrest.present.frame import moves
from firecrest.present.plot import views
from firecrest.present.size import boxes, consequences
from firecrest.present.size.facts import facts
from firecrest.present.size.portview import (
    area_ticks,
    choice_name,
    choice_text,
    fit_text,
    port_plot,
)
from firecrest.present.size.sizing import offer, start_list
from firecrest.proposals.layouts import with_kind, with_layout
from firecrest.proposals.ports import candidates, choice_of

AIR, OPENING, GROUP = (("box", kind, 0) for kind in ("chambers", "openings", "groups"))


@pytest.fixture(scope="module")
def breakwater():
    return assess(read_demo("breakwater"))


@pytest.fixture(scope="module")
def lantern():
    return assess(read_demo("lantern"))


def values(found):
    return {fact.name: fact.value for fact in found}


def slow(assessment, owner):
    return [fact for job in consequences.jobs(assessment, owner) for fact in job()]


# the picture -----------------------------------------------------------------------------


def test_rooms_that_have_nothing_in_common_stand_below_each_other(breakwater):
    picture = boxes.picture(breakwater)
    tops = [room.top for room in picture.rooms]
    assert tops == sorted(tops)
    assert len(set(tops)) == 3
    assert all(e.edge == "right" and e.radiates for e in picture.elements)
    assert picture.rooms[1].lines[1] == "closed"


def test_what_plays_into_another_room_stands_to_its_left(slipway):
    picture = boxes.picture(assess(with_layout(slipway, "bandpass6")))
    rear, front = picture.rooms
    assert rear.left + rear.width == pytest.approx(front.left)
    cone = picture.elements[0]
    assert (cone.edge, cone.radiates) == ("between", False)
    assert cone.x == pytest.approx(front.left)
    assert {e.edge for e in picture.elements[1:]} == {"left", "right"}
    assert "into front" in cone.spoken


def test_every_field_of_the_box_has_an_owner():
    assert boxes.owner_of(("computed", "tuning")) == AIR
    assert boxes.owner_of(("computed", "air_volume", 2)) == ("box", "chambers", 2)
    assert boxes.owner_of(("box", "openings", 1, "length")) == ("box", "openings", 1)
    assert boxes.owner_of(("brief", "bass", "frequency")) is None
    assert boxes.owner_of(("box", "case", "depth")) is None


# facts -----------------------------------------------------------------------------------


def test_facts_of_radiators_agree_with_their_formulas(slipway):
    heavier = set_number(slipway, ("box", "openings", 0, "added_mass"), 0.02)
    heavier = set_number(heavier, ("box", "openings", 0, "washer"), 0.006)
    said = values(facts(assess(heavier), OPENING))
    part = slipway.box.openings[0].radiator
    fp = 1 / (2 * np.pi * np.sqrt((part.mmp + 0.02) * part.cmp))
    assert said["Notch"] == f"{fp:.1f} Hz"
    assert said["Sag"] == f"{1e3 * 9.81 / (2 * np.pi * fp) ** 2:.1f}\u202fmm"
    assert said["In washers"] == "3 each, −2.0\u202fg"
    assert said["Moves in all"] == f"{1e3 * (part.mmp + 0.02):.1f}\u202fg each"
    driver = slipway.box.groups[0].driver
    ratio = 2 * part.sd * part.xmax / (2 * driver.sd * driver.xmax)
    assert said["Displacement, times the drivers'"] == f"{ratio:.2f}"
    assert said["Travel in reserve"].startswith("−")


def test_more_mass_gives_below_and_takes_above_the_tuning(slipway):
    heavier, other = slow(assess(slipway), OPENING)
    low, high = heavier.value.split("; ")[1].split(", ")
    assert low.startswith("+")
    assert high.startswith("−")
    assert other.name == "With one at this tuning"
    assert other.value == "not reached by added mass" or "g each" in other.value


def test_facts_of_a_port_name_fit_speed_pipe_and_turbulence(lantern):
    found = [*facts(lantern, OPENING), *slow(lantern, OPENING)]
    said = values(found)
    assert said["Fits"].startswith("with 2 bends")
    assert "of 25\u202fm/s" in said["Air speed at the promise"]
    assert said["First pipe resonance"].endswith("Hz")
    assert said["Lost to its turbulence"].endswith("Hz")
    straight = replace_at(lantern.design, ("box", "openings", 0, "bends"), 0)
    fit = facts(assess(straight), OPENING)[0]
    assert fit.mark == "short"
    assert fit.value.endswith("too long; one bend needed")


def test_words_of_loss_stand_for_a_band_of_effect(breakwater, slipway):
    tight, inside = slow(breakwater, AIR)
    assert tight.name == "Normal wood, QL 7 to 15"
    assert " to " in tight.value
    assert inside.name == "Empty, QA 60 to 150"
    assert slow(assess(slipway), AIR) == []


def test_facts_of_closed_air_and_of_a_pair(breakwater, slipway):
    said = values(facts(breakwater, ("box", "chambers", 1)))
    assert 0.5 < float(said["Qtc"]) < 1.2
    pair = dataclasses.replace(slipway.box.groups[0], pair="clamshell")
    said = values(facts(assess(replace_at(slipway, GROUP, pair)), GROUP))
    assert said["Isobaric pair"] == "half the Vas"
    assert "Travel, outer cone" in said


# moves -----------------------------------------------------------------------------------


def titles(design):
    return [move.title for move in next(moves.moves_of(design))]


def test_moves_are_named_with_what_they_do_and_do_it():
    design = read_demo("boathouse")
    move = next(m for m in next(moves.moves_of(design)) if m.title.startswith("Add a high-pass"))
    assert "Hz goes" in move.detail
    assert move.effects[-1].endswith("dB at 33 Hz")
    assert assess(move.design).acoustic.low_note.passed


def test_shared_air_leads_to_chambers():
    shared = with_layout(read_demo("breakwater"), "one")
    assert "Give Alder F10-4 chambers of their own" in titles(shared)
    assert not any(t.startswith("Give") for t in titles(read_demo("breakwater")))


def test_a_port_too_long_or_too_fast_is_told(slipway):
    ported = with_kind(slipway, "port")
    long = replace_at(ported, ("box", "openings", 0, "bends"), 0)
    assert any(t.startswith("Fold the port") for t in titles(long))
    bandpass = with_layout(read_demo("boathouse"), "bandpass4")
    assert "Flare both ends of the port" in titles(bandpass)
    assert any(t.startswith("Widen the port to") for t in titles(bandpass))


# views -----------------------------------------------------------------------------------


VIEWS = (views.response_plot, views.travel_plot, views.impedance_plot, views.delay_plot)


@pytest.mark.parametrize("name", ["breakwater", "boathouse-bandpass", "lantern", "slipway"])
@pytest.mark.parametrize("view", [*VIEWS, views.pressure_plot])
def test_every_view_shows_every_kind_of_box(name, view):
    plot = view(assess(read_demo(name)), frequency=60.0)
    assert plot.readout.title == "at 60\u202fHz"
    told = [row.name for row in plot.readout.rows]
    assert told[:5][: len(plot.curves)] == [curve.label for curve in plot.curves][:5]
    heads, rows = plot.table()
    assert len(heads) == len(plot.curves) + 1
    assert np.isfinite(rows).all()


def test_the_sources_of_the_response_sum_to_the_sum(lantern):
    """Phasors of cone and port, from their own levels, cannot exceed or undercut the sum."""
    total, _, loud, *parts = views.response_plot(lantern).curves
    assert loud.label == "at the promised level"
    loudest = sum(10 ** (part.y / 20) for part in parts)
    leak = 1.02
    assert np.all(10 ** (total.y / 20) <= leak * loudest)
    assert [part.label for part in parts] == ["Alder F5-4", "port"]


def test_travel_in_the_heart_agrees_with_the_small_plot(slipway):
    from firecrest.present.plot.plots import travel_plots

    done = assess(slipway)
    share, small = views.travel_plot(done).curves[1], travel_plots(done, OPENING)[0]
    limit = small.lines[0].at
    np.testing.assert_allclose(share.y, 100 * small.curves[0].y / limit, rtol=1e-9)


def test_impedance_peaks_are_named_by_the_tunings_around_the_drivers(slipway, breakwater):
    names = [mark.label for mark in views.impedance_plot(assess(with_kind(slipway, "port"))).marks]
    assert names[0].endswith("cone together with the port")
    assert names[1].endswith("cone on the air of the box")
    sealed = views.impedance_plot(assess(with_kind(slipway, "sealed"))).marks
    assert [m.label.split(": ")[1] for m in sealed] == ["cone on the air of the box"]
    sixth = views.impedance_plot(assess(with_layout(slipway, "bandpass6"))).marks
    words = [m.label.split(": ")[1] for m in sixth]
    assert words[0] == "below both tunings"
    assert len(views.impedance_plot(breakwater).curves) == 3


def test_group_delay_of_a_closed_box_is_that_of_its_closed_form(slipway):
    """Second-order high-pass: -dphi/dw at fc is 2 Qtc/wc for a lossless box without inductance."""
    sealed = with_kind(slipway, "sealed")
    part = dataclasses.replace(sealed.box.groups[0].driver, le=0.0, l2=0.0, r2=0.0)
    made = replace_at(sealed, ("box", "groups", 0, "driver"), part)
    chamber = dataclasses.replace(
        made.box.chambers[0], leak_q=None, absorption_q=None, stuffing=0.0
    )
    done = assess(replace_at(made, AIR, chamber))
    curve = views.delay_plot(done).curves[1]
    fc = done.acoustic.model.reference[0]
    known = {f.name: f.value for f in facts(done, AIR)}
    expected = 1e3 * 2 * float(known["Qtc"]) / (2 * np.pi * fc)
    assert np.interp(fc, curve.x, curve.y) == pytest.approx(expected, rel=0.02)


# ports and starts ------------------------------------------------------------------------


def test_the_picture_of_ports_marks_what_is_quiet_and_what_is_in_force(slipway):
    design = with_kind(slipway, "port")
    found = [c for p in candidates(design, 0, 8.0) if (c := choice_of(design, 0, p))]
    plot = port_plot(assess(design), 0, sorted(found, key=lambda c: c.area))
    assert plot.marks[-1].chosen
    assert {m.role for m in plot.marks[:-1]} == {"olive", "flame"}
    assert any(line.upright and line.label.endswith("quiet port") for line in plot.lines)
    assert plot.table()[0][0] == "cm²"
    curve = plot.curves[0]
    here = plot.marks[-1]
    assert np.interp(here.x, curve.x, curve.y) == pytest.approx(here.y, rel=1e-2)
    assert choice_name(found[0]) in choice_text(found[0])
    narrow = dataclasses.replace(found[0], fit=dataclasses.replace(found[0].fit, narrow=True))
    assert fit_text(narrow) == "too thick for the case"
    assert area_ticks(2.0, 30.0) == [2.0, 5.0, 10.0, 20.0]


def test_offers_say_box_and_price_or_why_not(slipway):
    keys = [key for key, *_ in start_list(0.7)]
    assert keys == ["flat", "third", "shelf", "closed", "smallest", "loudest"]
    closed = offer(assess(slipway), "closed", 0.707)
    assert closed.box.startswith("6.9")
    assert "closed" in closed.box
    assert "Hz" in closed.costs
    refused = offer(assess(slipway), "third", 0.707)
    assert refused.design is None
    assert "too high" in refused.costs


def test_pairs_are_drawn_driver_by_driver_in_the_wiring_picture(slipway):
    from firecrest.present.parts.wiring import wiring_picture

    for wiring, wires in (("series", 1), ("parallel", 2)):
        pair = dataclasses.replace(slipway.box.groups[0], pair="clamshell", pair_in=wiring)
        shown = wiring_picture(assess(replace_at(slipway, GROUP, pair)), 0)
        assert [c.label for c in shown.coils][:2] == ["pair 1, inner", "pair 1, outer"]
        assert sum("plus" in dataclasses.astuple(w) for w in shown.wires) == wires
        assert "swap + and − of the outer driver" in shown.notes[-1]


def test_what_the_promise_takes_is_less_in_a_room(slipway):
    from firecrest.present.promise.brief import clauses

    def moved(design):
        text = next(c.text for c in clauses(assess(design), None) if "cm³" in c.text)
        return float(text.split()[1])

    indoors = replace_at(slipway, ("brief", "listening", "room"), 3.0)
    assert moved(indoors) < 0.9 * moved(slipway)
