"""Sensible starts: boxes computed from the driver, or searched for, each for one purpose."""

from collections.abc import Callable, Mapping
from math import sqrt

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.vary import Figures, assess_many
from firecrest.core.acoustics import alignments
from firecrest.core.acoustics.alignments import BoxLoss, Vented
from firecrest.core.errors import DesignError, FirecrestError
from firecrest.design.box import Port
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at, value_at
from firecrest.proposals.confirming import GRID, confirm
from firecrest.proposals.inverse import tuner_path, with_tuning
from firecrest.proposals.layouts import figures_of, kind_of, with_kind
from firecrest.proposals.ports import folded
from firecrest.proposals.tunings import best_tunings

SHELF_AIR = 2.0
"""An extended shelf takes this many times the air of the flattest box."""
BUTTERWORTH_QTC = 0.707
MOST_VAS = 10.0
"""A closed start with more air than this many times the driver's Vas is none."""
SCALES = tuple(0.5 * 1.04**k for k in range(40))
FINER = tuple(0.96 + 0.005 * k for k in range(9))
STEPS = 50


Start = Callable[[Design], Design]
"""Makes a design for one purpose; FirecrestError says why there is none."""


def scaled(design: Design, factor: float) -> Design:
    """The case with all outer sizes times ``factor``; DesignError when one leaves its range."""
    case = design.box.case
    sizes = {side: getattr(case, side) * factor for side in ("length", "height", "depth")}
    return replace_at(design, ("box", "case"), rebuilt(case, **sizes))


def with_air(design: Design, volume: float) -> Design:
    """The first chamber's net air made ``volume`` m3, the case keeping its proportions.

    DesignError when that leaves the range of a case.
    """
    chambers = design.box.chambers
    if chambers[0].stated_volume is not None:
        bare = rebuilt(chambers[0], stated_volume=None)
        design = replace_at(design, ("box", "chambers", 0), bare)
    low, high = 0.2, 5.0
    for _ in range(STEPS):
        middle = 0.5 * (low + high)
        try:
            air = float(cabinet_of(scaled(design, middle)).air[0])
        except FirecrestError:
            air = 0.0 if middle < 1 else float("inf")
        low, high = (middle, high) if air < volume else (low, middle)
    made = scaled(design, high)
    if abs(float(cabinet_of(made).air[0]) / volume - 1) > 1e-3:
        raise DesignError(f"No case of these proportions holds {1e3 * volume:.2f} L of air.")
    return made


def _alone(design: Design) -> None:
    """These closed forms are for drivers of one kind around one chamber."""
    if len(design.box.chambers) > 1 or len(design.box.groups) > 1:
        raise DesignError("It is for one kind of driver in one chamber.")


def _vented(design: Design, box: Vented) -> Design:
    """The box of a closed form, with the opening it has now, or a port, folded as it needs.

    DesignError when the solver does not find the response of the closed form.
    """
    fs, qts, vas = figures_of(design, design.box.groups[0])
    opened = with_kind(design, "port") if kind_of(design) == "sealed" else design
    chamber = opened.box.chambers[0]
    volume = vas / box.alpha / (1 + chamber.stuffing)
    made = with_air(_shortest(opened), volume)
    for _ in range(3):
        made = with_air(with_tuning(made, box.h * fs), volume)
    made = with_tuning(made, box.h * fs)
    if isinstance(made.box.openings[0], Port):
        made = folded(made, 0)
    terms = alignments.polynomial(box.alpha, box.h, qts, chamber.leak_q)
    return confirm(made, alignments.magnitude_db(terms, GRID / (fs * sqrt(box.h))))


def _shortest(design: Design) -> Design:
    """A long port shortened first, so that the air it takes does not stand in the way."""
    path = tuner_path(design)
    if path is None or path[-1] != "length":
        return design
    return replace_at(design, path, min(value_at(design, path), 0.05))


def _closed_form(find: Callable[[float, float | None], Vented | None]) -> Start:
    """A start by a closed form of (Qts, leak Q)."""

    def _make(design: Design) -> Design:
        _alone(design)
        _, qts, _ = figures_of(design, design.box.groups[0])
        box = find(qts, design.box.chambers[0].leak_q)
        if box is None:
            raise DesignError(f"Qts {qts:.2f} of this driver is too high for it.")
        return _vented(design, box)

    return _make


def _shelf(qts: float, leak_q: float | None) -> Vented | None:
    """Twice the air of the flattest box."""
    flat = alignments.flattest(qts, leak_q)
    if flat is None:
        return None
    return alignments.extended_shelf(qts, leak_q, flat.alpha / SHELF_AIR)


def closed_at(qtc: float) -> Start:
    """A start that closes the box at ``qtc``, losses of the box counted."""

    def _make(design: Design) -> Design:
        _alone(design)
        fs, qts, vas = figures_of(design, design.box.groups[0])
        chamber = design.box.chambers[0]
        loss = BoxLoss(chamber.leak_q, chamber.absorption_q)
        volume = alignments.closed_volume(vas, qts, qtc, loss)
        if volume is None:
            raise DesignError(f"Qts {qts:.2f} of this driver is above it in any box.")
        if volume > MOST_VAS * vas:
            raise DesignError(
                f"It would take {1e3 * volume:.0f} L: Qts {qts:.2f} of this driver is close to it "
                "by itself. Ask for a higher Qtc."
            )
        made = with_air(with_kind(design, "sealed"), volume / (1 + chamber.stuffing))
        return confirm(made, alignments.closed_response(vas / volume, qts, loss, GRID / fs))

    return _make


def most_output(design: Design) -> Design:
    """The present case at its loudest tuning."""
    if not design.box.openings:
        raise DesignError("A closed box has no tuning. Fit a port or radiators first.")
    return best_tunings([design], Memo(AFRESH))[0]


def smallest_case(design: Design) -> Design:
    """The smallest case of these proportions, tuned at its best, that keeps the promises made.

    DesignError says which promise no size keeps.
    """
    best = _smallest_of(design, SCALES)
    return _smallest_of(best, FINER)


def _smallest_of(design: Design, factors: tuple[float, ...]) -> Design:
    """The smallest of the scaled cases that keeps every promise counted as a must."""
    cases = []
    for factor in factors:
        try:
            case = scaled(design, factor)
        except FirecrestError:
            continue
        if min(cabinet_of(case).air) > 0:
            cases.append(case)
    tuned = best_tunings(cases, Memo())
    judged = assess_many(tuned, EDIT_GRID, Memo())
    for case, figures in zip(tuned, judged, strict=True):
        if not _short(figures):
            return case
    fewest = min(judged, key=lambda figures: len(_short(figures)), default=None)
    short = ", ".join(_short(fewest)) if fewest is not None else "the room"
    raise DesignError(f"No size of this case keeps them all: {short} stays short.")


def _short(figures: Figures) -> list[str]:
    """Promises counted as a must that are not kept."""
    return [
        p.key
        for p in figures.promises
        if p.importance == "must" and p.state in ("short", "unknown")
    ]


def starts(qtc: float = BUTTERWORTH_QTC) -> Mapping[str, Start]:
    """What makes each start, by its key; ``qtc`` is that of the closed one."""
    return {
        "flat": _closed_form(alignments.flattest),
        "third": _closed_form(alignments.quasi_third_order),
        "shelf": _closed_form(_shelf),
        "closed": closed_at(qtc),
        "smallest": smallest_case,
        "loudest": most_output,
    }
