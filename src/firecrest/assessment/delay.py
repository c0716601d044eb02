"""Group delay of the sum, after and before the voice, from the model and not from a grid."""

import numpy as np

from firecrest.assessment.acoustic import voice_rows, whole_flow
from firecrest.assessment.assess import Acoustic
from firecrest.assessment.conditions import air_of, around_of
from firecrest.core.acoustics.network import solve
from firecrest.core.acoustics.radiation import group_delay, heard
from firecrest.core.arrays import Complex, Real
from firecrest.design.design import Design


def group_delays(design: Design, a: Acoustic, frequency: Real) -> tuple[Real, Real]:
    """(after, before) the voice in s at ``frequency`` (F,), without the flight time.

    The delay of the board's filters is in the first; both are of the sum of everything.
    """
    around, air = around_of(design), air_of(design.brief.conditions)
    channels, rate = design.voice.channels, design.power.dsp.sample_rate

    def _pressure(at: Real, *, voiced: bool) -> Complex:
        flow = whole_flow(a.model, solve(a.model.network, at), around.distance, air)
        voices = [voice_rows(c, rate, at)[-1] if voiced else 1.0 for c in channels]
        mixed = sum(h * u for h, u in zip(voices, flow, strict=True))
        return heard(np.asarray(mixed), at, around, air)

    return (
        group_delay(lambda f: _pressure(f, voiced=True), frequency),
        group_delay(lambda f: _pressure(f, voiced=False), frequency),
    )
