"""What clears a tight spot: a board, pack or port moved where it has room, feet made higher, a
panel that rings in the bass braced.
"""

from collections.abc import Iterator
from math import ceil, pi

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import Drawing, drawing_of
from firecrest.assessment.cabinet.spot import Spot
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.core.errors import DesignError
from firecrest.core.note import Note, note
from firecrest.design.box import Port
from firecrest.design.case import Brace, Feet
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import FITTINGS
from firecrest.design.edits.paths import Path, rebuilt, replace_at, set_number, value_at
from firecrest.design.ids import fresh
from firecrest.proposals.moves.kinds import Proposal, Scene, attempt
from firecrest.proposals.siting import faced, resited

CASE: Path = ("box", "case")
OFF_MIDDLE = 0.4
"""Where a brace parts a panel, as a share of its longer side: not the middle. An estimate."""
WINDOW = 0.55


def clear(scene: Scene) -> Iterator[Proposal]:
    """One move for each part that is too near ("room" where it cannot be), one for feet, braces."""
    if not scene.assessment.cabinet.placed:
        return
    drawing = drawing_of(scene.assessment)
    tight = [s for s in spots_in(scene.assessment) if s.tight]
    for path, impossible in _in_the_way(scene.design, tight).items():
        title = note("clear", part=_name(drawing, path))
        kind = "room" if impossible else "clear"
        yield from attempt(kind, title, (*path, "u"), _moved, scene.design, _own(path))
    yield from _turned(scene, drawing, tight)
    yield from _faced(scene, tight)
    yield from _figures(scene, tight)
    yield from _plated(scene, tight)
    yield from _braced(scene, drawing)


def _turned(scene: Scene, drawing: Drawing, tight: list[Spot]) -> Iterator[Proposal]:
    """A board turned by a quarter, so that its fins stand upright."""
    for path in dict.fromkeys(s.paths[0] for s in tight if s.kind == "fins lie"):
        rot = (*path, "rot")
        turned = value_at(scene.design, path).rot + pi / 2
        title = note("fins up", part=_name(drawing, path))
        yield from attempt("clear", title, rot, _better, scene.design, rot, round(turned, 6))


def _better(design: Design, path: Path, value: float) -> Design:
    """A figure changed; DesignError where that leaves as much that is tight."""
    made = set_number(design, path, value)
    if _impossible(made) >= _impossible(design):
        raise DesignError("That is no better.")
    return made


def _faced(scene: Scene, tight: list[Spot]) -> Iterator[Proposal]:
    """Drivers and radiators set anew by rule, where one of them cannot be where it is."""
    stuck = [
        path
        for spot in tight
        for path in spot.paths
        if spot.impossible and path[0] == "box" and _sounds(scene.design, path)
    ]
    if stuck:
        title = note("set anew")
        yield from attempt("room", title, (*stuck[0], "u"), _set_anew, scene.design)


def _sounds(design: Design, path: Path) -> bool:
    """Whether a place is of a driver or a radiator."""
    if path[1] == "groups":
        return True
    return path[1] == "openings" and not isinstance(design.box.openings[int(path[2])], Port)


def _set_anew(design: Design) -> Design:
    """All drivers and radiators placed by rule; DesignError where that is no better."""
    made = design
    for kind in ("groups", "openings"):
        for k, item in enumerate(getattr(design.box, kind)):
            if item.mounts and not isinstance(item, Port):
                made = replace_at(made, ("box", kind, k, "mounts"), ())
    made = faced(made)
    if _impossible(made) >= _impossible(design):
        raise DesignError("They have no better places.")
    return made


def _figures(scene: Scene, tight: list[Spot]) -> Iterator[Proposal]:
    """Feet, grille, vents and leads as high, clear or long as the tightest of each asks for."""
    grille = scene.design.box.case.grille
    worst: dict[str, Spot] = {}
    for spot in tight:
        before = worst.get(spot.kind)
        if before is None or spot.wanted - spot.gap > before.wanted - before.gap:
            worst[spot.kind] = spot
    if "ground" in worst:
        height = _up(worst["ground"].wanted)
        path: Path = (*CASE, "feet", "height")
        title = note("higher feet", height=height)
        yield from attempt("clear", title, path, _footed, scene.design, height)
    if "grille" in worst and grille is not None:
        spot = worst["grille"]
        clear_by = _up(grille.gap + spot.wanted - spot.gap)
        yield from _set(scene, note("farther grille", value=clear_by), (*CASE, "grille", "gap"))
    if "vents" in worst:
        spot = worst["vents"]
        title = note("higher vents", value=_up(spot.wanted))
        yield from _set(scene, title, (*spot.paths[0][:-1], "vent"))
    if "lead" in worst:
        spot = worst["lead"]
        yield from _set(scene, note("longer lead", value=spot.wanted), spot.paths[0])


