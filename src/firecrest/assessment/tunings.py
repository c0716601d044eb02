"""Best tuning of many designs at once: added mass of the first radiators, or length of the ports.

Each design is scanned over the tunings it can reach, all designs and tunings in one stack, and once
more, finer, around its best. Loudness as promised is what is made largest: it already weighs the
bass by the promised shape.
"""

import dataclasses
from collections.abc import Sequence
from functools import partial
from math import pi
from typing import Any

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.batch import Group, Numbers, grouped, played
from firecrest.assessment.cabinet import port_outer_volume
from firecrest.assessment.figures import GRAVITY
from firecrest.assessment.lowering import BoxModel, lowest_low_pass, port_model
from firecrest.assessment.stacking import mapped
from firecrest.core.acoustics import chambers as air_rules
from firecrest.core.acoustics.elements import Network, Port
from firecrest.core.arrays import Real
from firecrest.core.limits import promise as rules
from firecrest.core.limits.elements import Ratings
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, replace_at

COUNT = 16
FINER = 5
"""Points from the loudest to each neighbour."""
THIN = 3
HEAVIEST = 5.0
"""Total moving mass of a radiator at most, as a multiple of its own."""
MOST_ADDED = 2.0
LEAST_LENGTH, LONGEST, MOST_FOLDS = 0.01, 3.0, 4.0
"""Port length from 10 mm to this many times the longest inner dimension, 3 m at most."""
MOST_AIR = 0.5
"""A port may take at most this share of the air."""
LOWEST_SHARE, HIGHEST_SHARE = 0.5, 2.0
"""Tunings from half to twice the promised bass note."""
STACK = 400_000
"""Values per array at most: larger stacks leave the cache and run slower."""


def tuning_path(design: Design) -> Path | None:
    """What tunes the first opening; None when all is closed."""
    if design.box.radiators:
        return ("box", "radiators", 0, "added_mass")
    return ("box", "ports", 0, "length") if design.box.ports else None


def best_tunings(designs: Sequence[Design], count: int = COUNT) -> list[Design]:
    """Each design at its best tuning; one that is closed or lacks a figure stays as it is."""
    tuned = list(designs)
    bare = [_bare(design) for design in designs]
    open_ones = [k for k, design in enumerate(designs) if tuning_path(design) is not None]
    frequency = scan_grid(designs[0]) if designs else EDIT_GRID
    groups, _ = grouped([bare[k] for k in open_ones], frequency)
    for group in groups:
        best = _best_of(group, frequency, count)
        for job, value in zip(group.jobs, best, strict=True):
            place = open_ones[job.place]
            path = tuning_path(designs[place])
            assert path is not None
            tuned[place] = replace_at(designs[place], path, float(value))
    return tuned


def _place(network: Network) -> int:
    """The chamber that the first opening tunes."""
    return (network.radiators or network.ports)[0].chamber


def _bare(design: Design) -> Design:
    """Without added mass, so that the scan starts from the radiator's own."""
    if not design.box.radiators:
        return design
    return replace_at(design, ("box", "radiators", 0, "added_mass"), 0.0)


def scan_grid(design: Design) -> Real:
    """Points of the edit grid over the band in which loudness is judged."""
    low = design.brief.bass.frequency / 1.1
    return EDIT_GRID[(low <= EDIT_GRID) & (rules.TOP * 1.1 >= EDIT_GRID)]


def _thinned(group: Group, frequency: Real) -> tuple[Group, Real]:
    """The group on every third point, for the first pass."""
    rows = [voice[..., ::THIN] for voice in group.rows]
    return dataclasses.replace(group, rows=rows), frequency[::THIN]


def _best_of(group: Group, frequency: Real, count: int) -> Real:
    """Best added mass or length of each design of a group, (designs,)."""
    low, high = _range(group)
    values = _spaced(low, high, np.linspace(0.0, 1.0, count))
    thin, coarse = _thinned(group, frequency)
    values = _around(values, scanned(thin, values, coarse))
    values = _around(values, scanned(thin, values, coarse))
    best = np.argmax(scanned(group, values, frequency), axis=1)
    value = values[np.arange(len(best)), best]
    radiators = group.numbers.model.network.radiators
    if radiators:
        value = np.maximum(value - np.ravel(radiators[0].mass), 0.0)
    return np.asarray(value)


def _around(values: Real, loud: Real) -> Real:
    """Finer values between the neighbours of the loudest, which among them stays."""
    best, take = np.argmax(loud, axis=1), np.arange(len(values))
    here = values[take, best][:, None]
    a = values[take, np.maximum(best - 1, 0)][:, None]
    b = values[take, np.minimum(best + 1, values.shape[1] - 1)][:, None]
    half = np.linspace(0.0, 1.0, FINER)
    return np.concatenate([a + (here - a) * half, here + (b - here) * half[1:]], axis=1)


def _spaced(low: Real, high: Real, ramp: Real) -> Real:
    """Values whose tunings, which go with 1/sqrt of mass or length, are about evenly apart."""
    a, b = high**-0.5, low**-0.5
    return np.asarray((a + (b - a) * ramp) ** -2.0)


