"""Ways out of step: levels, delays and polarities that bring them together."""

from collections.abc import Iterator
from contextlib import suppress

from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.lining import line_up as line_up_of
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.edits.voice import lined_up
from firecrest.proposals.moves.kinds import Proposal, Scene

OUT_OF_STEP = -1.5
"""DB of the loss of the sum in a crossover octave from which it is worth telling."""


def line_up(scene: Scene) -> Iterator[Proposal]:
    """Where two ways that meet lose some of their sum."""
    a, design = scene.assessment.acoustic, scene.design
    if a is None or not crossovers(design.voice):
        return
    found = line_up_of(scene.assessment, a)
    worst = min((pair for pair in found.pairs), key=lambda pair: pair.now.loss)
    if worst.now.loss > OUT_OF_STEP or worst.crossover.quadrature:
        return
    with suppress(FirecrestError):
        made = lined_up(design, found.gains, found.delays, found.inverted)
        told = note("line up", loss=-worst.now.loss, frequency=worst.crossover.frequency)
        yield Proposal("line up", told, made)
