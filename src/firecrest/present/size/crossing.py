"""What stands at a point of a map: a cut through it, where it is, what it takes, good spots."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.design.box import Port, RadiatorSet
from firecrest.design.design import Design
from firecrest.present.size.mapview import axis_text, share_of
from firecrest.present.text.units import told
from firecrest.proposals.mapping import Map, value_of
from firecrest.proposals.spots import Spot

SPOT_WORDS = {
    "best": "Best for the worst promise",
    "loudest": "Loudest inside the size",
    "lightest": "Lightest as loud as now",
}


@dataclass(frozen=True)
class Cut:
    """A map along one of its columns: (share up, value, letter code) from the bottom to the top."""

    points: tuple[tuple[float, float, str], ...]
    low: float
    high: float
    target: float
    unit: str


def cut_at(found: Map, assessment: Assessment, x: float) -> Cut:
    """Loudness along the figure that runs up, at ``x``."""
    n = int(np.argmin(np.abs(found.x - x)))
    loud = found.values["loudness"][:, n]
    shares = [share_of(found.up, float(y)) for y in found.y]
    target = assessment.design.brief.loudness.level
    known = loud[np.isfinite(loud)]
    low = min([float(known.min()), target]) - 1 if len(known) else target - 6
    high = max([float(known.max()), target]) + 1 if len(known) else target + 2
    low = max(low, high - 14)
    points = tuple(
        (shares[m], float(loud[m]), chr(int(found.letters[m, n])))
        for m in range(len(loud))
        if np.isfinite(loud[m])
    )
    return Cut(points, low, high, target, "dB")


def where(found: Map, x: float, y: float) -> str:
    """A point in words."""
    return f"{axis_text(found.across.key, x)}, {axis_text(found.up.key, y)}"


def present_at(found: Map, design: Design) -> tuple[float, float]:
    """Where a design stands on the axes of a map, in SI."""
    return value_of(design, found.across.key), value_of(design, found.up.key)


def spot_text(found: Map, spot: Spot) -> tuple[str, str]:
    """A good spot's title and place."""
    return SPOT_WORDS[spot.key], where(found, spot.x, spot.y)


def takes(now: Design, then: Design) -> str:
    """What has to be changed to get from one design to another, in few words."""
    said = []
    case, other = now.box.case, then.box.case
    for side in ("length", "height", "depth"):
        step = getattr(other, side) - getattr(case, side)
        if abs(step) >= 5e-4:
            more = "more" if step > 0 else "less"
            said.append(f"{told(abs(step), 'length', 'mm', 0)} {more} {side}")
    for a, b in zip(now.box.openings, then.box.openings, strict=False):
        if isinstance(a, RadiatorSet) and isinstance(b, RadiatorSet):
            step = b.added_mass - a.added_mass
            if abs(step) >= 5e-5:
                more = "more" if step > 0 else "less"
                said.append(f"{told(abs(step), 'mass', 'g', 0)} {more} on each radiator")
        elif isinstance(a, Port) and isinstance(b, Port) and abs(b.length - a.length) >= 5e-4:
            said.append(f"port {told(b.length, 'length', 'mm', 0)} long")
    return ", ".join(said)
