"""What a solved box means for its brief: how it is heard, how long it plays, its verdicts.

The derivation runs on floats and on columns (designs, 1).
"""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.cabinet.rollup import CabinetResult
from firecrest.assessment.conditions import lowest_low_pass, playing_level, programme_of
from firecrest.assessment.electrical import playing, store_of
from firecrest.assessment.lower import inputs
from firecrest.assessment.lower.whole import Lowered
from firecrest.assessment.memo import Memo
from firecrest.assessment.sounding import (
    CANCELLED,
    NOTHING,
    SILENCE,
    Sounding,
    lasting_in,
    most_lost,
)
from firecrest.assessment.verdicts import (
    Verdict,
    Waiting,
    bass_verdict,
    body_verdicts,
    loudness_verdict,
    runtime_verdict,
)
from firecrest.assessment.ways import known_up_to
from firecrest.assessment.yielding import Yielding
from firecrest.core.arrays import Number, Real, decibel, plain
from firecrest.core.limits.ceiling import Ceiling
from firecrest.core.limits.draw import Draw
from firecrest.core.limits.kinds import kind_named
from firecrest.core.limits.loudness import Judged, Loudness, judged, loudness, upper_edge
from firecrest.core.limits.low_note import HeldNote, Notes, held_notes, low_note
from firecrest.core.limits.reach import (
    Crossing,
    MeanBand,
    Way,
    crossing,
    mean_band,
    reference_band,
    way_from,
)
from firecrest.core.note import Note, note
from firecrest.core.power.runtime import Played, played
from firecrest.design.brief import BassPromise, Listening, LoudnessPromise


def upper_end(sound: Sounding) -> Real:
    """Frequency in Hz up to which loudness is judged."""
    low_pass = lowest_low_pass(sound.inputs.voice.channels)
    lumped = upper_edge(sound.cabinet.longest_inner, sound.scene.air.speed, low_pass)
    known: Number | None = known_up_to(sound.scene.ways.measured)
    if known is None:
        return lumped
    if low_pass is not None:
        known = np.minimum(known, 0.7 * low_pass)
    return np.asarray(np.maximum(lumped, known))


def loudness_under(sound: Sounding, top: Ceiling) -> Loudness:
    """Loudness as promised under a ceiling."""
    ask, bass = sound.inputs.brief.loudness, sound.inputs.brief.bass
    over = judged(sound.frequency, bass.frequency, bass.drop, upper_end(sound))
    return loudness(over, top.level, ask.level)


def spares_under(sound: Sounding) -> tuple[tuple[str, Real], ...]:
    """(letter, dB to spare at its own worst note) of each kind of limit, under the promise."""
    ask, bass = sound.inputs.brief.loudness, sound.inputs.brief.bass
    over = judged(sound.frequency, bass.frequency, bass.drop, upper_end(sound))
    found: dict[str, Real] = {}
    for limit in sound.top.limits:
        level = sound.top_unit_level + decibel(limit.factor)
        margin = np.asarray(loudness(over, level, ask.level).margin)
        code = kind_named(limit.name).code
        found[code] = margin if code not in found else np.minimum(found[code], margin)
    return tuple(found.items())


@dataclass(frozen=True)
class Heard:
    """How a box sounds against its brief; arrays (..., 1).

    ``loudness`` and ``held`` are None where figures are missing. ``kept`` is the response re its
    reference, as far as the ceiling lets it at the promised level.
    """

    loudness: Loudness | None
    band: tuple[Real, Real]
    reference: Real
    kept: Real
    reach: Crossing
    held: HeldNote | None


@dataclass(frozen=True)
class Summary:
    """All of a solved box that its verdicts need: arrays (..., 1).

    ``loudness`` and ``passed`` are None where figures are missing; ``quiet`` and ``full`` (one for
    each chamber) say which designs can't be heard.
    """

    loudness: Loudness | None
    reach: Crossing
    passed: Real | None
    draw: Draw
    mean_level: Real
    programme_level: Real
    quiet: Real
    full: tuple[Real, ...]


@dataclass(frozen=True)
class Judging:
    """How long it plays, and the verdicts."""

    run_level: Number
    drive: Number
    play: Played | None
    verdicts: tuple[Verdict, ...]


def heard_of(sound: Sounding, lowered: Lowered, memo: Memo) -> Heard:
    """How a solved box sounds against its brief."""
    brief = sound.inputs.brief
    stretches = memo(
        _stretches,
        sound.frequency,
        brief.bass,
        brief.listening,
        plain(upper_end(sound)),
        lowest_low_pass(sound.inputs.voice.channels),
    )
    gaps = bool(lowered.missing)
    ask, lossy = brief.loudness, sound.yielding
    return memo(_heard, sound.unit_level, sound.top, stretches, ask, gaps, lossy)


