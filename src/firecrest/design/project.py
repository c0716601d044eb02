"""What a file holds: one brief, and designs that answer it."""

from functools import cached_property
from typing import Any, Literal, Self, TypeVar

from pydantic import model_validator
from pydantic.dataclasses import dataclass

from firecrest.design.box import Box
from firecrest.design.brief import Brief
from firecrest.design.design import Design
from firecrest.design.fields import MODEL, choice, items, text
from firecrest.design.power import Power
from firecrest.design.voice import Voice

Letter = Literal["A", "B", "C", "D", "E", "F", "G", "H"]
MOST_VARIANTS = 8
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

    def design_of(self, variant: Variant) -> Design:
        """A variant with name and brief of the project; ValidationError when it hangs apart."""
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
    return _holding(design, (_variant(design, "A", ""),), "A")


def with_design(project: Project, design: Design) -> Project:
    """The project with ``design`` in force; name and brief are those of all variants."""
    variants = tuple(
        _variant(design, v.letter, v.name) if v.letter == project.in_force else v
        for v in project.variants
    )
    return _holding(design, variants, project.in_force)


def _variant(design: Design, letter: Letter, name: str) -> Variant:
    """What of a design answers the brief."""
    parts = {"box": design.box, "power": design.power, "voice": design.voice, "note": design.note}
    return _of_parts(Variant, {"letter": letter, "name": name, **parts})


def _holding(design: Design, variants: tuple[Variant, ...], in_force: Letter) -> Project:
    """The project that knows ``design`` is its own: results found for that object are kept."""
    of_all = {"name": design.name, "brief": design.brief, "variants": variants}
    return _of_parts(Project, {**of_all, "in_force": in_force, "design": design})


def _of_parts(kind: type[_Held], parts: dict[str, Any]) -> _Held:
    """A holder of parts that were checked when their design was made: each edit makes two."""
    made = object.__new__(kind)
    vars(made).update(parts)
    return made
