"""The place: the case turned in it, or the box in another one."""

from collections.abc import Iterator

from firecrest.core.note import note
from firecrest.design.edits.paths import replace_at
from firecrest.proposals.moves.kinds import Proposal, Scene
from firecrest.proposals.turning import SIDES, turned

NEXT = {"pole": "ground", "ground": "wall", "wall": "corner"}


def turn(scene: Scene) -> Iterator[Proposal]:
    """The case on another side, where that alone makes it fit."""
    made = turned(scene.design) if scene.assessment.promise("size").state == "short" else None
    if made is not None:
        sides = tuple(getattr(made.brief.size, side) for side in SIDES)
        yield Proposal("turn", note("turn"), made, ("brief", "size"), note("turned", sides=sides))


def place(scene: Scene) -> Iterator[Proposal]:
    """Nearer to walls, which hold the bass together."""
    nearer = NEXT.get(scene.design.brief.listening.place)
    if nearer is not None:
        path = ("brief", "listening", "place")
        design = replace_at(scene.design, path, nearer)
        yield Proposal("place", note("place", place=nearer), design, path, asks_less=True)
