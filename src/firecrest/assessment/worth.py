"""What a margin is worth in dB, so that promises of different kinds can be weighed together.

Hours, hertz, kilograms and money count by 10 lg of their ratio to the target, bass reach twice.
"""

from collections.abc import Sequence
from math import inf, log10

from firecrest.assessment.verdicts import Promise

NOTHING = -60.0
"""DB of a promise that has no figure at all: worse than any that has one."""
BASS_COUNTS = 2.0


def worth(promise: Promise) -> float:
    """DB in hand, negative where a promise is short; a broken one is never above 0."""
    if promise.importance == "open" or promise.state == "none":
        return inf
    if promise.predicted is None or promise.predicted <= 0 or promise.margin is None:
        return NOTHING
    if promise.key == "loudness":
        found = promise.margin
    else:
        ratio = promise.predicted / promise.target
        found = 10 * log10(ratio if promise.floor else 1.0 / ratio)
        found *= BASS_COUNTS if promise.key == "bass" else 1.0
    return min(found, -1e-3) if promise.state == "short" and found > 0 else found


def worst_must(promises: Sequence[Promise]) -> float:
    """DB of the worst promise that must be kept; inf where nothing must be."""
    return min((worth(p) for p in promises if p.importance == "must"), default=inf)


def worst_key(promises: Sequence[Promise]) -> str | None:
    """That promise; None where nothing must be kept."""
    musts = [p for p in promises if p.importance == "must"]
    return min(musts, key=worth).key if musts else None
