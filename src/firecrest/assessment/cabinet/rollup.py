"""What the case holds: net air of each chamber, size, weight and cost, of floats or columns."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.cabinet.contents import Thing, things_in
from firecrest.assessment.cabinet.within import room_inside
from firecrest.assessment.lower import inputs
from firecrest.assessment.wiring import Wiring
from firecrest.core.arrays import Number, largest
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.braces import WAYS, Brace, air_taken, sides
from firecrest.core.cabinet.cutouts import Rectangle
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.joints import panel_area
from firecrest.core.cabinet.ledger import Room, rooms, slabs
from firecrest.core.cabinet.materials import Infill, material_share
from firecrest.core.cabinet.rollup import Item, total
from firecrest.core.cabinet.shapes.box import Box
from firecrest.design.box import Chamber
from firecrest.design.case import Brace as DesignBrace
from firecrest.design.case import Case
from firecrest.design.case_within import InnerBox
from firecrest.design.shapes import (
    CoreShape,
    frames_of,
    inner_corners,
    inner_size,
    panel_names,
    shape_of,
    standing_size,
    thickness_of,
    volumes,
)


@dataclass(frozen=True)
class CabinetResult:
    """Sizes in m, ``air`` per chamber in m3, ``items`` by their weight and price.

    ``taken`` is what each chamber's air is less than its share of the inside. ``rooms`` are the
    ledgers, ``things`` what is in the case, ``placed`` whether anything has a place in it.
    """

    shape: CoreShape
    outer: tuple[Number, Number, Number]
    inner: tuple[Number, Number, Number]
    outside: Number
    inside: Number
    air: tuple[Number, ...]
    taken: tuple[Number, ...]
    rooms: Mapping[str, Room]
    things: tuple[Thing, ...]
    braces: tuple[Brace, ...]
    items: tuple[Item, ...]
    mass: Number
    price: Number

    @property
    def longest_inner(self) -> Number:
        """Longest inner dimension in m."""
        return largest(self.inner)

    @property
    def placed(self) -> bool:
        """Whether anything has a place."""
        return any(thing.parts for thing in self.things)


def braces_of(case: Case) -> tuple[Brace, ...]:
    """Braces and dividers as plates of the core."""
    made = []
    for brace in case.braces:
        window = None
        if not brace.divider and brace.window_a > 0 and brace.window_b > 0:
            window = Rectangle(brace.window_a, brace.window_b, brace.window_radius)
        thick = case.wall if brace.thickness is None else brace.thickness
        made.append(
            Brace(brace.name, brace.axis, brace.at, thick, window, brace.divider, brace.groove)
            if brace.divider or brace.form == "plate"
            else _part_brace(brace, thick)
        )
    return tuple(made)


def _part_brace(brace: DesignBrace, thick: Number) -> Brace:
    """A shelf or a dowel."""
    if brace.form == "dowel":
        spot = brace.spot_a, brace.spot_b
        return Brace(brace.name, brace.axis, 0.0, thick, spot=spot)
    return Brace(
        brace.name,
        brace.axis,
        brace.at,
        thick,
        groove=brace.groove,
        against=against(brace),
        reach=brace.reach,
    )


def against(brace: DesignBrace) -> str:
    """The wall that a shelf stands on: one beside it, whichever way it was turned since."""
    if WAYS[brace.against] != brace.axis:
        return brace.against
    return "bottom" if brace.axis == "z" else "back"


def dividers_of(case: Case, chambers: Sequence[Chamber]) -> list[Brace]:
    """Dividers that part the chambers; none unless there is one fewer than chambers, one way.

    A chamber that is an inner box needs none.
    """
    found = [b for b in braces_of(case) if b.divider]
    along, parted = {b.axis for b in found}, open_chambers(case, chambers)
    return found if len(found) == len(parted) - 1 and len(along) <= 1 else []


def enclosed_in(case: Case, chambers: Sequence[Chamber]) -> dict[str, InnerBox]:
    """The inner box that each enclosed chamber is; never all of the chambers."""
    ids = [c.id for c in chambers]
    found = {box.holds: box for box in case.inner if box.holds in ids and box.chamber != box.holds}
    return found if len(found) < len(ids) else {}


def open_chambers(case: Case, chambers: Sequence[Chamber]) -> list[Chamber]:
    """Chambers that are rooms of the case itself."""
    enclosed = enclosed_in(case, chambers)
    return [c for c in chambers if c.id not in enclosed]


def _gross(
    case: Case,
    chambers: Sequence[Chamber],
    shape: CoreShape,
    inside: Number,
    parts: Sequence[core.Part],
) -> dict[str, Number]:
    """Each chamber's part of the inside: between dividers, else by its share."""
    own = {id: room_inside(inner) for id, inner in enclosed_in(case, chambers).items()}
    rest = open_chambers(case, chambers)
    dividers = dividers_of(case, chambers)
    if not dividers:
        whole = sum(c.share for c in chambers) / sum(c.share for c in rest) if own else 1.0
        return {c.id: own[c.id] if c.id in own else c.share * whole * inside for c in chambers}
    low, high = inner_corners(shape)
    found = slabs(low, high, inside, dividers)
    around = [p for p in parts if p.mount.chamber not in own]
    owners = slab_owners([c.id for c in rest], dividers, around, frames_of(shape))
    return own | dict(zip(owners, found, strict=True))


