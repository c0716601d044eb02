"""Answers of a solved network, and what of them radiates."""

from dataclasses import dataclass
from typing import Any

import numpy as np

from firecrest.core.acoustics.openings import OUTSIDE
from firecrest.core.arrays import Complex, Real, scaled
from firecrest.core.circuit.elements import Network


@dataclass(frozen=True)
class Solution:
    """Answers per volt on each channel: arrays of shape (channels, ..., F), one per element.

    Where sites are told apart, those per pascal at each mouth, per volt in each coil and per newton
    on each cone follow the channels.

    Velocities and flows are of *one* driver, port or radiator; ``opening_flow`` comes out of the
    far end of an opening, ``opening_intake`` goes into the near one. ``current`` is that of the
    first coil of each driver, ``second_current`` of its second one (None without),
    ``output_current`` that of one output of each channel. ``radiated`` is the sum of cones and
    openings that face outside, ``leaked`` the sum of the leaks.
    """

    frequency: Real
    pressure: tuple[Complex, ...]
    volts: tuple[Complex, ...]
    velocity: tuple[Complex, ...]
    current: tuple[Complex, ...]
    second_current: tuple[Complex | None, ...]
    output_current: tuple[Complex, ...]
    opening_flow: tuple[Complex, ...]
    opening_intake: tuple[Complex, ...]
    radiated: Complex
    leaked: Complex

    def of(self, places: slice | Real) -> "Solution":
        """The answers to some of what drives the network."""

        def _part(value: Complex | None) -> Any:
            return value[places] if value is not None and value.ndim else value

        def _parts(values: tuple[Any, ...]) -> tuple[Any, ...]:
            return tuple(_part(value) for value in values)

        return Solution(
            self.frequency,
            _parts(self.pressure),
            _parts(self.volts),
            _parts(self.velocity),
            _parts(self.current),
            _parts(self.second_current),
            _parts(self.output_current),
            _parts(self.opening_flow),
            _parts(self.opening_intake),
            _part(self.radiated),
            _part(self.leaked),
        )


@dataclass(frozen=True)
class SoundSource:
    """One thing that radiates: "cone" or "opening", its place among the drivers or openings of the
    network, and its whole outward volume velocity (channels, ..., F).
    """

    kind: str
    index: int
    flow: Complex


def sources(
    network: Network, velocity: tuple[Complex, ...], opening_flow: tuple[Complex, ...]
) -> list[SoundSource]:
    """Everything that radiates; leaks, which have no place, are not among them."""
    found: list[SoundSource] = []
    for k, (group, v) in enumerate(zip(network.drivers, velocity, strict=True)):
        outward = (group.front == OUTSIDE) * 1.0 - (group.rear == OUTSIDE) * 1.0
        if outward:
            found.append(SoundSource("cone", k, outward * group.count * group.constants.s_d * v))
    for k, (opening, flow) in enumerate(zip(network.openings, opening_flow, strict=True)):
        if opening.opens_to == OUTSIDE:
            found.append(SoundSource("opening", k, scaled(opening.count, flow)))
    return found


def output_impedance(solution: Solution, channel: int) -> Complex:
    """Load on one amplifier output of ``channel``, other channels held at 0 V; ohm, (..., F).

    The drive is 1 V, so the load is the reciprocal of the current of that output.
    """
    return np.asarray(1.0 / solution.output_current[channel][channel])
