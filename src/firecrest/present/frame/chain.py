"""The chain as shown: name, plate, part and thickness of each link, and the caption."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.chain import Link, links
from firecrest.core.limits.ceiling import code_at
from firecrest.core.limits.loudness import middles
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.edits.paths import Path
from firecrest.present.text import words
from firecrest.present.text.sentences import FIELD_OF_PROMISE, field_of_limit

NO_LIMIT = {"box": "no port", "radiators": "none", "pack": "no limit"}
OWN_FIELD: dict[str, Path] = {
    "listener": FIELD_OF_PROMISE["loudness"],
    "box": ("computed", "air_volume"),
}


@dataclass(frozen=True)
class ChainLink:
    """One link as shown; ``short`` is what its plate says where there is little room."""

    name: str
    plate: str
    short: str
    part: str
    spare: float | None
    weakest: bool
    path: Path | None
    tooltip: str


@dataclass(frozen=True)
class ChainRow:
    """All links, and at which frequency they are compared."""

    links: tuple[ChainLink, ...]
    caption: str


def chain(assessment: Assessment, frequency: float | None) -> ChainRow:
    """Links at ``frequency`` Hz; where loudness is held when it is None."""
    a = assessment.acoustic
    found = assessment.links if frequency is None else links(assessment.design, a, frequency)
    spares = [x.spare for x in found if x.spare is not None and x.key != "listener"]
    least = min(spares) if spares else None
    target = assessment.design.brief.loudness.level
    caption = "–" if a is None else "its own worst note"
    if a is not None and frequency is not None:
        caption = f"{frequency:.0f}{THIN_SPACE}Hz, {target:g}{THIN_SPACE}dB shape"
    return ChainRow(tuple(_shown(x, assessment, least, frequency) for x in found), caption)


def _shown(
    link: Link, assessment: Assessment, least: float | None, pinned: float | None
) -> ChainLink:
    a, design = assessment.acoustic, assessment.design
    part = words.part_of_link(link.key, assessment)
    path = OWN_FIELD.get(link.key)
    tooltip = ""
    if link.limit is not None and a is not None:
        limit = a.limits[link.limit]
        where = link.frequency or a.worst_frequency
        point = int(np.searchsorted(middles(a.frequency), where))
        tooltip = words.limit_name(limit, code_at(limit, point))
        if link.frequency is not None and link.spare is not None:
            tooltip += f", tightest at {link.frequency:.0f}{THIN_SPACE}Hz"
        path = path or field_of_limit(assessment, limit)
    if link.key == "listener":
        loud = assessment.promise("loudness")
        got = "–" if loud.predicted is None else figure(loud.predicted, 1)
        plate = f"gets {got} of {design.brief.loudness.level:g} dB"
        return ChainLink("Listener", plate, got, part, link.spare, False, path, tooltip)
    if link.spare is None:
        plate = NO_LIMIT.get(link.key, "–") if a is not None else "not known"
        return ChainLink(words.LINK_NAMES[link.key], plate, plate, part, None, False, path, tooltip)
    weakest = least is not None and link.spare == least
    short = plate = words.decibels(link.spare)
    if link.frequency is not None and pinned is None:
        plate += f" at {link.frequency:.0f}{THIN_SPACE}Hz"
    name = words.LINK_NAMES[link.key]
    return ChainLink(name, plate, short, part, link.spare, weakest, path, tooltip)
