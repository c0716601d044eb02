"""Where labels, tags, read-outs and the texts of axes stand, so that none covers another."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np


@dataclass(frozen=True)
class Rect:
    """A rectangle in pixels."""

    x: float
    y: float
    width: float
    height: float

    def overlaps(self, other: "Rect") -> bool:
        """Whether the two share any area."""
        return (
            self.x < other.x + other.width
            and other.x < self.x + self.width
            and self.y < other.y + other.height
            and other.y < self.y + self.height
        )


@dataclass(frozen=True)
class Request:
    """Something to place: its size, and spots (top left corners) in order of preference."""

    width: float
    height: float
    spots: Sequence[tuple[float, float]]


def place(requests: Sequence[Request], area: Rect, taken: Sequence[Rect] = ()) -> list[Rect | None]:
    """A rectangle for each request in turn, inside ``area`` and clear of all others.

    A request that fits nowhere gets None: leaving a label out beats printing over another.
    """
    held = np.empty((len(taken) + len(requests), 4))
    held[: len(taken)] = [(r.x, r.y, r.x + r.width, r.y + r.height) for r in taken] or 0.0
    count = len(taken)
    answers: list[Rect | None] = []
    for request in requests:
        left, top = np.array(request.spots, dtype=float).reshape(-1, 2).T
        right, bottom = left + request.width, top + request.height
        fits = (left >= area.x) & (right <= area.x + area.width)
        fits &= (top >= area.y) & (bottom <= area.y + area.height)
        x0, y0, x1, y1 = held[:count].T
        clear = (right[:, None] <= x0) | (left[:, None] >= x1)
        clear |= (bottom[:, None] <= y0) | (top[:, None] >= y1)
        good = np.flatnonzero(fits & clear.all(axis=1))
        if len(good) == 0:
            answers.append(None)
            continue
        k = int(good[0])
        held[count] = left[k], top[k], right[k], bottom[k]
        count += 1
        answers.append(Rect(float(left[k]), float(top[k]), request.width, request.height))
    return answers


def around(
    x: float, y: float, width: float, height: float, gap: float = 6.0
) -> list[tuple[float, float]]:
    """Spots for a label about a point: above, below, right, left, then further out."""
    found = []
    for k in (1.0, 2.5, 4.0, 6.0):
        d = gap * k
        found += [
            (x - width / 2, y - height - d),
            (x - width / 2, y + d),
            (x + d, y - height / 2),
            (x - width - d, y - height / 2),
            (x + d, y - height - d),
            (x - width - d, y - height - d),
            (x + d, y + d),
            (x - width - d, y + d),
        ]
    return found


TICK_GAP = 6.0
"""Least room in pixels between two texts of an axis."""


def apart(places: Sequence[float], widths: Sequence[float], ranks: Sequence[int]) -> list[bool]:
    """Which texts of an axis are shown so that none touches another.

    Texts stand centred at ``places`` (pixels, rising) and are ``widths`` wide. Both ends go first,
    then whatever has the lowest rank.
    """
    shown = [False] * len(places)
    ends = {0, len(places) - 1}
    for k in sorted(
        range(len(places)), key=lambda k: (k not in ends, k not in ends and ranks[k], k)
    ):
        shown[k] = all(
            abs(places[k] - places[j]) >= (widths[k] + widths[j]) / 2 + TICK_GAP
            for j in range(len(places))
            if shown[j]
        )
    return shown
