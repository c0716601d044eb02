"""Edits of the power side: where it comes from, and what the board claims."""

from typing import Literal

from firecrest.core.errors import DesignError
from firecrest.core.power.charger import HOUR, USUAL_CURRENT
from firecrest.core.power.chemistry import CHEMISTRIES, usual_table
from firecrest.core.power.cold import USUAL
from firecrest.design.amplifiers import Claim, Efficiency, OutputKind
from firecrest.design.design import Design
from firecrest.design.edits.parts import take_figures
from firecrest.design.edits.paths import Path, built, rebuilt, replace_at, set_number, value_at
from firecrest.design.fields import field_facts
from firecrest.design.power import BUS, OtherLoad, Power
from firecrest.design.sources import (
    Cell,
    CellPoint,
    CellWarmth,
    Charger,
    Mains,
    Pack,
    Source,
    WallSupply,
)
from firecrest.design.starts import START_PACK

Kind = Literal["pack", "wall", "mains"]
START_EFFICIENCY = 0.85
KINDS: dict[Kind, str] = {"pack": "Pack", "wall": "Wall supply", "mains": "Own mains"}


def with_source(design: Design, kind: Kind) -> tuple[str, Design]:
    """(label, design) fed in another way, from a sensible start.

    A wall supply starts at the voltage the design has now; an amplifier with a mains supply of its
    own needs no converter.
    """
    power = design.power
    if kind == power.source.kind:
        return "", design
    made: dict[Kind, Source] = {
        "pack": START_PACK,
        "wall": WallSupply(kind="wall", voltage=_voltage(design), continuous_current=3.0),
        "mains": Mains(kind="mains"),
    }
    made_power = with_mains(power, mains=kind == "mains", source=made[kind])
    return f"Power from: {KINDS[kind].lower()}", replace_at(design, ("power",), made_power)


def with_mains(power: Power, *, mains: bool, source: Source) -> Power:
    """Another source; amplifiers with mains supplies of their own have no converters."""
    boards = list(power.boards)
    for place, board in power.amplifiers:
        part = rebuilt(board.part, own_mains=mains)
        boards[place] = rebuilt(board, part=part, rail=BUS if mains else board.rail)
    return rebuilt(power, boards=tuple(boards), source=source)


