"""Results remembered by the branches they were worked out from.

A memo belongs to its owner (a window, a worker, a command) and is handed in; two owners cannot
push each other's results out. Arguments are compared with ``is``: the models rebuild every tuple
when its parent is rebuilt while the items keep their identity, so tuples are compared item by item.
Plain numbers and words are compared by value. A memo only saves time: what it remembers are pure
functions, and forgetting never changes a result.
"""

import dataclasses
from collections.abc import Callable
from operator import is_
from typing import Any, ParamSpec, TypeVar

import numpy as np

P = ParamSpec("P")
T = TypeVar("T")
PLAIN: frozenset[type] = frozenset((float, int, str, bool, type(None), np.float64))
BARE: set[type] = set(PLAIN)
"""Types in which no arrays are looked for: plain ones, and models as they are met."""
RECORDS: set[type] = set()
"""Types in which they are, as they are met."""
KEPT = 16
"""Results of one function that are remembered: of a design, its variants and its equal parts."""

AFRESH = 0
"""Results kept where every one is of columns that never come again."""


class Memo:
    """Remembers the last ``kept`` results of each function; with 0 it remembers nothing.

    What it remembers is sealed against writing, unless its owner alone ever sees it (``sealed``).
    ``runs`` counts by function name how often a result was really worked out.
    """

    def __init__(self, kept: int = KEPT, *, sealed: bool = True) -> None:
        self._kept, self._sealed = kept, sealed
        self._known: dict[Any, list[tuple[tuple[Any, ...], Any]]] = {}
        self.runs: dict[str, int] = {}

    def __call__(self, function: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
        """``function(*args)``, remembered; arrays in what it gives can't be written to."""
        if kwargs:
            raise TypeError("what is remembered takes its arguments by position")
        if not self._kept:
            return function(*args, **kwargs)
        known = self._known.setdefault(function, [])
        key = _flat(args)
        by_value = not key or type(key[0]) in PLAIN
        for place, (other, result) in enumerate(known):
            if (by_value or other[0] is key[0]) and _same(other, key):
                if place:
                    known.insert(0, known.pop(place))
                return result  # type: ignore[no-any-return]
        result = function(*args, **kwargs)
        if self._sealed and not isinstance(
            function, type
        ):  # what only bundles its arguments is sealed already
            seal(result)
        name = getattr(function, "__name__", "")
        self.runs[name] = self.runs.get(name, 0) + 1
        known.insert(0, (key, result))
        del known[self._kept :]
        return result


def _flat(args: tuple[Any, ...]) -> tuple[Any, ...]:
    """Arguments with the items of their tuples in their place, each tuple after its length."""
    if tuple not in map(type, args):
        return args
    flat: list[Any] = []
    for item in args:
        if type(item) is tuple:
            flat.append(len(item))
            flat.extend(_flat(item))
        else:
            flat.append(item)
    return tuple(flat)


def _same(a: tuple[Any, ...], b: tuple[Any, ...]) -> bool:
    """Whether two keys hold the same items; plain ones are compared by value."""
    if len(a) != len(b):
        return False
    if all(map(is_, a, b)):
        return True
    for x, y in zip(a, b, strict=True):
        if x is not y and (type(x) is not type(y) or type(x) not in PLAIN or x != y):
            return False
    return True


def seal(value: Any) -> None:
    """Make every array in nested results read-only: what is remembered is shared."""
    kind = type(value)
    if kind is np.ndarray:
        value.flags.writeable = False
        return
    if kind is tuple or kind is list:
        items: Any = value
    elif kind is dict:
        items = value.values()
    elif kind in BARE or not _is_record(kind):
        return
    else:
        items = vars(value).values()
    for item in items:
        inner = type(item)
        if inner is np.ndarray:
            item.flags.writeable = False
        elif inner not in BARE:
            seal(item)


def _is_record(kind: type) -> bool:
    """Whether arrays are looked for in a type: one of ours that is not a model."""
    if kind not in RECORDS:
        if hasattr(kind, "__pydantic_fields__") or not dataclasses.is_dataclass(kind):
            BARE.add(kind)
            return False
        RECORDS.add(kind)
    return True
