"""What the speed of its air costs a port: loss that grows with level, at the promise."""

import dataclasses
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID, transfers_from
from firecrest.assessment.assess import Assessment
from firecrest.assessment.motion import HIGH, LOW, motion_of
from firecrest.assessment.sound import voice_rows
from firecrest.core.acoustics.ports import BEND_LOSS, LOSS_COEFFICIENTS, turbulent_resistance
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Real
from firecrest.core.circuit.elements import Port as PortModel
from firecrest.core.limits.draw import PEAK
from firecrest.design.box import Port

STEPS = 10


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
    motion = motion_of(assessment, a)
    chosen = np.nonzero((EDIT_GRID >= LOW) & (EDIT_GRID <= HIGH))[0][::2]
    grid, drive = EDIT_GRID[chosen], motion.drive[chosen]
    air, network = a.scene.air, a.model.network
    channels, rate = design.voice.channels, design.power.dsp.sample_rate
    rows = [voice_rows(c, rate, grid) for c in channels]
    outputs = [c.outputs for c in channels]
    speeds = [speed[chosen] for speed in motion.port]
    heard_level = a.unit_level[chosen]
    for _ in range(STEPS):
        lossy: list[PortModel] = []
        for port, element, speed in zip(ports, network.ports, speeds, strict=True):
            extra = turbulent_resistance(speed, element.area, loss_coefficient(port), air)
            resistance = element.resistance + extra
            lossy.append(dataclasses.replace(element, resistance=resistance))
        changed = dataclasses.replace(network, ports=tuple(lossy))
        model = dataclasses.replace(a.model, network=changed)
        scene = dataclasses.replace(a.scene, model=model).at(grid)
        transfers = transfers_from(scene, rows, outputs)
        found = [PEAK * np.abs(s) * drive for s in transfers.port_speed]
        speeds = [0.5 * (was + now) for was, now in zip(speeds, found, strict=True)]
        heard_level = level(transfers.pressure)
    return PortLoss(grid, a.unit_level[chosen] - heard_level)