def _range(group: Group) -> tuple[Real, Real]:
    """(least, most) total moving mass of a radiator, or length of a port; (designs, 1) each."""
    network = group.numbers.model.network
    note, place = group.first.brief.bass.frequency, _place(network)
    box = np.asarray(network.chambers[place].compliance)
    if network.radiators:
        radiator = network.radiators[0]
        own = np.asarray(radiator.mass)
        stiffness = 1 / radiator.compliance + radiator.count * radiator.area**2 / box
        heaviest = np.minimum(HEAVIEST * own, own + MOST_ADDED)
        most = np.clip(stiffness / (2 * pi * LOWEST_SHARE * note) ** 2, own, heaviest)
        least = np.clip(stiffness / (2 * pi * HIGHEST_SHARE * note) ** 2, own, most)
        return np.asarray(least), np.asarray(most)
    port, model = group.first.box.ports[0], network.ports[0]
    outer = port.count * port_outer_volume(dataclasses.replace(port, length=1.0))
    least_air = min(job.rolled.air[place] for job in group.jobs) + outer * port.length
    longest = min(
        MOST_FOLDS * group.jobs[0].rolled.longest_inner, MOST_AIR * least_air / outer, LONGEST
    )

    def length(note: float) -> Real:
        """Length that tunes the present air to a note."""
        mass = 1 / ((2 * pi * note) ** 2 * box * model.count)
        return np.asarray(port.length + (mass - model.mass) * model.area / air.density)

    longest, air = max(longest, 2 * LEAST_LENGTH), group.numbers.air
    most = np.clip(length(LOWEST_SHARE * note), LEAST_LENGTH, longest)
    return np.clip(length(HIGHEST_SHARE * note), LEAST_LENGTH, most), most


def scanned(group: Group, values: Real, frequency: Real) -> Real:
    """Loudness in dB, (designs, tunings), with moving mass or length at ``values``."""
    designs, count = values.shape
    loud = np.empty((designs, count))
    brief, first = group.first.brief, group.jobs[0]
    low_pass = lowest_low_pass(group.first.voice.channels)
    f_hi = rules.upper_edge(first.rolled.longest_inner, first.numbers.air.speed, low_pass)
    size = max(1, STACK // (len(frequency) * count))
    for start in range(0, designs, size):
        rows = slice(start, start + size)
        voices = [np.repeat(v[rows], count, axis=0) if len(v) > 1 else v for v in group.rows]
        part = Group(group.jobs[rows], group.numbers, voices)
        numbers = mapped(group.numbers, partial(_each, rows=rows, count=count))
        numbers = _tuned(group.first, numbers, values[rows].reshape(-1, 1))
        _, _, top = played(part, numbers, frequency)
        bass = brief.bass
        level = rules.loudness_levels(
            frequency, top.level, brief.loudness.level, bass.frequency, bass.drop, f_hi
        )
        loud[rows] = level.reshape(-1, count)
    return loud


def _each(values: Real, rows: slice, count: int) -> Real:
    """Every design of ``rows`` ``count`` times."""
    return np.repeat(values[rows], count, axis=0)


def _tuned(design: Design, n: Numbers, values: Real) -> Numbers:
    """Stacked numbers with the first radiator's mass or port's length at ``values`` (rows, 1)."""
    network, ratings = n.model.network, n.ratings
    place = _place(network)
    box, radiators, ports = network.chambers[place].compliance, network.radiators, network.ports
    if radiators:
        radiators = (dataclasses.replace(radiators[0], mass=values), *radiators[1:])
        ratings = _sagging(design, n, values)
    else:
        port, model = design.box.ports[0], ports[0]
        longer = values - port.length
        tuned = port_model(port, values, n.air, model.chamber, model.opens_to, model.resistance)
        ports = (tuned, *ports[1:])
        if design.box.chambers[place].stated_volume is None:
            outer = port.count * port_outer_volume(dataclasses.replace(port, length=1.0))
            seems = 1 + design.box.chambers[place].stuffing
            box = box - air_rules.compliance(seems * outer * longer, n.air)
    reference = air_rules.tuning(
        box, [p for p in ports if p.chamber == place], [r for r in radiators if r.chamber == place]
    )
    network = _with_losses(design, n.model, reference, box, ports)
    network = dataclasses.replace(network, radiators=radiators)
    return dataclasses.replace(
        n, model=dataclasses.replace(n.model, network=network), ratings=ratings
    )


def _with_losses(
    design: Design, model: BoxModel, reference: Any, box: Any, ports: tuple[Port, ...]
) -> Network:
    """Losses given by a Q follow the tuning; a measured leak stays."""
    network, place = model.network, _place(model.network)
    old, was_at = network.chambers[place], model.reference[place]
    change = reference * box / (was_at * old.compliance)
    stays = design.box.chambers[place].leak_resistance is not None
    leak = old.leak if stays else old.leak * change
    chamber = dataclasses.replace(
        old, compliance=box, leak=leak, absorption=old.absorption / change
    )
    lossy = tuple(
        dataclasses.replace(
            new, resistance=new.resistance * reference * new.mass / (was_at * was.mass)
        )
        if new.chamber == place
        else new
        for new, was in zip(ports, network.ports, strict=True)
    )
    chambers = tuple(chamber if c is old else c for c in network.chambers)
    return dataclasses.replace(network, chambers=chambers, ports=lossy)


def _sagging(design: Design, n: Numbers, mass: Real) -> Ratings:
    """Travel left to a radiator that faces up or down: its sag g M C grows with its mass."""
    travel = n.ratings.radiator_travel
    if not design.box.radiators[0].horizontal or travel[0] is None:
        return n.ratings
    constants = n.model.radiators[0]
    left = np.maximum(travel[0] + constants.sag - GRAVITY * mass * constants.compliance, 0.0)
    return dataclasses.replace(n.ratings, radiator_travel=(left, *travel[1:]))
