"""Chambers, channels and driver groups come, go, and change places; references hold by id."""

from typing import TypeVar

from firecrest.core.errors import DesignError
from firecrest.design.box import Chamber
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.ids import fresh
from firecrest.proposals.ways import board_with_room

NEW_SHARE = 0.25
"""A new chamber takes this share of the air of the one it is cut from."""
Element = TypeVar("Element")


def moved(design: Design, path: Path, by: int) -> tuple[str, Design]:
    """(label, design) with the element at ``path`` moved among its kind; at the ends it stays."""
    items = list(value_at(design, path[:-1]))
    place = int(path[-1])
    item = items.pop(place)
    items.insert(min(max(place + by, 0), len(items)), item)
    return f"Move {_name(item)}", replace_at(design, path[:-1], tuple(items))


def _name(item: object) -> str:
    driver = getattr(item, "driver", None)
    return str(driver.name if driver is not None else getattr(item, "name", "it"))


def add_chamber(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) with one more closed chamber, cut from the air of the one at ``place``."""
    chambers = list(design.box.chambers)
    old = chambers[place]
    share = NEW_SHARE * old.share
    id = fresh([c.id for c in chambers], "chamber")
    chambers[place] = rebuilt(old, share=old.share - share, stated_volume=None)
    chambers.insert(
        place + 1, Chamber(id=id, name=id.replace("-", " "), share=share, leak_q=old.leak_q)
    )
    return "Add chamber", replace_at(design, ("box", "chambers"), tuple(chambers))


def remove_chamber(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without an empty chamber; its air goes to the chamber before it.

    DesignError names what still is in it.
    """
    box, gone = design.box, design.box.chambers[place]
    if len(box.chambers) == 1:
        raise DesignError("A box has one chamber at least.")
    inside = [g.driver.name for g in box.groups if gone.id in (g.chamber, g.front)]
    inside += [o.kind for o in box.openings if gone.id in (o.chamber, o.opens_to)]
    inside += [item.name for item in box.case.contents if item.chamber == gone.id]
    if inside:
        raise DesignError(
            f"{', '.join(inside)} in chamber {gone.name}: put it into another chamber first."
        )
    chambers = list(box.chambers)
    del chambers[place]
    heir = max(place - 1, 0)
    share = min(chambers[heir].share + gone.share, 1.0)
    chambers[heir] = rebuilt(chambers[heir], share=share)
    return f"Remove chamber {gone.name}", replace_at(design, ("box", "chambers"), tuple(chambers))


def duplicate_group(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) with one more group of drivers like the one at ``place``, on its channel."""
    groups = list(design.box.groups)
    old = groups[place]
    groups.insert(place + 1, rebuilt(old, id=fresh([g.id for g in groups], old.id)))
    return f"Duplicate {old.driver.name}", replace_at(design, ("box", "groups"), tuple(groups))


def remove_group(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without a group of drivers; DesignError for the last one of its channel."""
    gone = design.box.groups[place]
    if sum(g.channel == gone.channel for g in design.box.groups) == 1:
        raise DesignError(
            f"{gone.driver.name} is all its channel drives: remove that way in Voice instead."
        )
    kept = tuple(g for g in design.box.groups if g is not gone)
    return f"Remove {gone.driver.name}", replace_at(design, ("box", "groups"), kept)


def duplicate_way(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) with one more channel like the one at ``place``, its drivers and all.

    The new drivers share the chambers of the old ones. DesignError when no output is left.
    """
    voice, box = design.voice, design.box
    old = voice.channels[place]
    id = fresh([c.id for c in voice.channels], old.id)
    name = f"{old.name} 2"[:80]
    channels = list(voice.channels)
    board = board_with_room(design, old.board, old.outputs)
    channels.insert(place + 1, rebuilt(old, id=id, name=name, board=board, first=None))
    groups = list(box.groups)
    for group in box.groups:
        if group.channel == old.id:
            taken = [g.id for g in groups]
            groups.append(rebuilt(group, id=fresh(taken, group.id), channel=id))
    made = rebuilt(
        design,
        voice=rebuilt(voice, channels=tuple(channels)),
        box=rebuilt(box, groups=tuple(groups)),
    )
    return f"Duplicate way {old.name}", made
