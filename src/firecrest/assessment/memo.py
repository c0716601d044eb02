"""Results remembered by the branches they were worked out from.

A memo belongs to its owner (a window, a worker, a command) and is handed in; two owners cannot
push each other's results out. Arguments are compared with ``is``: the models rebuild every tuple
when its parent is rebuilt while the items keep their identity, so tuples are compared item by item.
Plain numbers and words are compared by value. A memo only saves time: what it remembers are pure
functions, and forgetting never changes a result.
"""

import dataclasses
from collections.abc import Callable, Mapping
from typing import Any, ParamSpec, TypeVar

import numpy as np

P = ParamSpec("P")
T = TypeVar("T")
PLAIN = frozenset((float, int, str, bool, type(None), np.float64))
_MODELS: set[type] = set()
"""Types in which no arrays are looked for."""
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
        first = args[0] if args else None
        for place, (key, result) in enumerate(known):
            if (not key or _same(key[0], first)) and _same(key, args):
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
        known.insert(0, (args, result))
        del known[self._kept :]
        return result


def _same(a: Any, b: Any) -> bool:
    if a is b:
        return True
    kind = type(a)
    if kind is not type(b):
        return False
    if kind is tuple:
        if len(a) != len(b):
            return False
        return all(map(_same, a, b))
    return kind in PLAIN and bool(a == b)


def seal(value: Any) -> None:
    """Make every array in nested results read-only: what is remembered is shared."""
    kind = type(value)
    if kind in PLAIN:
        return
    if isinstance(value, np.ndarray):
        value.flags.writeable = False
    elif kind is tuple or kind is list:
        for item in value:
            seal(item)
    elif isinstance(value, Mapping):
        for item in value.values():
            seal(item)
    elif kind not in _MODELS:
        if hasattr(kind, "__pydantic_fields__") or not dataclasses.is_dataclass(kind):
            _MODELS.add(kind)
            return
        for item in vars(value).values():
            if type(item) not in PLAIN:
                seal(item)
