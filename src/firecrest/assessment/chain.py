"""The chain from pack to listener: what each link has to spare at one frequency."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from firecrest.core.limits.ceiling import code_at, margins_at
from firecrest.core.limits.kinds import row_of
from firecrest.core.limits.loudness import promised_shape
from firecrest.design.design import Design

if TYPE_CHECKING:
    from firecrest.assessment.assess import Acoustic

LINKS = ("pack", "dsp", "amplifier", "drivers", "radiators", "box", "listener")


@dataclass(frozen=True)
class Link:
    """One link: dB to spare (None: no limit there) and the limit that sets it."""

    key: str
    spare: float | None
    limit: int | None


def links(
    design: Design, acoustic: Acoustic | None, frequency: float | None = None
) -> tuple[Link, ...]:
    """The seven links at ``frequency`` Hz; where loudness is held when none is given."""
    if acoustic is None:
        return tuple(Link(key, None, None) for key in LINKS)
    where = acoustic.worst_frequency if frequency is None else frequency
    brief, top = design.brief, acoustic.top
    shape = promised_shape(np.array([where]), brief.bass.frequency, brief.bass.drop)
    asked = brief.loudness.level + float(shape[0])
    margins = margins_at(top, acoustic.unit_level, acoustic.frequency, where, asked)
    point = int(np.argmin(np.abs(np.log(acoustic.frequency / where))))
    best: dict[str, tuple[float, int]] = {}
    for place, (limit, margin) in enumerate(zip(top.limits, margins, strict=True)):
        key = row_of(limit, code_at(limit, point)).link
        if key not in best or margin < best[key][0]:
            best[key] = (margin, place)
    weakest = min(best.values())
    if frequency is None and acoustic.loudness is not None:
        weakest = (acoustic.loudness.margin, acoustic.loudness.limit)
    found = []
    for key in LINKS:
        chosen = weakest if key == "listener" else best.get(key)
        found.append(Link(key, *(chosen if chosen else (None, None))))
    return tuple(found)
