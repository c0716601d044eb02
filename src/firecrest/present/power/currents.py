"""Currents against what is in their way: cells, board, fuse, lead, plugs, outputs."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.motion import motion_of
from firecrest.assessment.power.given import source_now
from firecrest.assessment.power.wiring import Wiring, speaker_losses, switch_bears, wiring
from firecrest.assessment.sounding import boards_in
from firecrest.core.power.connectors import BY_NAME, that_bear
from firecrest.core.power.fuse import KINDS as FUSES
from firecrest.core.power.fuse import LONG_FACTOR, passes
from firecrest.core.power.wire import DROP, SPEAKER_LOSS
from firecrest.core.units import THIN_SPACE, figure
from firecrest.present.size.facts import Fact
from firecrest.present.text.units import told

PEAK = float(np.sqrt(2.0))


@dataclass(frozen=True)
class CurrentRow:
    """A current against what bears it, A; what the row means."""

    name: str
    asked: float
    bears: float
    help: str = ""

    @property
    def short(self) -> bool:
        """More is asked than it bears."""
        return self.asked > self.bears * (1 + 1e-9)


def row_count(assessment: Assessment) -> int:
    """How many rows ``current_rows`` has, without the currents."""
    if assessment.acoustic is None:
        return 0
    power, outputs = assessment.design.power, len(assessment.design.voice.channels)
    source = power.source
    if source.kind == "mains":
        return outputs
    charged = source.kind == "pack" and source.charger is not None
    fitted = (power.fuse, power.lead.length, power.plug, power.switch)
    burst = len(source_now(assessment, 1.0).burst)
    return burst + sum(x is not None for x in fitted) + charged + outputs


def current_rows(assessment: Assessment) -> list[CurrentRow]:
    """What flows, against what each part in its way bears."""
    if assessment.acoustic is None:
        return []
    found = wiring(assessment)
    rows = [] if found is None else [*_source(assessment, found), *_wires(assessment, found)]
    return [*rows, *_outputs(assessment)]


def _source(assessment: Assessment, found: Wiring) -> Iterator[CurrentRow]:
    help = "Bursts of programme flat out at full charge, against what may flow for that long."
    for name, most in source_now(assessment, 1.0).burst.items():
        yield CurrentRow(name.capitalize(), found.currents.burst, float(most), help)


def _wires(assessment: Assessment, found: Wiring) -> Iterator[CurrentRow]:
    power = assessment.design.power
    if power.fuse is not None:
        yield CurrentRow(
            "Fuse carries",
            found.asked.least,
            power.fuse.rating,
            "The larger of 1.25 times the long-term current and what a test tone draws.",
        )
    if found.lead is not None:
        area = told(power.lead.area, "area", "mm²", 2)
        yield CurrentRow(
            f"Lead {area} behind its fuse",
            found.rating,
            found.lead.allowed,
            "The fuse must open before the wire gets hot: the wire bears at least its rating.",
        )
    if power.plug is not None:
        yield CurrentRow(f"Plug: {power.plug}", found.rating, BY_NAME[power.plug].amperes)
    if power.switch is not None:
        yield CurrentRow("Switch", found.rating, power.switch.rating)
    source = power.source
    if source.kind == "pack" and source.charger is not None:
        most = BY_NAME[source.charger.contact].amperes
        name = f"Charging contact: {source.charger.contact}"
        yield CurrentRow(name, source.charger.current, most)


def _outputs(assessment: Assessment) -> Iterator[CurrentRow]:
    """Peaks of a held sine at the promise, channel by channel."""
    a = assessment.acoustic
    assert a is not None
    boards = boards_in(assessment.numbers, assessment.memo)
    band = (a.frequency >= assessment.design.brief.bass.frequency) & (a.frequency <= a.f_hi)
    drive = motion_of(assessment, a).drive
    for k, output in enumerate(a.answers_at(drive).outputs):
        limit = float(boards.feeds[k].outputs.current_limit)
        peak = PEAK * np.abs(output.current) * drive
        name = assessment.design.voice.channels[k].name
        help = "Largest peak of a held sine at the promised level."
        yield CurrentRow(f"Amp output, {name}", float(np.max(peak[band], initial=0.0)), limit, help)


def amps(value: float) -> str:
    """A with as many digits as a maker reads."""
    return f"{figure(value, 1 if value < 100 else 0)}{THIN_SPACE}A"


def wiring_facts(assessment: Assessment) -> list[Fact]:
    """Fuse and wire that are wanted, and why."""
    found = wiring(assessment)
    if found is None:
        return []
    return [*_fuse_facts(assessment, found), *_lead_facts(assessment, found)]


REASONS = {
    "bench": "A test tone or a stuck input draws {bench} at clipping on all outputs: the fuse must "
    "not blow for that.",
    "long": "1.25 times the long-term current of {long} flat out: a fuse lasts only below its "
    "rating.",
    "inrush": "The boards' capacitors draw {surge} for a moment when switched on: a smaller fuse "
    "would tire.",
}


def _fuse_facts(assessment: Assessment, found: Wiring) -> Iterator[Fact]:
    currents, fuse = found.currents, found.fuse
    words = {"bench": amps(currents.bench), "long": amps(currents.long),
             "surge": amps(found.inrush.peak)}  # fmt: skip
    short = "Its short circuit could reach "
    short += (
        "more than anyone states"
        if not np.isfinite(found.short_circuit)
        else amps(found.short_circuit)
    )
    tail = f" {short}, so glass tubes (35 A) have no place here. The fuse's own sheet decides."
    if fuse is None:
        yield Fact("Fuse wanted", "a soft start", "short",
                   "No usual fuse bears the surge into the capacitors: let them charge through a "
                   "resistor first." + tail)  # fmt: skip
    else:
        name = "blade" if fuse.kind.name == "blade" else "slow ceramic tube"
        help = REASONS[fuse.reason].format(**words) + tail
        yield Fact("Fuse wanted", f"{fuse.rating:g}{THIN_SPACE}A {name}", help=help)
    fitted = assessment.design.power.fuse
    if fitted is None:
        yield Fact("Fuse fitted", "none yet", "close", "At the source, before anything else.")
        return
    fine = fitted.rating >= found.asked.least and passes(
        FUSES[fitted.kind], fitted.rating, found.asked
    )
    reason = (
        "It carries what plays and opens on a short circuit."
        if fine
        else (
            "It would blow in use, tire of the surge, or not break the short circuit: see the one "
            "wanted."
        )
    )
    yield Fact(
        "Fuse fitted", f"{fitted.rating:g}{THIN_SPACE}A {fitted.kind}",
        "met" if fine else "short", reason,
    )  # fmt: skip
    long = LONG_FACTOR * currents.long
    if fitted.rating > 3 * max(found.asked.least, long):
        yield Fact("", "far larger than it need be", "close", "It protects the lead less well.")


def _lead_facts(assessment: Assessment, found: Wiring) -> Iterator[Fact]:
    power, lead = assessment.design.power, found.lead
    if lead is None:
        yield Fact("Lead", "length not known", "close", "Fill it in: drop and heat follow from it.")
    else:
        area = "thicker than listed" if lead.area is None else told(lead.area, "area", "mm²", 2)
        gauge = "" if lead.gauge is None else f" or AWG{THIN_SPACE}{lead.gauge}"
        yield Fact(
            "Wire wanted", f"{area}{gauge}", "met" if lead.fine else "short",
            f"It loses at most {DROP:.0%} of the volts at {amps(found.currents.bench)} and bears "
            "the fuse's rating in still air of 40 °C. An estimate: local codes come first.",
        )  # fmt: skip
        yield Fact(
            "Lead loses", f"{figure(lead.drop, 2)} V, {lead.share:.1%}",
            "" if lead.share <= DROP else "short",
            f"At {amps(found.currents.bench)}; closest gauge: AWG {lead.closest}.",
        )  # fmt: skip
    plugs = [c.name for c in that_bear(found.rating)][:2]
    if plugs:
        yield Fact("Plugs that bear it", ", ".join(plugs), help="Smallest first. Their own sheets "
                   "decide.")  # fmt: skip
    bears = switch_bears(assessment, found)
    if power.switch is not None:
        words = {True: "bears it", False: "too weak", None: "not known above 30 V"}[bears]
        mark = {True: "met", False: "short", None: "close"}[bears]
        yield Fact("Switch", words, mark, "Ratings for alternating current hold up to 30 V d.c.")
    losses = speaker_losses(assessment, found)
    if losses:
        worst = max(losses)
        yield Fact(
            "Speaker leads lose", f"{figure(worst, 2)} dB",
            "close" if worst > SPEAKER_LOSS else "", "At the least |Z|. Above 0.2 dB: thicker.",
        )  # fmt: skip
