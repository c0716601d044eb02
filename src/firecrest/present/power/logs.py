"""A logged discharge as the cells of a design."""

from pathlib import Path

from firecrest.core.power.logged import drawn
from firecrest.design.design import Design
from firecrest.design.edits.power import with_measured_cells
from firecrest.design.sources import Pack
from firecrest.files.bounded import read_bytes
from firecrest.files.discharge import read_discharge

LARGEST = 32 * 2**20


def cells_from_log(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) whose cells hold what the log at ``path`` shows down to the cut-off of the
    protection board; FirecrestError says what in it is not understood.
    """
    text = read_bytes(path, LARGEST).decode("utf-8", errors="replace")
    pack = design.power.source
    opens = pack.board.cut_off if isinstance(pack, Pack) and pack.board else None
    found = drawn(read_discharge(text, path.name), opens)
    return with_measured_cells(design, found.charge, found.resistance)
