"""Shared air: a cone that another channel's pressure drives, and what that takes from the sum."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import around_of, placed_sources, voice_rows
from firecrest.assessment.assess import Assessment
from firecrest.assessment.lowering import air_of
from firecrest.core.acoustics.radiation import heard, level

NOTICED = 0.5
"""Losses below this many dB are not worth a sentence."""
TOP = 500.0
"""Hz up to which shared air is looked at; above, chambers are no longer lumps."""


@dataclass(frozen=True)
class SharedAir:
    """Group ``place`` shares a chamber; driven by it, it takes ``loss`` dB at ``frequency`` Hz."""

    place: int
    loss: float
    frequency: float


def shared_air(assessment: Assessment) -> SharedAir | None:
    """The group that loses most by sharing its air with another channel; None when none does.

    The sum as it is against the sum without the movement that other channels force on the cone,
    between half the promised note and 500 Hz, where the sum is within 20 dB of its highest.
    """
    a, design = assessment.acoustic, assessment.design
    groups = design.box.groups
    if a is None or len({g.channel for g in groups}) < 2:
        return None
    around, air = around_of(design), air_of(design.brief.conditions)
    names = [c.name for c in design.voice.channels]
    rate = design.power.dsp.sample_rate
    voices = [voice_rows(c, rate, a.frequency)[-1] for c in design.voice.channels]
    band = (a.frequency >= design.brief.bass.frequency / 2) & (a.frequency <= TOP)
    band &= a.unit_level > np.max(a.unit_level[band]) - 20
    worst: SharedAir | None = None
    for source in placed_sources(a.model, a.solution, around.distance, air):
        if source.kind != "cone":
            continue
        place = a.model.owners[source.index]
        others = {g.channel for g in groups if g.chamber == groups[place].chamber}
        forced = sum(
            voices[names.index(n)] * source.flow[names.index(n)]
            for n in others - {groups[place].channel}
        )
        if not np.any(forced):
            continue
        without = level(a.transfers.pressure - heard(forced, a.frequency, around, air))
        loss = np.where(band, without - a.unit_level, -np.inf)
        k = int(np.argmax(loss))
        if loss[k] > max(NOTICED, worst.loss if worst else 0.0):
            worst = SharedAir(place, float(loss[k]), float(a.frequency[k]))
    return worst
