"""Sites where a box yields with its own level: mouths of ports, cones, coils, radiators.

What yields is a drive against its own flow, so a box at any level is its answers to the channels
and to each site, and a small system in what flows there: (1 + Y N) Q = Q0, with N the load that
each site makes of its own level. Mouths lose by the square law; a bent suspension adds stiffness, a
bent motor loses force and back-voltage alike (``core/acoustics/large_signal``).
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import reduce
from math import sqrt

import numpy as np

from firecrest.core.acoustics.large_signal import Bends, met
from firecrest.core.arrays import Complex, Number, Real, inverse
from firecrest.core.circuit.nodes import Nodes

CLOSE = 1e-5
"""Share to which flows and travels agree with the load that they make."""
MOST_STEPS = 100
FIRST_FALL, FALLS = -1.3, (-4.0, -0.4)
"""How steeply what a travel lacks falls with it (log, log): at first, and between these."""
LEAST = 1e-300
"""Stands for no flow, so that logarithms stay numbers."""
Load = Mapping[tuple[int, int], Complex]
"""(row of the drive, row of what makes it): newton, volt or pascal per what flows there."""


@dataclass(frozen=True)
class MouthSite:
    """Row of the flow of one port (m3/s), which is that of the pressure lost; ``resistance`` in Pa
    s/m3 per m3/s rms.
    """

    row: int
    resistance: Number


@dataclass(frozen=True)
class ConeSite:
    """Rows of a cone's velocity (m/s, driven by a force) and of its coil's current (A, driven by a
    voltage), with the driver's values at rest.
    """

    velocity: int
    current: int
    bl: Number
    c_ms: Number
    l_e: Number
    bends: Bends


@dataclass(frozen=True)
class RadiatorSite:
    """Row of the flow of one radiator (m3/s), driven by a pressure on it."""

    row: int
    area: Number
    compliance: Number
    bends: Bends


@dataclass(frozen=True)
class Sites:
    """Everything that yields in a box."""

    mouths: tuple[MouthSite, ...] = ()
    cones: tuple[ConeSite, ...] = ()
    radiators: tuple[RadiatorSite, ...] = ()


Levels = tuple[Real, ...]
"""ln of the flow of each mouth (rms) and of the peak of each cone and radiator (m), in this order,
and Re(i/x) of each cone.
"""


@dataclass(frozen=True)
class Settled:
    """What flows at each site and the drive there, (n, ..., F), with the levels that agree."""

    flows: Complex
    drives: list[Complex]
    levels: Levels


def settled(
    still: Complex, answer: Complex, sites: Sites, omega: Real, start: Levels = ()
) -> Settled:
    """What flows at each site once loads and levels agree, from ``start`` or from without load.

    ``still`` is what would flow without any load, ``answer`` (n, n, ..., F) what flows at one site
    per unit of drive at another. Each step solves for the flows; a mouth then moves as Newton's
    rule for it alone has it, exact where there is but one, a travel by the secant of its last two
    steps. What has settled stays, so that no design or frequency depends on its neighbours. The
    iteration is our own.
    """
    levels = list(start or _first(still, answer, sites, omega))
    count = len(sites.mouths) + len(sites.cones) + len(sites.radiators)
    before: list[tuple[Real, Real]] = []
    for _ in range(MOST_STEPS):
        load = _load(levels, sites, omega)
        whole = loaded(still, answer, load)
        found = _found(whole, sites, omega)
        apart = [new - old for new, old in zip(found[:count], levels[:count], strict=True)]
        moving = reduce(np.maximum, map(np.abs, apart)) >= CLOSE
        if not moving.any():
            break
        steps = _steps(apart, levels, before, answer, sites)
        before = list(zip(levels[:count], apart, strict=True))
        steps += [new - old for new, old in zip(found[count:], levels[count:], strict=True)]
        levels = [x + np.where(moving, s, 0.0) for x, s in zip(levels, steps, strict=True)]
    drives: list[Complex] = [np.zeros(())] * len(still)
    for (row, column), value in load.items():
        drives[row] = drives[row] - value * whole[column]
    return Settled(whole, drives, tuple(levels))


def _first(still: Complex, answer: Complex, sites: Sites, omega: Real) -> Levels:
    """Where to begin: without load, or what is left where loss is nearly all there is."""
    found = list(_found(still, sites, omega))
    for n, site in enumerate(sites.mouths):
        own = np.maximum(np.abs(answer[site.row, site.row] * site.resistance), LEAST)
        found[n] = np.minimum(found[n], 0.5 * (found[n] - np.log(own)))
    return tuple(found)


def _found(whole: Complex, sites: Sites, omega: Real) -> Levels:
    """The levels that flows come to."""
    return (
        *(np.log(np.maximum(np.abs(whole[m.row]), LEAST)) for m in sites.mouths),
        *(np.log(_peak(whole[c.velocity], omega)) for c in sites.cones),
        *(np.log(_peak(whole[r.row] / r.area, omega)) for r in sites.radiators),
        *(_turned(whole, c, omega) for c in sites.cones),
    )


def _steps(
    apart: list[Real],
    levels: list[Real],
    before: list[tuple[Real, Real]],
    answer: Complex,
    sites: Sites,
) -> list[Real]:
    """By how much each level moves."""
    steps = []
    for n, off in enumerate(apart):
        if n < len(sites.mouths):
            mouth = sites.mouths[n]
            lost = answer[mouth.row, mouth.row] * mouth.resistance * np.exp(levels[n])
            steps.append(off / (1.0 + np.real(lost / (1.0 + lost))))
            continue
        slope = np.full_like(off, FIRST_FALL)
        if before:
            moved, was = levels[n] - before[n][0], before[n][1]
            with np.errstate(divide="ignore", invalid="ignore"):
                secant = (off - was) / moved
            told = np.abs(moved) > CLOSE
            slope = np.where(told, np.clip(np.where(told, secant, -1.0), *FALLS), FIRST_FALL)
        steps.append(-off / slope)
    return steps


def _peak(velocity: Complex, omega: Real) -> Real:
    return np.maximum(sqrt(2.0) * np.abs(velocity) / omega, LEAST)


def _turned(whole: Complex, site: ConeSite, omega: Real) -> Real:
    """Re(i/x): how much of the current is in phase with the travel, A/m."""
    velocity = whole[site.velocity]
    square = np.maximum(np.abs(velocity) ** 2, LEAST)
    return np.asarray(np.real(1j * omega * whole[site.current] * np.conj(velocity)) / square)


def _load(levels: list[Real], sites: Sites, omega: Real) -> Load:
    """What each site makes of its level."""
    load: dict[tuple[int, int], Complex] = {}
    first = len(sites.mouths) + len(sites.cones)
    for mouth, size in zip(sites.mouths, levels, strict=False):
        load[mouth.row, mouth.row] = np.asarray(mouth.resistance * np.exp(size))
    for n, site in enumerate(sites.radiators):
        stiffer = (met(site.bends, np.exp(levels[first + n])).stiffness - 1.0) / site.compliance
        load[site.row, site.row] = stiffer / (1j * omega * site.area**2)
    for n, cone in enumerate(sites.cones):
        m = met(cone.bends, np.exp(levels[len(sites.mouths) + n]))
        turned = levels[first + len(sites.radiators) + n]
        lost = cone.bl * (m.force - 1.0)
        stiffer = (m.stiffness - 1.0) / cone.c_ms - cone.bl * m.force_aside * turned
        v, i = cone.velocity, cone.current
        load[v, v] = stiffer / (1j * omega)
        load[v, i] = -lost
        load[i, v] = lost + cone.l_e * m.inductance_aside * turned
        load[i, i] = 1j * omega * cone.l_e * (m.inductance - 1.0)
    return load


def loaded(still: Complex, answer: Complex, load: Load) -> Complex:
    """What flows at each site (n, ..., F) under a ``load``: (1 + Y N) Q = Q0, up to two by hand."""
    count = len(still)
    if count == 1:
        return np.asarray(still[0] * inverse(1.0 + answer[0, 0] * load[0, 0]))[None]
    if count == 2 and len(load) == 2:
        one, two = load[0, 0], load[1, 1]
        first, second = 1.0 + answer[0, 0] * one, 1.0 + answer[1, 1] * two
        back, forth = answer[0, 1] * two, answer[1, 0] * one
        whole = inverse(first * second - back * forth)
        near = (second * still[0] - back * still[1]) * whole
        return np.stack(np.broadcast_arrays(near, (first * still[1] - forth * still[0]) * whole))
    system = Nodes(count, 1)
    for n in range(count):
        system.add(n, n, np.ones(()))
        system.drive(n, 0, still[n])
        for (row, column), value in load.items():
            system.add(n, column, answer[n, row] * value)
    return np.stack(np.broadcast_arrays(*(q[0] for q in system.solved())))
