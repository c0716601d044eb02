"""Panels: the next thinner sheet, braced so that it stays stiff."""

from collections.abc import Iterator

from firecrest.core.note import note
from firecrest.proposals.moves.kinds import Proposal, Scene, number

SHEETS = (0.004, 0.0065, 0.009, 0.012, 0.015, 0.018, 0.021, 0.025)
"""Usual thicknesses of ply, m."""
STIFF_FROM = 0.012
"""Below this a panel of usual size needs a brace."""


def panels(scene: Scene) -> Iterator[Proposal]:
    """Outside as it is: more air, less weight."""
    now = scene.design.box.case.wall
    thinner = [sheet for sheet in SHEETS if sheet < now - 5e-4]
    if thinner:
        title = note("panels", wall=thinner[-1], brace=thinner[-1] < STIFF_FROM)
        yield from number(scene, "panels", ("box", "case", "wall"), thinner[-1], title)
