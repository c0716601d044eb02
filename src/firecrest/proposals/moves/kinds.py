"""What a proposed change is, what it is made from, and what every kind of change answers."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any

from firecrest.assessment.assess import Assessment
from firecrest.core.errors import FirecrestError
from firecrest.core.note import Note
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, set_number

Shelf = Mapping[str, Sequence[Any]]
"""Parts that could be taken, by kind: driver, radiator, amplifier, cell, supply."""


@dataclass(frozen=True)
class Scene:
    """What moves are made from: the present design, assessed, and the parts at hand."""

    assessment: Assessment
    shelf: Shelf = field(default_factory=dict)

    @property
    def design(self) -> Design:
        """The present design."""
        return self.assessment.design


@dataclass(frozen=True)
class Proposal:
    """A change: its kind, what there is to tell of it as codes, the design it makes, its field.

    ``asks_less`` is of ones that change what was promised, not the box.
    """

    kind: str
    title: Note
    design: Design
    path: Path | None = None
    why: Note | None = None
    asks_less: bool = False


Kind = Callable[[Scene], Iterator[Proposal]]


def number(
    scene: Scene, kind: str, path: Path, value: float, title: Note, why: Note | None = None
) -> Iterator[Proposal]:
    """A change that is another number at ``path``, unless the model refuses it."""
    with suppress(FirecrestError):
        yield Proposal(kind, title, set_number(scene.design, path, value), path, why)


def attempt(
    kind: str, title: Note, path: Path | None, make: Callable[..., Design], *args: Any
) -> Iterator[Proposal]:
    """A change that ``make(*args)`` makes, unless it cannot be made."""
    with suppress(FirecrestError):
        yield Proposal(kind, title, make(*args), path)
