"""From numbers to promises: the one derivation, of one design or of columns of many.

``sounding`` is what the box does, ``judging`` what that means for the brief. Both run on floats
and on columns (designs, 1).
"""

from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.acoustic import ratings_of, transfers_from
from firecrest.assessment.cabinet import CabinetResult, cabinet
from firecrest.assessment.conditions import (
    air_of,
    duty_of,
    front_width,
    lowest_low_pass,
    playing_level,
    programme_of,
    softness_of,
    surroundings_of,
)
from firecrest.assessment.electrical import boards_of, playing, source_at, standing_of, store_of
from firecrest.assessment.lower import inputs
from firecrest.assessment.lower.whole import Lowered
from firecrest.assessment.memo import Memo
from firecrest.assessment.network import BoxModel, box_model
from firecrest.assessment.sound import Scene, voice_rows
from firecrest.assessment.turbulence import Driven, Stirred, ceiling_of, mouths_in, stirred
from firecrest.assessment.verdicts import (
    Verdict,
    Waiting,
    bass_verdict,
    body_verdicts,
    loudness_verdict,
    runtime_verdict,
)
from firecrest.assessment.wiring import Wiring, wiring_of
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Number, Real, plain
from firecrest.core.circuit.solve import Solution, solve
from firecrest.core.limits.bus import Bus
from firecrest.core.limits.ceiling import Ceiling, ceiling
from firecrest.core.limits.draw import Draw, draw_of
from firecrest.core.limits.elements import Limit, Ratings, Transfers, asked_of
from firecrest.core.limits.kinds import Ask, reached
from firecrest.core.limits.loudness import Judged, Loudness, judged, loudness, upper_edge
from firecrest.core.limits.low_note import HeldNote, Notes, held_notes, low_note
from firecrest.core.limits.material import PROGRAMME, SINES, Material, material_of, sines_of
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
from firecrest.core.power.boards import Boards
from firecrest.core.power.runtime import Played, played
from firecrest.design.brief import BassPromise, Listening, LoudnessPromise

SILENCE = -150.0
"""dB at unit input below which sources have cancelled to rounding errors."""
NOTHING = -500.0
"""dB that stand for no sound at all, so that sums and means of levels stay numbers."""
CANCELLED = note("cancelled")


@dataclass(frozen=True)
class Programmed:
    """What programme of 1 V rms draws and how loud it is, and what each limit allows of it."""

    draw: Draw
    unit_level: Real
    allowed: tuple[Limit, ...]
    level: Real


@dataclass(frozen=True)
class Sounding:
    """What a box does at its brief's charge; levels in dB at the listener per unit input.

    ``draw`` and ``top`` are of a held sine at each frequency. ``top_unit_level`` is the level per
    unit input at the ceiling, which with ``stirred`` ports is not that of small signals;
    ``linear`` is the ceiling without them.
    """

    inputs: inputs.Inputs
    frequency: Real
    cabinet: CabinetResult
    scene: Scene
    transfers: Transfers
    ratings: Ratings
    unit_level: Real
    draw: Draw
    top: Ceiling
    programmed: Programmed
    linear: Ceiling
    top_unit_level: Real
    stirred: Stirred | None


def wiring_in(numbers: inputs.Inputs) -> Wiring:
    """Names and outputs of the voice's channels."""
    return wiring_of(numbers.voice.channels)


def elements_in(numbers: inputs.Inputs, memo: Memo) -> inputs.Elements:
    """What sound depends on, whatever the case around it."""
    box = numbers.box
    return memo(inputs.Elements, box.chambers, box.groups, box.openings)


def cabinet_in(numbers: inputs.Inputs, memo: Memo) -> CabinetResult:
    """Net air, size, weight and cost."""
    return memo(cabinet, numbers.box, numbers.power, wiring_in(numbers))


def model_in(numbers: inputs.Inputs, memo: Memo) -> BoxModel:
    """The network of a box with its own net air."""
    rolled, air = cabinet_in(numbers, memo), memo(air_of, numbers.brief.conditions)
    brief = numbers.brief
    softness = memo(softness_of, brief.conditions, brief.edges)
    return memo(
        box_model, elements_in(numbers, memo), wiring_in(numbers), rolled.air, air, softness
    )


