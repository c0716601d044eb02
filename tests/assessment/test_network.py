"""A box as a network: what no way of writing it down may change."""

import numpy as np
import pytest

from firecrest.assessment.assess import assess
from firecrest.core.circuit.solution import output_impedance
from firecrest.design.box import Port
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.proposals.inverse import tuner_path, with_tuning
from firecrest.proposals.layouts import with_layout


def with_inner_port(design, ends, outer, **changes):
    """A two-chamber box whose rear opens into the front, which opens outwards where ``outer``."""
    made = with_layout(design, "bandpass4")
    inner = Port(
        id="inner", diameter=0.04, length=0.05, chamber=ends[0], opens_to=ends[1], **changes
    )
    ports = (*made.box.openings, inner) if outer else (inner,)
    if not outer:
        groups = tuple(rebuilt(g, front="outside") for g in made.box.groups)
        return replace_at(made, ("box",), rebuilt(made.box, groups=groups, openings=ports))
    return replace_at(made, ("box", "openings"), ports)


@pytest.mark.parametrize("outer", [True, False])
@pytest.mark.parametrize("changes", [{}, {"loss_q": 8.0}, {"resonances": True}])
def test_an_inner_port_has_no_first_end(slipway, outer, changes):
    found = []
    for ends in (("rear", "front"), ("front", "rear")):
        design = with_inner_port(slipway, ends, outer, **changes)
        a = assess(design)
        ohm = output_impedance(a.acoustic.solution, 0)
        found.append((a, np.abs(ohm)))
    (one, ohm), (other, swapped) = found
    assert one.cabinet.air == pytest.approx(other.cabinet.air)
    for a, b in zip(one.acoustic.model.tuning, other.acoustic.model.tuning, strict=True):
        assert a is b is None or float(a) == pytest.approx(float(b))
    np.testing.assert_allclose(ohm, swapped, rtol=1e-9)
    np.testing.assert_allclose(one.acoustic.unit_level, other.acoustic.unit_level, atol=1e-9)


def test_a_chamber_is_tuned_by_what_leads_outside_where_there_is_any(slipway):
    design = with_inner_port(slipway, ("front", "rear"), True)
    assert tuner_path(design, 0) == ("box", "openings", 1, "length")
    assert tuner_path(design, 1) == ("box", "openings", 0, "length")
    made = with_tuning(design, 70.0, 0)
    assert float(assess(made).acoustic.model.tuning[0]) == pytest.approx(70.0, rel=1e-6)
    assert made.box.openings[0] == design.box.openings[0]


def test_a_ports_air_comes_half_from_each_of_two_chambers(slipway):
    design = with_inner_port(slipway, ("rear", "front"), True)
    without = replace_at(design, ("box", "openings"), design.box.openings[:1])
    lost = [a - b for a, b in zip(*(assess(d).cabinet.air for d in (without, design)), strict=True)]
    assert lost[0] == pytest.approx(lost[1])
    assert lost[0] > 0
