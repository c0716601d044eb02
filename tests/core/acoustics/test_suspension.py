"""Suspensions in the cold."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.core.acoustics.suspension import softness
from firecrest.design.brief import LINEAR
from firecrest.design.edits.brief import with_edges
from firecrest.design.edits.paths import set_number


def test_as_stated_at_20_degrees_and_stiffer_below():
    assert softness(293.15) == 1.0
    found = [softness(float(t)) for t in np.linspace(243.15, 323.15, 9)]
    assert np.all(np.diff(found) > 0)
    assert softness(273.15) == pytest.approx(np.exp(-0.16))


def test_cones_and_radiators_resonate_higher_in_the_cold(slipway):
    """All compliances by one factor: every free resonance goes up by its inverse root."""
    cold = set_number(slipway, ("brief", "conditions", "temperature"), 273.15)
    stiff, soft = (assess(d).acoustic.model.network for d in (cold, with_edges(cold, LINEAR)[1]))
    for now, was in zip(stiff.drivers, soft.drivers, strict=True):
        assert now.constants.c_ms == pytest.approx(was.constants.c_ms * softness(273.15))
    assert stiff.openings[0].resonance == pytest.approx(
        soft.openings[0].resonance / np.sqrt(softness(273.15))
    )
