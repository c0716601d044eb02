"""The truth about a board in words: printed watts, clean watts, what lasts, how hot it gets."""

from dataclasses import dataclass
from math import isfinite

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.truth import (
    BRIEF,
    CLAIMED,
    FULL,
    HALF,
    HERE,
    TruthRow,
    claimed_supply,
    efficiency_here,
    here,
    one_channel,
    place_of,
    truth_table,
)
from firecrest.core.limits.elements import Limit
from firecrest.core.limits.truth import EFFICIENCY_LEVELS
from firecrest.core.power.amplifier import DEFAULT_THD
from firecrest.core.power.board_heat import CASE_LIMIT
from firecrest.core.units import THIN_SPACE, figure
from firecrest.present.plot.plot import Curve, Plot
from firecrest.present.size.facts import Fact
from firecrest.present.text.units import told
from firecrest.present.text.words import limit_name

SUPPLY_WORDS = {CLAIMED: "as claimed", FULL: "pack full", HALF: "half full", HERE: "here"}
HEADS = ("into", "on", "clean", "as printed", "gives first", "for long", "case")
TOUCHED = 273.15 + 60.0
"""K above which a part burns who touches it."""
MINUTE = 60.0
AT_REST = "bus at rest"
"""Limit of a source that cannot run the board at all."""


@dataclass(frozen=True)
class BoardTruth:
    """One board: a sentence, its table, and facts beside it."""

    sentence: str
    rows: tuple[tuple[str, ...], ...]
    bad: tuple[bool, ...]
    facts: tuple[Fact, ...]


def board_truth(assessment: Assessment, board: int) -> BoardTruth:
    """All that is known of an amplifier board (by its number)."""
    found = truth_table(assessment, board)
    rows = tuple(_cells(assessment, board, line) for line in found)
    bad = tuple(_impossible(assessment, board, line) for line in found)
    return BoardTruth(sentence(assessment, board), rows, bad, _facts(assessment, board))


def _impossible(assessment: Assessment, board: int, line: TruthRow) -> bool:
    return line.supply == CLAIMED and any(
        clean.impossible and clean.load == line.load
        for clean in assessment.claims[board][line.kind].claims
    )


def supply_words(assessment: Assessment, supply: str) -> str:
    """What a column of the table stands for."""
    if supply == BRIEF:
        return f"pack at {assessment.design.brief.conditions.charge:.0%}"
    return SUPPLY_WORDS[supply]


def _cells(assessment: Assessment, board: int, line: TruthRow) -> tuple[str, ...]:
    channels = _outputs(assessment, board, line)
    code = line.found.code
    name = limit_name(Limit(line.found.limit, code, np.zeros(1)), code)
    on = supply_words(assessment, line.supply)
    volts = f" ({figure(line.rail, 1)} V)"
    return (
        f"{line.load:g} Ω{channels}",
        on + volts,
        f"{watts(line.found.watts)}",
        "–" if line.as_printed is None else watts(line.as_printed),
        name,
        watts(line.lasting.watts),
        _case(line),
    )


def _outputs(assessment: Assessment, board: int, line: TruthRow) -> str:
    """How many at once; which ones, where a board has several kinds."""
    part = assessment.design.power.amplifiers[board][1].part
    if not part.other_outputs:
        return "" if line.channels == 1 else f", {line.channels} at once"
    counts = [part.channels, *(kind.channels for kind in part.other_outputs)]
    first = 1 + sum(counts[: line.kind])
    last = first + line.channels - 1
    return f", output {first}" if first == last else f", outputs {first} to {last}"


def watts(value: float) -> str:
    """W with as many digits as a maker reads."""
    return f"{figure(value, 1 if value < 100 else 0)}{THIN_SPACE}W"


def _case(line: TruthRow) -> str:
    if line.lasting.case is None:
        return "not known"
    if not isfinite(line.heat):
        return "–"  # its source cannot even keep it on
    if line.lasting.seconds is not None:
        return f"{told(CASE_LIMIT, 'temperature', '°C', 0)} in {minutes(line.lasting.seconds)}"
    return told(line.lasting.case, "temperature", "°C", 0)


def minutes(seconds: float) -> str:
    """A short time in words."""
    if seconds < MINUTE:
        return f"{seconds:.0f}{THIN_SPACE}s"
    return f"{seconds / MINUTE:.0f}{THIN_SPACE}min"


