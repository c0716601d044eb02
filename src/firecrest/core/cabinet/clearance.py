"""How far things are from walls and from each other, and what can be taken out again.

Least wanted: 5 mm between still things (tolerance and rattle), 10 mm round a magnet for air, 3 mm
from a moving radiator's envelope; estimates.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from math import pi, sqrt

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.cabinet.cutouts import Rectangle, Round, across, area, framed, outline
from firecrest.core.cabinet.distance import apart, solids_apart
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.parts import (
    Driver,
    Framed,
    Knob,
    Part,
    Port,
    Radiator,
    cut_of,
    middle_line,
)
from firecrest.core.cabinet.shapes.shell import Shell, gaps_to
from firecrest.core.cabinet.solids import Solid, beyond, disc, slice_at, solid

STILL, MAGNET, MOVING = 0.005, 0.010, 0.003
SOFT_GROUND = 0.010
POCKET_LEAST = 0.003
OUTFLOW = 0.6
"""Estimates: soft ground below a box, what a pocket leaves of a panel, a vent's sharp edges."""
AIR_DENSITY, AIR_HEAT, ROOM = 1.204, 1005.0, 293.15
GRAVITY = 9.80665


@dataclass(frozen=True)
class Gap:
    """Least distance in m to ``wall``, and where; negative where a part stands in it."""

    gap: float
    wall: str
    at: tuple[float, float, float]


def wall_gap(body: Solid, own: str, at: Frame, shell: Shell) -> Gap | None:
    """Of what lies past its own panel's inner face to all other inner faces; None of nothing."""
    points = [beyond(piece, at, at.t - 1e-9) for piece in body.pieces]
    every = np.concatenate(points)
    if not len(every):
        return None
    walls = [wall for wall in shell.walls if wall.name != own]
    gaps = gaps_to(walls, every)
    k, worst = np.unravel_index(int(np.argmin(gaps)), gaps.shape)
    x, y, z = (float(c) for c in every[worst])
    return Gap(float(gaps[k, worst]), walls[int(k)].name, (x, y, z))


def removable(part: Driver, openings: Iterable[float]) -> bool:
    """Whether a driver comes out: its magnet through its cut-out, or its frame by a panel's hole.

    ``openings``: narrowest way through of every other opening, screwed panels included.
    """
    if part.from_inside:
        return any(way >= float(part.frame) for way in openings)
    return float(part.magnet_d) <= float(across(part.cut)) + 1e-9


def free_length(
    port: Port, at: Frame, shell: Shell, others: Iterable[Solid], most: float = 3.0
) -> tuple[float, Real]:
    """How far a cylinder of the bore runs on from the open end, and where that end is."""
    stretches, end, ahead = middle_line(port, at)
    _, a, b = stretches[-1][-1]
    rim = disc(end, a, b, float(port.bore) / 2)
    return free_ahead(rim, ahead, shell, others, most), end


def free_ahead(rim: Real, ahead: Real, shell: Shell, others: Iterable[Solid], most: float) -> float:
    """How far the outline ``rim`` (n, 3) runs on along the unit vector ``ahead``, m."""

    def _within(s: float) -> bool:
        return float(np.min(gaps_to(shell.walls, rim + s * ahead))) >= 0

    free = _farthest(_within, most)
    for other in others:

        def _clear(s: float, other: Solid = other) -> bool:
            ran = solid([np.stack([rim, rim + s * ahead])])
            near = solids_apart(ran, other, 0.0)
            return near is None or near.gap > 1e-6

        if free > 0 and not _clear(free):
            free = _farthest(_clear, free)
    return free


def _farthest(holds: Callable[[float], bool], most: float) -> float:
    """The largest s up to ``most`` up to which ``holds``, to 10 micrometres."""
    if not holds(0.0):
        return 0.0
    if holds(most):
        return most
    low, high = 0.0, most
    while high - low > 1e-5:
        middle = (low + high) / 2
        low, high = (middle, high) if holds(middle) else (low, middle)
    return low


