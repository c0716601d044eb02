"""A delay as samples of the board and as a path: computed figures that write the stored one."""

from typing import Literal

from firecrest.assessment.assess import Assessment
from firecrest.assessment.conditions import air_of
from firecrest.design.design import Design
from firecrest.design.edits.parts import set_figure
from firecrest.design.edits.paths import Path
from firecrest.design.fields import FieldFacts
from firecrest.present.frame.bindings import Binding

Measure = Literal["samples", "path"]
LONGEST = 0.1
"""S that a channel may come later."""


def _per_second(design: Design, what: str) -> float:
    """Samples of the board, or metres at the temperature of the brief, in a second."""
    if what == "samples":
        return float(design.power.dsp.sample_rate)
    return float(air_of(design.brief.conditions).speed)


def delay_in(design: Design, channel: int, what: Measure) -> Binding:
    """Binding of a channel's delay in another measure."""
    stored: Path = ("voice", "channels", channel, "delay")
    most = LONGEST * _per_second(design, what)
    if what == "samples":
        facts = FieldFacts(
            "samples",
            "In samples",
            "",
            "number",
            "",
            2,
            0.0,
            most,
            False,
            False,
            "Of the board. Typing it sets the delay.",
        )
    else:
        facts = FieldFacts(
            "path",
            "As a path",
            "",
            "length",
            "mm",
            1,
            0.0,
            most,
            False,
            False,
            "How much further away its driver seems, at the temperature of the brief.",
        )

    def _read(assessment: Assessment) -> float | None:
        channels = assessment.design.voice.channels
        if channel >= len(channels):
            return None
        return channels[channel].delay * _per_second(assessment.design, what)

    def _write(design: Design, value: float | None) -> Design:
        return set_figure(design, stored, (value or 0.0) / _per_second(design, what))

    return Binding(("computed", f"delay {what}", channel), facts, _read, _write)
