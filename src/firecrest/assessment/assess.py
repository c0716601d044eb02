"""Design to assessment: the table of contents of the engineering.

``assess`` is deterministic and needs no state; its stages are remembered by the branches they
read, so that editing one branch does not compute the others again.
"""

import dataclasses
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import (
    EDIT_GRID,
    Tops,
    around_of,
    duty_of,
    model_of,
    ratings_of,
    solution_of,
    tops_of,
    transfers_of,
    whole_flow,
)
from firecrest.assessment.cabinet import CabinetResult, cabinet, wiring_of
from firecrest.assessment.chain import Link, links
from firecrest.assessment.electrical import (
    amplifier_model,
    converter_model,
    other_power,
    source_at,
    store_of,
)
from firecrest.assessment.lowering import BoxModel, air_of, lowest_low_pass, programme_of
from firecrest.assessment.memo import stage
from firecrest.assessment.verdicts import Promise, playing_level, six_promises
from firecrest.core.acoustics.network import Solution
from firecrest.core.acoustics.radiation import Surroundings, heard, level
from firecrest.core.air import Air
from firecrest.core.arrays import Real
from firecrest.core.errors import DesignError, FirecrestError
from firecrest.core.limits import promise as rules
from firecrest.core.limits.ceiling import Ceiling, Run, runs
from firecrest.core.limits.draw import programme_draw
from firecrest.core.limits.elements import Limit, Ratings, Transfers
from firecrest.core.limits.programme import Programme, weights
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.runtime import Runtime, runtime
from firecrest.design.brief import Brief
from firecrest.design.design import Design
from firecrest.design.power import Power

DROPS = (3, 6, 10)
SINE_NOTE = "A sine has no spectrum: programme level, low-note check and runtime use 100 Hz"
SILENCE = -150.0
"""dB at unit input below which sources have cancelled to rounding errors."""


@dataclass(frozen=True)
class Reaches:
    """Bass reach by drop, at small signal and at level, with the reference they refer to."""

    reference: float
    band: tuple[float, float]
    small: Mapping[int, rules.Reach]
    at_level: Mapping[int, rules.Reach]
    dip: float


@dataclass(frozen=True)
class Acoustic:
    """Everything that needs a solvable box. Levels in dB at the listener, arrays on EDIT_GRID."""

    model: BoxModel
    solution: Solution
    transfers: Transfers
    ratings: Ratings
    unit_level: Real
    level_before_voice: Real
    tops: Tops
    asked: Real
    runs: tuple[Run, ...]
    f_hi: float
    loudness: rules.Loudness | None
    loudness_full: rules.Loudness | None
    reaches: Reaches
    low_note: rules.LowNote | None
    programme: rules.ProgrammeLevel
    runtime_level: float
    runtime: Runtime | None

    @property
    def frequency(self) -> Real:
        """Grid of all arrays, Hz."""
        return self.transfers.frequency

    @property
    def limits(self) -> tuple[Limit, ...]:
        """Limits at the brief's charge."""
        return self.tops.charged.limits

    @property
    def worst_frequency(self) -> float:
        """Where loudness is held, Hz; the lower end of the reference band when it is unknown."""
        if self.loudness is not None:
            return self.loudness.frequency
        return self.reaches.band[0]


@dataclass(frozen=True)
class Assessment:
    """What a design comes to; ``acoustic`` is None while ``missing`` figures prevent it."""

    design: Design
    cabinet: CabinetResult
    amplifier: AmplifierModel
    acoustic: Acoustic | None
    missing: tuple[str, ...]
    estimates: tuple[str, ...]
    promises: tuple[Promise, ...]
    links: tuple[Link, ...]

    def promise(self, key: str) -> Promise:
        """One of the six by its key."""
        return next(p for p in self.promises if p.key == key)


def cabinet_of(design: Design) -> CabinetResult:
    """Net air, size, weight and cost of a design."""
    box = design.box
    return cabinet(
        box.case,
        box.chambers,
        box.groups,
        box.radiators,
        box.ports,
        design.power,
        wiring_of(design.voice.channels),
    )


def assess(design: Design) -> Assessment:
    """Assess a design; a figure that is not known makes promises unknown, it raises nothing."""
    rolled = cabinet_of(design)
    amplifier = amplifier_model(design.power.amplifier)
    acoustic: Acoustic | None = None
    missing: tuple[str, ...] = ()
    estimates: tuple[str, ...] = ()
    try:
        acoustic, missing, estimates = _acoustic(design, rolled)
    except FirecrestError as error:
        missing = (str(error),)
    promises = _promises(design, rolled, acoustic, missing)
    chain = links(design, acoustic)
    return Assessment(design, rolled, amplifier, acoustic, missing, estimates, promises, chain)


