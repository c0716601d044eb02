"""Ceilings, responses and travel of several variants in one plot, and what gives first in each."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from firecrest.present.compare.columns import Compared
from firecrest.present.plot.ceiling import ceiling_plot, tints_of
from firecrest.present.plot.plot import BASS, FULL, Curve, Plot, Readout, Row, TintRun, nice_range
from firecrest.present.plot.views import response_plot, travel_plot
from firecrest.present.text.words import limit_name

VIEWS = {"ceiling": "Ceilings", "response": "Responses", "travel": "Cone travel"}
OTHERS = 1.8
LONGEST = 20
"""Letters of a variant's name that a read-out has room for."""
NAMED_AT = (90.0, 150.0, 230.0, 350.0, 520.0, 70.0, 800.0, 60.0)
"""Where curves are named, one after the other, so that names do not meet."""
DASHES = ("dashed", "solid", "dotted")


def overlaid(
    columns: Sequence[Compared], view: str, *, full: bool, frequency: float | None
) -> Plot:
    """One curve a variant: that in force thick and olive, the others thin."""
    made = {c.letter: _plot(c, view, full=full, frequency=frequency) for c in columns}
    here = next(c for c in columns if c.here)
    base = made[here.letter]
    curves = tuple(
        _named(c, made[c.letter].curves[0], k)
        for k, c in enumerate(columns)
        if made[c.letter].curves
    )
    if not curves:
        return replace(base, name=VIEWS[view])
    return replace(
        base,
        name=VIEWS[view],
        curves=curves,
        tints=(),
        likely=None,
        y_range=_range([made[c.letter] for c in columns], base),
        readout=_readout(columns, curves, base),
        notes=(),
    )


def _plot(column: Compared, view: str, *, full: bool, frequency: float | None) -> Plot:
    if view == "response":
        return response_plot(column.assessment, full=full)
    if view == "travel":
        return travel_plot(column.assessment)
    return ceiling_plot(column.assessment, full=full, frequency=frequency)


def _named(column: Compared, curve: Curve, place: int) -> Curve:
    role, width = ("olive", 3.0) if column.here else ("ink2", OTHERS)
    built = column.variant.standing == "measured"
    style = "solid" if column.here or built else DASHES[place % 2 * 2]
    at = NAMED_AT[place % len(NAMED_AT)]
    return Curve(column.title, curve.x, curve.y, role, width, style, label_at=at)


def _range(plots: Sequence[Plot], base: Plot) -> tuple[float, float]:
    low = min(p.y_range[0] for p in plots)
    high = max(p.y_range[1] for p in plots)
    return nice_range(low, high, (base.y_step, 2 * base.y_step), 9)[0]


def _readout(columns: Sequence[Compared], curves: Sequence[Curve], base: Plot) -> Readout | None:
    if base.crosshair is None:
        return None
    rows = []
    for column, curve in zip([c for c in columns if c.assessment.acoustic], curves, strict=False):
        value = float(np.interp(np.log(base.crosshair), np.log(curve.x), curve.y))
        title = column.title
        named = title if len(title) <= LONGEST else f"{title[: LONGEST - 1]}…"
        rows.append(Row("", named, f"{value:.1f}", False, "olive" if column.here else "ink2"))
    return Readout(f"at {base.crosshair:.0f} Hz", base.unit, tuple(rows))


def ribbon(column: Compared) -> tuple[TintRun, ...]:
    """What gives first along the frequency axis."""
    a = column.assessment.acoustic
    return () if a is None or not a.plays else tints_of(a, a.top.level)


def legend(columns: Sequence[Compared], *, full: bool) -> list[tuple[str, str]]:
    """(code, name) of every limit that gives first somewhere on the axis, most common first."""
    low, high = FULL if full else BASS
    spans: dict[tuple[str, str], float] = {}
    for column in columns:
        a = column.assessment.acoustic
        for run in a.runs if a is not None else ():
            assert a is not None
            ends = np.clip([a.frequency[run.start], a.frequency[run.stop]], low, high)
            name = limit_name(a.limits[run.limit], run.code)
            key = (run.code, name)
            spans[key] = spans.get(key, 0.0) + float(np.log(ends[1] / ends[0]))
    return [key for key, span in sorted(spans.items(), key=lambda item: -item[1]) if span > 0]
