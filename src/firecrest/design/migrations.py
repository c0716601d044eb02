"""Projects of older schemas made new: one function per step, with the reason for it."""

from collections.abc import Callable, Mapping
from typing import Any

from firecrest.core.errors import DesignError
from firecrest.design.box import OUTSIDE
from firecrest.design.design import SCHEMA_VERSION
from firecrest.design.ids import fresh


def _parts_got_sheets(body: dict[str, Any]) -> dict[str, Any]:
    """2: parts carry origins, ranges and their shelf; every new key has a default."""
    return body


def _boxes_got_pairs_and_places(body: dict[str, Any]) -> dict[str, Any]:
    """3: isobaric pairs, places, pipe resonances, washers, rooms; every new key has a default."""
    return body


def _elements_got_ids(body: dict[str, Any]) -> dict[str, Any]:
    """4: references go by ids, so that names are free; openings are one list, and so are boards.

    An id is made of the name that was referred to. What does not look like a design is left as it
    is, for the models to refuse.
    """
    box, voice = _branch(body, "box"), _branch(body, "voice")
    chambers = _identified(_items(box, "chambers"), "main", {OUTSIDE})
    channels = _identified(_items(voice, "channels"), "all", set())
    openings: list[dict[str, Any]] = []
    for kind, old in (("radiators", "radiators"), ("port", "ports")):
        for item in _items(box, old):
            openings.append({"kind": kind, "id": _own(openings, kind), **item})
        box.pop(old, None)
    if openings:
        box["openings"] = openings
    for k, group in enumerate(_items(box, "groups")):
        group["id"] = "drivers" if k == 0 else f"drivers-{k + 1}"
    _fit_boards(_branch(body, "power"))
    inside = [*openings, *_items(box, "groups"), *_items(_branch(box, "case"), "contents")]
    for item in inside:
        for key in ("chamber", "front", "opens_to"):
            _refer(item, key, chambers)
        _refer(item, "channel", channels)
    return body


def _fit_boards(power: dict[str, Any]) -> None:
    """One amplifier, one DSP and one converter made lists of boards and converters."""
    converter = power.pop("converter", None)
    rail = {} if converter is None else {"rail": "converter"}
    if converter is not None:
        power["converters"] = [
            {"id": "converter", **converter} if isinstance(converter, dict) else converter
        ]
    boards = []
    for kind, more in (("amplifier", rail), ("dsp", {})):
        if kind in power:
            boards.append({"kind": kind, "id": kind, "part": power.pop(kind), **more})
    if boards:
        power["boards"] = boards


def _branch(node: dict[str, Any], key: str) -> dict[str, Any]:
    """A branch that is an object; an empty one where there is none."""
    value = node.get(key)
    return value if isinstance(value, dict) else {}


def _items(node: dict[str, Any], key: str) -> list[dict[str, Any]]:
    """The objects of a list."""
    value = node.get(key)
    return [item for item in value if isinstance(item, dict)] if isinstance(value, list) else []


def _identified(elements: list[dict[str, Any]], default: str, taken: set[str]) -> dict[str, str]:
    """Give ids to ``elements`` that were known by name; name -> id."""
    ids: dict[str, str] = {}
    for element in elements:
        name = str(element.get("name", default))
        element["id"] = fresh({*taken, *ids.values()}, name)
        ids.setdefault(name, element["id"])
    return ids


def _own(openings: list[dict[str, Any]], stem: str) -> str:
    return fresh([str(o["id"]) for o in openings], stem)


def _refer(item: dict[str, Any], key: str, ids: Mapping[str, str]) -> None:
    """A reference by name made one by id; one that leads nowhere stays."""
    name = item.get(key)
    if isinstance(name, str) and name in ids:
        item[key] = ids[name]


def _designs_became_projects(body: dict[str, Any]) -> dict[str, Any]:
    """5: a file holds one brief and variants; what it held is variant A."""
    whole: dict[str, Any] = {k: body[k] for k in ("schema", "name", "brief") if k in body}
    return {**whole, "variants": [{k: v for k, v in body.items() if k not in whole}]}


def _leads_got_wire(body: dict[str, Any]) -> dict[str, Any]:
    """6: the lead is its wire and its contacts, of every source; what a pack's had are contacts."""
    for variant in _items(body, "variants"):
        power = _branch(variant, "power")
        source = _branch(power, "source")
        if power:
            usual = 0.02 if source.get("kind") == "pack" else 0.0
            power["lead"] = {"contacts": source.pop("lead_resistance", usual)}
    return body


def _voices_got_ways(body: dict[str, Any]) -> dict[str, Any]:
    """7: channels have an input mix, a delay, more kinds of blocks, measured responses, presets.

    All of it may be missing, and then is as it was; older programs must not open what holds it.
    """
    return body


def _cases_got_drawn(body: dict[str, Any]) -> dict[str, Any]:
    """8: a case has a shape, panels of their own, braces and feet, and things have places in it.

    All of it may be missing: a box without places keeps its air, weight and price as they were.
    """
    return body


STEPS: Mapping[int, Callable[[dict[str, Any]], dict[str, Any]]] = {
    1: _parts_got_sheets,
    2: _boxes_got_pairs_and_places,
    3: _elements_got_ids,
    4: _designs_became_projects,
    5: _leads_got_wire,
    6: _voices_got_ways,
    7: _cases_got_drawn,
}
"""From version -> function that returns the body of the next version."""


def migrate(body: dict[str, Any]) -> dict[str, Any]:
    """``body`` brought to the present schema; DesignError when it is newer or unknown."""
    version = body["schema"]
    if version > SCHEMA_VERSION:
        raise DesignError(
            f"This design has schema {version!s:.12}; this Firecrest reads up to {SCHEMA_VERSION}. "
            "Open it with a newer Firecrest."
        )
    while version < SCHEMA_VERSION:
        if version not in STEPS:
            raise DesignError(f"Schema {version!s:.12} is not known.")
        body = STEPS[version](body)
        version += 1
    return {**body, "schema": version}
