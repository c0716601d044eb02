"""Many designs at once: those of one topology are stacked and solved together.

The figures equal those of ``assess`` on the same grid: the same functions run on arrays with a
leading axis of designs.
"""

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from firecrest.assessment.acoustic import (
    EDIT_GRID,
    around_of,
    duty_of,
    model_of,
    ratings_of,
    transfers_from,
    voice_rows,
)
from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet import CabinetResult
from firecrest.assessment.electrical import (
    amplifier_model,
    converter_model,
    other_power,
    source_at,
    store_of,
)
from firecrest.assessment.lowering import BoxModel, air_of, lowest_low_pass, programme_of
from firecrest.assessment.stacking import flattened, stacked
from firecrest.assessment.verdicts import Promise, playing_level, six_promises
from firecrest.core.acoustics.network import solve
from firecrest.core.acoustics.radiation import Surroundings, level
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Real
from firecrest.core.errors import FirecrestError
from firecrest.core.limits import promise as rules
from firecrest.core.limits.ceiling import Ceiling, ceiling, code_at
from firecrest.core.limits.draw import Draw, programme_draw, rms
from firecrest.core.limits.elements import Limit, Ratings, Transfers, all_limits
from firecrest.core.limits.programme import weights
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.runtime import Player, hours
from firecrest.core.power.source import Converter, Pack, Source
from firecrest.design.design import Design


@dataclass(frozen=True)
class Figures:
    """Headline figures of one design; ``missing`` says why there are none.

    ``level`` is the ceiling in dB on the grid of the batch, ``codes`` what gives first there.
    """

    loudness: float | None = None
    frequency: float | None = None
    code: str = ""
    bass_reach: float | None = None
    programme_level: float | None = None
    hours: float | None = None
    mass: float = 0.0
    price: float = 0.0
    missing: str = ""
    promises: tuple[Promise, ...] = ()
    level: Real | None = None
    codes: str = ""


@dataclass(frozen=True)
class Numbers:
    """What differs between designs of one topology, as floats or (designs, 1) arrays."""

    model: BoxModel
    ratings: Ratings
    amplifier: AmplifierModel
    source: Source
    air: Air
    around: Surroundings
    converter: Converter | None
    other: float


@dataclass(frozen=True)
class Job:
    """A design lowered to plain numbers, and its place in the batch."""

    place: int
    design: Design
    rolled: CabinetResult
    numbers: Numbers
    rows: tuple[Complex, ...]
    store: Pack | None
    shape: tuple[Any, ...]
    floats: list[float]


@dataclass(frozen=True)
class Group:
    """Jobs of one topology, stacked; voices are (1 or designs, blocks, F) per channel."""

    jobs: list[Job]
    numbers: Numbers
    rows: list[Complex]

    @property
    def first(self) -> Design:
        """A design that stands for what all of them share."""
        return self.jobs[0].design


def assess_batch(designs: Sequence[Design], frequency: Real = EDIT_GRID) -> list[Figures]:
    """Headline figures of every design, in order."""
    groups, refused = grouped(designs, frequency)
    answers = [Figures()] * len(designs)
    for place, figures in refused.items():
        answers[place] = figures
    for group in groups:
        for job, figures in zip(group.jobs, _solve(group, frequency), strict=True):
            answers[job.place] = figures
    return answers


def grouped(designs: Sequence[Design], frequency: Real) -> tuple[list[Group], dict[int, Figures]]:
    """Designs that can be solved together, and (by place) those that lack a figure."""
    refused: dict[int, Figures] = {}
    found: dict[Any, list[Job]] = {}
    for place, design in enumerate(designs):
        rolled = cabinet_of(design)
        try:
            job = _job(place, design, rolled, frequency)
        except FirecrestError as error:
            refused[place] = _refused(design, rolled, str(error))
            continue
        listening = design.brief.listening
        key = (
            job.shape,
            tuple(row.shape for row in job.rows),
            tuple(c.outputs for c in design.voice.channels),
            dataclasses.astuple(programme_of(listening)),
            duty_of(listening),
        )
        found.setdefault(key, []).append(job)
    return [_group(jobs) for jobs in found.values()], refused


def _group(jobs: list[Job]) -> Group:
    numbers = stacked(jobs[0].numbers, [job.floats for job in jobs])
    rows = [
        chain[0][None] if all(row is chain[0] for row in chain) else np.stack(chain)
        for chain in zip(*(job.rows for job in jobs), strict=True)
    ]
    return Group(jobs, numbers, rows)


def _refused(design: Design, rolled: CabinetResult, reason: str) -> Figures:
    promises = six_promises(
        design.brief,
        rolled,
        loudness=None,
        low_note=None,
        reach=None,
        hours=None,
        run_level=0.0,
        playable=None,
        missing=(reason,),
        endless=store_of(design.power.source) is None,
    )
    return Figures(mass=rolled.mass, price=rolled.price, missing=reason, promises=promises)


def _job(place: int, design: Design, rolled: CabinetResult, frequency: Real) -> Job:
    """Lower one design; FirecrestError when a figure is missing."""
    model = model_of(design, rolled)
    box, power, channels = design.box, design.power, design.voice.channels
    ratings, gaps = ratings_of(box.groups, box.radiators, box.ports, channels, power, model)
    if gaps.missing:
        raise FirecrestError(gaps.missing[0])
    amplifier = dataclasses.replace(
        amplifier_model(power.amplifier),
        claims=(),
        contradictions=(),
        current_limit_estimated=False,
    )
    numbers = Numbers(
        model,
        ratings,
        amplifier,
        source_at(power, design.brief.conditions.charge),
        air_of(design.brief.conditions),
        around_of(design),
        converter_model(power.converter),
        float(other_power(power)),
    )
    rows = tuple(voice_rows(c, power.dsp.sample_rate, frequency) for c in channels)
    return Job(place, design, rolled, numbers, rows, store_of(power.source), *flattened(numbers))


