"""What reaches the listener: pressure of each source and of all together, of any voices.

Every curve, sum, share and delay of sound is made here.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from firecrest.assessment import radiating
from firecrest.assessment.network import BoxModel
from firecrest.assessment.ways import Ways, sound_of, ways_of
from firecrest.core.acoustics.radiation import Surroundings, group_delay, heard, level
from firecrest.core.air import Air
from firecrest.core.arrays import Complex, Number, Real, mixed
from firecrest.core.circuit.solution import Solution, SoundSource
from firecrest.core.circuit.solve import solve
from firecrest.core.voice.chain import Filter, chain_responses
from firecrest.design.blocks import Block, OwnCrossover
from firecrest.design.voice import Chain, Voice


def filter_of(block: Block) -> Filter:
    """A voice block as plain numbers."""
    return Filter(
        block.side if isinstance(block, OwnCrossover) else block.kind,
        block.frequency,
        getattr(block, "gain", 0.0),
        getattr(block, "q", 1.0),
        getattr(block, "family", "butterworth"),
        getattr(block, "order", 2),
        getattr(block, "source_frequency", 100.0),
        getattr(block, "source_q", 1.0),
        block.kind == "own_crossover",
        getattr(block, "level", 0.0),
        getattr(block, "turn", 0.0),
        block.bypassed,
    )


def mixed_gain(channel: Chain) -> Number:
    """What a channel makes of left and right that are the same, as in unit input."""
    return channel.left_share + channel.right_share if channel.mix == "sub" else 1.0


def voice_rows(channel: Chain, rate: Number, frequency: Real) -> Complex:
    """Response at the input and after each block of one chain, (..., 2 + blocks, F)."""
    blocks = [filter_of(block) for block in channel.blocks]
    rows = chain_responses(channel.gain, channel.inverted, blocks, frequency, rate, channel.delay)
    gain = mixed_gain(channel)
    return rows if isinstance(gain, float) and gain == 1.0 else rows * gain


def voices_at(voice: Voice, rate: Number, frequency: Real) -> list[Complex]:
    """Response of each channel's whole chain."""
    return [voice_rows(channel, rate, frequency)[..., -1, :] for channel in voice.channels]


def flat_voices(count: int, frequency: Real) -> list[Complex]:
    """Voices that change nothing."""
    return [np.ones(len(frequency), dtype=np.complex128)] * count


@dataclass(frozen=True)
class Scene:
    """A solved box where it stands: all that is needed to say what is heard of it.

    ``ways`` are the measured responses. ``drives`` tells for each drive of the solution with which
    channel it is heard; None: they are the channels.
    """

    model: BoxModel
    solution: Solution
    around: Surroundings
    air: Air
    ways: Ways
    drives: tuple[int, ...] | None = None

    @property
    def frequency(self) -> Real:
        """Hz."""
        return self.solution.frequency

    @property
    def channels(self) -> tuple[int, ...]:
        """The channel with which each drive is heard."""
        return tuple(range(len(self.ways.factors))) if self.drives is None else self.drives

    def at(self, frequency: Real) -> "Scene":
        """The same box at other frequencies."""
        solution = solve(self.model.network, frequency)
        ways = ways_of(self.model, solution, self.air, self.ways.width, self.ways.measured)
        return replace(self, solution=solution, ways=ways)


def placed_sources(scene: Scene) -> list[SoundSource]:
    """Everything that radiates, each with what its place does to its share of the sum.

    Flows are per volt of each channel, (channels, ..., F), as the measured ways make them sound.
    """
    placed = radiating.placed_sources(scene.model, scene.solution, scene.around.distance, scene.air)
    return [replace(s, flow=sound_of(scene.ways, scene.channels, s.flow)) for s in placed]


def whole_flow(scene: Scene, *, leaks: bool | None = None) -> Complex:
    """Flow that the listener hears, per volt of each channel, (channels, ..., F).

    Leaks count unless no cone faces outside, or as ``leaks`` says.
    """
    flow = radiating.radiated_flow(
        scene.model, scene.solution, scene.around.distance, scene.air, leaks=leaks
    )
    return sound_of(scene.ways, scene.channels, flow)


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
