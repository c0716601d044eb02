"""Many equal structures of plain numbers as one whose floats are arrays of shape (designs, 1)."""

import dataclasses
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Any

import numpy as np

from firecrest.core.arrays import Real

NUMBER = "number"


_KNOWN: dict[type, tuple[str, ...] | None] = {}


def _names(kind: type) -> tuple[str, ...] | None:
    """Field names of a dataclass type; None of anything else."""
    if kind not in _KNOWN:
        fields = dataclasses.fields(kind) if dataclasses.is_dataclass(kind) else None
        _KNOWN[kind] = None if fields is None else tuple(f.name for f in fields)
    return _KNOWN[kind]


def flattened(value: Any) -> tuple[tuple[Any, ...], list[float]]:
    """(shape, floats) of nested dataclasses, mappings and tuples.

    Two values whose shapes are equal differ in their floats only, and can be stacked.
    """
    shape: list[Any] = []
    floats: list[float] = []
    _flatten(value, shape, floats)
    return tuple(shape), floats


def _flatten(value: Any, shape: list[Any], floats: list[float]) -> None:
    kind = type(value)
    if kind is float:
        shape.append(NUMBER)
        floats.append(value)
        return
    names = _names(kind)
    if names is not None:
        shape.append(kind)
        for name in names:
            _flatten(getattr(value, name), shape, floats)
    elif kind is tuple:
        shape.append(len(value))
        for item in value:
            _flatten(item, shape, floats)
    elif isinstance(value, Mapping):
        shape.append(tuple(value))
        for item in value.values():
            _flatten(item, shape, floats)
    elif isinstance(value, np.ndarray | np.floating):
        shape.append(NUMBER)
        floats.append(float(value))
    else:
        shape.append(value)


def mapped(value: Any, leaf: Callable[[Any], Any]) -> Any:
    """The structure of ``value`` with ``leaf(x)`` in place of every float or array ``x``."""
    names = _names(type(value))
    if names is not None:
        return type(value)(*(mapped(getattr(value, name), leaf) for name in names))
    if type(value) is tuple:
        return tuple(mapped(item, leaf) for item in value)
    if isinstance(value, Mapping):
        return {key: mapped(item, leaf) for key, item in value.items()}
    return leaf(value) if isinstance(value, float | np.ndarray | np.floating) else value


def stacked(first: Any, floats: Sequence[list[float]]) -> Any:
    """``first`` with columns of all ``floats`` (one list a design) in place of its own."""
    table = np.array(floats, dtype=np.float64)
    columns: Iterator[Real] = iter(np.ascontiguousarray(table.T)[:, :, None])
    return mapped(first, lambda _: next(columns))
