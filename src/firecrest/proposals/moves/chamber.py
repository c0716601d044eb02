"""Chambers of their own for drivers that another channel pushes about."""

from collections.abc import Iterator
from contextlib import suppress

from firecrest.assessment.sharing import shared_air
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.proposals.inverse import with_tuning
from firecrest.proposals.layouts import with_own_chamber
from firecrest.proposals.moves.kinds import Proposal, Scene


def chamber(scene: Scene) -> Iterator[Proposal]:
    """With the tuning kept where that can be."""
    shared, a = shared_air(scene.assessment), scene.assessment.acoustic
    if shared is None or a is None:
        return
    design = scene.design
    names = tuple(dict.fromkeys(design.box.groups[k].driver.name for k in shared.places))
    try:
        for place in shared.places:
            design = with_own_chamber(design, place)
    except FirecrestError:
        return
    tuning = a.model.tuning[0]
    if tuning is not None:
        with suppress(FirecrestError):
            design = with_tuning(design, float(tuning))
    title = note("own chamber", names=names, many=len(shared.places) > 1)
    why = note("shared air", loss=shared.loss, frequency=shared.frequency)
    yield Proposal("chamber", title, design, None, why)
