"""Cells: a string more or fewer beside the others, a cell more or fewer in each string."""

from collections.abc import Iterator

from firecrest.core.note import note
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
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
            yield from attempt("cells", title, path, in_series, scene.design, pack, step)


def in_series(design: Design, pack: Pack, step: int) -> Design:
    """More or fewer cells in series, the protection board's cut-off moved with them."""
    board = pack.board
    if board is not None and board.cut_off is not None:
        raised = board.cut_off * (pack.series + step) / pack.series
        board = rebuilt(board, cut_off=round(raised, 2))
    return replace_at(design, SOURCE, rebuilt(pack, series=pack.series + step, board=board))
