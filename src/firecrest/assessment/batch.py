"""Many designs at once: those of one topology are stacked and solved together.

The figures equal those of ``assess`` on the same grid: the same functions run on arrays with a
leading axis of designs.
"""

import dataclasses
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from firecrest.assessment.acoustic import (
    EDIT_GRID,
    duty_of,
    model_of,
    ratings_of,
    transfers_from,
    voice_rows,
)
from firecrest.assessment.assess import RUNTIME_BELOW, cabinet_of
from firecrest.assessment.electrical import (
    amplifier_model,
    converter_model,
    other_power,
    source_at,
    store_of,
)
from firecrest.assessment.lowering import BoxModel, air_of, lowest_low_pass, programme_of
from firecrest.core.acoustics.network import solve
from firecrest.core.acoustics.radiation import SOLID_ANGLES, level
from firecrest.core.air import Air
from firecrest.core.arrays import Real
from firecrest.core.errors import FirecrestError
from firecrest.core.limits import promise as rules
from firecrest.core.limits.ceiling import Ceiling, ceiling, code_at
from firecrest.core.limits.draw import Draw, programme_draw, rms
from firecrest.core.limits.elements import Limit, Ratings, all_limits
from firecrest.core.limits.programme import weights
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.runtime import runtime
from firecrest.core.power.source import Source
from firecrest.design.design import Design


@dataclass(frozen=True)
class Figures:
    """Headline figures of one design; ``missing`` says why there are none."""

    loudness: float | None = None
    frequency: float | None = None
    code: str = ""
    bass_reach: float | None = None
    programme_level: float | None = None
    hours: float | None = None
    mass: float = 0.0
    price: float = 0.0
    missing: str = ""


@dataclass(frozen=True)
class _Job:
    """A design as plain numbers."""

    place: int
    design: Design
    mass: float
    price: float
    longest_inner: float
    numbers: tuple[BoxModel, Ratings, AmplifierModel, Source, Air, float, float]
    rows: tuple[Any, ...]


def assess_batch(designs: Sequence[Design], frequency: Real = EDIT_GRID) -> list[Figures]:
    """Headline figures of every design, in order."""
    answers: list[Figures] = [Figures()] * len(designs)
    groups: dict[Any, list[_Job]] = {}
    for place, design in enumerate(designs):
        rolled = cabinet_of(design)
        try:
            job = _job(place, design, frequency)
        except FirecrestError as error:
            answers[place] = Figures(mass=rolled.mass, price=rolled.price, missing=str(error))
            continue
        key = (
            signature(job.numbers),
            [r.shape for r in job.rows],
            [c.outputs for c in design.voice.channels],
            _programme_key(design),
        )
        groups.setdefault(repr(key), []).append(job)
    for jobs in groups.values():
        for job, figures in zip(jobs, _solve(jobs, frequency), strict=True):
            answers[job.place] = figures
    return answers


def _programme_key(design: Design) -> Any:
    return dataclasses.astuple(programme_of(design.brief.listening)), duty_of(
        design.brief.listening
    )


def _job(place: int, design: Design, frequency: Real) -> _Job:
    """Lower one design; FirecrestError when a figure is missing."""
    rolled = cabinet_of(design)
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
    source = source_at(power, design.brief.conditions.charge)
    listening = design.brief.listening
    numbers = (
        model,
        ratings,
        amplifier,
        source,
        air_of(design.brief.conditions),
        listening.distance,
        SOLID_ANGLES[listening.place],
    )
    rows = tuple(voice_rows(c, power.dsp.sample_rate, frequency) for c in channels)
    return _Job(place, design, rolled.mass, rolled.price, rolled.longest_inner, numbers, rows)


def signature(value: Any) -> Any:
    """What must be equal for two designs to be stacked: everything but the floats."""
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        fields = dataclasses.fields(value)
        return (type(value).__name__, *(signature(getattr(value, f.name)) for f in fields))
    if isinstance(value, Mapping):
        return tuple((k, signature(v)) for k, v in value.items())
    if isinstance(value, tuple):
        return tuple(signature(v) for v in value)
    if isinstance(value, float | np.ndarray | np.floating):
        return "number"
    return value


