"""What moves when something is played: the drive it takes, and every travel, speed and force."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import programme_of
from firecrest.assessment.sound import voices_at
from firecrest.assessment.yielding import Yielding
from firecrest.core.arrays import Complex, Real, mixed
from firecrest.core.cabinet.frames import Frame
from firecrest.core.limits.ceiling import Ceiling
from firecrest.core.limits.elements import Transfers
from firecrest.core.limits.material import PEAK
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.brief import BassPromise, Listening, LoudnessPromise
from firecrest.design.mount import Mount
from firecrest.design.standing import panels_of

LOW, HIGH = 20.0, 200.0
"""Hz between which the largest motions are looked for."""


STEPS = 6
"""In which a flat input and what fast air makes of it come to agree."""
TOP = 500.0
"""Hz up to which a flat input is measured by what it asks for."""


@dataclass(frozen=True)
class Played:
    """What is played: the promise, or one flat input before the voice.

    ``watts``: so that all drivers take at most ``value`` W of real power together; ``volts``: at
    most ``value`` V rms at the loudest output; ``full``: so that an amplifier just reaches its
    swing. Each is looked for from 20 to 500 Hz.
    """

    kind: Literal["promise", "watts", "volts", "full"] = "promise"
    value: float = 0.0


PROMISE = Played()


@dataclass(frozen=True)
class Motion:
    """Held sines over frequency, (F,). At the promise: from the promised note up what loudness
    asks for, below it a held low note as the low-note check has it.

    ``drive`` is volts rms of input, ``volts`` those of each channel's outputs, ``watts`` the real
    power into all drivers; ``cone`` is peak travel in m, ``opening`` that of radiators and the peak
    air speed of ports in m/s.
    """

    frequency: Real
    drive: Real
    volts: tuple[Real, ...]
    watts: Real
    cone: tuple[Real, ...]
    opening: tuple[Real, ...]


def motion_of(assessment: Assessment, a: Acoustic, played: Played = PROMISE) -> Motion:
    """Motion of a design at its promise, or with another input."""
    if played != PROMISE:
        return assessment.memo(_at_flat, a.transfers, a.sound.yielding, a.top, played)
    brief = assessment.design.brief
    return assessment.memo(
        _at_promise,
        a.transfers,
        a.sound.yielding,
        a.unit_level,
        a.reaches.reference,
        a.asked,
        brief.loudness,
        brief.bass,
        brief.listening,
    )


def _at_flat(transfers: Transfers, lossy: Yielding | None, top: Ceiling, played: Played) -> Motion:
    """Motion with one input for all frequencies."""
    still = transfers
    for _ in range(1 if lossy is None else STEPS):
        drive = np.full(len(still.frequency), _flat_drive(transfers, top, played))
        transfers = still if lossy is None else lossy.at(drive)
    return _moved(transfers, drive)


def _flat_drive(transfers: Transfers, top: Ceiling, played: Played) -> float:
    """V rms of flat input that a box with such answers takes for what is ``played``."""
    seen = (transfers.frequency >= LOW) & (transfers.frequency <= TOP)
    if played.kind == "full":
        swings = [limit.factor for limit in top.limits if limit.name == "swing"]
        return min((float(factor[seen].min()) for factor in swings), default=0.0)
    if played.kind == "watts":
        taken = sum(o.count * o.watts for o in transfers.outputs)
        return float(np.sqrt(played.value / float(np.max(np.asarray(taken)[seen]))))
    return played.value / max(float(np.abs(o.voltage)[seen].max()) for o in transfers.outputs)


def _at_promise(
    transfers: Transfers,
    lossy: Yielding | None,
    unit_level: Real,
    reference: float,
    asked: Real,
    loudness: LoudnessPromise,
    bass: BassPromise,
    listening: Listening,
) -> Motion:
    frequency = transfers.frequency
    softer = np.sqrt(1 + (programme_of(listening).low_corner / frequency) ** 4)
    held = 10 ** ((loudness.level - reference) / 20) / softer
    played, within = 10 ** ((asked - unit_level) / 20), frequency >= bass.frequency
    if lossy is not None:
        played = lossy.drive_for(asked, played)
    drive = np.where(within, played, held)
    return _moved(transfers if lossy is None else lossy.at(drive), drive)


def _moved(transfers: Transfers, drive: Real) -> Motion:
    """What moves with ``drive`` volts rms of input at each frequency."""

    def _peak(values: tuple[Complex, ...]) -> tuple[Real, ...]:
        return tuple(PEAK * np.abs(value) * drive for value in values)

    watts = sum(o.count * o.watts for o in transfers.outputs)
    return Motion(
        transfers.frequency,
        drive,
        tuple(np.abs(o.voltage) * drive for o in transfers.outputs),
        np.asarray(watts * drive**2),
        _peak(transfers.excursion),
        _peak(transfers.openings),
    )


def largest(values: Real, frequency: Real, top: float = HIGH) -> tuple[float, float]:
    """(largest value, Hz) between 20 Hz and ``top``."""
    seen = np.where((frequency >= LOW) & (frequency <= top), values, -np.inf)
    worst = int(np.argmax(seen))
    return float(seen[worst]), float(frequency[worst])


def chamber_pressures(
    assessment: Assessment, a: Acoustic, played: Played = PROMISE
) -> tuple[Real, ...]:
    """Peak pressure in Pa of each chamber, and between isobaric pairs."""
    design = assessment.design
    drive, lossy = motion_of(assessment, a, played).drive, a.sound.yielding
    if lossy is None:
        voices = voices_at(design.voice, design.power.dsp.sample_rate, a.frequency)
        found = [mixed(p, voices) for p in a.solution.pressure]
    else:
        found = lossy.chamber_pressures(drive)
    return tuple(PEAK * np.abs(p) * drive for p in found)


def case_force(assessment: Assessment, a: Acoustic) -> tuple[float, float]:
    """(N peak, Hz) of the largest force on the case at the promise, 20 to 200 Hz."""
    force = case_forces(assessment, a, motion_of(assessment, a).drive)
    return largest(np.sqrt(np.sum(np.abs(force) ** 2, axis=0)), a.frequency)


def case_forces(assessment: Assessment, a: Acoustic, drive: Real) -> Complex:
    """Peak force in N along x, y and z at each frequency (3, F), with ``drive`` V rms of input.

    The sum of mass times acceleration of every cone and radiator, with their phases, along where
    their panels look. Of those without a place all count as facing one way, but for those that
    are opposed. Newton's third law; the air load is part of the stated masses.
    """
    box, network = assessment.design.box, a.model.network
    jw = 2j * np.pi * a.frequency
    moving = a.answers_at(drive)
    frames = panels_of(box.case)
    total: Complex = np.zeros((3, len(a.frequency)), dtype=complex)
    for k, owner in enumerate(a.model.owners):
        group, constants = box.groups[owner], network.drivers[k].constants
        ways = _ways(group.mounts, network.drivers[k].count, group.opposed, frames)
        total += np.outer(ways, constants.m_ms * jw**2 * moving.excursion[k])
    for k, item in placed(box.openings, RadiatorSet):
        ways = _ways(item.mounts, item.count, item.opposed, frames)
        total += np.outer(ways, network.openings[k].mass * jw**2 * moving.openings[k])
    return np.asarray(PEAK * total * drive)


def _ways(
    mounts: Sequence[Mount], count: int, opposed: bool, frames: Mapping[str, Frame]
) -> tuple[float, float, float]:
    """Sum of where ``count`` equal parts push; those without a place push forwards."""
    looks = [frames[m.panel].normal for m in mounts[:count] if m.panel in frames]
    x, y, z = (sum(float(look[k]) for look in looks) for k in range(3))
    return x, y, z + _net(count - len(looks), opposed=opposed)


def _net(count: int, *, opposed: bool) -> int:
    """Parts whose force is not taken by one that faces the other way."""
    return count % 2 if opposed else count
