"""Edits of ways: measured curves attached, replaced, removed; places of crossovers moved."""

from collections.abc import Sequence
from math import pi

from firecrest.core.errors import DesignError
from firecrest.design.curve import WayCurve
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, set_number

SAME_ANGLE = pi / 720
"""Curves closer than a quarter of a degree are of one angle."""
MOST = 48


def _path(channel: int) -> Path:
    return ("voice", "channels", channel, "response")


def with_curves(design: Design, channel: int, curves: Sequence[WayCurve]) -> tuple[str, Design]:
    """(label, design) with curves attached to a way, each in place of one at the same angle."""
    response = design.voice.channels[channel].response
    kept = [
        old
        for old in response.curves
        if all(abs(old.angle - new.angle) > SAME_ANGLE for new in curves)
    ]
    whole = sorted((*kept, *curves), key=lambda curve: curve.angle)
    if len(whole) > MOST:
        raise DesignError(f"A way holds up to {MOST} curves.")
    made = rebuilt(response, curves=tuple(whole))
    name = design.voice.channels[channel].name
    count = "a curve" if len(curves) == 1 else f"{len(curves)} curves"
    return f"Attach {count} to {name}", replace_at(design, _path(channel), made)


def crossed_at(
    design: Design, lower: tuple[int, int], higher: tuple[int, int], frequency: float
) -> tuple[str, Design]:
    """(label, design) with the corners of two ways at one ``frequency`` in Hz.

    ``lower`` and ``higher`` are (channel, place in its chain) of the low-pass and the high-pass.
    """
    for channel, place in (lower, higher):
        path = ("voice", "channels", channel, "blocks", place, "frequency")
        design = set_number(design, path, round(frequency, 1))
    return f"Cross at {frequency:.0f} Hz", design


def without_curve(design: Design, channel: int, place: int) -> tuple[str, Design]:
    """(label, design) without one curve of a way."""
    response = design.voice.channels[channel].response
    gone = response.curves[place]
    kept = (*response.curves[:place], *response.curves[place + 1 :])
    label = f"Remove {gone.name}"
    return label, replace_at(design, _path(channel), rebuilt(response, curves=kept))


def without_curves(design: Design, channel: int) -> tuple[str, Design]:
    """(label, design) with a way that sounds as its model says."""
    response = design.voice.channels[channel].response
    name = design.voice.channels[channel].name
    made = rebuilt(response, curves=())
    return f"Remove the curves of {name}", replace_at(design, _path(channel), made)
