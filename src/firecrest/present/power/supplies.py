"""Which supply should I buy: every supply of the shelf in this design, the best first."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.power.given import flat_out_at
from firecrest.assessment.power.supplies import start_margin, supply_model, usable_steps
from firecrest.assessment.power.truth import here
from firecrest.core.errors import DesignError
from firecrest.core.limits.elements import Limit
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.design import Design
from firecrest.design.edits.supplies import at_step
from firecrest.design.sources import SupplyStep, WallSupply
from firecrest.present.power.truth import watts
from firecrest.present.text.words import decibels, limit_name
from firecrest.proposals.placing import put

NOTHING = -1e9


@dataclass(frozen=True)
class Offered:
    """One supply in this design: what is shown, the design, and by what it is ranked."""

    name: str
    volts: str
    amperes: str
    clean: str
    flat_out: str
    gives_first: str
    loudness: str
    price: str
    why_not: str
    rank: tuple[float, ...]
    design: Design | None
    in_force: bool


def offers(assessment: Assessment, parts: Iterable[WallSupply]) -> Iterator[Callable[[], Offered]]:
    """One job for each supply and each voltage it has; that of the design too."""
    own = assessment.design.power.source
    known = list(parts)
    if isinstance(own, WallSupply) and all(part.name != own.name for part in known):
        known.append(own)
    for part in known:
        for step in part.steps or (None,):
            yield _job(assessment, part, step)


def _job(
    assessment: Assessment, part: WallSupply, step: SupplyStep | None
) -> Callable[[], Offered]:
    return lambda: offer(assessment, part if step is None else at_step(part, step))


def offer(assessment: Assessment, part: WallSupply) -> Offered:
    """A supply in this design."""
    name = part.name if not part.steps else f"{part.name}, asked for {part.voltage:g} V"
    burst = part.continuous_current if part.burst_current is None else part.burst_current
    shown = (
        name,
        f"{part.voltage:g}{THIN_SPACE}V",
        f"{part.continuous_current:g} / {burst:g}{THIN_SPACE}A",
    )
    price = f"€{part.price:.0f}"
    try:
        design = put(assessment.design, part)
    except DesignError as error:
        return Offered(*shown, "–", "–", "–", "–", price, str(error), (NOTHING,), None, False)
    made = assess(design, assessment.memo)
    wrong = _why_not(made, part)
    line = here(made, 0)
    level = flat_out_at(made, [made.design.brief.conditions.charge])[0]
    loud = made.promise("loudness")
    first = limit_name(Limit(line.found.limit, line.found.code, np.zeros(1)), line.found.code)
    short = sum(p.state == "short" for p in made.promises)
    margin = NOTHING if loud.margin is None else loud.margin
    return Offered(
        *shown,
        watts(line.found.watts),
        f"{figure(level, 1)} dB",
        first,
        "–" if loud.predicted is None else _against(loud.predicted, margin),
        price,
        wrong,
        (0.0 if wrong else 1.0, -float(short), round(margin, 1), -part.price),
        design,
        _same(assessment.design.power.source, part),
    )


def _against(level: float, margin: float) -> str:
    return f"{figure(level, 1)} dB, {decibels(margin)}"


def _same(now: object, part: WallSupply) -> bool:
    return isinstance(now, WallSupply) and (now.name, now.voltage) == (part.name, part.voltage)


def _why_not(made: Assessment, part: WallSupply) -> str:
    """What keeps the boards from running on it; "" when nothing does."""
    step = SupplyStep(voltage=min(part.voltage, 60.0), continuous_current=1.0)
    volts = usable_steps(made, [step])[0]
    if not volts:
        tops = [b.part.highest_supply for _, b in made.design.power.amplifiers]
        most = min((v for v in tops if v is not None), default=None)
        if most is not None and part.voltage > most:
            return f"over the {most:g} V the board takes: it may break"
        return "below the voltage at which the board stops"
    margin = start_margin(made, supply_model(part))
    if margin is not None and margin <= 0:
        return "does not start: too little current while its voltage rises"
    return ""


def best_first(found: Iterable[Offered]) -> list[Offered]:
    """Usable ones with the fewest promises short, then the loudest, then the cheapest."""
    return sorted(found, key=lambda o: o.rank, reverse=True)
