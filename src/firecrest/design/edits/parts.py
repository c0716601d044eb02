"""Edits of a part's sheet: figures with their origins, likely ranges, figures set aside."""

from collections.abc import Mapping
from typing import Any

import numpy as np

from firecrest.core.acoustics.large_signal import USUAL_BL, USUAL_KMS
from firecrest.core.errors import DesignError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, set_number, value_at
from firecrest.design.fields import label_of
from firecrest.design.parts import DriverPart, TravelPoint
from firecrest.design.sheet import Origin, Sheet

WIDEST = 2.0
ORIGINS: tuple[Origin, ...] = ("measured", "sheet", "derived", "estimate")


def set_figure(design: Design, path: Path, value: float | None) -> Design:
    """A number at ``path``; on a part's sheet its origin keeps up.

    A figure typed where none was, or over an estimate, comes from a sheet until it is told
    otherwise; an emptied one has no origin and no range.
    """
    made = set_number(design, path, value)
    part, name = value_at(made, path[:-1]), str(path[-1])
    if not isinstance(part, Sheet):
        return made
    origins, tolerances, aside = dict(part.origins), dict(part.tolerances), dict(part.set_aside)
    if value is None:
        origins.pop(name, None)
        tolerances.pop(name, None)
    elif origins.get(name) in (None, "estimate", "derived"):
        origins[name] = "sheet"
        tolerances.pop(name, None)
    if value is not None:
        aside.pop(name, None)
    return replace_at(
        made, path[:-1], _sheet(part, origins=origins, tolerances=tolerances, set_aside=aside)
    )


def _sheet(part: Any, **changes: Any) -> Any:
    """The part with other sheet facts; the same object when nothing differs."""
    if all(getattr(part, key) == value for key, value in changes.items()):
        return part
    return rebuilt(part, **changes)


def set_origin(design: Design, path: Path, origin: Origin) -> tuple[str, Design]:
    """(label, design) with another origin of the figure at ``path``; its range follows again."""
    part, name = value_at(design, path[:-1]), str(path[-1])
    tolerances = {k: v for k, v in part.tolerances.items() if k != name}
    made = _sheet(part, origins={**part.origins, name: origin}, tolerances=tolerances)
    label = f"{label_of(type(part), name)}: {origin}"
    return label, replace_at(design, path[:-1], made)


def set_tolerance(design: Design, path: Path, share: float) -> tuple[str, Design]:
    """(label, design) with another likely range, a share either way; DesignError with limits."""
    if not 0 < share <= WIDEST:
        raise DesignError(f"A likely range can be up to ±{100 * WIDEST:.0f} %, above 0.")
    part, name = value_at(design, path[:-1]), str(path[-1])
    made = _sheet(part, tolerances={**part.tolerances, name: share})
    return f"{label_of(type(part), name)} ±{100 * share:.3g} %", replace_at(design, path[:-1], made)


def set_aside(
    design: Design, path: Path, name: str, span: float | None = None
) -> tuple[str, Design]:
    """(label, design) with a stated figure left out, so that the others give it.

    It is kept beside. ``span`` (a share) is kept as its likely range: both values stay possible.
    """
    part = value_at(design, path)
    value = getattr(part, name)
    origins = {k: v for k, v in part.origins.items() if k != name}
    tolerances = {k: v for k, v in part.tolerances.items() if k != name}
    if span is not None:
        tolerances[name] = span
    made = rebuilt(
        part,
        **{name: None},
        origins=origins,
        tolerances=tolerances,
        set_aside={**part.set_aside, name: value},
    )
    return f"{label_of(type(part), name)} set aside", replace_at(design, path, made)


def bring_back(design: Design, path: Path, name: str) -> tuple[str, Design]:
    """(label, design) with a figure that was set aside in force again."""
    value = value_at(design, path).set_aside[name]
    made = set_figure(design, (*path, name), value)
    return f"{label_of(type(value_at(design, path)), name)} brought back", made


def take_figures(
    design: Design,
    path: Path,
    figures: Mapping[str, float],
    origin: Origin,
    tolerances: Mapping[str, float],
    label: str,
) -> tuple[str, Design]:
    """(label, design) with several figures of one origin at once."""
    part = value_at(design, path)
    kept = {k: v for k, v in part.tolerances.items() if k not in figures}
    whole = {k: int(v) if k == "coils" else v for k, v in figures.items()}
    origins = {**part.origins, **{k: origin for k in figures if k != "coils"}}
    made = rebuilt(
        part,
        **whole,
        origins=origins,
        tolerances={**kept, **tolerances},
        set_aside={k: v for k, v in part.set_aside.items() if k not in figures},
    )
    return label, replace_at(design, path, made)


TRAVELS = (0.5, 1.0, 1.4)
"""Multiples of Xmax at which a table of large travel begins."""
FIRST_TRAVEL = 1e-3
"""Metres taken for Xmax where there is none either."""
LONGEST_TRAVEL = 0.2
"""As its field has it."""


def add_travel_point(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) with one more point of a driver's values at large travel.

    The first three are those that are usual over its Xmax, to be overwritten; a further one lies
    beyond the last.
    """
    part: DriverPart = value_at(design, path)
    points = part.large
    if points:
        last = points[-1]
        made = (*points, rebuilt(last, travel=min(1.2 * last.travel, LONGEST_TRAVEL)))
    else:
        xmax = FIRST_TRAVEL if part.xmax is None else part.xmax
        made = tuple(_usual_point(u, min(u * xmax, LONGEST_TRAVEL)) for u in TRAVELS)
    return "Add point", replace_at(design, (*path, "large"), made)


def _usual_point(share: float, travel: float) -> TravelPoint:
    bl, kms = (float(bend.at(np.array(share))) for bend in (USUAL_BL, USUAL_KMS))
    return TravelPoint(travel=travel, bl=round(bl, 3), kms=round(kms, 3))


def remove_travel_point(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) without the last point; DesignError when there is none."""
    points = value_at(design, path).large
    if not points:
        raise DesignError("There is no point to be removed.")
    return "Remove point", replace_at(design, (*path, "large"), points[:-1])
