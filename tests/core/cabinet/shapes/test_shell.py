"""Volumes and walls of all shapes: closed forms against sampling, floats against columns."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from firecrest.core.cabinet.joints import cut_panels, panel_area
from firecrest.core.cabinet.shapes import ball, box, cylinder, prism, stack, taper, vase

SIDE = st.floats(0.15, 0.5)
SIX = st.fixed_dictionaries({n: st.floats(0.006, 0.02) for n in box.PANELS})


def _made(length, height, depth, t):
    outline = ((0.0, -height / 2), (-0.3 * depth, height / 2), (-depth, height / 2),
               (-depth, -height / 2))  # fmt: skip
    r = min(length, height) / 2
    return [
        (box, box.Box(length, height, depth, t)),
        (box, box.Box(length, height, depth, t, rounding=box.Rounding("all", 0.03, True))),
        (box, box.Box(length, height, depth, t, rounding=box.Rounding("vertical", 0.03, True))),
        (taper, taper.Taper(length, height, depth, 0.7 * length, 0.8 * height, 0.01, -0.02, t)),
        (prism, prism.Prism("x", length, outline, ("front", "top", "back", "bottom"),
                            (0.012, 0.01, 0.015, 0.012), (0.012, 0.01), True)),
        (cylinder, cylinder.Cylinder("y", r, height, 0.008, (0.012, 0.01))),
        (ball, ball.Ball(r, 0.7 * r, 0.9 * r, 0.007, 0.01, 0.008)),
        (vase, vase.Vase(((0, 0.7), (0.3, 1.0), (1, 0.6)), height, r, 0.005, 0.008, 0.01)),
        (stack, stack.Stack(stack.rectangle(length, height), 0.04, 0.02, 0.012, 1, 9.0, 1)),
    ]  # fmt: skip


@settings(max_examples=12)
@given(SIDE, SIDE, SIDE, SIX, st.integers(0, 99))
def test_the_inside_is_what_all_walls_leave(length, height, depth, t, seed):
    """Points drawn over the inner reach: the share with all gaps positive is the volume's."""
    draw = np.random.default_rng(seed)
    for module, shape in _made(length, height, depth, t):
        shell = module.shell(shape)
        low, high = np.array(shell.low, float), np.array(shell.high, float)
        points = draw.uniform(low, high, (20000, 3))
        inside = np.all([wall.gap(points) > 0 for wall in shell.walls], axis=0)
        volume = np.prod(high - low) * inside.mean()
        if module is vase:  # its wall counts from the nearest point of a slanted profile
            assert volume <= shell.inside.volume * 1.03
        assert volume == pytest.approx(shell.inside.volume, rel=0.03), shape
        if inside.sum() > 4000:
            middle = points[inside].mean(axis=0)
            assert middle == pytest.approx(np.array(shell.inside.centre, float), abs=0.006)


@settings(max_examples=15)
@given(SIDE, SIDE, SIDE, SIX)
def test_columns_of_designs_have_the_volumes_of_each(length, height, depth, t):
    one, other = (_made(s * length, s * height, s * depth, t) for s in (1.0, 1.3))
    column = [np.array([[a], [b]]) for a, b in ((length, 1.3 * length), (height, 1.3 * height),
                                                (depth, 1.3 * depth))]  # fmt: skip
    both = [
        (box, box.Box(*column, t)),
        (taper, taper.Taper(*column, 0.7 * column[0], 0.8 * column[1], 0.01, -0.02, t)),
    ]
    for module, shape in both:
        mates = [next(s for m, s in made if m is module) for made in (one, other)]
        for k in range(2):
            values = [float(module.volumes(mate)[k]) for mate in mates]
            assert np.ravel(module.volumes(shape)[k]) == pytest.approx(values)


JOINTS = [
    (box.Joint("butt", "top_bottom"), box.Joint("butt", "front"), box.Joint("butt", "back")),
    (box.Joint("mitre", "both"), box.Joint("rabbet", "ring", 0.004), box.Joint("butt", "ring")),
    (box.Joint("rabbet", "sides", 0.004), box.Joint("butt", "front"),
     box.Joint("dado", "ring", 0.003, 0.01)),
    (box.Joint("dado", "top_bottom", 0.003, 0.006), box.Joint("rabbet", "front", 0.003),
     box.Joint("butt", "back")),
    (box.Joint("dado", "sides", 0.003, 0.006), box.Joint("butt", "front"),
     box.Joint("rabbet", "ring", 0.003)),
]  # fmt: skip


@pytest.mark.parametrize("joints", JOINTS)
@settings(max_examples=30)
@given(SIDE, SIDE, SIDE, SIX)
def test_every_cut_list_fills_its_case_exactly(joints, length, height, depth, t):
    made = box.Box(length, height, depth, t, *joints)
    outside, inside = box.volumes(made)
    cuts = cut_panels(made)
    assert sum(c.volume for c in cuts) == pytest.approx(outside - inside, rel=1e-9)
    assert sum(c.a * c.b for c in cuts) == pytest.approx(panel_area(made))
    for cut in cuts:
        assert 0 < cut.volume <= cut.a * cut.b * cut.t + 1e-12


def test_a_round_over_leaves_the_inside_sharp():
    t = dict.fromkeys(box.PANELS, 0.018)
    plain, made = (
        box.Box(0.3, 0.2, 0.25, t, rounding=rounding)
        for rounding in (None, box.Rounding("front", 0.012, False))
    )
    assert box.volumes(made)[1] == box.volumes(plain)[1]
    assert box.volumes(made)[0] < box.volumes(plain)[0]
    gone = box.volumes(plain)[0] - box.volumes(made)[0]
    steps = np.linspace(0, 0.012, 20001)
    over = 0.012 - np.sqrt(0.012**2 - (0.012 - steps) ** 2)
    lost = 0.06 - (0.3 - 2 * over) * (0.2 - 2 * over)
    assert gone == pytest.approx(np.trapezoid(lost, steps), rel=1e-5)
    middle = np.trapezoid(lost * -steps, steps)
    whole = 0.3 * 0.2 * 0.25 * -0.125 - middle
    assert box.shell(made).outside.centre[2] == pytest.approx(whole / box.volumes(made)[0])
