"""Chambers that dividers part: the faces between two of them, and what waits for one."""

from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.cabinet.rollup import open_chambers
from firecrest.design.design import Design
from firecrest.design.standing import DIVIDER, FAR
from firecrest.proposals.roominess import Block


def unparted(design: Design) -> list[str]:
    """Names of what sounds from one room of the case into another with no divider between them."""
    rooms = [c.id for c in open_chambers(design.box.case, design.box.chambers)]
    inner = [(g.driver.name, g.chamber, g.front) for g in design.box.groups]
    inner += [(o.id, o.chamber, o.opens_to) for o in design.box.openings]
    return [
        name
        for name, chamber, ahead in inner
        if chamber in rooms and ahead in rooms and not faces_between(design, chamber, ahead)
    ]


def faces_between(design: Design, chamber: str, ahead: str) -> tuple[str, ...]:
    """Faces of dividers with ``chamber`` behind and ``ahead`` before them."""
    slabs = cabinet_of(design).slabs
    dividers = [b for b in design.box.case.braces if b.divider]
    along = sorted(range(len(dividers)), key=lambda k: dividers[k].at)
    found = []
    for k, (low, high) in zip(along, pairwise(slabs), strict=False):
        if (low, high) == (chamber, ahead):
            found.append(f"{DIVIDER}{k + 1}")
        elif (high, low) == (chamber, ahead):
            found.append(f"{DIVIDER}{k + 1}{FAR}")
    return tuple(found)


def other_rooms(drawing: Drawing, own: str) -> Iterator[Block]:
    """What chambers between dividers fill, but the one of its ``own``."""
    slabs, low, high = drawing.rolled.slabs, drawing.shell.low, drawing.shell.high
    if own not in slabs:
        return
    dividers = sorted((b for b in drawing.rolled.braces if b.divider), key=lambda b: float(b.at))
    k = "xyz".index(dividers[0].axis)
    ends = [float(low[k]), *(float(b.at) for b in dividers), float(high[k])]
    for room, (start, end) in zip(slabs, pairwise(ends), strict=True):
        if room != own:
            least, most = np.array(low, dtype=float), np.array(high, dtype=float)
            least[k], most[k] = start, end
            yield least, most
