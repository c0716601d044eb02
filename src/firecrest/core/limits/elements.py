"""What is asked of the parts of a design, what they bear, and where one gives out."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from firecrest.core.acoustics.openings.port import speed_growth
from firecrest.core.arrays import Complex, Number, Real
from firecrest.core.limits.draw import Output
from firecrest.core.limits.material import Material, places_of, with_rms


@dataclass(frozen=True)
class Hot:
    """Coils as hot as their rated power makes them, one entry each: the share of its cold current
    that one carries (..., F), the dB that the listener misses (..., F), its ohms.

    ``cold`` are the cold currents, where those of the box are not (..., F).
    """

    shares: tuple[Complex, ...]
    losses: tuple[Real, ...]
    ohms: tuple[Number, ...]
    cold: tuple[Complex, ...] = ()

    def of(self, places: Real) -> "Hot":
        """The same at some of its frequencies."""
        return replace(
            self,
            shares=tuple(share[..., places] for share in self.shares),
            losses=tuple(loss[..., places] for loss in self.losses),
        )


@dataclass(frozen=True)
class Transfers:
    """Answers per unit input after the voice, rms, arrays (..., F); one entry per element.

    ``openings`` holds the travel of radiators and the air speed of ports, ``blocks`` the magnitudes
    at the input and output of each block, (..., blocks, F).
    """

    frequency: Real
    pressure: Complex
    outputs: tuple[Output, ...]
    blocks: tuple[Real, ...]
    coil_current: tuple[Complex, ...]
    excursion: tuple[Complex, ...]
    openings: tuple[Complex, ...]
    heated: Hot | None = None

    def of(self, places: Real) -> "Transfers":
        """The same at some of its frequencies, which ``places`` picks."""

        def _each(values: tuple[Any, ...]) -> tuple[Any, ...]:
            return tuple(value[..., places] for value in values)

        return Transfers(
            self.frequency[places],
            self.pressure[..., places],
            tuple(o.of(places) for o in self.outputs),
            _each(self.blocks),
            _each(self.coil_current),
            _each(self.excursion),
            _each(self.openings),
            None if self.heated is None else self.heated.of(places),
        )


@dataclass(frozen=True)
class Asked:
    """What a material asks per unit input, (..., F + 1): |pressure| at the listener, and of coils,
    cones, openings and blocks as in ``Transfers``.

    ``hot_coils`` are the currents of coils as hot as their rated power makes them, with
    ``coil_ohms`` then; empty where coils stay at 20 C. ``frequency`` is that of each place.
    """

    heard: Real
    coils: tuple[Real, ...] = ()
    travel: tuple[Real, ...] = ()
    openings: tuple[Real, ...] = ()
    blocks: tuple[Real, ...] = ()
    hot_coils: tuple[Real, ...] = ()
    coil_ohms: tuple[Number, ...] = ()
    frequency: Real | None = None

    def of(self, places: slice) -> "Asked":
        """The part of sines or of programme."""

        def _each(values: tuple[Real, ...]) -> tuple[Real, ...]:
            return tuple(value[..., places] for value in values)

        return Asked(
            self.heard[..., places],
            _each(self.coils),
            _each(self.travel),
            _each(self.openings),
            _each(self.blocks),
            _each(self.hot_coils),
            self.coil_ohms,
            None if self.frequency is None else self.frequency[places],
        )


def asked_of(transfers: Transfers, material: Material) -> Asked:
    """What ``material`` asks of a box."""

    def _each(values: Sequence[Complex]) -> tuple[Real, ...]:
        return tuple(with_rms(value, material) for value in values)

    hot = transfers.heated
    currents: tuple[Complex, ...] = ()
    if hot is not None:
        cold = hot.cold or transfers.coil_current
        currents = tuple(i * share for i, share in zip(cold, hot.shares, strict=True))
    return Asked(
        with_rms(transfers.pressure, material),
        _each(transfers.coil_current),
        _each(transfers.excursion),
        _each(transfers.openings),
        _each(transfers.blocks),
        _each(currents),
        () if hot is None else hot.ohms,
        places_of(transfers.frequency, material),
    )


@dataclass(frozen=True)
class Ratings:
    """What the parts bear, in SI peaks and watts; None where a figure is not known or not set.

    One entry per driver group, opening and channel. ``opening_kinds`` is the key of the limit to
    which an opening's motion is held. ``full_scale`` is peak volts at a channel's outputs for
    0 dBFS, ``limiter`` the threshold there, ``limiter_rms`` that of what lasts (V rms); between
    input and output blocks may go ``headroom`` times over it. ``growing`` is the area of ports
    whose limit is an estimate that
    goes with frequency and width.
    """

    x_max: tuple[Number | None, ...]
    coil_power: tuple[Number | None, ...]
    coil_resistance: tuple[Number, ...]
    openings: tuple[Number | None, ...]
    opening_kinds: tuple[str, ...]
    limiter: tuple[Number | None, ...]
    full_scale: tuple[Number, ...]
    headroom: Number = 1.0
    growing: tuple[Number | None, ...] = ()
    limiter_rms: tuple[Number | None, ...] = ()

    def opening_limit(self, place: int, frequency: Real) -> Number | None:
        """What an opening bears at ``frequency`` (Hz)."""
        limit = self.openings[place]
        area = self.growing[place] if self.growing else None
        if limit is None or area is None:
            return limit
        return np.asarray(limit * speed_growth(frequency, area))


@dataclass(frozen=True)
class Limit:
    """One element's limit: ``factor`` g on the unit input, one letter ``code``.

    ``pack`` marks where a swing limit is the pack's doing (code P instead of V); ``index`` is
    the place of the part among its kind.
    """

    name: str
    code: str
    factor: Real
    index: int = 0
    pack: Real | None = None

    def of(self, places: slice) -> "Limit":
        """The part of sines or of programme."""
        pack = None if self.pack is None else self.pack[..., places]
        return Limit(self.name, self.code, self.factor[..., places], self.index, pack)


def spare(limit: Number, used: Real) -> Real:
    """limit/used; infinite where nothing is used: a still element never gives out.

    Also where nothing is left of the limit itself (0/0): what is never asked for is not missed.
    """
    used = np.asarray(used, dtype=np.float64)
    still = used == 0
    if not still.any():
        return np.asarray(limit / used)
    return np.asarray(np.where(still, np.inf, limit / np.where(still, 1.0, used)))
