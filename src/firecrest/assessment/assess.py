"""Design to assessment: the table of contents of the engineering.

``assess`` is deterministic and needs no state; what its memo remembers by branch saves working
out again what an edit leaves alone. It is the derivation of ``derive`` for one design, with the
answers as plain figures.
"""

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.cabinet.rollup import CabinetResult
from firecrest.assessment.chain import Link, links
from firecrest.assessment.conditions import programme_of
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.electrical import playing, store_of
from firecrest.assessment.judging import (
    Heard,
    Judging,
    heard_of,
    judging,
    summary_of,
    unheard,
    upper_end,
)
from firecrest.assessment.lower import inputs
from firecrest.assessment.lower.parts import read_amplifier
from firecrest.assessment.lower.whole import lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.network import BoxModel
from firecrest.assessment.sound import Scene, flat_level
from firecrest.assessment.sounding import (
    CANCELLED,
    SILENCE,
    Programmed,
    Sounding,
    cabinet_in,
    lasting_in,
    sounding,
)
from firecrest.assessment.verdicts import Promise, promise_of
from firecrest.core.arrays import Real
from firecrest.core.circuit.solution import Solution
from firecrest.core.limits.ceiling import Ceiling, Run, runs
from firecrest.core.limits.elements import Limit, Ratings, Transfers
from firecrest.core.limits.loudness import Loudness, promised_shape
from firecrest.core.limits.low_note import LowNote, low_note_of
from firecrest.core.limits.programme import SINE_FREQUENCY
from firecrest.core.limits.programme_level import ProgrammeLevel, programme_level_of
from firecrest.core.limits.reach import Reach, reach_of
from firecrest.core.note import Note, note
from firecrest.core.power.amplifier import ReadClaims
from firecrest.core.power.runtime import Runtime, runtime_of
from firecrest.design.design import Design

SINE_NOTE = note("sine", line=SINE_FREQUENCY)


@dataclass(frozen=True)
class Held:
    """Loudness in dB, its margin, and where, at which grid point and by which limit it is held."""

    level: float
    margin: float
    frequency: float
    point: int
    limit: int


@dataclass(frozen=True)
class Reaches:
    """Bass reach at level at the promised drop, with the band and the reference it refers to.

    ``kept`` is the response as far as the ceiling lets it at the promised level, in dB re the
    reference; ``dip`` is what it lacks inside the band.
    """

    reference: float
    band: tuple[float, float]
    kept: Real
    at_level: Reach
    dip: float


@dataclass(frozen=True)
class Acoustic:
    """Everything that needs a solvable box. Levels in dB at the listener, arrays on EDIT_GRID.

    What only views ask for is worked out when it is first asked for.
    """

    sound: Sounding
    heard: Heard
    judged: Judging
    memo: Memo = field(repr=False, compare=False)

    @property
    def scene(self) -> Scene:
        """The solved box where it stands."""
        return self.sound.scene

    @property
    def transfers(self) -> Transfers:
        """Answers per unit input."""
        return self.sound.transfers

    @property
    def plays(self) -> bool:
        """Whether anything is left to play at any note: a source may be too low for its board."""
        return bool(np.isfinite(self.top.level).any())

    def answers_at(self, drive: Real) -> Transfers:
        """Answers per unit input with ``drive`` V rms of input, with what yields then."""
        box = self.sound.yielding
        return self.transfers if box is None else box.at(drive)

    @property
    def ratings(self) -> Ratings:
        """What the parts bear."""
        return self.sound.ratings

    @property
    def unit_level(self) -> Real:
        """Level per unit input."""
        return self.sound.unit_level

    @property
    def top(self) -> Ceiling:
        """The ceiling at the brief's charge."""
        return self.sound.top

    @property
    def still(self) -> Ceiling:
        """The ceiling without what fast air loses."""
        return self.sound.still

    @property
    def model(self) -> BoxModel:
        """The network."""
        return self.scene.model

    @property
    def solution(self) -> Solution:
        """The solved network, per volt of each channel."""
        return self.scene.solution

    @property
    def frequency(self) -> Real:
        """Grid of all arrays, Hz."""
        return self.transfers.frequency

    @property
    def limits(self) -> tuple[Limit, ...]:
        """Limits at the brief's charge."""
        return self.top.limits

    @property
    def runtime_level(self) -> float:
        """Level in dB at which runtime is promised."""
        return float(self.judged.run_level)

    @cached_property
    def f_hi(self) -> float:
        """Hz up to which loudness is judged."""
        return float(upper_end(self.sound))

    @cached_property
    def level_before_voice(self) -> Real:
        """Level per unit input with every voice flat."""
        return self.memo(flat_level, self.scene)

    @cached_property
    def asked(self) -> Real:
        """The promised level over frequency."""
        brief = self.sound.inputs.brief
        shape = promised_shape(EDIT_GRID, brief.bass.frequency, brief.bass.drop)
        return np.asarray(brief.loudness.level + shape)

    @cached_property
    def runs(self) -> tuple[Run, ...]:
        """Stretches on which one limit gives first."""
        return self.memo(runs, self.top, EDIT_GRID)

    @cached_property
    def loudness(self) -> Held | None:
        """Where and by what loudness is held."""
        return held_of(self.heard.loudness, self.top)

    @cached_property
    def reaches(self) -> Reaches:
        """Bass reach at level."""
        return _reaches(self.sound, self.heard)

    @cached_property
    def low_note(self) -> LowNote | None:
        """The low-note check."""
        held = self.heard.held
        return low_note_of(held, self.limits) if held else None

    @cached_property
    def lasting(self) -> Programmed:
        """What lasts, with coils as warm as it makes them."""
        return lasting_in(self.sound, self.memo)

    @cached_property
    def programme(self) -> ProgrammeLevel:
        """The highest long-term level."""
        return programme_level_of(self.lasting.allowed, self.lasting.hot_unit_level)

    @cached_property
    def runtime(self) -> Runtime | None:
        """The play with its course; None where nothing runs empty."""
        return _runtime(self.sound, self.judged)

    @property
    def worst_frequency(self) -> float:
        """Where loudness is held, Hz; the lower end of the reference band when it is unknown."""
        if self.loudness is not None:
            return self.loudness.frequency
        return self.reaches.band[0]


