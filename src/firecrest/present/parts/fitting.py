"""What a measured impedance says of a driver beside its sheet, in words, and what may be taken."""

from firecrest.assessment.figures import derivation_of
from firecrest.core.curve_text import CurvePoints
from firecrest.core.measurement.impedance import FIGURES, Fitted, fitted
from firecrest.core.units import figure
from firecrest.design.design import Design
from firecrest.design.edits.parts import set_figure, take_figures
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.fields import field_facts
from firecrest.design.parts import DriverPart
from firecrest.present.size.facts import Fact
from firecrest.present.text.units import units

APART = 1.0
"""Half widths of the fit's range by which a figure of the sheet is off before it is told."""


def fit_of(part: DriverPart, measured: CurvePoints | None) -> Fitted | str | None:
    """The figures of a measured impedance; why there are none, in words; None without a curve."""
    if measured is None:
        return None
    if part.coils != 1:
        return "Two coils: measure one wiring and state its figures; nothing is fitted here."
    try:
        return fitted(measured.frequency, measured.magnitude, measured.phase)
    except ValueError as error:
        return f"Nothing can be fitted: {error}."


def fit_facts(part: DriverPart, found: Fitted) -> list[Fact]:
    """Each figure with its range, beside what is in force."""
    known, rows = derivation_of(part).figures, []
    for key in FIGURES:
        facts = field_facts(DriverPart, key)
        assert facts is not None
        value, share = found.figures[key], found.ranges[key]
        unit = units.unit(facts.quantity, facts.unit)
        now = getattr(part, key) if key == "le" else known.get(key)
        text = f"{facts.show(value, unit)} ±{figure(100 * share, 1)} %"
        mark, said = "", "not on the sheet"
        if now:
            off = value / now - 1
            mark = "met" if abs(off) <= max(APART * share, 0.02) else "close"
            said = f"in force {facts.show(now, unit)}, {figure(100 * off, 1)} % off"
        rows.append(Fact(facts.symbol or facts.label, f"{text}; {said}", mark, facts.help))
    low, high = found.band
    rows.append(
        Fact(
            "What the fit leaves",
            f"{figure(100 * found.error, 1)} % rms",
            "met" if found.error < 0.05 else "close",
            f"Fitted from {low:.0f} to {high:.0f} Hz: Re, a resonance and one Le. More than 5 %: "
            "the coil is no plain Le, or the driver was not in free air.",
        )
    )
    return rows


def with_fit(design: Design, path: Path, found: Fitted) -> tuple[str, Design]:
    """(label, design) with the fitted figures in force, as measured, with their ranges.

    Qts is left to follow from them, and is emptied where it was stated.
    """
    figures = {key: found.figures[key] for key in FIGURES}
    label = "Figures from the impedance"
    _, made = take_figures(design, path, figures, "measured", found.ranges, label)
    if value_at(made, (*path, "qts")) is not None:
        made = set_figure(made, (*path, "qts"), None)
    return label, made
