"""A protection high-pass: where the low-note check asks for one, and what it costs."""

from math import ceil

from firecrest.assessment.assess import Assessment, assess
from firecrest.design.blocks import HighPass, followed, passes
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt

RAISES = 10


def wanted_corner(assessment: Assessment) -> float | None:
    """Lowest second-order corner in Hz that lets a held low note pass; None when none is asked
    for, or none does.
    """
    acoustic = assessment.acoustic
    if acoustic is None or acoustic.low_note is None or acoustic.low_note.passed:
        return None
    return acoustic.low_note.high_pass


def protected(assessment: Assessment) -> tuple[float, Design] | None:
    """(corner in Hz, design) with the lowest corner, to 0.1 Hz, with which the check is passed.

    The filter takes a little from the reference band too, for which the check then plays louder:
    its own corner is raised by 2 % at a time until the new design passes. None as above, or when
    ten raises do not help.
    """
    corner = wanted_corner(assessment)
    for _ in range(RAISES):
        if corner is None:
            return None
        corner = ceil(10 * corner) / 10
        design = with_high_pass(assessment.design, corner)
        if wanted_corner(assess(design)) is None:
            return corner, design
        corner *= 1.02
    return None


def with_high_pass(design: Design, corner: float) -> Design:
    """A second-order Butterworth high-pass at ``corner`` Hz in every chain that plays bass.

    It is the last of the board's own filters. A chain with a high-pass an octave
    above it already is left alone.
    """
    added = HighPass(kind="high_pass", frequency=corner)
    channels = tuple(
        channel
        if any(passes(b) == "high_pass" and b.frequency >= 2 * corner for b in channel.blocks)
        else rebuilt(channel, blocks=followed(channel.blocks, added))
        for channel in design.voice.channels
    )
    voice = rebuilt(design.voice, channels=channels)
    return rebuilt(design, voice=voice)
