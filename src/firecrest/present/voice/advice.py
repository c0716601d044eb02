"""What is said of the voice: how ways follow each other, what lines them up, range, thresholds."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import degrees, inf

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.voicing.crossing import Crossing
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.flattening import Cost
from firecrest.assessment.voicing.lining import LinedPair, LineUp, present_pair
from firecrest.core.units import THIN_SPACE, figure
from firecrest.core.voice.alignment import (
    HOLE,
    IN_STEP,
    TOO_DEEP,
    Criterion,
    Tracking,
    offset_in,
    tracking,
)
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.voice import Channel
from firecrest.present.size.facts import Fact
from firecrest.present.text.units import told
from firecrest.present.text.words import decibels
from firecrest.present.voice.plots import hz

ODD = (
    "These two stand 90° apart by design (odd Butterworth, or first order): their sum is made "
    "flattest, and a null says nothing."
)


@dataclass(frozen=True)
class Step:
    """One thing that lines up: what it says, why, and the channel with it; None: nothing to do."""

    key: str
    channel: int
    title: str
    why: str
    change: tuple[tuple[str, object], ...]

    @property
    def idle(self) -> bool:
        """Whether it is as it should be."""
        return not self.change


def names_of(design: Design) -> list[str]:
    """Names of the channels."""
    return [channel.name for channel in design.voice.channels]


def steps(assessment: Assessment, a: Acoustic, found: LineUp) -> list[Step]:
    """Everything that lines the ways up, one step each: level, polarity, delay."""
    design = assessment.design
    rate, speed = float(design.power.dsp.sample_rate), float(a.scene.air.speed)
    made: list[Step] = []
    for k, channel in enumerate(design.voice.channels):
        low, high = found.bands[k]
        why = (
            f"mean {figure(found.levels[k], 1)} dB from {hz(low)} to {hz(high)}; louder ways are "
            "turned down to the softest"
        )
        made.append(_number(channel, k, "gain", round(found.gains[k], 2), why, _decibels))
    for k, channel in enumerate(design.voice.channels):
        arrived = found.arrivals[k]
        doubtful = (
            " (doubtful: the phase is no plain delay)" if arrived and arrived.doubtful else ""
        )
        if channel.inverted != found.inverted[k]:
            title = f"{channel.name}: {'turn' if found.inverted[k] else 'turn back'} its polarity"
            made.append(
                Step(
                    "inverted",
                    k,
                    title,
                    _turns(found, k, design) + doubtful,
                    (("inverted", found.inverted[k]),),
                )
            )
        delay = round(found.delays[k] * 1e6) / 1e6
        made.append(_number(channel, k, "delay", delay, _late(found, k, design), _ms(rate, speed)))
    return made


def _decibels(value: float) -> str:
    return f"{decibels(value)} dB"


def _ms(rate: float, speed: float) -> Callable[[float], str]:
    def _text(value: float) -> str:
        ms, samples, _ = offset_in(value, rate, speed)
        length = told(value * speed, "length", "mm", 0)
        return f"{figure(ms, 3)} ms = {figure(samples, 1)} samples = {length}"

    return _text


def _number(
    channel: Channel, k: int, name: str, value: float, why: str, text: Callable[[float], str]
) -> Step:
    now = getattr(channel, name)
    label = "level" if name == "gain" else "delay"
    close = abs(now - value) < (0.005 if name == "gain" else 2e-7)
    title = f"{channel.name}: {label} {text(value)}"
    return Step(name, k, title, why, () if close else ((name, value),))


def _turns(found: LineUp, k: int, design: Design) -> str:
    for pair in found.pairs:
        if k in (pair.crossover.lower, pair.crossover.higher):
            return hole_sentence(design, pair) or "so that both neighbours sum"
    return ""


def _late(found: LineUp, k: int, design: Design) -> str:
    """Why a delay: the best against the offset of the arrivals, and the runner-up."""
    for pair in found.pairs:
        if pair.crossover.higher != k:
            continue
        best, other = pair.found.best, pair.found.runner_up
        lower = design.voice.channels[pair.crossover.lower].name
        said = f"against {lower} {figure(best.delay * 1e3, 3)} ms"
        starts = found.arrivals[pair.crossover.lower], found.arrivals[k]
        if starts[0] is not None and starts[1] is not None:
            offset = (starts[0].delay - starts[1].delay) * 1e3
            said += f" (arrivals alone: {figure(offset, 3)})"
        if other is not None:
            worse = abs(best.worth - other.worth)
            turned = "turned" if other.inverted != best.inverted else "another period"
            said += f"; {turned}: {figure(worse, 2)} dB less"
        return said
    return "the first way; delays start from the one that comes last"


def taken(design: Design, chosen: Sequence[Step]) -> Design:
    """The design with some steps taken."""
    for step in chosen:
        path = ("voice", "channels", step.channel)
        channel = design.voice.channels[step.channel]
        changes = dict(step.change)
        if changes:
            design = replace_at(design, path, rebuilt(channel, **changes))
    return design


def offset_facts(assessment: Assessment, a: Acoustic, found: LineUp) -> list[Fact]:
    """When each way arrives against the first one, by its excess phase or its place."""
    design, rows = assessment.design, []
    rate, speed = float(design.power.dsp.sample_rate), float(a.scene.air.speed)
    first = found.arrivals[0]
    for k, channel in enumerate(design.voice.channels):
        own = found.arrivals[k]
        if k == 0 or own is None or first is None:
            continue
        ms, samples, _ = offset_in(own.delay - first.delay, rate, speed)
        length = told((own.delay - first.delay) * speed, "length", "mm", 1)
        value = f"{figure(ms, 3)} ms = {figure(samples, 1)} samples = {length}"
        measured = a.scene.ways.measured[k] is not None
        source = "excess phase of its curve" if measured else "its place, as the model has it"
        turned = "; it arrives turned" if own.inverted != first.inverted else ""
        rows.append(
            Fact(
                f"Offset of {channel.name}",
                f"{value}{turned}",
                "close" if own.doubtful else "",
                f"Its arrival less that of {design.voice.channels[0].name}, from the {source}."
                + (" Doubtful: the phase is no plain delay there." if own.doubtful else ""),
            )
        )
    return rows


def hole_sentence(design: Design, pair: LinedPair) -> str:
    """Polarity advice in words: "invert mid: the hole at 1.8 kHz fills by 17 dB"."""
    if pair.crossover.quadrature or pair.now.hole <= HOLE:
        return ""
    name = design.voice.channels[pair.crossover.higher].name
    return (
        f"invert {name}: the hole at {hz(pair.now.hole_frequency)} fills by "
        f"{figure(pair.now.hole, 0)} dB"
    )


def pair_facts(assessment: Assessment, a: Acoustic) -> list[Fact]:
    """How every two ways that meet follow each other."""
    design, found = assessment.design, []
    for crossover in crossovers(design.voice):
        names = names_of(design)
        title = f"{names[crossover.lower]} to {names[crossover.higher]}"
        now = tracking(present_pair(assessment, a, crossover), crossover.frequency)
        if crossover.quadrature:
            found.append(Fact(title, f"{figure(now.loss, 1)} dB at worst", "", ODD))
            continue
        found += _tracked(title, now)
    return found


def _tracked(title: str, now: Tracking) -> list[Fact]:
    null = f"over {TOO_DEEP:g}" if now.null > TOO_DEEP else figure(now.null, 0)
    good = now.null >= IN_STEP
    rows = [
        Fact(
            title,
            f"sum within {figure(abs(now.loss), 1)} dB of full",
            "met" if now.loss > -1 else "close" if now.loss > -3 else "short",
            f"Phase apart by {degrees(now.difference_max):.0f}° at most in the crossover octave, "
            f"{degrees(now.difference_rms):.0f}° on the mean.",
        ),
        Fact(
            "One turned",
            f"a hole of {null} dB at {hz(now.null_frequency)}",
            "met" if good else "close",
            "Reverse null: the deeper the hole when one way is turned, the better they are in "
            f"phase. {IN_STEP:g} dB and more: well in phase.",
        ),
    ]
    if now.hole > HOLE:
        rows[1] = Fact(
            "Polarity",
            f"inverting one fills {figure(now.hole, 0)} dB at {hz(now.hole_frequency)}",
            "short",
            "The two ways cancel there. Turn one of them, or line them up.",
        )
    return rows


REASONS = {
    "travel": "cone travel",
    "heat": "coil heat",
    "sheet": "the sheet",
    "beaming": "beaming, −6 dB at 45°",
    "lumped": "ka = 3, where cones stop moving as one",
    "unknown": "nothing that is known",
}


def range_sentence(design: Design, found: Crossing) -> str:
    """The proposed range with its reasons, or which two disagree."""
    low, high = names_of(design)[found.crossover.lower], names_of(design)[found.crossover.higher]
    r = found.range
    why_low, why_high = f"{REASONS[r.low_reason]}, a fifth to spare", REASONS[r.high_reason]
    if not r.agrees:
        octaves = figure(r.low / r.high, 2) if r.low < inf else "any"
        start = "no corner is safe" if r.low == inf else f"{high} wants {hz(r.low)} or more"
        return (
            f"No range: {start} ({why_low}), {low} {hz(r.high)} or less ({why_high}); "
            f"they are a factor of {octaves} apart."
        )
    inside = r.low <= found.crossover.frequency <= r.high
    now = "inside it" if inside else "outside it"
    bottom = "any low corner" if r.low == 0 else f"{hz(r.low)} ({high}: {why_low})"
    return (
        f"From {bottom} to {hz(r.high)} ({low}: {why_high}); it is at "
        f"{hz(found.crossover.frequency)}, {now}."
    )


def crossing_facts(design: Design, found: Crossing) -> list[Fact]:
    """The limits behind a range, both schools: what dispersion asks and what the part bears."""
    names = names_of(design)
    low, high = names[found.crossover.lower], names[found.crossover.higher]
    lower, higher = found.lower, found.higher
    how = "measured" if lower.measured else "rigid piston"
    rows = [
        Fact(f"{low} begins to beam", hz(lower.begins_to_beam), "", "ka = 2 of its cone."),
        Fact(f"{low} −6 dB at 45°", _limit(lower.falls), "", f"{how.capitalize()}."),
        Fact(f"{high} by travel", _limit(higher.by_travel), "", _bears(found, "its Xmax")),
        Fact(f"{high} by heat", _limit(higher.by_heat), "", _bears(found, "its rated power")),
    ]
    for name, way, side in ((high, higher, 0), (low, lower, 1)):
        stated = way.recommended[side]
        word = "from" if side == 0 else "up to"
        text = "not stated" if stated is None else f"{word} {hz(stated)}"
        rows.append(
            Fact(f"{name} by its sheet", text, "", "Parts, “Recommended from” and “up to”.")
        )
    return rows


def _bears(found: Crossing, what: str) -> str:
    volts = figure(found.higher.volts, 1)
    return (
        f"Lowest corner of the present slope at which {what} holds at the promised level "
        f"({volts}{THIN_SPACE}V rms)."
    )


def _limit(value: float | None) -> str:
    if value is None:
        return "not known"
    if value == 0:
        return "no limit"
    return "beyond every corner" if value == inf else hz(value)


def cost_sentence(cost: Cost) -> str:
    """What a changed voice costs, in words."""
    parts = []
    if cost.loudness is not None:
        parts.append(f"loudness {decibels(cost.loudness)} dB")
    if cost.reach is not None:
        parts.append(f"bass reach {decibels(cost.reach)} Hz")
    if cost.runtime is not None:
        parts.append(f"runtime {decibels(cost.runtime / 3600, 2)} h")
    if cost.travel is not None:
        parts.append(f"travel to spare {decibels(cost.travel)} dB")
    parts.append(f"{cost.filters:+d} filters".replace("-", "−"))
    return ", ".join(parts)


def chosen_pair(found: LineUp, criterion: Criterion) -> str:
    """By what the delays were judged."""
    return "phases match best" if criterion == "phase" else "the sum is loudest"
