"""A protection high-pass: where the low-note check asks for one, and what it costs."""

import dataclasses

from firecrest.assessment.assess import Assessment
from firecrest.design.design import Design
from firecrest.design.voice import HighPass


def wanted_corner(assessment: Assessment) -> float | None:
    """Lowest second-order corner in Hz that lets a held low note pass; None when none is asked
    for, or none does.
    """
    acoustic = assessment.acoustic
    if acoustic is None or acoustic.low_note is None or acoustic.low_note.passed:
        return None
    return acoustic.low_note.high_pass


def with_high_pass(design: Design, corner: float) -> Design:
    """A second-order Butterworth high-pass at ``corner`` Hz, last in every chain that plays bass.

    A chain with a high-pass an octave above it already is left alone.
    """
    added = HighPass(kind="high_pass", frequency=corner)
    channels = tuple(
        channel
        if any(b.kind == "high_pass" and b.frequency >= 2 * corner for b in channel.blocks)
        else dataclasses.replace(channel, blocks=(*channel.blocks, added))
        for channel in design.voice.channels
    )
    voice = dataclasses.replace(design.voice, channels=channels)
    return dataclasses.replace(design, voice=voice)
