"""Boxes that yield with their own level: fast air in ports, travel that bends motor and suspension.

What a held sine of one frequency meets is a linear box with loads that go with the drive. The
small-signal answers and those to a unit of drive at each site are all it takes.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import reduce

import numpy as np

from firecrest.assessment.lower import inputs
from firecrest.assessment.network import BoxModel
from firecrest.assessment.openings.port import loss_coefficient
from firecrest.assessment.sites import added, answers_of, combined
from firecrest.assessment.sound import Scene
from firecrest.core.acoustics.large_signal import Bends
from firecrest.core.acoustics.openings import Radiator
from firecrest.core.acoustics.radiation import level
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Real, decibel, largest, mixed
from firecrest.core.circuit.elements import Network
from firecrest.core.circuit.mouths import Mouth, mouths_of
from firecrest.core.circuit.settling import (
    ConeSite,
    Levels,
    MouthSite,
    RadiatorSite,
    Settled,
    Sites,
    settled,
)
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
STEPS_TO_LEVEL, NEAR_ENOUGH = 7, 0.01
"""Steps, and dB from the wanted level at which they end."""
LEVEL_PER_DRIVE, LEVELS_PER_DRIVE = 0.75, (0.4, 1.3)
"""DB of level for a dB of drive: to begin with, and between these."""
NOTICED = 2e-4
"""Share of a flow below which its loss is left out: 0.002 dB."""
LEAST_DRIVE = 1e-9
"""V rms that stands for nothing at all."""


@dataclass(frozen=True)
class Places:
    """What is driven beside the channels, in the order of the solution: a pressure at ``mouths``
    (of ports, then on radiators), a voltage in coils, a force on cones of the drivers ``bent``.
    """

    mouths: tuple[Mouth, ...] = ()
    ports: int = 0
    bent: tuple[int, ...] = ()
    bends: tuple[Bends, ...] = ()


def places_in(box: inputs.Elements, model: BoxModel, air: Air, edges: Edges) -> Places:
    """Where a box yields with its level; nowhere where that is left out.

    ``bends`` are those of radiators, then of drivers; parts without a travel do not bend.
    """
    mouths: tuple[Mouth, ...] = ()
    if edges.turbulence:
        lost = [
            box.air_loss * loss_coefficient(o) if isinstance(o, Port) else None
            for o in box.openings
        ]
        mouths = mouths_of(model.network, lost, air)
    if not edges.large_signal:
        return Places(mouths, len(mouths))
    radiators = [
        (k, o.radiator.bends)
        for k, o in enumerate(box.openings)
        if not isinstance(o, Port) and o.radiator.bends is not None
    ]
    drivers = [(n, box.groups[k].driver.bends) for n, k in enumerate(model.owners)]
    bent = [(n, bends) for n, bends in drivers if bends is not None]
    return Places(
        (*mouths, *(Mouth(k, False) for k, _ in radiators)),
        len(mouths),
        tuple(n for n, _ in bent),
        (*(bends for _, bends in radiators), *(bends for _, bends in bent)),
    )


@dataclass(frozen=True)
class Yielding:
    """A box that yields at ``sites``.

    Per unit input, ``still`` is what it does as at low level and ``flow`` (n, ..., F) what then
    goes through each site; per unit of drive at a site, ``answers`` is what else it does and
    ``answer`` (n, n, ..., F) what goes through each site. ``drives`` are the places of the sites in
    the solution of ``scene``, which is solved for them after the channels, played through
    ``voices``.
    """

    still: Transfers
    flow: Complex
    places: Places
    sites: Sites
    answers: Transfers
    answer: Complex
    drives: tuple[int, ...]
    scene: Scene
    voices: tuple[Complex, ...]

    @property
    def omega(self) -> Real:
        """Rad/s of every frequency."""
        return 2 * np.pi * self.still.frequency

    def of(self, places: Real) -> "Yielding":
        """The same at some of its frequencies; the scene stays whole."""
        return replace(
            self,
            still=self.still.of(places),
            flow=self.flow[..., places],
            answers=self.answers.of(places),
            answer=self.answer[..., places],
        )

    def lost_at(self, drive: Real) -> Real:
        """About which share of a flow is lost with ``drive`` V rms of input, at its worst site."""
        sites, omega = self.sites, self.omega
        each = [
            np.abs(self.answer[m.row, m.row] * self.flow[m.row]) * m.resistance * drive
            for m in sites.mouths
        ]
        moved = [(self.flow[c.velocity], c.bends.scale) for c in sites.cones]
        moved += [(self.flow[r.row] / r.area, r.bends.scale) for r in sites.radiators]
        each += [(np.sqrt(2) * np.abs(v) / omega * drive / scale) ** 2 / 3 for v, scale in moved]
        return np.asarray(largest(each))

    def settled(self, drive: Real, start: Levels = ()) -> Settled:
        """What goes through each site, and the drive that yields there, per unit input."""
        size = np.maximum(drive, LEAST_DRIVE)
        still = np.stack(np.broadcast_arrays(*(q * size for q in self.flow)))
        found = settled(still, self.answer, self.sites, self.omega, start)
        return replace(found, flows=found.flows / size, drives=[d / size for d in found.drives])

    def answers_of(self, found: Settled) -> Transfers:
        """Answers per unit input of a box that has settled."""
        flows, pushes = found.flows, found.drives
        whole = combined(self.still, pushes, self.answers)
        openings, mouths = list(whole.openings), self.places.mouths[: self.places.ports]
        for k in {mouth.opening for mouth in mouths}:
            own = [np.abs(flows[n]) for n, m in enumerate(mouths) if m.opening == k]
            area = self.scene.model.network.openings[k].area
            openings[k] = reduce(np.maximum, own) / area
        return replace(whole, openings=tuple(openings))

    def noticed(self, drive: Real) -> tuple[Real, Real]:
        """Where in each design (..., F), and where in any (F,), what is lost could be noticed."""
        lost = self.lost_at(drive) > NOTICED
        return lost, np.asarray(np.any(lost, axis=tuple(range(lost.ndim - 1))))

    def settled_at(self, drive: Real) -> Settled | None:
        """``settled`` where that could be noticed, as at low level elsewhere; None: nowhere."""
        lost, places = self.noticed(drive)
        if not places.any():
            return None
        drive = np.asarray(drive)
        found = self.of(places).settled(drive if drive.shape[-1] == 1 else drive[..., places])
        shape = np.broadcast_shapes(lost.shape, self.flow.shape[1:])

        def _over(still: Complex, value: Complex) -> Complex:
            whole = np.empty(shape, dtype=np.complex128)
            whole[...] = still
            whole[..., places] = np.where(lost[..., places], value, whole[..., places])
            return whole

        flows = [_over(a, b) for a, b in zip(self.flow, found.flows, strict=True)]
        nothing = np.zeros(())
        return Settled(np.stack(flows), [_over(nothing, d) for d in found.drives], ())

    def at(self, drive: Real) -> Transfers:
        """Answers per unit input at ``drive`` V rms of input (..., F)."""
        found = self.settled_at(drive)
        return self.still if found is None else self.answers_of(found)

    def level_at(self, drive: Real) -> Real:
        """Level in dB per unit input at ``drive``."""
        found = self.settled_at(drive)
        return level(self.still.pressure) if found is None else self.heard(found)

    def heard(self, found: Settled) -> Real:
        """Level in dB per unit input of a box that has settled."""
        return level(added(self.still.pressure, found.drives, self.answers.pressure))

    def drive_for(self, wanted: Real, start: Real) -> Real:
        """V rms of input (F,) that give ``wanted`` dB, from ``start``, which does at low level.

        With loss a dB more of drive gives between a half and one: secants.
        """
        _, places = self.noticed(start)
        if not places.any():
            return start
        some, drive, asked = self.of(places), start[..., places], wanted[..., places]
        found, slope = some.settled(drive), np.full_like(drive, LEVEL_PER_DRIVE)
        short = asked - some.heard(found) - decibel(drive)
        for _ in range(STEPS_TO_LEVEL):
            if np.max(np.abs(short)) < NEAR_ENOUGH:
                break
            step, was = short / slope, short
            drive = drive * 10 ** (step / 20)
            found = some.settled(drive, found.levels)
            short = asked - some.heard(found) - decibel(drive)
            told = np.abs(step) > NEAR_ENOUGH
            secant = np.divide(was - short, step, out=np.array(slope), where=told)
            slope = np.clip(secant, *LEVELS_PER_DRIVE)
        whole = np.array(start)
        whole[..., places] = drive
        return whole

    def chamber_pressures(self, drive: Real) -> list[Complex]:
        """Pressure of each chamber per unit input at ``drive``."""
        places = [*range(len(self.voices)), *self.drives]
        found = self.settled_at(drive)
        if found is None:
            return [mixed(p[: len(self.voices)], self.voices) for p in self.scene.solution.pressure]
        voices = [*self.voices, *found.drives]
        return [mixed(p[places], voices) for p in self.scene.solution.pressure]


def yielding(
    scene: Scene, still: Transfers, rows: tuple[Complex, ...], places: Places, coils: int
) -> Yielding:
    """A box that yields; ``scene`` is solved for its places too, with volts in ``coils`` coils."""
    solution, network, count = scene.solution, scene.model.network, len(rows)
    voices = tuple(row[..., -1, :] for row in rows)
    mouths = places.mouths
    through = [
        (solution.opening_flow if m.far else solution.opening_intake)[m.opening] for m in mouths
    ]
    drives = list(range(count, count + len(mouths)))
    cones: list[ConeSite] = []
    for n, k in enumerate(places.bent):
        through += [solution.velocity[k], solution.current[k]]
        drives += [count + len(mouths) + coils + n, count + len(mouths) + k]
        c, bends = network.drivers[k].constants, places.bends[len(mouths) - places.ports + n]
        at = len(mouths) + 2 * n
        cones.append(ConeSite(at, at + 1, c.bl, c.c_ms, c.l_e, bends))
    flow = np.stack(np.broadcast_arrays(*(mixed(q[:count], voices) for q in through)))
    answer = np.stack(
        [np.stack([np.broadcast_to(q[place], flow.shape[1:]) for place in drives]) for q in through]
    )
    answers = answers_of(scene, drives, still)
    sites = Sites(
        tuple(MouthSite(n, m.resistance) for n, m in enumerate(mouths[: places.ports])),
        tuple(cones),
        tuple(
            _radiator_site(network, places.ports + n, m, bends)
            for n, (m, bends) in enumerate(
                zip(mouths[places.ports :], places.bends[: len(mouths) - places.ports], strict=True)
            )
        ),
    )
    return Yielding(still, flow, places, sites, answers, answer, tuple(drives), scene, voices)


def _radiator_site(network: Network, row: int, mouth: Mouth, bends: Bends) -> RadiatorSite:
    element = network.openings[mouth.opening]
    assert isinstance(element, Radiator)
    return RadiatorSite(row, element.area, element.compliance, bends)


@dataclass(frozen=True)
class Driven:
    """How far a box goes: the ceiling and the level per unit input there, (..., F)."""

    top: Ceiling
    unit_level: Real


def ceiling_of(
    box: Yielding, linear: Driven, allowed: Callable[[Transfers], tuple[Real, tuple[Limit, ...]]]
) -> Driven:
    """The ceiling of a box that loses by its own speed.

    ``linear`` is that without loss; ``allowed`` gives the level per unit input and the limits of
    what the box then is. Where loss could be noticed, looks for the drive that its own limits
    allow, by secants of ln(allowed/drive) over ln(drive); halving agrees within 0.01 dB (tests).
    """
    start = smallest(linear.top.limits)
    lost, noticed = box.noticed(np.where(np.isfinite(start), start, 0.0))
    if not noticed.any():
        return linear
    box, at = box.of(noticed), np.log(np.clip(start[..., noticed], LEAST_DRIVE, 1 / LEAST_DRIVE))
    slope: Real | float = GUESS
    before: tuple[Real, Real] | None = None
    found = box.settled(np.exp(at))
    unit, limits = allowed(box.answers_of(found))
    for _ in range(MOST_STEPS):
        left = np.log(np.clip(smallest(limits), LEAST_DRIVE, 1 / LEAST_DRIVE)) - at
        moving = np.abs(left) >= CLOSE
        if not moving.any():
            break
        if before is not None:
            moved = at - before[0]
            with np.errstate(divide="ignore", invalid="ignore"):
                secant = (left - before[1]) / moved
            slope = np.clip(np.where(np.abs(moved) > CLOSE / 10, secant, slope), *FALL)
        before = at, left
        at = at - np.where(moving, left / slope, 0.0)
        found = box.settled(np.exp(at), found.levels)
        unit, limits = allowed(box.answers_of(found))
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
        whole = np.empty(shape, dtype=known.dtype)
        whole[...] = known
        whole[..., noticed] = np.where(own, value, whole[..., noticed])
        return whole

    placed = tuple(
        Limit(
            was.name,
            was.code,
            _over(was.factor, now.factor),
            was.index,
            None if was.pack is None or now.pack is None else _over(was.pack, now.pack),
        )
        for was, now in zip(linear.top.limits, limits, strict=True)
    )
    whole = _over(linear.unit_level, unit)
    return Driven(ceiling(whole, placed), whole)
