"""A measured impedance beside the figures in force, and its figures taken."""

import numpy as np
import pytest

from firecrest.assessment.figures import derivation_of
from firecrest.core.curve_text import CurvePoints
from firecrest.core.measurement.impedance import FIGURES, impedance
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.present.parts.fitting import fit_facts, fit_of, with_fit

DRIVER = ("box", "groups", 0, "driver")
F = np.geomspace(10, 20e3, 200)


def curve(design, **changed):
    """The impedance in free air of the first driver, with some figures changed."""
    part = value_at(design, DRIVER)
    known = derivation_of(part).figures
    figures = {key: part.le or 3e-4 if key == "le" else known[key] for key in FIGURES}
    z = impedance(F, figures | {key: figures[key] * share for key, share in changed.items()})
    return CurvePoints(F, np.abs(z), np.degrees(np.angle(z)), ())


def test_a_figure_apart_from_the_one_in_force_is_marked(slipway):
    part = value_at(slipway, DRIVER)
    marks = {f.name: f.mark for f in fit_facts(part, fit_of(part, curve(slipway, fs=1.2)))}
    assert marks["Fs"] == "close"
    assert marks["Qms"] == marks["Re"] == marks["What the fit leaves"] == "met"


def test_the_fit_is_taken_as_measured_with_its_ranges(slipway):
    slipway = set_number(slipway, (*DRIVER, "qts"), 0.4)
    part = value_at(slipway, DRIVER)
    label, made = with_fit(slipway, DRIVER, fit_of(part, curve(slipway, fs=1.2, qes=1.1)))
    taken = value_at(made, DRIVER)
    assert label == "Figures from the impedance"
    assert taken.fs == pytest.approx(1.2 * part.fs, rel=1e-3)
    assert taken.qts is None
    assert taken.origins["fs"] == "measured"


def test_what_cannot_be_fitted_says_why(slipway):
    part = value_at(slipway, DRIVER)
    flat = CurvePoints(F, np.full(len(F), 8.0), None, ())
    assert fit_of(part, flat).startswith("Nothing can be fitted: ")
    two = value_at(replace_at(slipway, (*DRIVER, "coils"), 2), DRIVER)
    assert "one wiring" in fit_of(two, curve(slipway))
    assert fit_of(part, None) is None
