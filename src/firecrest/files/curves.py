"""Measured curves from files: of parts, and of ways with angle, distance and drive."""

import re
from math import pi
from typing import Any

import numpy as np

from firecrest.core.curve_text import CurvePoints, read_curve
from firecrest.core.errors import FileError
from firecrest.core.note import Note, note
from firecrest.design.curve import CurveOf, FrequencyUnit, MeasuredCurve, WayCurve

HIGHEST_KHZ = 100.0
_SAID = re.compile(r"^[#*;!%\s/\"]*([A-Za-z][A-Za-z _]*?)\s*[:=]\s*(.+?)\s*\"?$")
_FIGURE = re.compile(r"[-+]?\d+(?:[.,]\d+)?")
_NAMED_ANGLE = re.compile(
    r"(?i)(?:^|[_\s-])(?:h|hor|horizontal|angle|deg)?[_\s]?([-+]?\d{1,3})\s*(?:deg(?:rees?)?|grad|°)?$"
)
_KEYS = {
    "angle": ("angle", "angle deg", "off axis", "horizontal"),
    "distance": ("distance", "distance m", "mic distance"),
    "volts": ("voltage", "voltage rms", "volts", "volts rms", "drive"),
    "place": ("place", "measured on"),
}
_PLACES = ("pole", "ground", "wall", "corner")


def measured_curve(text: str, name: str, what: CurveOf) -> MeasuredCurve:
    """A curve of a part from the text of a file, in the unit it seems to be written in.

    Raises FileError when it is no curve of ``what``.
    """
    points = read_curve(text, name)
    trouble = impedance_trouble(points) if what == "impedance" else ""
    if trouble:
        raise FileError(f"{name}: {trouble}.")
    return MeasuredCurve(
        what=what, name=name[:120], unit=_unit_of(points), content=_kept(text, points)
    )


def way_curve(text: str, name: str) -> tuple[WayCurve, tuple[Note, ...]]:
    """(curve, notices) of a way from the text of a file; FileError when it is none.

    Angle, distance, volts and place come from its header, the angle else from the file's name.
    """
    points = read_curve(text, name)
    trouble = response_trouble(points)
    if trouble:
        raise FileError(f"{name}: {trouble}.")
    said = _said(points.header)
    angle = said.get("angle", angle_in(name))
    notices = list(points.notices)
    if angle is None:
        notices.append(note("no angle"))
    made: dict[str, Any] = {key: said[key] for key in ("distance", "volts", "place") if key in said}
    curve = WayCurve(
        name=name[:120],
        angle=(angle or 0.0) * pi / 180,
        unit=_unit_of(points),
        content=_kept(text, points),
        **made,
    )
    return curve, tuple(notices)


def angle_in(name: str) -> float | None:
    """Degrees that the name of a file ends with; None where it ends otherwise."""
    stem = name.rsplit(".", 1)[0] if re.search(r"\.[A-Za-z]\w{0,4}$", name) else name
    found = _NAMED_ANGLE.search(stem)
    if found is None or abs(int(found.group(1))) > 180:
        return None
    return float(found.group(1))


def _said(header: tuple[str, ...]) -> dict[str, Any]:
    """What the header states of angle, distance, volts and place."""
    found: dict[str, Any] = {}
    for line in header:
        match = _SAID.match(line)
        if match is None:
            continue
        key = match.group(1).replace("_", " ").strip().lower()
        name = next((name for name, keys in _KEYS.items() if key in keys), None)
        figure = _FIGURE.search(match.group(2))
        if name == "place" and match.group(2).lower() in _PLACES:
            found["place"] = match.group(2).lower()
        elif name is not None and name != "place" and figure is not None:
            found[name] = _in_range(name, float(figure.group().replace(",", ".")))
    return {key: value for key, value in found.items() if value is not None}


def _in_range(name: str, value: float) -> float | None:
    low, high = {"angle": (-180, 180), "distance": (0.01, 100), "volts": (0.001, 400)}[name]
    return value if low <= value <= high else None


def _unit_of(points: CurvePoints) -> FrequencyUnit:
    """What the header says; without a word, figures that end below any tweeter are kilohertz."""
    header = " ".join(points.header).lower()
    if "hz" in header:
        return "kHz" if "khz" in header else "Hz"
    return "kHz" if points.frequency[-1] <= HIGHEST_KHZ and points.frequency[0] < 1 else "Hz"


def _kept(text: str, points: CurvePoints) -> str:
    """The text as it was read; of a thinned curve what is left of it."""
    if not any(notice.code == "thinned curve" for notice in points.notices):
        return text
    columns = [points.frequency, points.magnitude]
    columns += [] if points.phase is None else [points.phase]
    rows = (" ".join(f"{value:.7g}" for value in row) for row in zip(*columns, strict=True))
    return "\n".join((*points.header, *rows)) + "\n"


def impedance_trouble(curve: CurvePoints) -> str:
    """Why a curve cannot be an impedance; empty when it can."""
    if np.min(curve.magnitude) <= 0:
        return "an impedance is above 0 Ω everywhere"
    if np.max(curve.magnitude) > 5000:
        return "an impedance above 5000 Ω is no loudspeaker"
    return ""


def response_trouble(curve: CurvePoints) -> str:
    """Why a curve cannot be a response; empty when it can."""
    if np.max(np.abs(curve.magnitude)) > 250:
        return "a level beyond 250 dB is none; the second column should be dB"
    if np.ptp(curve.magnitude) == 0:
        return "the level is the same at every frequency"
    return ""