def summary_of(sound: Sounding, heard: Heard, memo: Memo) -> Summary:
    """What is left of a solved box for the verdicts; coils are warm where that can matter."""
    programmed = sound.programmed
    lowest = programmed.cold_level - most_lost(sound)
    if np.any(playing_level(sound.inputs.brief) > lowest):
        programmed = lasting_in(sound, memo)
    return Summary(
        heard.loudness,
        heard.reach,
        None if heard.held is None else np.asarray(heard.held.margin >= 0),
        sound.programmed.draw,
        sound.programmed.unit_level,
        programmed.level,
        np.asarray(np.max(sound.unit_level, axis=-1, keepdims=True) < SILENCE),
        sound.scene.model.full,
    )


def judging(
    lowered: Lowered, numbers: inputs.Inputs, rolled: CabinetResult, found: Summary, memo: Memo
) -> Judging:
    """All promises of boxes that have been solved."""
    brief, power = numbers.brief, numbers.power
    run_level = playing_level(brief)
    drive = plain(10 ** ((run_level - found.mean_level) / 20))
    store, play = memo(store_of, power, brief.conditions.temperature), None
    if store is not None:
        burst = programme_of(brief.listening).burst
        play = memo(played, store, found.draw, drive, burst, memo(playing, power))
    silent = [
        *(
            Waiting(full, note("no air", chamber=chamber.name))
            for full, chamber in zip(found.full, numbers.box.chambers, strict=True)
        ),
        Waiting(found.quiet, CANCELLED),
    ]
    waits = [*silent, *(Waiting(True, reason) for reason in lowered.missing[:1])]
    verdicts = (
        loudness_verdict(brief, found.loudness, found.passed, waits),
        bass_verdict(brief, found.reach, waits),
        runtime_verdict(
            brief,
            play.hours if play else None,
            run_level,
            None if lowered.missing else found.programme_level,
            silent,
            endless=play is None,
        ),
        *body_verdicts(brief, rolled),
    )
    return Judging(run_level, drive, play, verdicts)


@dataclass(frozen=True)
class _Stretches:
    """Where a brief is judged on a grid; it stays while levels change."""

    band: tuple[Real, Real]
    mean: MeanBand
    way: Way
    drop: float
    notes: Notes
    judged: Judged


def _stretches(
    frequency: Real, bass: BassPromise, listening: Listening, f_hi: Number, low_pass: Number | None
) -> _Stretches:
    reference = reference_band(bass.frequency, low_pass)
    return _Stretches(
        reference,
        mean_band(frequency, *reference),
        way_from(frequency, reference[0]),
        bass.drop,
        held_notes(frequency, programme_of(listening), bass.frequency),
        judged(frequency, bass.frequency, bass.drop, f_hi),
    )


def _heard(
    unit: Real,
    top: Ceiling,
    where: _Stretches,
    ask: LoudnessPromise,
    gaps: bool,
    lossy: Yielding | None,
) -> Heard:
    """Loudness, bass reach and the held note of a ceiling; the response at level is that with what
    fast air loses there.
    """
    reference = where.mean.of(unit)
    drive = 10 ** ((ask.level - reference) / 20)
    if lossy is not None:
        unit = np.maximum(lossy.level_at(drive), NOTHING)
    kept = np.minimum(ask.level + unit - reference, top.level) - ask.level
    reach = crossing(where.way, kept, where.drop)
    if gaps:
        return Heard(None, where.band, reference, kept, reach, None)
    held = low_note(where.notes, top.limits, drive)
    loud = loudness(where.judged, top.level, ask.level)
    return Heard(loud, where.band, reference, kept, reach, held)


def unheard(lowered: Lowered, rolled: CabinetResult, reason: Note) -> tuple[Verdict, ...]:
    """The promises of a design that can't be solved: ``reason`` stands where sound is needed."""
    brief, power = lowered.inputs.brief, lowered.inputs.power
    waits = [Waiting(True, reason)]
    endless = store_of(power, brief.conditions.temperature) is None
    return (
        loudness_verdict(brief, None, None, waits),
        bass_verdict(brief, None, waits),
        runtime_verdict(brief, None, playing_level(brief), None, waits, endless=endless),
        *body_verdicts(brief, rolled),
    )
