"""Ports: folded so that they fit, flared, or wider, so that their air is slow enough."""

from collections.abc import Iterator

from firecrest.assessment.assess import assess
from firecrest.core.acoustics.openings.port import SPEED_LIMITS
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.box import Port, placed, port_at
from firecrest.design.edits.paths import replace_at
from firecrest.proposals.moves.kinds import Proposal, Scene
from firecrest.proposals.ports import candidates, fit_in_case, with_port, worst_speed

WIDER = 4
"""Wider pipes that are looked at."""


def port(scene: Scene) -> Iterator[Proposal]:
    """Each port by itself."""
    for place, _ in placed(scene.design.box.openings, Port):
        yield from _fold(scene, place)
        yield from _flared(scene, place)
        yield from _wider(scene, place)


def _fold(scene: Scene, place: int) -> Iterator[Proposal]:
    """As many bends as a port needs to fit."""
    item, fit = port_at(scene.design.box, place), fit_in_case(scene.design, place)
    if item.length > fit.longest and fit.bends is not None:
        path = ("box", "openings", place, "bends")
        design = replace_at(scene.design, path, fit.bends)
        why = note("too long by", over=item.length - fit.longest)
        yield Proposal("port", note("fold", bends=fit.bends), design, path, why)


def _flared(scene: Scene, place: int) -> Iterator[Proposal]:
    """Both ends flared, where that alone makes the port quiet at the promise."""
    item, fast = port_at(scene.design.box, place), worst_speed(scene.assessment, place)
    if fast is None or item.speed_limit is not None or item.edges == "both_flared":
        return
    quiet = fast.limit * SPEED_LIMITS["both_flared"] / SPEED_LIMITS[item.edges]
    if fast.limit < fast.speed <= quiet:
        path = ("box", "openings", place, "edges")
        why = note("air moves", speed=fast.speed, quiet=quiet)
        design = replace_at(scene.design, path, "both_flared")
        yield Proposal("port", note("flare"), design, path, why)


def _wider(scene: Scene, place: int) -> Iterator[Proposal]:
    """The next pipe or slot that is quiet at the promise, fits, and costs no loudness."""
    design, fast = scene.design, worst_speed(scene.assessment, place)
    if fast is None or fast.speed <= fast.limit:
        return
    item = port_at(design.box, place)
    area = item.diameter * item.height
    wider = [c for c in candidates(design, place) if c.count == item.count]
    for candidate in [c for c in wider if c.diameter * c.height > area][:WIDER]:
        try:
            made = with_port(design, place, candidate)
        except FirecrestError:
            return
        if fit_in_case(made, place).bends is None:
            return
        found = worst_speed(assess(made, scene.assessment.memo), place)
        if found is not None and found.speed <= found.limit:
            new = port_at(made.box, place)
            size = new.diameter if new.shape == "round" else new.height
            why = note("then slower", speed=fast.speed, then=found.speed, length=new.length)
            yield Proposal("port", note("widen", size=size), made, ("box", "openings", place), why)
            return
