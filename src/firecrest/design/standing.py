"""Braces and dividers of a case as plates of the core; either face of a divider is a panel, too."""

from typing import Any

from firecrest.core.arrays import Number
from firecrest.core.cabinet.braces import WAYS, Brace, face_frames
from firecrest.core.cabinet.cutouts import Rectangle
from firecrest.design.case import Brace as DesignBrace
from firecrest.design.case import Case
from firecrest.design.shapes import frames_of, inner_corners, panel_names, shape_of

DIVIDER, FAR = "divider-", "-far"
"""How the faces of dividers are called: ``divider-1`` looks right, up or forwards, and
``divider-1-far`` the other way."""


def braces_of(case: Case) -> tuple[Brace, ...]:
    """Braces and dividers as plates of the core."""
    made = []
    for brace in case.braces:
        window = None
        if not brace.divider and brace.window_a > 0 and brace.window_b > 0:
            window = Rectangle(brace.window_a, brace.window_b, brace.window_radius)
        thick = case.wall if brace.thickness is None else brace.thickness
        made.append(
            Brace(brace.name, brace.axis, brace.at, thick, window, brace.divider, brace.groove)
            if brace.divider or brace.form == "plate"
            else _part_brace(brace, thick)
        )
    return tuple(made)


def _part_brace(brace: DesignBrace, thick: Number) -> Brace:
    """A shelf or a dowel."""
    if brace.form == "dowel":
        spot = brace.spot_a, brace.spot_b
        return Brace(brace.name, brace.axis, 0.0, thick, spot=spot)
    return Brace(
        brace.name,
        brace.axis,
        brace.at,
        thick,
        groove=brace.groove,
        against=against(brace),
        reach=brace.reach,
    )


def against(brace: DesignBrace) -> str:
    """The wall that a shelf stands on: one beside it, whichever way it was turned since."""
    if WAYS[brace.against] != brace.axis:
        return brace.against
    return "bottom" if brace.axis == "z" else "back"


def is_divider(panel: str) -> bool:
    """Whether a panel is a face of a divider."""
    return panel.startswith(DIVIDER)


def divider_faces(case: Case) -> tuple[str, ...]:
    """Names of the faces of all dividers."""
    count = sum(b.divider for b in case.braces)
    return tuple(f"{DIVIDER}{k + 1}{end}" for k in range(count) for end in ("", FAR))


def plate_of(panel: str) -> int:
    """The number of the divider, from 0, that a face belongs to."""
    return int(panel.removeprefix(DIVIDER).removesuffix(FAR)) - 1


def mountable(case: Case) -> tuple[str, ...]:
    """Panels that things can be mounted on: the flat ones, then the faces of dividers."""
    return *panel_names(case), *divider_faces(case)


def panels_of(case: Case) -> dict[str, Any]:
    """Frames of all of these; their figures may be columns."""
    shape = shape_of(case)
    found = frames_of(shape)
    faces = iter(divider_faces(case))
    for brace in braces_of(case):
        if brace.divider:
            for frame in face_frames(brace, *inner_corners(shape)):
                found[next(faces)] = frame
    return found
