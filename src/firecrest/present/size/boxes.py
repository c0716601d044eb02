"""The picture of a box: its chambers as rooms, and what opens and drives them, on a unit square.

Rooms that are joined stand side by side, what plays into another room to its left; rooms that have
nothing in common stand one below the other. What radiates sits on an outer side.
"""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.assessment.wiring import cone_count, wiring_of
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.box import OUTSIDE, Box, Port
from firecrest.design.edits.paths import Path
from firecrest.design.ids import place_of
from firecrest.present.size.openings import opening_name
from firecrest.present.text.units import told
from firecrest.proposals.layouts import Layout

LAYOUT_WORDS: dict[Layout, str] = {
    "one": "One chamber",
    "bandpass4": "Bandpass, 4th order",
    "bandpass6": "Bandpass, 6th order",
    "channels": "A chamber for each channel",
    "halves": "Left and right halves",
    "two-one": "2.1: sub, left, right",
}
CASE_FIELDS = ("density", "price_per_area", "contents")
"""Of the case, beside its sizes, which stand under the picture."""
GAP = 0.03
LEAST = 0.22
"""Smallest share of a row's width that a room gets."""


@dataclass(frozen=True)
class Room:
    """A chamber: where it stands (in shares of the picture), and its words."""

    path: Path
    left: float
    top: float
    width: float
    height: float
    name: str
    lines: tuple[str, ...]
    spoken: str


@dataclass(frozen=True)
class Element:
    """A driver, pair, port or radiator on the side ``edge`` of a room (x, y in shares).

    ``edge`` is right, left, top or between; ``folded`` a port with bends.
    """

    path: Path
    kind: str
    x: float
    y: float
    edge: str
    radiates: bool
    count: int
    name: str
    spoken: str
    folded: bool = False


@dataclass(frozen=True)
class Picture:
    """All rooms and elements, in the order in which they are visited."""

    rooms: tuple[Room, ...]
    elements: tuple[Element, ...]


@dataclass(frozen=True)
class _Loose:
    """An element before it has a place."""

    path: Path
    kind: str
    chamber: str
    faces: str
    count: int
    name: str
    folded: bool = False


def picture(assessment: Assessment) -> Picture:
    """The picture of a design's box."""
    design = assessment.design
    loose = _loose(assessment)
    rows = _rows(design.box, loose)
    rooms: dict[str, Room] = {}
    edges: dict[str, str] = {}
    weights = [_fullest(row, loose) for row in rows]
    top = 0.0
    for row, weight in zip(rows, weights, strict=True):
        height = (1.0 - GAP * (len(rows) - 1)) * weight / sum(weights)
        widths = _widths(assessment, row)
        left = 0.0
        for place, id in enumerate(row):
            rooms[id] = _room(assessment, id, (left, top, widths[place], height))
            edges[id] = _outer_edge(place, len(row))
            left += widths[place]
        top += height + GAP
    elements = _placed(loose, rooms, edges)
    return Picture(tuple(rooms.values()), tuple(elements))


def _fullest(row: list[str], loose: list[_Loose]) -> int:
    """Most elements on one side of a room of a row."""
    sides: dict[tuple[str, str], int] = {}
    for item in loose:
        if item.chamber in row:
            key = (item.chamber, item.faces)
            sides[key] = sides.get(key, 0) + 1
    return max(sides.values(), default=1)


def _outer_edge(place: int, count: int) -> str:
    if place == count - 1:
        return "right"
    return "left" if place == 0 else "top"


def _loose(assessment: Assessment) -> list[_Loose]:
    design = assessment.design
    wiring = wiring_of(design.voice.channels)
    found = [
        _Loose(
            ("box", "groups", k),
            "cone" if g.pair == "alone" else "pair",
            g.chamber,
            g.front,
            cone_count(g, wiring),
            g.driver.name,
        )
        for k, g in enumerate(design.box.groups)
    ]
    found += [
        _Loose(
            ("box", "openings", k),
            "port" if isinstance(o, Port) else "radiator",
            o.chamber,
            o.opens_to,
            o.count,
            opening_name(o),
            folded=isinstance(o, Port) and o.bends > 0,
        )
        for k, o in enumerate(design.box.openings)
    ]
    return found


