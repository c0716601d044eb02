"""Sixty-four filter blocks, digital at three rates and analogue, against independent results."""

from dataclasses import replace

import numpy as np
import pytest

from firecrest.core.voice.chain import block_response
from tests.reference.voice import block_of, data

CASES = data("filters.json")
FREQUENCIES = CASES["frequencies"]
RATES = ("44100", "48000", "96000")


@pytest.mark.parametrize("case", CASES["cases"], ids=lambda case: case["id"])
def test_blocks_equal_the_reference(case):
    block = block_of(case["block"])
    for key in ("analogue", *RATES):
        if key not in case:
            assert block.frequency > 0.45 * float(key)
            continue
        expected = np.array(case[key]["re"]) + 1j * np.array(case[key]["im"])
        f = np.array(FREQUENCIES[key])
        rate = 48000.0 if key == "analogue" else float(key)
        found = block_response(replace(block, analogue=key == "analogue"), f, rate)
        bound = 1e-9 * np.maximum(1.0, np.abs(expected))
        assert np.all(np.abs(found - expected) <= bound), key
