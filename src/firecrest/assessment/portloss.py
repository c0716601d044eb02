"""What the speed of its air costs a port: loss that grows with level, at the promise."""

import dataclasses
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID, transfers_from, voice_rows
from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import air_of, around_of, programme_of
from firecrest.core.acoustics.elements import Port as PortModel
from firecrest.core.acoustics.network import solve
from firecrest.core.acoustics.ports import BEND_LOSS, LOSS_COEFFICIENTS, turbulent_resistance
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Real
from firecrest.design.box import Port

PEAK = float(np.sqrt(2.0))
STEPS = 10
LOW, HIGH = 20.0, 200.0


@dataclass(frozen=True)
class PortLoss:
    """dB lost at ``frequency`` (F,) to the ports' own turbulence when the promise is played."""

    frequency: Real
    loss: Real

    @property
    def worst(self) -> tuple[float, float]:
        """(dB, Hz) where most is lost."""
        k = int(np.argmax(self.loss))
        return float(self.loss[k]), float(self.frequency[k])


def promise_drive(assessment: Assessment, a: Acoustic) -> Real:
    """V rms of input: what the promise asks from its bass note up, a held low note below it."""
    brief = assessment.design.brief
    programme = programme_of(brief.listening)
    held = 10 ** ((brief.loudness.level - a.reaches.reference) / 20)
    softer = np.sqrt(1 + (programme.low_corner / a.frequency) ** 4)
    asked = 10 ** ((a.asked - a.unit_level) / 20)
    return np.where(a.frequency >= brief.bass.frequency, asked, held / softer)


def loss_coefficient(port: Port) -> float:
    """Pressure lost over rho v^2/2 by the shape of its ends and its bends."""
    return LOSS_COEFFICIENTS[port.edges] + BEND_LOSS * port.bends


def port_loss(assessment: Assessment) -> PortLoss | None:
    """Loss at the promise, from 20 to 200 Hz; None without ports.

    Each port gets the resistance that its own speed asks for; both are found in turn until they
    agree (ten halvings of the difference).
    """
    a, design = assessment.acoustic, assessment.design
    ports = design.box.ports
    if a is None or not ports:
        return None
    chosen = np.nonzero((EDIT_GRID >= LOW) & (EDIT_GRID <= HIGH))[0][::2]
    grid, drive = EDIT_GRID[chosen], promise_drive(assessment, a)[chosen]
    around, air = around_of(design), air_of(design.brief.conditions)
    channels, network = design.voice.channels, a.model.network
    rows = [voice_rows(c, design.power.dsp.sample_rate, grid) for c in channels]
    outputs = [c.outputs for c in channels]
    speeds = [PEAK * np.abs(s[chosen]) * drive for s in a.transfers.port_speed]
    heard_level = a.unit_level[chosen]
    for _ in range(STEPS):
        lossy: list[PortModel] = []
        for port, element, speed in zip(ports, network.ports, speeds, strict=True):
            extra = turbulent_resistance(speed, element.area, loss_coefficient(port), air)
            resistance = element.resistance + extra
            lossy.append(dataclasses.replace(element, resistance=resistance))
        changed = dataclasses.replace(network, ports=tuple(lossy))
        model = dataclasses.replace(a.model, network=changed)
        transfers = transfers_from(model, solve(changed, grid), rows, outputs, around, air)
        found = [PEAK * np.abs(s) * drive for s in transfers.port_speed]
        speeds = [0.5 * (was + now) for was, now in zip(speeds, found, strict=True)]
        heard_level = level(transfers.pressure)
    return PortLoss(grid, a.unit_level[chosen] - heard_level)
