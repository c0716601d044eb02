"""Levels: the louder ways turned down to the others, in steps of half a dB."""

from collections.abc import Iterator

from firecrest.assessment.balance import balance as balance_of
from firecrest.assessment.sharing import shared_air
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.edits.paths import set_number, value_at
from firecrest.proposals.moves.kinds import Proposal, Scene


def balance(scene: Scene) -> Iterator[Proposal]:
    """Not where shared air takes the bass: that is cured first."""
    found, design = balance_of(scene.assessment), scene.design
    if found is None or shared_air(scene.assessment) is not None:
        return
    places = found.louder if found.by > 0 else (found.lowest,)
    down = round(2 * abs(found.by)) / 2
    for place in places:
        path = ("voice", "channels", place, "gain")
        try:
            design = set_number(design, path, value_at(design, path) - down)
        except FirecrestError:
            return
    names = tuple(scene.design.voice.channels[place].name for place in places)
    yield Proposal("balance", note("balance", names=names, down=down), design)
