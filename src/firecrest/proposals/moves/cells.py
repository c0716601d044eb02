"""Cells: a string more or fewer beside the others, a cell more or fewer in each string."""

from collections.abc import Iterator

from firecrest.assessment.assess import assess
from firecrest.assessment.worth import worst_must
from firecrest.core.note import note
from firecrest.design.design import Design
from firecrest.design.edits.paths import replace_at
from firecrest.design.edits.power import with_series
from firecrest.design.sources import Pack
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt

SOURCE = ("power", "source")
FURTHER = 16
"""Cells in series by which it is tried at most to wake a board."""


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

    heard = scene.assessment.acoustic
    if heard is not None and not heard.plays:
        yield from _awake(scene, pack)


def _awake(scene: Scene, pack: Pack) -> Iterator[Proposal]:
    """The fewest cells in series with which a board that is silent now comes nearer to what is
    promised.
    """
    now = worst_must(scene.assessment.promises)
    for series in range(pack.series + 2, pack.series + FURTHER):
        title, path = note("series", more=True, series=series), (*SOURCE, "series")
        for found in attempt("cells", title, path, _in_series, scene.design, series):
            if worst_must(assess(found.design).promises) > now:
                yield found
                return


def _in_series(design: Design, series: int) -> Design:
    return with_series(design, series)[1]
