"""All moves of a design, each really assessed, in the order in which they are told.

First those that bring at least four fifths of the most that any brings, then those of at least
three tenths; within these and the rest first what is free, then by dB of the worst promise per
share of the allowances for weight, cost and size. Those that break a kept promise come last, before
them those that ask less.
"""

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from itertools import combinations
from math import inf, isfinite

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.power.dangers import dangers
from firecrest.assessment.verdicts import Promise
from firecrest.assessment.worth import worst_must, worth
from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.design import Design
from firecrest.design.differing import differing_paths
from firecrest.design.edits.paths import replace_at, value_at
from firecrest.proposals.moves.air import air
from firecrest.proposals.moves.balance import balance
from firecrest.proposals.moves.boost import boost
from firecrest.proposals.moves.cells import cells
from firecrest.proposals.moves.chamber import chamber
from firecrest.proposals.moves.clear import clear
from firecrest.proposals.moves.count import count
from firecrest.proposals.moves.drivers import second, wiring
from firecrest.proposals.moves.feeding import guard, stronger, wires
from firecrest.proposals.moves.fill import fill
from firecrest.proposals.moves.high_pass import high_pass
from firecrest.proposals.moves.kinds import Kind, Proposal, Scene
from firecrest.proposals.moves.less import less
from firecrest.proposals.moves.limiter import limiter
from firecrest.proposals.moves.line_up import line_up
from firecrest.proposals.moves.mass import mass
from firecrest.proposals.moves.opening import opening
from firecrest.proposals.moves.panels import panels
from firecrest.proposals.moves.parts import amplifiers, cell_kinds, drivers, radiators, supplies
from firecrest.proposals.moves.place import place, turn
from firecrest.proposals.moves.port import port
from firecrest.proposals.moves.tuning import tuning

KINDS: tuple[Kind, ...] = (
    guard, clear, high_pass, tuning, mass, air, port, turn, balance, line_up, chamber, boost,
    limiter, count, radiators, cells, stronger, supplies, wires, panels, fill, opening, wiring,
    second, drivers, amplifiers, cell_kinds, place, less,
)  # fmt: skip
CULTIVATED = (
    "guard", "room", "clear", "high-pass", "turn", "balance", "line up", "chamber", "port",
    "limiter", "wire", "fuse",
)  # fmt: skip
"""Kinds that mend something that is told beside the promises: offered although none moves."""
FIRST = ("guard", "room")
"""Kinds that end a danger, and what cannot be built: before all others, whatever they cost."""
TIERS = (0.8, 0.3)
"""Shares of the most that any move brings which part the best, the good and the others."""
WORTH = 0.05
"""DB of the worst promise below which a move is not worth telling."""
FREE = 0.002
"""Share of the allowances up to which a move is free."""
PAIRED = 10
"""The best single moves of which pairs are made."""


@dataclass(frozen=True)
class Offered:
    """A move with the promises it leads to.

    ``gain`` is in dB of the worst promise that must be kept, ``uses`` the share of the brief's
    weight, cost and size allowances that it takes, ``breaks`` are promises kept now and not then.
    """

    proposal: Proposal
    promises: tuple[Promise, ...]
    gain: float
    uses: float
    breaks: tuple[str, ...]
    keeps: tuple[str, ...]

    @property
    def free(self) -> bool:
        """Whether it takes next to nothing of what is allowed."""
        return self.uses <= FREE

    @property
    def reaches(self) -> bool:
        """Whether all that must be kept is kept with it."""
        return worst_must(self.promises) >= 0


def proposals(scene: Scene) -> Iterator[Proposal]:
    """Every move of every kind; without sound only those that need none.

    A kind whose design the model refuses has no more to offer; the others go on.
    """
    heard = scene.assessment.acoustic is not None
    for kind in KINDS if heard else (turn, air, panels, less):
        with suppress(FirecrestError):
            yield from kind(scene)


def offered(scene: Scene, proposal: Proposal) -> Offered | None:
    """A move assessed; None where its design cannot be."""
    now = scene.assessment
    with suppress(FirecrestError):
        then = assess(proposal.design, now.memo)
        return _judged(now, then, proposal)
    return None


def _judged(now: Assessment, then: Assessment, proposal: Proposal) -> Offered:
    pairs = list(zip(now.promises, then.promises, strict=True))
    musts = [(a, b) for a, b in pairs if a.importance == "must"]
    breaks = tuple(b.key for a, b in musts if _held(a) and not _held(b))
    keeps = tuple(b.key for a, b in pairs if not _held(a) and _held(b) and b.state != "none")
    gain = _apart(worst_must(then.promises), worst_must(now.promises))
    return Offered(proposal, then.promises, gain, used(now, then), breaks, keeps)


