"""A map: every combination of two figures of a design, worked out as one column of designs.

Air is reached by the depth of the case (or the measured volume), tuning by added mass or port
length, as the edits of these figures do it; all else stays. What cannot be built says why.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.columns import put
from firecrest.assessment.lower.whole import lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.sounding import cabinet_in, model_in
from firecrest.assessment.vary import Answers, vary
from firecrest.assessment.worth import worst_must
from firecrest.core.arrays import Real
from firecrest.core.errors import DesignError, RangeError
from firecrest.design.blocks import passes
from firecrest.design.box import Port, RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, facts_at, set_number, value_at
from firecrest.design.shapes import inner_size, shape_of
from firecrest.design.sources import Pack
from firecrest.proposals.free import free_path, met_by
from firecrest.proposals.inverse import tuner_path, tuning_of, twins

Key = Literal[
    "air", "length", "height", "depth", "tuning", "mass", "port", "boost", "cells", "crossover"
]  # fmt: skip
COARSE, FINE = (32, 24), (56, 42)
"""Nodes across and up: first picture, and refined."""
FIRST_GRID, SECOND_GRID = EDIT_GRID[4:256:4], EDIT_GRID[::2]
"""Hz: 64 points for the first picture, 151 for the refined one."""
RAMP = 48
HEAVIEST = 0.18
"""Added mass in kg beyond which a radiator is not loaded: it would sag, and its surround tire."""
FOLDS = 3.0
"""A port is folded into a case up to so many times its longest side inside."""
SPANS = {"air": (0.5, 1.6), "tuning": (0.6, 1.6), "port": (0.4, 2.5)}
"""Shares of the present value from which to which an axis runs."""
BUILT, TOO_HIGH, TOO_LOW, NO_AIR = range(4)
"""What becomes of a node."""
SPARE = "spare of "
"""Begins the name of what a kind of limit has to spare, before its letter."""
EDGE = 1e-9
"""Share by which rounding may put a tuning beyond its range."""


@dataclass(frozen=True)
class Axis:
    """One of the two figures: from ``low`` to ``high`` in SI, where it stands ``now``."""

    key: Key
    low: float
    high: float
    now: float
    whole: bool = False


@dataclass(frozen=True)
class Map:
    """Promises over ``x`` (n,) and ``y`` (m,), and what limits have to spare in dB: arrays (m, n),
    NaN where not known.

    ``fate`` tells what becomes of each node, ``letters`` what gives first where loudness is held,
    ``worst`` is the dB of the worst promise, ``size`` the m to spare.
    """

    across: Axis
    up: Axis
    x: Real
    y: Real
    values: Mapping[str, Real]
    worst: Real
    size: Real
    letters: Real
    fate: Real
    fine: bool


def axes_of(design: Design) -> list[Key]:
    """Figures that this design can be mapped over."""
    found: list[Key] = ["air", "length", "height", "depth"]
    if tuner_path(design) is not None:
        found.insert(1, "tuning")
    if placed(design.box.openings, RadiatorSet):
        found.append("mass")
    if placed(design.box.openings, Port):
        found.append("port")
    if _boosted(design) is not None:
        found.append("boost")
    if isinstance(design.power.source, Pack):
        found.append("cells")
    if _crossed(design):
        found.append("crossover")
    return found


def axis_of(design: Design, key: Key) -> Axis:
    """An axis round the present value: DesignError where the design has no such figure."""
    if key not in axes_of(design):
        raise DesignError(f"There is no {key} to be mapped in this design.")
    now = value_of(design, key)
    if key == "boost":
        return Axis(key, 0.0, max(now + 3.0, 6.0), now)
    if key == "cells":
        return Axis(key, 1.0, max(6.0, now + 2), now, whole=True)
    if key == "mass":
        return Axis(key, 0.0, max(HEAVIEST / 2, 2 * now), now)
    below, above = SPANS.get(key, (0.7, 1.4))
    low, high = below * now, above * now
    for path in paths_of(design, key):
        facts = facts_at(design, path)
        low, high = max(low, facts.low), min(high, facts.high)
    return Axis(key, low, high, now)


def value_of(design: Design, key: Key) -> float:
    """Where a design stands on an axis."""
    if key == "air":
        return float(cabinet_of(design).air[0])
    if key == "tuning":
        return float(tuning_of(design) or 0.0)
    return float(value_at(design, paths_of(design, key)[0]))


def paths_of(design: Design, key: Key) -> list[Path]:
    """The stored figures that an axis moves directly."""
    if key in ("length", "height", "depth"):
        return [("box", "case", key)]
    if key == "mass":
        place = placed(design.box.openings, RadiatorSet)[0][0]
        return twins(design, ("box", "openings", place, "added_mass"))
    if key == "port":
        place, port = placed(design.box.openings, Port)[0]
        side = "diameter" if port.shape == "round" else "height"
        return twins(design, ("box", "openings", place, side))
    if key == "boost":
        found = _boosted(design)
        return [] if found is None else [found]
    if key == "cells":
        return [("power", "source", "parallel")]
    return _crossed(design) if key == "crossover" else []


def _boosted(design: Design) -> Path | None:
    """The largest boost of the voice."""
    found: list[tuple[float, Path]] = [
        (block.gain, ("voice", "channels", k, "blocks", n, "gain"))
        for k, channel in enumerate(design.voice.channels)
        for n, block in enumerate(channel.blocks)
        if hasattr(block, "gain") and not block.bypassed
    ]
    gain, path = max(found, key=lambda item: item[0], default=(-1.0, ()))
    return path if gain >= 0 else None


def _crossed(design: Design) -> list[Path]:
    """Corners of the low-pass of one channel and the high-passes of others at the same place."""
    corners: dict[float, list[tuple[str, Path]]] = {}
    for k, channel in enumerate(design.voice.channels):
        for n, block in enumerate(channel.blocks):
            kind = passes(block)
            if kind is not None:
                path = ("voice", "channels", k, "blocks", n, "frequency")
                corners.setdefault(block.frequency, []).append((kind, path))
    for found in corners.values():
        if {kind for kind, _ in found} == {"low_pass", "high_pass"}:
            return [path for _, path in found]
    return []


def maps(design: Design, across: Key, up: Key) -> Iterator[Map]:
    """The map of a design over two figures: coarse at once, then finer."""
    x, y = axis_of(design, across), axis_of(design, up)
    yield map_of(design, x, y, COARSE, FIRST_GRID, fine=False)
    yield map_of(design, x, y, FINE, SECOND_GRID, fine=True)


def moved_map(design: Design, across: Axis, up: Axis) -> Iterator[Map]:
    """The coarse map of another design over the same stretch."""
    yield map_of(design, across, up, COARSE, FIRST_GRID, fine=False)


def map_of(
    design: Design, x: Axis, y: Axis, nodes: tuple[int, int], frequency: Real, *, fine: bool
) -> Map:
    """One map on so many nodes."""
    xs, ys = _spaced(x, nodes[0]), _spaced(y, nodes[1])
    grid_x, grid_y = (v.ravel() for v in np.meshgrid(xs, ys))
    columns, fate = _columns(design, {x.key: grid_x, y.key: grid_y})
    found = vary(design, columns, frequency, spares=True)
    shape = (len(ys), len(xs))
    return _read(found, fate.reshape(shape), x, y, xs, ys, fine=fine)


def _spaced(axis: Axis, count: int) -> Real:
    if axis.whole:
        return np.arange(axis.low, axis.high + 0.5)
    return np.linspace(axis.low, axis.high, count)


def _read(found: Answers, fate: Real, x: Axis, y: Axis, xs: Real, ys: Real, *, fine: bool) -> Map:
    shape = fate.shape
    lost = fate != BUILT

    def _grid(values: Real) -> Real:
        return np.where(lost, np.nan, np.broadcast_to(values, (fate.size, 1)).reshape(shape))

    values = {v.key: _grid(v.predicted) for v in found.verdicts}
    values |= {f"{SPARE}{code}": _grid(spare) for code, spare in found.spares}
    size = _grid(found.verdict("size").margin)
    worst = np.array([worst_must(found.promises(row)) for row in range(fate.size)])
    letters = np.zeros(shape, dtype=np.uint8)
    if found.letter is not None:
        letters = np.broadcast_to(found.letter, (fate.size, 1)).reshape(shape).astype(np.uint8)
    letters = np.where(lost, 0, letters)
    return Map(x, y, xs, ys, values, _grid(worst[:, None]), size, letters, fate, fine)


def _columns(design: Design, wanted: Mapping[Key, Real]) -> tuple[dict[Path, Real], Real]:
    """(stored figures of every node, what becomes of each)."""
    count = len(next(iter(wanted.values())))
    columns: dict[Path, Real] = {}
    for key, values in wanted.items():
        for path in paths_of(design, key):
            columns[path] = values
    fate = np.full(count, BUILT)
    air = wanted.get("air")
    stated = design.box.chambers[0].stated_volume is not None
    volume = ("box", "chambers", 0, "stated_volume")
    if "tuning" in wanted:
        known = columns if air is None else {**columns, volume: air}
        columns |= _tuned(design, known, wanted["tuning"], fate)
    if air is not None and stated:
        columns[volume] = air
    elif air is not None:
        columns[free_path(design)] = _sides(design, columns, air, fate)
    return columns, _fated(design, columns, fate)


def _tuned(
    design: Design, columns: Mapping[Path, Real], wanted: Real, fate: Real
) -> dict[Path, Real]:
    """Values of the tuner with which each node is tuned as wanted; marks those that cannot be.

    1/f^2 is all but straight in the mass of what is tuned, so that few points are enough.
    """
    path = tuner_path(design)
    assert path is not None
    facts = facts_at(design, path)
    contexts, place = np.unique(
        np.array([*columns.values(), np.zeros(len(wanted))]).T, axis=0, return_inverse=True
    )
    moved, paths = twins(design, path), list(columns)
    high = HEAVIEST if path[-1] == "added_mass" else _longest(design)
    ramp = facts.low + (high - facts.low) * np.linspace(0.0, 1.0, RAMP) ** 2
    tuned = _tunings(design, paths, contexts, moved, ramp)
    asked, found = 1.0 / np.square(wanted), np.empty(len(wanted))
    for k in range(len(contexts)):
        rows = np.ravel(place) == k
        found[rows] = _interpolated(ramp, tuned[k], asked[rows], fate, rows)
    if len(wanted) == 1 and fate[0] == BUILT:
        near = np.clip(found[0] * np.linspace(0.9, 1.1, RAMP), facts.low, high)
        tuned = _tunings(design, paths, contexts, moved, near)
        found = _interpolated(near, tuned[0], asked, fate, np.array([True]))
    return dict.fromkeys(moved, found)


def _interpolated(ramp: Real, tuned: Real, asked: Real, fate: Real, rows: Real) -> Real:
    """Values on a ``ramp`` that give the ``asked`` 1/f^2; marks the fate of rows that get none."""
    inverse = 1.0 / np.square(tuned)
    known = np.isfinite(inverse)
    if not known.any():
        fate[rows] = NO_AIR
        return np.full(len(asked), ramp[0])
    rising, at = inverse[known], ramp[known]
    order = np.argsort(rising)
    fates = np.where(asked < rising.min() * (1 - EDGE), TOO_HIGH, fate[rows])
    fate[rows] = np.where(asked > rising.max() * (1 + EDGE), TOO_LOW, fates)
    return np.asarray(np.interp(asked, rising[order], at[order]))


def _longest(design: Design) -> float:
    return FOLDS * float(max(inner_size(shape_of(design.box.case))))


def _tunings(
    design: Design, paths: list[Path], contexts: Real, moved: list[Path], ramp: Real
) -> Real:
    """Tunings (contexts, ramp) in Hz of the first chamber; NaN where no air is left."""
    made = design
    for k, path in enumerate(paths):
        made = put(made, path, np.repeat(contexts[:, k], len(ramp))[:, None])
    values = np.tile(ramp, len(contexts))[:, None]
    for path in moved:
        made = put(made, path, values)
    model = model_in(lower(made, Memo(AFRESH)).inputs, Memo(AFRESH))
    tuning = model.tuning[0]
    assert tuning is not None
    found = np.broadcast_to(tuning, values.shape)
    found = np.where(np.broadcast_to(model.full[0], values.shape), np.nan, found)
    return np.reshape(found, (len(contexts), len(ramp)))


def _sides(design: Design, columns: Mapping[Path, Real], air: Real, fate: Real) -> Real:
    """The case's free dimension with which the first chamber has this net ``air``."""
    found, met = met_by(design, columns, free_path(design), air)
    fate[~met] = NO_AIR
    return found


