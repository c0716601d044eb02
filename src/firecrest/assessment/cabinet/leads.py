"""How long the leads in a case have to be: from source to boards, from boards to drivers.

A lead follows the walls, so it takes the sum of the distances along x, y and z; with its panel off
it reaches 100 mm further. An amplifier feeds the drivers nearest to it where several have a place.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import ceil

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.assessment.cabinet.spot import Spot, point
from firecrest.core.cabinet.parts import centre
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, value_at

SPARE = 0.1
STEP = 0.01
"""m beyond the way itself, so that a panel comes off; m to which a length is rounded up."""
LENGTHS: dict[str, Path] = {
    "source": ("power", "lead", "length"),
    "drivers": ("power", "speaker_lead", "length"),
}


@dataclass(frozen=True)
class Reach:
    """The longest lead of a kind: ``needs`` m to the part named ``to``, whose place is ``at``."""

    key: str
    needs: float
    to: str
    at: tuple[float, float, float]
    path: Path


def reaches(design: Design, drawing: Drawing) -> tuple[Reach, ...]:
    """The longest lead from the source, and to the drivers; of what has a place."""
    boards = [
        s
        for s in drawing.sited
        if s.path[:2] == ("power", "boards") and _amplifies(design, int(s.path[2]))
    ]
    packs = [s for s in drawing.sited if s.path[:2] == ("power", "source")]
    drivers = [s for s in drawing.sited if s.path[:2] == ("box", "groups")]
    found = (_longest("source", packs, boards), _longest("drivers", boards, drivers))
    return tuple(reach for reach in found if reach is not None)


def _amplifies(design: Design, place: int) -> bool:
    return design.power.boards[place].kind == "amplifier"


def _longest(key: str, starts: Sequence[Sited], ends: Sequence[Sited]) -> Reach | None:
    """The farthest end from the start that is nearest to it."""
    if not starts or not ends:
        return None
    ways = [(min(_way(s, end) for s in starts), end) for end in ends]
    way, end = max(ways, key=lambda found: found[0])
    needs = ceil((way + SPARE) / STEP - 1e-9) * STEP
    return Reach(key, round(needs, 3), end.part.name, point(end.at.o), end.path)


def _way(one: Sited, other: Sited) -> float:
    """Along the walls, from middle to middle."""
    pairs = zip(centre(one.part, one.at), centre(other.part, other.at), strict=True)
    return sum(abs(float(a) - float(b)) for a, b in pairs)


def short_leads(assessment: Assessment, drawing: Drawing) -> Iterator[Spot]:
    """Leads whose stated length does not reach."""
    for reach in reaches(assessment.design, drawing):
        path = LENGTHS[reach.key]
        has = value_at(assessment.design, path)
        if has is not None:
            yield Spot(
                "lead",
                (reach.key, reach.to),
                float(has),
                reach.needs,
                reach.at,
                (LENGTHS[reach.key],),
            )
