"""The chain from pack to listener: what each link has to spare at one frequency."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from firecrest.core.limits.ceiling import code_at, margins_at
from firecrest.design.design import Design

if TYPE_CHECKING:
    from firecrest.assessment.assess import Acoustic

LINKS = ("pack", "dsp", "amplifier", "drivers", "radiators", "box", "listener")
LINK_OF_CODE = {
    "V": "amplifier", "A": "amplifier", "P": "pack", "H": "drivers", "C": "drivers",
    "R": "radiators", "U": "box", "L": "dsp",
}


@dataclass(frozen=True)
class Link:
    """One link: dB to spare (None: no limit there) and the limit that sets it."""

    key: str
    spare: float | None
    limit: int | None


def links(design: Design, acoustic: Acoustic | None, point: int | None = None) -> tuple[Link, ...]:
    """The seven links at grid ``point``; where loudness is held when none is given."""
    if acoustic is None:
        return tuple(Link(key, None, None) for key in LINKS)
    at = acoustic.worst_point if point is None else point
    top = acoustic.tops.charged
    margins = margins_at(top, acoustic.unit_level, acoustic.asked, at)
    best: dict[str, tuple[float, int]] = {}
    for place, (limit, margin) in enumerate(zip(top.limits, margins, strict=True)):
        key = LINK_OF_CODE[code_at(limit, at)]
        if key not in best or margin < best[key][0]:
            best[key] = (margin, place)
    weakest = min(best.values()) if best else None
    found = []
    for key in LINKS:
        chosen = weakest if key == "listener" else best.get(key)
        found.append(Link(key, *(chosen if chosen else (None, None))))
    return tuple(found)
