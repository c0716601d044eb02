"""Balance of ways: channels that play far louder in their own band than the lowest one in its."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.sound import pressure, voices_at, whole_flow
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Real

TOLD = 3.0
"""dB apart from which it is told."""
WITHIN = 6.0
"""A channel's band: where it is at most this many dB below its loudest."""
LOWEST, HIGHEST = 20.0, 1000.0
"""Hz between which bands are looked at; above, sources are no longer small."""
APART = 1.5
"""Bands whose middles are closer than this ratio are one way, left and right for instance."""


@dataclass(frozen=True)
class Balance:
    """Channels ``louder`` play ``by`` dB louder, in their bands, than channel ``lowest`` in its;
    negative: softer.
    """

    louder: tuple[int, ...]
    lowest: int
    by: float


def balance(assessment: Assessment) -> Balance | None:
    """The way that differs most from the lowest one; None when all are within 3 dB.

    Compared is the mean over ln f of the whole sum in each channel's own band: flat at the promise
    is what a brief asks for unless an equaliser is meant to tilt it.
    """
    a, voice = assessment.acoustic, assessment.design.voice
    if a is None or len(voice.channels) < 2:
        return None
    bands = _bands(assessment, a)
    middles = [float(np.exp(np.mean(np.log(a.frequency[band])))) for band in bands]
    heard = [float(np.mean(a.unit_level[band])) for band in bands]
    lowest = int(np.argmin(middles))
    higher = [k for k, middle in enumerate(middles) if middle > APART * middles[lowest]]
    if not higher:
        return None
    most = max(higher, key=lambda k: abs(heard[k] - heard[lowest]))
    by = heard[most] - heard[lowest]
    alike = [k for k in higher if 1 / APART < middles[k] / middles[most] < APART]
    return Balance(tuple(alike), lowest, by) if abs(by) >= TOLD else None


def _bands(assessment: Assessment, a: Acoustic) -> list[Real]:
    """Where each channel by itself is about at its loudest."""
    design, looked = assessment.design, (a.frequency >= LOWEST) & (a.frequency <= HIGHEST)
    voices = voices_at(design.voice, design.power.dsp.sample_rate, a.frequency)
    flow, found = whole_flow(a.scene), []
    for k, voice in enumerate(voices):
        alone = level(pressure(a.scene, flow[k : k + 1], [voice]))
        found.append(looked & (alone >= np.max(alone[looked]) - WITHIN))
    return found