def _up(value: float) -> float:
    """The next whole mm."""
    return ceil(1e3 * value - 1e-6) / 1e3


def _set(scene: Scene, title: Note, path: Path) -> Iterator[Proposal]:
    value = float(dict(title.figures)["value"])
    yield from attempt("clear", title, path, set_number, scene.design, path, value)


def _plated(scene: Scene, tight: list[Spot]) -> Iterator[Proposal]:
    """A control plate under a knob whose panel is too thick for it."""
    knobs = [s for s in tight if s.kind == "knob"]
    if not knobs:
        return
    fittings = scene.design.box.case.fittings
    own = fittings[int(knobs[0].paths[0][3])]
    if own.bushing - own.nut < FITTINGS["plate"].depth:
        return
    ids = [f.id for f in fittings]
    plate = rebuilt(FITTINGS["plate"], id=fresh(ids, "plate"), mount=own.mount, chamber=own.chamber)
    path: Path = (*CASE, "fittings")
    title = note("plate", knob=own.name)
    yield from attempt(
        "clear", title, (*path, len(fittings), "depth"), replace_at, scene.design, path,
        (*fittings, plate),
    )  # fmt: skip


def _in_the_way(design: Design, tight: list[Spot]) -> dict[Path, int]:
    """Things that can move with how many spots of theirs cannot be; most of them first."""
    found: dict[Path, tuple[Path, int]] = {}
    for spot in tight:
        for path in spot.paths:
            if _moves(design, path):
                first, count = found.get(_own(path), (path, 0))
                found[_own(path)] = first, count + spot.impossible
    return dict(sorted(found.values(), key=lambda told: -told[1]))


def _own(path: Path) -> Path:
    """Where what moves stands: the mounts of equal ports move together."""
    return path[:-1] if path[-2] == "mounts" else path


def _moves(design: Design, path: Path) -> bool:
    """Whether a thing can go elsewhere unheard: what is inside, and ports."""
    if path[:2] == ("box", "openings"):
        return isinstance(design.box.openings[int(path[2])], Port)
    return path[0] == "power" and path[-1] == "mount"


def _name(drawing: Drawing, path: Path) -> str:
    return next(s.part.name for s in drawing.sited if s.path == path)


def _moved(design: Design, path: Path) -> Design:
    """The thing where it has most room; DesignError where that is no better."""
    made = resited(design, path)
    before, after = (_impossible(d) for d in (design, made))
    if made == design or after >= before:
        raise DesignError("It has no better place.")
    return made


def _impossible(design: Design) -> tuple[int, int]:
    """How many spots cannot be, and how many are tight."""
    spots = spots_in(assess(design))
    return sum(s.impossible for s in spots), sum(s.tight for s in spots)


def _footed(design: Design, height: float) -> Design:
    feet = design.box.case.feet or Feet()
    return replace_at(design, (*CASE, "feet"), rebuilt(feet, height=height))


def _braced(scene: Scene, drawing: Drawing) -> Iterator[Proposal]:
    """A windowed brace across the longest way, where a panel rings in the band it plays."""
    ringing = [n for n, r in drawing.resonances.items() if r.flag == "in the band"]
    if not ringing or scene.design.box.case.shape.kind != "box":
        return
    low_corner, high_corner = drawing.shell.low, drawing.shell.high
    inner = [float(h) - float(lo) for lo, h in zip(low_corner, high_corner, strict=True)]
    axis = "x" if inner[0] >= inner[1] else "y"
    low, size = float(drawing.shell.low["xyz".index(axis)]), inner["xyz".index(axis)]
    a, b = (inner[2], inner[1]) if axis == "x" else (inner[0], inner[2])
    brace = Brace(
        axis="x" if axis == "x" else "y",
        at=round(low + OFF_MIDDLE * size, 4),
        window_a=round(WINDOW * a, 3),
        window_b=round(WINDOW * b, 3),
    )
    braces = (*scene.design.box.case.braces, brace)
    title = note("brace", panel=ringing[0])
    yield from attempt(
        "clear", title, (*CASE, "braces", len(braces) - 1, "at"), replace_at, scene.design,
        (*CASE, "braces"), braces,
    )  # fmt: skip
