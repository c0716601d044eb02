"""What helps where loudness is short, in words, beside what gives out first."""

from collections.abc import Iterator
from dataclasses import replace

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.memo import Memo
from firecrest.core.limits.ceiling import code_at
from firecrest.core.units import figure
from firecrest.design.design import Design
from firecrest.present.text.pieces import Piece, Sentence
from firecrest.present.text.sentences import why
from firecrest.present.text.units import told
from firecrest.present.text.words import joined
from firecrest.proposals.helps import Help, helps

TRIED = {
    "cells": "more cells",
    "volts": "more volts",
    "mass": "mass",
    "length": "port length",
    "boost": "less boost",
    "width": "port area",
    "radiator": "another radiator",
    "air": "more air",
    "polarity": "inverted ways",
}
WORTH = 0.2
"""dB of loudness below which a lever is not named."""


def what_helps(assessment: Assessment) -> str:
    """What brings most where loudness is short, against what gives out first; "" where it is not.

    Made of assessments: worth working out once the hand rests, not within an edit.
    """
    a = assessment.acoustic
    if a is None or a.loudness is None or not why_not_loud(assessment):
        return ""
    found = helps(assessment)
    if not found:
        return ""
    if found[0].loudness < WORTH:
        tried = joined(list(dict.fromkeys(TRIED[x.lever.kind] for x in found)))
        return f"No small change by itself helps; tried: {tried}."
    best = found[0]
    lever = _lever(assessment.design, best)
    text = f"{lever[0].upper()}{lever[1:]} helps most, {figure(best.loudness, 1)} dB"
    volts = next((x for x in found if x.lever.kind in ("cells", "volts")), None)
    code = code_at(a.limits[a.loudness.limit], a.loudness.point)
    if volts is not None and volts is not best and code in ("V", "P"):
        gain = figure(max(volts.loudness, 0.0), 1)
        text += f"; {_lever(assessment.design, volts)} would bring {gain} dB"
    return f"{text}."


def why_not_loud(assessment: Assessment) -> bool:
    """Whether loudness is owed, known and short: then what helps is worth asking."""
    a = assessment.acoustic
    owed = assessment.promise("loudness").importance != "open"
    return owed and a is not None and a.loudness is not None and a.loudness.margin < 0


def helping(design: Design) -> Iterator[str]:
    """``what_helps`` of a design, to be asked for beside the window."""
    yield what_helps(assess(design, Memo()))


def _lever(design: Design, found: Help) -> str:
    """A lever in words, as a subject."""
    lever = found.lever
    pairs = zip(design.voice.channels, lever.design.voice.channels, strict=True)
    turned = [now.name for now, then in pairs if now.inverted != then.inverted]
    more = "more" if lever.step > 0 else "less"
    return {
        "cells": "two more cells in series",
        "volts": "a supply of 20 % more volts",
        "mass": f"{told(abs(lever.step), 'mass', 'g', 0)} {more} on each radiator",
        "length": f"a port 15 % {'longer' if lever.step > 0 else 'shorter'}",
        "boost": "2\u202fdB less boost",
        "width": "a port 15 % wider",
        "radiator": "one more radiator",
        "air": "a tenth more air",
        "polarity": f"inverting {joined(turned) if turned else 'a way'}",
    }[lever.kind]


def with_help(sentences: list[Sentence], text: str) -> list[Sentence]:
    """The sentences with what helps told where loudness is."""
    if not text:
        return sentences
    return [
        replace(s, pieces=(*s.pieces, Piece(f" {text}"))) if s.about == "loudness" else s
        for s in sentences
    ]


def why_and_what_helps(assessment: Assessment) -> list[Sentence]:
    """The sentences, whole at once."""
    return with_help(why(assessment), what_helps(assessment))
