"""Good spots of a map: nodes that are worth going to."""

from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Real
from firecrest.proposals.mapping import Map


@dataclass(frozen=True)
class Spot:
    """A node worth going to: what for, where, and the dB of its worst promise."""

    key: str
    x: float
    y: float
    worst: float


def spots(found: Map) -> list[Spot]:
    """Best for the worst promise; loudest inside the size; lightest as loud as the present."""
    made: dict[str, tuple[int, int]] = {}
    inside = (found.size >= 0) & np.isfinite(found.worst)
    loud, weight = found.values["loudness"], found.values["weight"]
    if inside.any():
        made["best"] = _most(np.where(inside, found.worst, -np.inf))
        if np.isfinite(loud[inside]).any():
            made["loudest"] = _most(np.where(inside & np.isfinite(loud), loud, -np.inf))
            now = _at(found, loud)
            as_loud = inside & (loud >= now - 0.05)
            if as_loud.any():
                made["lightest"] = _most(np.where(as_loud, -weight, -np.inf))
    return [
        Spot(key, float(found.x[n]), float(found.y[m]), float(found.worst[m, n]))
        for key, (m, n) in made.items()
    ]


def _most(values: Real) -> tuple[int, int]:
    m, n = np.unravel_index(int(np.argmax(values)), values.shape)
    return int(m), int(n)


def _at(found: Map, values: Real) -> float:
    """The value at the node nearest to where the design stands."""
    n = int(np.argmin(np.abs(found.x - found.across.now)))
    m = int(np.argmin(np.abs(found.y - found.up.now)))
    value = float(values[m, n])
    return value if np.isfinite(value) else float(np.nanmax(values))
