"""Clean watts of boards: half the supply, no more than the source, what heat leaves."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.limits.truth import clean, efficiency, lasting_watts, tried, tried_as_claimed
from firecrest.core.power.amplifier import Claim, read_claims
from firecrest.core.power.board_heat import Place
from firecrest.core.power.boards import Board, Boards, standing
from firecrest.core.power.source import Converter, Source
from tests.core.power.boards import TWO, board

MODEL = board()


def on(source, model=MODEL, load=4.0, count=2, converter=None, watts=0.0):
    boards = Boards(
        (Board(model, None if converter is None else 0),),
        () if converter is None else (converter,),
        (),
    )
    stands = standing(boards, watts)
    return tried(boards, 0, model, stands, source, load, count)


def test_a_claim_comes_back_clean():
    for claim in TWO:
        found = clean(tried_as_claimed(MODEL, claim.supply, claim.load, 2))
        read = read_claims(TWO, channels=2, bridged=True, idle_current=0.1)
        own = next(c for c in read.claims if c.load == claim.load)
        assert found.watts == pytest.approx(own.power, rel=1e-9)
        assert found.limit == "swing"


@settings(max_examples=60)
@given(st.floats(12.0, 40.0), st.floats(0.0, 0.3), st.sampled_from([2.0, 4.0, 8.0]))
def test_half_the_supply_gives_a_quarter_or_less(volts, ohms, load):
    free = replace(MODEL, current_limit=np.inf)
    whole, half = (clean(on(Source(v, ohms), free, load)).watts for v in (volts, volts / 2))
    assert half <= whole / 4 * (1 + 1e-9)


chains = st.fixed_dictionaries(
    {
        "volts": st.floats(3.0, 60.0),
        "ohms": st.one_of(st.just(0.0), st.floats(1e-6, 1.0)),
        "burst": st.floats(0.2, 30.0),
        "load": st.floats(2.0, 16.0),
        "count": st.integers(1, 4),
        "power": st.floats(1.0, 200.0),
        "supply": st.floats(5.0, 60.0),
        "thd": st.sampled_from([0.01, 0.1]),
        "bridged": st.booleans(),
        "idle": st.floats(0.0, 0.3),
        "other": st.floats(0.0, 5.0),
        "step": st.one_of(st.none(), st.tuples(st.floats(5.0, 60.0), st.floats(0.6, 1.0))),
    }
)


@settings(max_examples=2000)
@given(chains)
def test_no_chain_gives_more_than_its_source(c):
    """Clean watts of all channels never exceed volts x amperes of the source, nor its Voc^2/4R."""
    read = read_claims(
        [Claim(c["power"], 4.0, c["supply"], c["thd"])],
        channels=c["count"],
        bridged=c["bridged"],
        idle_current=c["idle"],
    )
    converter = None if c["step"] is None else Converter(c["step"][0], c["step"][1])
    source = Source(c["volts"], c["ohms"], {"supply": c["burst"]})
    trial = on(source, read.model, c["load"], c["count"], converter, c["other"])
    found = clean(trial)
    given_ = found.watts * c["count"]
    most = c["volts"] * c["burst"]
    if c["ohms"] > 0:
        most = min(most, c["volts"] ** 2 / (4 * c["ohms"]))
    assert given_ <= most * (1 + 1e-9)
    side = 1.0 if c["bridged"] else 2.0
    rail = c["volts"] if converter is None else converter.output_voltage
    assert found.drive * np.sqrt(2) <= rail / side * (1 + 1e-9)


def test_heat_and_the_rating_hold_what_lasts():
    trial = on(Source(24.0, 0.0))
    found = clean(trial)
    cool = lasting_watts(trial, found, Place(300.0, 0.1), 100.0)
    assert cool.watts == found.watts
    assert cool.seconds is None
    hot = lasting_watts(trial, found, Place(320.0, 8.0), 100.0)
    assert hot.watts < found.watts
    assert trial.lost(np.sqrt(hot.watts * 4.0)) == pytest.approx(Place(320.0, 8.0).most, rel=1e-6)
    assert hot.seconds > 0
    rated = on(replace(Source(24.0, 0.0), continuous=0.6))
    assert lasting_watts(rated, clean(rated), None, None).watts < found.watts
    assert rated.amperes(
        np.sqrt(lasting_watts(rated, clean(rated), None, None).watts * 4.0)
    ) == pytest.approx(0.6, rel=1e-6)


def test_efficiency_rises_towards_clipping():
    trial = on(Source(24.0, 0.0))
    found = efficiency(trial, clean(trial))
    assert np.all(np.diff(found) > 0)
    assert 0.6 < found[-1] < 1.0
