"""What feeds the boards: safer packs, stronger protection boards and converters, wire and fuse."""

from collections.abc import Iterator
from math import ceil

from firecrest.assessment.power.charging import most_charging
from firecrest.assessment.power.dangers import dangers
from firecrest.assessment.power.wiring import wiring
from firecrest.core.note import note
from firecrest.core.power.chemistry import CHEMISTRIES
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.edits.power import with_protection
from firecrest.design.edits.wiring import with_fuse, with_wire
from firecrest.design.sources import Pack
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt, number
from firecrest.proposals.wiring import fitted

SOURCE = ("power", "source")
STRONGER = 1.5
"""How much more a next protection board or converter bears."""


def guard(scene: Scene) -> Iterator[Proposal]:
    """Mends of what would hurt someone: they come first."""
    pack = scene.design.power.source
    for found in dangers(scene.design) if isinstance(pack, Pack) else ():
        assert isinstance(pack, Pack)
        if found.code == "no protection board":

            def _fitted() -> Design:
                return with_protection(scene.design, on=True)[1]

            yield from attempt("guard", note("guarded"), (*SOURCE, "board", "max_current"), _fitted)
        elif found.code == "board above cells":
            most = float((pack.cell.max_current or 0.0) * pack.parallel)
            path = (*SOURCE, "board", "max_current")
            yield from number(scene, "guard", path, most, note("board at cells", amperes=most))
        elif found.code == "charger too strong":
            path, most = (*SOURCE, "charger", "current"), most_charging(pack)
            yield from number(scene, "guard", path, most, note("gentle charger", amperes=most))
        elif found.code == "charger too high":
            volts = (CHEMISTRIES[pack.cell.chemistry].full or 0.0) * pack.series
            path = (*SOURCE, "charger", "voltage")
            yield from number(scene, "guard", path, volts, note("charger volts", volts=volts))


def stronger(scene: Scene) -> Iterator[Proposal]:
    """A protection board that opens later, as far as the cells bear; converters that bear more."""
    pack = scene.design.power.source
    if isinstance(pack, Pack) and pack.board is not None and pack.board.max_current is not None:
        cells, now = pack.cell.max_current, pack.board.max_current
        most = STRONGER * now if cells is None else min(STRONGER * now, cells * pack.parallel)
        if most > now * 1.01:
            value = float(ceil(10 * most - 1e-6)) / 10 if cells is None else most
            path = (*SOURCE, "board", "max_current")
            yield from number(scene, "board", path, value, note("stronger board", amperes=value))
    for place, converter in enumerate(scene.design.power.converters):
        for figure in ("input_current", "output_current"):
            now = getattr(converter, figure)
            if now is not None:
                value = float(ceil(STRONGER * now))
                where: Path = ("power", "converters", place, figure)
                title = note("stronger converter", part=converter.name, amperes=value)
                yield from number(scene, "converter", where, value, title)


def wires(scene: Scene) -> Iterator[Proposal]:
    """The wire that the lead wants, and a fuse where there is none."""
    power = scene.design.power
    if power.lead.length is None and power.fuse is not None:
        return
    found = wiring(scene.assessment)
    if found is None:
        return
    if found.lead is not None and not found.lead.fine and found.lead.area is not None:
        area, path = found.lead.area, ("power", "lead", "area")

        def _wired() -> Design:
            return with_wire(scene.design, area)[1]

        yield from attempt("wire", note("wire", area=area), path, _wired)
    if power.fuse is None and found.fuse is not None and power.source.kind == "pack":
        fuse = fitted(found.fuse)

        def _fused() -> Design:
            return with_fuse(scene.design, on=True, fuse=fuse)[1]

        title = note("fuse", rating=fuse.rating, kind=fuse.kind)
        yield from attempt("fuse", title, ("power", "lead", "length"), _fused)
