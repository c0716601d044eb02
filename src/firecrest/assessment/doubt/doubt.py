"""Doubt: the 5-95 % range of every promise and of the ceiling, and what makes it.

Each is of real designs: the present one with other figures, all of one topology, worked out by the
derivation that assesses one.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, TypeVar

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.columns import put, put_all
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.doubt.family import Column, Family, Figure, widened
from firecrest.assessment.doubt.judged import worst_of
from firecrest.assessment.doubt.uncertain import families
from firecrest.assessment.lower.inputs import Inputs
from firecrest.assessment.lower.whole import Lowered, lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.openings.port import port_ends
from firecrest.assessment.vary import Answers, answers
from firecrest.assessment.verdicts import CLOSE, MET
from firecrest.core.arrays import Real
from firecrest.core.uncertainty.draw import SAMPLES, applied, with_exact
from firecrest.core.uncertainty.spread import band, band_along
from firecrest.design.box import Port, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, stands, value_at

Tree = TypeVar("Tree")

LOOKED_AT = 8
"""Figures that are tried for how much of the doubt they make: those it goes with most."""
MATTERS = 0.03
"""Share of the width below which a figure is not worth a word."""
HALF, COARSE = EDIT_GRID[::2], EDIT_GRID[::3]
for _grid in (HALF, COARSE):
    _grid.flags.writeable = False


@dataclass(frozen=True)
class Unsure:
    """A figure that makes ``share`` of the width of the band of ``promise``."""

    figure: Figure
    promise: str
    share: float


Draws = tuple[Real, ...]
"""Deviations (n, samples) of each family."""


def doubt_of(
    design: Design, samples: int = SAMPLES, *, times: float = 1.0, frequency: Real = HALF
) -> Doubt:
    """Doubt of ``design``; ``times`` widens every range. Nothing uncertain has bands of width 0.

    Worked out on fewer frequencies than an edit is: how far draws are from the design itself on
    these is put round what the design is on all of them.
    """
    known = tuple(widened(f, times) for f in families(design))
    drawn = (f.deviations(samples) for f in known)
    draws = tuple(np.hstack((rows, np.zeros((len(rows), 1)))) for rows in drawn)
    found = varied(design, known, draws, samples + 1, frequency)
    return spread_of(found, assess(design), frequency)


def doubts_of(designs: Mapping[str, Design]) -> Iterator[tuple[str, Doubt]]:
    """Doubt of each of several designs, with its name."""
    for name, design in designs.items():
        yield name, doubt_of(design)


def unsure_in_steps(design: Design, doubt: Doubt) -> Iterator[tuple[Unsure, ...] | None]:
    """What makes the ``doubt`` of ``design``: can be left off at each None before it."""
    yield from _unsure(assess(design), doubt, SAMPLES)


def spread_of(found: Answers, now: Assessment, frequency: Real) -> Doubt:
    """Bands of answers of which the last is that of the design itself, round what it is ``now``."""
    bands = {}
    for verdict in found.verdicts:
        kept = np.isin(verdict.state[:-1, 0], (MET, CLOSE))
        own, real = float(verdict.predicted[-1, 0]), now.promise(verdict.key).predicted
        shift = 0.0 if real is None or not np.isfinite(own) else real - own
        made = band(verdict.predicted[:-1, 0] + shift, kept)
        if made is not None:
            bands[verdict.key] = made
    if found.level is None or now.acoustic is None:
        return Doubt(bands)
    own, top = found.level[-1], now.acoustic.top.level
    away = (
        np.interp(np.log(EDIT_GRID), np.log(frequency), edge - own)
        for edge in band_along(found.level[:-1])
    )
    return Doubt(bands, *(top + part for part in away))


def varied(
    design: Design,
    known: Sequence[Family],
    draws: Sequence[Real],
    samples: int,
    frequency: Real = EDIT_GRID,
) -> Answers:
    """Answers of ``design`` with its uncertain figures as drawn."""
    columns = [
        (column, row)
        for f, rows in zip(known, draws, strict=True)
        for column, row in zip(f.columns, rows, strict=True)
    ]
    figures = [(path, c, row) for c, row in columns for path in c.figures]
    numbers = [(path, c, row) for c, row in columns for path in c.inputs]
    lowered = lower(_moved(design, figures), Memo(AFRESH))
    inputs = _moved(_with_ends(lowered), numbers)
    return answers(replace(lowered, inputs=inputs), samples, frequency)


def _with_ends(lowered: Lowered) -> Inputs:
    """Numbers in which ports state their end correction, so that it can be off."""
    inputs = lowered.inputs
    for k, port in placed(inputs.box.openings, Port):
        inputs = put(inputs, ("box", "openings", k, "end_correction"), port_ends(port))
    return inputs


def _moved(tree: Tree, drawn: Sequence[tuple[Path, Column, Real]]) -> Tree:
    """``tree`` with columns where figures are off; a figure that is not there stays away."""
    moved: dict[Path, Any] = {}
    for path, column, row in drawn:
        here = moved.get(path, value_at(tree, path) if stands(tree, path) else None)
        if here is None or (column.logarithmic and not np.any(here)):
            continue
        factor = applied(1.0, row, logarithmic=True) if column.logarithmic else 1.0
        added = 0.0 if column.logarithmic else applied(0.0, row, logarithmic=False)
        moved[path] = np.clip(factor * here + added, column.least, column.most)
    return put_all(tree, moved)


def unsure_of(assessment: Assessment, doubt: Doubt, samples: int = SAMPLES) -> tuple[Unsure, ...]:
    """What makes the doubt of the worst promise, most first; empty where nothing is in doubt.

    Each share is by how much the band shrinks when that figure alone is exact. Only the figures
    that go with the promise most are tried, and of those that one test settles the first is told.
    """
    return next(found for found in _unsure(assessment, doubt, samples) if found is not None)


def _unsure(
    assessment: Assessment, doubt: Doubt, samples: int
) -> Iterator[tuple[Unsure, ...] | None]:
    """``unsure_of``, after a None for each figure that was tried."""
    key = worst_of(assessment.promises, doubt)
    if key is None:
        yield ()
        return
    design = assessment.design
    known = families(design)
    draws = [f.deviations(samples) for f in known]
    drawn = varied(design, known, draws, samples, COARSE).verdict(key).predicted[:, 0]
    whole = _width(drawn)
    if not whole > 0:
        yield ()
        return
    likely = sorted(_goes_with(known, draws, drawn), key=lambda item: -item[0])
    found = []
    for _, place, figure in likely[:LOOKED_AT]:
        fixed = list(draws)
        fixed[place] = with_exact(draws[place], known[place].spread, np.array(figure.weights))
        left = _width(varied(design, known, fixed, samples, COARSE).verdict(key).predicted[:, 0])
        found.append(Unsure(figure, key, 1.0 - left / whole))
        yield None
    ranked = [u for u in sorted(found, key=lambda u: -u.share) if u.share >= MATTERS]
    settled = {(u.figure.owner, u.figure.test): u for u in reversed(ranked)}
    yield tuple(u for u in ranked if settled[u.figure.owner, u.figure.test] is u)


def _goes_with(
    known: Sequence[Family], draws: Sequence[Real], values: Real
) -> Iterator[tuple[float, int, Figure]]:
    """(square of the correlation, family, figure) of every figure that is not exact."""
    there = np.isfinite(values)
    for place, (one, rows) in enumerate(zip(known, draws, strict=True)):
        for figure in one.figures:
            moved = np.array(figure.weights) @ rows
            if np.ptp(moved) > 0:
                yield float(np.corrcoef(moved[there], values[there])[0, 1] ** 2), place, figure


def _width(values: Real) -> float:
    found = band(values, np.isfinite(values))
    return 0.0 if found is None else found.width
