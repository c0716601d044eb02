"""Mass: ten grams more or less on each radiator of a set."""

from collections.abc import Iterator

from firecrest.core.note import note
from firecrest.design.box import RadiatorSet, placed
from firecrest.proposals.moves.kinds import Proposal, Scene, number

GRAMS = 0.010


def mass(scene: Scene) -> Iterator[Proposal]:
    """On every set by itself."""
    for place, item in placed(scene.design.box.openings, RadiatorSet):
        path = ("box", "openings", place, "added_mass")
        for step in (GRAMS, -GRAMS):
            title = note("mass", step=step, part=item.radiator.name)
            yield from number(scene, "mass", path, item.added_mass + step, title)
