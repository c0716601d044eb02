"""What helps: levers that are really assessed, and the case where volts give out but mass helps."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.core.limits.ceiling import code_at
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.text.helping import what_helps, with_help
from firecrest.present.text.sentences import why
from firecrest.proposals.helps import GRAMS, helps, levers_of
from firecrest.proposals.inverse import with_air_volume

LEVEL = ("brief", "loudness", "level")


@pytest.mark.parametrize("name", demo_names())
def test_gains_are_those_of_the_designs_they_make(name):
    design = set_number(read_demo(name), LEVEL, 110.0)
    before = assess(design).promise("loudness").predicted
    found = helps(assess(design))
    assert found
    gains = [x.loudness for x in found]
    assert gains == sorted(gains, reverse=True)
    for one in found[:2]:
        after = assess(one.lever.design).promise("loudness").predicted
        assert one.loudness == pytest.approx(after - before, abs=0.05)


def bass_box(slipway):
    """One 7-inch driver in 12 L, two light radiators tuned too high, asked for 45 Hz."""
    group = slipway.box.groups[0]
    driver = rebuilt(
        group.driver,
        name="Alder W18-4",
        fs=38.0, qes=0.42, qms=4.0, qts=None, vas=0.024, sd=0.0135, re=3.3,
        mms=None, cms=None, bl=None, rms=None, xmax=0.0085, pe=120.0,
    )  # fmt: skip
    box = slipway.box
    radiator = rebuilt(
        box.openings[0].radiator, sd=0.0155, mmp=0.055, cmp=4e-4, xmax=0.016, fp=None, qmp=None
    )
    sets = (rebuilt(box.openings[0], radiator=radiator, count=2, added_mass=0.0),)
    groups = (rebuilt(group, driver=driver, in_series=1, in_parallel=1),)
    made = replace_at(slipway, ("box",), rebuilt(box, groups=groups, openings=sets))
    made = replace_at(
        made, ("box", "case"), rebuilt(box.case, length=0.36, height=0.26, depth=0.25)
    )
    made = with_air_volume(made, 0.012)
    channel = rebuilt(made.voice.channels[0], blocks=(), outputs=1)
    made = replace_at(made, ("voice", "channels"), (channel,))
    made = set_number(made, ("brief", "bass", "frequency"), 45.0)
    return set_number(made, LEVEL, 96.0)


def test_volts_give_out_first_but_mass_helps(slipway):
    a = assess(bass_box(slipway))
    loud = a.acoustic.loudness
    assert code_at(a.acoustic.limits[loud.limit], loud.point) in ("V", "P")
    assert loud.frequency < 50
    best, *rest = helps(a)
    assert (best.lever.kind, best.lever.step) == ("mass", GRAMS)
    cells = next(x for x in rest if x.lever.kind == "cells")
    assert best.loudness > cells.loudness + 0.5
    text = what_helps(a)
    assert text.startswith("20\u202fg more on each radiator helps most")
    assert f"two more cells in series would bring {cells.loudness:.1f} dB" in text
    told = with_help(why(a), text)
    assert any(s.plain.endswith(text) and "gives out first" in s.plain for s in told)


def test_nothing_is_said_where_nothing_is_short(slipway):
    kept = set_number(slipway, LEVEL, 85.0)
    assert what_helps(assess(kept)) == ""
    assert with_help(why(assess(kept)), "") == why(assess(kept))


def test_where_ways_cancel_inverting_one_helps_most():
    assert what_helps(assess(read_demo("headland"))).startswith("Inverting mid helps most, 8.6 dB")


def test_left_and_right_are_inverted_together(slipway):
    levers = [x for x in levers_of(read_demo("breakwater")) if x.kind == "polarity"]
    assert [[c.inverted for c in x.design.voice.channels] for x in levers] == [[False, True, True]]
    assert not [x for x in levers_of(slipway) if x.kind == "polarity"]


def test_levers_leave_what_they_do_not_change(slipway):
    for lever in levers_of(slipway):
        assert lever.design != slipway
        assert lever.design.brief == slipway.brief
    assert {x.kind for x in levers_of(slipway)} >= {"cells", "mass", "boost", "radiator"}