def sounding(numbers: inputs.Inputs, frequency: Real, memo: Memo) -> Sounding:
    """Solve a box and find its ceiling."""
    brief, power, channels = numbers.brief, numbers.power, numbers.voice.channels
    rolled, air = cabinet_in(numbers, memo), memo(air_of, brief.conditions)
    elements, wiring = elements_in(numbers, memo), wiring_in(numbers)
    model = model_in(numbers, memo)
    around = memo(surroundings_of, brief.listening, front_width(numbers.box.case), air)
    mouths = memo(mouths_in, elements, model, air, brief.edges)
    whole = memo(solve, model.network, frequency, mouths)
    solution = memo(_of_voices, whole, len(wiring)) if mouths else whole
    rows = tuple(memo(voice_rows, c, power.dsp.sample_rate, frequency) for c in channels)
    outputs = tuple(c.outputs for c in channels)
    scene = memo(Scene, model, solution, around, air)
    transfers = memo(transfers_from, scene, rows, outputs)
    ratings = memo(ratings_of, elements, wiring, channels, power, numbers.carried, model)
    boards, played = boards_in(numbers, memo), memo(_material, brief.listening, frequency)
    draw = memo(draw_of, transfers.outputs, boards, played)
    bus = bus_in(numbers, draw, memo)
    given = memo(_given, transfers, ratings, boards, bus, played)
    top, unit, lossy = given.top, given.unit_level, None
    if mouths:
        stage = memo(Scene, model, whole, around, air)
        lossy = memo(stirred, stage, transfers, rows, mouths)
        driven = memo(_driven, lossy, given, ratings, boards, bus, memo(_sines, brief.listening))
        top, unit = driven.top, driven.unit_level
    return Sounding(
        numbers,
        frequency,
        rolled,
        scene,
        transfers,
        ratings,
        given.unit_level,
        given.draw,
        top,
        given.programmed,
        given.top,
        unit,
        lossy,
    )


def _of_voices(whole: Solution, channels: int) -> Solution:
    """The answers to the channels, without those to mouths."""
    return whole.of(slice(channels))


def _sines(listening: Listening) -> Material:
    """Held sines alone, with the duty of the brief's programme."""
    return sines_of(duty_of(listening))


def _driven(
    lossy: Stirred, given: "_Given", ratings: Ratings, boards: Boards, bus: Bus, sines: Material
) -> Driven:
    """The ceiling of held sines with what fast air loses."""

    def _allowed(transfers: Transfers) -> tuple[Real, tuple[Limit, ...]]:
        asked = asked_of(transfers, sines)
        own = replace(bus, draw=draw_of(transfers.outputs, boards, sines))
        limits = reached(Ask(asked, ratings, boards, own, sines.above))
        return np.maximum(level(asked.heard), NOTHING), limits

    return ceiling_of(lossy, Driven(given.top, given.unit_level), _allowed)


def _material(listening: Listening, frequency: Real) -> Material:
    """Held sines, and the brief's programme."""
    return material_of(programme_of(listening), duty_of(listening), frequency)


def boards_in(numbers: inputs.Inputs, memo: Memo) -> Boards:
    """The boards of a design, with the outputs of each voice channel."""
    return memo(boards_of, numbers.power, numbers.carried)


def bus_in(numbers: inputs.Inputs, draw: Draw, memo: Memo) -> Bus:
    """The bus of a design at its brief's charge while ``draw`` is played."""
    conditions = numbers.brief.conditions
    source = memo(source_at, numbers.power, conditions.charge, conditions.temperature)
    return memo(Bus, source, memo(standing_of, numbers.power), draw)


@dataclass(frozen=True)
class _Given:
    """How far a box goes on its source; see ``Sounding``."""

    unit_level: Real
    draw: Draw
    top: Ceiling
    programmed: Programmed


def _given(
    transfers: Transfers, ratings: Ratings, boards: Boards, bus: Bus, played: Material
) -> _Given:
    """Limits, ceiling and programme level; no sound at all counts as ``NOTHING`` dB."""
    asked = asked_of(transfers, played)
    limits = reached(Ask(asked, ratings, boards, bus, played.above))
    unit = np.maximum(level(asked.heard), NOTHING)
    top = ceiling(unit, limits)
    return _Given(
        unit[..., SINES],
        bus.draw.of(SINES),
        Ceiling(
            tuple(limit.of(SINES) for limit in limits), top.level[..., SINES], top.first[..., SINES]
        ),
        Programmed(
            bus.draw.of(PROGRAMME),
            unit[..., PROGRAMME],
            tuple(limit.of(PROGRAMME) for limit in limits),
            top.level[..., PROGRAMME],
        ),
    )


def upper_end(sound: Sounding) -> Real:
    """Frequency in Hz up to which loudness is judged."""
    low_pass = lowest_low_pass(sound.inputs.voice.channels)
    return upper_edge(sound.cabinet.longest_inner, sound.scene.air.speed, low_pass)


def loudness_under(sound: Sounding, top: Ceiling) -> Loudness:
    """Loudness as promised under a ceiling."""
    ask, bass = sound.inputs.brief.loudness, sound.inputs.brief.bass
    over = judged(sound.frequency, bass.frequency, bass.drop, upper_end(sound))
    return loudness(over, top.level, ask.level)


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
    ask, lossy = brief.loudness, sound.stirred
    return memo(_heard, sound.unit_level, sound.top, stretches, ask, gaps, lossy)


def summary_of(sound: Sounding, heard: Heard) -> Summary:
    """What is left of a solved box for the verdicts."""
    programmed = sound.programmed
    return Summary(
        heard.loudness,
        heard.reach,
        None if heard.held is None else np.asarray(heard.held.margin >= 0),
        programmed.draw,
        programmed.unit_level,
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
    waits = [*(Waiting(True, reason) for reason in lowered.missing[:1]), *silent]
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
    lossy: Stirred | None,
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