def played(group: Group, numbers: Numbers, frequency: Real) -> tuple[Transfers, Real, Ceiling]:
    """(transfers, level per unit input, ceiling) of a group with these ``numbers``."""
    n = numbers
    outputs = [c.outputs for c in group.first.voice.channels]
    solution = solve(n.model.network, frequency)
    transfers = transfers_from(n.model, solution, group.rows, outputs, n.around, n.air)
    unit = level(transfers.pressure)
    duty = duty_of(group.first.brief.listening)
    top = ceiling(unit, all_limits(transfers, n.ratings, n.amplifier, n.source, duty))
    return transfers, unit, top


def _solve(group: Group, frequency: Real) -> list[Figures]:
    """All designs of one topology."""
    n, count = group.numbers, len(group.jobs)
    transfers, unit, top = played(group, n, frequency)
    programme = programme_of(group.first.brief.listening)
    weight = weights(programme.kind, frequency)
    volts = rules.programme_volts(transfers, n.ratings, n.amplifier, n.source, programme, weight)
    draw = programme_draw(transfers.outputs, n.amplifier.r_out, weight, programme.kind == "sine")
    mean = level(rms(transfers.pressure, weight))
    wide = {key: np.broadcast_to(v, (count, 1)) for key, v in volts.items()}
    held = [
        rules.highest_level({key: float(v[k, 0]) for key, v in wide.items()}, float(mean[k, 0]))
        for k in range(count)
    ]
    play = _hours(group, draw, held)
    limits = [_wide(limit, count) for limit in top.limits]
    return [
        _figures(job, _row(limits, top, k), unit[k], frequency, held[k], play[k])
        for k, job in enumerate(group.jobs)
    ]


def _wide(limit: Limit, count: int) -> Limit:
    """A limit with one row per design."""
    shape = (count, np.asarray(limit.factor).shape[-1])
    pack = None if limit.pack is None else np.broadcast_to(limit.pack, shape)
    return dataclasses.replace(limit, factor=np.broadcast_to(limit.factor, shape), pack=pack)


def _row(limits: Sequence[Limit], top: Ceiling, k: int) -> Ceiling:
    """The ceiling of one design of a batch."""
    rows = tuple(
        Limit(x.name, x.code, x.factor[k], x.index, None if x.pack is None else x.pack[k])
        for x in limits
    )
    return Ceiling(rows, top.level[k], top.first[k])


def _hours(group: Group, draw: Draw, held: Sequence[rules.ProgrammeLevel]) -> list[float | None]:
    """Runtime of each design; designs on one pack are played together."""
    count = len(group.jobs)
    play: list[float | None] = [None] * count
    stores: dict[int, tuple[Pack, list[int]]] = {}
    for k, job in enumerate(group.jobs):
        if job.store is not None:
            stores.setdefault(id(job.store), (job.store, []))[1].append(k)
    burst = programme_of(group.first.brief.listening).burst
    for store, rows in stores.values():
        asked = [playing_level(group.jobs[k].design.brief) - held[k].unit_level for k in rows]
        drive = 10 ** (np.array(asked)[:, None] / 20)
        picked = Draw(
            (), draw.peak_power[rows], draw.mean_power[rows], draw.amperes[rows], draw.average
        )
        lasting = hours(store, picked, drive, burst, _player(group, rows))
        for k, value in zip(rows, lasting, strict=True):
            play[k] = float(value)
    return play


def _player(group: Group, rows: Sequence[int]) -> Player:
    """What plays in the designs at ``rows``."""
    n = group.numbers
    if len(rows) == len(group.jobs):
        return Player(n.amplifier, n.other, n.converter)
    players = [(j.numbers.amplifier, j.numbers.other, j.numbers.converter) for j in group.jobs]
    return Player(*stacked(players[0], [flattened(players[k])[1] for k in rows]))


def _figures(
    job: Job,
    top: Ceiling,
    unit: Real,
    frequency: Real,
    held: rules.ProgrammeLevel,
    lasting: float | None,
) -> Figures:
    """Headline figures and verdicts of one design from its rows."""
    brief = job.design.brief
    low_pass = lowest_low_pass(job.design.voice.channels)
    f_hi = rules.upper_edge(job.rolled.longest_inner, job.numbers.air.speed, low_pass)
    target = brief.loudness.level
    loud = rules.loudness(
        frequency, top.level, top.first, target, brief.bass.frequency, brief.bass.drop, f_hi
    )
    low, high = rules.reference_band(brief.bass.frequency, low_pass)
    reference = rules.band_mean(frequency, unit, low, high)
    kept = np.minimum(target + unit - reference, top.level) - target
    reach = rules.crossing(frequency, kept, brief.bass.drop, low)
    drive = 10 ** ((target - reference) / 20)
    programme = programme_of(brief.listening)
    promises = six_promises(
        brief,
        job.rolled,
        loudness=loud,
        low_note=rules.low_note(frequency, top.limits, drive, programme, brief.bass.frequency),
        reach=reach,
        hours=lasting,
        run_level=playing_level(brief),
        playable=held.level,
        missing=(),
        endless=job.store is None,
    )
    return Figures(
        loudness=None if loud is None else loud.level,
        frequency=None if loud is None else loud.frequency,
        code="" if loud is None else code_at(top.limits[loud.limit], loud.point),
        bass_reach=reach.frequency,
        programme_level=held.level,
        hours=lasting,
        mass=job.rolled.mass,
        price=job.rolled.price,
        promises=promises,
        level=top.level,
        codes=top.codes(),
    )
