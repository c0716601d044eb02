"""Travel of each part, runtime and distance as plots."""

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.motion import motion_of
from firecrest.core.arrays import Number, Real
from firecrest.core.units import figure
from firecrest.design.box import Box, Port
from firecrest.design.edits.paths import Path
from firecrest.present.plot.plot import Curve, Line, Plot, nice_range, round_step, waiting
from firecrest.present.size.openings import opening_name


def travel_plots(assessment: Assessment, owner: Path | None = None) -> list[Plot]:
    """Peak travel or air speed of every moving part at the promise, against its limit.

    Only of those of ``owner``: a chamber has the parts around it, a part has its own.
    """
    a, box = assessment.acoustic, assessment.design.box
    cones = a.model.owners if a else tuple(range(len(box.groups)))
    parts: list[tuple[str, str, str, Path, int]] = [
        ("Cone", "C", box.groups[k].driver.name, ("box", "groups", k), n)
        for n, k in enumerate(cones)
    ]
    for k, item in enumerate(box.openings):
        name, code = ("Port air", "U") if isinstance(item, Port) else ("Radiator", "R")
        parts.append((name, code, opening_name(item), ("box", "openings", k), k))
    shown = [p for p in parts if owner is None or _belongs(box, p[3], owner)]
    if a is None:
        return [waiting(name, assessment, (20.0, 200.0)) for name, *_ in shown]
    motion, r = motion_of(assessment, a), a.ratings
    openings = [r.opening_limit(k, a.frequency) for k in range(len(r.openings))]
    moved = {
        "C": (motion.cone, r.x_max, 1e3, "mm"),
        "R": (motion.opening, openings, 1e3, "mm"),
        "U": (motion.opening, openings, 1.0, "m/s"),
    }
    found = []
    for name, code, part, _, n in shown:
        values, limits, scale, unit = moved[code]
        found.append(_motion(name, code, part, a, scale * values[n], limits[n], scale, unit))
    return found


def _belongs(box: Box, part: Path, owner: Path) -> bool:
    """Whether a part is ``owner`` itself or sits on the chamber that it is."""
    if part == owner or owner[1] != "chambers" or int(owner[2]) >= len(box.chambers):
        return part == owner
    id, place = box.chambers[int(owner[2])].id, int(part[2])
    if part[1] == "groups":
        return id in (box.groups[place].chamber, box.groups[place].front)
    opening = box.openings[place]
    return id in (opening.chamber, opening.opens_to)


def _motion(
    name: str,
    code: str,
    part: str,
    a: Acoustic,
    moved: Real,
    limit: Number | None,
    scale: float,
    unit: str,
) -> Plot:
    """Travel or speed against its limit: a line, or a curve where that goes with frequency."""
    shown = (a.frequency >= 20) & (a.frequency <= 200)
    curves = [Curve(name, a.frequency, moved, f"limit:{code}", 2.0, fill=True)]
    lines, high = [], float(moved[shown].max())
    if limit is not None and np.size(limit) > 1:
        grown = scale * np.asarray(limit)
        high = max(high, float(np.median(grown[shown])))
        curves.append(Curve("limit", a.frequency, grown, "ink", 1.6, "dashed", label_at=90.0))
    elif limit is not None:
        bound = scale * float(np.ravel(limit)[0])
        high = max(high, bound)
        lines.append(Line(bound, f"limit {figure(bound, 1)}", "promise"))
    high *= 1.15
    step = round_step(high)
    return Plot(
        f"{name}, {part}" if part != "port" else name,
        "frequency",
        (20.0, 200.0),
        (0.0, float(np.ceil(high / step) * step)),
        step,
        unit,
        curves=tuple(curves),
        lines=tuple(lines),
    )


def distance_plot(assessment: Assessment) -> Plot:
    """Loudness against distance, in the place of the brief: 6 dB per doubling."""
    listening = assessment.design.brief.listening
    promise = assessment.promise("loudness")
    x = np.geomspace(0.5, 32.0, 61)
    fall = -20 * np.log10(x / listening.distance)
    curves = []
    if promise.predicted is not None:
        curves.append(Curve("reaches", x, promise.predicted + fall, "olive", 3.0, label_at=1.2))
    asked = Curve(f"promise {promise.target:g} dB", x, promise.target + fall, "stripe", 2.0)
    y_range, step = nice_range(promise.target - 26, promise.target + 14, (10,))
    return Plot(
        "Level against distance",
        "distance",
        (0.5, 32.0),
        y_range,
        step,
        "dB",
        curves=tuple(curves),
        promise=asked,
        crosshair=listening.distance,
        notes=("Free field: 6 dB less at each doubling; no room, wind or crowd is counted.",),
    )
