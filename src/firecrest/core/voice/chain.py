"""One voice chain: the response after each block, from the biquads that the board runs."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.voice import prototypes
from firecrest.core.voice.biquads import Biquad, digital_section, one_sample, section_response
from firecrest.core.voice.prototypes import Section

HIGHEST = 0.45
"""Share of the sample rate up to which a corner may lie."""


@dataclass(frozen=True)
class Filter:
    """One block: ``kind`` and its figures; those a kind does not use are ignored.

    ``frequency`` of a Linkwitz transform is its new corner, ``source_frequency`` and ``source_q``
    what the box has. An ``analogue`` filter is none of the board's biquads: a crossover that an
    amplifier has by itself, with ``level_db`` and the phase ``turn`` in rad by which it is late at
    its corner. A ``bypassed`` one is not there.
    """

    kind: str
    frequency: Number
    gain_db: Number = 0.0
    q: Number = 1.0
    family: str = "butterworth"
    order: int = 2
    source_frequency: Number = 100.0
    source_q: Number = 1.0
    analogue: bool = False
    level_db: Number = 0.0
    turn: Number = 0.0
    bypassed: bool = False


_SHAPES: Mapping[str, Callable[[Filter], tuple[Section, ...]]] = {
    "low_pass": lambda b: prototypes.pass_sections(b.kind, b.family, b.order),
    "high_pass": lambda b: prototypes.pass_sections(b.kind, b.family, b.order),
    "parametric": lambda b: (prototypes.parametric(b.gain_db, b.q),),
    "low_shelf": lambda b: (prototypes.low_shelf(b.gain_db, b.q),),
    "high_shelf": lambda b: (prototypes.high_shelf(b.gain_db, b.q),),
    "all_pass": lambda b: (prototypes.all_pass(b.order, b.q),),
    "notch": lambda b: (prototypes.notch(b.q),),
    "linkwitz_transform": lambda b: (
        prototypes.linkwitz_transform(b.source_frequency, b.source_q, b.frequency, b.q),
    ),
}


def sections(block: Filter) -> tuple[Section, ...]:
    """Analogue sections of a block, corner at 1."""
    return _SHAPES[block.kind](block)


def analogue_response(block: Filter, frequency: Real) -> Complex:
    """Response of the prototype, without sampling; (..., F)."""
    found = np.ones_like(np.asarray(frequency), dtype=np.complex128)
    for section in sections(block):
        found = found * section.response(frequency, block.frequency)
    return np.asarray(found)


def coefficients(block: Filter, rate: Number) -> list[Biquad]:
    """Biquads of a block at sample ``rate``, all warped at the corner of the block."""
    return [digital_section(s, block.frequency, rate) for s in sections(block)]


def block_response(block: Filter, frequency: Real, rate: Number) -> Complex:
    """Response of one block as it stands in the chain, (..., F)."""
    if block.bypassed:
        return np.ones_like(np.asarray(frequency), dtype=np.complex128)
    if block.analogue:
        level = 10 ** (np.asarray(block.level_db) / 20)
        return np.asarray(level * analogue_response(block, frequency) * _turned(block, frequency))
    delay = one_sample(frequency, rate)
    found = np.ones_like(delay)
    for biquad in coefficients(block, rate):
        found = found * section_response(biquad, delay)
    return np.asarray(found)


def _turned(block: Filter, frequency: Real) -> Complex:
    """A phase knob: a first-order all-pass that is late by ``turn`` rad at the corner.

    (1 - s x)/(1 + s x) with x = tan(turn/2) has the phase -2 arctan(x) at s = j; own derivation.
    """
    x = np.tan(np.minimum(np.asarray(block.turn) / 2, pi / 2 - 1e-9))
    s = 1j * np.asarray(frequency) / block.frequency
    return np.asarray((1 - s * x) / (1 + s * x))


def delayed(delay: Number, frequency: Real) -> Complex:
    """e^{-jwt} of a ``delay`` in s."""
    return np.asarray(np.exp(-2j * pi * np.asarray(frequency) * delay))


def chain_responses(
    gain_db: Number,
    inverted: bool,
    blocks: Sequence[Filter],
    frequency: Real,
    rate: Number,
    delay: Number = 0.0,
) -> Complex:
    """Response at the input, after gain, polarity and delay, and after each block: (..., 2 + n, F).

    ``rate`` is the board's sample rate in Hz, ``delay`` in s; the last row is the chain's response.
    """
    gain = (-1.0 if inverted else 1.0) * 10 ** (gain_db / 20)
    one = np.ones_like(np.asarray(frequency), dtype=np.complex128)
    undelayed = isinstance(delay, float | int) and delay == 0
    rows = [one, gain * one if undelayed else gain * delayed(delay, frequency)]
    for block in blocks:
        rows.append(rows[-1] * block_response(block, frequency, rate))
    return np.stack(np.broadcast_arrays(*rows), axis=-2)
