"""The assessment as plain data with stable keys, for ``firecrest assess --json``.

Every key is documented in docs/format.md, "The JSON report". Levels are in dB at the listener,
everything else is SI; what is unknown or never reached is null.
"""

from typing import Any

import numpy as np

from firecrest.assessment.acoustic import opening_motions
from firecrest.assessment.assess import Acoustic, Assessment, Held
from firecrest.assessment.conditions import air_of
from firecrest.assessment.figures import derivation_of
from firecrest.assessment.further import FullCharge, at_full_charge, reach_by_drop
from firecrest.assessment.sound import Scene, delay_of, flat_voices, voices_at, whole_pressure
from firecrest.core.acoustics.driver import half_space_sensitivity
from firecrest.core.acoustics.openings import Port, Radiator
from firecrest.core.acoustics.openings.radiator import sag
from firecrest.core.acoustics.radiation import SOLID_ANGLES, level
from firecrest.core.arrays import Complex, Real, decibel, mixed
from firecrest.core.circuit.electrical import GROUND
from firecrest.core.circuit.elements import DriverGroup
from firecrest.core.circuit.solution import Solution, output_impedance
from firecrest.core.limits.bands import band_edges, peaks, refined_peak
from firecrest.core.limits.ceiling import code_at
from firecrest.core.limits.elements import Limit, spare
from firecrest.core.limits.low_note import LowNote
from firecrest.core.limits.material import PEAK
from firecrest.core.limits.reach import Reach
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.present.text.notes import said

REPORT_FORMAT = "firecrest-report-1"
TABLE_GRID = np.geomspace(10.0, 1000.0, 961)
STANDARD_DRIVE = 2.83


def report(assessment: Assessment, drive: float, grid: Real) -> dict[str, Any]:
    """Everything of an assessment; raw curves at ``drive`` V rms on ``grid`` (Hz)."""
    body: dict[str, Any] = {
        "format": REPORT_FORMAT,
        "name": assessment.design.name,
        "promises": [_promise(p) for p in assessment.promises],
        "missing": [said(n) for n in assessment.missing],
        "estimates": [said(n) for n in assessment.estimates],
        "cabinet": _cabinet(assessment),
        "amplifiers": _amplifiers(assessment),
        "drivers": [_driver(g.driver) for g in assessment.design.box.groups],
    }
    acoustic = assessment.acoustic
    if acoustic is not None:
        full = at_full_charge(assessment, acoustic)
        body |= _scalars(assessment.design, acoustic, full)
        if assessment.missing:
            body |= {"programme_level": None, "bass": None}
        body["chain"] = [_link(link, acoustic) for link in assessment.links]
        body["curves"] = _curves(acoustic, full)
        body["at_drive"] = at_drive(assessment.design, acoustic, drive, grid)
    plain: dict[str, Any] = clean(body)
    return plain


def clean(value: Any) -> Any:
    """Plain JSON data: arrays as lists, what is not finite as null."""
    if isinstance(value, dict):
        return {str(k): clean(v) for k, v in value.items()}
    if isinstance(value, np.ndarray):
        return clean(value.tolist())
    if isinstance(value, list | tuple):
        return [clean(v) for v in value]
    if isinstance(value, float | np.floating):
        return float(value) if np.isfinite(value) else None
    if isinstance(value, np.integer):
        return int(value)
    return value


def _promise(p: Any) -> dict[str, Any]:
    keys = ("key", "predicted", "target", "margin", "state", "importance")
    return {key: getattr(p, key) for key in keys} | {"reason": said(p.reason)}


def _cabinet(assessment: Assessment) -> dict[str, Any]:
    rolled = assessment.cabinet
    return {
        "outer": rolled.outer,
        "inner": rolled.inner,
        "air_volume": {
            c.id: v for c, v in zip(assessment.design.box.chambers, rolled.air, strict=True)
        },
        "mass": rolled.mass,
        "price": rolled.price,
        "items": [vars(item) for item in rolled.items],
    }


