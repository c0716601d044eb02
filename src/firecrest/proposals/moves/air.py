"""Air: the case a twentieth larger or smaller, in the direction that has most room."""

from collections.abc import Iterator

from firecrest.core.note import note
from firecrest.design.edits.paths import value_at
from firecrest.proposals.moves.kinds import Proposal, Scene, number

SHARE = 0.05
SIDES = ("length", "height", "depth")


def air(scene: Scene) -> Iterator[Proposal]:
    """More or less air by the freest side, or by the measured volume where that is stated."""
    design = scene.design
    if design.box.chambers[0].stated_volume is not None:
        path = ("box", "chambers", 0, "stated_volume")
        for share in (1 + SHARE, 1 - SHARE):
            value = value_at(design, path) * share
            yield from number(scene, "air", path, value, note("air", volume=value, more=share > 1))
        return
    case, asked = design.box.case, design.brief.size
    room = {side: getattr(asked, side) - getattr(case, side) for side in SIDES}
    for most, sign in ((max, 1), (min, -1)):
        side = most(SIDES, key=lambda s: room[s])
        now = getattr(case, side)
        step = max(round(SHARE * now, 3), 1e-3)
        title = note("side", side=side, step=step, more=sign > 0)
        yield from number(scene, "air", ("box", "case", side), now + sign * step, title)
