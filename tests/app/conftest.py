"""The Parts stage on show, worked out."""

import pytest

from tests.app.helpers import wait


@pytest.fixture
def stage(window):
    window.show_stage("parts")
    wait(window.stage)
    return window.stage
