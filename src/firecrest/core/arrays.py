"""The array conventions: the last axis is frequency, the ones before it are designs.

A parameter is a float, or an array of shape (designs, 1) that meets a frequency axis as it is.
"""

from typing import Any

import numpy as np
from numpy.typing import NDArray

Real = NDArray[Any]
Complex = NDArray[Any]
Number = float | Real


def decibel(ratio: Any) -> Any:
    """20 lg of an amplitude ratio; a ratio of 0 gives -inf without a warning."""
    with np.errstate(divide="ignore"):
        return 20.0 * np.log10(np.abs(ratio))
