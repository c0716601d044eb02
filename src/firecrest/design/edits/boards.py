"""Edits of what hangs on the source: amplifier boards, converters, and who is fed by which."""

from firecrest.core.errors import DesignError
from firecrest.design.amplifiers import Receiver
from firecrest.design.design import Design
from firecrest.design.edits.paths import built, rebuilt, replace_at
from firecrest.design.ids import found, fresh
from firecrest.design.power import BUS, FittedReceiver, Power
from firecrest.design.sources import Converter

START_OUTPUT = 24.0
"""Volts of a new converter where no claim says what the amplifier wants."""
START_RECEIVER = 0.5
"""Watts of a new receiver, as small radio boards draw."""
START_INPUT = 10.0
"""Amperes a new converter takes at most, until its sheet is read."""


def add_board(design: Design) -> tuple[str, Design]:
    """(label, design) with one more amplifier board like the last, its outputs free."""
    power = design.power
    place, last = power.amplifiers[-1]
    one = rebuilt(last, id=fresh([b.id for b in power.boards], "amplifier"))
    boards = (*power.boards[: place + 1], one, *power.boards[place + 1 :])
    return f"Add another {last.part.name}", _with(design, boards=boards)


def add_receiver(design: Design) -> tuple[str, Design]:
    """(label, design) with a receiver on the source: what it draws is to be filled in."""
    power = design.power
    part = Receiver(name="Receiver", power=START_RECEIVER)
    one = FittedReceiver(id=fresh([b.id for b in power.boards], "receiver"), part=part)
    return "Add receiver", _with(design, boards=(*power.boards, one))


def remove_receiver(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without a receiver."""
    gone = design.power.boards[place]
    boards = tuple(b for b in design.power.boards if b is not gone)
    return f"Remove {gone.part.name}", _with(design, boards=boards)


def remove_board(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without an amplifier board; DesignError while a channel is carried by it."""
    gone = design.power.boards[place]
    users = [c.name for c in design.voice.channels if c.board == gone.id]
    if users:
        raise DesignError(
            f"{gone.part.name} carries {' and '.join(users)}: choose another board for that in "
            "Voice first."
        )
    boards = tuple(b for b in design.power.boards if b is not gone)
    return f"Remove {gone.part.name}", _with(design, boards=boards)


def on_board(design: Design, channel: int, board: str) -> tuple[str, Design]:
    """(label, design) with a channel carried by the next free outputs of another board."""
    old = design.voice.channels[channel]
    made = rebuilt(old, board=board, first=None)
    name = found([b for _, b in design.power.amplifiers], board).part.name
    return f"{old.name} on {name}", replace_at(design, ("voice", "channels", channel), made)


def add_converter(design: Design) -> tuple[str, Design]:
    """(label, design) with a converter that feeds the first amplifier board on the source itself.

    It gives what that board's claims were stated at. DesignError when no board is left for it.
    """
    power = design.power
    free = [(k, b) for k, b in power.amplifiers if b.rail == BUS and not b.part.own_mains]
    if not free:
        raise DesignError("Every amplifier board has a converter or a mains supply of its own.")
    place, board = free[0]
    volts = board.part.claims[0].supply or START_OUTPUT
    id = fresh([BUS, *(c.id for c in power.converters)], "converter")
    boards = list(power.boards)
    boards[place] = rebuilt(board, rail=id)
    made = built(Converter, id=id, output_voltage=volts, input_current=START_INPUT)
    return "Add converter", _with(
        design, boards=tuple(boards), converters=(*power.converters, made)
    )


def remove_converter(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without a converter: what it fed hangs on the source."""
    power = design.power
    gone = power.converters[place]
    boards = tuple(rebuilt(b, rail=BUS) if b.rail == gone.id else b for b in power.boards)
    loads = tuple(rebuilt(o, rail=BUS) if o.rail == gone.id else o for o in power.other_loads)
    kept = tuple(c for c in power.converters if c is not gone)
    return f"Remove {gone.name.lower()}", _with(
        design, boards=boards, converters=kept, other_loads=loads
    )


def _with(design: Design, **changes: object) -> Design:
    power: Power = rebuilt(design.power, **changes)
    return replace_at(design, ("power",), power)
