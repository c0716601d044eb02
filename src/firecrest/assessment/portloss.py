"""What the speed of its air costs a port: loss that grows with level, at the promise."""

import dataclasses
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID, transfers_from
from firecrest.assessment.assess import Assessment
from firecrest.assessment.motion import HIGH, LOW, motion_of
from firecrest.assessment.openings.port import loss_coefficient
from firecrest.assessment.sound import voice_rows
from firecrest.core.acoustics.openings import Port as PortModel
from firecrest.core.acoustics.openings.port import turbulent_resistance
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Real
from firecrest.core.limits.material import PEAK
from firecrest.design.box import Port, placed

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


def port_loss(assessment: Assessment) -> PortLoss | None:
    """Loss at the promise, from 20 to 200 Hz; None without ports.

    Each port gets the resistance that its own speed asks for; both are found in turn until they
    agree (ten halvings of the difference).
    """
    a, design = assessment.acoustic, assessment.design
    ports = placed(design.box.openings, Port)
    if a is None or not ports:
        return None
    motion = motion_of(assessment, a)
    chosen = np.nonzero((EDIT_GRID >= LOW) & (EDIT_GRID <= HIGH))[0][::2]
    grid, drive = EDIT_GRID[chosen], motion.drive[chosen]
    air, network = a.scene.air, a.model.network
    channels, rate = design.voice.channels, design.power.dsp.sample_rate
    rows = [voice_rows(c, rate, grid) for c in channels]
    outputs = [c.outputs for c in channels]
    speeds = [motion.opening[k][chosen] for k, _ in ports]
    heard_level = a.unit_level[chosen]
    for _ in range(STEPS):
        lossy = list(network.openings)
        for (k, port), speed in zip(ports, speeds, strict=True):
            element = network.openings[k]
            assert isinstance(element, PortModel)
            extra = turbulent_resistance(speed, element.area, loss_coefficient(port), air)
            lossy[k] = dataclasses.replace(element, resistance=element.resistance + extra)
        changed = dataclasses.replace(network, openings=tuple(lossy))
        model = dataclasses.replace(a.model, network=changed)
        scene = dataclasses.replace(a.scene, model=model).at(grid)
        transfers = transfers_from(scene, rows, outputs)
        found = [PEAK * np.abs(transfers.openings[k]) * drive for k, _ in ports]
        speeds = [0.5 * (was + now) for was, now in zip(speeds, found, strict=True)]
        heard_level = level(transfers.pressure)
    return PortLoss(grid, a.unit_level[chosen] - heard_level)
