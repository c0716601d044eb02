"""The low-note check: whether a held note below the promised reach stays within all travel.

All definitions are in docs/physics.md, "Promises".
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real, decibel, picked
from firecrest.core.limits.band import Band, around, band
from firecrest.core.limits.elements import Limit
from firecrest.core.limits.kinds import kind_named
from firecrest.core.limits.programme import SINE_FREQUENCY, Programme
from firecrest.core.limits.reach import LOWEST

LOW_NOTE_FROM = 20.0


@dataclass(frozen=True)
class HeldNote:
    """Per limit of motion (limits, ..., 1): smallest margin in dB and the note where it is;
    ``high_pass`` is the corner in Hz that cures it, 0 where none is needed, NaN where none does.
    """

    limits: tuple[int, ...]
    margins: Real
    notes: Real
    high_pass: Real

    @property
    def margin(self) -> Real:
        """Smallest margin of all, (..., 1)."""
        return np.asarray(np.min(self.margins, axis=0))


@dataclass(frozen=True)
class LowNote:
    """The same of one design: smallest margin (dB), where, by which limit, the cure if needed."""

    margin: float
    frequency: float
    limit: int
    by_part: Mapping[str, tuple[float, float]]
    high_pass: float | None

    @property
    def passed(self) -> bool:
        """Whether cone, radiator and port stay within their limits."""
        return self.margin >= 0


@dataclass(frozen=True)
class Notes:
    """The notes that are held: the part of the grid they need, their band on it, how many dB
    ``softer`` than the reference sine each is, and the highest of them in Hz.
    """

    near: slice
    band: Band
    softer: Real
    corner: Real


def held_notes(frequency: Real, programme: Programme, corner: Number) -> Notes:
    """From 20 Hz to ``corner``; a note at f lies 10 lg(1 + (f_s/f)^4) dB lower."""
    ends = (np.minimum(LOW_NOTE_FROM, corner), corner)
    if programme.kind == "sine":
        ends = (SINE_FREQUENCY,) * 2
    near = around(frequency, *ends)
    held = band(frequency[near], *ends)
    softer = 10 * np.log10(1 + (programme.low_corner / held.places) ** 4)
    return Notes(near, held, softer, np.atleast_1d(corner))


def low_note(notes: Notes, limits: Sequence[Limit], input_drive: Number) -> HeldNote | None:
    """Held-note check at ``input_drive`` (V rms of the reference sine).

    The cure is the lowest second-order Butterworth high-pass x^4/(1+x^4) that gives every note
    back what it lacks, closed form. None when no limit of motion is known.
    """
    moving = [k for k, limit in enumerate(limits) if kind_named(limit.name).moves]
    if not moving:
        return None
    held = notes.band
    factors = [limits[k].factor[..., notes.near] for k in moving]
    if len({factor.shape for factor in factors}) > 1:
        factors = list(np.broadcast_arrays(*factors))
    softer = notes.softer - decibel(input_drive)
    together = np.stack(factors)
    if together.ndim == softer.ndim:  # limits that all designs share
        together = together[:, None]
    whole = held.of(decibel(together)) + softer
    worst = whole.argmin(axis=-1)[..., None]
    least = picked(whole, worst)
    cure = np.zeros(least.shape[1:])
    lacking = least.min(axis=0) < 0
    if lacking.any():
        cure = np.where(lacking, _high_pass(held.places, whole.min(axis=0), notes.corner), cure)
    return HeldNote(tuple(moving), least, picked(held.places, worst), cure)


def _high_pass(notes: Real, margin: Real, corner: Real) -> Real:
    """Lowest second-order Butterworth corner that lifts every margin to 0; NaN: none does."""
    left = 10 ** (np.minimum(margin, 0.0) / 10)
    with np.errstate(divide="ignore"):
        needed = notes**4 * ((1 - left) / left)  # nothing left of a limit: infinite
    lowest = np.maximum(np.max(needed, axis=-1, keepdims=True) ** 0.25, LOWEST)
    return np.where(lowest <= corner, lowest, np.nan)


def low_note_of(held: HeldNote, limits: Sequence[Limit], row: int = 0) -> LowNote:
    """One design of many."""
    margins, notes = (
        np.reshape(x, (len(held.limits), -1))[:, row] for x in (held.margins, held.notes)
    )
    by_part: dict[str, tuple[float, float]] = {}
    for k, margin, note in zip(held.limits, margins, notes, strict=True):
        name = limits[k].name
        if name not in by_part or margin < by_part[name][0]:
            by_part[name] = (float(margin), float(note))
    lowest = int(np.argmin(margins))
    cure = float(np.ravel(held.high_pass)[row])
    return LowNote(
        float(margins[lowest]),
        float(notes[lowest]),
        held.limits[lowest],
        by_part,
        None if margins[lowest] >= 0 or np.isnan(cure) else cure,
    )
