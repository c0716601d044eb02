"""The array conventions: the last axis is frequency, the ones before it are designs.

A parameter is a float, or an array of shape (designs, 1) that meets a frequency axis as it is.
Every rule of the core runs on both; what it gives has the shape that its parameters ask for.
"""

from collections.abc import Sequence
from functools import reduce
from math import nan, sqrt
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


def inverse(value: Complex) -> Complex:
    """1/value; of complex arrays in two thirds of the time of a division."""
    return np.asarray(np.reciprocal(value))


def root(value: Number) -> Number:
    """Square root of a float or an array; NaN, without a warning, of what is below 0."""
    if isinstance(value, float):
        return sqrt(value) if value >= 0 else nan
    with np.errstate(invalid="ignore"):
        return np.asarray(np.sqrt(value))


def plain(value: Number) -> Number:
    """A float where ``value`` is of one design, or the same in all of them."""
    flat = np.ravel(value)
    if flat.size > 1 and np.any(flat != flat[0]):
        return value
    return float(flat[0])


def scaled(factor: Number, value: Complex) -> Complex:
    """A product; nothing is done by a factor of 1."""
    return value if isinstance(factor, float | int) and factor == 1 else np.asarray(factor * value)


def along(values: Complex, factor: Number) -> Complex:
    """``values`` (n, ..., F), each times a ``factor`` that may have design axes of its own."""
    return np.asarray(_deepened(values, np.ndim(factor) + 1) * factor)


def summed_along(values: Sequence[Complex]) -> Complex:
    """Sum of arrays (n, ..., F), of which some have more design axes than others."""
    most = max(value.ndim for value in values)
    return summed([_deepened(value, most) for value in values])


def _deepened(values: Complex, count: int) -> Complex:
    """``values`` (n, ..., F) with so many axes in all, new ones after the first."""
    more = count - values.ndim
    return values.reshape(len(values), *(1,) * more, *values.shape[1:]) if more > 0 else values


def summed(values: Sequence[Real]) -> Real:
    """Sum of arrays that broadcast, without a copy of each."""
    total = values[0]
    for value in values[1:]:
        total = total + value
    return np.asarray(total)


def largest(values: Sequence[Number]) -> Number:
    """The largest of several numbers, design by design."""
    if all(isinstance(value, float) for value in values):
        return max(values)
    return np.asarray(reduce(np.maximum, values))


def least(values: Sequence[Number]) -> Number:
    """The smallest of several numbers, design by design."""
    if all(isinstance(value, float) for value in values):
        return min(values)
    return np.asarray(reduce(np.minimum, values))


def positive(value: Number) -> Number:
    """``value``, or 0 where it is below."""
    return max(value, 0.0) if isinstance(value, float) else np.maximum(value, 0.0)


def picked(values: Real, place: Real) -> Real:
    """``values`` (..., F) at the grid points ``place`` (..., n)."""
    if place.ndim == 1:
        return np.asarray(values[..., place])
    if values.ndim == place.ndim == 2 and len(values) == len(place):
        return np.asarray(values[np.arange(len(values))[:, None], place])
    lead = np.broadcast_shapes(values.shape[:-1], place.shape[:-1])
    values = np.broadcast_to(values, (*lead, values.shape[-1]))
    return np.take_along_axis(values, np.broadcast_to(place, (*lead, place.shape[-1])), axis=-1)


def mixed(value: Complex, voices: Sequence[Complex]) -> Complex:
    """Answer to all channels played together: sum over channels of voice times answer."""
    return summed([h * v for h, v in zip(voices, value, strict=True)])
