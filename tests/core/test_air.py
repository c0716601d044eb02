import pytest

from firecrest.core.air import DATA_SHEET_AIR, STANDARD_PRESSURE, air_at, vapour_pressure


def test_data_sheet_air_is_dry_air_at_20_degrees():
    assert air_at(293.15, STANDARD_PRESSURE) == DATA_SHEET_AIR


def test_cold_air_is_denser_and_slower():
    air = air_at(278.15, STANDARD_PRESSURE)
    assert air.density == pytest.approx(1.269, abs=5e-4)
    assert air.speed == pytest.approx(334.3, abs=0.05)


@pytest.mark.parametrize("temperature", [250.0, 278.15, 293.15, 310.0])
def test_stiffness_of_dry_air_depends_on_pressure_only(temperature):
    assert air_at(temperature, STANDARD_PRESSURE).stiffness == pytest.approx(
        DATA_SHEET_AIR.stiffness, rel=1e-12
    )
    assert air_at(temperature, 80e3).stiffness == pytest.approx(
        DATA_SHEET_AIR.stiffness * 80e3 / STANDARD_PRESSURE, rel=1e-12
    )


def test_humid_air_is_lighter_and_a_little_faster():
    dry, humid = (air_at(303.15, STANDARD_PRESSURE, h) for h in (0.0, 1.0))
    assert humid.density == pytest.approx(dry.density * (1 - 0.378 * 4243 / 101325), rel=1e-3)
    assert 1.003 < humid.speed / dry.speed < 1.009


def test_vapour_pressure_at_20_degrees():
    assert vapour_pressure(293.15) == pytest.approx(2339, rel=3e-3)
