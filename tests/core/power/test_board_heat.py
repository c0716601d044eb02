"""Heat of boards: closed forms of a first-order rise."""

import numpy as np
import pytest

from firecrest.core.power.board_heat import (
    CASE_LIMIT,
    Place,
    losses,
    time_constant,
    usual_resistance,
)
from tests.core.power.boards import board


def test_a_rise_reaches_its_limit_when_stepped():
    place, tau = Place(310.0, 5.0), 240.0
    seconds = place.seconds(1.0, 12.0, tau)
    kelvin, t, dt = place.after_long(1.0), 0.0, 0.01
    while kelvin < CASE_LIMIT:
        kelvin += (place.after_long(12.0) - kelvin) * dt / tau
        t += dt
    assert seconds == pytest.approx(t, rel=1e-3)
    assert place.after_long(place.most) == pytest.approx(CASE_LIMIT)


def test_never_and_at_once():
    place = Place(310.0, 5.0)
    assert place.seconds(1.0, place.most, 240.0) is None
    assert place.seconds(20.0, 30.0, 240.0) == 0.0


def test_losses_are_idle_and_what_the_current_costs():
    model = board()
    assert losses(model, 20.0, 0.0, 2) == pytest.approx(2.0)
    one = losses(model, 20.0, 1.0, 1) - 2.0
    assert one == pytest.approx(model.r_out + model.loss * 20.0 * 2 * np.sqrt(2) / np.pi)
    assert losses(model, 20.0, 1.0, 2) - 2.0 == pytest.approx(2 * one)


def test_a_larger_brick_stays_cooler():
    """100 x 80 x 30 mm: faces of 0.0268 m2 at 10 W/(m2 K) are 3.73 K/W."""
    assert usual_resistance(0.1, 0.08, 0.03) == pytest.approx(1 / (10 * 0.0268))
    assert usual_resistance(0.05, 0.04, 0.015) == pytest.approx(
        4 * usual_resistance(0.1, 0.08, 0.03)
    )
    assert time_constant(4.0, 0.1) == pytest.approx(320.0)
