"""The chain from pack to listener: what each link has to spare, and at which note."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from firecrest.core.arrays import Real, decibel
from firecrest.core.limits.band import band
from firecrest.core.limits.elements import Limit
from firecrest.core.limits.kinds import PACK, row_of
from firecrest.core.limits.loudness import middles, promised_shape
from firecrest.design.design import Design

if TYPE_CHECKING:
    from firecrest.assessment.assess import Acoustic

LINKS = ("pack", "dsp", "amplifier", "drivers", "radiators", "box", "listener")


@dataclass(frozen=True)
class Link:
    """One link: dB to spare (None: no limit there), the limit that sets it, and where in Hz."""

    key: str
    spare: float | None = None
    limit: int | None = None
    frequency: float | None = None


def links(
    design: Design, acoustic: Acoustic | None, frequency: float | None = None
) -> tuple[Link, ...]:
    """The seven links at ``frequency`` Hz, or each at its own worst note of the promised band."""
    if acoustic is None:
        return tuple(map(Link, LINKS))
    best: dict[str, Link] = {}
    for link in _candidates(design, acoustic, frequency):
        if link.key not in best or (link.spare or 0.0) < (best[link.key].spare or 0.0):
            best[link.key] = link
    weakest = min(best.values(), key=lambda link: link.spare or 0.0)
    listener = Link("listener", weakest.spare, weakest.limit, weakest.frequency)
    loud = acoustic.loudness
    if frequency is None and loud is not None:
        listener = Link("listener", loud.margin, loud.limit, loud.frequency)
    best["listener"] = listener
    return tuple(best.get(key, Link(key)) for key in LINKS)


def _candidates(design: Design, a: Acoustic, frequency: float | None) -> Iterator[Link]:
    """Each limit at its tightest, under the link that gives it there."""
    bass = design.brief.bass
    ends = (bass.frequency, max(a.f_hi, bass.frequency)) if frequency is None else (frequency,) * 2
    judged = band(a.frequency, *ends)
    asked = design.brief.loudness.level + promised_shape(judged.places, bass.frequency, bass.drop)
    points = np.searchsorted(middles(a.frequency), judged.places)
    factors = np.stack([limit.factor for limit in a.limits])
    margins = judged.of(a.sound.top_unit_level + decibel(factors)) - asked
    for place, (limit, margin) in enumerate(zip(a.limits, margins, strict=True)):
        for code, where in _codes(limit, points):
            spare = margin if where is None else np.where(where, margin, np.inf)
            worst = int(np.argmin(spare))
            if where is None or where[worst]:
                key = row_of(limit, code).link
                yield Link(key, float(spare[worst]), place, float(judged.places[worst]))


def _codes(limit: Limit, points: Real) -> Iterator[tuple[str, Real | None]]:
    """(code, at which of ``points`` it is told by that; None: everywhere)."""
    if limit.pack is None:
        yield limit.code, None
        return
    blamed = limit.pack[points]
    yield limit.code, ~blamed
    yield PACK, blamed
