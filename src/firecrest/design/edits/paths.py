"""The one general edit: another value at a path, through every constructor on the way.

A path is a tuple of field names and list places, e.g. ("box", "radiators", 0, "added_mass").
Untouched branches are shared between the old and the new design.
"""

import dataclasses
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any, TypeVar

from pydantic import ValidationError

from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.fields import FieldFacts, field_facts, label_of
from firecrest.design.text import explain

Path = tuple[str | int, ...]


def value_at(tree: Any, path: Path) -> Any:
    """What stands at ``path`` of a design or its numbers; DesignError if there is no such place."""
    value = tree
    try:
        for step in path:
            value = value[step] if isinstance(step, int) else getattr(value, step)
    except (AttributeError, IndexError, TypeError) as error:
        raise DesignError(f"There is no {dotted(path)} in this design.") from error
    return value


def stands(tree: Any, path: Path) -> bool:
    """Whether anything stands at ``path``, be it a None."""
    try:
        value_at(tree, path)
    except DesignError:
        return False
    return True


Model = TypeVar("Model")


def rebuilt(model: Model, **changes: Any) -> Model:
    """A model with other values in some fields; DesignError says which does not fit and why."""
    with _in_words(type(model)):
        return dataclasses.replace(model, **changes)  # type: ignore[type-var]


def built(kind: type[Model], **figures: Any) -> Model:
    """A new model of some figures; DesignError says which does not fit and why."""
    with _in_words(kind):
        return kind(**figures)


@contextmanager
def _in_words(kind: type) -> Iterator[None]:
    """Refusals by a model as DesignError: of its own figures by their labels and ranges."""
    try:
        yield
    except ValidationError as error:
        for item in error.errors(include_url=False, include_context=False):
            facts = field_facts(kind, str(item["loc"][0])) if len(item["loc"]) == 1 else None
            if facts is not None and isinstance(item["input"], int | float):
                facts.check(float(item["input"]))
        raise DesignError(explain(error)) from error


def replace_at(design: Design, path: Path, value: Any) -> Design:
    """The design with ``value`` at ``path``; DesignError when a model refuses it."""
    value_at(design, path)
    made = _replaced(design, path, value)
    assert isinstance(made, Design)
    return made


def _replaced(node: Any, path: Path, value: Any) -> Any:
    if not path:
        return value
    step, rest = path[0], path[1:]
    if isinstance(step, int):
        return tuple(_replaced(v, rest, value) if k == step else v for k, v in enumerate(node))
    return rebuilt(node, **{str(step): _replaced(getattr(node, step), rest, value)})


def facts_at(design: Design, path: Path) -> FieldFacts:
    """Declaration of the number at ``path``."""
    facts = field_facts(type(value_at(design, path[:-1])), str(path[-1]))
    if facts is None:
        raise DesignError(f"{dotted(path)} is not a number.")
    return facts


def set_number(design: Design, path: Path, value: float | None) -> Design:
    """A number within its range at ``path``; DesignError says the accepted range."""
    facts = facts_at(design, path)
    facts.check(value)
    if facts.whole and value is not None:
        if value != round(value):
            raise DesignError(f"{facts.label} is a whole number.")
        value = round(value)
    return replace_at(design, path, value)


def change_label(old: Design, new: Design, path: Path) -> str:
    """Name of an edit for undo: "Added mass 0 → 38 g"."""
    owner, name = value_at(new, path[:-1]), path[-1]
    before, after = value_at(old, path), value_at(new, path)
    if isinstance(name, int):
        return f"{type(after).__name__} changed"
    facts = field_facts(type(owner), name)
    label = label_of(type(owner), name)
    if facts is None:
        return f"{label}: {_word(before)} → {_word(after)}"
    return f"{label} {facts.show(before) or 'empty'} → {facts.show(after) or 'empty'}"


def _word(value: Any) -> str:
    """A choice in words."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    return str(value).replace("_", " ")


def dotted(path: Path) -> str:
    """A path as written in files and messages."""
    return ".".join(str(step) for step in path)
