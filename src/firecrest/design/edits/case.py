"""Edits of the case: panel materials, and what else comes and goes in it."""

from dataclasses import dataclass

from firecrest.design.case import ContentItem
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, replace_at

DENSITY: Path = ("box", "case", "density")
CONTENTS: Path = ("box", "case", "contents")


@dataclass(frozen=True)
class Material:
    """A panel material with its usual density in kg/m3: an estimate, weigh your own."""

    name: str
    density: float


MATERIALS = (
    Material("birch plywood", 680.0),
    Material("poplar plywood", 450.0),
    Material("fibreboard (MDF)", 750.0),
    Material("chipboard", 650.0),
    Material("spruce board", 460.0),
    Material("oak board", 700.0),
    Material("acrylic sheet", 1190.0),
    Material("aluminium", 2700.0),
    Material("solid PLA print", 1240.0),
)


def material_in_force(design: Design) -> int | None:
    """Place of the material whose density the panels have; None for any other."""
    density = design.box.case.density
    return next((k for k, m in enumerate(MATERIALS) if m.density == density), None)


def with_material(design: Design, material: Material) -> tuple[str, Design]:
    """(label, design) with panels of a material; the price stays, as it is the maker's own."""
    return f"Panels of {material.name}", replace_at(design, DENSITY, material.density)


def add_content(design: Design) -> tuple[str, Design]:
    """(label, design) with one more thing in the first chamber, to be described."""
    item = ContentItem(name="Something else", chamber=design.box.chambers[0].id)
    return "Add to the case", replace_at(design, CONTENTS, (*design.box.case.contents, item))


def remove_content(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without one of the things in the case."""
    contents = design.box.case.contents
    kept = (*contents[:place], *contents[place + 1 :])
    return f"Remove {contents[place].name}", replace_at(design, CONTENTS, kept)