def _rows(box: Box, loose: list[_Loose]) -> list[list[str]]:
    """Rooms that are joined as one row each, what plays into another one to its left."""
    rows = [[c.id] for c in box.chambers]
    for element in loose:
        if element.faces == OUTSIDE:
            continue
        a = next(r for r in rows if element.chamber in r)
        b = next(r for r in rows if element.faces in r)
        if a is not b:
            rows.remove(b)
            a.extend(b)
    return rows


def _widths(assessment: Assessment, row: list[str]) -> list[float]:
    """Widths in shares, by the root of the air, none too small to read."""
    chambers = assessment.design.box.chambers
    roots = [max(float(assessment.cabinet.air[place_of(chambers, c)]), 1e-6) ** 0.5 for c in row]
    shares = [max(r / sum(roots), LEAST) for r in roots]
    return [s / sum(shares) for s in shares]


def _room(assessment: Assessment, id: str, where: tuple[float, float, float, float]) -> Room:
    chambers = assessment.design.box.chambers
    place = place_of(chambers, id)
    name = chambers[place].name
    air = told(assessment.cabinet.air[place], "volume", "L", 2)
    a = assessment.acoustic
    tuning = a.model.tuning[place] if a else None
    if a is None:
        note = ""
    elif tuning is None:
        note = "closed"
    else:
        note = f"Fb {figure(tuning, 1)}{THIN_SPACE}Hz"
    lines = (air, note) if note else (air,)
    spoken = f"Chamber {name}: {', '.join(lines)}"
    return Room(("box", "chambers", place), *where, name, lines, spoken)


def _placed(loose: list[_Loose], rooms: dict[str, Room], edges: dict[str, str]) -> list[Element]:
    """Elements spread evenly along their side of their room."""
    sides: dict[tuple[str, str], list[_Loose]] = {}
    for item in loose:
        edge = edges[item.chamber] if item.faces == OUTSIDE else "between"
        key = item.chamber if item.faces == OUTSIDE else f"{item.chamber}/{item.faces}"
        sides.setdefault((key, edge), []).append(item)
    found: dict[Path, Element] = {}
    for (_, edge), items in sides.items():
        for k, item in enumerate(items):
            share = (k + 0.5) / len(items)
            x, y = _spot(rooms[item.chamber], rooms.get(item.faces), edge, share)
            outside = item.faces == OUTSIDE
            where = "outside" if outside else f"into {rooms[item.faces].name}"
            count = f"{item.count} × " if item.count > 1 else ""
            spoken = f"{count}{item.name}, from {rooms[item.chamber].name} {where}"
            found[item.path] = Element(
                item.path,
                item.kind,
                x,
                y,
                edge,
                outside,
                item.count,
                item.name,
                spoken,
                item.folded,
            )
    return [found[item.path] for item in loose]


def _spot(room: Room, other: Room | None, edge: str, share: float) -> tuple[float, float]:
    if edge == "top":
        return room.left + share * room.width, room.top
    y = room.top + share * room.height
    if edge == "left":
        return room.left, y
    if edge == "between" and other is not None:
        border = room.left + room.width if other.left > room.left else room.left
        return border, y
    return room.left + room.width, y


def owner_of(path: Path) -> Path | None:
    """The room or element whose fields hold ``path``; None when it belongs to none."""
    if path[:2] == ("computed", "air_volume") or path[:2] == ("computed", "tuning"):
        place = path[2] if len(path) > 2 else 0
        return ("box", "chambers", place)
    if path[:2] == ("box", "case") and path[2:3] and path[2] in CASE_FIELDS:
        return ("box", "case")
    if len(path) >= 3 and path[0] == "box" and path[1] in ("chambers", "groups", "openings"):
        return path[:3]
    return None
