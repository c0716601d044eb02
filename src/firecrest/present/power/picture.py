"""The whole chain as a wiring picture: boxes in columns, wires with their poles, labels."""

from collections.abc import Iterator
from dataclasses import dataclass

from firecrest.core.units import THIN_SPACE
from firecrest.design.box import DriverGroup
from firecrest.design.design import Design
from firecrest.design.outputs import carried
from firecrest.design.power import BUS, Lead, Power
from firecrest.present.text.units import told

WIDTH, GAP, TALL, BETWEEN, EDGE = 118.0, 50.0, 46.0, 16.0, 18.0
LANE = 8.0
"""Height of wires that pass over a column."""
PLUS, SIGNAL, SPEAKER, MAINS = "plus", "signal", "speaker", "mains"
FOOT = 34.0
"""Room for what the lines mean."""
Spot = tuple[float, float]


@dataclass(frozen=True)
class Box:
    """A part: its title, a line below it, and where it stands."""

    key: str
    title: str
    line: str
    x: float
    y: float
    width: float = WIDTH
    height: float = TALL


@dataclass(frozen=True)
class Wire:
    """One wire or pair with its number, what it joins, its kind and its corners."""

    number: int
    start: str
    end: str
    kind: str
    what: str
    corners: tuple[Spot, ...]


@dataclass(frozen=True)
class WiringPicture:
    """Boxes and wires, and how large the whole is."""

    boxes: tuple[Box, ...]
    wires: tuple[Wire, ...]
    width: float
    height: float


def wiring_picture(design: Design) -> WiringPicture:
    """Supply, fuse, switch, converters, boards, channels and drivers of a design."""
    columns = _columns(design)
    tallest = max(len(column) for column in columns)
    height = 2 * EDGE + tallest * (TALL + BETWEEN) + FOOT
    boxes: list[Box] = []
    for place, column in enumerate(columns):
        free = height - FOOT - 2 * EDGE - len(column) * (TALL + BETWEEN) + BETWEEN
        y = EDGE + free / 2
        for key, title, line in column:
            boxes.append(Box(key, title, line, EDGE + place * (WIDTH + GAP), y))
            y += TALL + BETWEEN
    width = 2 * EDGE + len(columns) * WIDTH + (len(columns) - 1) * GAP
    at = {box.key: box for box in boxes}
    wires = tuple(
        Wire(number, at[start].title, at[end].title, kind, what, _corners(at[start], at[end], kind))
        for number, (start, end, kind, what) in enumerate(_joins(design), 1)
    )
    return WiringPicture(tuple(boxes), wires, width, height)


Entry = tuple[str, str, str]


def _columns(design: Design) -> list[list[Entry]]:
    """(key, title, line) of every part, column by column in the way of the energy."""
    power = design.power
    found: list[list[Entry]] = [[_source(design)]]
    if power.source.kind != "mains":
        found.append([_guard(power)])
    if power.converters:
        found.append(
            [(c.id, c.name, f"to {c.output_voltage:g}{THIN_SPACE}V") for c in power.converters]
        )
    boards: list[Entry] = [(b.id, b.part.name, _board_line(b.kind)) for b in power.boards]
    loads = [(f"load {k}", load.name, "load") for k, load in enumerate(power.other_loads)]
    found.append([*boards, *loads])
    outputs = {channel.id: channel.outputs for channel in design.voice.channels}
    found.append([_group(g, outputs.get(g.channel, 1)) for g in design.box.groups])
    return found


def _source(design: Design) -> Entry:
    source = design.power.source
    if source.kind == "pack":
        board = "with its protection board" if source.board else "no protection board"
        return ("source", f"{source.series}S{source.parallel}P {source.cell.name}", board)
    if source.kind == "wall":
        return ("source", source.name, f"{source.voltage:g}{THIN_SPACE}V")
    return ("source", "Mains", "for licensed people")


def _guard(power: Power) -> Entry:
    """Fuse and switch, in one box: both stand in the wire from the source."""
    fuse, switch = power.fuse, power.switch
    title = "Fuse: none yet" if fuse is None else f"Fuse {fuse.rating:g}{THIN_SPACE}A"
    lines: list[str] = [] if fuse is None else [fuse.kind]
    if switch is not None:
        lines.append(f"switch {switch.rating:g}{THIN_SPACE}A")
    return ("fuse", title, ", ".join(lines) or "at the source")


