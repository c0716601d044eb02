"""Limits in rows: a further row is all that a further limit needs."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.chain import links
from firecrest.core.arrays import decibel
from firecrest.core.limits import kinds
from firecrest.core.limits.elements import asked_of
from firecrest.core.limits.kinds import KINDS, LimitKind, Reached, kind_named, kind_of_code, row_of
from firecrest.core.limits.material import material_of
from firecrest.core.limits.programme import PROGRAMMES
from firecrest.design.brief import LINEAR
from firecrest.design.edits.brief import with_edges
from firecrest.design.edits.paths import set_number
from firecrest.files.demos import read_demo
from firecrest.present.report import report
from firecrest.present.text.sentences import field_of_limit, why
from firecrest.present.text.words import limit_name

HOTTEST = 0.4
"""A made-up limit: amperes rms in a coil that melt its lead-in wire."""


def wire(ask, kind):
    for index, current in enumerate(ask.asked.coils):
        yield Reached(ask.until(kind.statistic, HOTTEST, current), index)


WIRE = LimitKind(
    "wire",
    "W",
    "burst",
    "drivers",
    "Lead-in wire",
    "net",
    wire,
    "the thin wire to the coil",
    ("box", "groups", "#", "driver", "pe"),
)


@pytest.fixture
def wired(monkeypatch):
    monkeypatch.setattr(kinds, "KINDS", (*KINDS, WIRE))
    return assess(with_edges(read_demo("slipway"), LINEAR)[1])


def test_a_row_reaches_the_ceiling_the_programme_and_the_report(wired):
    a = wired.acoustic
    assert "W" in a.top.codes()
    (limit,) = (x for x in a.limits if x.name == "wire")
    current = np.abs(a.transfers.coil_current[0])
    np.testing.assert_allclose(limit.factor, HOTTEST / current)
    assert "wire" in a.programme.by_limit
    plain = report(wired, 2.83, np.geomspace(20, 200, 5))
    assert "W" in plain["curves"]["first_to_give"]
    assert "wire" in plain["programme_level"]["by_limit"]


def test_programme_is_held_to_a_row_by_the_rows_own_statistic(wired):
    """Burst: 6 dB above the long-term rms of what flows, whatever the crest."""
    a, brief = wired.acoustic, wired.design.brief
    (current,) = asked_of(a.transfers, material_of(PROGRAMMES["music"], 0.0, a.frequency)).coils
    allowed = decibel(HOTTEST / (10 ** (6 / 20) * current[-1])) + a.programme.unit_level
    assert brief.listening.material == "music"
    assert a.programme.by_limit["wire"] == pytest.approx(allowed)


def test_a_row_is_named_and_its_field_and_link_found(wired):
    a = wired.acoustic
    place = next(k for k, x in enumerate(a.limits) if x.name == "wire")
    assert limit_name(a.limits[place], "W") == "Lead-in wire"
    path = field_of_limit(wired, a.limits[place])
    assert path == ("box", "groups", 0, "driver", "pe")
    drivers = next(x for x in links(wired.design, a) if x.key == "drivers")
    assert drivers.limit == place
    told = why(assess(set_number(wired.design, ("brief", "loudness", "level"), 110.0)))[0].plain
    assert "Lead-in wire gives out first" in told
    assert "the thin wire to the coil" in told


def test_every_row_has_a_place_in_the_chain_and_words():
    keys = [kind.key for kind in KINDS]
    assert len(keys) == len(set(keys))
    for kind in KINDS:
        assert kind.title
        assert kind_of_code(kind.code).tint == kind.tint
        assert kind_named(kind.key) is kind
    with pytest.raises(KeyError):
        kind_named("nothing")
    with pytest.raises(KeyError):
        kind_of_code("?")


def test_a_swing_that_the_pack_lowers_is_told_as_sag(slipway):
    soft = set_number(slipway, ("power", "lead", "contacts"), 3.0)
    a = assess(soft).acoustic
    swing = next(x for x in a.limits if x.name == "swing")
    assert swing.pack.any()
    assert row_of(swing, "P").title == "Pack sag"
    assert row_of(swing, "P").link == "pack"
    assert row_of(swing, "V").link == "amplifier"
    assert row_of(replace(swing, pack=None), "V").title == "Amp voltage"
