"""A Slipway with everything in a place, and its drawing."""

from functools import cache

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.cabinet.drawing import Drawing, drawing_of
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import without_places
from firecrest.design.edits.paths import replace_at
from firecrest.files.demos import read_demo
from firecrest.proposals.siting import placed_all


@cache
def bare(name: str = "slipway") -> Design:
    """A demo with nothing in a place, and no braces."""
    design = without_places(read_demo(name))[1]
    return replace_at(design, ("box", "case", "braces"), ())


@cache
def placed(name: str = "slipway") -> Design:
    return placed_all(bare(name))


def drawn(design: Design) -> tuple[Assessment, Drawing]:
    assessed = assess(design)
    return assessed, drawing_of(assessed)
