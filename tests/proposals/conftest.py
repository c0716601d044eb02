"""Proposals change boxes and boards: most are tried on a Slipway whose things have no places."""

import pytest
from tests.unplaced import unplaced


@pytest.fixture(scope="session")
def slipway():
    return unplaced("slipway")
