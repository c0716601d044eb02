"""The six promises: predicted, target, margin, and the state each is in, of one design or many."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import inf, isnan
from typing import Any, Literal

import numpy as np

from firecrest.assessment.cabinet.rollup import CabinetResult
from firecrest.core.arrays import Number, Real
from firecrest.core.limits.loudness import Loudness
from firecrest.core.limits.reach import INSIDE, LOWER, NONE, REACH_NOTES, Crossing
from firecrest.core.note import Note, note
from firecrest.core.uncertainty.spread import Band
from firecrest.design.brief import Brief

State = Literal["met", "close", "short", "unknown", "none"]
STATES: tuple[State, ...] = ("met", "close", "short", "unknown", "none")
MET, CLOSE, SHORT, UNKNOWN, OPEN = range(5)
ROUNDING = 1e-9
NEARLY = 1.0
"""dB by which a playing level may lie over what can be held, and still be called close."""
WALL = "wall"
"""Code of the note that nothing runs empty."""
SIDES = ("length", "height", "depth")


@dataclass(frozen=True)
class Promise:
    """One promise in SI (dB, Hz, s, m, kg, sums of money).

    ``margin`` is positive when there is something in hand; ``floor`` promises must be reached,
    the others must not be passed. ``reason`` says what is missing or what holds it back. ``band``
    is where the figure likely is, once that is known; close is then where the target lies inside.
    """

    key: str
    predicted: float | None
    target: float
    margin: float | None
    state: State
    importance: str
    floor: bool
    reason: Note | None = None
    band: Band | None = None

    @property
    def wish_missed(self) -> bool:
        """Short, but only wished for."""
        return self.state == "short" and self.importance == "wish"


@dataclass(frozen=True)
class Reason:
    """Why a promise stands as it does, in the designs where ``holds``."""

    holds: Any
    note: Note


@dataclass(frozen=True)
class Verdict:
    """One promise of many designs, arrays (..., 1): NaN is not known, ``state`` a place in
    ``STATES``; of several reasons that hold the first is told.
    """

    key: str
    predicted: Real
    target: Number
    margin: Real
    state: Real
    importance: str
    floor: bool
    reasons: tuple[Reason, ...] = ()


def promise_of(verdict: Verdict, row: int = 0) -> Promise:
    """The promise of one design."""
    told = next((r.note.of(row) for r in verdict.reasons if _at(r.holds, row)), None)
    predicted, margin = _at(verdict.predicted, row), _at(verdict.margin, row)
    return Promise(
        verdict.key,
        None if isnan(predicted) else predicted,
        _at(verdict.target, row),
        None if isnan(margin) else margin,
        STATES[int(_at(verdict.state, row))],
        verdict.importance,
        verdict.floor,
        told,
    )


def _at(value: Any, row: int) -> float:
    """One design's figure."""
    if isinstance(value, np.ndarray):
        return float(value.item(row if value.size > 1 else 0))
    return float(value)


def judged(margin: Number, importance: str, at_best: Number = MET) -> Real:
    """State of a margin; ``at_best`` caps it."""
    if importance == "open":
        return np.full(np.shape(margin), OPEN)
    kept = np.asarray(margin) >= -ROUNDING
    return np.where(np.isnan(margin), UNKNOWN, np.where(kept, at_best, SHORT))


def _broken(state: Real, broken: Any, importance: str) -> Real:
    """``state``, short where a promise is ``broken`` without a figure that says by how much."""
    return state if importance == "open" else np.where(broken, SHORT, state)


@dataclass(frozen=True)
class Waiting:
    """Designs that can't be judged by ear, (..., 1), and why."""

    where: Any
    why: Note


def loudness_verdict(
    brief: Brief, found: Loudness | None, passed: Any, waits: Sequence[Waiting]
) -> Verdict:
    """Loudness; at best close where a held low note has not ``passed``; None: not checked."""
    ask = brief.loudness
    level = np.asarray(np.nan if found is None else found.level)
    unknown = _any(waits) | np.isnan(level)
    silent = ~unknown & (level == -inf)
    passed = np.asarray(True if passed is None else passed)
    level = np.where(unknown | silent, np.nan, level)
    margin = level - ask.level
    state = judged(margin, ask.importance, np.where(passed, MET, CLOSE))
    return Verdict(
        "loudness",
        level,
        ask.level,
        margin,
        _broken(state, silent, ask.importance),
        ask.importance,
        True,
        (
            *_reasons(waits),
            Reason(unknown, note("voice ends")),
            Reason(silent, note("nothing left")),
            Reason(~passed, note("high-pass")),
        ),
    )


