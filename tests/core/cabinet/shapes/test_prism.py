import numpy as np
import pytest

from firecrest.core.cabinet.shapes.polygon import area_and_middle
from firecrest.core.cabinet.shapes.prism import (
    Prism,
    bevels,
    corner_regions,
    edge_lengths,
    panel_frames,
    shell,
    volumes,
)
from tests.reference.cabinet import case, expected

WEDGE = case("C8").shape


def test_panels_of_a_wedge_by_the_reference():
    said = {p["name"]: p for p in expected("C8")["panels"]}
    regions, lengths, cuts = corner_regions(WEDGE), edge_lengths(WEDGE), bevels(WEDGE)
    for k, name in enumerate(WEDGE.names):
        want = said[name]
        assert lengths[k] == pytest.approx(want["b"], abs=5e-5)
        volume = abs(area_and_middle(regions[k])[0]) * WEDGE.clear
        assert volume == pytest.approx(want["net_before_openings"], rel=2e-4)
        assert np.degrees(cuts[k]) == pytest.approx(want["bevels"], abs=0.01)


def test_columns_of_wedges_have_the_volume_of_each():
    scale = np.array([[1.0], [1.2]])
    points = tuple((a * scale, b * scale) for a, b in WEDGE.points)
    many = Prism("x", WEDGE.length, points, WEDGE.names, WEDGE.t, WEDGE.ends, True)
    for k in range(2):
        one = tuple((float((a * scale)[k, 0]), float((b * scale)[k, 0])) for a, b in WEDGE.points)
        alone = Prism("x", WEDGE.length, one, WEDGE.names, WEDGE.t, WEDGE.ends, True)
        for both, single in zip(volumes(many), volumes(alone), strict=True):
            assert np.ravel(both)[k] == pytest.approx(float(single))


def test_a_column_drawn_upwards_stands_on_its_outline():
    made = Prism("y", 0.3, ((-0.1, 0.0), (0.1, 0.0), (0.06, -0.2), (-0.06, -0.2)),
                 ("front", "right", "back", "left"), (0.012,) * 4, (0.01, 0.01), False)  # fmt: skip
    frames = panel_frames(made)
    assert frames["front"].normal == pytest.approx((0, 0, 1))
    assert frames["front"].v == (0, 1, 0)
    assert frames["bottom"].normal == (0, -1, 0)
    assert shell(made).lowest == pytest.approx(-0.15)
