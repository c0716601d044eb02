"""Measured curves as part of the model: their text as it was read, and how to read it.

A curve belongs to a part and goes wherever that part goes: undo, copies, the shelf, the file.
"""

from typing import Literal

from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, text

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