def _amplifiers(assessment: Assessment) -> list[dict[str, Any]]:
    """Every board, with what the claims of each kind of its outputs come to."""
    boards = [board for _, board in assessment.design.power.amplifiers]
    return [
        {
            "id": board.id,
            "name": board.part.name,
            "outputs": [
                {
                    **vars(read.model),
                    "current_limit_estimated": read.current_limit_estimated,
                    "contradictions": [said(n) for n in read.contradictions],
                    "claims": [vars(claim) for claim in read.claims],
                }
                for read in kinds
            ],
        }
        for board, kinds in zip(boards, assessment.claims, strict=True)
    ]


def _driver(part: Any) -> dict[str, Any]:
    derivation = derivation_of(part)
    figures = dict(derivation.figures)
    known = all(key in figures for key in ("fs", "vas", "qes"))
    return {
        "name": part.name,
        "figures": figures,
        "derived": {k: r.text for k, r in derivation.derived.items()},
        "contradictions": [
            {"figure": c.figure, "stated": c.stated, "derived": c.derived, "apart": c.apart}
            for c in derivation.contradictions
        ],
        "missing": list(derivation.missing),
        "half_space_sensitivity": half_space_sensitivity(figures) if known else None,
    }


def _radiator(a: Acoustic, place: int, *, horizontal: bool) -> dict[str, Any]:
    """A radiator with its added mass, in mechanical SI."""
    element = a.model.network.openings[place]
    assert isinstance(element, Radiator)
    hangs = sag(element.mass, element.compliance) if horizontal else 0.0
    return {
        "mass": element.mass,
        "compliance": element.compliance,
        "resistance": element.resistance,
        "area": element.area,
        "resonance": element.resonance,
        "sag": hangs,
    }


def _scalars(design: Design, a: Acoustic, full: FullCharge) -> dict[str, Any]:
    """Promises in detail."""
    ids = [c.id for c in design.box.chambers]
    return {
        "tuning": dict(zip(ids, a.model.tuning, strict=True)),
        "reference_frequency": dict(zip(ids, a.model.reference, strict=True)),
        "radiators": [
            _radiator(a, k, horizontal=r.horizontal)
            for k, r in placed(design.box.openings, RadiatorSet)
        ],
        "full_scale_peak": a.ratings.full_scale,
        "f_hi": a.f_hi,
        "loudness": _loudness(a, a.loudness, a.limits),
        "loudness_full_charge": _loudness(a, full.loudness, full.top.limits),
        "low_note": _low_note(a, a.low_note),
        "programme_level": {
            "level": a.programme.level,
            "cold_level": float(np.ravel(a.lasting.cold_level)[0]),
            "coil_rises": [float(np.ravel(rise)[0]) for rise in a.lasting.rises],
            "limit": a.programme.name,
            "code": a.programme.code,
            "by_limit": dict(a.programme.by_limit),
        },
        "bass": _bass(a),
        "runtime": _runtime(a),
        "runs": [
            {
                "limit": a.limits[run.limit].name,
                "code": run.code,
                "from": a.frequency[run.start],
                "to": a.frequency[run.stop],
            }
            for run in a.runs
        ],
    }


def _loudness(a: Acoustic, result: Held | None, limits: tuple[Limit, ...]) -> dict[str, Any] | None:
    if result is None:
        return None
    limit = limits[result.limit]
    return {
        "level": result.level,
        "margin": result.margin,
        "frequency": result.frequency,
        "limit": limit.name,
        "code": code_at(limit, result.point),
    }


def _low_note(a: Acoustic, result: LowNote | None) -> dict[str, Any] | None:
    if result is None:
        return None
    return {
        "passed": result.passed,
        "margin": result.margin,
        "frequency": result.frequency,
        "limit": a.limits[result.limit].name,
        "by_part": {k: {"margin": m, "frequency": f} for k, (m, f) in result.by_part.items()},
        "high_pass": result.high_pass,
    }


