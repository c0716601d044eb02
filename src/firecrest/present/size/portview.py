"""Area against length: every port that gives the present tuning, which fit, which are quiet."""

from collections.abc import Sequence
from itertools import pairwise
from math import floor, log10

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.conditions import air_of
from firecrest.assessment.openings.port import port_area
from firecrest.core.cabinet.portfit import longest_run
from firecrest.design.box import Port, port_at
from firecrest.design.ids import place_of
from firecrest.present.plot.plot import Curve, Line, Mark, Plot, nice_range, waiting
from firecrest.present.text.units import told, told_of
from firecrest.proposals.ports import PortChoice, duct_of, length_for, space_of

SQUARE_CENTIMETRES = 1e4
SPREAD = 8.0
"""From the present area over this to so many times it."""
TALLEST = 1500.0


def port_plot(assessment: Assessment, place: int, found: Sequence[PortChoice]) -> Plot:
    """Length needed against area for the present tuning, with what there is to choose from."""
    a, design = assessment.acoustic, assessment.design
    if a is None:
        return waiting("Ports for this tuning", assessment, (1.0, 100.0))
    port = port_at(design.box, place)
    area = port.count * float(port_area(port))
    low, high = area / SPREAD, area * SPREAD
    x = np.geomspace(low, high, 81)
    mass = float(np.asarray(a.model.network.openings[place].mass)) / port.count
    length = 1e3 * length_for(port, x, mass, air_of(design.brief.conditions))
    shown = [c for c in found if low <= c.area <= high]
    fits = _fits(assessment, port)
    tallest = max([1e3 * port.length * 2.2, 200.0, *(1.08 * line.at for line in fits[:2])])
    y_range, step = nice_range(0.0, min(tallest, TALLEST), (50, 100, 200, 500), 8)
    here = Mark(area * SQUARE_CENTIMETRES, 1e3 * port.length, "in force", "olive", chosen=True)
    return Plot(
        "Ports for this tuning",
        "area",
        (low * SQUARE_CENTIMETRES, high * SQUARE_CENTIMETRES),
        y_range,
        step,
        "mm",
        curves=(Curve("length", x * SQUARE_CENTIMETRES, length, "olive", 2.4),),
        lines=(*fits, *_too_fast(shown)),
        marks=(*(_mark(c) for c in shown), here),
        notes=(_legend(assessment, place),),
    )


def _legend(assessment: Assessment, place: int) -> str:
    tuning = assessment.acoustic.model.tuning if assessment.acoustic else ()
    box = assessment.design.box
    port = port_at(box, place)
    note = tuning[place_of(box.chambers, port.chamber)] if tuning else None
    hertz = "" if note is None else f" for {note:.1f} Hz"
    kind = "Pipes by outside diameter in mm" if port.shape == "round" else "Slots by height"
    return (
        f"{kind}{hertz}; ← → try one, Enter takes it. Left of the upright line the air is "
        "faster than its limit at the promise."
    )


def choice_name(choice: PortChoice) -> str:
    """A port to choose in few signs: count and outside diameter, or height of the slot, in mm."""
    port = choice.port
    return (f"{port.count}×" if port.count > 1 else "") + f"{1e3 * _across(port):.0f}"


def _across(port: Port) -> float:
    """Outside diameter of a pipe, height of a slot."""
    return port.diameter + 2 * port.wall if port.shape == "round" else port.height


def choice_text(choice: PortChoice) -> str:
    """A port to choose in words: size, length, fit and air speed."""
    speed, long = "", told(choice.length, "length", "mm", 0)
    if choice.speed is not None:
        speed = f", {told_of(choice.speed, choice.limit, 'speed', 'm/s', (0, 0))}"
    many = f"{choice.port.count}×" if choice.port.count > 1 else ""
    size = told(_across(choice.port), "length", "mm", 0)
    return f"{many}{size}, {long} long, {fit_text(choice)}{speed}"


def fit_text(choice: PortChoice) -> str:
    """How a choice fits, in words."""
    bends = choice.fit.bends
    if choice.fit.narrow:
        return "too thick for the case"
    if bends is None:
        return "too long, even folded"
    return "fits straight" if bends == 0 else f"fits with {_bends(bends)}"


def _bends(count: int) -> str:
    return "one bend" if count == 1 else f"{count} bends"


def quiet(choice: PortChoice) -> bool:
    """Whether a choice fits and keeps within its air speed."""
    return (
        choice.fit.bends is not None and choice.speed is not None and choice.speed <= choice.limit
    )


def _mark(choice: PortChoice) -> Mark:
    role = "olive" if quiet(choice) else "flame"
    label = choice_name(choice)
    return Mark(choice.area * SQUARE_CENTIMETRES, 1e3 * choice.length, label, role)


def _fits(assessment: Assessment, port: Port) -> tuple[Line, ...]:
    """The longest this port could be straight, with one bend and with two."""
    duct, space = duct_of(port), space_of(assessment.design.box.case, port)
    names = ("fits straight", "fits with one bend", "fits with 2 bends")
    reach = [1e3 * longest_run(duct, space, k) for k in range(3)]
    return tuple(Line(v, n, "limit") for v, n in zip(reach, names, strict=True) if v > 0)


def _too_fast(found: Sequence[PortChoice]) -> tuple[Line, ...]:
    """The area at which the air speed reaches its limit, between the choices around it."""
    known = [(c.area, c.speed / c.limit) for c in found if c.speed and c.limit]
    for (a, fast), (b, slow) in pairwise(known):
        if fast > 1 >= slow:
            share = np.log(fast) / np.log(fast / slow)
            at = float(a * (b / a) ** share) * SQUARE_CENTIMETRES
            return (
                Line(
                    at,
                    f"{told(at / SQUARE_CENTIMETRES, 'area', 'cm²', 1)} for a quiet port",
                    "promise",
                    upright=True,
                ),
            )
    return ()


def area_ticks(low: float, high: float) -> list[float]:
    """1, 2, 5 marks between two areas."""
    decades = range(floor(log10(low)), floor(log10(high)) + 1)
    ticks = [m * 10.0**k for k in decades for m in (1, 2, 5)]
    return [t for t in ticks if low <= t <= high]
