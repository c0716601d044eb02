"""What reaches the listener: pressure of each source and of all together, of any voices.

Every curve, sum, share and delay of sound is made here.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from firecrest.assessment.network import BoxModel
from firecrest.core.acoustics.radiation import Surroundings, from_place, group_delay, heard, level
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real, along, mixed, summed_along
from firecrest.core.circuit.solution import Solution, SoundSource, sources
from firecrest.core.circuit.solve import solve
from firecrest.core.voice.chain import Filter, chain_responses
from firecrest.design.voice import Block, Channel, Voice


def filter_of(block: Block) -> Filter:
    """A voice block as plain numbers."""
    return Filter(
        block.kind,
        block.frequency,
        getattr(block, "gain", 0.0),
        getattr(block, "q", 1.0),
        getattr(block, "family", "butterworth"),
        getattr(block, "order", 2),
    )


def voice_rows(channel: Channel, rate: Number, frequency: Real) -> Complex:
    """Response at the input and after each block of one chain, (..., 2 + blocks, F)."""
    blocks = [filter_of(block) for block in channel.blocks]
    return chain_responses(channel.gain, channel.inverted, blocks, frequency, rate)


def voices_at(voice: Voice, rate: Number, frequency: Real) -> list[Complex]:
    """Response of each channel's whole chain."""
    return [voice_rows(channel, rate, frequency)[..., -1, :] for channel in voice.channels]


def flat_voices(count: int, frequency: Real) -> list[Complex]:
    """Voices that change nothing."""
    return [np.ones(len(frequency), dtype=np.complex128)] * count


@dataclass(frozen=True)
class Scene:
    """A solved box where it stands: all that is needed to say what is heard of it."""

    model: BoxModel
    solution: Solution
    around: Surroundings
    air: Air

    @property
    def frequency(self) -> Real:
        """Hz."""
        return self.solution.frequency

    def at(self, frequency: Real) -> "Scene":
        """The same box at other frequencies."""
        return replace(self, solution=solve(self.model.network, frequency))


def placed_sources(scene: Scene) -> list[SoundSource]:
    """Everything that radiates, each with what its place does to its share of the sum.

    Flows are per volt of each channel, (channels, ..., F).
    """
    model, solution = scene.model, scene.solution
    found = sources(model.network, solution.velocity, solution.opening_flow)
    if model.places is None:
        return found
    distance, air = scene.around.distance, scene.air
    return [
        replace(
            s,
            flow=along(
                s.flow,
                from_place(
                    solution.frequency, getattr(model.places, s.kind)[s.index], distance, air
                ),
            ),
        )
        for s in found
    ]


def whole_flow(scene: Scene, *, leaks: bool | None = None) -> Complex:
    """Flow that the listener hears, per volt of each channel, (channels, ..., F).

    Leaks count unless no cone faces outside, or as ``leaks`` says.
    """
    flow = scene.solution.radiated
    if scene.model.places is not None:
        flow = summed_along([flow * 0, *(s.flow for s in placed_sources(scene))])
    counted = scene.model.network.leaks_count if leaks is None else leaks
    return summed_along([flow, scene.solution.leaked]) if counted else flow


def pressure(scene: Scene, flow: Complex, voices: Sequence[Complex]) -> Complex:
    """Pressure (Pa rms) at the listener of a ``flow`` per volt of each channel, (..., F)."""
    return heard(mixed(flow, voices), scene.frequency, scene.around, scene.air)


def whole_pressure(
    scene: Scene, voices: Sequence[Complex], *, leaks: bool | None = None
) -> Complex:
    """Pressure of everything together."""
    return pressure(scene, whole_flow(scene, leaks=leaks), voices)


def flat_level(scene: Scene) -> Real:
    """Level per unit input with every voice flat."""
    voices = flat_voices(scene.model.network.channels, scene.frequency)
    return level(whole_pressure(scene, voices))


def source_pressures(scene: Scene, voices: Sequence[Complex]) -> list[tuple[SoundSource, Complex]]:
    """(source, its pressure by itself) of everything that has a place."""
    return [(s, pressure(scene, s.flow, voices)) for s in placed_sources(scene)]


def delay_of(
    scene: Scene, voice: Voice | None, rate: Number, frequency: Real, *, leaks: bool | None = None
) -> Real:
    """Group delay of the sum in s without the flight time; flat voices when ``voice`` is None.

    From the model itself and not from a grid: the box is solved beside each frequency.
    """

    def _pressure(at: Real, leaks: bool | None) -> Complex:
        count = scene.model.network.channels
        voices = flat_voices(count, at) if voice is None else voices_at(voice, rate, at)
        return whole_pressure(scene.at(at), voices, leaks=leaks)

    return group_delay(partial(_pressure, leaks=leaks), frequency)
