"""Automatic EQ of a way or the sum: what is flattened, what may be boosted, what it costs."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import Acoustic, Assessment, assess
from firecrest.assessment.judging import spares_under
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.heard import VOICE_GRID, fan_of, ways_heard
from firecrest.core.arrays import Complex, Real, decibel
from firecrest.core.voice import targets
from firecrest.core.voice.dips import Dip, dips_of
from firecrest.core.voice.directivity import power_average
from firecrest.core.voice.equaliser import Bounds, Solved, Task, task_of
from firecrest.core.voice.phase import excess_phase
from firecrest.core.voice.response import REFERENCE, response_from
from firecrest.design.blocks import Parametric, followed, passes
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.edits.voice import sections_used

Shape = Literal["flat", "tilt", "warm", "points"]
Where = Literal["axis", "window", "power"]
WINDOW = 30.0
"""Degrees to either side of the listening window."""


@dataclass(frozen=True)
class Wish:
    """What to flatten: a channel (None: the sum, by its lowest ways alike), where, to which shape.

    ``slope`` in dB an octave is of ``tilt``, ``points`` (Hz, dB) of ``points``. With ``fill`` even
    cancellations may be filled. ``held`` keeps boosts under the ceiling.
    """

    channel: int | None
    where: Where
    shape: Shape
    bounds: Bounds
    count: int
    slope: float = targets.TILT
    points: tuple[tuple[float, float], ...] = ()
    offset: float = 0.0
    fill: bool = False
    held: bool = True


@dataclass(frozen=True)
class Flattening:
    """The task of a wish at ``frequency``, with the level it starts from and dips found."""

    task: Task
    level: Real
    target: Real
    dips: tuple[Dip, ...]
    ceiling: Real


def target_of(wish: Wish, frequency: Real) -> Real:
    """The wished shape in dB."""
    if wish.shape == "tilt":
        return targets.tilt(frequency, wish.slope)
    if wish.shape == "warm":
        return targets.warm(frequency)
    if wish.shape == "points":
        return targets.through_points(frequency, wish.points)
    return targets.flat(frequency)


def flattening(assessment: Assessment, a: Acoustic, wish: Wish) -> Flattening:
    """What the equaliser is to do, on the grid of the voice.

    A response of which something is not known takes no part: the band ends where curves do.
    """
    pressure = _pressure(assessment, a, wish)
    heard = ways_heard(assessment, a)
    level = np.asarray(decibel(np.abs(pressure) / REFERENCE))
    bounds = _on_points(wish.bounds, heard.known)
    loss = _loss(heard.ways) if wish.channel is None and len(heard.ways) > 1 else None
    excess = None
    if wish.where == "axis":
        excess = excess_phase(response_from(VOICE_GRID, pressure))
    dips = dips_of(VOICE_GRID, level, bounds.band, excess, loss)
    left_out = [] if wish.fill else [dip for dip in dips if dip.cancellation]
    ceiling = boost_ceiling(a)
    task = task_of(
        (VOICE_GRID, level),
        target_of(wish, VOICE_GRID),
        left_out,
        ceiling if wish.held else None,
        bounds,
        float(assessment.design.power.dsp.sample_rate),
        wish.offset,
    )
    return Flattening(task, level, target_of(wish, VOICE_GRID), tuple(dips), ceiling)


def _pressure(assessment: Assessment, a: Acoustic, wish: Wish) -> Complex:
    """What is to be flattened: one way or the sum, on the axis or averaged."""
    if wish.where == "axis":
        heard = ways_heard(assessment, a)
        return heard.whole if wish.channel is None else heard.ways[wish.channel]
    fan = fan_of(assessment, a, wish.channel)
    sums = fan.sums
    if wish.where == "window":
        sums = {angle: p for angle, p in sums.items() if abs(angle) <= WINDOW}
    return power_average(sums).astype(np.complex128)


def _loss(ways: Sequence[Complex]) -> Real:
    """Loss of the sum in dB."""
    whole, parts = np.abs(np.sum(ways, axis=0)), np.sum(np.abs(ways), axis=0)
    return np.asarray(decibel(whole) - decibel(parts))


def boost_ceiling(a: Acoustic) -> Real:
    """DB that each note may be boosted before the promise breaks there, never below 0."""
    spare = np.where(np.isfinite(a.top.level), a.top.level - a.asked, 0.0)
    found = np.interp(np.log(VOICE_GRID), np.log(EDIT_GRID), spare)
    return np.asarray(np.maximum(found, 0.0))


def _on_points(bounds: Bounds, known: tuple[float, float]) -> Bounds:
    """The band with its ends on points of the grid, within what is known."""
    low, high = max(bounds.band[0], known[0]), min(bounds.band[1], known[1])
    inside = VOICE_GRID[(low * (1 - 1e-9) <= VOICE_GRID) & (high * (1 + 1e-9) >= VOICE_GRID)]
    if len(inside) < 8:
        inside = VOICE_GRID[:8]
    return replace(bounds, band=(float(inside[0]), float(inside[-1])))


def with_bands(design: Design, channels: Sequence[int], found: Solved) -> Design:
    """The design with the bands of a solution in place of those that these channels had."""
    bands = tuple(
        Parametric(kind="parametric", frequency=round(f, 1), gain=round(gain, 2), q=round(q, 3))
        for f, gain, q in found.bands
        if abs(gain) >= 0.05
    )
    for k in channels:
        path = ("voice", "channels", k)
        channel = design.voice.channels[k]
        kept = [b for b in channel.blocks if not isinstance(b, Parametric)]
        design = replace_at(design, path, rebuilt(channel, blocks=followed(kept, *bands)))
    return design


def without_bands_of(design: Design, channels: Sequence[int]) -> Design:
    """The design without the parametric bands of some channels: what an EQ starts from."""
    return with_bands(design, channels, Solved((), 0.0, 1.0))


def channels_of(design: Design, wish: Wish) -> list[int]:
    """The channels that an EQ is written to: one, or all that play."""
    if wish.channel is not None:
        return [wish.channel]
    return list(range(len(design.voice.channels)))


def crosses(design: Design) -> bool:
    """Whether there is more than one way."""
    return bool(crossovers(design.voice)) or any(
        passes(b) is not None for c in design.voice.channels for b in c.blocks
    )


@dataclass(frozen=True)
class Cost:
    """What a changed voice does: dB of loudness, Hz of reach, s of play, dB of what travel has to
    spare under the promise, filters; None: not known.
    """

    loudness: float | None
    reach: float | None
    runtime: float | None
    travel: float | None
    filters: int


def cost_of(before: Assessment, design: Design) -> Cost:
    """Differences that a design makes, by assessing it."""
    after = assess(design, before.memo)

    def _change(key: str) -> float | None:
        old, new = before.promise(key).predicted, after.promise(key).predicted
        return None if old is None or new is None else float(new) - float(old)

    used = [sum(map(sections_used, d.voice.channels)) for d in (before.design, design)]
    travel = [_travel_spare(a.acoustic) for a in (before, after)]
    moved = None if None in travel else travel[1] - travel[0]  # type: ignore[operator]
    return Cost(_change("loudness"), _change("bass"), _change("runtime"), moved, used[1] - used[0])


def _travel_spare(a: Acoustic | None) -> float | None:
    """DB to spare of cones and radiators under the promise, at their worst note."""
    if a is None:
        return None
    found = [float(np.ravel(spare)[0]) for code, spare in spares_under(a.sound) if code in "CR"]
    return min(found) if found and np.isfinite(found).all() else None
