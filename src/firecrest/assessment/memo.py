"""Results remembered by the branches they were worked out from.

A memo belongs to its owner (a window, a worker, a command) and is handed in; two owners cannot
push each other's results out. Arguments are told apart by identity: the models rebuild every tuple
when its parent is rebuilt while the items keep their identity, so tuples go item by item. Plain
numbers and words go by value. A memo only saves time: what it remembers are pure
functions, and forgetting never changes a result.
"""

import dataclasses
from collections.abc import Callable
from typing import Any, ParamSpec, TypeVar

import numpy as np

P = ParamSpec("P")
T = TypeVar("T")
BY_VALUE: frozenset[type] = frozenset((float, str, type(None), np.float64))
COUNTS: frozenset[type] = frozenset((int, bool))
BARE: set[type] = {*BY_VALUE, *COUNTS}
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
        self._known: dict[Any, dict[tuple[Any, ...], tuple[Any, Any]]] = {}
        self.runs: dict[str, int] = {}

    def __call__(self, function: Callable[P, T], *args: P.args, **kwargs: P.kwargs) -> T:
        """``function(*args)``, remembered; arrays in what it gives can't be written to."""
        if kwargs:
            raise TypeError("what is remembered takes its arguments by position")
        if not self._kept:
            return function(*args, **kwargs)
        known = self._known.get(function)
        if known is None:
            known = self._known[function] = {}
        key = _key(args)
        found = known.pop(key, None)
        if found is None:
            # The arguments are kept too: their identities stay theirs as long as they live.
            found = (args, self._made(function, args))
        known[key] = found
        if len(known) > self._kept:
            del known[next(iter(known))]
        return found[1]

    def _made(self, function: Callable[..., T], args: tuple[Any, ...]) -> T:
        """Worked out, counted, and sealed; what only bundles its arguments is sealed already."""
        result = function(*args)
        if self._sealed and not isinstance(function, type):
            seal(result, args)
        name = getattr(function, "__name__", "")
        self.runs[name] = self.runs.get(name, 0) + 1
        return result


def _key(args: tuple[Any, ...]) -> tuple[Any, ...]:
    """Plain arguments by value, others by identity, tuples item by item.

    Identities are below 0 and counts go with their type, so that none is taken for another.
    """
    return tuple(
        [
            item
            if (kind := type(item)) in BY_VALUE
            else _key(item)
            if kind is tuple
            else (kind, item)
            if kind in COUNTS
            else ~id(item)
            for item in args
        ]
    )


def seal(value: Any, sealed: tuple[Any, ...] = ()) -> None:
    """Make every array in nested results read-only: what is remembered is shared.

    Nothing is done in what is ``sealed`` already.
    """
    met, known = [value], {id(item) for item in sealed}
    for item in met:
        kind = type(item)
        if kind in BARE or id(item) in known:
            continue
        if kind is np.ndarray:
            item.setflags(write=False)
        elif kind is tuple or kind is list:
            met += item
        elif kind is dict:
            met += item.values()
        elif kind in RECORDS or _is_record(kind):
            met += item.__dict__.values()


def _is_record(kind: type) -> bool:
    """Whether arrays are looked for in a type: one of ours that is not a model."""
    if hasattr(kind, "__pydantic_fields__") or not dataclasses.is_dataclass(kind):
        BARE.add(kind)
        return False
    RECORDS.add(kind)
    return True
