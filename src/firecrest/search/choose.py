"""Choose for this brief: candidates put into the present design, box tuned again where asked."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.memo import Memo
from firecrest.assessment.vary import Figures, assess_many
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.proposals.fitting import Fit, fit_of
from firecrest.proposals.placing import put
from firecrest.proposals.tunings import best_tunings

CHUNK = 125
"""Candidates worked out between two looks at whether to stop."""


@dataclass(frozen=True)
class Candidate:
    """A part to try, by the id it is known by."""

    id: str
    part: Any


@dataclass(frozen=True)
class Outcome:
    """What a candidate brings: the design with it, its figures, and whether it fits.

    ``design`` is None, and ``refusal`` says why, where it cannot be put in at all.
    """

    id: str
    design: Design | None
    figures: Figures
    fit: Fit
    refusal: str = ""


def choose(
    design: Design,
    candidates: Sequence[Candidate],
    *,
    place: int = 0,
    retune: bool = False,
    chunk: int = CHUNK,
) -> Iterator[list[Outcome]]:
    """Outcomes in the order of the candidates, some at a time so that one can show and stop.

    ``place`` is which of several parts of their kind they replace; ``retune`` gives every one the
    added mass or port length at which it is loudest (see ``best_tunings``).
    """
    memo = Memo()
    for start in range(0, len(candidates), chunk):
        yield _some(design, candidates[start : start + chunk], place, retune, memo)


def _some(
    design: Design, candidates: Sequence[Candidate], place: int, retune: bool, memo: Memo
) -> list[Outcome]:
    made: list[Design | FirecrestError] = []
    for candidate in candidates:
        try:
            made.append(put(design, candidate.part, place))
        except FirecrestError as error:
            made.append(error)
    designs = [d for d in made if isinstance(d, Design)]
    if retune:
        designs = best_tunings(designs, memo)
    figures = iter(zip(designs, assess_many(designs, EDIT_GRID, memo), strict=True))
    found = []
    for candidate, answer in zip(candidates, made, strict=True):
        if isinstance(answer, Design):
            tuned, result = next(figures)
            fit = fit_of(design, tuned, candidate.part, place, memo)
            found.append(Outcome(candidate.id, tuned, result, fit))
        else:
            reason = str(answer)
            found.append(Outcome(candidate.id, None, Figures(), Fit(None, None), reason))
    return found


def rank(outcome: Outcome) -> tuple[float, ...]:
    """Order of the table: what can be judged, fewest short, fewest missed wishes, then price."""
    promises = outcome.figures.promises
    missed = sum(p.wish_missed for p in promises)
    short = sum(p.state == "short" for p in promises) - missed
    unknown = outcome.design is None or bool(outcome.figures.missing)
    return (
        float(unknown),
        float(outcome.fit.fits is False),
        float(short),
        float(missed),
        outcome.figures.price,
    )


def ranked(outcomes: Sequence[Outcome]) -> list[Outcome]:
    """Outcomes in the order of ``rank``; equal ones as they came."""
    return sorted(outcomes, key=rank)


def take(
    design: Design, candidate: Candidate, kind: str, place: int = 0, retune: bool = False
) -> tuple[str, Design]:
    """(name of the undo step, design) with a candidate in it; FirecrestError when it cannot be."""
    (outcome,) = _some(design, [candidate], place, retune, Memo())
    if outcome.design is None:
        raise FirecrestError(outcome.refusal)
    return f"{kind}: {candidate.part.name}", outcome.design
