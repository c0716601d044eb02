"""Points that a case is drawn through, as handles on the views that show them."""

from collections.abc import Iterator

import numpy as np

from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.core.cabinet.outlines import View, projected
from firecrest.design.case import Case
from firecrest.design.edits.outline import SHAPE, points_field, sheet_size
from firecrest.design.edits.paths import Path
from firecrest.present.cabinet.inks import Movable
from firecrest.present.text.units import told

HALF = 0.005
"""m on the drawing that a handle is half as wide as."""

Way = tuple[float, float, float]


def handles(drawing: Drawing, view: View) -> Iterator[Movable]:
    """Handles of a case's outline or profile on a view that it is not foreshortened on."""
    case = drawing.case
    name = points_field(case)
    if name is None:
        return
    across, up, origin = _axes(case)
    ways = [projected(np.array([way]), view)[0] for way in (across, up)]
    if min(float(np.hypot(*way)) for way in ways) < 1 - 1e-6:
        return
    wide, high = sheet_size(case)
    steps = [(float(ways[0][k]), float(ways[1][k])) for k in range(2)]
    for k, point in enumerate(getattr(case.shape, name)):
        if name == "profile":
            along = (point.radius * wide, point.height * high)
        else:
            along = ((point.a - 0.5) * wide, (point.b - 0.5) * high)
        spot = np.array(origin) + along[0] * np.array(across) + along[1] * np.array(up)
        x, y = (float(c) for c in projected(spot[None], view)[0])
        path: Path = (*SHAPE, name, k)
        said = ", ".join(told(c, "length", "mm", 0) for c in along)
        word = "Profile point" if name == "profile" else "Corner"
        yield Movable(
            path, f"{word} {k + 1}", f"{word} {k + 1}: {said}", (x - HALF, y - HALF),
            (x + HALF, y + HALF), steps[0], steps[1], handle=True,
        )  # fmt: skip


def _axes(case: Case) -> tuple[Way, Way, Way]:
    """Directions across and up of an outline, and the point in the case they are counted from."""
    shape = case.shape
    if shape.kind == "vase":
        return (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, -case.height / 2, -case.length / 2)
    if shape.kind == "prism" and shape.axis == "x":
        return (0.0, 0.0, 1.0), (0.0, 1.0, 0.0), (0.0, 0.0, -case.depth / 2)
    if shape.kind == "prism":
        return (1.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, 0.0, -case.depth / 2)
    return (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 0.0)
