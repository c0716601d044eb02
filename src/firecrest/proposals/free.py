"""The one dimension of a case that follows when its air is asked for, of one design or many.

Depth of a box; length along its axis of a tube; height of a turned profile; diameter of a ball.
"""

from collections.abc import Mapping

import numpy as np

from firecrest.assessment.cabinet.rollup import CabinetResult
from firecrest.assessment.columns import put
from firecrest.assessment.lower.whole import lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.sounding import cabinet_in
from firecrest.core.arrays import Real
from firecrest.design.case import Case
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, facts_at, value_at

STEPS = 12
CLOSE = 1e-10
"""m3 to which air is met."""
NUDGE = 1.02


def free_side(case: Case) -> str:
    """Name of the dimension."""
    shape = case.shape
    if shape.kind == "cylinder":
        return {"x": "length", "y": "height", "z": "depth"}[shape.axis]
    return {"vase": "height", "ball": "length"}.get(shape.kind, "depth")


def free_path(design: Design) -> Path:
    """Where it stands in a design."""
    return ("box", "case", free_side(design.box.case))


def rolled_with(design: Design, columns: Mapping[Path, Real]) -> CabinetResult:
    """The case of many designs at once: each column (n,) in place of one figure."""
    made = design
    for path, values in columns.items():
        made = put(made, path, values[:, None])
    return cabinet_in(lower(made, Memo(AFRESH)).inputs, Memo(AFRESH))


def met_by(
    design: Design, columns: Mapping[Path, Real], path: Path, wanted: Real, place: int | None = 0
) -> tuple[Real, Real]:
    """Values of the figure at ``path`` with which a chamber (None: all inside) holds ``wanted`` m3.

    Also returns whether each is met. Secant steps: air of a box is straight in its depth, so that
    the second is exact.
    """

    def _air(at: Real) -> Real:
        rolled = rolled_with(design, {**columns, path: at})
        found = rolled.inside if place is None else rolled.air[place]
        return np.broadcast_to(np.ravel(found), at.shape)

    facts = facts_at(design, path)
    low, high = facts.low, facts.high
    start = value_at(design, path)
    before = np.full(len(wanted), float(start))
    now = np.clip(before * NUDGE + (1e-3 if start == 0 else 0.0), low, high)
    was, has = _air(before), _air(now)
    for _ in range(STEPS):
        if np.all(np.abs(has - wanted) < CLOSE):
            break
        gained, moved = has - was, now - before
        useful = (np.abs(gained) > 1e-15) & (moved != 0)
        step = np.where(useful, (wanted - has) * moved / np.where(useful, gained, 1.0), 0.0)
        before, was = now, has
        now = np.clip(now + step, low, high)
        has = _air(now)
    return now, np.abs(has - wanted) < 1e-6 * np.maximum(np.abs(wanted), 1e-6)
