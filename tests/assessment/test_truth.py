"""What a source lets a board do: at rest, too high, and clean watts into a resistor."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.power.truth import HERE, row
from firecrest.core.power.amplifier import DEFAULT_LOSS, Claim, read_claims
from firecrest.design.amplifiers import Claim as SheetClaim
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.power import Lead
from firecrest.design.sources import WallSupply
from firecrest.files.demos import read_demo
from firecrest.present.text.sentences import why

AMPLIFIER = ("power", "boards", 0, "part")


def told(assessment):
    return " ".join(s.plain for s in why(assessment))


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        ((*AMPLIFIER, "cut_off"), 23.0, "below the voltage at which it stops"),
        (("power", "source", "board", "cut_off"), 20.5, "protection board is open"),
        (("power", "source", "cell", "cut_off"), 3.7, "cells are below their cut-off"),
    ],
)
def test_a_source_that_cannot_run_the_board_gives_no_loudness(slipway, path, value, words):
    a = assess(set_number(slipway, path, value))
    loud = a.promise("loudness")
    assert (loud.state, loud.predicted) == ("short", None)
    assert words in told(a)
    weakest = min((x for x in a.links if x.spare is not None), key=lambda x: x.spare)
    assert weakest.key in ("pack", "listener")
    assert a.acoustic.limits[weakest.limit].name == "bus at rest"


def test_full_it_may_run_where_it_does_not_at_the_briefs_charge(slipway):
    tight = set_number(slipway, (*AMPLIFIER, "cut_off"), 19.5)
    assert assess(tight).promise("loudness").predicted is None
    full = set_number(tight, ("brief", "conditions", "charge"), 1.0)
    assert assess(full).promise("loudness").predicted == pytest.approx(
        assess(set_number(slipway, ("brief", "conditions", "charge"), 1.0))
        .promise("loudness")
        .predicted
    )


def test_above_its_highest_supply_nothing_is_promised_and_a_caution_stands(slipway):
    full = slipway.power.source.series * slipway.power.source.cell.table[-1].rest_voltage
    for highest, fine in ((full - 0.5, False), (full + 0.5, True)):
        a = assess(set_number(slipway, (*AMPLIFIER, "highest_supply"), highest))
        assert (a.promise("loudness").predicted is not None) == fine
        assert ("Don't connect it" in told(a)) == (not fine)


def test_a_claim_beyond_its_supply_gives_what_that_can_swing():
    """100 W into 4 ohm at 24 V bridged: at most 24^2/(2 x 4) = 72 W."""
    for thd in (0.01, 0.1):
        read = read_claims(
            [Claim(100.0, 4.0, 24.0, thd)], channels=1, bridged=True, idle_current=0.0
        )
        assert read.claims[0].impossible
        assert read.model.swing_factor == 1.0
    single = read_claims([Claim(60.0, 4.0, 24.0)], channels=1, bridged=False, idle_current=0.0)
    assert single.model.swing_factor == 2.0


def with_claim(design, **figures):
    claim = SheetClaim(**figures)
    board = rebuilt(design.power.boards[0].part, claims=(claim,), efficiency=None, channels=2)
    return replace_at(design, AMPLIFIER, board)


def on_supply(design, volts, amperes):
    supply = WallSupply(kind="wall", voltage=volts, continuous_current=amperes)
    stiff = replace_at(design, ("power", "lead"), Lead(contacts=0.0))
    return replace_at(stiff, ("power", "source"), supply)


def test_watts_here_never_pass_the_supply_nor_the_claim(slipway):
    design = on_supply(with_claim(slipway, power=100.0, load=4.0, supply=24.0), 24.0, 50.0)
    strong = row(assess(design), 0, 0, 4.0, 2, HERE).found
    assert strong.watts < 72.0
    assert strong.limit == "swing"
    weak = row(assess(on_supply(design, 24.0, 1.5)), 0, 0, 4.0, 2, HERE).found
    assert weak.limit == "supply"
    assert 2 * weak.watts < 24.0 * 1.5


def test_watts_at_the_supply_of_the_claim_are_the_clean_ones(slipway):
    """A stiff supply at the claim's own voltage: what is printed, without its clipping."""
    design = on_supply(with_claim(slipway, power=20.0, load=4.0, supply=24.0, thd=0.1), 24.0, 50.0)
    a = assess(design)
    clean = row(a, 0, 0, 4.0, 2, HERE).found
    assert clean.watts == pytest.approx(a.claims[0][0].claims[0].power, rel=1e-6)


def test_an_efficiency_without_a_supply_says_nothing_about_losses():
    read = read_claims(
        [Claim(50.0, 4.0)], channels=2, bridged=True, idle_current=0.1, efficiency=(0.9, 0)
    )
    assert read.model.loss == DEFAULT_LOSS
    assert read.contradictions == ()


def test_every_demo_runs_at_its_charge():
    for name in ("slipway", "lantern", "breakwater", "boathouse"):
        a = assess(read_demo(name))
        assert all(x.name != "bus at rest" for x in a.acoustic.limits)
