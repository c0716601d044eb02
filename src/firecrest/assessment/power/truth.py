"""The truth table of a board: printed watts, and what each supply leaves of them."""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.assessment.electrical import boards_of, standing_of
from firecrest.assessment.figures import wired_driver
from firecrest.assessment.power.given import source_now
from firecrest.core.arrays import Real
from firecrest.core.limits.truth import (
    Clean,
    Lasting,
    Tried,
    clean,
    efficiency,
    lasting_watts,
    tried,
    tried_as_claimed,
)
from firecrest.core.power.amplifier import DEFAULT_THD, clipping_power_ratio
from firecrest.core.power.board_heat import RISE_INSIDE, Place, time_constant, usual_resistance
from firecrest.design.power import FittedAmplifier

CLAIMED, FULL, HALF, BRIEF, HERE = "as claimed", "full", "half", "brief", "here"
CHARGES = {FULL: 1.0, HALF: 0.5, BRIEF: None, HERE: None}


@dataclass(frozen=True)
class TruthRow:
    """What a board gives into ``load`` ohm on each of ``channels``: clean watts, what ends them,
    watts at the distortion of its first claim (None where it is not the swing that ends them), the
    volts it has, and what lasts.
    """

    kind: int
    load: float
    supply: str
    channels: int
    found: Clean
    as_printed: float | None
    rail: float
    source_current: float
    heat: float
    lasting: Lasting


def supplies_of(assessment: Assessment) -> tuple[str, ...]:
    """The supplies that a truth table has columns for."""
    own = assessment.design.power.source.kind
    return (CLAIMED, FULL, HALF, BRIEF) if own == "pack" else (CLAIMED, HERE)


def trial(
    assessment: Assessment, board: int, kind: int, load: float, channels: int, supply: str | float
) -> Tried | None:
    """A sine into ``load`` on ``channels`` outputs of a ``kind``, on a supply of the table or at a
    charge of the pack; None: no claim names a supply.
    """
    read = assessment.claims[board][kind]
    if supply == CLAIMED and read.model.rail is None:
        volts = claimed_supply(assessment, board, kind, load)
        return None if volts is None else tried_as_claimed(read.model, volts, load, channels)
    power = assessment.numbers.power
    charge = CHARGES.get(supply) if isinstance(supply, str) else supply
    source = source_now(assessment, charge)
    boards = boards_of(power)
    return tried(boards, board, read.model, standing_of(power), source, load, channels)


def claimed_supply(assessment: Assessment, board: int, kind: int, load: float) -> float | None:
    """V at which a claim into ``load`` was stated, else the first claim's."""
    part = assessment.design.power.amplifiers[board][1].part
    claims = part.claims if kind == 0 else part.other_outputs[kind - 1].claims
    own = next((c.supply for c in claims if c.load == load and c.supply is not None), None)
    return claims[0].supply if own is None else own


def place_of(assessment: Assessment, fitted: FittedAmplifier) -> Place | None:
    """The air around a board and how it gets rid of heat; None where neither is known."""
    part = fitted.part
    ohms = part.heat_resistance
    sides = (part.length, part.width, part.height)
    if ohms is None:
        if None in sides:
            return None
        ohms = usual_resistance(*sides)  # type: ignore[arg-type]
    air = assessment.design.brief.conditions.temperature + RISE_INSIDE[fitted.stands]
    return Place(air, ohms)


def row(
    assessment: Assessment, board: int, kind: int, load: float, channels: int, supply: str
) -> TruthRow | None:
    """One row of the table."""
    fitted = assessment.design.power.amplifiers[board][1]
    made = trial(assessment, board, kind, load, channels, supply)
    if made is None:
        return None
    found = clean(made)
    place = place_of(assessment, fitted)
    tau = None
    if place is not None and fitted.part.mass > 0:
        tau = time_constant(place.resistance, fitted.part.mass)
    thd = fitted.part.claims[0].thd
    ratio = clipping_power_ratio(DEFAULT_THD if thd is None else thd)
    swings = found.limit == "swing"
    return TruthRow(
        kind,
        load,
        supply,
        channels,
        found,
        found.watts * ratio if swings else None,
        made.rail(found.drive),
        made.amperes(found.drive),
        made.lost(found.drive),
        lasting_watts(made, found, place, tau),
    )


def loads_of_board(assessment: Assessment, board: int) -> list[tuple[int, float, int]]:
    """(kind of output, ohm, channels): every load a claim names, and the nominal one in use."""
    part = assessment.design.power.amplifiers[board][1].part
    kinds = [(part.channels, part.claims), *((o.channels, o.claims) for o in part.other_outputs)]
    found = []
    for kind, (channels, claims) in enumerate(kinds):
        stated = dict.fromkeys(c.load for c in claims)
        used = dict.fromkeys(_nominal_loads(assessment, board, kind))
        found += [(kind, load, channels) for load in {**stated, **used}]
    return found


def _nominal_loads(assessment: Assessment, board: int, kind: int) -> list[float]:
    """Nominal ohms on each output of a kind, as the drivers are wired; what is known of them."""
    design = assessment.design
    found = []
    for (place, own, _), channel in zip(
        assessment.numbers.carried, design.voice.channels, strict=True
    ):
        groups = [g for g in design.box.groups if g.channel == channel.id]
        if place != board or own != kind or len(groups) != 1:
            continue
        group = groups[0]
        nominal = wired_driver(group.driver, group.coils).nominal
        if nominal is not None:
            found.append(nominal * group.in_series / group.in_parallel)
    return found


def truth_table(assessment: Assessment, board: int) -> list[TruthRow]:
    """All rows of an amplifier board (by its number): each load by each supply."""
    found = [
        row(assessment, board, kind, load, channels, supply)
        for kind, load, channels in loads_of_board(assessment, board)
        for supply in supplies_of(assessment)
    ]
    return [line for line in found if line is not None]


def here(assessment: Assessment, board: int) -> TruthRow:
    """The first claim's load at the brief's charge, or on the supply that is there."""
    kind, load, channels = loads_of_board(assessment, board)[0]
    made = row(assessment, board, kind, load, channels, supplies_of(assessment)[-1])
    assert made is not None
    return made


def one_channel(assessment: Assessment, board: int) -> float:
    """Clean watts of one channel alone into the first claim's load, the others silent."""
    kind, load, _ = loads_of_board(assessment, board)[0]
    made = trial(assessment, board, kind, load, 1, supplies_of(assessment)[-1])
    assert made is not None
    return clean(made).watts


def efficiency_here(assessment: Assessment, board: int) -> Real:
    """Share of what a board takes that comes out, at levels below clipping; see the core."""
    kind, load, channels = loads_of_board(assessment, board)[0]
    made = trial(assessment, board, kind, load, channels, supplies_of(assessment)[-1])
    assert made is not None
    return efficiency(made, clean(made))
