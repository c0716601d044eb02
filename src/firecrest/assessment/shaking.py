"""Force of the moving masses on the case."""

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.portloss import PEAK, promise_drive
from firecrest.core.arrays import Complex

LOW, HIGH = 20.0, 200.0


def case_force(assessment: Assessment, a: Acoustic) -> tuple[float, float]:
    """(N peak, Hz) of the largest force on the case at the promise, 20 to 200 Hz.

    The sum of mass times acceleration of every cone and radiator, with their phases; those that
    face the other way count against the rest. All others are taken as facing one way. Newton's
    third law; the air load is part of the stated masses.
    """
    box, network = assessment.design.box, a.model.network
    jw = 2j * np.pi * a.frequency
    total: Complex = np.zeros(len(a.frequency), dtype=complex)
    for k, owner in enumerate(a.model.owners):
        group = network.drivers[k]
        net = _net(group.count, opposed=box.groups[owner].opposed)
        total = total + net * group.constants.m_ms * jw**2 * a.transfers.excursion[k]
    for k, item in enumerate(box.radiators):
        net = _net(item.count, opposed=item.opposed)
        mass = a.model.radiators[k].mass
        total = total + net * mass * jw**2 * a.transfers.radiator_excursion[k]
    shown = (a.frequency >= LOW) & (a.frequency <= HIGH)
    force = np.where(shown, PEAK * np.abs(total) * promise_drive(assessment, a), 0.0)
    worst = int(np.argmax(force))
    return float(force[worst]), float(a.frequency[worst])


def _net(count: int, *, opposed: bool) -> int:
    """Parts whose force is not taken by one that faces the other way."""
    return count % 2 if opposed else count