def sentence(assessment: Assessment, board: int) -> str:
    """The headline against the truth: "Printed 60 W at 24 V. On this pack at 20 %: 24 W clean"."""
    design = assessment.design
    claim = design.power.amplifiers[board][1].part.claims[0]
    line = here(assessment, board)
    at = "" if claim.supply is None else f" at {claim.supply:g} V"
    printed = f"Printed {claim.power:g} W into {claim.load:g} Ω{at}."
    kind = design.power.source.kind
    on = {
        "pack": f"On this pack at {design.brief.conditions.charge:.0%}",
        "wall": "On this supply",
        "mains": "On its own mains supply",
    }[kind]
    if line.found.limit == AT_REST:
        return f"{printed} {on}: nothing. It stands below a cut-off before anything plays."
    given = f"{on}: {watts(line.found.watts)} clean"
    if line.channels > 1:
        given += f" with {line.channels} channels at once"
    if line.as_printed is not None:
        thd = DEFAULT_THD if claim.thd is None else claim.thd
        return f"{printed} {given}, {watts(line.as_printed)} at {100 * thd:g} % distortion."
    name = limit_name(Limit(line.found.limit, line.found.code, np.zeros(1)), line.found.code)
    return f"{printed} {given}; {name[0].lower()}{name[1:]} gives first."


def _facts(assessment: Assessment, board: int) -> tuple[Fact, ...]:
    part = assessment.design.power.amplifiers[board][1].part
    line = here(assessment, board)
    found = [
        Fact("One channel alone", watts(one_channel(assessment, board)),
             help="The others silent: what the source saves on them this one may have."),
        Fact("Heat at clean watts", watts(line.heat),
             help="Of a held sine, the worst case; music at the promise makes far less."),
    ]  # fmt: skip
    case = line.lasting.case
    place = place_of(assessment, assessment.design.power.amplifiers[board][1])
    if place is not None:
        found.append(
            Fact(
                "Where it stands sheds",
                watts(max(place.most, 0.0)),
                help="Heat that holds its case at 85 °C, in the air around it there; a closed case "
                "is 15 K warmer than outside, a vented one 5 K. Estimates, ±40 %.",
            )
        )
    if case is None:
        found.append(Fact("Case", "needs size and weight", "close", "Or its heat resistance."))
    elif case > CASE_LIMIT:
        found.append(
            Fact(
                "Keeps up a sine of",
                watts(line.lasting.watts),
                "close",
                "Above that its case passes 85 °C. The rise is an estimate, ±40 %.",
            )
        )
    if case is not None and case > TOUCHED:
        found.append(
            Fact(
                "Hot to touch",
                told(min(case, CASE_LIMIT), "temperature", "°C", 0),
                "close",
                "Of a sine at clean watts for long: keep fingers, foam and glue away from it.",
            )
        )
    supply = claimed_supply(assessment, board, 0, part.claims[0].load)
    low = part.cut_off
    span = [f"{v:g} V" for v in (low, part.highest_supply) if v is not None]
    if span:
        found.append(Fact("Runs on", " to ".join(span) if len(span) > 1 else f"from {span[0]}",
                          help="Lowest and highest supply of its sheet."))  # fmt: skip
    if supply is not None and line.rail < 0.75 * supply:
        share = (line.rail / supply) ** 2
        found.append(
            Fact("Volts against the claim's", f"{line.rail / supply:.0%}", "close",
                 f"Power goes with the square: about {share:.0%} of the printed watts.")
        )  # fmt: skip
    return tuple(found)


def efficiency_plot(assessment: Assessment, boards: list[int]) -> Plot:
    """Share of what each board takes that comes out, from -40 dB to clipping."""
    names = [b.part.name for _, b in assessment.design.power.amplifiers]
    curves = tuple(
        Curve(
            names[k],
            EFFICIENCY_LEVELS,
            100 * efficiency_here(assessment, k),
            "olive" if k == boards[0] else "ink2",
            2.4 if k == boards[0] else 1.8,
            label_at=-27.0,
        )
        for k in boards
    )
    return Plot("Efficiency below clipping", "level", (-40.0, 0.0), (0.0, 100.0), 25, "%", curves)
