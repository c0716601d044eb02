"""Cells: a string more or fewer beside the others, a cell more or fewer in each string."""

from collections.abc import Iterator

from firecrest.core.note import note
from firecrest.design.design import Design
from firecrest.design.edits.paths import replace_at
from firecrest.design.edits.power import with_series
from firecrest.design.sources import Pack
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt

SOURCE = ("power", "source")


def cells(scene: Scene) -> Iterator[Proposal]:
    """Of a pack; a wall supply has none."""
    pack = scene.design.power.source
    if not isinstance(pack, Pack):
        return
    for step in (1, -1):
        title = note("strings", more=step > 0, cell=pack.cell.name)
        if pack.parallel + step > 0:
            path = (*SOURCE, "parallel")
            many = pack.parallel + step
            yield from attempt("cells", title, path, replace_at, scene.design, path, many)
        title = note("series", more=step > 0, series=pack.series + step)
        if pack.series + step > 0:
            path = (*SOURCE, "series")
            yield from attempt("cells", title, path, _in_series, scene.design, pack.series + step)


def _in_series(design: Design, series: int) -> Design:
    return with_series(design, series)[1]
