"""Variants as columns: what each keeps, how low each goes."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.doubt.judged import with_doubt
from firecrest.assessment.further import reach_by_drop
from firecrest.assessment.worth import worst_must
from firecrest.core.limits.reach import Reach
from firecrest.design.project import Project, Variant
from firecrest.present.frame.meters import Meter, meter
from firecrest.present.text import words

DROPS = (3, 6, 10)
STANDINGS = {"tried": "tried", "built": "built", "measured": "built, measured"}


@dataclass(frozen=True)
class Compared:
    """A variant with its assessment, judged by its doubt where that is known."""

    variant: Variant
    here: bool
    assessment: Assessment

    @property
    def letter(self) -> str:
        """What it is known by."""
        return self.variant.letter

    @property
    def title(self) -> str:
        """Its letter and name."""
        return f"{self.letter} {self.variant.name}".strip()

    @property
    def standing(self) -> str:
        """Whether it is in force, and whether it was built."""
        told = STANDINGS[self.variant.standing]
        return (
            f"{told}, in force"
            if self.here and told != "tried"
            else ("in force" if self.here else told)
        )

    @property
    def meters(self) -> Mapping[str, Meter]:
        """Its meters by promise."""
        a = self.assessment
        return {p.key: meter(p, a.design) for p in a.promises}


def compared(
    project: Project, assessed: Mapping[str, Assessment], doubts: Mapping[str, Doubt]
) -> list[Compared]:
    """One column a variant, in the project's order."""
    found = []
    for variant in project.variants:
        a, doubt = assessed[variant.letter], doubts.get(variant.letter)
        judged = a if doubt is None else with_doubt(a, doubt)
        found.append(Compared(variant, variant.letter == project.in_force, judged))
    return found


def reaches(assessment: Assessment) -> tuple[str, str]:
    """F3, F6 and F10 in Hz, of small signals and at the promised level; "–" where there is none."""
    a = assessment.acoustic
    if a is None:
        return "–", "–"
    small = reach_by_drop(a, a.unit_level - a.reaches.reference)
    level = reach_by_drop(a, a.reaches.kept)
    return _side_by_side(small), _side_by_side(level)


def _side_by_side(found: Mapping[int, Reach]) -> str:
    return " / ".join(_hertz(found[drop]) for drop in DROPS)


def _hertz(reach: Reach) -> str:
    return "–" if reach.frequency is None else f"{reach.frequency:.1f}"


def verdict_of(columns: Sequence[Compared]) -> list[str]:
    """What the comparison says, in sentences: who keeps all, else who comes nearest and where."""
    kept = [c.letter for c in columns if not _with(c, "short", "unknown", "close")]
    close = [c.letter for c in columns if c.letter not in kept and not _with(c, "short", "unknown")]
    told = []
    if kept:
        one = len(kept) == 1
        told.append(f"{words.joined(kept)} keep{'s' if one else ''} every promise that must be.")
    if close:
        one = len(close) == 1
        told.append(f"{words.joined(close)} {'is' if one else 'are'} a close call.")
    if told:
        return told
    nearest = max(columns, key=lambda c: worst_must(c.assessment.promises))
    short = [words.PROMISE_NAMES[key].lower() for key in _with(nearest, "short", "unknown")]
    return [f"None keeps all. {nearest.letter} comes nearest: {words.joined(short)} short."]


def _with(column: Compared, *states: str) -> list[str]:
    """Promises that must be kept and are in one of these states."""
    promises = column.assessment.promises
    return [p.key for p in promises if p.importance == "must" and p.state in states]