def slab_owners(
    chambers: Sequence[str],
    dividers: Sequence[Brace],
    parts: Sequence[core.Part],
    frames: Mapping[str, Frame],
) -> list[str]:
    """Ids of the chambers that slabs between dividers are, along their axis, lowest first.

    A slab is the chamber of what is mounted in it; the rest follow each other as they are listed,
    from the left, from below, or from the front.
    """
    count = len(dividers) + 1
    owners: list[str | None] = [None] * count
    for part in parts:
        k = slab_of(part, frames, dividers)
        if owners[k] is None and part.mount.chamber not in owners:
            owners[k] = part.mount.chamber
    left = [id for id in chambers if id not in owners]
    if dividers[0].axis == "z":
        left.reverse()
    return [left.pop(0) if owner is None else owner for owner in owners]


def slab_of(part: core.Part, frames: Mapping[str, Frame], dividers: Sequence[Brace]) -> int:
    """Which slab a part stands in, by the middle of its panel's inside behind it."""
    k = "xyz".index(dividers[0].axis)
    frame = frames[part.mount.panel]
    spot = float(np.ravel(frame.at(part.mount.u, part.mount.v, frame.t)[k])[0])
    return sum(float(np.ravel(d.at)[0]) < spot for d in dividers)


def infill_of(case: Case) -> Infill | None:
    """How a print is filled; None of a case of sheets."""
    return None if case.printing is None else Infill(case.printing.skin, case.printing.infill)


def _loose(things: Sequence[Thing]) -> list[core.Loose]:
    """What takes air without a place."""
    found = []
    for thing in things:
        if not thing.loose or not thing.chambers:
            continue
        volume = thing.item.count * thing.item.volume * thing.loose
        found.append(core.Loose(thing.item.name, thing.kind, thing.chambers, volume, 0.0))
    return found


def cabinet(box: inputs.Box, power: inputs.Power, wiring: Wiring) -> CabinetResult:
    """Roll up a design's case; everything inside is subtracted from its chamber's share."""
    case, shape = box.case, shape_of(box.case)
    outside, inside = volumes(shape)
    inner, panels = inner_size(shape), panel_names(case)
    things = things_in(box, power, wiring, _depths(case, shape, inner, panels))
    parts = [part for thing in things for part in thing.parts]
    braces = braces_of(case)
    dividers = dividers_of(case, box.chambers)
    gross = _gross(case, box.chambers, shape, inside, parts)
    owners = [c.id for c in open_chambers(case, box.chambers)]
    if dividers:
        around = [p for p in parts if p.mount.chamber in owners]
        owners = slab_owners(owners, dividers, around, frames_of(shape))
    standing = [
        (_home(brace, dividers, owners), brace) for brace in braces if brace not in dividers
    ]
    thickness = {name: _panel_thickness(case, shape, name) for name in panels}
    ledger = rooms(gross, parts, _loose(things), thickness, standing, inner)
    air = tuple(
        ledger[c.id].net if c.stated_volume is None else c.stated_volume for c in box.chambers
    )
    taken = tuple(gross[c.id] - ledger[c.id].net for c in box.chambers)
    shell = _case_item(case, shape, outside - inside, parts, thickness, braces, inner)
    items = (shell, *(thing.item for thing in things))
    everything = total(items)
    return CabinetResult(
        shape,
        standing_size(case),
        inner,
        outside,
        inside,
        air,
        taken,
        ledger,
        things,
        braces,
        items,
        everything.mass,
        everything.price,
    )


def _depths(
    case: Case, shape: CoreShape, inner: Sequence[Number], panels: Sequence[str]
) -> dict[str, Number]:
    """How far the case goes behind the outer face of each panel, along the axis it most looks."""
    found = {}
    for name, frame in frames_of(shape).items():
        if name in panels:
            steep = [abs(float(np.ravel(c)[0])) for c in frame.normal]
            found[name] = inner[int(np.argmax(steep))] + _panel_thickness(case, shape, name)
    return found


def _panel_thickness(case: Case, shape: CoreShape, name: str) -> Number:
    """How thick what a part is mounted on is: all solid layers of a stack."""
    layered = case.shape
    if layered.kind == "stack":
        return case.wall * (layered.solid_front if name == "front" else layered.solid_back)
    return thickness_of(case, name)


def _home(brace: Brace, dividers: Sequence[Brace], owners: Sequence[str]) -> str:
    """The chamber that a brace stands in; one that crosses all counts to the lowest."""
    if not dividers or brace.axis != dividers[0].axis:
        return owners[0]
    at = float(np.ravel(brace.at)[0])
    return owners[sum(float(np.ravel(d.at)[0]) < at for d in dividers)]


def _case_item(
    case: Case,
    shape: CoreShape,
    walls: Number,
    parts: Sequence[core.Part],
    thickness: Mapping[str, Number],
    braces: Sequence[Brace],
    inner: Sequence[Number],
) -> Item:
    """The bare case with its braces: walls less openings, recesses and holes; its price."""
    gone: Number = 0.0
    for part in parts:
        gone = gone + core.hole(part, thickness[part.mount.panel]) + core.recess(part)
    inside_plates: Number = 0.0
    plate_area: Number = 0.0
    for brace in braces:
        inside_plates = inside_plates + air_taken(brace, inner)
        if brace.spot is None:
            a, b = sides(brace, inner)
            plate_area = plate_area + a * b
    share = material_share(infill_of(case), thickness.get("front", case.wall))
    mass = case.density * ((walls - gone) * share + inside_plates)
    if case.printing is not None:
        return Item("case", 1, 0.0, mass, mass * case.printing.price)
    area = panel_area(shape) if isinstance(shape, Box) else walls / case.wall
    return Item("case", 1, 0.0, mass, (area + plate_area) * case.price_per_area)
