"""How many radiators: one more or one fewer, tuned as before where that can be."""

from collections.abc import Iterator

from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import set_number
from firecrest.design.ids import place_of
from firecrest.proposals.inverse import tuning_of, with_tuning
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt


def count(scene: Scene) -> Iterator[Proposal]:
    """One more and one fewer of each set."""
    for place, item in placed(scene.design.box.openings, RadiatorSet):
        for many in (item.count + 1, item.count - 1):
            title = note("count", more=many > item.count, part=item.radiator.name)
            path = ("box", "openings", place, "count")
            if many:
                yield from attempt("count", title, path, _with, scene.design, place, many)


def _with(design: Design, place: int, many: int) -> Design:
    chamber = place_of(design.box.chambers, design.box.openings[place].chamber)
    tuning = tuning_of(design, chamber)
    made = set_number(design, ("box", "openings", place, "count"), many)
    try:
        return made if tuning is None else with_tuning(made, tuning, chamber)
    except FirecrestError:
        return made
