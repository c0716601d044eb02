"""What the find field offers of a design: its fields and parts, and the stage each is on."""

import dataclasses
from typing import Any

from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.fields import field_facts
from firecrest.present.frame.bindings import air_volume, tuning
from firecrest.present.frame.owners import named, owner_of

Findable = tuple[str, str, Path, str]


def findable(design: Design) -> list[Findable]:
    """(text, kind, path, label) of every number and named part."""
    found: list[Findable] = [
        (f"{binding.facts.label} {binding.facts.symbol}", "Size", binding.path, binding.facts.label)
        for binding in (air_volume(), tuning())
    ]
    for branch in ("brief", "box", "power", "voice"):
        _walk(design, getattr(design, branch), (branch,), "", found)
    return found


def _walk(design: Design, node: Any, path: Path, owner: str, found: list[Findable]) -> None:
    if isinstance(node, tuple):
        for k, item in enumerate(node):
            _walk(design, item, (*path, k), owner, found)
        return
    if not dataclasses.is_dataclass(node) or isinstance(node, type):
        return
    name = getattr(node, "name", "")
    if (
        isinstance(name, str)
        and name
        and (path[-1] in ("driver", "radiator", "cell", "part") or path[-2:-1] == ("converters",))
    ):
        first = next(
            (
                f.name
                for f in dataclasses.fields(node)
                if field_facts(type(node), f.name) is not None
            ),
            "name",
        )
        found.append((name, "part", (*path, first), name))
        owner = name
    for item in dataclasses.fields(node):
        if path[-1] in ("table", "shelf"):
            return
        facts = field_facts(type(node), item.name)
        here = (*path, item.name)
        if facts is not None:
            if "table" not in here:
                whose = owner_of(design, here) or owner
                words = named(" ".join(w for w in (facts.label, facts.symbol) if w), whose)
                found.append((words, STAGE_NAMES[stage_of(here)], here, facts.label))
        else:
            _walk(design, getattr(node, item.name), here, owner, found)


STAGE_NAMES = {
    "promise": "Promise",
    "parts": "Parts",
    "size": "Size",
    "power": "Power",
    "voice": "Voice",
    "cabinet": "Cabinet",
}


DSP_FIGURES = [(n,) for n in ("full_scale", "sample_rate", "filters", "power", "regulator")]


RADIATOR_SHEET = (
    "fp", "qmp", "displacement", "size", "frame", "cut_out", "flats", "end_diameter", "depth",
    "mass", "price",
)  # fmt: skip
SHEET_ONLY = (
    "length", "width", "height", "diameter", "volume", "mass", "price", "channels", "least_load",
    "energy",
)  # fmt: skip


DRAWN = (
    "shape", "thickness", "stiffness", "poisson", "braces", "inner", "grille", "feet", "fittings",
    "printing", "sheet",
)  # fmt: skip
"""Of the case, what the Cabinet stage has."""


def stage_of(path: Path) -> str:
    """The stage on which the field of ``path`` stands."""
    if "mount" in path or "mounts" in path or (path[:2] == ("box", "case") and path[2] in DRAWN):
        return "cabinet"
    if path[:2] == ("power", "source") and path[2] in ("across", "lie", "wrap", "wrapped"):
        return "cabinet"
    if path[0] == "brief":
        return "promise"
    if path[0] == "voice":
        return "voice"
    if path[0] == "power":
        part = path[1] == "boards" or (path[1] == "source" and "board" not in path)
        if part and (path[-1] in SHEET_ONLY or path[4:] in DSP_FIGURES or "efficiency" in path):
            return "parts"
        return "power"
    if (
        "driver" in path
        or path[-1] in ("in_series", "in_parallel")
        or ("radiator" in path and path[-1] in RADIATOR_SHEET)
    ):
        return "parts"
    return "size"
