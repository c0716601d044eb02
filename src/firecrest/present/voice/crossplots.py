"""Plots of crossovers and EQ: phase between two ways, where to cross, a response flattened."""

from collections.abc import Sequence

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.voicing.crossing import Crossing
from firecrest.assessment.voicing.crossovers import Crossover
from firecrest.assessment.voicing.heard import VOICE_GRID, ways_heard
from firecrest.assessment.voicing.lining import level_of, present_pair
from firecrest.core.units import figure
from firecrest.core.voice.alignment import octave
from firecrest.present.plot.plot import FULL, Curve, Line, Mark, Plot, waiting
from firecrest.present.voice.plots import gapped, hz, shown


def pair_phase_plot(assessment: Assessment, crossover: Crossover) -> Plot:
    """Phase from the lower to the higher way, now and without delays, over two octaves."""
    a = assessment.acoustic
    lower, higher = (
        assessment.design.voice.channels[k].name for k in (crossover.lower, crossover.higher)
    )
    name, x_range = (
        f"Phase, {lower} to {higher}",
        (crossover.frequency / 2, 2 * crossover.frequency),
    )
    if a is None:
        return waiting(name, assessment, x_range)
    grid = np.geomspace(*x_range, 97)
    pair = present_pair(assessment, a, crossover)
    turn = np.degrees(np.angle(pair.high(grid) / pair.low(grid)))
    low, high = octave(crossover.frequency)
    at = float(np.interp(crossover.frequency, grid, turn))
    return Plot(
        name,
        "frequency",
        x_range,
        (-180.0, 180.0),
        90,
        "°",
        (Curve("now", grid, gapped(turn), "olive", 2.4),),
        lines=(
            Line(low, "", "end", upright=True),
            Line(high, "", "end", upright=True),
            Line(30.0, "", "limit"),
            Line(-30.0, "", "limit"),
        ),
        marks=(Mark(crossover.frequency, at, f"{figure(at, 0)}° at {hz(crossover.frequency)}"),),
    )


def crossing_plot(assessment: Assessment, found: Crossing) -> Plot:
    """Both ways without filters over what bounds a crossover, and the range that is left."""
    a = assessment.acoustic
    if a is None:
        return waiting("Where to cross", assessment, FULL)
    heard, c = ways_heard(assessment, a), found.crossover
    names = [assessment.design.voice.channels[k].name for k in (c.lower, c.higher)]
    bare = [level_of(heard.bare[k]) for k in (c.lower, c.higher)]
    zero = max(float(np.nanmax(level)) for level in bare)
    curves = [
        Curve(name, VOICE_GRID, shown(heard, level - zero), role, 2.4, label_at=at)
        for name, level, role, at in zip(
            names, bare, ("olive", "ink"), (300.0, 9000.0), strict=True
        )
    ]
    lines = [Line(c.frequency, f"now {hz(c.frequency)}", "promise", upright=True)]
    for at, text in crossing_marks(found, names):
        if np.isfinite(at) and at > 20:
            lines.append(Line(at, text, "limit", upright=True))
    return Plot(
        "Where to cross",
        "frequency",
        FULL,
        (-36.0, 6.0),
        6,
        "dB",
        tuple(curves),
        lines=tuple(lines),
    )


def crossing_marks(found: Crossing, names: Sequence[str]) -> list[tuple[float, str]]:
    """What stands on the plot of where to cross: Hz and words."""
    low, high = names
    lower, higher = found.lower, found.higher
    marks = [
        (lower.begins_to_beam, f"{low} begins to beam"),
        (lower.falls, f"{low} −6 dB at 45°"),
        (3 * lower.lumped, f"{low} ka = 3"),
        (lower.recommended[1] or 0.0, f"{low} by its sheet"),
        (higher.by_travel or 0.0, f"{high} by travel"),
        (higher.by_heat or 0.0, f"{high} by heat"),
        (higher.recommended[0] or 0.0, f"{high} by its sheet"),
    ]
    return [(at, text) for at, text in marks if at]
