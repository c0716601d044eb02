"""Limiter thresholds that follow from what the parts of each channel bear."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import inf, sqrt

import numpy as np

from firecrest.assessment.acoustic import transfers_from
from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import duty_of, programme_of
from firecrest.assessment.power.truth import FULL, HERE, supplies_of, trial
from firecrest.assessment.sound import Scene, voice_rows
from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.circuit.solution import output_impedance
from firecrest.core.limits.elements import Transfers
from firecrest.core.limits.truth import clean
from firecrest.core.voice.protection import (
    GRID,
    Board,
    LongTerm,
    Lowest,
    Threshold,
    allowed,
    lost,
    peak_threshold,
    rms_threshold,
)

OPEN = 1000.0
"""Ohm of a load that leaves a board its whole swing."""


@dataclass(frozen=True)
class Guard:
    """One channel: what each part allows, the thresholds that follow, and what they cost.

    ``cost`` is in dB of the loudest note in the band of the way; ``long_term`` is None where no
    coil's power is known.
    """

    allowed: Mapping[str, Lowest]
    peak: Threshold | None
    cost: float
    long_term: LongTerm | None
    full_scale: float


def guards(assessment: Assessment, a: Acoustic, *, any_sine: bool) -> list[Guard]:
    """Thresholds of every channel, for the brief's programme or for any sine."""
    scene = assessment.memo(_on_grid, a.scene)
    return [
        guard(assessment, a, scene, k, any_sine=any_sine)
        for k in range(len(assessment.design.voice.channels))
    ]


def _on_grid(scene: Scene) -> Scene:
    return scene.at(GRID)


def guard(
    assessment: Assessment, a: Acoustic, scene: Scene, channel: int, *, any_sine: bool
) -> Guard:
    """Thresholds of one channel, the others silent."""
    design = assessment.design
    own = design.voice.channels[channel]
    chain = voice_rows(own, design.power.dsp.sample_rate, GRID)[-1]
    board = Board(float(a.ratings.full_scale[channel]), chain)
    listening = design.brief.listening
    low = 0.0 if any_sine else programme_of(listening).low_corner
    found = allowed(volts_borne(assessment, a, scene, channel), board.reach(low))
    peak = peak_threshold(board, found)
    passed = np.abs(chain) > 0.5 * np.max(np.abs(chain))
    band = float(GRID[passed][0]), float(GRID[passed][-1])
    cost = 0.0 if peak is None else lost(board, peak, *band)
    return Guard(
        found, peak, cost, _long_term(assessment, a, scene, channel, board), board.full_scale
    )


def volts_borne(assessment: Assessment, a: Acoustic, scene: Scene, channel: int) -> dict[str, Real]:
    """Peak volts at the output that each part bears at ``GRID``, by the key of its limit."""
    alone, ratings = _alone(scene, channel), a.ratings
    volts: dict[str, Real] = {}

    def _least(key: str, limit: Number | None, per_volt: Complex | Real) -> None:
        if limit is None or not np.any(np.abs(per_volt) > 0):
            return
        with np.errstate(divide="ignore"):
            borne = limit / np.abs(per_volt)
        volts[key] = np.minimum(volts.get(key, np.full(len(GRID), inf)), borne)

    for n, driver in enumerate(scene.model.network.drivers):
        if driver.channel == channel:
            _least("cone", ratings.x_max[n], alone.excursion[n])
    for n, kind in enumerate(ratings.opening_kinds):
        _least(kind, ratings.opening_limit(n, GRID), alone.openings[n])
    place, kind_place, _ = assessment.numbers.carried[channel]
    amperes = float(assessment.claims[place][kind_place].model.current_limit)
    volts["current"] = amperes * np.abs(output_impedance(scene.solution, channel))
    swing = swing_of(assessment, place, kind_place)
    if swing is not None:
        volts["swing"] = np.asarray(swing)
    return volts


def swing_of(assessment: Assessment, board: int, kind: int) -> float | None:
    """Clean peak volts of an output at full charge, or on the supply that is there; None where it
    gives none at all.
    """
    supply = FULL if FULL in supplies_of(assessment) else HERE
    part = assessment.design.power.amplifiers[board][1].part
    claims = part.claims if kind == 0 else part.other_outputs[kind - 1].claims
    for load in (claims[0].load, OPEN):
        made = trial(assessment, board, kind, load, 1, supply)
        if made is None:
            return None
        found = clean(made)
        if found.limit == "swing" or load == OPEN:
            return sqrt(2 * load * float(found.watts)) or None
    return None


def _alone(scene: Scene, channel: int) -> Transfers:
    """What one volt at one channel does, the others silent."""
    count = scene.model.network.channels
    rows = [np.full((1, len(GRID)), float(k == channel), dtype=np.complex128) for k in range(count)]
    return transfers_from(scene, rows, [1] * count)


def _long_term(
    assessment: Assessment, a: Acoustic, scene: Scene, channel: int, board: Board
) -> LongTerm | None:
    """The lowest long-term threshold of the coils of a channel."""
    listening = assessment.design.brief.listening
    programme = programme_of(listening)
    found: list[LongTerm] = []
    for n, driver in enumerate(scene.model.network.drivers):
        pe = a.ratings.coil_power[n]
        if driver.channel != channel or pe is None:
            continue
        current = scene.solution.current[n][channel]
        ohms = float(driver.constants.r_e)
        kind = "pink" if programme.kind == "sine" else programme.kind
        duty = float(duty_of(listening))
        found.append(rms_threshold(board, 1 / current, ohms, float(pe), kind, duty))
    return min(found, key=lambda item: item.threshold.volts, default=None)


def attack_of(assessment: Assessment, channel: int) -> float | None:
    """A tenth of the time constant of the coils of a channel in s; None where it is not known."""
    design = assessment.design
    own = design.voice.channels[channel].id
    taus = [
        g.driver.r_tv * g.driver.c_tv
        for g in design.box.groups
        if g.channel == own and g.driver.r_tv is not None and g.driver.c_tv is not None
    ]
    return 0.1 * min(taus) if taus else None
