"""What radiates, with and without places."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.radiating import placed_sources, radiated_flow
from firecrest.files.demos import read_demo


@pytest.mark.parametrize("name", ["slipway", "breakwater"])
def test_the_sources_add_up_to_what_is_heard(name):
    scene = assess(read_demo(name)).acoustic.scene
    parts = placed_sources(scene.model, scene.solution, 2.0, scene.air)
    whole = radiated_flow(scene.model, scene.solution, 2.0, scene.air, leaks=False)
    np.testing.assert_allclose(sum(s.flow for s in parts), whole, rtol=1e-9)
    with_leaks = radiated_flow(scene.model, scene.solution, 2.0, scene.air, leaks=True)
    np.testing.assert_allclose(with_leaks - whole, scene.solution.leaked, atol=1e-12)
