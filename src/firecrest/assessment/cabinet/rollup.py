"""What the case holds: net air of each chamber, size, weight and cost, of floats or columns."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.cabinet.contents import Thing, things_in
from firecrest.assessment.cabinet.within import room_inside
from firecrest.assessment.lower import inputs
from firecrest.assessment.wiring import Wiring
from firecrest.core.arrays import Number, largest
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.braces import Brace, air_taken
from firecrest.core.cabinet.cutouts import area
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.joints import panel_area
from firecrest.core.cabinet.ledger import Room, rooms, slabs
from firecrest.core.cabinet.materials import Infill, material_share
from firecrest.core.cabinet.rollup import Item, total
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes.box import Box
from firecrest.design.box import Chamber
from firecrest.design.case import Case
from firecrest.design.case_within import InnerBox
from firecrest.design.shapes import (
    CoreShape,
    inner_corners,
    shape_of,
    standing_size,
    thickness_of,
    volumes,
)
from firecrest.design.standing import braces_of, is_divider, mountable, panels_of


@dataclass(frozen=True)
class CabinetResult:
    """Sizes in m, ``air`` per chamber in m3, ``items`` by their weight and price.

    ``taken`` is what each chamber's air is less than its share of the inside. ``rooms`` are the
    ledgers, ``things`` what is in the case, ``placed`` whether anything has a place in it.
    ``slabs`` are the chambers between dividers, along their axis; none where none part them.
    """

    shape: CoreShape
    outer: tuple[Number, Number, Number]
    inner: tuple[Number, Number, Number]
    outside: Number
    inside: Number
    air: tuple[Number, ...]
    taken: tuple[Number, ...]
    rooms: Mapping[str, Room]
    slabs: tuple[str, ...]
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
    case: Case, chambers: Sequence[Chamber], inside: Inside, owners: Sequence[str]
) -> dict[str, Number]:
    """Each chamber's part of the inside: between dividers, else by its share."""
    own = {id: room_inside(inner) for id, inner in enclosed_in(case, chambers).items()}
    rest = open_chambers(case, chambers)
    if not owners:
        whole = sum(c.share for c in chambers) / sum(c.share for c in rest) if own else 1.0
        return {
            c.id: own[c.id] if c.id in own else c.share * whole * inside.volume for c in chambers
        }
    found = slabs(inside, dividers_of(case, chambers))
    return own | dict(zip(owners, found, strict=True))


def _owners(
    case: Case, chambers: Sequence[Chamber], things: Sequence[Thing], frames: Mapping[str, Frame]
) -> tuple[str, ...]:
    """Chambers that slabs between dividers are; none where no dividers part them.

    Boards and packs stand where they are drawn, and say nothing of it.
    """
    dividers = dividers_of(case, chambers)
    ids = [c.id for c in open_chambers(case, chambers)]
    if not dividers:
        return ()
    said = [p for thing in things if thing.kind not in SETTLING for p in thing.parts]
    return tuple(slab_owners(ids, dividers, [p for p in said if p.mount.chamber in ids], frames))


SETTLING = ("board", "pack")
"""Kinds of things that belong to the chamber that they stand in."""


def _settled(
    thing: Thing, owners: Sequence[str], dividers: Sequence[Brace], frames: Mapping[str, Frame]
) -> Thing:
    """A board or pack in the chamber between dividers that it stands in."""
    if not owners or thing.kind not in SETTLING or not thing.parts:
        return thing
    if thing.parts[0].mount.chamber not in owners:
        return thing
    room = owners[slab_of(thing.parts[0], frames, dividers)]
    parts = tuple(replace(p, mount=replace(p.mount, chamber=room)) for p in thing.parts)
    return replace(thing, chambers=(room,), parts=parts)


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
    hollow, frames = Inside(shape, inside, *inner_corners(shape)), panels_of(case)
    thickness = {name: _panel_thickness(case, name, frames[name]) for name in mountable(case)}
    things = things_in(box, power, wiring, _depths(hollow.size, thickness, frames))
    braces, dividers = braces_of(case), dividers_of(case, box.chambers)
    owners = _owners(case, box.chambers, things, frames)
    things = tuple(_settled(thing, owners, dividers, frames) for thing in things)
    parts = [part for thing in things for part in thing.parts]
    gross = _gross(case, box.chambers, hollow, owners)
    rest = [c.id for c in open_chambers(case, box.chambers)]
    standing = [
        (_home(brace, dividers, owners or rest), brace) for brace in braces if brace not in dividers
    ]
    ledger = rooms(gross, parts, _loose(things), thickness, standing, hollow)
    air = tuple(
        ledger[c.id].net if c.stated_volume is None else c.stated_volume for c in box.chambers
    )
    taken = tuple(gross[c.id] - ledger[c.id].net for c in box.chambers)
    shell = _case_item(case, shape, outside - inside, parts, thickness, braces, hollow)
    items = (shell, *(thing.item for thing in things))
    everything = total(items)
    return CabinetResult(
        shape,
        standing_size(case),
        hollow.size,
        outside,
        inside,
        air,
        taken,
        ledger,
        owners,
        things,
        braces,
        items,
        everything.mass,
        everything.price,
    )


def _depths(
    inner: Sequence[Number], thickness: Mapping[str, Number], frames: Mapping[str, Frame]
) -> dict[str, Number]:
    """How far the case goes behind the outer face of each panel, along the axis it most looks."""
    found = {}
    for name, t in thickness.items():
        steep = [abs(float(np.ravel(c)[0])) for c in frames[name].normal]
        found[name] = inner[int(np.argmax(steep))] + t
    return found


def _panel_thickness(case: Case, name: str, frame: Frame) -> Number:
    """How thick what a part is mounted on is: all solid layers of a stack."""
    layered = case.shape
    if is_divider(name):
        return frame.t
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
    inside: Inside,
) -> Item:
    """The bare case with its braces: walls less openings, recesses and holes; its price."""
    gone: Number = 0.0
    inside_plates: Number = 0.0
    for part in parts:
        cut = core.hole(part, thickness[part.mount.panel]) + core.recess(part)
        if is_divider(part.mount.panel):
            inside_plates = inside_plates - cut
        else:
            gone = gone + cut
    plate_area: Number = 0.0
    for brace in braces:
        taken = air_taken(brace, inside)
        inside_plates = inside_plates + taken
        if brace.spot is None:
            window = 0.0 if brace.window is None else area(brace.window)
            plate_area = plate_area + taken / brace.t + window
    share = material_share(infill_of(case), thickness.get("front", case.wall))
    mass = case.density * ((walls - gone) * share + inside_plates)
    if case.printing is not None:
        return Item("case", 1, 0.0, mass, mass * case.printing.price)
    panels = panel_area(shape) if isinstance(shape, Box) else walls / case.wall
    return Item("case", 1, 0.0, mass, (panels + plate_area) * case.price_per_area)
