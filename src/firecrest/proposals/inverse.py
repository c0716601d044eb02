"""Edits that solve a stored dimension for a computed figure: air volume and tuning.

Air of the first chamber is reached through the depth of the case, that of another through its
share; tuning through the radiators' added mass or the ports' length. What cannot be reached is
refused with the range that can.
"""

from collections.abc import Sequence

import numpy as np

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet.rollup import dividers_of, enclosed_in, open_chambers
from firecrest.assessment.columns import put
from firecrest.assessment.lower.whole import Lowered, lower
from firecrest.assessment.memo import AFRESH, Memo
from firecrest.assessment.openings import kind_of_opening
from firecrest.assessment.sounding import model_in
from firecrest.core.arrays import Real
from firecrest.core.errors import MissingFigureError, NoAirError, RangeError
from firecrest.core.units import shown
from firecrest.design.box import OUTSIDE, Opening
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, facts_at, rebuilt, replace_at
from firecrest.proposals.free import free_path, met_by, rolled_with

INNER: Path = ("box", "case", "inner")
SCAN = 60
FINER = 6
"""Times that a step of the scan is divided into as many again."""


def tuning_of(design: Design, chamber: int = 0) -> float | None:
    """Tuning of a chamber in Hz; None when it is closed.

    MissingFigureError when a figure of a part is not known, NoAirError when no air is left.
    """
    model = model_in(solvable(design).inputs, Memo(AFRESH))
    if model.full[chamber]:
        raise NoAirError(design.box.chambers[chamber].name)
    tuning = model.tuning[chamber]
    return None if tuning is None else float(tuning)


def with_air_volume(design: Design, volume: float, place: int = 0) -> Design:
    """A chamber's net air made ``volume`` m3: the first one's by the depth of the case, that of
    another by its share of the interior, which the first one gives or takes, that of an inner box
    by its own depth.

    Raises RangeError with the reachable range. A measured volume is replaced as it stands.
    """
    chamber = design.box.chambers[place]
    if chamber.stated_volume is not None:
        return replace_at(design, ("box", "chambers", place, "stated_volume"), volume)
    case, chambers = design.box.case, design.box.chambers
    dividers, enclosed = dividers_of(case, chambers), enclosed_in(case, chambers)
    partner = next(k for k, c in enumerate(chambers) if c.id not in enclosed)
    if chamber.id in enclosed:
        path: Path = (*INNER, case.inner.index(enclosed[chamber.id]), "depth")
    elif place != partner and not dividers:
        return _by_share(design, volume, place, partner)
    else:
        path = _room_path(design, place) if dividers else free_path(design)
    found, met = met_by(design, {}, path, np.array([volume]), place)
    made = replace_at(design, path, float(found[0])) if met[0] and volume > 0 else None
    if made is None:
        low, high = _reachable(design, path, place)
        what = facts_at(design, path).label.lower()
        raise RangeError(f"By its {what} this case can hold {low} to {high} of air.")
    return made


def _room_path(design: Design, place: int) -> Path:
    """Where a divider beside a chamber stands: the one above it, or below the uppermost."""
    chambers, owners = design.box.chambers, cabinet_of(design).slabs
    dividers = dividers_of(design.box.case, chambers)
    slab = min(owners.index(chambers[place].id), len(dividers) - 1)
    at = sorted(float(d.at) for d in dividers)[slab]
    braces = design.box.case.braces
    which = next(k for k, b in enumerate(braces) if b.divider and b.at == at)
    return ("box", "case", "braces", which, "at")


def _reachable(design: Design, path: Path, place: int) -> tuple[str, str]:
    """Least and most air of a chamber as the figure at ``path`` goes through its range."""
    facts = facts_at(design, path)
    at = np.linspace(facts.low, facts.high, SCAN + 1)
    rolled = rolled_with(design, {path: at})
    air = np.broadcast_to(np.ravel(rolled.air[place]), at.shape)
    whole = [np.broadcast_to(np.ravel(side), at.shape) for side in rolled.inner]
    possible = air[(air > 0) & np.all([side > 0 for side in whole], axis=0)]
    if not len(possible):
        return shown(0.0, "volume", "L", 2), shown(0.0, "volume", "L", 2)
    low = 0.0 if np.any(air <= 0) else float(possible.min())
    return shown(low, "volume", "L", 2), shown(float(possible.max()), "volume", "L", 2)


