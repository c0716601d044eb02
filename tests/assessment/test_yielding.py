"""Fast air in ports: the ceiling that falls with its own speed, against brute force."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.assessment.acoustic import EDIT_GRID, transfers_from
from firecrest.assessment.assess import assess
from firecrest.assessment.conditions import duty_of
from firecrest.assessment.openings.port import loss_coefficient
from firecrest.assessment.portloss import ceiling_loss, port_loss
from firecrest.assessment.sound import voice_rows
from firecrest.assessment.sounding import boards_in, bus_in
from firecrest.assessment.vary import vary
from firecrest.core.acoustics.openings.port import turbulent_resistance
from firecrest.core.acoustics.radiation import level
from firecrest.core.circuit.solve import solve
from firecrest.core.limits.draw import draw_of
from firecrest.core.limits.elements import asked_of
from firecrest.core.limits.kinds import Ask, reached
from firecrest.core.limits.material import PEAK, sines_of
from firecrest.design.box import Port, placed
from firecrest.design.brief import LINEAR
from firecrest.design.edits.brief import with_edges
from firecrest.design.edits.paths import replace_at, set_number
from firecrest.files.demos import read_demo
from firecrest.proposals.layouts import with_layout

WHERE = EDIT_GRID[60:200:4]
HALVINGS = 24


def with_pipes(design, pipes):
    for k, _ in placed(design.box.openings, Port):
        design = replace_at(design, ("box", "openings", k, "resonances"), pipes)
    return design


def sixth():
    return with_layout(read_demo("boathouse-bandpass"), "bandpass6")


BOXES = {
    "one port": lambda: with_pipes(read_demo("lantern"), False),
    "two channels": lambda: with_pipes(read_demo("breakwater"), False),
    "two ports": lambda: with_pipes(sixth(), False),
    "a pipe": lambda: with_pipes(read_demo("breakwater"), True),
}


class Brute:
    """The same box with its losses as resistances of the network, found by halving."""

    def __init__(self, design):
        self.design, self.a = design, assess(design).acoustic
        numbers, memo = self.a.sound.inputs, self.a.memo
        self.rows = [
            voice_rows(c, numbers.power.dsp.sample_rate, WHERE) for c in numbers.voice.channels
        ]
        self.outputs = [c.outputs for c in numbers.voice.channels]
        self.boards = boards_in(numbers, memo)
        self.sines = sines_of(duty_of(design.brief.listening))
        self.bus = lambda draw: bus_in(numbers, draw, memo)

    def at(self, drive):
        """Transfers at ``drive`` (F,): the loss of each port is halved towards its own speed."""
        network, ports = self.a.model.network, placed(self.design.box.openings, Port)
        speeds = {k: np.zeros(len(WHERE)) for k, _ in ports}
        for _ in range(60):
            lossy = list(network.openings)
            for k, port in ports:
                element = network.openings[k]
                extra = turbulent_resistance(
                    speeds[k], element.area, loss_coefficient(port), self.a.scene.air
                )
                lossy[k] = replace(element, resistance=element.resistance + extra)
            model = replace(self.a.model, network=replace(network, openings=tuple(lossy)))
            solution = solve(model.network, WHERE)
            found = transfers_from(
                replace(self.a.scene, model=model, solution=solution), self.rows, self.outputs
            )
            speeds = {
                k: np.sqrt(np.maximum(v, 1e-12) * PEAK * np.abs(found.openings[k]) * drive)
                if v.any()
                else 0.5 * PEAK * np.abs(found.openings[k]) * drive
                for k, v in speeds.items()
            }
        return found

    def allowed(self, transfers):
        """(dB per unit input, drive that the limits allow)."""
        draw = draw_of(transfers.outputs, self.boards, self.sines)
        ask = Ask(
            asked_of(transfers, self.sines),
            self.a.ratings,
            self.boards,
            self.bus(draw),
            self.sines.above,
        )
        factors = np.broadcast_arrays(*(limit.factor for limit in reached(ask)))
        return level(transfers.pressure), np.min(factors, axis=0)


@pytest.mark.parametrize("name", ["one port", "two channels", "two ports"])
def test_the_ceiling_is_where_halving_the_drive_puts_it(name):
    brute = Brute(BOXES[name]())
    low, high = np.full(len(WHERE), 1e-3), np.full(len(WHERE), 1e3)
    for _ in range(HALVINGS):
        middle = np.sqrt(low * high)
        _, most = brute.allowed(brute.at(middle))
        low, high = np.where(most > middle, middle, low), np.where(most > middle, high, middle)
    unit, _ = brute.allowed(brute.at(low))
    mine = np.interp(np.log(WHERE), np.log(EDIT_GRID), brute.a.top.level)
    np.testing.assert_allclose(mine, unit + 20 * np.log10(low), atol=0.01)


@pytest.mark.parametrize("name", BOXES)
def test_loss_lowers_speed_and_never_goes_below_nothing(name):
    a = assess(BOXES[name]()).acoustic
    lossy = a.sound.yielding
    loud = lossy.at(np.full(len(EDIT_GRID), 10.0))
    soft = lossy.at(np.full(len(EDIT_GRID), 1e-6))
    for k, still in enumerate(a.transfers.openings):
        np.testing.assert_allclose(np.abs(soft.openings[k]), np.abs(still), rtol=1e-4)
        if len(a.transfers.openings) == 1:
            assert np.all(np.abs(loud.openings[k]) <= np.abs(still) * (1 + 1e-9))
    kicked = lossy.drive_for(a.asked, 10 ** ((a.asked - a.unit_level) / 20))
    reached_level = lossy.level_at(kicked) + 20 * np.log10(kicked)
    np.testing.assert_allclose(reached_level[100:200], a.asked[100:200], atol=0.02)


def test_without_turbulence_the_ceiling_is_the_linear_one():
    design = read_demo("breakwater")
    real, linear = assess(design).acoustic, assess(with_edges(design, LINEAR)[1]).acoustic
    still = assess(set_number(design, ("box", "openings", 0, "speed_limit"), 17.0)).acoustic.still
    stated = set_number(with_edges(design, LINEAR)[1], ("box", "openings", 0, "speed_limit"), 17.0)
    np.testing.assert_allclose(still.level, assess(stated).acoustic.top.level, atol=1e-9)
    assert linear.sound.yielding is None
    assert ceiling_loss(real).worst[0] > 1.0
    assert port_loss(assess(with_edges(design, LINEAR)[1])) is None


def test_many_designs_lose_as_each_by_itself():
    design = read_demo("breakwater")
    path = ("box", "openings", 0, "length")
    lengths = np.array([0.2, 0.25, 0.3])
    found = vary(design, {path: lengths})
    for k, length in enumerate(lengths):
        alone = assess(set_number(design, path, float(length))).acoustic
        np.testing.assert_allclose(found.level[k], alone.top.level, atol=2e-3)
