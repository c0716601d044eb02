"""The box: case, chambers, and what opens and drives them.

Outer size, port length and added mass are stored; air volume and tuning are computed from them.
Every element has an id; elements say by it which chamber they sit in and where they open to.
"""

from collections.abc import Sequence
from typing import Annotated, Any, Literal, TypeVar

from pydantic import Field
from pydantic.dataclasses import dataclass

from firecrest.design.case import Case
from firecrest.design.fields import MODEL, choice, identity, items, number, text
from firecrest.design.mount import Mount
from firecrest.design.parts import DriverPart, RadiatorPart

OUTSIDE = "outside"
Coils = Literal["as stated", "series", "parallel", "one"]
Pair = Literal["alone", "clamshell", "tunnel"]
Mounting = Literal["one_flanged", "both_flanged", "both_free", "along_wall"]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Position:
    """Where something sounds from, seen by the listener, from the middle of the front."""

    right: float = number("To the right", "length", -3, 3, "mm", default=0.0, digits=0)
    up: float = number("Upwards", "length", -3, 3, "mm", default=0.0, digits=0)
    forward: float = number(
        "Forwards",
        "length",
        -3,
        0.5,
        "mm",
        default=0.0,
        digits=0,
        help="Negative is behind the front: the depth of the box for an opening in its back.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Chamber:
    """Air in the case; ``share`` of the interior, less what sits in it.

    Leak and absorption are given by Q, or stored as measured resistances, which then stay.
    """

    id: str = identity("main")
    name: str = text("Name", default="main")
    share: float = number("Share of the interior", "share", 0.001, 1, "%", default=1.0, digits=1)
    stated_volume: float | None = number(
        "Measured air volume",
        "volume",
        1e-5,
        5,
        "L",
        default=None,
        empty="the sum",
        digits=2,
        help="From filling the box; takes precedence over the sum.",
    )
    stuffing: float = number(
        "Stuffing",
        "share",
        0,
        0.2,
        "%",
        default=0.0,
        digits=0,
        help="How much larger the air seems: lining about 5, filled up to 20 %.",
    )
    leak_q: float | None = number(
        "Leak loss",
        "number",
        1,
        1000,
        "",
        default=10.0,
        empty="airtight",
        symbol="QL",
        digits=1,
        help="Larger is tighter; 5 to 15 is usual. Empty: airtight.",
    )
    leak_resistance: float | None = number(
        "Measured leak",
        "leak resistance",
        1e3,
        1e12,
        "kPa·s/m³",
        default=None,
        empty="by QL",
        help="A measured leak; it stays when volume or tuning move.",
    )
    absorption_q: float | None = number(
        "Absorption loss",
        "number",
        1,
        1000,
        "",
        default=None,
        empty="none",
        symbol="QA",
        digits=0,
        help="Loss in the stuffing; 100 empty, 30 lined. Empty: none.",
    )
    fill_resistivity: float | None = number(
        "Fibre, flow resistance",
        "flow resistivity",
        50,
        2e5,
        "kPa·s/m²",
        default=None,
        empty="by QA",
        digits=1,
        help=(
            "Of wool or polyester, 1 to 20 by how tightly it is packed; takes the place of "
            "stuffing and QA. Empty: by these."
        ),
    )
    fill_share: float = number(
        "Fibre fills",
        "share",
        0.01,
        1,
        "%",
        default=1.0,
        digits=0,
        help="Of the chamber, from its back; only with a flow resistance.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class DriverGroup:
    """Equal drivers: on each output of their channel, ``in_series`` x ``in_parallel``."""

    id: str = identity("drivers")
    driver: DriverPart
    chamber: str = identity("main", "Chamber behind")
    front: str = identity(OUTSIDE, "Faces")
    channel: str = identity("all", "Voice channel")
    coils: Coils = choice("Coils wired", default="as stated", help="Of a driver with two coils.")
    in_series: int = number("Drivers in series", "number", 1, 8, "", default=1, digits=0)
    in_parallel: int = number("Drivers in parallel", "number", 1, 8, "", default=1, digits=0)
    pair: Pair = choice(
        "Each cone driven by",
        default="alone",
        help="Two drivers one behind the other act as one with half the Vas: clamshell is face "
        "to face, tunnel is one behind the other.",
    )
    pair_in: Literal["parallel", "series"] = choice("The two wired in", default="parallel")
    trapped: float | None = number(
        "Air between the two",
        "volume",
        1e-6,
        0.1,
        "L",
        default=None,
        empty="moves as one",
        digits=2,
        help="Trapped air, of each pair. Empty: so little that both cones move as one.",
    )
    opposed: bool = choice(
        "Half face the other way",
        default=False,
        help="Opposed drivers move apart and together: their forces on the case cancel.",
    )
    place: Position = Position()
    mounts: tuple[Mount, ...] = items("Places", default=(), most=128)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class RadiatorSet:
    """Equal passive radiators; ``added_mass`` is per radiator."""

    kind: Literal["radiators"] = "radiators"
    id: str = identity("radiators")
    radiator: RadiatorPart
    count: int = number("How many", "number", 1, 8, "", default=1, digits=0)
    added_mass: float = number("Added mass, each", "mass", 0, 2, "g", default=0.0)
    washer: float | None = number(
        "One washer weighs",
        "mass",
        1e-4,
        0.5,
        "g",
        default=None,
        digits=1,
        help="Added mass is then also told as a number of washers.",
    )
    horizontal: bool = choice(
        "Faces up or down", default=False, help="Its weight then makes it sag, which eats travel."
    )
    opposed: bool = choice(
        "Half face the other way",
        default=False,
        help="Opposed radiators move apart and together: their forces on the case cancel.",
    )
    chamber: str = identity("main", "Chamber")
    opens_to: str = identity(OUTSIDE, "Opens to")
    place: Position = Position()
    mounts: tuple[Mount, ...] = items("Places", default=(), most=128)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Port:
    """Equal ports, round or slot, straight or folded."""

    kind: Literal["port"] = "port"
    id: str = identity("port")
    shape: Literal["round", "slot"] = choice("Shape", default="round")
    diameter: float = number(
        "Diameter",
        "length",
        0.005,
        0.5,
        "mm",
        default=0.05,
        digits=1,
        help="Inside, of a round port.",
    )
    width: float = number("Slot width", "length", 0.005, 2, "mm", default=0.1, digits=1)
    height: float = number("Slot height", "length", 0.003, 0.5, "mm", default=0.02, digits=1)
    length: float = number(
        "Length",
        "length",
        0.001,
        3,
        "mm",
        default=0.1,
        digits=1,
        help="Along its middle, without end corrections.",
    )
    count: int = number("How many", "number", 1, 8, "", default=1, digits=0)
    bends: int = number(
        "Bends",
        "number",
        0,
        6,
        "",
        default=0,
        digits=0,
        help="Right-angle turns of a folded port; the length is along its middle.",
    )
    fold: Literal["up", "down", "left", "right"] = choice(
        "First bend goes", default="up", help="As its panel is seen from outside."
    )
    mounting: Mounting = choice(
        "Ends sit",
        default="one_flanged",
        help="End correction: flanged 0.849, free 0.613, free along a wall 0.867 radii "
        "of a circle of the same area.",
    )
    end_correction: float | None = number(
        "Stated end correction",
        "length",
        0,
        1,
        "mm",
        default=None,
        empty="by ends",
        digits=1,
        help="For both ends together; empty: from how the ends sit.",
    )
    edges: Literal["plain", "one_flared", "both_flared"] = choice("Edges", default="plain")
    speed_limit: float | None = number(
        "Air speed at most",
        "speed",
        1,
        60,
        "m/s",
        default=None,
        empty="by edges",
        digits=0,
        help="Empty: 17 plain, 22 one flared, 27 both flared (estimates).",
    )
    loss_q: float | None = number(
        "Port loss",
        "number",
        2,
        1000,
        "",
        default=None,
        empty="none",
        symbol="QP",
        digits=0,
        help="Empty: no loss.",
    )
    wall: float = number("Pipe wall", "length", 0, 0.05, "mm", default=0.003, digits=1)
    resonances: bool = choice(
        "Pipe resonances",
        default=False,
        help="Reckon with the port as a pipe that resonates by itself, not as a lump of air.",
    )
    chamber: str = identity("main", "Chamber")
    opens_to: str = identity(OUTSIDE, "Opens to")
    place: Position = Position()
    mounts: tuple[Mount, ...] = items("Places", default=(), most=128)


Opening = Annotated[Port | RadiatorSet, Field(discriminator="kind")]
Kind = TypeVar("Kind")


def placed(openings: Sequence[Any], kind: type[Kind]) -> list[tuple[int, Kind]]:
    """(place in the list, opening) of those of one kind."""
    return [(k, item) for k, item in enumerate(openings) if isinstance(item, kind)]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Box:
    """Case and acoustic elements; ``openings`` are ports and radiators in one list."""

    case: Case
    chambers: tuple[Chamber, ...] = items("Chambers", default=(Chamber(),), most=4, least=1)
    groups: tuple[DriverGroup, ...] = items("Driver groups", most=8, least=1)
    openings: tuple[Opening, ...] = items("Openings", default=(), most=16)


def port_at(box: Box, place: int) -> Port:
    """The opening at ``place``, which is a port."""
    item = box.openings[place]
    assert isinstance(item, Port)
    return item


def radiators_at(box: Box, place: int) -> RadiatorSet:
    """The opening at ``place``, which is a set of radiators."""
    item = box.openings[place]
    assert isinstance(item, RadiatorSet)
    return item
