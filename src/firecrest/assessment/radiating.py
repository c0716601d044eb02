"""What radiates of a solved box: each source with what its place does, and all of it together."""

from dataclasses import replace

from firecrest.assessment.network import BoxModel
from firecrest.core.acoustics.radiation import from_place
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, along, summed_along
from firecrest.core.circuit.solution import Solution, SoundSource, sources


def placed_sources(
    model: BoxModel, solution: Solution, distance: Number, air: Air
) -> list[SoundSource]:
    """Everything that radiates, each with what its place does to its share of the sum.

    The listener is straight before the middle of the front, at ``distance`` m. Flows are per volt
    of each channel, (channels, ..., F).
    """
    found = sources(model.network, solution.velocity, solution.opening_flow)
    if model.places is None:
        return found
    f = solution.frequency
    return [
        replace(
            s,
            flow=along(
                s.flow, from_place(f, getattr(model.places, s.kind)[s.index], distance, air)
            ),
        )
        for s in found
    ]


def radiated_flow(
    model: BoxModel, solution: Solution, distance: Number, air: Air, *, leaks: bool | None = None
) -> Complex:
    """Flow that is heard there, per volt of each channel, (channels, ..., F).

    Leaks count unless no cone faces outside, or as ``leaks`` says.
    """
    flow = solution.radiated
    if model.places is not None:
        placed = placed_sources(model, solution, distance, air)
        flow = summed_along([flow * 0, *(s.flow for s in placed)])
    counted = model.network.leaks_count if leaks is None else leaks
    return summed_along([flow, solution.leaked]) if counted else flow
