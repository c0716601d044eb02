"""What eats the air: from outside to net, chamber by chamber, on floats or columns."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from firecrest.core.arrays import Number
from firecrest.core.cabinet.braces import Brace, air_taken
from firecrest.core.cabinet.parts import Loose, Part, opening
from firecrest.core.cabinet.parts import air_taken as taken_by
from firecrest.core.cabinet.sections import Inside

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


def slabs(inside: Inside, dividers: Sequence[Brace]) -> list[Number]:
    """Air of the chambers that dividers leave of the inside, along their axis, lowest first.

    Dividers of one case all stand square to one axis.
    """
    if not dividers:
        return [inside.volume]
    axis = dividers[0].axis
    ordered = sorted(dividers, key=lambda d: float(d.at) if isinstance(d.at, float) else 0.0)
    starts = [0.0, *(inside.below(axis, d.faces[1]) for d in ordered)]
    ends = [*(inside.below(axis, d.faces[0]) for d in ordered), inside.volume]
    return [end - start for start, end in zip(starts, ends, strict=True)]


def rooms(
    gross: Mapping[str, Number],
    parts: Iterable[Part],
    loose: Iterable[Loose],
    thickness: Mapping[str, Number],
    braces: Iterable[tuple[str, Brace]],
    inside: Inside,
) -> dict[str, Room]:
    """Ledger of each chamber. ``braces`` as (chamber, brace)."""
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
        stand[chamber] = stand[chamber] + air_taken(brace, inside)
    return {c: Room(gross[c], openings[c], stand[c], taken[c]) for c in gross}
