"""Measured curves of a part: attached, read in another unit, removed."""

from typing import Any

from firecrest.design.curve import CurveOf, MeasuredCurve
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at


def curve_of(part: Any, what: CurveOf) -> MeasuredCurve | None:
    """The measured ``what`` of a part; None when there is none."""
    found: tuple[MeasuredCurve, ...] = getattr(part, "curves", ())
    return next((curve for curve in found if curve.what == what), None)


def with_curve(design: Design, path: Path, curve: MeasuredCurve) -> tuple[str, Design]:
    """(label, design) with ``curve`` at the part, in place of one of its kind."""
    return f"Attach {curve.name}", _kept(design, path, curve.what, (curve,))


def without_curve(design: Design, path: Path, what: CurveOf) -> tuple[str, Design]:
    """(label, design) without the measured ``what`` of the part."""
    return f"Remove the measured {what}", _kept(design, path, what, ())


def in_unit(design: Design, path: Path, what: CurveOf, unit: str) -> tuple[str, Design]:
    """(label, design) with the frequencies of a curve read in ``unit``."""
    curve = curve_of(value_at(design, path), what)
    made = () if curve is None else (rebuilt(curve, unit=unit),)
    return f"Measured {what}: in {unit}", _kept(design, path, what, made)


def _kept(design: Design, path: Path, what: CurveOf, curves: tuple[MeasuredCurve, ...]) -> Design:
    part = value_at(design, path)
    others = tuple(curve for curve in part.curves if curve.what != what)
    return replace_at(design, path, rebuilt(part, curves=(*others, *curves)))
