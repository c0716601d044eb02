"""What is said of limiters: thresholds, the part that gives first, and what they cost."""

from firecrest.assessment.assess import Assessment
from firecrest.assessment.protection import wanted_corner
from firecrest.assessment.voicing.guarding import Guard, attack_of
from firecrest.core.units import figure
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.fields import FieldFacts, field_facts
from firecrest.design.voice import Channel
from firecrest.present.size.facts import Fact
from firecrest.present.voice.plots import hz

PARTS = {
    "cone": "cone travel",
    "radiator": "radiator travel",
    "port": "port air speed",
    "current": "amp current",
    "swing": "amp voltage",
}


def guard_facts(assessment: Assessment, channel: int, found: Guard) -> list[Fact]:
    """What a channel's limiters should be set to, and why."""
    own = assessment.design.voice.channels[channel]
    rows = []
    helpless = [PARTS.get(key, key) for key, low in found.allowed.items() if low.volts <= 0]
    if helpless:
        parts = ", ".join(helpless)
        rows.append(
            Fact("Beyond any limiter", parts, "short", "Bears nothing at all: see its sheet.")
        )
    elif found.peak is None:
        rows.append(
            Fact(
                "Peak limiter",
                "not needed",
                "met",
                "No sine that the board can give gets any part past its limit.",
            )
        )
    if found.peak is not None:
        first = PARTS.get(found.peak.first, found.peak.first)
        rows.append(
            Fact(
                "Peak limiter",
                f"{figure(found.peak.volts_set, 1)} V, {figure(found.peak.dbfs_set, 1)} dBFS",
                _set(own.limiter, found.peak.volts_set),
                f"{first} gives out first, at {figure(found.peak.volts, 2)} V peak. It takes "
                f"{figure(found.cost, 1)} dB of the loudest note this channel could play.",
            )
        )
    for key, lowest in sorted(found.allowed.items(), key=lambda item: item[1].volts):
        at = "at every note" if lowest.frequency is None else f"at {hz(lowest.frequency)}"
        rows.append(Fact(PARTS.get(key, key), f"{figure(lowest.volts, 1)} V {at}"))
    if found.long_term is not None:
        long = found.long_term
        if long.needed:
            value = f"{figure(long.threshold.volts_set, 1)} V rms"
            mark = _set(own.limiter_rms, long.threshold.volts_set)
        else:
            value, mark = "not needed", "met"
        tau = attack_of(assessment, channel)
        attack = "attack 1 s, an estimate" if tau is None else f"attack {figure(tau, 2)} s"
        rows.append(
            Fact(
                "Long-term limiter",
                value,
                mark,
                f"Its coil bears {figure(long.threshold.volts, 1)} V rms of this "
                f"programme; the loudest is {figure(long.loudest, 1)} V rms. {attack}.",
            )
        )
    return rows


def high_pass_facts(assessment: Assessment) -> list[Fact]:
    """The high-pass that keeps held low notes within limits: it costs less than a limiter."""
    corner = wanted_corner(assessment)
    if corner is None:
        return []
    return [
        Fact(
            "A high-pass instead",
            f"second order at {figure(corner, 1)} Hz",
            "close",
            "The lowest one with which a held low note keeps every part within its limit. It takes "
            "bass below what is promised, a limiter takes level from all notes. Next moves add it.",
        )
    ]


def _set(now: float | None, wanted: float) -> str:
    return "short" if now is None or now > wanted * 1.005 else "met"


def guarded(assessment: Assessment, channel: int, found: Guard, design: Design) -> Design:
    """``design`` with the thresholds of one channel set, no higher than they can be.

    DesignError where one would have to be lower than can be set.
    """
    changes: dict[str, object] = {}
    if found.peak is not None:
        changes["limiter"] = _settable("limiter", round(found.peak.volts_set, 2))
    if found.long_term is not None and found.long_term.needed:
        threshold = round(found.long_term.threshold.volts_set, 2)
        changes["limiter_rms"] = _settable("limiter_rms", threshold)
        attack, facts = attack_of(assessment, channel) or 1.0, _facts("limiter_attack")
        changes["limiter_attack"] = min(max(attack, facts.low), facts.high)
    if not changes:
        return design
    path = ("voice", "channels", channel)
    return replace_at(design, path, rebuilt(design.voice.channels[channel], **changes))


def _settable(name: str, wanted: float) -> float:
    """A figure of a channel's limiters, at most as large as its field takes."""
    return min(wanted, _facts(name).high)


def _facts(name: str) -> FieldFacts:
    facts = field_facts(Channel, name)
    assert facts is not None
    return facts