def _fated(design: Design, columns: dict[Path, Real], fate: Real) -> Real:
    """Nodes whose chambers hold no air are lost; every column is kept within its range."""
    made = design
    for path, values in columns.items():
        facts = facts_at(design, path)
        columns[path] = np.clip(values, facts.low, facts.high)
        made = put(made, path, columns[path][:, None])
    rolled = cabinet_in(lower(made, Memo(AFRESH)).inputs, Memo(AFRESH))
    for air in rolled.air:
        fate[np.broadcast_to(np.ravel(air) <= 0, fate.shape)] = NO_AIR
    return fate


def design_at(design: Design, wanted: Mapping[Key, float]) -> Design:
    """The design at a point of a map: a real one, with the figures of its node.

    RangeError says why it cannot be built.
    """
    columns, fate = _columns(design, {key: np.array([value]) for key, value in wanted.items()})
    if fate[0] != BUILT:
        _refuse(design, int(fate[0]))
    made = design
    for path, values in columns.items():
        value = float(values[0])
        made = set_number(made, path, round(value) if facts_at(design, path).whole else value)
    return made


def _refuse(design: Design, fate: int) -> None:
    """Why a point cannot be built."""
    if fate == NO_AIR:
        raise RangeError("That leaves no air.")
    path = tuner_path(design)
    radiators = path is not None and path[-1] == "added_mass"
    if fate == TOO_HIGH and radiators:
        raise RangeError("This box cannot be tuned so high: a bare radiator is too heavy.")
    if fate == TOO_HIGH:
        raise RangeError("This box cannot be tuned so high: the port cannot be shorter.")
    if radiators:
        raise RangeError(f"That takes more than {1e3 * HEAVIEST:.0f} g on each radiator.")
    raise RangeError("That takes a port too long for the case.")