def stacked(values: Sequence[Any]) -> Any:
    """One value whose floats are arrays of shape (designs, 1); equal signatures only."""
    first = values[0]
    if dataclasses.is_dataclass(first) and not isinstance(first, type):
        made = {
            f.name: stacked([getattr(v, f.name) for v in values]) for f in dataclasses.fields(first)
        }
        return type(first)(**made)
    if isinstance(first, Mapping):
        return {k: stacked([v[k] for v in values]) for k in first}
    if isinstance(first, tuple):
        return tuple(stacked(list(items)) for items in zip(*values, strict=True))
    if isinstance(first, float | np.ndarray | np.floating):
        return np.array([float(v) for v in values])[:, None]
    return first


def _solve(jobs: Sequence[_Job], frequency: Real) -> list[Figures]:
    """All designs of one topology."""
    model, ratings, amplifier, source, air, distance, angle = stacked([j.numbers for j in jobs])
    rows = [np.stack(chain) for chain in zip(*(j.rows for j in jobs), strict=True)]
    first = jobs[0].design
    outputs = [c.outputs for c in first.voice.channels]
    solution = solve(model.network, frequency)
    transfers = transfers_from(model, solution, rows, outputs, distance, angle, air)
    unit = level(transfers.pressure)
    programme = programme_of(first.brief.listening)
    top = ceiling(
        unit, all_limits(transfers, ratings, amplifier, source, duty_of(first.brief.listening))
    )
    weight = weights(programme.kind, frequency)
    volts = rules.programme_volts(transfers, ratings, amplifier, source, programme, weight)
    draw = programme_draw(transfers.outputs, amplifier.r_out, weight, programme.kind == "sine")
    mean = level(rms(transfers.pressure, weight))
    found = []
    for k, job in enumerate(jobs):
        held = rules.highest_level(
            {key: float(np.broadcast_to(v, (len(jobs), 1))[k, 0]) for key, v in volts.items()},
            float(mean[k, 0]),
        )
        found.append(
            _figures(job, _row(top, k, len(jobs)), unit[k], frequency, held, _draw_row(draw, k))
        )
    return found


def _row(top: Ceiling, k: int, count: int) -> Ceiling:
    """The ceiling of one design of a batch."""

    def one(value: Real) -> Real:
        return np.asarray(np.broadcast_to(value, (count, value.shape[-1]))[k])

    limits = tuple(
        Limit(x.name, x.code, one(x.factor), x.index, None if x.pack is None else one(x.pack))
        for x in top.limits
    )
    return Ceiling(limits, top.level[k], top.first[k])


def _draw_row(draw: Draw, k: int) -> Draw:
    return Draw(
        tuple(s[k] for s in draw.swing),
        draw.peak_power[k],
        draw.mean_power[k],
        draw.amperes[k],
        draw.average,
    )


def _figures(
    job: _Job, top: Ceiling, unit: Real, frequency: Real, held: rules.ProgrammeLevel, draw: Draw
) -> Figures:
    """Headline figures of one design from its rows."""
    brief = job.design.brief
    low_pass = lowest_low_pass(job.design.voice.channels)
    f_hi = rules.upper_edge(job.longest_inner, job.numbers[4].speed, low_pass)
    target = brief.loudness.level
    loud = rules.loudness(
        frequency, top.level, top.first, target, brief.bass.frequency, brief.bass.drop, f_hi
    )
    low, high = rules.reference_band(brief.bass.frequency, low_pass)
    response = unit - rules.band_mean(frequency, unit, low, high)
    kept = np.minimum(target + response, top.level) - target
    reach = rules.crossing(frequency, kept, brief.bass.drop, low)
    return Figures(
        loudness=None if loud is None else loud.level,
        frequency=None if loud is None else loud.frequency,
        code="" if loud is None else code_at(top.limits[loud.limit], loud.point),
        bass_reach=reach.frequency,
        programme_level=held.level,
        hours=_hours(job, draw, held),
        mass=job.mass,
        price=job.price,
    )


def _hours(job: _Job, draw: Draw, held: rules.ProgrammeLevel) -> float | None:
    brief, power = job.design.brief, job.design.power
    store = store_of(power.source)
    if store is None:
        return None
    wanted = brief.runtime.level
    wanted = brief.loudness.level - RUNTIME_BELOW if wanted is None else wanted
    drive = 10 ** ((wanted - held.unit_level) / 20)
    return runtime(
        store,
        draw,
        drive,
        programme_of(brief.listening).burst,
        amplifier_model(power.amplifier),
        other_power(power),
        converter_model(power.converter),
    ).hours
