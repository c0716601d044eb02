"""Parts of a design against the shelf: what has changed there since they were taken."""

import dataclasses
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.fields import field_facts, label_of
from firecrest.design.sheet import ShelfLink
from firecrest.design.sources import Pack, WallSupply
from firecrest.present.text.words import joined
from firecrest.shelf.entry import Entry
from firecrest.shelf.kinds import part_body

SHOWN = 5


def part_paths(design: Design) -> list[Path]:
    """Paths of all parts that a shelf can hold, in chain order."""
    box, power = design.box, design.power
    paths: list[Path] = [("box", "groups", k, "driver") for k in range(len(box.groups))]
    radiators = placed(box.openings, RadiatorSet)
    paths += [("box", "openings", k, "radiator") for k, _ in radiators]
    paths += [("power", "boards", k, "part") for k, _ in power.amplifiers]
    paths.append(("power", "boards", power.dsp_place, "part"))
    if isinstance(power.source, Pack):
        paths.append(("power", "source", "cell"))
    elif isinstance(power.source, WallSupply):
        paths.append(("power", "source"))
    return paths


def shelf_ids(design: Design) -> list[str]:
    """Ids of the shelf's parts that a design holds copies of."""
    parts = (value_at(design, path) for path in part_paths(design))
    return [part.shelf.part for part in parts if part.shelf is not None]


@dataclass(frozen=True)
class Update:
    """A part of the design whose shelf part has changed since, with the difference in words."""

    path: Path
    entry: Entry
    sentence: str


def update_of(part: Any, path: Path, entries: Mapping[str, Entry]) -> Update | None:
    """What the shelf offers for a part; None when there is nothing new."""
    link = part.shelf
    entry = entries.get(link.part) if link else None
    if entry is None or link is None or entry.revision <= link.revision:
        return None
    found = differences(part, entry.part)
    if not found:
        return None
    more = f" and {len(found) - SHOWN} more" if len(found) > SHOWN else ""
    return Update(
        path, entry, f"{entry.name} has changed on the shelf: {joined(found[:SHOWN])}{more}."
    )


def updates(design: Design, entries: Mapping[str, Entry]) -> list[Update]:
    """All offers for a design."""
    found = (update_of(value_at(design, path), path, entries) for path in part_paths(design))
    return [update for update in found if update is not None]


def differences(old: Any, new: Any) -> list[str]:
    """Figures that differ, as "Fs 58.0 → 60.0 Hz"."""
    return [
        _difference(type(old), name, getattr(old, name), getattr(new, name))
        for name in (f.name for f in dataclasses.fields(old))
        if name not in ("shelf", "origins", "tolerances", "set_aside")
        and getattr(old, name) != getattr(new, name)
    ] or (["where figures come from"] if part_body(old) != part_body(new) else [])


def _difference(model: type, name: str, before: Any, after: Any) -> str:
    facts = field_facts(model, name)
    if facts is None:
        if isinstance(before, tuple):
            return label_of(model, name).lower()
        return f"{label_of(model, name).lower()} {before} → {after}"
    title = facts.symbol or facts.label.lower()
    shown = [facts.show(v) or "not known" for v in (before, after)]
    return f"{title} {shown[0]} → {shown[1]}"


def taken(design: Design, update: Update) -> tuple[str, Design]:
    """(label, design) with the shelf's figures."""
    made = replace_at(design, update.path, update.entry.part)
    return f"Update {update.entry.name} from the shelf", made


def kept(design: Design, update: Update) -> tuple[str, Design]:
    """(label, design) that keeps its own figures and does not ask again for this revision."""
    part = value_at(design, update.path)
    link = ShelfLink(part=update.entry.id, revision=update.entry.revision)
    made = replace_at(design, update.path, rebuilt(part, shelf=link))
    return f"Keep own figures of {part.name}", made
