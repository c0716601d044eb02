"""What a box does beside its channels: a pascal at the mouth of a port, a volt inside a coil.

A loss that goes with level is such a drive against its own flow, so every level is a sum of
answers that are worked out once.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from firecrest.assessment.acoustic import transfers_from
from firecrest.assessment.sound import Scene
from firecrest.core.arrays import Complex, mixed, summed
from firecrest.core.limits.draw import Output
from firecrest.core.limits.elements import Transfers


def answer_of(scene: Scene, place: int, still: Transfers) -> Transfers:
    """What the drive at ``place`` of the scene's solution does, like ``still`` of the channels.

    No output feels it as a voltage.
    """
    own = replace(scene, solution=scene.solution.of(slice(place, place + 1)))
    one = np.ones(len(scene.frequency), dtype=np.complex128)
    alone = transfers_from(own, [one[None]], (1,))
    outputs = tuple(
        Output(0.0 * one, mixed(current, [one]), o.count)
        for current, o in zip(own.solution.output_current, still.outputs, strict=True)
    )
    return replace(alone, outputs=outputs, blocks=())


def combined(
    still: Transfers, pushes: Sequence[Complex], answers: Sequence[Transfers]
) -> Transfers:
    """All that ``still`` does together with the drives ``pushes``."""

    def _each(name: str) -> tuple[Complex, ...]:
        own = (getattr(answer, name) for answer in answers)
        rows = zip(getattr(still, name), *own, strict=True)
        return tuple(added(value, pushes, parts) for value, *parts in rows)

    outputs = tuple(
        replace(o, current=added(o.current, pushes, [part.current for part in parts]))
        for o, *parts in zip(still.outputs, *(a.outputs for a in answers), strict=True)
    )
    return replace(
        still,
        pressure=added(still.pressure, pushes, [answer.pressure for answer in answers]),
        outputs=outputs,
        coil_current=_each("coil_current"),
        excursion=_each("excursion"),
        openings=_each("openings"),
    )


def added(value: Complex, pushes: Sequence[Complex], parts: Sequence[Complex]) -> Complex:
    """A quantity with what each drive adds."""
    return summed([value, *(push * part for push, part in zip(pushes, parts, strict=True))])
