"""Boxes whose ports lose by the speed of their own air: at a drive, and at their ceiling.

What a held sine of one frequency meets is a linear box with a resistance at each mouth that goes
with the drive. The small-signal answers and those to a pressure at each mouth are all it takes.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.lower import inputs
from firecrest.assessment.network import BoxModel
from firecrest.assessment.openings.port import loss_coefficient
from firecrest.assessment.sites import added, answer_of, combined
from firecrest.assessment.sound import Scene
from firecrest.core.acoustics.radiation import level
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Real, decibel, mixed
from firecrest.core.circuit.mouths import Mouth, mouths_of, settled
from firecrest.core.limits.ceiling import Ceiling, ceiling, smallest
from firecrest.core.limits.elements import Limit, Transfers
from firecrest.design.box import Port
from firecrest.design.brief import Edges

CLOSE = 5e-4
"""Nepers to which the drive agrees with the limits at that drive (0.004 dB); the error of the
ceiling is of second order in it."""
MOST_STEPS = 12
FALL = (-2.0, -0.4)
"""How steeply, between these, what is allowed falls against the drive (log, log)."""
GUESS = -0.8
STEPS_TO_LEVEL = 7
"""Each leaves a third of the error at most: a thousandth of a dB of two."""
NOTICED = 2e-4
"""Share of a flow below which its loss is left out: 0.002 dB."""
LEAST_DRIVE = 1e-9
"""V rms that stands for nothing at all."""


def mouths_in(box: inputs.Elements, model: BoxModel, air: Air, edges: Edges) -> tuple[Mouth, ...]:
    """The mouths at which a box loses to turbulence; none where that is left out."""
    if not edges.turbulence:
        return ()
    lost = [loss_coefficient(o) if isinstance(o, Port) else None for o in box.openings]
    return mouths_of(model.network, lost, air)


@dataclass(frozen=True)
class Stirred:
    """A box with ``mouths`` at which it loses.

    Per unit input, ``still`` is what it does without loss and ``flow`` (M, ..., F) what then goes
    through each mouth; per pascal at a mouth, ``answers`` is what else it does and ``answer``
    (M, M, ..., F) what goes through each mouth. ``scene`` is solved for mouths after the channels,
    which play through ``voices``.
    """

    still: Transfers
    flow: Complex
    mouths: tuple[Mouth, ...]
    answers: tuple[Transfers, ...]
    answer: Complex
    scene: Scene
    voices: tuple[Complex, ...]

    def of(self, places: Real) -> "Stirred":
        """The same at some of its frequencies; the scene stays whole."""
        return replace(
            self,
            still=self.still.of(places),
            flow=self.flow[..., places],
            answers=tuple(answer.of(places) for answer in self.answers),
            answer=self.answer[..., places],
        )

    def lost_at(self, drive: Real) -> Real:
        """About which share of a flow is lost with ``drive`` V rms of input, at its worst mouth."""
        each = [
            np.abs(self.answer[k, k] * self.flow[k]) * mouth.resistance * drive
            for k, mouth in enumerate(self.mouths)
        ]
        return np.asarray(np.max(each, axis=0))

    def flows(self, drive: Real) -> tuple[Complex, list[Complex]]:
        """What goes through each mouth, and the pressure lost there, per unit input."""
        size = np.maximum(drive, LEAST_DRIVE)
        still = np.stack(np.broadcast_arrays(*(q * size for q in self.flow)))
        found = settled(still, self.answer, self.mouths)
        pushes = [
            (-mouth.resistance / size) * np.abs(q) * q
            for mouth, q in zip(self.mouths, found, strict=True)
        ]
        return found / size, pushes

    def at(self, drive: Real) -> Transfers:
        """Answers per unit input at ``drive`` V rms of input (..., F)."""
        flows, pushes = self.flows(drive)

        whole = combined(self.still, pushes, self.answers)
        openings = list(whole.openings)
        for k in {mouth.opening for mouth in self.mouths}:
            own = [np.abs(q) for q, m in zip(flows, self.mouths, strict=True) if m.opening == k]
            area = self.scene.model.network.openings[k].area
            openings[k] = np.max(own, axis=0) / area
        return replace(whole, openings=tuple(openings))

    def level_at(self, drive: Real) -> Real:
        """Level in dB per unit input at ``drive``."""
        pushes = self.flows(drive)[1]
        return level(added(self.still.pressure, pushes, [a.pressure for a in self.answers]))

    def drive_for(self, wanted: Real, start: Real) -> Real:
        """V rms of input that give ``wanted`` dB, from ``start``, which gives them without loss.

        With loss a dB more of drive gives between a half and one; each step takes the middle.
        """
        drive = start
        for _ in range(STEPS_TO_LEVEL):
            short = wanted - self.level_at(drive) - decibel(drive)
            drive = drive * 10 ** (short / 0.75 / 20)
        return drive

    def chamber_pressures(self, drive: Real) -> list[Complex]:
        """Pressure of each chamber per unit input at ``drive``."""
        voices = [*self.voices, *self.flows(drive)[1]]
        return [mixed(p[: len(voices)], voices) for p in self.scene.solution.pressure]


def stirred(
    scene: Scene, still: Transfers, rows: tuple[Complex, ...], mouths: tuple[Mouth, ...]
) -> Stirred:
    """A box with mouths at which it loses; ``scene`` is solved for them too."""
    solution, count = scene.solution, len(rows)
    voices = tuple(row[..., -1, :] for row in rows)
    ends = [
        (solution.opening_flow if m.far else solution.opening_intake)[m.opening] for m in mouths
    ]
    flow = np.stack([mixed(end[:count], voices) for end in ends])
    shape = (len(mouths), *flow.shape[1:])
    answer = np.stack([np.broadcast_to(end[count : count + len(mouths)], shape) for end in ends])
    answers = tuple(answer_of(scene, count + k, still) for k in range(len(mouths)))
    return Stirred(still, flow, mouths, answers, answer, scene, voices)


@dataclass(frozen=True)
class Driven:
    """How far a box goes: the ceiling and the level per unit input there, (..., F)."""

    top: Ceiling
    unit_level: Real


def ceiling_of(
    box: Stirred, linear: Driven, allowed: Callable[[Transfers], tuple[Real, tuple[Limit, ...]]]
) -> Driven:
    """The ceiling of a box that loses by its own speed.

    ``linear`` is that without loss; ``allowed`` gives the level per unit input and the limits of
    what the box then is. Where loss could be noticed, looks for the drive that its own limits
    allow, by secants of ln(allowed/drive) over ln(drive); halving agrees within 0.01 dB (tests).
    """
    start = smallest(linear.top.limits)
    lost = box.lost_at(np.where(np.isfinite(start), start, 0.0)) > NOTICED
    noticed = np.any(lost, axis=tuple(range(lost.ndim - 1)))
    if not noticed.any():
        return linear
    box, at = box.of(noticed), np.log(np.clip(start[..., noticed], LEAST_DRIVE, 1 / LEAST_DRIVE))
    slope: Real | float = GUESS
    before: tuple[Real, Real] | None = None
    unit, limits = allowed(box.at(np.exp(at)))
    for _ in range(MOST_STEPS):
        left = np.log(np.clip(smallest(limits), LEAST_DRIVE, 1 / LEAST_DRIVE)) - at
        moving = np.abs(left) >= CLOSE
        if not moving.any():
            break
        if before is not None:
            moved = at - before[0]
            with np.errstate(divide="ignore", invalid="ignore"):
                found = (left - before[1]) / moved
            slope = np.clip(np.where(np.abs(moved) > CLOSE / 10, found, slope), *FALL)
        before = at, left
        at = at - np.where(moving, left / slope, 0.0)
        unit, limits = allowed(box.at(np.exp(at)))
    return _placed(linear, lost, noticed, unit, limits)


def _placed(
    linear: Driven, lost: Real, noticed: Real, unit: Real, limits: Sequence[Limit]
) -> Driven:
    """The linear ceiling with what was found where loss is noticed in each design."""
    shape = np.broadcast_shapes(
        linear.top.level.shape, *((*limit.factor.shape[:-1], 1) for limit in limits)
    )
    own = np.broadcast_to(lost, shape)[..., noticed]

    def _over(known: Real, value: Real) -> Real:
        whole = np.array(np.broadcast_to(known, shape))
        whole[..., noticed] = np.where(own, value, whole[..., noticed])
        return whole

    placed = tuple(
        replace(
            was,
            factor=_over(was.factor, now.factor),
            pack=None if was.pack is None or now.pack is None else _over(was.pack, now.pack),
        )
        for was, now in zip(linear.top.limits, limits, strict=True)
    )
    whole = _over(linear.unit_level, unit)
    return Driven(ceiling(whole, placed), whole)
