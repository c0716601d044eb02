"""How a field of the design is declared: range, unit, step and help, once, on the model.

Number fields, file reader, documentation and error messages all read these declarations.
"""

import dataclasses
import types
from dataclasses import dataclass
from functools import cache
from typing import Any, Union, get_args, get_origin

from pydantic import ConfigDict, Field
from pydantic.fields import FieldInfo

from firecrest.core.errors import DesignError
from firecrest.core.units import from_si, shown

MODEL = ConfigDict(strict=True, extra="forbid", allow_inf_nan=False, defer_build=True)
"""Every model: exact types, no unknown keys, no infinities (lossless is null)."""

_REQUIRED: Any = ...
IDENTITY = r"^[a-z0-9][a-z0-9-]{0,31}$"
"""What an id may be."""


def number(
    label: str,
    quantity: str,
    low: float,
    high: float,
    unit: str,
    *,
    default: Any = _REQUIRED,
    symbol: str = "",
    digits: int = 1,
    help: str = "",
    empty: str = "not known",
) -> Any:
    """A number in SI from ``low`` to ``high``, shown in ``unit`` with ``digits`` decimals.

    ``empty`` says what an empty (null) field stands for.
    """
    extra: dict[str, Any] = {
        "quantity": quantity,
        "unit": unit,
        "digits": digits,
        "symbol": symbol,
        "empty": empty,
    }
    return Field(default, title=label, ge=low, le=high, description=help, json_schema_extra=extra)


def text(label: str, *, default: Any = _REQUIRED, longest: int = 80, help: str = "") -> Any:
    """A line of text."""
    return Field(default, title=label, max_length=longest, description=help)


def identity(default: str, label: str = "Id") -> Any:
    """A short id, or one that is referred to: what the file knows an element by."""
    help = "Small letters, digits and dashes." if label == "Id" else "By its id."
    return Field(default, title=label, pattern=IDENTITY, description=help)


def choice(label: str, *, default: Any = _REQUIRED, help: str = "") -> Any:
    """One of the values of a Literal, or yes/no."""
    return Field(default, title=label, description=help)


def items(label: str, *, default: Any = _REQUIRED, most: int = 32, least: int = 0) -> Any:
    """A list of models."""
    return Field(default, title=label, min_length=least, max_length=most)


@dataclass(frozen=True)
class FieldFacts:
    """One field's declaration, as read by number fields and messages."""

    name: str
    label: str
    symbol: str
    quantity: str
    unit: str
    digits: int
    low: float
    high: float
    optional: bool
    whole: bool
    help: str
    empty: str = "not known"

    def range_text(self, unit: str | None = None) -> str:
        """Accepted range in the shown ``unit``, e.g. "10 to 200 mm"."""
        unit = unit or self.unit
        ends = (float(f"{from_si(v, self.quantity, unit):.4g}") for v in (self.low, self.high))
        low, high = (f"{end:.12g}" for end in ends)  # 20000, not 2e+04
        return f"{low} to {high} {unit}".strip()

    def show(self, value: float | None, unit: str | None = None) -> str:
        """``value`` as shown in a field; nothing for a figure that is not known."""
        if value is None:
            return ""
        return shown(value, self.quantity, unit or self.unit, self.digits)

    def check(self, value: float | None, unit: str | None = None) -> None:
        """Raise DesignError when ``value`` is outside the range."""
        if value is None:
            if not self.optional:
                raise DesignError(f"{self.label} cannot be left empty.")
            return
        slack = 1e-12 * max(abs(self.low), abs(self.high))
        if not self.low - slack <= value <= self.high + slack:
            raise DesignError(f"{self.label} can be {self.range_text(unit)}.")


def field_facts(model: Any, name: str) -> FieldFacts | None:
    """Declaration of the number ``name`` of ``model``; None when it is not a number."""
    return _field_facts(model, name)


@cache
def _field_facts(model: Any, name: str) -> FieldFacts | None:
    info: FieldInfo = vars(model)["__pydantic_fields__"][name]
    extra = info.json_schema_extra
    if not isinstance(extra, dict) or "quantity" not in extra:
        return None
    bounds: dict[str, float] = {}
    for mark in info.metadata:
        for key in ("ge", "le"):
            if hasattr(mark, key):
                bounds[key] = getattr(mark, key)
    return FieldFacts(
        name,
        info.title or name,
        str(extra["symbol"]),
        str(extra["quantity"]),
        str(extra["unit"]),
        int(str(extra["digits"])),
        bounds["ge"],
        bounds["le"],
        is_optional(model, name),
        _annotation(model, name) is int,
        info.description or "",
        str(extra["empty"]),
    )


def help_of(model: type, name: str) -> str:
    """What the declaration of any field of a model explains."""
    info: FieldInfo = vars(model)["__pydantic_fields__"][name]
    return info.description or ""


def label_of(model: type, name: str) -> str:
    """Label of any field of a model."""
    info: FieldInfo = vars(model)["__pydantic_fields__"][name]
    return info.title or name.replace("_", " ")


def is_optional(model: type, name: str) -> bool:
    """Whether the field may be null."""
    annotation = _annotation(model, name)
    return get_origin(annotation) in (Union, types.UnionType) and type(None) in get_args(annotation)


def _annotation(model: type, name: str) -> Any:
    """Declared type of a field."""
    return {f.name: f.type for f in dataclasses.fields(model)}[name]
