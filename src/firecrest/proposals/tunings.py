"""Best tuning of many designs at once: added mass of the first radiators, or length of the ports.

Each design is scanned over the tunings it can reach, all designs and tunings in one derivation, and
twice more, finer, around its best. Loudness as promised is what is made largest: it already weighs
the bass by the promised shape.
"""

from collections.abc import Sequence
from functools import partial
from math import pi
from typing import Any

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.columns import changed, mapped, put
from firecrest.assessment.conditions import air_of
from firecrest.assessment.judging import loudness_under
from firecrest.assessment.lower import inputs
from firecrest.assessment.lower.whole import Lowered, lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.openings import kind_of_opening
from firecrest.assessment.openings.port import port_outer_volume
from firecrest.assessment.sounding import cabinet_in, model_in, sounding
from firecrest.assessment.vary import VALUES, grouped
from firecrest.core.acoustics.openings import Radiator
from firecrest.core.arrays import Number, Real
from firecrest.core.limits.loudness import TOP
from firecrest.core.parallel import blocks_of, side_by_side
from firecrest.design.box import Port, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, replace_at
from firecrest.proposals.ports import folded

COUNT = 16
FINER = 5
"""Points from the loudest to each neighbour."""
THIN = 3
"""Every third grid point does for the first looks, unless pipes resonate between them."""
PIPED = 3
"""Times as many looks where a pipe's own resonances make more than one good length."""
HEAVIEST = 5.0
"""Total moving mass of a radiator at most, as a multiple of its own."""
MOST_ADDED = 2.0
LEAST_LENGTH, LONGEST, MOST_FOLDS = 0.01, 3.0, 4.0
"""Port length from 10 mm to this many times the longest inner dimension, 3 m at most."""
MOST_AIR = 0.5
"""A port may take at most this share of the air."""
LOWEST_SHARE, HIGHEST_SHARE = 0.5, 2.0
"""Tunings from half to twice the promised bass note."""


def tuning_path(openings: Sequence[object]) -> Path | None:
    """What tunes the first opening of a box; None when all is closed."""
    if not openings:
        return None
    return ("box", "openings", 0, kind_of_opening(openings[0]).tuner)


def best_tunings(designs: Sequence[Design], memo: Memo, count: int = COUNT) -> list[Design]:
    """Each design at its best tuning; one that is closed or lacks a figure stays as it is.

    A port is folded as often as its new length needs.
    """
    tuned = list(designs)
    frequency = scan_grid(designs) if designs else EDIT_GRID
    for places, lowered in grouped([lower(design, memo) for design in designs]):
        path = tuning_path(lowered.inputs.box.openings)
        if path is None or lowered.blocked or lowered.missing:
            continue
        best = _best_of(lowered, path, len(places), frequency, count)
        for place, value in zip(places, best, strict=True):
            made = replace_at(designs[place], path, float(value))
            tuned[place] = folded(made, 0) if path[-1] == "length" else made
    return tuned


def scan_grid(designs: Sequence[Design]) -> Real:
    """Where loudness can be held: from the promised note to 500 Hz, and a little more."""
    low = min(design.brief.bass.frequency for design in designs) / 1.1
    return EDIT_GRID[(low <= EDIT_GRID) & (TOP * 1.1 >= EDIT_GRID)]


def _best_of(lowered: Lowered, path: Path, designs: int, frequency: Real, count: int) -> Real:
    """Best added mass or length of each design of a group, (designs,)."""
    low, high = (np.broadcast_to(end, (designs, 1)) for end in _range(lowered.inputs, path))
    pipes = any(port.resonances for _, port in placed(lowered.inputs.box.openings, Port))
    values = spaced(low, high, np.linspace(0.0, 1.0, count * (PIPED if pipes else 1)))
    coarse = frequency if pipes else frequency[::THIN]
    for still, reach in ((True, PIPED if pipes else 1), (False, 1)):
        values = around(values, scanned(lowered, path, values, coarse, still=still), reach)
    best = np.argmax(scanned(lowered, path, values, frequency), axis=1)
    value = values[np.arange(len(best)), best]
    if path[-1] == "added_mass":
        value = np.maximum(value - np.ravel(_own_mass(lowered.inputs)), 0.0)
    return np.asarray(value)


