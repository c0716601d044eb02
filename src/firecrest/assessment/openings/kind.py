"""What every kind of opening has to answer; each is one module beside this one."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

from firecrest.assessment.lower import inputs
from firecrest.assessment.room import Placed
from firecrest.assessment.wiring import Wiring
from firecrest.core.acoustics.openings import Opening
from firecrest.core.air import Air
from firecrest.core.arrays import Number
from firecrest.core.note import Note


@dataclass(frozen=True)
class OpeningKind:
    """The functions of one kind; an item is its lowered numbers.

    ``limit`` is the key of its row of limits, ``tuner`` the stated figure that tunes it. ``lacks``
    names the figure without which it can't be solved, ``missing`` and ``estimates`` tell what
    is known of its limits. ``element`` is it in the network between two nodes, ``lossy`` that with
    the losses that refer to the tuning. ``room`` is what it takes, weighs and costs, ``rating``
    what it bears, ``growing`` the area of one whose rating goes with frequency (None: it does not).
    """

    limit: str
    tuner: str
    lacks: Callable[[Any], Note | None]
    missing: Callable[[inputs.Elements, Any], Iterator[Note]]
    estimates: Callable[[inputs.Elements, Any], Iterator[Note]]
    element: Callable[[Any, Air, int, int], Opening]
    lossy: Callable[[Any, Any, Number], Opening]
    room: Callable[[Any], Placed]
    rating: Callable[[inputs.Elements, Wiring, Any], Number | None]
    growing: Callable[[Any], Number | None]
