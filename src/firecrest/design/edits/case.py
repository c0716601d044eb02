"""Edits of the case: panel materials, and what else comes and goes in it."""

from firecrest.core.cabinet.materials import MATERIALS
from firecrest.design.case import ContentItem
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at

CASE: Path = ("box", "case")
CONTENTS: Path = ("box", "case", "contents")


def material_in_force(design: Design) -> int | None:
    """Place of the material whose density the panels have; None for any other."""
    density = design.box.case.density
    return next((k for k, m in enumerate(MATERIALS.values()) if m.density == density), None)


def with_material(design: Design, name: str) -> tuple[str, Design]:
    """(label, design) with panels of a material; the price stays, as it is the maker's own."""
    figures = ("density", "stiffness", "poisson")
    material = MATERIALS[name]
    made = rebuilt(design.box.case, **{figure: getattr(material, figure) for figure in figures})
    return f"Panels of {name}", replace_at(design, CASE, made)


def add_content(design: Design) -> tuple[str, Design]:
    """(label, design) with one more thing in the first chamber, to be described."""
    item = ContentItem(name="Something else", chamber=design.box.chambers[0].id)
    return "Add to the case", replace_at(design, CONTENTS, (*design.box.case.contents, item))


def remove_content(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without one of the things in the case."""
    contents = design.box.case.contents
    kept = (*contents[:place], *contents[place + 1 :])
    return f"Remove {contents[place].name}", replace_at(design, CONTENTS, kept)
