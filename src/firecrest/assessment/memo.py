"""Stages remembered by the branches they read: compared with ``is``, the last few per stage.

The models rebuild every tuple when its parent is rebuilt while the items keep their identity, so
keys are taken on the items. Plain numbers and words are compared by value. The memo only saves
time: a stage is a pure function, and forgetting never changes a result.
"""

from collections.abc import Callable
from functools import wraps
from typing import Any, ParamSpec, TypeVar

P = ParamSpec("P")
T = TypeVar("T")
PLAIN = (float, int, str, bool, type(None))
KEPT = 6


def _flat(value: Any) -> tuple[Any, ...]:
    """Items of nested tuples in one row, with the length of each tuple."""
    if not isinstance(value, tuple):
        return (value,)
    return (len(value), *(leaf for item in value for leaf in _flat(item)))


def _same(a: Any, b: Any) -> bool:
    return a is b or (type(a) is type(b) and isinstance(a, PLAIN) and a == b)


def stage(function: Callable[P, T]) -> Callable[P, T]:
    """Remember the last few results of ``function`` by its positional arguments.

    ``runs`` on the returned function counts how often the stage was really computed.
    """
    kept: list[tuple[tuple[Any, ...], T]] = []

    @wraps(function)
    def remembered(*args: P.args, **kwargs: P.kwargs) -> T:
        key = _flat(args)
        for known, result in tuple(kept):
            if len(known) == len(key) and all(map(_same, known, key)):
                return result
        result = function(*args, **kwargs)
        remembered.runs += 1  # type: ignore[attr-defined]
        kept.insert(0, (key, result))
        del kept[KEPT:]
        return result

    remembered.runs = 0  # type: ignore[attr-defined]
    return remembered
