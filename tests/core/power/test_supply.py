"""Supplies that are asked too much."""

import pytest

from firecrest.core.power.supply import Supply, silent_share

FOLDS = Supply(19.5, 0.05, 5.0, 1.0)
SINKS = Supply(12.0, 0.04, 2.0)


def test_the_knee_is_the_largest_power():
    assert FOLDS.knee == pytest.approx(19.25)
    assert FOLDS.largest_power == pytest.approx(19.25 * 5.0)
    assert FOLDS.current_at(0.0) == 1.0
    assert FOLDS.current_at(FOLDS.knee) == FOLDS.current_at(25.0) == 5.0
    assert SINKS.current_at(1.0) == 2.0


def test_where_it_recovers_it_gives_just_what_is_asked():
    volts = FOLDS.recovers_above(0.2, 8.0)
    assert FOLDS.current_at(volts) == pytest.approx(0.2 + 8.0 / volts)
    assert FOLDS.current_at(volts + 1) > 0.2 + 8.0 / (volts + 1)
    assert SINKS.recovers_above(0.5, 6.0) == pytest.approx(4.0)
    assert SINKS.recovers_above(2.5, 1.0) == SINKS.knee


def test_it_starts_when_it_gives_more_than_the_boards_take():
    assert FOLDS.start_margin(10.0, 0.1, 2.0) == pytest.approx(1 + 4 * 10 / 19.25 - 0.3)
    assert FOLDS.start_margin(1.0, 0.5, 1.0) < 0


def test_a_hiccup_is_silent_for_most_of_the_time():
    assert silent_share(0.1, 1.0) == pytest.approx(1 / 1.1)