def bass_verdict(brief: Brief, reach: Crossing | None, waits: Sequence[Waiting]) -> Verdict:
    """Bass reach at level."""
    ask = brief.bass
    if reach is None:
        reach = Crossing(np.array([np.nan]), np.array([NONE]), np.array([0.0]))
    unknown = _any(waits)
    none = ~unknown & (reach.kind == NONE)
    found = np.where(unknown | none, np.nan, reach.frequency)
    margin = ask.frequency - found
    notes = [Reason(reach.kind == kind, REACH_NOTES[kind]) for kind in (LOWER, INSIDE)]
    return Verdict(
        "bass",
        found,
        ask.frequency,
        margin,
        _broken(judged(margin, ask.importance), none, ask.importance),
        ask.importance,
        False,
        (
            *_reasons(waits),
            Reason(none & np.isinf(reach.missing), note("nothing left")),
            Reason(none, note("band short", short=reach.missing)),
            *notes,
        ),
    )


def runtime_verdict(
    brief: Brief,
    hours: Real | None,
    level: Number,
    playable: Real | None,
    waits: Sequence[Waiting],
    *,
    endless: bool,
) -> Verdict:
    """Runtime of ``hours`` at ``level``; above ``playable``, the programme level, nothing plays."""
    ask = brief.runtime
    seconds = np.asarray(np.nan if hours is None else hours * 3600.0)
    seconds = np.where(_any(waits), np.nan, seconds)
    margin = seconds - ask.duration
    state = judged(margin, ask.importance)
    too_loud, silent = np.asarray(False), np.asarray(False)
    if endless:
        state = np.full(np.shape(state), OPEN)
    elif playable is not None:
        over = level - playable
        too_loud = ~np.isnan(seconds) & (over > ROUNDING)
        silent = too_loud & (playable == -inf)
        state = _broken(state, too_loud & (over >= NEARLY), ask.importance)
        if ask.importance != "open":
            state = np.where(too_loud & (over < NEARLY) & (state == MET), CLOSE, state)
    most = np.nan if playable is None else playable
    return Verdict(
        "runtime",
        seconds,
        ask.duration,
        margin,
        state,
        ask.importance,
        True,
        (
            Reason(endless, note(WALL)),
            *_reasons(waits),
            Reason(silent, note("nothing left")),
            Reason(too_loud, note("level not held", level=level, most=most)),
        ),
    )


def size_verdict(brief: Brief, cabinet: CabinetResult) -> Verdict:
    """The tightest of the three outer dimensions."""
    ask = brief.size
    asks, takes = (np.asarray(x) for x in (ask.length, cabinet.outer[0]))
    tightest: Real = np.zeros((), dtype=int)
    for k, (asked, taken) in enumerate(
        zip((ask.height, ask.depth), cabinet.outer[1:], strict=True)
    ):
        closer = asked - taken < asks - takes
        asks, takes = np.where(closer, asked, asks), np.where(closer, taken, takes)
        tightest = np.where(closer, k + 1, tightest)
    margin = asks - takes
    sides = (Reason(tightest == k, note("side", side=s)) for k, s in enumerate(SIDES))
    state = judged(margin, ask.importance)
    return Verdict("size", takes, asks, margin, state, ask.importance, False, tuple(sides))


def cap_verdict(key: str, predicted: Number, target: Number, importance: str) -> Verdict:
    """Weight or cost."""
    margin = np.asarray(target - predicted)
    state = judged(margin, importance)
    return Verdict(key, np.asarray(predicted), target, margin, state, importance, False)


def body_verdicts(brief: Brief, cabinet: CabinetResult) -> tuple[Verdict, Verdict, Verdict]:
    """Size, weight and cost: known also where nothing can be heard yet."""
    return (
        size_verdict(brief, cabinet),
        cap_verdict("weight", cabinet.mass, brief.weight.mass, brief.weight.importance),
        cap_verdict("cost", cabinet.price, brief.cost.price, brief.cost.importance),
    )


def _any(waits: Sequence[Waiting]) -> Any:
    """Whether any of them holds; False when there is none."""
    found = np.asarray(False)
    for wait in waits:
        found = found | np.asarray(wait.where)
    return found


def _reasons(waits: Sequence[Waiting]) -> list[Reason]:
    return [Reason(wait.where, wait.why) for wait in waits]
