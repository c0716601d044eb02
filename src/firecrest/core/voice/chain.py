"""One voice chain: the response after each block, from the biquads that the board runs."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.voice import prototypes
from firecrest.core.voice.biquads import Biquad, digital_section, one_sample, section_response
from firecrest.core.voice.prototypes import Section


@dataclass(frozen=True)
class Filter:
    """One block: ``kind`` and its figures; those a kind does not use are ignored."""

    kind: str
    frequency: Number
    gain_db: Number = 0.0
    q: Number = 1.0
    family: str = "butterworth"
    order: int = 2


def sections(block: Filter) -> tuple[Section, ...]:
    """Analogue sections of a block, corner at 1."""
    if block.kind in ("low_pass", "high_pass"):
        return prototypes.pass_sections(block.kind, block.family, block.order)
    shapes = {
        "parametric": prototypes.parametric,
        "low_shelf": prototypes.low_shelf,
        "high_shelf": prototypes.high_shelf,
    }
    return (shapes[block.kind](block.gain_db, block.q),)


def analogue_response(block: Filter, frequency: Real) -> Complex:
    """Response of the prototype, without sampling; (F,)."""
    responses = [s.response(frequency, block.frequency) for s in sections(block)]
    return np.asarray(np.prod(responses, axis=0))


def coefficients(block: Filter, rate: Number) -> list[Biquad]:
    """Biquads of a block at sample ``rate``."""
    return [digital_section(s, block.frequency * s.scale, rate) for s in sections(block)]


def chain_responses(
    gain_db: Number, inverted: bool, blocks: Sequence[Filter], frequency: Real, rate: Number
) -> Complex:
    """Response at the input, after the gain, and after each block in order: (..., 2 + blocks, F).

    ``rate`` is the board's sample rate in Hz; the last row is the chain's response.
    """
    delay = one_sample(frequency, rate)
    gain = (-1.0 if inverted else 1.0) * 10 ** (gain_db / 20)
    rows = [np.ones_like(delay), gain * np.ones_like(delay)]
    for block in blocks:
        response = rows[-1]
        for biquad in coefficients(block, rate):
            response = response * section_response(biquad, delay)
        rows.append(response)
    return np.stack(np.broadcast_arrays(*rows), axis=-2)
