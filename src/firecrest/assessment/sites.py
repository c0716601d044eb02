"""What a box does beside its channels: a pascal at the mouth of a port, a volt inside a coil.

A loss that goes with level is such a drive against its own flow, so every level is a sum of
answers that are worked out once.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from firecrest.assessment.sound import Scene, whole_flow
from firecrest.core.acoustics.radiation import heard
from firecrest.core.arrays import Complex, along, summed
from firecrest.core.limits.draw import Output
from firecrest.core.limits.elements import Transfers


def answers_of(scene: Scene, places: Sequence[int], still: Transfers) -> Transfers:
    """What the drives at ``places`` of the scene's solution do, like ``still`` of the channels.

    Arrays are (n, ..., F). No output feels them as a voltage, no block of the voice at all.
    """
    solution = scene.solution.of(np.array(places))
    omega = 2j * np.pi * solution.frequency
    drives = tuple(scene.channels[place] for place in places)
    flow = whole_flow(replace(scene, solution=solution, drives=drives))
    per_flow = heard(np.ones(len(solution.frequency)), solution.frequency, scene.around, scene.air)
    return Transfers(
        still.frequency,
        along(flow, per_flow),
        tuple(
            Output(np.zeros(()), current, o.count)
            for current, o in zip(solution.output_current, still.outputs, strict=True)
        ),
        (),
        solution.current,
        tuple(v / omega for v in solution.velocity),
        tuple(
            along(q, element.per_flow(omega))
            for element, q in zip(scene.model.network.openings, solution.opening_flow, strict=True)
        ),
    )


def combined(still: Transfers, pushes: Sequence[Complex], answers: Transfers) -> Transfers:
    """All that ``still`` does together with the drives ``pushes``."""

    def _each(name: str) -> tuple[Complex, ...]:
        rows = zip(getattr(still, name), getattr(answers, name), strict=True)
        return tuple(added(value, pushes, parts) for value, parts in rows)

    outputs = tuple(
        replace(o, current=added(o.current, pushes, part.current))
        for o, part in zip(still.outputs, answers.outputs, strict=True)
    )
    return replace(
        still,
        pressure=added(still.pressure, pushes, answers.pressure),
        outputs=outputs,
        coil_current=_each("coil_current"),
        excursion=_each("excursion"),
        openings=_each("openings"),
    )


def added(value: Complex, pushes: Sequence[Complex], parts: Complex) -> Complex:
    """A quantity with what each drive adds; ``parts`` (n, ..., F)."""
    return summed([value, *(push * part for push, part in zip(pushes, parts, strict=True))])
