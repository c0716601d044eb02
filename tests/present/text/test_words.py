"""Words of promises and parts in every state."""

import dataclasses

import pytest
from tests.assessment.cabinet.made import placed
from tests.reference.designs import system_design

from firecrest.assessment.assess import assess
from firecrest.assessment.verdicts import Promise
from firecrest.core.limits.elements import Limit
from firecrest.core.note import note
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import replace_at
from firecrest.present.frame.meters import TOOLTIPS, meter
from firecrest.present.frame.rail import STAGES, rail
from firecrest.present.text import words
from firecrest.present.text.guide import page_named
from firecrest.present.text.words import ending

PROMISE = Promise("loudness", 95.2, 96.0, -0.8, "short", "must", True)


def shown(slipway, **changes):
    return words.margin_text(dataclasses.replace(PROMISE, **changes), slipway)


NO_XMAX = note("figure", figure="xmax", part="Hazel T25")
TOO_LOUD = note("level not held", level=110.0, most=98.0)


@pytest.mark.parametrize(
    ("changes", "text"),
    [
        ({}, "0.8\u202fdB short"),
        ({"margin": 1.25, "state": "met"}, "1.2\u202fdB in hand"),
        ({"margin": 0.3, "state": "close", "reason": note("high-pass")}, "needs a high-pass"),
        ({"state": "none"}, "no promise set"),
        ({"state": "unknown", "predicted": None, "reason": NO_XMAX}, "needs Xmax of Hazel T25"),
        (
            {"key": "bass", "predicted": 51.1, "target": 50.0, "margin": -1.1, "floor": False},
            "1.1\u202fHz over",
        ),
        (
            {
                "key": "bass",
                "predicted": None,
                "margin": None,
                "reason": note("band short", short=2.0),
            },
            "the band is 2.0 dB short",
        ),
        (
            {
                "key": "runtime",
                "predicted": 1.8e4,
                "target": 1.8e4,
                "margin": 720.0,
                "state": "met",
            },
            "0.2\u202fh in hand",
        ),
        ({"key": "runtime", "margin": 1.0, "reason": TOO_LOUD}, "level too high"),
        (
            {"key": "size", "predicted": 0.34, "margin": 0.002, "state": "met", "floor": False},
            "fits",
        ),
        ({"key": "size", "predicted": 0.35, "margin": -0.007, "floor": False}, "7\u202fmm over"),
        ({"key": "weight", "margin": -0.214, "floor": False}, "0.21\u202fkg over"),
        ({"key": "cost", "margin": 74.3, "state": "met", "floor": False}, "€74 in hand"),
    ],
)
def test_margins_in_words(slipway, changes, text):
    assert shown(slipway, **changes) == text


@pytest.mark.parametrize(
    ("name", "code", "text"),
    [
        ("swing", "V", "Amp voltage"),
        ("swing", "P", "Pack sag"),
        ("cells", "P", "Pack current"),
        ("supply", "P", "Supply current"),
        ("full scale", "L", "Full scale"),
        ("limiter", "L", "Limiter"),
        ("coil", "H", "Coil heat"),
        ("port", "U", "Port air speed"),
    ],
)
def test_limits_are_named_for_what_gives(name, code, text):
    assert words.limit_name(Limit(name, code, 1.0), code) == text


def test_short_margins_keep_sign_and_figure(slipway):
    assert words.short_margin(PROMISE, slipway) == "−0.8"
    met = dataclasses.replace(PROMISE, margin=2.0, state="met")
    assert words.short_margin(met, slipway) == "+2.0"
    assert words.short_margin(dataclasses.replace(PROMISE, state="none"), slipway) == ""


@pytest.mark.parametrize(
    ("key", "text"),
    [
        ("pack", "5S2P Flint 21"),
        ("dsp", "Teal D4"),
        ("amplifier", "Sedge 2x60"),
        ("drivers", "2 × Alder W13-4"),
        ("radiators", "2 × Rowan R16"),
        ("box", "8.0\u202fL, tuned 47\u202fHz"),
        ("listener", "2 m, open air"),
    ],
)
def test_parts_under_the_links(slipway, key, text):
    assert words.part_of_link(key, assess(slipway)) == text


def test_other_sources_have_names(slipway):
    assert words.source_name(system_design("S4")) == "Wall supply"
    assert words.source_name(system_design("S5")) == "own mains supply"
    a = assess(system_design("S5"))
    assert a.promise("runtime").state == "none"
    assert words.margin_text(a.promise("runtime"), a.design) == "runs from the wall"
    assert {row.key: row.fact for row in rail(a)}["power"] == "from the wall"


def test_every_state_gives_a_whole_meter(slipway):
    for state in ("met", "close", "short", "unknown", "none"):
        for key in words.PROMISE_NAMES:
            promise = dataclasses.replace(
                PROMISE,
                key=key,
                state=state,
                importance="open" if state == "none" else "must",
                predicted=None if state == "unknown" else 50.0,
            )
            made = meter(promise, slipway)
            assert made.name
            assert made.mark == state
            assert TOOLTIPS[key] in made.tooltip
            assert made.judged == (state != "none")


def test_every_stage_has_help_and_a_fact(slipway):
    for row, (key, number, name) in zip(rail(assess(slipway)), STAGES, strict=True):
        assert (row.key, row.number, row.name) == (key, number, name)
        assert row.fact
        assert page_named(key).key == key
        assert len(page_named(key).text) > 300


def test_places_and_materials_are_all_worded(slipway):
    for place in words.PLACES:
        a = assess(replace_at(slipway, ("brief", "listening", "place"), place))
        assert words.part_of_link("listener", a).endswith(words.PLACES[place])
    for material in words.MATERIALS:
        a = assess(replace_at(slipway, ("brief", "listening", "material"), material))
        assert a.promise("loudness").predicted is not None


def test_what_ends_the_play_is_said_as_one_would():
    assert ending("protection board") == "the protection board ends it"
    assert ending("empty") == "then it is empty"


@pytest.mark.parametrize(
    ("u", "mark", "fact"),
    [(0.0, "met", "fits"), (-0.076, "close", "1 tight"), (-0.09, "short", "1 impossible")],
)
def test_the_rail_counts_what_is_tight_in_the_cabinet(u, mark, fact):
    design = moved(placed(), ("power", "source", "mount"), u, 0.0)
    row = next(r for r in rail(assess(design)) if r.key == "cabinet")
    assert (row.mark, row.fact) == (mark, fact)
