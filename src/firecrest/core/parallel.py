"""Work on large arrays on every core: array functions let go of Python's lock while they run.

Only a process without a window asks for it, once, by ``use_all_cores``: a thread that allocates
could collect what belongs to the main thread of the interface.
"""

import os
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from contextvars import copy_context
from math import ceil
from typing import TypeVar

_Item = TypeVar("_Item")
_Result = TypeVar("_Result")
_POOLS: list[ThreadPoolExecutor] = []
"""The threads of this process; none until they are asked for."""


def blocks_of(count: int, most: int) -> list[slice]:
    """``count`` rows in as few blocks of at most ``most`` as it takes, of nearly the same size."""
    size = ceil(count / ceil(count / most))
    return [slice(start, min(start + size, count)) for start in range(0, count, size)]


def side_by_side(function: Callable[[_Item], _Result], items: Sequence[_Item]) -> list[_Result]:
    """``function`` of each of ``items``, in their order, as many at once as there are cores.

    ``function`` does not call this again; array error states hold in it as for the caller. What
    one of them raises is raised.
    """
    if len(items) < 2 or not _POOLS:
        return [function(item) for item in items]
    waiting = [_POOLS[0].submit(copy_context().run, function, item) for item in items]
    return [future.result() for future in waiting]


def use_all_cores() -> None:
    """From now on, in this process, ``side_by_side`` runs on as many threads as there are cores."""
    cores = len(os.sched_getaffinity(0))
    if cores > 1 and not _POOLS:
        _POOLS.append(ThreadPoolExecutor(cores, thread_name_prefix="arrays"))
