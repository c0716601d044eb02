"""What a file holds: one brief, and designs that answer it."""

from functools import cached_property
from typing import Any, Literal, Self, TypeVar

from pydantic import model_validator
from pydantic.dataclasses import dataclass

from firecrest.core.errors import DesignError
from firecrest.design.box import Box
from firecrest.design.brief import Brief
from firecrest.design.design import Design
from firecrest.design.fields import MODEL, choice, items, text
from firecrest.design.power import Power
from firecrest.design.voice import Voice

Letter = Literal["A", "B", "C", "D", "E", "F", "G", "H"]
Standing = Literal["tried", "built", "measured"]
MOST_VARIANTS = 8
ANSWERS = ("box", "power", "voice", "note")
"""What of a design answers the brief."""
_Held = TypeVar("_Held")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Variant:
    """One answer to the brief, known by its letter."""

    letter: Letter = choice("Letter", default="A")
    name: str = text("Name of the variant", default="")
    box: Box
    power: Power
    voice: Voice = Voice()
    note: str = text("Note", default="", longest=4000)
    standing: Standing = choice(
        "Standing", default="tried", help="Whether it was built, and whether it was measured."
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Project:
    """One brief for all variants, and which of them is worked on."""

    name: str = text("Name")
    brief: Brief
    variants: tuple[Variant, ...] = items("Variants", least=1, most=MOST_VARIANTS)
    in_force: Letter = choice("Variant in force", default="A")

    @model_validator(mode="after")
    def _letters(self) -> Self:
        """ValueError text becomes the maker's message."""
        letters = [variant.letter for variant in self.variants]
        if len(set(letters)) < len(letters):
            raise ValueError(f"two variants have the same letter ({', '.join(letters)})")
        if self.in_force not in letters:
            raise ValueError(f"there is no variant {self.in_force}")
        return self

    @cached_property
    def design(self) -> Design:
        """The variant in force as a whole design."""
        return self.design_of(next(v for v in self.variants if v.letter == self.in_force))

    @cached_property
    def known(self) -> dict[str, Design]:
        """Variants as whole designs, by letter, as far as they were asked for."""
        return {}

    def design_of(self, variant: Variant) -> Design:
        """A variant with name and brief of the project; ValidationError when it hangs apart.

        The same object each time, so that what was found for it is found again.
        """
        if variant.letter not in self.known:
            self.known[variant.letter] = self._whole(variant)
        return self.known[variant.letter]

    def _whole(self, variant: Variant) -> Design:
        return Design(
            name=self.name,
            brief=self.brief,
            box=variant.box,
            power=variant.power,
            voice=variant.voice,
            note=variant.note,
        )


def project_of(design: Design) -> Project:
    """A project of one variant."""
    return _holding(design, (_variant(design, "A"),), "A", {})


def with_design(project: Project, design: Design) -> Project:
    """The project with ``design`` in force; name and brief are those of all variants."""
    variants = tuple(
        _answering(v, design) if v.letter == project.in_force else v for v in project.variants
    )
    same = design.brief is project.brief and design.name == project.name
    return _holding(design, variants, project.in_force, project.known if same else {})


def with_variants(project: Project, variants: tuple[Variant, ...], in_force: Letter) -> Project:
    """The project with other variants; ValueError when they do not hang together."""
    made = Project(name=project.name, brief=project.brief, variants=variants, in_force=in_force)
    for old in project.variants:
        kept = any(v.letter == old.letter and _alike(v, old) for v in variants)
        if kept and old.letter in project.known:
            made.known[old.letter] = project.known[old.letter]
    return made


def _alike(a: Variant, b: Variant) -> bool:
    """Whether both answer the brief with the same objects."""
    return all(getattr(a, name) is getattr(b, name) for name in ANSWERS)


def switched(project: Project, letter: Letter) -> Project:
    """The project with another variant in force; DesignError when there is none of that letter."""
    if letter == project.in_force:
        return project
    design = project.design_of(variant_of(project, letter))
    return _holding(design, project.variants, letter, project.known)


def variant_of(project: Project, letter: str) -> Variant:
    """The variant of that letter; DesignError names those that there are."""
    for variant in project.variants:
        if variant.letter == letter:
            return variant
    letters = ", ".join(v.letter for v in project.variants)
    raise DesignError(f"There is no variant {letter}. There are: {letters}.")


def _variant(design: Design, letter: Letter) -> Variant:
    """What of a design answers the brief, as a variant of its own."""
    parts = {name: getattr(design, name) for name in ANSWERS}
    return _of_parts(Variant, {"letter": letter, "name": "", "standing": "tried", **parts})


def _answering(variant: Variant, design: Design) -> Variant:
    """The variant with what of ``design`` answers the brief."""
    return _of_parts(Variant, {**vars(variant), **{n: getattr(design, n) for n in ANSWERS}})


def _holding(
    design: Design, variants: tuple[Variant, ...], in_force: Letter, known: dict[str, Design]
) -> Project:
    """The project that knows ``design`` is its own: results found for that object are kept."""
    of_all = {"name": design.name, "brief": design.brief, "variants": variants}
    whole = {**known, in_force: design}
    return _of_parts(Project, {**of_all, "in_force": in_force, "design": design, "known": whole})


def _of_parts(kind: type[_Held], parts: dict[str, Any]) -> _Held:
    """A holder of parts that were checked when their design was made: each edit makes two."""
    made = object.__new__(kind)
    vars(made).update(parts)
    return made
