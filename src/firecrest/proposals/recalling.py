"""What a switch of kind or layout set aside, brought back from the designs before."""

from collections.abc import Iterable

from firecrest.design.box import Box, Opening
from firecrest.design.design import Design
from firecrest.design.edits.box import check_faces_outside
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.ids import fresh
from firecrest.proposals.layouts import Kind, Layout, kind_of, layout_of, with_kind, with_layout


def switched_kind(design: Design, kind: Kind, chamber: int, past: Iterable[Design]) -> Design:
    """A chamber of another kind: with the openings it had when it last was one, else a start.

    ``past``: the designs before this one, newest first. DesignError as ``with_kind``.
    """
    if kind == kind_of(design, chamber):
        return design
    id = design.box.chambers[chamber].id
    others = tuple(o for o in design.box.openings if id not in (o.chamber, o.opens_to))
    for old in past if kind != "sealed" else ():
        found = _openings(old.box, id)
        places = [k for k, c in enumerate(old.box.chambers) if c.id == id]
        if places and found and kind_of(old, places[0]) == kind:
            made = _with_openings(design, others, found)
            if made is not None:
                return made
    return with_kind(design, kind, chamber)


def _openings(box: Box, chamber: str) -> list[Opening]:
    return [o for o in box.openings if chamber in (o.chamber, o.opens_to)]


def _with_openings(
    design: Design, others: tuple[Opening, ...], found: Iterable[Opening]
) -> Design | None:
    """The design with openings back in it; None where they lead to what is no longer there."""
    known = {c.id for c in design.box.chambers} | {"outside"}
    back: list[Opening] = []
    for opening in found:
        if not {opening.chamber, opening.opens_to} <= known:
            return None
        id = fresh([o.id for o in (*others, *back)], opening.id)
        back.append(rebuilt(opening, id=id))
    made = replace_at(design, ("box", "openings"), (*others, *back))
    check_faces_outside(made.box)
    return made


def switched_layout(design: Design, layout: Layout, past: Iterable[Design]) -> Design:
    """The box laid out as it was when it last was so, with the same drivers, else from a start.

    DesignError as ``with_layout``.
    """
    if layout == layout_of(design):
        return design
    here = _driven(design)
    for old in past:
        if layout_of(old) == layout and _driven(old) == here:
            # The drivers as they are now: others may have been chosen since.
            pairs = zip(old.box.groups, design.box.groups, strict=True)
            groups = tuple(rebuilt(now, chamber=o.chamber, front=o.front) for o, now in pairs)
            case = rebuilt(design.box.case, contents=old.box.case.contents)
            return replace_at(design, ("box",), rebuilt(old.box, groups=groups, case=case))
    return with_layout(design, layout)


def _driven(design: Design) -> list[tuple[str, str]]:
    """Driver groups and the channels they are on."""
    return [(group.id, group.channel) for group in design.box.groups]
