"""A Slipway with everything in a place, and its drawing."""

from functools import cache

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.cabinet.drawing import Drawing, drawing_of
from firecrest.design.design import Design
from firecrest.files.demos import read_demo
from firecrest.proposals.siting import placed_all


@cache
def placed(name: str = "slipway") -> Design:
    return placed_all(read_demo(name))


def drawn(design: Design) -> tuple[Assessment, Drawing]:
    assessed = assess(design)
    return assessed, drawing_of(assessed)