def _board_line(kind: str) -> str:
    return {"amplifier": "amplifier", "dsp": "signal processor", "receiver": "receiver"}[kind]


def _group(group: DriverGroup, outputs: int) -> Entry:
    """Equal drivers, and how they hang on each of their outputs."""
    series, parallel = group.in_series, group.in_parallel
    each = "" if outputs == 1 else " each"
    if series > 1 and parallel > 1:
        line = f"{series} in series, {parallel} in parallel{each}"
    elif series > 1:
        line = f"{series} in series{each}"
    else:
        line = f"{parallel} in parallel{each}" if parallel > 1 else "one on each output"
        line = "one on its output" if outputs == parallel == 1 else line
    return (group.id, f"{series * parallel * outputs} × {group.driver.name}", line)


Join = tuple[str, str, str, str]


def _joins(design: Design) -> Iterator[Join]:
    """(from, to, kind, what) of every wire."""
    power = design.power
    last = "source"
    if power.source.kind != "mains":
        lead = lead_words(power.lead)
        yield ("source", "fuse", PLUS, lead)
        last = "fuse"
    for converter in power.converters:
        yield (last, converter.id, PLUS, lead_words(power.lead))
    rails = [(b.id, b.rail) for b in power.boards]
    rails += [(f"load {k}", load.rail) for k, load in enumerate(power.other_loads)]
    feeds = MAINS if power.source.kind == "mains" else PLUS
    for key, rail in rails:
        yield (last if rail == BUS else rail, key, feeds, "")
    dsp = power.boards[power.dsp_place].id
    for board in power.boards:
        if board.kind == "amplifier":
            yield (dsp, board.id, SIGNAL, "screened signal")
        if board.kind == "receiver":
            yield (board.id, dsp, SIGNAL, "screened signal")
    yield from _speakers(design)


def _speakers(design: Design) -> Iterator[Join]:
    """The leads from outputs to drivers, with their polarity."""
    power, channels = design.power, design.voice.channels
    boards = [board for _, board in power.amplifiers]
    places = carried(boards, channels)[0]
    for channel, (place, _, first) in zip(channels, places, strict=True):
        last = first + channel.outputs
        outputs = (
            f"output {first + 1}" if channel.outputs == 1 else f"outputs {first + 1} to {last}"
        )
        turned = ", turned in the voice" if channel.inverted else ""
        for group in design.box.groups:
            if group.channel == channel.id:
                what = f"{channel.name}: {outputs}, + to +{turned}"
                yield (boards[place].id, group.id, SPEAKER, what)


def lead_words(lead: Lead) -> str:
    """Wire and length of a lead."""
    area = told(lead.area, "area", "mm²", 2)
    return area if lead.length is None else f"{area}, {told(lead.length, 'length', 'm', 2)}"


def _corners(start: Box, end: Box, kind: str) -> tuple[Spot, ...]:
    """A wire from the right of one box to the left of another; signals run below the boxes."""
    drop = {PLUS: 0.34, MAINS: 0.34, SIGNAL: 0.5, SPEAKER: 0.5}[kind]
    a = (start.x + start.width, start.y + start.height * drop)
    b = (end.x, end.y + end.height * drop)
    if end.x <= start.x:  # within one column: round the left side
        left = min(start.x, end.x) - 14.0
        y0, y1 = start.y + start.height * 0.72, end.y + end.height * 0.72
        return ((start.x, y0), (left, y0), (left, y1), (end.x, y1))
    trunk = 0.72 if start.key in ("source", "fuse") else 0.94  # that of a converter beside the bus
    middle = end.x - GAP * (trunk if kind in (PLUS, MAINS) else 0.5)
    if end.x - a[0] > GAP + 1.0:  # over what stands between, never through it
        out = a[0] + GAP * 0.3
        return (a, (out, a[1]), (out, LANE), (middle, LANE), (middle, b[1]), b)
    return (a, (middle, a[1]), (middle, b[1]), b)


LABEL_HEADS = ("wire", "from", "to", "pole", "what")
POLES = {
    PLUS: "+ and −",
    MAINS: "mains: for licensed people",
    SIGNAL: "signal and screen",
    SPEAKER: "+ and −",
}


def label_rows(design: Design) -> list[list[str]]:
    """One row a wire, to print and put on it."""
    return [
        [f"W{wire.number}", wire.start, wire.end, POLES[wire.kind], wire.what]
        for wire in wiring_picture(design).wires
    ]
