"""Losses in a maker's words."""

from firecrest.core.acoustics.losses import DAMPING, TIGHTNESS, damping_of, tightness_of


def test_presets_are_found_by_their_figures_and_lie_in_their_ranges():
    for tight in TIGHTNESS:
        assert tightness_of(tight.leak_q) is tight
        assert tight.low < tight.leak_q < tight.high
    for damping in DAMPING:
        stuffing, low, high = damping.stuffing
        assert low <= stuffing <= high
        assert damping.absorption_q[1] > damping.absorption_q[0] > damping.absorption_q[2]
        assert damping_of(stuffing, damping.absorption_q[0]) is damping
    assert tightness_of(11.0) is None
    assert damping_of(0.02, None) is None


def test_words_go_from_tight_to_leaky_and_from_empty_to_filled():
    assert [t.leak_q for t in TIGHTNESS] == sorted((t.leak_q for t in TIGHTNESS), reverse=True)
    assert [d.stuffing[0] for d in DAMPING] == sorted(d.stuffing[0] for d in DAMPING)
    assert len({t.words for t in TIGHTNESS} | {d.words for d in DAMPING}) == 7
