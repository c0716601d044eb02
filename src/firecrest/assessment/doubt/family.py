"""Uncertain figures that are drawn together, and where their draws go."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.uncertainty.draw import NINETY, drawn, normals, sigma_of
from firecrest.design.edits.paths import Path


@dataclass(frozen=True)
class Column:
    """One column of draws: the places it moves, and which column of the sequence it takes.

    ``inputs`` are paths into the lowered numbers, ``figures`` into the design. Logarithmic ones
    multiply, others add; what they move stays within ``least`` and ``most``.
    """

    dimension: int
    inputs: tuple[Path, ...] = ()
    figures: tuple[Path, ...] = ()
    logarithmic: bool = True
    least: float = -np.inf
    most: float = np.inf


@dataclass(frozen=True)
class Figure:
    """A figure as a maker knows it: whose it is, where it stands, and which test settles it.

    ``weights`` make it of the family's columns; ``tolerance`` is its likely range, None where it
    only follows from others.
    """

    owner: str
    name: str
    path: Path
    test: str
    weights: tuple[float, ...]
    tolerance: float | None


@dataclass(frozen=True)
class Family:
    """Figures whose draws go with each other, with the ``covariance`` of their columns."""

    columns: tuple[Column, ...]
    covariance: tuple[tuple[float, ...], ...]
    figures: tuple[Figure, ...]

    @cached_property
    def spread(self) -> Real:
        """The covariance as an array (n, n)."""
        return np.array(self.covariance)

    def deviations(self, samples: int) -> Real:
        """Draws (n, samples)."""
        places = [column.dimension for column in self.columns]
        return drawn(self.spread, normals(samples)[:, places])


def family(columns: Iterable[Column], covariance: Real, figures: Iterable[Figure]) -> Family:
    """A family by arrays."""
    rows = tuple(tuple(float(v) for v in row) for row in covariance)
    return Family(tuple(columns), rows, tuple(figures))


def alone(owner: str, name: str, path: Path, test: str, share: float, column: Column) -> Family:
    """A figure that goes with no other; ``share`` is its likely range, of ones that add in SI."""
    sigma = sigma_of(share) if column.logarithmic else share / NINETY
    told = Figure(owner, name, path, test, (1.0,), share)
    return Family((column,), ((sigma**2,),), (told,))


def widened(known: Family, times: float) -> Family:
    """The family with every range ``times`` as wide, in sigmas."""
    rows = tuple(tuple(times**2 * v for v in row) for row in known.covariance)
    return replace(known, covariance=rows)