@dataclass(frozen=True)
class Assessment:
    """What a design comes to; ``acoustic`` is None while ``missing`` figures prevent it.

    ``claims`` are those of each amplifier board, by kind of output; ``numbers`` is the design
    lowered; ``memo`` is of the one who asked, for what is asked next
    about designs like this one. ``doubt`` is there once it was asked for; promises are then close
    where their target lies inside their band.
    """

    design: Design
    cabinet: CabinetResult
    claims: tuple[tuple[ReadClaims, ...], ...]
    acoustic: Acoustic | None
    missing: tuple[Note, ...]
    estimates: tuple[Note, ...]
    promises: tuple[Promise, ...]
    numbers: inputs.Inputs = field(repr=False)
    memo: Memo = field(repr=False, compare=False)
    doubt: Doubt | None = field(default=None, repr=False, compare=False)

    @cached_property
    def links(self) -> tuple[Link, ...]:
        """The chain from pack to listener."""
        return links(self.design, self.acoustic)

    def promise(self, key: str) -> Promise:
        """One of the six by its key."""
        return next(p for p in self.promises if p.key == key)


def cabinet_of(design: Design, memo: Memo | None = None) -> CabinetResult:
    """Net air, size, weight and cost of a design."""
    memo = Memo(AFRESH) if memo is None else memo
    return cabinet_in(lower(design, memo).inputs, memo)


def assess(design: Design, memo: Memo | None = None) -> Assessment:
    """Assess a design; a figure that is not known makes promises unknown, it raises nothing.

    ``memo`` is that of the one who asks; without one all is worked out anew.
    """
    memo = Memo(AFRESH) if memo is None else memo
    lowered = lower(design, memo)
    rolled = cabinet_in(lowered.inputs, memo)
    reason, sound = lowered.blocked, None
    if reason is None:
        sound = sounding(lowered.inputs, EDIT_GRID, memo)
        reason = _refusal(sound)
    acoustic: Acoustic | None = None
    missing, estimates = lowered.missing, lowered.estimates
    if reason is not None or sound is None:
        assert reason is not None
        missing, estimates = (reason,), ()
        verdicts = unheard(lowered, rolled, reason)
    else:
        heard = heard_of(sound, lowered, memo)
        summary = summary_of(sound, heard, memo)
        found = judging(lowered, lowered.inputs, rolled, summary, memo)
        verdicts = found.verdicts
        acoustic = Acoustic(sound, heard, found, memo)
        if design.brief.listening.material == "sine":
            estimates = (*estimates, SINE_NOTE)
    promises = tuple(promise_of(verdict) for verdict in verdicts)
    claims = tuple(read_amplifier(board.part) for _, board in design.power.amplifiers)
    return Assessment(
        design, rolled, claims, acoustic, missing, estimates, promises, lowered.inputs, memo
    )


def _refusal(sound: Sounding) -> Note | None:
    """Why a box can't be heard; None when it can."""
    for full, chamber in zip(sound.scene.model.full, sound.inputs.box.chambers, strict=True):
        if full:
            return note("no air", chamber=chamber.name)
    return CANCELLED if np.max(sound.unit_level) < SILENCE else None


def held_of(found: Loudness | None, top: Ceiling) -> Held | None:
    """Loudness of one design under its ceiling; None where it is not known."""
    if found is None or np.isnan(found.level):
        return None
    level, margin, frequency = (
        float(np.ravel(x)[0]) for x in (found.level, found.margin, found.frequency)
    )
    point = int(np.ravel(found.point)[0])
    return Held(level, margin, frequency, point, int(top.first[point]))


def _reaches(sound: Sounding, heard: Heard) -> Reaches:
    """Bass reach at level."""
    low, high = (float(edge) for edge in heard.band)
    inside = (low <= EDIT_GRID) & (high >= EDIT_GRID)
    drop = sound.inputs.brief.bass.drop
    dip = max(0.0, float(-np.min(heard.kept[inside]) - drop)) if inside.any() else 0.0
    reference = float(np.ravel(heard.reference)[0])
    return Reaches(reference, (low, high), heard.kept, reach_of(heard.reach), dip)


def _runtime(sound: Sounding, found: Judging) -> Runtime | None:
    store = store_of(sound.inputs.power, sound.inputs.brief.conditions.temperature)
    if store is None or found.play is None:
        return None
    drive = float(np.ravel(found.drive)[0])
    burst = float(programme_of(sound.inputs.brief.listening).burst)
    player = playing(sound.inputs.power)
    return runtime_of(found.play, store, sound.programmed.draw, drive, player, burst)