def around(values: Real, loud: Real, reach: int = 1) -> Real:
    """Finer values between the neighbours of the loudest, ``reach`` away; it stays among them."""
    best, take = np.argmax(loud, axis=1), np.arange(len(values))
    here = values[take, best][:, None]
    a = values[take, np.maximum(best - reach, 0)][:, None]
    b = values[take, np.minimum(best + reach, values.shape[1] - 1)][:, None]
    half = np.linspace(0.0, 1.0, FINER + reach - 1)
    return np.concatenate([a + (here - a) * half, here + (b - here) * half[1:]], axis=1)


def spaced(low: Real, high: Real, ramp: Real) -> Real:
    """Values whose tunings, which go with 1/sqrt of mass or length, are about evenly apart."""
    a, b = high**-0.5, low**-0.5
    return np.asarray((a + (b - a) * ramp) ** -2.0)


def _own_mass(numbers: inputs.Inputs) -> Number:
    """Moving mass of the first radiator, bare."""
    first = numbers.box.openings[0]
    assert isinstance(first, inputs.Radiators)
    mass = first.radiator.mmp
    assert mass is not None
    return mass


def _range(numbers: inputs.Inputs, path: Path) -> tuple[Number, Number]:
    """(least, most) total moving mass of a radiator, or length of a port, of each design."""
    note = numbers.brief.bass.frequency
    network = model_in(numbers, Memo(AFRESH)).network
    element = network.openings[0]
    if isinstance(element, Radiator):
        radiator, own = element, _own_mass(numbers)
        box = network.chambers[radiator.chamber].compliance
        stiffness = 1 / radiator.compliance + radiator.count * radiator.area**2 / box
        heaviest = np.minimum(HEAVIEST * own, own + MOST_ADDED)
        most = np.clip(stiffness / (2 * pi * LOWEST_SHARE * note) ** 2, own, heaviest)
        return np.clip(stiffness / (2 * pi * HIGHEST_SHARE * note) ** 2, own, most), most
    port, model = numbers.box.openings[0], element
    assert isinstance(port, Port)
    box = network.chambers[model.chamber].compliance
    rolled = cabinet_in(numbers, Memo(AFRESH))
    outer = port.count * port_outer_volume(changed(port, {"length": 1.0}))
    air = rolled.air[model.chamber] + outer * port.length
    longest = np.minimum(
        np.minimum(MOST_FOLDS * rolled.longest_inner, MOST_AIR * air / outer), LONGEST
    )
    longest = np.maximum(longest, 2 * LEAST_LENGTH)
    per_metre = air_of(numbers.brief.conditions).density / model.area

    def _length(note: Number) -> Number:
        """Length that tunes the present air to a note."""
        mass = 1 / ((2 * pi * note) ** 2 * box * model.count)
        return port.length + (mass - model.mass) / per_metre

    most = np.clip(_length(LOWEST_SHARE * note), LEAST_LENGTH, longest)
    return np.clip(_length(HIGHEST_SHARE * note), LEAST_LENGTH, most), most


def scanned(
    lowered: Lowered, path: Path, values: Real, frequency: Real, *, still: bool = False
) -> Real:
    """Loudness in dB, (designs, tunings), with moving mass or length at ``values``.

    -inf where a tuning leaves no air. The first look is ``still``: without what fast air loses.
    """
    designs, count = values.shape
    own = _own_mass(lowered.inputs) if path[-1] == "added_mass" else 0.0
    free = np.maximum(values - own, 0.0)

    def _scanned(rows: slice) -> Real:
        some = mapped(lowered.inputs, partial(_each, rows=rows, count=count))
        some = put(some, path, free[rows].reshape(-1, 1))
        sound = sounding(some, frequency, Memo(AFRESH), still=still)
        level = np.broadcast_to(loudness_under(sound, sound.top).level, (free[rows].size, 1))
        full = np.any(np.broadcast_arrays(*sound.scene.model.full, level)[:-1], axis=0)
        return np.where(full | np.isnan(level), -np.inf, level).reshape(-1, count)

    blocks = blocks_of(designs, max(1, VALUES // (len(frequency) * count)))
    return np.concatenate(side_by_side(_scanned, blocks))


def _each(values: Any, rows: slice, count: int) -> Any:
    """Every design of ``rows`` ``count`` times."""
    column = isinstance(values, np.ndarray) and values.ndim > 1
    return np.repeat(values[rows], count, axis=0) if column else values
