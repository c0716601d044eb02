"""Filling: lined or filled in place of empty, and the other way."""

from collections.abc import Iterator

from firecrest.core.acoustics.losses import DAMPING, Damping, damping_of
from firecrest.core.note import note
from firecrest.design.design import Design
from firecrest.design.edits.box import set_damping
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt


def fill(scene: Scene) -> Iterator[Proposal]:
    """Of the first chamber, unless its fibre is stated by flow resistance."""
    chamber = scene.design.box.chambers[0]
    if chamber.fill_resistivity is not None:
        return
    now = damping_of(chamber.stuffing, chamber.absorption_q)
    for preset in DAMPING:
        if preset is not now:
            path = ("box", "chambers", 0, "stuffing")
            title = note("fill", key=preset.key)
            yield from attempt("fill", title, path, _filled, scene.design, preset)


def _filled(design: Design, preset: Damping) -> Design:
    return set_damping(design, 0, preset)[1]
