"""Shared air: a cone that another channel's pressure drives, and what that takes from the sum."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.figures import derivation_of
from firecrest.assessment.sound import placed_sources, pressure, voices_at
from firecrest.assessment.wiring import cone_count, wiring_of
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Complex
from firecrest.design.design import Design

NOTICED = 0.5
"""Losses below this many dB are not worth a sentence."""
LOWEST = 0.8
"""From this share of the promised note up."""
TOP = 500.0
"""Hz up to which shared air is looked at; above, chambers are no longer lumps."""


@dataclass(frozen=True)
class SharedAir:
    """Groups ``places`` share a chamber with a stronger one of another channel; driven by it, they
    take ``loss`` dB from the sum at ``frequency`` Hz.
    """

    places: tuple[int, ...]
    loss: float
    frequency: float


def shared_air(assessment: Assessment) -> SharedAir | None:
    """The chamber whose sharing costs most, by the groups that should leave it; None if none does.

    The sum as it is against the sum without the movement that other channels force on those
    cones, from 0.8 of the promised note to 500 Hz, where it is within 20 dB of its highest. In
    each chamber the channel that moves most air stays.
    """
    a, design = assessment.acoustic, assessment.design
    if a is None or len(design.voice.channels) < 2:
        return None
    band = (a.frequency >= LOWEST * design.brief.bass.frequency) & (a.frequency <= TOP)
    band &= a.unit_level > np.max(a.unit_level[band]) - 20
    found: list[SharedAir] = []
    for places in _guests(design):
        without = level(a.transfers.pressure - _forced(assessment, a, places))
        loss = np.where(band, without - a.unit_level, -np.inf)
        k = int(np.argmax(loss))
        found.append(SharedAir(places, float(loss[k]), float(a.frequency[k])))
    worst = max(found, key=lambda s: s.loss, default=None)
    return worst if worst is not None and worst.loss > NOTICED else None


def _guests(design: Design) -> list[tuple[int, ...]]:
    """Per chamber with several channels: the groups that are not on its strongest one."""
    box, wiring = design.box, wiring_of(design.voice.channels)
    found = []
    for chamber in box.chambers:
        inside = [k for k, g in enumerate(box.groups) if g.chamber == chamber.id]
        swept: dict[str, float] = {}
        for k in inside:
            group = box.groups[k]
            area = derivation_of(group.driver).figures.get("sd", 0.0)
            moved = area * (group.driver.xmax or 0.0) * cone_count(group, wiring)
            swept[group.channel] = swept.get(group.channel, 0.0) + moved
        if len(swept) > 1:
            host = max(swept, key=lambda name: swept[name])
            found.append(tuple(k for k in inside if box.groups[k].channel != host))
    return found


def _forced(assessment: Assessment, a: Acoustic, places: tuple[int, ...]) -> Complex:
    """Pressure of the cones of some groups as other channels of their chamber drive them."""
    design = assessment.design
    groups, channels = design.box.groups, design.voice.channels
    voices = voices_at(design.voice, design.power.dsp.sample_rate, a.frequency)
    total: Complex = np.zeros(len(a.frequency), dtype=complex)
    for source in placed_sources(a.scene):
        if source.kind != "cone" or a.model.owners[source.index] not in places:
            continue
        own = groups[a.model.owners[source.index]]
        inside = {g.channel for g in groups if g.chamber == own.chamber} - {own.channel}
        others = [h * (c.id in inside) for h, c in zip(voices, channels, strict=True)]
        total = total + pressure(a.scene, source.flow, others)
    return total
