"""One voice chain: the response after each block, from the biquads that the board runs."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Complex, Real
from firecrest.core.voice import prototypes
from firecrest.core.voice.biquads import digital_section, section_response
from firecrest.core.voice.prototypes import Section


@dataclass(frozen=True)
class Filter:
    """One block: ``kind`` and its figures; those a kind does not use are ignored."""

    kind: str
    frequency: float
    gain_db: float = 0.0
    q: float = 1.0
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


def coefficients(block: Filter, rate: float) -> Real:
    """Biquads of a block at sample ``rate``: rows b0 b1 b2 a0 a1 a2, shape (sections, 6)."""
    return np.array([digital_section(s, block.frequency * s.scale, rate) for s in sections(block)])


def chain_responses(
    gain_db: float, inverted: bool, blocks: Sequence[Filter], frequency: Real, rate: float
) -> Complex:
    """Response at the input, after the gain, and after each block in order: (2 + blocks, F).

    ``rate`` is the board's sample rate in Hz; the last row is the chain's response.
    """
    gain = (-1.0 if inverted else 1.0) * 10 ** (gain_db / 20)
    rows = np.ones((2 + len(blocks), len(frequency)), dtype=np.complex128)
    rows[1] = gain
    for place, block in enumerate(blocks, start=2):
        rows[place] = rows[place - 1]
        for row in coefficients(block, rate):
            rows[place] *= section_response(row, frequency, rate)
    return rows
