"""Many designs of one topology at once: the derivation on columns, in blocks that stay in cache."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.columns import (
    Columns,
    Flat,
    columns_of,
    flattened,
    joined,
    put,
    rows_of,
    stacked,
    widened,
)
from firecrest.assessment.judging import heard_of, judging, spares_under, summary_of, unheard
from firecrest.assessment.lower.whole import Lowered, lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.sounding import cabinet_in, sounding
from firecrest.assessment.verdicts import Promise, Verdict, promise_of
from firecrest.core.arrays import Real, picked
from firecrest.core.errors import DesignError
from firecrest.core.limits.ceiling import spelt
from firecrest.core.note import Note
from firecrest.core.parallel import blocks_of, side_by_side
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, dotted, facts_at, stands

VALUES = 120_000
"""Values per array at most: smaller blocks pay Python more often, larger ones leave the cache."""
LAST = 1
"""What a block asks for twice is worked out once."""


@dataclass(frozen=True)
class Answers:
    """Promises and ceilings of many designs: arrays (designs, 1), and (designs, F) over frequency.

    ``letters`` says what gives first at each frequency (numbers of letters; see ``spelt``),
    ``letter`` where loudness is held, at ``held_at`` Hz; ``level`` is the ceiling in dB. Arrays
    over frequency are None where figures are missing that the designs have in common. ``spares``
    are dB to spare of each kind of limit, by letter, where they were asked for.
    """

    verdicts: tuple[Verdict, ...]
    mass: Real
    price: Real
    level: Real | None = None
    letters: Real | None = None
    letter: Real | None = None
    held_at: Real | None = None
    missing: Note | None = None
    spares: tuple[tuple[str, Real], ...] = ()

    def verdict(self, key: str) -> Verdict:
        """One of the six by its key."""
        return next(v for v in self.verdicts if v.key == key)

    def promises(self, row: int) -> tuple[Promise, ...]:
        """The six promises of one design."""
        return tuple(promise_of(verdict, row) for verdict in self.verdicts)


@dataclass(frozen=True)
class Figures:
    """Headline figures of one design of many; ``missing`` says why there are none.

    ``level`` is the ceiling in dB on the grid of the answers, ``codes`` what gives first there.
    """

    loudness: float | None = None
    frequency: float | None = None
    code: str = ""
    bass_reach: float | None = None
    hours: float | None = None
    mass: float = 0.0
    price: float = 0.0
    missing: Note | None = None
    promises: tuple[Promise, ...] = ()
    level: Real | None = None
    codes: str = ""


def figures_of(found: Answers, row: int) -> Figures:
    """Headline figures of the design at ``row``."""
    promises = found.promises(row)
    loud, bass, runtime = (p.predicted for p in promises[:3])
    mass, price = float(found.mass[row, 0]), float(found.price[row, 0])
    if found.level is None or found.letters is None or found.letter is None:
        return Figures(mass=mass, price=price, missing=found.missing, promises=promises)
    assert found.held_at is not None
    return Figures(
        loud,
        None if loud is None else float(found.held_at[row, 0]),
        "" if loud is None else chr(found.letter[row, 0]),
        bass,
        None if runtime is None else runtime / 3600.0,
        mass,
        price,
        found.missing,
        promises,
        found.level[row],
        spelt(found.letters[row]),
    )


def vary(
    design: Design,
    columns: Mapping[Path, Real],
    frequency: Real = EDIT_GRID,
    *,
    spares: bool = False,
) -> Answers:
    """``design`` with each of ``columns`` (figure path: values (designs,)) in place of its figures.

    A path leads to a figure of the design, or to one of its ``inputs``, such as
    ("box", "groups", 0, "driver", "constants", "m_ms"). DesignError names a path that leads nowhere
    or a range that a value leaves.
    """
    counts = {len(values) for values in columns.values()}
    if len(counts) != 1:
        raise DesignError("Columns that are varied together have as many values each.")
    varied, inner = design, {}
    for path, values in columns.items():
        column = np.asarray(values, dtype=np.float64)[:, None]
        if stands(design, path):
            facts = facts_at(design, path)
            facts.check(float(np.min(values)))
            facts.check(float(np.max(values)))
            varied = put(varied, path, column)
        else:
            inner[path] = column
    lowered = lower(varied, Memo(AFRESH))
    for path, column in inner.items():
        if not stands(lowered.inputs, path):
            raise DesignError(f"There is no {dotted(path)} in this design to be varied.")
        lowered = replace(lowered, inputs=put(lowered.inputs, path, column))
    return answers(lowered, counts.pop(), frequency, spares=spares)


def answers(lowered: Lowered, count: int, frequency: Real, *, spares: bool = False) -> Answers:
    """Promises and ceilings of ``count`` designs whose columns ``lowered`` holds."""
    shape = (0 if lowered.blocked else count, len(frequency))
    curves = _Curves(np.empty(shape), np.empty(shape, dtype=np.uint8))
    blocks = blocks_of(count, max(1, VALUES // len(frequency)))
    places = columns_of(lowered.inputs) if len(blocks) > 1 else ()
    found = joined(
        side_by_side(lambda rows: _block(lowered, places, rows, frequency, curves, spares), blocks)
    )
    if lowered.blocked:
        return found
    return replace(found, level=curves.level, letters=curves.letters)


@dataclass(frozen=True)
class _Curves:
    """Ceilings of all designs, filled block by block: copies of large arrays cost as much as sums.

    ``level`` in dB and ``letters``, (designs, F).
    """

    level: Real
    letters: Real


def _block(
    lowered: Lowered, places: Columns, rows: slice, frequency: Real, curves: _Curves, spares: bool
) -> Answers:
    """The designs at ``rows``, solved and judged together. Fills their ``curves``."""
    count, memo = rows.stop - rows.start, Memo(LAST, sealed=False)
    numbers = rows_of(lowered.inputs, places, rows)
    rolled = cabinet_in(numbers, memo)
    mass, price = np.asarray(rolled.mass), np.asarray(rolled.price)
    if lowered.blocked:
        verdicts = unheard(lowered, rolled, lowered.blocked)
        return widened(Answers(verdicts, mass, price, missing=lowered.blocked), count)
    sound = sounding(numbers, frequency, memo)
    heard = heard_of(sound, lowered, memo)
    letters, loud = sound.top.letters(), heard.loudness
    curves.level[rows], curves.letters[rows] = sound.top.level, letters
    found = judging(lowered, numbers, rolled, summary_of(sound, heard, memo), memo)
    return widened(
        Answers(
            found.verdicts,
            mass,
            price,
            letter=None if loud is None else picked(letters, np.asarray(loud.point)),
            held_at=None if loud is None else np.asarray(loud.frequency),
            missing=lowered.missing[0] if lowered.missing else None,
            spares=spares_under(sound) if spares else (),
        ),
        count,
    )


def assess_many(designs: Sequence[Design], frequency: Real, memo: Memo) -> list[Figures]:
    """Headline figures of every design, in order; those of one topology are worked out together."""
    found = [Figures()] * len(designs)
    for places, lowered in grouped([lower(design, memo) for design in designs]):
        result = answers(lowered, len(places), frequency)
        for row, place in enumerate(places):
            found[place] = figures_of(result, row)
    return found


def grouped(designs: Sequence[Lowered]) -> list[tuple[list[int], Lowered]]:
    """(places, columns) of the designs of each topology; floats where all of them agree."""
    found: dict[Any, tuple[list[int], list[tuple[float, ...]]]] = {}
    known: dict[int, Flat] = {}
    for place, lowered in enumerate(designs):
        topology, floats = flattened(lowered.inputs, known)
        key = (topology, lowered.blocked, lowered.missing)
        places, rows = found.setdefault(key, ([], []))
        places.append(place)
        rows.append(floats)
    return [
        (places, replace(designs[places[0]], inputs=stacked(designs[places[0]].inputs, rows)))
        for places, rows in found.values()
    ]
