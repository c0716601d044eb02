"""A small system entered element by element, against a library."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firecrest.core.circuit.nodes import BY_HAND, Nodes


def system(count, channels, seed, designs=3, points=5):
    rng = np.random.default_rng(seed)

    def complex_(*shape):
        return rng.normal(size=shape) + 1j * rng.normal(size=shape)

    made = Nodes(count, channels)
    matrix = np.zeros((designs, points, count, count), dtype=complex)
    drive = np.zeros((designs, points, count, channels), dtype=complex)
    for row in range(count):
        for column in range(count):
            if row == column or rng.random() < 0.6:
                value = complex_(designs, points) + 4 * count * (row == column)
                made.add(row, column, value)
                matrix[..., row, column] += value
        for channel in range(channels):
            value = complex_(points)
            made.drive(row, channel, value)
            drive[..., row, channel] += value
    return made, np.linalg.solve(matrix, drive)


@given(st.integers(1, BY_HAND + 1), st.integers(1, 3), st.integers(0, 10**6))
def test_answers_are_those_of_the_library(count, channels, seed):
    made, wanted = system(count, channels, seed)
    for node, answer in enumerate(made.solved()):
        np.testing.assert_allclose(
            np.moveaxis(np.broadcast_to(answer, (channels, 3, 5)), 0, -1),
            wanted[..., node, :],
            rtol=1e-9,
        )


def test_what_is_entered_twice_adds_up():
    one, two = Nodes(1, 1), Nodes(1, 1)
    one.add(0, 0, np.array([2.0 + 0j]))
    for _ in range(2):
        two.add(0, 0, np.array([1.0 + 0j]))
        two.drive(0, 0, np.array([0.5 + 0j]))
    one.drive(0, 0, np.array([1.0 + 0j]))
    assert one.solved()[0].ravel() == pytest.approx(two.solved()[0].ravel())


def test_an_element_to_the_outside_only_loads_its_own_node():
    """Two resistors in a row between a drive and the outside: half the pressure in between."""
    made = Nodes(2, 1)
    conductance = np.array([1.0 + 0j])
    made.join(0, 1, conductance, conductance)
    made.join(1, -1, conductance, conductance)
    made.drive(0, 0, np.array([1.0 + 0j]))
    first, second = (x.ravel()[0] for x in made.solved())
    assert (first, second) == (pytest.approx(2.0), pytest.approx(1.0))