def _by_share(design: Design, volume: float, place: int, partner: int) -> Design:
    """The share of a chamber for ``volume`` m3 of net air; its partner has the rest."""
    chambers = design.box.chambers
    rolled = cabinet_of(design)
    whole = sum(c.share for c in chambers)
    parted = sum(c.share for c in open_chambers(design.box.case, chambers))
    inside = float(rolled.inside) * whole / parted
    both = chambers[place].share + chambers[partner].share
    share = (volume + rolled.taken[place]) / inside
    most = both * inside - rolled.taken[place] - rolled.taken[partner]
    if not 0 < volume < most:
        low, high = (shown(max(v, 0.0), "volume", "L", 2) for v in (0.0, most))
        raise RangeError(f"By its share this chamber can hold {low} to {high} of air.")
    made = list(chambers)
    made[place] = rebuilt(chambers[place], share=share)
    made[partner] = rebuilt(chambers[partner], share=both - share)
    return replace_at(design, ("box", "chambers"), tuple(made))


def tuner_path(design: Design, chamber: int = 0) -> Path | None:
    """The stored figure that tunes a chamber: added mass or port length; None when closed.

    Of the openings that lead outside where there are any; the first in the list.
    """
    id = design.box.chambers[chamber].id
    found: list[tuple[bool, Path]] = []
    for k, item in enumerate(design.box.openings):
        if id in (item.chamber, item.opens_to):
            figure = kind_of_opening(item).tuner
            found.append((item.opens_to != OUTSIDE, ("box", "openings", k, figure)))
    return min(found, key=lambda opening: opening[0], default=(False, None))[1]


def twins(design: Design, path: Path) -> list[Path]:
    """The tuner at ``path`` and those of openings like its own, however many, that move along."""
    openings, figure = design.box.openings, str(path[-1])
    first = openings[int(path[2])]

    def _like(opening: Opening) -> bool:
        if type(opening) is not type(first):
            return False
        same = {"id": first.id, "place": first.place, "count": first.count}
        return rebuilt(opening, **same) == first

    return [("box", "openings", k, figure) for k, o in enumerate(openings) if _like(o)]


def with_tuning(
    design: Design, frequency: float, chamber: int = 0, by: Path | None = None
) -> Design:
    """A chamber tuned to ``frequency`` Hz by added mass or port length; equal openings alike.

    ``by`` tunes with that figure alone.

    Raises RangeError with the reachable range, or when a closed box has no tuning.
    """
    path = by or tuner_path(design, chamber)
    if path is None:
        raise RangeError("A closed box has no tuning. Fit a port or radiators first.")
    facts, lowered = facts_at(design, path), solvable(design)
    moved = [by] if by else twins(design, path)
    ramp = np.linspace(0.0, 1.0, SCAN + 1)
    values = facts.low + (facts.high - facts.low) * ramp**3
    tuned = _tunings(lowered, moved, values, chamber)
    rises = np.nonzero(~(np.diff(tuned) < 0))[0]  # beyond, a long port eats the air it works on
    last = int(rises[0]) if len(rises) else SCAN
    top, bottom = tuned[0], tuned[last]
    if not bottom <= frequency <= top:
        raise RangeError(
            f"This box can be tuned from {bottom:.1f} to {top:.1f} Hz by {facts.label.lower()}."
        )
    values, tuned = values[: last + 1], tuned[: last + 1]
    for _ in range(FINER):
        place = min(max(int(np.searchsorted(-tuned, -frequency)), 1), len(values) - 1)
        values = np.linspace(values[place - 1], values[place], SCAN + 1)
        tuned = _tunings(lowered, moved, values, chamber)
    place = int(np.argmin(np.abs(tuned - frequency)))
    for each in moved:
        design = replace_at(design, each, float(values[place]))
    return design


def solvable(design: Design) -> Lowered:
    """Numbers of a design that can be solved; MissingFigureError names what keeps it from that."""
    lowered = lower(design, Memo(AFRESH))
    if lowered.blocked:
        raise MissingFigureError(**dict(lowered.blocked.figures))
    return lowered


def _tunings(lowered: Lowered, paths: Sequence[Path], values: Real, chamber: int) -> Real:
    """Tunings in Hz of a chamber with ``values`` at ``paths``; NaN where no air is left."""
    inputs = lowered.inputs
    for path in paths:
        inputs = put(inputs, path, values[:, None])
    model = model_in(inputs, Memo(AFRESH))
    tuning = model.tuning[chamber]
    assert tuning is not None
    found = np.broadcast_to(tuning, (len(values), 1))
    return np.where(model.full[chamber], np.nan, found)[:, 0]
