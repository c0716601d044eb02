"""Tuning: the added mass or port length with which the worst promise stands best."""

from collections.abc import Iterator

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.vary import Answers, vary
from firecrest.assessment.worth import worst_must
from firecrest.core.arrays import Real
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.box import Port
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, facts_at, replace_at, value_at
from firecrest.proposals.inverse import tuner_path, tuning_of, twins
from firecrest.proposals.moves.kinds import Proposal, Scene
from firecrest.proposals.ports import folded

GRID = EDIT_GRID[::2]
STEPS, ROUNDS = 16, 2
FAR = 2.5
"""Times a port's length, and the mass of a radiator, between which one looks."""
WORTH = 0.05


def tuning(scene: Scene) -> Iterator[Proposal]:
    """The best tuning below and above the present one, of the first chamber that has one."""
    design = scene.design
    for chamber in range(len(design.box.chambers)):
        path = tuner_path(design, chamber)
        if path is None:
            continue
        for side in (-1, 1):
            try:
                yield from _best(design, path, chamber, side)
            except FirecrestError:
                continue
        return


def _best(design: Design, path: Path, chamber: int, side: int) -> Iterator[Proposal]:
    facts, now = facts_at(design, path), float(value_at(design, path))
    own = _own(design, path)
    ends = ((now + own) * FAR - own, now) if side < 0 else (now, (now + own) / FAR - own)
    low, high = (min(max(end, facts.low), facts.high) for end in ends)
    if abs(low - high) < 1e-4 * (abs(now) + own):
        return
    paths = twins(design, path)
    values, best = np.linspace(low, high, STEPS), now
    for _ in range(ROUNDS):
        found = vary(design, dict.fromkeys(paths, values), GRID)
        place = int(np.argmax(_worths(found, len(values))))
        best = float(values[place])
        ends = values[max(place - 1, 0)], values[min(place + 1, STEPS - 1)]
        values = np.linspace(*ends, STEPS)
    if abs(best - now) < 1e-3 * (abs(now) + own):
        return
    made = design
    for each in paths:
        made = replace_at(made, each, best)
    if isinstance(design.box.openings[int(path[2])], Port):
        made = folded(made, int(path[2]))
    corner = tuning_of(made, chamber)
    title = note("tuning", frequency=corner, figure=str(path[-1]), before=now, after=best)
    yield Proposal("tuning", title, made, path)


def _own(design: Design, path: Path) -> float:
    """What a radiator weighs by itself; 0 of a port."""
    item = design.box.openings[int(path[2])]
    return 0.0 if isinstance(item, Port) else float(item.radiator.mmp or 0.0)


def _worths(found: Answers, count: int) -> Real:
    return np.array([worst_must(found.promises(row)) for row in range(count)])
