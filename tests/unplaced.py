"""Demos as they were before anything had a place in them: for what has to do without."""

from functools import cache
from pathlib import Path

from firecrest.design.case import ContentItem
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import without_places
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.text import project_from_json
from firecrest.files.demos import read_demo

OLD = Path(__file__).parent / "design" / "old"
FILES = {  # their cases were others, too
    "boathouse": "boathouse-schema6.json",
    "breakwater": "breakwater-schema4.json",
}

BRACE = ContentItem(name="Brace", volume=0.00012, mass=0.07, price=2.0)


@cache
def unplaced(name: str) -> Design:
    """The demo of that name without places."""
    if name not in FILES:
        design = without_places(read_demo(name))[1]
        case = design.box.case
        said = rebuilt(case, braces=(), contents=(BRACE, *case.contents))
        return replace_at(design, ("box", "case"), said)
    return project_from_json((OLD / FILES[name]).read_text(encoding="utf-8")).design