def _voltage(design: Design) -> float:
    """About what the amplifier has now: the pack's middle, or its claimed supply."""
    power = design.power
    if isinstance(power.source, Pack):
        table = power.source.cell.table
        middle = table[len(table) // 2].rest_voltage
        return round(power.source.series * middle, 1)
    return power.amplifiers[0][1].part.claims[0].supply or 24.0


def _claims(board: int) -> Path:
    return ("power", "boards", board, "part", "claims")


def add_claim(design: Design, board: int) -> tuple[str, Design]:
    """(label, design) with one more claim of a board: half the first one's power into twice its
    load.
    """
    claims = value_at(design, _claims(board))
    first = claims[0]
    facts = field_facts(Claim, "power")
    assert facts is not None
    more = built(
        Claim,
        power=max(first.power / 2, facts.low),
        load=min(first.load * 2, 200.0),
        supply=first.supply,
        thd=first.thd,
    )
    return "Add claim", replace_at(design, _claims(board), (*claims, more))


def remove_claim(design: Design, board: int, place: int) -> tuple[str, Design]:
    """(label, design) without a claim of a board; DesignError when it is the last one."""
    claims = value_at(design, _claims(board))
    if len(claims) == 1:
        raise DesignError("An amplifier needs at least one claim.")
    kept = (*claims[:place], *claims[place + 1 :])
    return "Remove claim", replace_at(design, _claims(board), kept)


LOADS = ("power", "other_loads")


def add_load(design: Design) -> tuple[str, Design]:
    """(label, design) with one more load on the source, a watt to begin with."""
    load = OtherLoad(name="Something else", power=1.0)
    return "Add load", replace_at(design, LOADS, (*design.power.other_loads, load))


def remove_load(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without a load."""
    loads = design.power.other_loads
    kept = (*loads[:place], *loads[place + 1 :])
    return f"Remove {loads[place].name}", replace_at(design, LOADS, kept)


CELL: Path = ("power", "source", "cell")
CELL_TABLE: Path = (*CELL, "table")


def add_cell_point(design: Design) -> tuple[str, Design]:
    """(label, design) with one more point of the cell's table, in the middle of its widest gap."""
    table: tuple[CellPoint, ...] = value_at(design, CELL_TABLE)
    place = max(range(1, len(table)), key=lambda k: table[k].charge - table[k - 1].charge)
    low, high = table[place - 1], table[place]
    names = ("charge", "rest_voltage", "resistance")
    middle = {name: (getattr(low, name) + getattr(high, name)) / 2 for name in names}
    made = (*table[:place], CellPoint(**middle), *table[place:])
    return "Add point", replace_at(design, CELL_TABLE, made)


def remove_cell_point(design: Design) -> tuple[str, Design]:
    """(label, design) without the last point but one; DesignError when two are left."""
    table: tuple[CellPoint, ...] = value_at(design, CELL_TABLE)
    if len(table) <= 2:
        raise DesignError("A cell's table needs at least two points.")
    return "Remove point", replace_at(design, CELL_TABLE, (*table[:-2], table[-1]))


def with_usual_table(design: Design) -> tuple[str, Design]:
    """(label, design) whose cell has the usual table of its chemistry, with the resistance that its
    own one ends with: an estimate, for sheets that state but one figure.
    """
    cell: Cell = value_at(design, CELL)
    usual = usual_table(cell.chemistry, cell.table[-1].resistance)
    rows = tuple(
        built(CellPoint, charge=float(q), rest_voltage=float(v), resistance=float(r))
        for q, v, r in zip(usual.charge, usual.rest_voltage, usual.resistance, strict=True)
    )
    made = rebuilt(cell, table=rows, origins={**cell.origins, "table": "estimate"})
    return "Usual table of its chemistry", replace_at(design, CELL, made)


def with_own_warmth(design: Design, own: bool) -> tuple[str, Design]:
    """(label, design) whose cell has a table by temperature of its own, to begin with the usual one
    of its chemistry, or whose cell takes the usual one.
    """
    rows: tuple[CellWarmth, ...] = ()
    if own:
        usual = USUAL[value_at(design, CELL).chemistry]
        rows = tuple(
            CellWarmth(temperature=float(t), capacity=float(c), resistance=float(r))
            for t, c, r in zip(usual.temperature, usual.capacity, usual.resistance, strict=True)
        )
    label = "Own table by temperature" if own else "Usual table by temperature"
    return label, replace_at(design, (*CELL, "warmth"), rows)


def with_protection(design: Design, on: bool) -> tuple[str, Design]:
    """(label, design) with a protection board on the pack, or without; it opens a little above the
    cells' own cut-off.
    """
    pack = design.power.source
    if not isinstance(pack, Pack):
        raise DesignError("Only a pack has a protection board.")
    board = None
    if on:
        start = START_PACK.board
        opens = (
            None if pack.cell.cut_off is None else round(pack.series * pack.cell.cut_off * 1.05, 2)
        )
        board = rebuilt(start, cut_off=opens)
    word = "Add" if on else "Remove"
    return f"{word} protection board", replace_at(design, ("power", "source", "board"), board)


def with_series(design: Design, series: int) -> tuple[str, Design]:
    """(label, design) with so many cells in series: the cut-off of the protection board and the
    voltage of the charger go with them. DesignError without a pack.
    """
    pack = design.power.source
    if not isinstance(pack, Pack):
        raise DesignError("Only a pack has cells in series.")
    made = set_number(design, (*CELL[:-1], "series"), series)
    grown, board, charger = series / pack.series, pack.board, pack.charger
    if board is not None and board.cut_off is not None:
        board = rebuilt(board, cut_off=round(board.cut_off * grown, 2))
    if charger is not None:
        charger = rebuilt(charger, voltage=round(charger.voltage * grown, 2))
    source = rebuilt(made.power.source, board=board, charger=charger)
    return f"{series} cells in series", replace_at(made, ("power", "source"), source)


def with_charger(design: Design, on: bool) -> tuple[str, Design]:
    """(label, design) with a charger for the pack, or without: to the full voltage of its cells, at
    what they bear while charging.
    """
    pack = design.power.source
    if not isinstance(pack, Pack):
        raise DesignError("Only a pack has a charger.")
    charger = None
    if on:
        full = CHEMISTRIES[pack.cell.chemistry].full or pack.cell.table[-1].rest_voltage
        usual = USUAL_CURRENT * pack.cell.capacity / HOUR
        most = pack.cell.charge_current or usual
        charger = built(
            Charger,
            current=float(f"{0.8 * most * pack.parallel:.2g}"),
            voltage=round(full * pack.series, 2),
        )
    word = "Add" if on else "Remove"
    return f"{word} charger", replace_at(design, ("power", "source", "charger"), charger)


def with_measured_cells(
    design: Design, charge: float, resistance: float | None
) -> tuple[str, Design]:
    """(label, design) whose cells hold what a discharge of the pack gave (``charge``, A s), and
    resist as it told (ohm of the whole pack); both measured. DesignError without a pack.
    """
    pack = design.power.source
    if not isinstance(pack, Pack):
        raise DesignError("Only a pack has cells: choose it as the source first.")
    figures = {"capacity": charge / pack.parallel}
    label, made = take_figures(design, CELL, figures, "measured", {}, "Capacity from a log")
    if resistance is None:
        return label, made
    board = pack.board.resistance if pack.board else 0.0
    cells = max(resistance - board - design.power.lead.resistance, 0.0)
    half = sum(p.resistance for p in pack.cell.table) / len(pack.cell.table)
    times = cells * pack.parallel / pack.series / half if half > 0 else 1.0
    if not 0.2 < times < 5.0:
        return label, made
    table = tuple(rebuilt(p, resistance=min(p.resistance * times, 2.0)) for p in pack.cell.table)
    return "Cells from a log", replace_at(made, CELL_TABLE, table)


def with_efficiency(design: Design, path: Path, on: bool) -> tuple[str, Design]:
    """(label, design) whose amplifier at ``path`` states an efficiency, of its first claim."""
    stated = Efficiency(value=START_EFFICIENCY) if on else None
    word = "stated" if on else "estimated"
    return f"Efficiency {word}", replace_at(design, (*path, "efficiency"), stated)


def add_output_kind(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) whose amplifier at ``path`` has one more kind of output, like its first."""
    part = value_at(design, path)
    kind = OutputKind(bridged=part.bridged, claims=part.claims, least_load=part.least_load)
    kinds = (*part.other_outputs, kind)
    return "Add kind of output", replace_at(design, (*path, "other_outputs"), kinds)


def remove_output_kind(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) without the last other kind of output; DesignError while it is in use."""
    kinds = value_at(design, path).other_outputs[:-1]
    return "Remove kind of output", replace_at(design, (*path, "other_outputs"), kinds)
