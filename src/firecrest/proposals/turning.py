"""A case in its place: turned on another side it may fit where it does not as it stands."""

from itertools import permutations

from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at

SIDES = ("length", "height", "depth")


def turned(design: Design) -> Design | None:
    """The design with the size asked for turned so that the case fits; None when no turn does.

    What is turned is the place the case stands in, seen from the case; the case stays as it is.
    """
    case, asked = design.box.case, design.brief.size
    takes = [getattr(case, side) for side in SIDES]
    room = [getattr(asked, side) for side in SIDES]
    for order in permutations(room):
        if all(need <= there for need, there in zip(takes, order, strict=True)):
            made = rebuilt(asked, **dict(zip(SIDES, order, strict=True)))
            return None if made == asked else replace_at(design, ("brief", "size"), made)
    return None
