"""Lining the ways up: levels, delays and polarities found, as steps that may be taken."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.sound import voice_rows
from firecrest.assessment.voicing.crossovers import (
    Crossover,
    corners,
    crossovers,
    in_order,
    plain_blocks,
)
from firecrest.assessment.voicing.heard import VOICE_GRID, bare_at, bare_ways
from firecrest.core.arrays import Complex, Real
from firecrest.core.voice.alignment import (
    Criterion,
    Found,
    Pair,
    Setting,
    Tracking,
    band_of_way,
    best_delay,
    gains_of,
    tracking,
)
from firecrest.core.voice.phase import Arrival, arrival
from firecrest.core.voice.response import REFERENCE, Response, response_from
from firecrest.design.edits.paths import rebuilt
from firecrest.design.voice import Channel

TOP = 10e3
"""Hz at which the band of the highest way ends."""


@dataclass(frozen=True)
class LinedPair:
    """One crossover: what the finder found, how the ways follow each other now and lined up."""

    crossover: Crossover
    found: Found
    now: Tracking


@dataclass(frozen=True)
class LineUp:
    """What lines the ways up, one entry a channel: bands (Hz) of the level match, gains in dB,
    delays in s, polarities, arrivals; and every pair.
    """

    bands: tuple[tuple[float, float], ...]
    levels: tuple[float, ...]
    gains: tuple[float, ...]
    delays: tuple[float, ...]
    inverted: tuple[bool, ...]
    arrivals: tuple[Arrival | None, ...]
    pairs: tuple[LinedPair, ...]


def way_bands(assessment: Assessment) -> tuple[tuple[float, float], ...]:
    """Where the level of each way is taken."""
    voice, reach = assessment.design.voice, assessment.design.brief.bass.frequency
    met = crossovers(voice)
    bands = []
    for k in range(len(voice.channels)):
        low, high = corners(voice, k, met)
        bands.append(band_of_way(low or None, None if np.isinf(high) else high, reach, TOP))
    return tuple((min(low, high / 1.1), high) for low, high in bands)


def line_up(assessment: Assessment, a: Acoustic, criterion: Criterion = "sum") -> LineUp:
    """Everything that lines the ways of a design up, none of it applied.

    ``criterion`` ``phase`` takes the delay that matches the phases best.
    """
    voice, rate = assessment.design.voice, assessment.design.power.dsp.sample_rate
    met, bands = crossovers(voice), way_bands(assessment)
    bare = assessment.memo(bare_ways, a.scene)
    eq = [voice_rows(_only_bands(c), rate, VOICE_GRID)[-1] for c in voice.channels]
    played = [response_from(VOICE_GRID, b * e) for b, e in zip(bare, eq, strict=True)]
    levels = [r.mean(*band) for r, band in zip(played, bands, strict=True)]
    gains = gains_of(levels)
    arrivals = [_arrival(response_from(VOICE_GRID, b), bands[k]) for k, b in enumerate(bare)]
    pairs = []
    for crossover in met:
        pair = _pair(assessment, a, crossover, gains)
        starts = arrivals[crossover.lower], arrivals[crossover.higher]
        start = 0.0 if None in starts else starts[0].delay - starts[1].delay  # type: ignore[union-attr]
        found = best_delay(pair, crossover.frequency, start, crossover.quadrature)
        now = tracking(present_pair(assessment, a, crossover), crossover.frequency)
        pairs.append(LinedPair(crossover, found, now))
    delays, inverted = _added_up(voice.channels, in_order(voice), pairs, criterion)
    return LineUp(bands, tuple(levels), gains, delays, inverted, tuple(arrivals), tuple(pairs))


def _arrival(curve: Response, band: tuple[float, float]) -> Arrival | None:
    """Arrival over the band of the level match, an octave wider at its upper end."""
    try:
        return arrival(curve, band[0], min(2 * band[1], 18e3))
    except ValueError:
        return None


def _only_bands(channel: Channel) -> Channel:
    """A chain of its bands and shelves alone."""
    return rebuilt(channel, gain=0.0, inverted=False, delay=0.0, blocks=plain_blocks(channel))


def _pair(
    assessment: Assessment, a: Acoustic, crossover: Crossover, gains: Sequence[float]
) -> Pair:
    """Two ways through all their blocks, matched in level, without delays and polarities."""
    channels = assessment.design.voice.channels
    made = [
        rebuilt(channels[k], gain=gains[k], inverted=False, delay=0.0)
        for k in (crossover.lower, crossover.higher)
    ]
    return _played(assessment, a, crossover, made)


def present_pair(assessment: Assessment, a: Acoustic, crossover: Crossover) -> Pair:
    """Two ways as they are."""
    channels = assessment.design.voice.channels
    made = [channels[k] for k in (crossover.lower, crossover.higher)]
    return _played(assessment, a, crossover, made)


def _played(
    assessment: Assessment, a: Acoustic, crossover: Crossover, channels: Sequence[Channel]
) -> Pair:
    rate = assessment.design.power.dsp.sample_rate
    known: dict[bytes, tuple[Complex, ...]] = {}

    def _bare(f: Real) -> tuple[Complex, ...]:
        key = f.tobytes()
        if key not in known:
            known[key] = bare_at(a.scene, f)
        return known[key]

    def _low(f: Real) -> Complex:
        return np.asarray(_bare(f)[crossover.lower] * voice_rows(channels[0], rate, f)[-1])

    def _high(f: Real) -> Complex:
        return np.asarray(_bare(f)[crossover.higher] * voice_rows(channels[1], rate, f)[-1])

    return Pair(_points(a, crossover), _low, _high)


def _points(a: Acoustic, crossover: Crossover) -> Real:
    """The points of the curves of two ways; the grid of the voice where they have none."""
    measured = [a.scene.ways.measured[k] for k in (crossover.lower, crossover.higher)]
    curves = [way.curve.frequency for way in measured if way is not None]
    return np.unique(np.concatenate(curves)) if curves else VOICE_GRID


def _added_up(
    channels: Sequence[Channel],
    order: Sequence[int],
    pairs: Sequence[LinedPair],
    criterion: Criterion,
) -> tuple[tuple[float, ...], tuple[bool, ...]]:
    """Delays (none negative) and polarities of all channels from those of the pairs.

    Ways that meet no other keep what they have.
    """
    delays = {k: channels[k].delay for k in order}
    turned = {k: channels[k].inverted for k in order}
    paired = {k for p in pairs for k in (p.crossover.lower, p.crossover.higher)}
    for k in paired:
        delays[k], turned[k] = 0.0, False
    for pair in pairs:
        setting = chosen(pair, criterion)
        lower, higher = pair.crossover.lower, pair.crossover.higher
        delays[higher] = delays[lower] + setting.delay
        turned[higher] = turned[lower] != setting.inverted
    least = min((delays[k] for k in paired), default=0.0)
    return (
        tuple(delays[k] - (least if k in paired else 0.0) for k in range(len(channels))),
        tuple(turned[k] for k in range(len(channels))),
    )


def chosen(pair: LinedPair, criterion: Criterion) -> Setting:
    """The setting of a pair by a criterion."""
    return pair.found.phase_match if criterion == "phase" else pair.found.best


def level_of(pressure: Complex) -> Real:
    """Level in dB of a pressure in Pa."""
    with np.errstate(divide="ignore"):
        return np.asarray(20 * np.log10(np.abs(pressure) / REFERENCE))
