import numpy as np
import pytest

from firecrest.core.cabinet.materials import MATERIALS, Infill, material_share


def test_every_material_is_plausible():
    for name, made in MATERIALS.items():
        assert 1e9 < made.stiffness < 1e11, name
        assert 300 < made.density < 3000
        assert 0.1 < made.poisson < 0.45


def test_a_print_is_its_skins_and_a_share_of_its_core():
    assert material_share(None, 0.006) == 1.0
    assert material_share(Infill(0.0012, 0.15), 0.008) == pytest.approx(0.405)
    assert material_share(Infill(0.004, 0.15), 0.006) == 1.0
    columns = material_share(Infill(0.004, 0.15), np.array([[0.006], [0.016]]))
    assert np.ravel(columns) == pytest.approx([1.0, 0.575])
