"""The ceiling: loudest clean level at each frequency, and what gives out first there."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from firecrest.core.arrays import Real, decibel
from firecrest.core.limits.elements import Hot, Limit

NARROWEST = 2.0 ** (1 / 12)
"""Runs narrower than this ratio join a neighbour in tints and sentences."""
NEARLY = 0.2
"""So do runs whose limit is within this many dB of the neighbour's throughout."""


@dataclass(frozen=True)
class Ceiling:
    """``level`` in dB (..., F), ``first`` the place in ``limits`` of the smallest factor."""

    limits: tuple[Limit, ...]
    level: Real
    first: Real

    def letters(self) -> Real:
        """Code letter of what gives first at each frequency, as its number, (..., F)."""
        numbers = np.array([ord(limit.code) for limit in self.limits], dtype=np.uint8)
        letters = numbers[self.first]
        for k, limit in enumerate(self.limits):
            if limit.pack is not None:
                letters[(self.first == k) & limit.pack] = ord("P")
        return letters

    def codes(self) -> str:
        """The letters of one design."""
        return spelt(self.letters())


def spelt(letters: Real) -> str:
    """Letters by their numbers, as text."""
    return bytes(letters.astype(np.uint8)).decode("ascii")


@dataclass(frozen=True)
class Run:
    """A contiguous stretch [start, stop] of grid points on which one limit gives first."""

    limit: int
    code: str
    start: int
    stop: int


def code_at(limit: Limit, point: int) -> str:
    """Code of ``limit`` at a grid point: swing counts as P where the pack is to blame."""
    if limit.pack is not None and limit.pack[point]:
        return "P"
    return limit.code


def smallest(limits: Sequence[Limit]) -> Real:
    """The smallest factor of all, (..., F)."""
    found = limits[0].factor
    for limit in limits[1:]:
        found = np.minimum(found, limit.factor)
    return found


def ceiling(unit_level: Real, limits: Sequence[Limit]) -> Ceiling:
    """Ceiling of a design whose unit input gives ``unit_level`` dB; shape (..., F)."""
    shape = np.broadcast_shapes(*(limit.factor.shape for limit in limits))
    lowest, first = np.full(shape, np.inf), np.zeros(shape, dtype=np.uint8)
    for k, limit in enumerate(limits):
        # Places rise, so the largest of the places met is the last smaller one; a mask costs more.
        smaller = (limit.factor < lowest).view(np.uint8)
        np.maximum(first, smaller * np.uint8(k), out=first)
        np.minimum(lowest, limit.factor, out=lowest)
    return Ceiling(tuple(limits), unit_level + decibel(lowest), first)


def softer(top: Ceiling, unit_level: Real, hot: Hot | None) -> tuple[Ceiling, Real]:
    """Ceiling and level per unit input where coils give out first: there they are hot, and the
    listener misses what that costs.
    """
    for place, limit in enumerate(top.limits):
        if hot is None or limit.name != "coil":
            continue
        there = top.first == place
        if there.any():
            lost = np.where(there, hot.losses[limit.index], 0.0)
            unit_level = unit_level - lost
            top = replace(top, level=top.level - lost)
    return top, unit_level


def raw_runs(top: Ceiling) -> tuple[Run, ...]:
    """Contiguous runs of (limit, code) of one design, as they come."""
    letters = top.letters()
    changes = (top.first[1:] != top.first[:-1]) | (letters[1:] != letters[:-1])
    edges = [0, *(np.nonzero(changes)[0] + 1).tolist(), len(letters)]
    return tuple(
        Run(int(top.first[start]), chr(letters[start]), start, stop - 1)
        for start, stop in pairwise(edges)
    )


def runs(top: Ceiling, frequency: Real) -> tuple[Run, ...]:
    """Runs for tints and sentences: slight ones merged into the neighbour that is closest.

    The narrowest is merged first, until every run is at least 1/12 octave wide and gives at
    least 0.2 dB less than its neighbours' limits somewhere.
    """
    current = list(raw_runs(top))
    while len(current) > 1:
        widths = [frequency[r.stop] / frequency[r.start] for r in current]
        for place in sorted(range(len(current)), key=lambda k: widths[k]):
            into, apart = _nearest(current, place, top)
            if widths[place] < NARROWEST or apart < NEARLY:
                current = _merge(current, place, into)
                break
        else:
            break
    return tuple(current)


def _nearest(current: list[Run], place: int, top: Ceiling) -> tuple[int, float]:
    """Neighbour whose limit is closest over the run at ``place``, and the most it differs, dB."""
    run = current[place]
    span = slice(run.start, run.stop + 1)
    here = top.limits[run.limit].factor[span]
    best, least = -1, np.inf
    for other in (place - 1, place + 1):
        if 0 <= other < len(current):
            there = top.limits[current[other].limit].factor[span]
            apart = float(np.max(decibel(there / here)))
            if apart < least or best < 0:
                best, least = other, apart
    return best, least


def _merge(current: list[Run], place: int, into: int) -> list[Run]:
    """The runs with ``place`` given to its neighbour ``into``, equal neighbours joined."""
    run, host = current[place], current[into]
    grown = Run(host.limit, host.code, min(run.start, host.start), max(run.stop, host.stop))
    low, high = min(place, into), max(place, into)
    merged = [*current[:low], grown, *current[high + 1 :]]
    joined: list[Run] = []
    for item in merged:
        if joined and (joined[-1].limit, joined[-1].code) == (item.limit, item.code):
            joined[-1] = Run(item.limit, item.code, joined[-1].start, item.stop)
        else:
            joined.append(item)
    return joined


def margins_at(
    top: Ceiling, unit_level: Real, frequency: Real, where: float, asked: float
) -> list[float]:
    """DB to spare of every limit against ``asked`` dB at ``where`` Hz, in order of limits."""
    log = np.log(frequency)
    return [
        float(np.interp(np.log(where), log, unit_level + decibel(limit.factor))) - asked
        for limit in top.limits
    ]
