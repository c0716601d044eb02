"""Next moves as cards: an imperative, why, chips of what they bring and cost, in several orders."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.memo import Memo
from firecrest.core.units import figure
from firecrest.design.design import Design
from firecrest.present.frame.effects import changes
from firecrest.present.parts.at_hand import parts_at_hand
from firecrest.present.text import moves as text
from firecrest.present.text.words import PROMISE_NAMES
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.ranking import Offered, pairs, telling

MOST = 24
"""Moves that are told."""
ORDERS = {"best": "Most for least", "gain": "Most gained", "cheap": "Cheapest", "light": "Lightest"}
GOOD, BAD, PLAIN = "good", "bad", "plain"


@dataclass(frozen=True)
class Chip:
    """A few words of what a move does, and whether that is good."""

    text: str
    role: str = PLAIN


@dataclass(frozen=True)
class Move:
    """A proposed change: imperative title, why, effects as chips, and the design it makes.

    ``gain`` in dB of the worst promise, ``price`` and ``mass`` what it adds.
    """

    title: str
    detail: str
    chips: tuple[Chip, ...]
    design: Design
    gain: float = 0.0
    price: float = 0.0
    mass: float = 0.0
    rank: int = 0

    @property
    def effects(self) -> tuple[str, ...]:
        """The chips' words."""
        return tuple(chip.text for chip in self.chips)


def moves_of(design: Design, shelf: Path | None = None) -> Iterator[list[Move]]:
    """Moves of a design: the single ones first, then with pairs where no single one reaches."""
    assessment = assess(design, Memo())
    scene = Scene(assessment, parts_at_hand(shelf, design))
    singles = telling(scene)
    yield cards(assessment, singles)
    together = pairs(scene, singles)
    if together:
        yield cards(assessment, [*together, *singles])


def cards(assessment: Assessment, found: Sequence[Offered]) -> list[Move]:
    """Moves as they are shown."""
    return [_card(assessment, one, k) for k, one in enumerate(found[:MOST])]


def _card(now: Assessment, found: Offered, rank: int) -> Move:
    own = found.proposal
    then = {p.key: p for p in found.promises}
    before = {p.key: p for p in now.promises}

    def _added(key: str) -> float:
        a, b = before[key].predicted, then[key].predicted
        return 0.0 if a is None or b is None else b - a

    return Move(
        text.title(own.title),
        text.detail(own.title, own.why),
        _chips(now, found),
        own.design,
        found.gain,
        _added("cost"),
        _added("weight"),
        rank,
    )


def _chips(now: Assessment, found: Offered) -> tuple[Chip, ...]:
    chips = [Chip(f"breaks {PROMISE_NAMES[key].lower()}", BAD) for key in found.breaks]
    chips += [Chip(said, role) for said, role in changes(now.promises, found.promises)]
    chips += [Chip(f"keeps {PROMISE_NAMES[key].lower()}", GOOD) for key in found.keeps]
    if found.proposal.kind == "high-pass":
        chips += _at_note(now, found.proposal.design)
    return tuple(chips) or (Chip("no promise moves"),)


def _at_note(now: Assessment, design: Design) -> list[Chip]:
    """What a high-pass takes from the response at the promised note."""
    note = now.design.brief.bass.frequency
    levels = []
    for assessment in (now, assess(design, now.memo)):
        a = assessment.acoustic
        if a is None:
            return []
        k = int(abs(a.frequency - note).argmin())
        levels.append(float(a.unit_level[k] - a.reaches.reference))
    return [Chip(f"{figure(levels[1] - levels[0], 1)} dB at {note:g} Hz", BAD)]


def in_order(moves: Sequence[Move], order: str) -> list[Move]:
    """Moves in one of the ``ORDERS``."""
    keys: dict[str, Any] = {
        "best": lambda m: m.rank,
        "gain": lambda m: (-m.gain, m.rank),
        "cheap": lambda m: (m.price, m.rank),
        "light": lambda m: (m.mass, m.rank),
    }
    return sorted(moves, key=keys[order])