def _bass(a: Acoustic) -> dict[str, Any]:
    def table(found: Any) -> dict[str, Any]:
        return {f"F{drop}": _reach(reach) for drop, reach in found.items()}

    return {
        "reference_per_unit_input": a.reaches.reference,
        "band": a.reaches.band,
        "small_signal": table(reach_by_drop(a, a.unit_level - a.reaches.reference)),
        "at_level": table(reach_by_drop(a, a.reaches.kept)),
        "dip_in_band": a.reaches.dip,
    }


def _reach(reach: Reach) -> dict[str, Any]:
    return {"frequency": reach.frequency, "note": said(reach.note), "missing": reach.missing}


def _runtime(a: Acoustic) -> dict[str, Any] | None:
    if a.runtime is None:
        return None
    return {
        "level": a.runtime_level,
        "hours": a.runtime.hours,
        "end_charge": a.runtime.end_charge,
        "ended_by": a.runtime.ended_by,
        "reachable": a.runtime_level <= a.programme.level,
        "at_half_charge": dict(a.runtime.watts),
    }


def _link(link: Any, a: Acoustic) -> dict[str, Any]:
    name = None if link.limit is None else a.limits[link.limit].name
    return {"link": link.key, "spare": link.spare, "limit": name, "frequency": link.frequency}


def _curves(a: Acoustic, full: FullCharge) -> dict[str, Any]:
    """Curves per unit input on the assessment's own grid."""
    return {
        "frequency": a.frequency,
        "level_per_unit_input": a.unit_level,
        "level_before_voice": a.level_before_voice,
        "voice": [decibel(o.voltage) for o in a.transfers.outputs],
        "asked": a.asked,
        "ceiling": a.top.level,
        "ceiling_without_turbulence": a.still.level,
        "first_to_give": a.top.codes(),
        "ceiling_full_charge": full.top.level,
        "first_to_give_full_charge": full.top.codes(),
        "limit_factors": [
            {"limit": limit.name, "code": limit.code, "index": limit.index, "factor": limit.factor}
            for limit in a.limits
        ],
    }


def at_drive(design: Design, a: Acoustic, drive: float, grid: Real) -> dict[str, Any]:
    """Raw curves with ``drive`` V rms at the terminals, and at the input of the voice.

    At the terminals every voice is flat. Limits are volts rms at the terminals.
    """
    scene = a.scene.at(grid)
    return {
        "volts": drive,
        "frequency": grid,
        "leak_counts_as_radiation": a.model.network.leaks_count,
        "impedance": [_impedance(a, scene.solution, k) for k in range(len(design.voice.channels))],
        "terminals": _driven(design, scene, drive, voiced=False),
        "through_voice": _driven(design, scene, drive, voiced=True),
        "limit_volts": _terminal_limits(a, scene.solution),
        "tables": {
            "terminals": _tables(design, a, voiced=False),
            "through_voice": _tables(design, a, voiced=True),
        },
    }


def _impedance(a: Acoustic, solution: Solution, channel: int) -> dict[str, Any]:
    z = output_impedance(solution, channel)
    return {"ohm": np.abs(z), "phase_deg": np.degrees(np.angle(z))}


def _driven(design: Design, scene: Scene, drive: float, *, voiced: bool) -> dict[str, Any]:
    """Levels, phases, delays and motion with ``drive`` at the input of flat or real voices."""
    network, solution, grid = scene.model.network, scene.solution, scene.frequency
    rate = design.power.dsp.sample_rate
    voice = design.voice if voiced else None
    voices = voices_at(voice, rate, grid) if voice else flat_voices(network.channels, grid)
    body: dict[str, Any] = {}
    for name, leaks in (("with_leak", True), ("without_leak", False)):
        p = drive * whole_pressure(scene, voices, leaks=leaks)
        body[name] = {
            "spl_db": level(p),
            "phase_deg": np.degrees(np.angle(p)),
            "group_delay_ms": 1e3 * delay_of(scene, voice, rate, grid, leaks=leaks),
        }
    jw, peak = 2j * np.pi * grid, PEAK * drive
    body["cone_peak_m"] = [peak * np.abs(mixed(v, voices) / jw) for v in solution.velocity]
    moved = opening_motions(network, solution, voices)
    for key, kind in (("radiator_peak_m", Radiator), ("port_peak_speed", Port)):
        body[key] = [peak * np.abs(moved[k]) for k, _ in placed(network.openings, kind)]
    return body


