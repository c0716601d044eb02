"""Kinds of part on the shelf, and parts as JSON text."""

import json
from dataclasses import dataclass
from functools import cache
from typing import Any

from pydantic import TypeAdapter, ValidationError

from firecrest.core.errors import ShelfError
from firecrest.design.amplifiers import Amplifier, DspBoard
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.sources import Cell, WallSupply
from firecrest.design.text import explain


@dataclass(frozen=True)
class Kind:
    """One kind: its model, its word and its plural, as shown."""

    key: str
    model: Any
    word: str
    plural: str


KINDS = {
    kind.key: kind
    for kind in (
        Kind("driver", DriverPart, "Driver", "Drivers"),
        Kind("radiator", RadiatorPart, "Radiator", "Radiators"),
        Kind("amplifier", Amplifier, "Amplifier", "Amplifiers"),
        Kind("cell", Cell, "Cell", "Cells"),
        Kind("supply", WallSupply, "Supply", "Supplies"),
        Kind("dsp", DspBoard, "DSP board", "DSP boards"),
    )
}


def kind_of_part(part: Any) -> str:
    """Kind of a part; KeyError when it is none."""
    return next(kind.key for kind in KINDS.values() if isinstance(part, kind.model))


@cache
def _adapter(kind: str) -> TypeAdapter[Any]:
    return TypeAdapter(KINDS[kind].model)


def part_body(part: Any) -> dict[str, Any]:
    """A part as keys and values, without its link to the shelf and without defaults."""
    kind = kind_of_part(part)
    body: dict[str, Any] = _adapter(kind).dump_python(
        part, mode="json", exclude={"shelf"}, exclude_defaults=True
    )
    return {"kind": "wall", **body} if kind == "supply" else body


def part_text(part: Any) -> str:
    """A part as JSON text."""
    return json.dumps(part_body(part), ensure_ascii=False)


def part_from(kind: str, text: str | bytes) -> Any:
    """A part from JSON text; ShelfError names what does not fit and the accepted range."""
    if kind not in KINDS:
        raise ShelfError(f"There is no kind of part called {kind}. There are: {', '.join(KINDS)}.")
    try:
        return _adapter(kind).validate_json(text)
    except ValidationError as error:
        raise ShelfError(explain(error)) from error
    except (ValueError, RecursionError) as error:
        raise ShelfError(f"This is no part: {error!s:.100}.") from error


def made_part(kind: str, figures: dict[str, Any]) -> Any:
    """A part from its keys and values in SI; ShelfError as ``part_from``."""
    try:
        text = json.dumps(figures)
    except (ValueError, TypeError, RecursionError) as error:
        raise ShelfError(f"This is no part: {error!s:.100}.") from error
    return part_from(kind, text)