def _held(promise: Promise) -> bool:
    return worth(promise) >= 0


def _apart(then: float, now: float) -> float:
    if isfinite(then) and isfinite(now):
        return then - now
    return 0.0 if then == now else inf if then > now else -inf


def used(now: Assessment, then: Assessment) -> float:
    """Share of the brief's allowances for weight, cost and size that a change takes; what it gives
    back does not count.
    """
    brief = now.design.brief
    grown = [
        max(then.cabinet.mass - now.cabinet.mass, 0.0) / brief.weight.mass,
        max(then.cabinet.price - now.cabinet.price, 0.0) / brief.cost.price,
    ]
    asked = (brief.size.length, brief.size.height, brief.size.depth)
    sides = zip(now.cabinet.outer, then.cabinet.outer, asked, strict=True)
    grown.append(max((max(b - a, 0.0) / most for a, b, most in sides), default=0.0))
    return float(sum(grown))


def telling(scene: Scene) -> list[Offered]:
    """All single moves that are worth telling, in order."""
    return told_of(scene, every(scene))


def every(scene: Scene) -> list[Offered]:
    """All single moves, assessed, in the order of their kinds."""
    return [o for p in proposals(scene) if (o := offered(scene, p)) is not None]


def told_of(scene: Scene, found: Sequence[Offered]) -> list[Offered]:
    """Those of all moves that are worth telling, in order."""
    return ordered(_distinct([o for o in found if _worth_telling(scene, o)]))


def _worth_telling(scene: Scene, found: Offered) -> bool:
    if found.proposal.design == scene.design:
        return False
    if len(dangers(found.proposal.design)) > len(dangers(scene.design)):
        return False  # never advice that could hurt someone
    return found.gain > WORTH or bool(found.keeps) or found.proposal.kind in CULTIVATED


def _distinct(found: Sequence[Offered]) -> list[Offered]:
    """Without moves that make the same design as one before."""
    kept: list[Offered] = []
    for one in found:
        if all(one.proposal.design != other.proposal.design for other in kept):
            kept.append(one)
    return kept


def ordered(found: Sequence[Offered]) -> list[Offered]:
    """Moves in the order in which they are told."""
    sound = [o for o in found if not o.breaks and not o.proposal.asks_less]
    most = max((o.gain for o in sound), default=0.0)

    def _place(o: Offered) -> tuple[float, ...]:
        tier = sum(o.gain < share * most for share in TIERS)
        mends = o.proposal.kind in CULTIVATED and o.gain <= WORTH
        worthy = -inf if o.uses <= 0 else -o.gain / o.uses
        return (
            float(FIRST.index(o.proposal.kind) if o.proposal.kind in FIRST else len(FIRST)),
            float(bool(o.breaks)),
            float(o.proposal.asks_less),
            float(mends),
            float(tier),
            float(not o.free),
            -o.gain if o.free else worthy,
        )

    return sorted(found, key=_place)


def pairs(scene: Scene, singles: Sequence[Offered]) -> list[Offered]:
    """The best pair out of the best singles, of two kinds, where no single one reaches."""
    if worst_must(scene.assessment.promises) >= 0 or any(
        o.reaches and not o.proposal.asks_less for o in singles
    ):
        return []
    best = sorted(
        (o for o in singles if not o.proposal.asks_less and o.gain > WORTH), key=lambda o: -o.gain
    )[:PAIRED]
    found = []
    for a, b in combinations(best, 2):
        if a.proposal.kind != b.proposal.kind:
            made = _both(scene.design, a.proposal, b.proposal)
            one = None if made is None else offered(scene, made)
            if one is not None and not one.breaks:
                found.append(one)
    top = max((o.gain for o in best), default=0.0)
    return [o for o in sorted(found, key=lambda o: -o.gain)[:1] if o.gain > top + WORTH]


def _both(base: Design, first: Proposal, second: Proposal) -> Proposal | None:
    """What the second changes put into what the first makes; None where both change the same."""
    made, taken = first.design, differing_paths(base, first.design)
    for path in differing_paths(base, second.design):
        if any(path[: len(t)] == t or t[: len(path)] == path for t in taken):
            return None
        try:
            made = replace_at(made, path, value_at(second.design, path))
        except FirecrestError:
            return None
    title = note("both", first=first.title, second=second.title)
    return Proposal("pair", title, made)