def _terminal_limits(a: Acoustic, solution: Solution) -> dict[str, Any]:
    """Volts rms at the terminals at which each part reaches its limit, sine, steady."""
    network, jw = a.model.network, 2j * np.pi * solution.frequency
    flat = flat_voices(network.channels, solution.frequency)
    groups = list(
        zip(
            network.drivers,
            a.ratings.x_max,
            a.ratings.coil_power,
            a.ratings.coil_resistance,
            strict=True,
        )
    )

    moved = opening_motions(network, solution, flat)

    def over(limit: Any, peak: Complex) -> Any:
        return None if limit is None else spare(limit, PEAK * np.abs(peak))

    return {
        "cone": [
            over(g[1], mixed(v, flat) / jw) for g, v in zip(groups, solution.velocity, strict=True)
        ],
        **{
            key: [over(a.ratings.openings[k], moved[k]) for k, _ in placed(network.openings, kind)]
            for key, kind in (("radiator", Radiator), ("port", Port))
        },
        "coil_heat": [
            None if pe is None else spare(np.sqrt(pe / re), np.abs(mixed(i, flat)))
            for (_, _, pe, re), i in zip(groups, solution.current, strict=True)
        ],
        "thermal_nominal": [
            None if pe is None else g.in_series * _in_line(g) * np.sqrt(pe * re)
            for g, _, pe, re in groups
        ],
    }


def _in_line(group: DriverGroup) -> int:
    """Coils of a pair between which the voltage of a group is shared out."""
    return 2 if any(terminal > GROUND for terminal in group.ends) else 1


def _tables(design: Design, a: Acoustic, *, voiced: bool) -> dict[str, Any]:
    """F3, F6, F10 and extremes at 1 V rms on a dense grid from 10 Hz to 1 kHz."""
    channels = range(len(design.voice.channels))
    scene, rate = a.scene.at(TABLE_GRID), design.power.dsp.sample_rate
    voices = flat_voices(len(channels), TABLE_GRID)
    if voiced:
        voices = voices_at(design.voice, rate, TABLE_GRID)
    spl = level(whole_pressure(scene, voices))
    peak = refined_peak(TABLE_GRID, spl, int(np.argmax(spl)))
    reference = _mass_controlled_level(design, a)
    ohms = [np.abs(output_impedance(scene.solution, k)) for k in channels]
    return {
        "half_space_reference_db": reference,
        "passband_peak": {"frequency": peak[0], "level": peak[1]},
        "relative_to_reference": band_edges(TABLE_GRID, spl, reference),
        "relative_to_peak": band_edges(TABLE_GRID, spl, peak[1]),
        "impedance_peaks": [
            [{"frequency": f, "ohm": float(np.exp(v))} for f, v in peaks(TABLE_GRID, np.log(m))]
            for m in ohms
        ],
    }


def _mass_controlled_level(design: Design, a: Acoustic) -> float:
    """Level at 1 V of all drivers far above resonance, coil inductance left out.

    p = rho Bl Sd V/(Omega r Re Mms) per cone, each with its share of the voltage; the two drivers
    of an isobaric pair move one cone's worth of air.
    """
    listening, air = design.brief.listening, air_of(design.brief.conditions)
    total = sum(
        g.count
        / _in_line(g)
        * g.constants.bl
        * g.constants.s_d
        / (g.in_series * g.constants.r_e * g.constants.m_ms)
        for g in a.model.network.drivers[: len(design.box.groups)]
    )
    p = air.density * total / (SOLID_ANGLES[listening.place] * listening.distance)
    return float(level(np.asarray(p)))
