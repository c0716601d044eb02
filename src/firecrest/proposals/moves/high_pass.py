"""A protection high-pass, where a held low note asks for one and one helps."""

from collections.abc import Iterator

from firecrest.assessment.protection import protected
from firecrest.core.note import note
from firecrest.proposals.moves.kinds import Proposal, Scene


def high_pass(scene: Scene) -> Iterator[Proposal]:
    """The lowest second-order corner with which the check passes."""
    a, found = scene.assessment.acoustic, protected(scene.assessment)
    if found is None or a is None or a.low_note is None:
        return
    corner, design = found
    low = a.low_note
    why = note("low note", frequency=low.frequency, over=-low.margin)
    yield Proposal("high-pass", note("high-pass move", corner=corner), design, None, why)
