"""What eats the air: from outside to net, chamber by chamber, on floats or columns."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from firecrest.core.arrays import Number
from firecrest.core.cabinet.braces import Brace, air_taken
from firecrest.core.cabinet.parts import Loose, Part, opening
from firecrest.core.cabinet.parts import air_taken as taken_by

KINDS = ("driver", "radiator", "port", "board", "pack", "cup", "inner box", "other")
"""Kinds of things in the order they are told; a knob takes no air."""


@dataclass(frozen=True)
class Room:
    """A chamber's air in m3: its share of the inside, what is added and taken, what is left."""

    gross: Number
    openings: Number
    braces: Number
    taken: Mapping[str, Number]

    @property
    def net(self) -> Number:
        """What is left."""
        gone = sum(self.taken.values(), 0.0)
        return self.gross + self.openings - self.braces - gone


def slabs(
    low: Sequence[Number], high: Sequence[Number], inside: Number, dividers: Sequence[Brace]
) -> list[Number]:
    """Air of the chambers that dividers of a box leave, along their axis, lowest first.

    Dividers of one box all stand square to one axis. ``inside``: of the whole; the cross-section
    is the same along the axis.
    """
    if not dividers:
        return [inside]
    k = "xyz".index(dividers[0].axis)
    section = inside / (high[k] - low[k])
    ordered = sorted(dividers, key=lambda d: float(d.at) if isinstance(d.at, float) else 0.0)
    starts = [low[k], *(d.faces[1] for d in ordered)]
    ends = [*(d.faces[0] for d in ordered), high[k]]
    return [section * (e - s) for s, e in zip(starts, ends, strict=True)]


def rooms(
    gross: Mapping[str, Number],
    parts: Iterable[Part],
    loose: Iterable[Loose],
    thickness: Mapping[str, Number],
    braces: Iterable[tuple[str, Brace]],
    inner: Sequence[Number],
) -> dict[str, Room]:
    """Ledger of each chamber. ``braces`` as (chamber, brace), in an inside of size ``inner``."""
    openings: dict[str, Number] = dict.fromkeys(gross, 0.0)
    taken: dict[str, dict[str, Number]] = {c: dict.fromkeys(KINDS, 0.0) for c in gross}
    stand: dict[str, Number] = dict.fromkeys(gross, 0.0)
    for part in parts:
        chamber = part.mount.chamber
        if chamber not in gross or part.kind == "knob":
            continue
        openings[chamber] = openings[chamber] + opening(part, thickness[part.mount.panel])
        taken[chamber][part.kind] = taken[chamber][part.kind] + taken_by(part)
    for item in loose:
        among = [c for c in item.chambers if c in gross]
        for chamber in among:
            before = taken[chamber].get(item.kind, 0.0)
            taken[chamber][item.kind] = before + item.volume / len(among)
    for chamber, brace in braces:
        stand[chamber] = stand[chamber] + air_taken(brace, inner)
    return {c: Room(gross[c], openings[c], stand[c], taken[c]) for c in gross}
