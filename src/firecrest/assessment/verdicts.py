"""The six promises: predicted, target, margin, and the state each is in."""

from dataclasses import dataclass
from math import inf
from typing import Literal

from firecrest.assessment.cabinet import CabinetResult
from firecrest.core.limits.promise import Loudness, LowNote, Reach
from firecrest.design.brief import Brief

State = Literal["met", "close", "short", "unknown", "none"]
ROUNDING = 1e-9
RUNTIME_BELOW = 9.0
"""Playing level when none is set: this many dB below the promised loudness."""


def playing_level(brief: Brief) -> float:
    """Level in dB at which runtime is promised."""
    level = brief.runtime.level
    return brief.loudness.level - RUNTIME_BELOW if level is None else level


@dataclass(frozen=True)
class Promise:
    """One promise in SI (dB, Hz, s, m, kg, sums of money).

    ``margin`` is positive when there is something in hand; ``floor`` promises must be reached,
    the others must not be passed. ``reason`` says what is missing or what holds it back.
    """

    key: str
    predicted: float | None
    target: float
    margin: float | None
    state: State
    importance: str
    floor: bool
    reason: str = ""

    @property
    def wish_missed(self) -> bool:
        """Short, but only wished for."""
        return self.state == "short" and self.importance == "wish"


def judge(margin: float | None, importance: str, *, at_best: State = "met") -> State:
    """State of a margin; ``at_best`` caps it."""
    if importance == "open":
        return "none"
    if margin is None:
        return "unknown"
    return at_best if margin >= -ROUNDING else "short"


def loudness_promise(
    brief: Brief, result: Loudness | None, low: LowNote | None, missing: tuple[str, ...]
) -> Promise:
    """Loudness; at best close while a held low note needs a high-pass."""
    ask = brief.loudness
    if missing or result is None:
        reason = missing[0] if missing else "the voice ends below the promised bass reach"
        state = judge(None, ask.importance)
        return Promise("loudness", None, ask.level, None, state, ask.importance, True, reason)
    if result.level == -inf:
        state = "none" if ask.importance == "open" else "short"
        return Promise("loudness", None, ask.level, None, state, ask.importance, True, NOTHING_LEFT)
    held = low is None or low.passed
    state = judge(result.margin, ask.importance, at_best="met" if held else "close")
    reason = "" if held else "needs a high-pass"
    return Promise(
        "loudness", result.level, ask.level, result.margin, state, ask.importance, True, reason
    )


def bass_promise(brief: Brief, reach: Reach | None, missing: tuple[str, ...]) -> Promise:
    """Bass reach at level."""
    ask = brief.bass
    if missing or reach is None:
        reason = missing[0] if missing else "no band to judge it in"
        state = judge(None, ask.importance)
        return Promise("bass", None, ask.frequency, None, state, ask.importance, False, reason)
    if reach.frequency is None:
        state = "none" if ask.importance == "open" else "short"
        reason = f"the band is {reach.missing:.1f} dB short"
        return Promise("bass", None, ask.frequency, None, state, ask.importance, False, reason)
    margin = ask.frequency - reach.frequency
    state = judge(margin, ask.importance)
    return Promise(
        "bass", reach.frequency, ask.frequency, margin, state, ask.importance, False, reach.note
    )


def runtime_promise(
    brief: Brief, hours: float | None, level: float, playable: float | None, reason: str
) -> Promise:
    """Runtime of ``hours`` at ``level``; above ``playable``, the programme level, nothing plays."""
    ask = brief.runtime
    if hours is None:
        state: State = "none" if reason == WALL else judge(None, ask.importance)
        return Promise("runtime", None, ask.duration, None, state, ask.importance, True, reason)
    predicted = hours * 3600.0
    margin = predicted - ask.duration
    if playable is not None and level > playable + ROUNDING:
        state = "none" if ask.importance == "open" else "short"
        reason = f"{level:.1f} dB cannot be played: {playable:.1f} dB is the most"
        if playable == -inf:
            reason = NOTHING_LEFT
        return Promise(
            "runtime", predicted, ask.duration, margin, state, ask.importance, True, reason
        )
    return Promise(
        "runtime",
        predicted,
        ask.duration,
        margin,
        judge(margin, ask.importance),
        ask.importance,
        True,
    )


WALL = "runs from the wall"
NOTHING_LEFT = "nothing clean can be played: one part has nothing to give"


def size_promise(brief: Brief, cabinet: CabinetResult) -> Promise:
    """The tightest of the three outer dimensions."""
    ask = brief.size
    asked = (ask.length, ask.height, ask.depth)
    spare = [a - o for a, o in zip(asked, cabinet.outer, strict=True)]
    tightest = spare.index(min(spare))
    margin = spare[tightest]
    return Promise(
        "size",
        cabinet.outer[tightest],
        asked[tightest],
        margin,
        judge(margin, ask.importance),
        ask.importance,
        False,
        ("length", "height", "depth")[tightest],
    )


def cap_promise(key: str, predicted: float, target: float, importance: str) -> Promise:
    """Weight or cost."""
    margin = target - predicted
    return Promise(key, predicted, target, margin, judge(margin, importance), importance, False)


def six_promises(
    brief: Brief,
    rolled: CabinetResult,
    *,
    loudness: Loudness | None,
    low_note: LowNote | None,
    reach: Reach | None,
    hours: float | None,
    run_level: float,
    playable: float | None,
    missing: tuple[str, ...],
    endless: bool,
) -> tuple[Promise, ...]:
    """All verdicts in strip order; ``endless`` is a source that never runs empty."""
    waits = missing[0] if missing else ""
    return (
        loudness_promise(brief, loudness, low_note, missing),
        bass_promise(brief, reach, missing),
        runtime_promise(brief, hours, run_level, playable, WALL if endless else waits),
        size_promise(brief, rolled),
        cap_promise("weight", rolled.mass, brief.weight.mass, brief.weight.importance),
        cap_promise("cost", rolled.price, brief.cost.price, brief.cost.importance),
    )
