"""Where two designs differ: the paths of the figures, words and parts that are not the same."""

import dataclasses
from collections.abc import Iterator
from typing import Any

from firecrest.design.design import Design
from firecrest.design.edits.paths import Path


def differing_paths(a: Design, b: Design) -> list[Path]:
    """Paths of ``a`` or ``b`` at which they differ, in the order of the models.

    A list of other length and an object of another kind differ as a whole, at their own path.
    """
    return list(_differing(a, b, ()))


def _differing(a: Any, b: Any, path: Path) -> Iterator[Path]:
    if a is b:
        return
    if type(a) is not type(b):
        yield path
    elif dataclasses.is_dataclass(a):
        for field in dataclasses.fields(a):
            yield from _differing(
                getattr(a, field.name), getattr(b, field.name), (*path, field.name)
            )
    elif isinstance(a, tuple) and len(a) == len(b):
        for place, (one, other) in enumerate(zip(a, b, strict=True)):
            yield from _differing(one, other, (*path, place))
    elif a != b:
        yield path
