"""A part put into a design in place of the one that is there: the rest follows where it must.

Nothing else is changed than what the new part cannot do without: cells in series keep the bus
voltage, a plate amplifier brings its own mains, two coils become one.
"""

from collections.abc import Sequence
from itertools import pairwise
from typing import Any

from firecrest.assessment.power.charging import most_charging
from firecrest.core.errors import DesignError
from firecrest.core.power.chemistry import CHEMISTRIES
from firecrest.design.amplifiers import Amplifier, DspBoard
from firecrest.design.box import DriverGroup, RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.power import BUS, Power
from firecrest.design.sources import Cell, Charger, Mains, Pack, WallSupply
from firecrest.design.starts import START_PACK
from firecrest.proposals.layouts import with_kind


def put(design: Design, part: Any, place: int = 0) -> Design:
    """The design with ``part`` in place of the one of its kind (number ``place`` of them).

    DesignError when it cannot be: too few outputs, two mains supplies.
    """
    if isinstance(part, DriverPart):
        return _put_driver(design, part, place)
    if isinstance(part, RadiatorPart):
        return _put_radiator(design, part, place)
    power = design.power
    if isinstance(part, Amplifier):
        return replace_at(design, ("power",), _with_amplifier(power, part, place))
    if isinstance(part, DspBoard):
        return replace_at(design, path_of(design, part), part)
    if isinstance(part, Cell):
        return replace_at(design, ("power",), _with_cell(power, part))
    if isinstance(part, WallSupply):
        _check_no_mains(power)
        return replace_at(design, ("power", "source"), part)
    raise DesignError(f"{type(part).__name__} has no place in a design.")


def with_own_mains(design: Design, path: Path, mains: bool) -> tuple[str, Design]:
    """(label, design) whose amplifier at ``path`` has a mains supply of its own, or has not.

    The source follows; DesignError while another board disagrees about it.
    """
    part = rebuilt(value_at(design, path), own_mains=mains)
    label = f"{part.name}: {'own mains' if mains else 'no mains'}"
    return label, put(design, part, number_at(design, path))


def path_of(design: Design, part: Any, place: int = 0) -> Path:
    """Where a part of this kind stands in a design that holds one."""
    if isinstance(part, DriverPart):
        return ("box", "groups", place, "driver")
    if isinstance(part, RadiatorPart):
        places = [k for k, _ in placed(design.box.openings, RadiatorSet)]
        return ("box", "openings", places[place], "radiator")
    if isinstance(part, Cell):
        return ("power", "source", "cell")
    if isinstance(part, WallSupply):
        return ("power", "source")
    power = design.power
    board = power.amplifiers[place][0] if isinstance(part, Amplifier) else power.dsp_place
    return ("power", "boards", board, "part")


def number_at(design: Design, path: Path) -> int:
    """Which one of its kind the part at ``path`` is: the inverse of ``path_of``."""
    part = value_at(design, path)
    if path[:2] == ("box", "groups"):
        return int(path[2])
    if isinstance(part, RadiatorPart):
        return [k for k, _ in placed(design.box.openings, RadiatorSet)].index(int(path[2]))
    if isinstance(part, Amplifier):
        return [k for k, _ in design.power.amplifiers].index(int(path[2]))
    return 0


def _put_driver(design: Design, part: DriverPart, place: int) -> Design:
    group: DriverGroup = design.box.groups[place]
    coils = group.coils if part.coils == 2 else "as stated"
    made = rebuilt(group, driver=part, coils=coils)
    return replace_at(design, ("box", "groups", place), made)


def _put_radiator(design: Design, part: RadiatorPart, place: int) -> Design:
    if not placed(design.box.openings, RadiatorSet):
        design = with_kind(design, "radiators")
    return replace_at(design, path_of(design, part, place), part)


def _with_amplifier(power: Power, part: Amplifier, place: int) -> Power:
    boards = list(power.boards)
    board, old = power.amplifiers[place]
    boards[board] = rebuilt(old, part=part, rail=BUS if part.own_mains else old.rail)
    source = power.source
    if part.own_mains:
        source = Mains(kind="mains")
    elif isinstance(source, Mains):
        source = START_PACK
    return rebuilt(power, boards=tuple(boards), source=source)


def _check_no_mains(power: Power) -> None:
    for _, board in power.amplifiers:
        if board.part.own_mains:
            raise DesignError(f"{board.part.name} has a mains supply of its own.")


def _with_cell(power: Power, cell: Cell) -> Power:
    """As many cells in series as keep the pack's voltage at half charge."""
    _check_no_mains(power)
    pack = power.source if isinstance(power.source, Pack) else START_PACK
    wanted = pack.series * half_voltage(pack.cell)
    series = min(max(round(wanted / half_voltage(cell)), 1), 100)
    board = pack.board
    if board is not None and (series != pack.series or cell.chemistry != pack.cell.chemistry):
        opens = None if cell.cut_off is None else round(series * cell.cut_off * 1.05, 2)
        board = rebuilt(board, cut_off=opens)
    made = rebuilt(pack, cell=cell, series=series, board=board)
    if (series, cell.chemistry) != (pack.series, pack.cell.chemistry):
        made = rebuilt(made, charger=_charger(made))
    return rebuilt(power, source=made)


def _charger(pack: Pack) -> Charger | None:
    """The charger, to the full voltage of these cells, with no more current than they bear."""
    charger, full = pack.charger, CHEMISTRIES[pack.cell.chemistry].full
    if charger is None:
        return None
    volts = charger.voltage if full is None else round(full * pack.series, 2)
    return rebuilt(charger, voltage=volts, current=min(charger.current, most_charging(pack)))


def half_voltage(cell: Cell) -> float:
    """Rest voltage of a cell at half charge."""
    table = cell.table
    for low, high in pairwise(table):
        if low.charge <= 0.5 <= high.charge:
            share = (0.5 - low.charge) / (high.charge - low.charge)
            return low.rest_voltage + share * (high.rest_voltage - low.rest_voltage)
    return table[-1].rest_voltage if table[-1].charge < 0.5 else table[0].rest_voltage


def host(designs: Sequence[Design], part: Any) -> Design:
    """The first of ``designs`` that takes ``part``, fewer outputs used where it has too few.

    DesignError when none of them, at least one, does.
    """
    problem: DesignError | None = None
    for design in designs:
        try:
            return put(design, part)
        except DesignError as error:
            problem = error
    if isinstance(part, Amplifier):
        least = replace_at(designs[-1], ("voice", "channels", 0, "outputs"), 1)
        return put(least, part)
    assert problem is not None
    raise problem