def _acoustic(
    design: Design, rolled: CabinetResult
) -> tuple[Acoustic, tuple[str, ...], tuple[str, ...]]:
    """All stages that need a solvable box, and the gaps in its ratings."""
    brief, power, channels = design.brief, design.power, design.voice.channels
    air = air_of(brief.conditions)
    model = model_of(design, rolled)
    solution = solution_of(model, EDIT_GRID)
    around = around_of(design)
    transfers = transfers_of(model, solution, channels, power.dsp.sample_rate, around, air)
    box = design.box
    ratings, gaps = ratings_of(box.groups, box.radiators, box.ports, channels, power, model)
    unit_level, before = _levels(model, solution, transfers, around, air)
    tops = tops_of(
        transfers, unit_level, ratings, power, brief.conditions.charge, duty_of(brief.listening)
    )
    programme = programme_of(brief.listening)
    held = _programme_level(
        transfers, ratings, power, brief.conditions.charge, *dataclasses.astuple(programme)
    )
    f_hi = rules.upper_edge(rolled.longest_inner, air.speed, lowest_low_pass(channels))
    reaches = _reaches(unit_level, tops, brief, lowest_low_pass(channels))
    run_level = playing_level(brief)
    acoustic = Acoustic(
        model=model,
        solution=solution,
        transfers=transfers,
        ratings=ratings,
        unit_level=unit_level,
        level_before_voice=before,
        tops=tops,
        asked=brief.loudness.level
        + rules.promised_shape(EDIT_GRID, brief.bass.frequency, brief.bass.drop),
        runs=_runs(tops),
        f_hi=f_hi,
        loudness=None if gaps.missing else _loudness(tops.charged, brief, f_hi),
        loudness_full=None if gaps.missing else _loudness(tops.full, brief, f_hi),
        reaches=reaches,
        low_note=None if gaps.missing else _low_note(tops, brief, reaches, programme),
        programme=held,
        runtime_level=run_level,
        runtime=_runtime(
            transfers, power, programme.kind, programme.burst, run_level - held.unit_level
        ),
    )
    estimates = gaps.estimates + ((SINE_NOTE,) if programme.kind == "sine" else ())
    return acoustic, gaps.missing, estimates


@stage
def _levels(
    model: BoxModel, solution: Solution, transfers: Transfers, around: Surroundings, air: Air
) -> tuple[Real, Real]:
    """Level per unit input after the voice, and with every voice flat."""
    flow = np.sum(whole_flow(model, solution, around.distance, air), axis=0)
    flat = heard(flow, EDIT_GRID, around, air)
    played = level(transfers.pressure)
    if np.max(played) < SILENCE:
        raise DesignError(
            "The sources cancel: nothing reaches the listener. Check polarity and channels."
        )
    return played, level(flat)


@stage
def _runs(tops: Tops) -> tuple[Run, ...]:
    return runs(tops.charged, EDIT_GRID)


def _loudness(top: Ceiling, brief: Brief, f_hi: float) -> rules.Loudness | None:
    return rules.loudness(
        EDIT_GRID,
        top.level,
        top.first,
        brief.loudness.level,
        brief.bass.frequency,
        brief.bass.drop,
        f_hi,
    )


def _reaches(unit_level: Real, tops: Tops, brief: Brief, low_pass: float | None) -> Reaches:
    """Bass reach at 3, 6 and 10 dB."""
    low, high = rules.reference_band(brief.bass.frequency, low_pass)
    reference = rules.band_mean(EDIT_GRID, unit_level, low, high)
    response = unit_level - reference
    target = brief.loudness.level
    kept = np.minimum(target + response, tops.charged.level) - target
    inside = (low <= EDIT_GRID) & (high >= EDIT_GRID)
    dip = max(0.0, float(-np.min(kept[inside]) - brief.bass.drop)) if inside.any() else 0.0
    return Reaches(
        reference,
        (low, high),
        {x: rules.crossing(EDIT_GRID, response, x, low) for x in DROPS},
        {x: rules.crossing(EDIT_GRID, kept, x, low) for x in DROPS},
        dip,
    )


def _low_note(
    tops: Tops, brief: Brief, reaches: Reaches, programme: Programme
) -> rules.LowNote | None:
    drive = 10 ** ((brief.loudness.level - reaches.reference) / 20)
    return rules.low_note(EDIT_GRID, tops.charged.limits, drive, programme, brief.bass.frequency)


@stage
def _programme_level(
    transfers: Transfers,
    ratings: Ratings,
    power: Power,
    charge: float,
    kind: str,
    crest: float,
    burst: float,
    low_corner: float,
) -> rules.ProgrammeLevel:
    programme = Programme(kind, crest, burst, low_corner)
    return rules.programme_level(
        transfers,
        ratings,
        amplifier_model(power.amplifier),
        source_at(power, charge),
        programme,
        weights(kind, EDIT_GRID),
    )


@stage
def _runtime(
    transfers: Transfers, power: Power, kind: str, burst: float, gain_db: float
) -> Runtime | None:
    """Runtime at ``gain_db`` over the programme's unit level; None when nothing runs empty."""
    store = store_of(power.source)
    if store is None:
        return None
    amplifier = amplifier_model(power.amplifier)
    draw = programme_draw(
        transfers.outputs, amplifier.r_out, weights(kind, EDIT_GRID), kind == "sine"
    )
    return runtime(
        store,
        draw,
        10 ** (gain_db / 20),
        burst,
        amplifier,
        other_power(power),
        converter_model(power.converter),
    )


def _promises(
    design: Design, rolled: CabinetResult, acoustic: Acoustic | None, missing: tuple[str, ...]
) -> tuple[Promise, ...]:
    """The six verdicts of one design."""
    a = acoustic
    return six_promises(
        design.brief,
        rolled,
        loudness=a.loudness if a else None,
        low_note=a.low_note if a else None,
        reach=a.reaches.at_level[design.brief.bass.drop] if a else None,
        hours=a.runtime.hours if a and a.runtime else None,
        run_level=a.runtime_level if a else 0.0,
        playable=a.programme.level if a and not missing else None,
        missing=missing,
        endless=store_of(design.power.source) is None,
    )
