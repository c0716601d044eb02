"""The search: words and ranges as people write them."""

from math import inf

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.shelf.query import figure_of, matching, of_kind, parse_query
from firecrest.shelf.stock import shipped_entries

ENTRIES = shipped_entries()
BY_ID = {e.id: e for e in ENTRIES}
ALL = of_kind(ENTRIES, "", archived=False)


@pytest.mark.parametrize(
    ("text", "words", "ranges"),
    [
        ("alder w13", ("alder", "w13"), []),
        ("Ø 140 to 200, under €40", (), [("frame", 0.14, 0.2), ("price", -inf, 40)]),
        ("4 ohm woofer", ("woofer",), [("impedance", 3.88, 4.12)]),
        ("4-8 Ω", (), [("impedance", 4, 8)]),
        ("fs under 60 hz", (), [("fs", -inf, 60)]),
        ("Fs 40 to 60", (), [("fs", 40, 60)]),
        ("xmax over 8 mm", (), [("xmax", 0.008, inf)]),
        ("vas 5 to 8 L", (), [("vas", 0.005, 0.008)]),
        ("up to 1,5 kg", (), [("mass", -inf, 1.5)]),
        ("€20 to €40 dual coil", ("dual", "coil"), [("price", 20, 40)]),
        ('5.25"', (), [("size", 0.97 * 0.13335, 1.03 * 0.13335)]),
        (
            "6.5 in; under 3 lb",
            (),
            [("size", 0.97 * 0.1651, 1.03 * 0.1651), ("mass", -inf, 1.36078)],
        ),
        ("", (), []),
        ("S16-2x2", ("s16-2x2",), []),
        ("over", ("over",), []),
    ],
)  # fmt: skip
def test_a_search_is_read(text, words, ranges):
    query = parse_query(text)
    assert query.words == words
    found = [(r.figure, r.low, r.high) for r in query.ranges]
    assert [f for f, *_ in found] == [f for f, *_ in ranges]
    for (_, low, high), (_, a, b) in zip(found, ranges, strict=True):
        assert (low, high) == (pytest.approx(a, rel=1e-3), pytest.approx(b, rel=1e-3))


def test_what_is_found():
    def ids(text, kind="", *, archived=False):
        found = of_kind(ENTRIES, kind, archived=archived)
        return {e.id for e in matching(found, parse_query(text))}

    assert ids("W13-4") == {"alder-w13-4", "hornbeam-w13-4l"}
    assert ids("laptop") == {"fen-19-3", "fen-b19", "fen-b20"}
    assert ids("subwoofer, 12 in") == {"hornbeam-s30-2x4", "hornbeam-s30-2x2"}
    assert "alder-f8-4" in ids("fs 90 to 100", kind="driver")
    assert ids("rowan", kind="driver") == set()
    assert ids("w13", archived=True) == set()
    cheap = matching(ALL, parse_query("under €10"), only=[lambda e: e.kind == "radiator"])
    assert all(e.price <= 10 and e.kind == "radiator" for e in cheap)


def test_figures_that_follow_count_as_well():
    entry = BY_ID["alder-w13-4"]
    assert entry.part.qts is None
    assert figure_of(entry, "qts") == pytest.approx(0.45)
    assert figure_of(BY_ID["rowan-r16"], "fp") == pytest.approx(24.68, rel=1e-3)
    assert figure_of(BY_ID["fen-b19"], "fs") is None
    assert not matching([BY_ID["salvaged-150"]], parse_query("qts 0.1 to 0.9"))


@given(st.text(max_size=60))
def test_no_search_is_refused(text):
    matching(ALL[:20], parse_query(text))


@given(st.floats(0.5, 300), st.floats(0.5, 300))
def test_a_range_holds_exactly_what_lies_in_it(a, b):
    low, high = sorted((round(a, 2), round(b, 2)))
    found = {e.id for e in matching(ALL, parse_query(f"price {low} to {high}"))}
    assert found == {e.id for e in ENTRIES if low <= e.price <= high}
