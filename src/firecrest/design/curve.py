"""Measured curves as part of the model: their text as it was read, and how to read it.

A curve belongs to a part and goes wherever that part goes: undo, copies, the shelf, the file.
"""

from typing import Literal, Self

from pydantic import model_validator
from pydantic.dataclasses import dataclass

from firecrest.core.curve_text import kept_curve
from firecrest.core.errors import FileError
from firecrest.design.fields import MODEL, choice, number, text

LONGEST = 32 * 2**20
CurveOf = Literal["impedance", "response"]
FrequencyUnit = Literal["Hz", "kHz"]
FREQUENCY_UNITS: tuple[FrequencyUnit, ...] = ("Hz", "kHz")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class MeasuredCurve:
    """One measured curve of a part, as plain text of two or three columns."""

    what: CurveOf = choice("What of")
    name: str = text("File", longest=120)
    unit: FrequencyUnit = choice("Frequencies in", default="Hz")
    content: str = text("Text of the file", longest=LONGEST)


CurvePlace = Literal["pole", "ground", "wall", "corner"]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class WayCurve:
    """A measured response of one way at one angle, as plain text of two or three columns."""

    name: str = text("File", longest=120)
    angle: float = number(
        "Angle",
        "angle",
        -3.141592653589793,
        3.141592653589793,
        "°",
        default=0.0,
        digits=0,
        help="To the right of the axis; to the left is below 0.",
    )
    unit: FrequencyUnit = choice("Frequencies in", default="Hz")
    distance: float | None = number(
        "Measured at", "length", 0.01, 100, "m", default=None, digits=2, empty="not stated"
    )
    volts: float | None = number(
        "With", "voltage", 0.001, 400, "V", default=None, digits=2, empty="not stated"
    )
    place: CurvePlace = choice(
        "Measured on",
        default="pole",
        help="What stood around: a pole or a window in free air, the ground, a wall, a corner.",
    )
    content: str = text("Text of the file", longest=LONGEST)

    @model_validator(mode="after")
    def _is_a_curve(self) -> Self:
        """The text reads as a curve; ValueError text becomes the maker's message."""
        try:
            kept_curve(self.content, self.unit)
        except FileError as error:
            raise ValueError(str(error)) from error
        return self
