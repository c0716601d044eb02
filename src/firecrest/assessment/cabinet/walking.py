"""Whether the box walks: forces of all that moves at the ceiling against weight and friction."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.motion import case_forces
from firecrest.core.cabinet.balance import FRICTION, Walk, walked

LOW, MULTIPLE = 20.0, 4.0
"""Hz from which, and times the promised note up to which, the worst note is looked for."""
BARE = "plastic on varnish"
"""What a case without feet is taken to stand on."""


@dataclass(frozen=True)
class Walking:
    """The worst note: its frequency and what holds the box there; ``friction`` by its name."""

    frequency: float
    walk: Walk
    friction: str


def walking(assessment: Assessment, a: Acoustic, drawing: Drawing) -> Walking:
    """At the ceiling, from 20 Hz to four times the promised note."""
    drive = 10 ** ((a.top.level - a.unit_level) / 20)
    force = case_forces(assessment, a, np.asarray(drive))
    feet = drawing.case.feet
    ground = BARE if feet is None else feet.ground
    top = MULTIPLE * assessment.design.brief.bass.frequency
    seen = np.nonzero((a.frequency >= LOW) & (a.frequency <= top))[0]
    found = [
        walked(
            (complex(force[0, k]), complex(force[1, k]), complex(force[2, k])),
            float(a.frequency[k]),
            drawing.balance.mass,
            FRICTION[ground],
        )
        for k in seen
    ]
    worst = min(range(len(found)), key=lambda k: _holds(found[k]))
    return Walking(float(a.frequency[seen[worst]]), found[worst], ground)


def _holds(walk: Walk) -> float:
    margins = [m for m in (walk.slide, walk.hop) if m is not None]
    return min(margins, default=np.inf)
