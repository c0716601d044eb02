"""What would hurt someone or burn: errors, told on the strip, not footnotes.

They stand in the design itself: nothing need be heard for them.
"""

from collections.abc import Iterator

from firecrest.assessment.power.charging import most_charging
from firecrest.core.note import Note, note
from firecrest.core.power.chemistry import CHEMISTRIES
from firecrest.core.power.cold import ZERO_CELSIUS
from firecrest.design.design import Design
from firecrest.design.sources import Pack

ROUNDING = 1e-6
VOLTS_OFF = 1.0005
"""A charger's voltage may be off by so little."""


def dangers(design: Design) -> tuple[Note, ...]:
    """Every danger of a design, the worst first."""
    source = design.power.source
    if isinstance(source, Pack):
        return (*_pack(source), *_charger(source, design), *_converters(design))
    return tuple(_converters(design))


def _pack(pack: Pack) -> Iterator[Note]:
    lithium = CHEMISTRIES[pack.cell.chemistry].lithium
    if lithium and pack.board is None:
        yield note("no protection board", cell=pack.cell.name)
    most, board = pack.cell.max_current, pack.board
    if board is None or board.max_current is None or most is None:
        return
    cells = most * pack.parallel
    if board.max_current > cells * (1 + ROUNDING):
        yield note("board above cells", board=board.max_current, cells=cells)


def _charger(pack: Pack, design: Design) -> Iterator[Note]:
    charger, chemistry = pack.charger, CHEMISTRIES[pack.cell.chemistry]
    if charger is None:
        return
    most = most_charging(pack)
    if charger.current > most * (1 + ROUNDING):
        yield note("charger too strong", charger=charger.current, cells=most)
    if chemistry.full is not None and charger.voltage > chemistry.full * pack.series * VOLTS_OFF:
        yield note("charger too high", charger=charger.voltage, pack=chemistry.full * pack.series)
    if chemistry.lithium and design.brief.conditions.temperature < ZERO_CELSIUS - ROUNDING:
        yield note("charged below freezing")


def _converters(design: Design) -> Iterator[Note]:
    """A step up that gets more than it gives; the rail of a board is judged where it plays."""
    power = design.power
    source = power.source
    if source.kind == "mains":
        return
    most = (
        source.series * source.cell.table[-1].rest_voltage
        if isinstance(source, Pack)
        else source.voltage
    )
    for converter in power.converters:
        if converter.step == "up" and most > converter.output_voltage * (1 + ROUNDING):
            yield note(
                "step up overfed", part=converter.name, gives=converter.output_voltage, gets=most
            )
