"""What the speed of its air costs a port at the promise, and at the ceiling."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.motion import HIGH, LOW, motion_of
from firecrest.core.arrays import Real


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
    """Loss at the promise, from 20 to 200 Hz; None without ports, or where it is left out."""
    a = assessment.acoustic
    if a is None or a.sound.yielding is None:
        return None
    lost = a.unit_level - a.sound.yielding.level_at(motion_of(assessment, a).drive)
    seen = (a.frequency >= LOW) & (a.frequency <= HIGH)
    return PortLoss(a.frequency[seen], lost[seen])


def ceiling_loss(a: Acoustic) -> PortLoss | None:
    """By how much turbulence lowers the ceiling, from 20 to 200 Hz; None as above."""
    if a.sound.yielding is None:
        return None
    seen = (a.frequency >= LOW) & (a.frequency <= HIGH)
    told = np.isfinite(a.still.level) & np.isfinite(a.top.level)
    lost = np.subtract(a.still.level, a.top.level, out=np.zeros(len(told)), where=told)
    return PortLoss(a.frequency[seen], lost[seen])
