"""Edits of a project's variants: copies, names, order, and what is carried from one to another."""

from typing import Any, get_args

from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.project import (
    MOST_VARIANTS,
    Letter,
    Project,
    switched,
    variant_of,
    with_design,
    with_variants,
)

LETTERS: tuple[Letter, ...] = get_args(Letter)


def copy_variant(project: Project, letter: Letter | None = None) -> tuple[str, Project]:
    """(label, project) with a copy of a variant, that in force when None, in force beside it.

    DesignError when there are as many as a project can hold.
    """
    own = variant_of(project, letter or project.in_force)
    taken = [v.letter for v in project.variants]
    if len(taken) >= MOST_VARIANTS:
        raise DesignError(f"A project holds {MOST_VARIANTS} variants: delete one first.")
    new = next(one for one in LETTERS if one not in taken)
    copy = rebuilt(own, letter=new, name="", note="", standing="tried")
    place = project.variants.index(own) + 1
    variants = (*project.variants[:place], copy, *project.variants[place:])
    return f"Copy {own.letter} to {new}", with_variants(project, variants, new)


def add_variant(project: Project, design: Design, name: str) -> tuple[str, Project]:
    """(label, project) with ``design`` as one more variant; the brief stays the project's."""
    label, made = copy_variant(project)
    made = with_design(made, rebuilt(design, name=project.name, brief=project.brief))
    _, made = rename_variant(made, made.in_force, name)
    return label, made


def delete_variant(project: Project, letter: Letter) -> tuple[str, Project]:
    """(label, project) without a variant; its neighbour comes in force when it was. DesignError
    when it is the only one.
    """
    if len(project.variants) == 1:
        raise DesignError("The only variant stays: a project holds at least one.")
    places = [v.letter for v in project.variants]
    place = places.index(letter)
    left = (*project.variants[:place], *project.variants[place + 1 :])
    in_force = project.in_force
    if in_force == letter:
        in_force = left[min(place, len(left) - 1)].letter
    return f"Delete {letter}", with_variants(project, left, in_force)


def rename_variant(project: Project, letter: Letter, name: str) -> tuple[str, Project]:
    """(label, project) with another name of a variant."""
    made = _with(project, letter, name=name)
    return f"{letter} is called {name}" if name else f"{letter} has no name", made


def set_standing(project: Project, letter: Letter, standing: str) -> tuple[str, Project]:
    """(label, project) with a variant tried, built or measured."""
    return f"{letter} is {standing}", _with(project, letter, standing=standing)


def move_variant(project: Project, letter: Letter, steps: int) -> tuple[str, Project]:
    """(label, project) with a variant further left or right among the others."""
    order = list(project.variants)
    own = variant_of(project, letter)
    place = order.index(own)
    order.remove(own)
    order.insert(min(max(place + steps, 0), len(order)), own)
    side = "left" if steps < 0 else "right"
    return f"{letter} to the {side}", with_variants(project, tuple(order), project.in_force)


def bring_over(project: Project, path: Path, source: Letter, target: Letter) -> tuple[str, Project]:
    """(label, project) with what stands at ``path`` of a variant in another one too.

    DesignError where that place is not in both, or where it does not fit there.
    """
    there = project.design_of(variant_of(project, source))
    here = project.design_of(variant_of(project, target))
    made = replace_at(here, path, value_at(there, path))
    own = switched(project, target)
    return f"From {source} into {target}", switched(with_design(own, made), project.in_force)


def _with(project: Project, letter: Letter, **changes: Any) -> Project:
    variant_of(project, letter)
    made = tuple(rebuilt(v, **changes) if v.letter == letter else v for v in project.variants)
    return with_variants(project, made, project.in_force)


def next_letter(project: Project, steps: int = 1) -> Letter:
    """The variant that many places beside the one in force, round the ends."""
    letters = [v.letter for v in project.variants]
    return letters[(letters.index(project.in_force) + steps) % len(letters)]
