"""What eats the air, row by row from the outside to the net air."""

from collections.abc import Iterator
from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet.rollup import enclosed_in
from firecrest.assessment.cabinet.within import room_inside
from firecrest.core.cabinet.ledger import KINDS
from firecrest.core.units import figure
from firecrest.design.edits.paths import Path
from firecrest.present.text.units import told

NAMES = {
    "driver": "Drivers",
    "radiator": "Radiators",
    "port": "Ports",
    "board": "Boards",
    "pack": "Pack",
    "cup": "Cups",
    "inner box": "Inner boxes",
    "other": "Other contents",
}
WHERE: dict[str, Path] = {
    "driver": ("box", "groups", 0, "driver", "displacement"),
    "radiator": ("box", "openings", 0),
    "port": ("box", "openings", 0),
    "board": ("power", "boards", 0),
    "pack": ("power", "source"),
    "cup": ("box", "case", "fittings", 0),
    "inner box": ("box", "case", "inner", 0, "depth"),
    "other": ("box", "case", "contents", 0),
}
"""What a row leads to."""


@dataclass(frozen=True)
class LedgerRow:
    """A row: litres in words, its bar from ``start`` to ``end`` as shares of the outside.

    ``strong`` rows are what is there; the others are what is taken or given.
    """

    key: str
    name: str
    value: str
    start: float
    end: float
    strong: bool
    path: Path | None
    help: str = ""


def ledger_rows(assessment: Assessment) -> list[LedgerRow]:
    """From outside to net; per chamber where there are several."""
    rolled, design = assessment.cabinet, assessment.design
    outside = float(rolled.outside)
    left = outside

    def _row(key: str, name: str, change: float, path: Path | None, help: str = "") -> LedgerRow:
        nonlocal left
        before, left = left, left + change
        low, high = sorted((before / outside, left / outside))
        sign = "+" if change > 0 else "−"
        return LedgerRow(key, name, f"{sign}{_litres(abs(change))}", low, high, False, path, help)

    rows = [
        LedgerRow(
            "outside", "Outside", _litres(outside), 0.0, 1.0, True, ("box", "case", "length"),
            "All that the case displaces, less what its panels are let in by.",
        )
    ]  # fmt: skip
    walls = float(rolled.outside) - float(rolled.inside)
    thick = told(design.box.case.wall, "length", "mm", 1)
    rows.append(_row("walls", f"Walls, {thick}", -walls, ("box", "case", "wall")))
    rooms = rolled.rooms.values()
    gross = sum(float(r.gross) for r in rooms)
    enclosed = enclosed_in(design.box.case, design.box.chambers)
    own = sum(float(room_inside(box)) for box in enclosed.values())
    dividers = float(rolled.inside) - (gross - own)
    if abs(dividers) > 1e-7:
        drawn = any(b.divider for b in rolled.braces)
        rows.append(_row("dividers", "Dividers" if drawn else "Not shared out", -dividers, None))
    if own > 0:
        help = "What inner boxes that are chambers hold; their outside comes off below."
        rows.append(_row("enclosed", "Within inner boxes", own, WHERE["inner box"], help))
    openings = sum(float(r.openings) for r in rooms)
    if openings > 0:
        help = "Air in the openings, between a frame's seal and the inside of its panel."
        rows.append(_row("openings", "Openings", openings, None, help))
    braces = sum(float(r.braces) for r in rooms)
    if braces > 0:
        rows.append(_row("braces", "Braces", -braces, ("box", "case", "braces", 0, "at")))
    for kind in KINDS:
        taken = sum(float(r.taken.get(kind, 0.0)) for r in rooms)
        if taken > 5e-9:
            rows.append(_row(kind, NAMES[kind], -taken, WHERE[kind], _basis(assessment, kind)))
    rows += _nets(assessment, outside)
    return rows


def _basis(assessment: Assessment, kind: str) -> str:
    """Where a row's litres come from."""
    things = [t for t in assessment.cabinet.things if t.kind == kind]
    loose = [t for t in things if t.loose > 0]
    if kind in ("driver", "radiator", "board"):
        stated = "What their sheets say they take; where a sheet says nothing, their solids."
        return stated + (" Without places their openings are not counted." if loose else "")
    if kind == "pack":
        return "By its cells." if loose else "The wrapped brick, as it is drawn."
    return ""


def _nets(assessment: Assessment, outside: float) -> Iterator[LedgerRow]:
    """Net air of each chamber; a measured volume overrules, and the difference is told."""
    chambers = assessment.design.box.chambers
    for k, chamber in enumerate(chambers):
        net = float(assessment.cabinet.rooms[chamber.id].net)
        air = float(assessment.cabinet.air[k])
        name = "Air left, Vb" if len(chambers) == 1 else f"{chamber.name}, Vb"
        path: Path = ("box", "chambers", k, "stated_volume")
        help = ""
        if chamber.stated_volume is not None:
            off = air - net
            help = f"Measured: {'+' if off >= 0 else '−'}{_litres(abs(off))} L to the sum."
            name += ", measured"
        yield LedgerRow(
            f"net {k}", name, _litres(air), 0.0, max(air, 0.0) / outside, True, path, help
        )


def _litres(volume: float) -> str:
    return figure(volume * 1e3, 2)


def measured_note(assessment: Assessment) -> str:
    """What a measured volume changes; empty without one."""
    said = []
    for k, chamber in enumerate(assessment.design.box.chambers):
        if chamber.stated_volume is not None:
            off = float(assessment.cabinet.air[k] - assessment.cabinet.rooms[chamber.id].net)
            word = "more" if off >= 0 else "less"
            said.append(
                f"{chamber.name}: measured {_litres(abs(off))} L {word} than the drawing gives"
            )
    return "; ".join(said)
