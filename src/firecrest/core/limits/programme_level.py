"""Programme level: the highest long-term rms at which nothing gives out.

All definitions are in docs/physics.md, "Promises". Each limit is met by its own quantity's
spectral rms times the programme's crest (instant), burst (source currents) or 1 (long-term): one
common crest, an approximation.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, decibel
from firecrest.core.limits.ceiling import code_at
from firecrest.core.limits.elements import Limit


@dataclass(frozen=True)
class ProgrammeLevel:
    """Highest long-term level in dB and what holds it; ``by_limit`` maps names to levels."""

    level: float
    name: str
    code: str
    by_limit: Mapping[str, float]
    unit_level: float


def programme_level_of(limits: Sequence[Limit], unit: Number) -> ProgrammeLevel:
    """Level of one design, and by limit."""
    unit = float(np.ravel(unit)[0])
    by_limit: dict[str, float] = {}
    for limit in limits:
        volts = unit + float(decibel(np.ravel(limit.factor)[0]))
        by_limit[limit.name] = min(volts, by_limit.get(limit.name, np.inf))
    first = min(limits, key=lambda limit: float(np.ravel(limit.factor)[0]))
    return ProgrammeLevel(by_limit[first.name], first.name, code_at(first, 0), by_limit, unit)