def margins(part: Part, at: Frame, shell: Shell, rounding: float = 0.0) -> tuple[float, float]:
    """(cut-out, frame): how far each is within the flat of its panel, inside and outside, m.

    The cut-out counts at the inner face, against the other inner faces; the frame at the outer
    face, against the outer ones, less the ``rounding`` of the edges. A frame on a divider has
    inner faces around it, too.
    """
    cut = cut_of(part)
    if cut is None:
        return np.inf, np.inf
    rim = slice_at(at, outline(cut), at.t)
    frame_cut = framed(part.cut, part.frame) if isinstance(part, Driver | Radiator) else cut
    edge = slice_at(at, outline(frame_cut), 0.0)
    own = part.mount.panel
    walls = [wall for wall in shell.walls if wall.name != own]
    inner, outer = np.min(gaps_to(walls, rim)), [np.inf]
    for wall, gap in zip(walls, gaps_to(walls, edge).min(axis=1), strict=True):
        thick = shell.frames[wall.name].t if wall.name in shell.frames else shell.printed_wall
        if own not in shell.frames:
            outer.append(float(gap))
        elif wall.name != "rounded edge":
            outer.append(float(gap) + float(thick))
    return float(inner), min(outer) - (rounding if own in shell.frames else 0.0)


def frames_apart(one: tuple[Part, Frame], other: tuple[Part, Frame]) -> float:
    """Least distance of two frames on one panel, m; 0 where they overlap."""
    cuts = []
    for part, _ in (one, other):
        cut = cut_of(part)
        if cut is None:
            return np.inf
        cuts.append(framed(part.cut, part.frame) if isinstance(part, Driver | Radiator) else cut)
    a, b = cuts
    if isinstance(a, Round) and isinstance(b, Round):
        off = np.asarray(one[1].o, dtype=float) - np.asarray(other[1].o, dtype=float)
        return max(float(np.sqrt(off @ off)) - float(a.d + b.d) / 2, 0.0)
    return apart(
        *(slice_at(at, outline(cut), 0.0) for cut, (_, at) in zip(cuts, (one, other), strict=True))
    )


@dataclass(frozen=True)
class KnobFit:
    """Panel under a knob, the most its bushing takes, and how much a pocket must thin it by."""

    panel: float
    most: float
    thin_by: float

    @property
    def needs_plate(self) -> bool:
        """Whether the pocket would leave less than a panel should keep."""
        return self.thin_by > 0 and self.panel - self.thin_by < POCKET_LEAST


def knob_fit(knob: Knob, t: float) -> KnobFit:
    """A knob's bushing against its panel."""
    most = float(knob.bushing - knob.nut)
    return KnobFit(t, most, max(t - most, 0.0))


def down_firing_height(part: Framed) -> float:
    """Least height of feet under what fires down.

    The gap's area equals the cone's round its cut-out; travel, sag and soft ground come on top.
    """
    sounding = float(part.sd) if part.sd is not None else float(area(part.cut))
    cut = part.cut
    d = float(cut.a if isinstance(cut, Rectangle) else cut.d)
    sag = 0.0 if isinstance(part, Driver) else float(part.sag)
    return sounding / (pi * d) + float(part.xmax or 0.0) + sag + SOFT_GROUND


def vent_area(heat: float, height: float, rise: float) -> float:
    """Area in m2 of each of two vents ``height`` apart that carry ``heat`` W at ``rise`` K.

    Chimney draught: heat = rho cp A 0.6 sqrt(g h dT/T) dT.
    """
    draught = sqrt(GRAVITY * height * rise / ROOM)
    return heat / (AIR_DENSITY * AIR_HEAT * rise * OUTFLOW * draught)


def screw_margins(part: Framed, circle: float, hole: float) -> tuple[float, float]:
    """How far screw holes are inside the frame's edge and off the cut-out."""
    cut = float(part.cut.d) if not isinstance(part.cut, Rectangle) else float(part.cut.a)
    return (float(part.frame) - circle - hole) / 2, (circle - hole - cut) / 2
