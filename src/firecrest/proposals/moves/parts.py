"""Parts of the shelf in place of those there: the best three of each kind, and their next sizes."""

from collections.abc import Iterator, Sequence
from operator import attrgetter
from typing import Any

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.vary import assess_many
from firecrest.assessment.worth import worst_must
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.amplifiers import Amplifier
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.sources import Cell, Pack, WallSupply
from firecrest.proposals.fitting import fit_of
from firecrest.proposals.moves.kinds import Proposal, Scene
from firecrest.proposals.placing import path_of, put

GRID = EDIT_GRID[::3]
BEST = 3


def drivers(scene: Scene) -> Iterator[Proposal]:
    """The best three for each group of drivers."""
    for place in range(len(scene.design.box.groups)):
        own = scene.design.box.groups[place].driver
        parts = [p for p in scene.shelf.get("driver", ()) if _alike_kind(p, own)]
        yield from _best(scene, "driver", parts, place)


def amplifiers(scene: Scene) -> Iterator[Proposal]:
    """The best three for the first board, fed as the present one is."""
    _, board = scene.design.power.amplifiers[0]
    parts = [p for p in scene.shelf.get("amplifier", ()) if p.own_mains == board.part.own_mains]
    yield from _best(scene, "amplifier", parts, 0)


def cell_kinds(scene: Scene) -> Iterator[Proposal]:
    """The best three cells for a pack."""
    if isinstance(scene.design.power.source, Pack):
        yield from _best(scene, "cell", scene.shelf.get("cell", ()), 0)


def radiators(scene: Scene) -> Iterator[Proposal]:
    """The next radiator by travel, and the next by area."""
    for place, (_, item) in enumerate(placed(scene.design.box.openings, RadiatorSet)):
        own, parts = item.radiator, scene.shelf.get("radiator", ())
        for figure in ("xmax", "sd"):
            now = getattr(own, figure) or 0.0
            larger = [p for p in parts if (getattr(p, figure) or 0.0) > now * 1.01]
            similar = [p for p in larger if figure == "sd" or (p.sd or 0.0) > 0.8 * (own.sd or 0.0)]
            for part in sorted(similar, key=attrgetter(figure))[:1]:
                yield from _with(scene, "radiator", part, place)


def supplies(scene: Scene) -> Iterator[Proposal]:
    """The next supply by voltage, and the next by current."""
    own = scene.design.power.source
    if not isinstance(own, WallSupply):
        return
    parts = [p for p in scene.shelf.get("supply", ()) if isinstance(p, WallSupply)]
    for figure in ("voltage", "continuous_current"):
        now = getattr(own, figure)
        larger = [p for p in parts if getattr(p, figure) > now * 1.01]
        for part in sorted(larger, key=attrgetter(figure))[:1]:
            yield from _with(scene, "supply", part, 0)


def _alike_kind(part: Any, own: Any) -> bool:
    """A tweeter does not stand in for a woofer."""
    return ("tweeter" in part.kind) == ("tweeter" in own.kind)


def _best(scene: Scene, kind: str, parts: Sequence[Any], place: int) -> Iterator[Proposal]:
    """The best ``BEST`` that fit, by the worst promise, then by what they cost."""
    made: list[tuple[Any, Design]] = []
    for part in parts:
        design = _fitted(scene, part, place)
        if design is not None:
            made.append((part, design))
    figures = assess_many([d for _, d in made], GRID, scene.assessment.memo)
    order = sorted(
        (k for k in range(len(made)) if figures[k].promises),
        key=lambda k: (-worst_must(figures[k].promises), figures[k].price),
    )
    for k in order[:BEST]:
        part, design = made[k]
        yield Proposal(kind, note("part", part=part.name), design, path_of(design, part, place))


def _with(scene: Scene, kind: str, part: Any, place: int) -> Iterator[Proposal]:
    design = _fitted(scene, part, place)
    if design is not None:
        yield Proposal(kind, note("part", part=part.name), design, path_of(design, part, place))


def _fitted(scene: Scene, part: Any, place: int) -> Design | None:
    """The design with a part in it; None where it is the present one, or cannot be put in."""
    now = scene.design
    try:
        design = put(now, part, place)
        if _name(now, part, place) == part.name:
            return None
        fit = fit_of(now, design, part, place, scene.assessment.memo)
    except FirecrestError:
        return None
    return None if fit.fits is False else design


def _name(design: Design, part: Any, place: int) -> str:
    """Name of the part that is there now."""
    if isinstance(part, Cell):
        source = design.power.source
        return source.cell.name if isinstance(source, Pack) else ""
    if isinstance(part, Amplifier):
        return design.power.amplifiers[place][1].part.name
    if isinstance(part, WallSupply):
        return str(getattr(design.power.source, "name", ""))
    found: Any = design
    for step in path_of(design, part, place):
        found = found[step] if isinstance(step, int) else getattr(found, step)
    return str(found.name)
