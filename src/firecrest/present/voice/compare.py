"""Two settings of the voice side by side, level-matched as the ear weighs them."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import programme_of
from firecrest.assessment.voicing.heard import VOICE_GRID, preset_heard, without_bands
from firecrest.assessment.voicing.lining import level_of
from firecrest.assessment.voicing.listening import Rendered
from firecrest.core.arrays import Complex
from firecrest.core.units import figure
from firecrest.core.voice.listening import loudness
from firecrest.design.design import Design
from firecrest.design.edits import presets
from firecrest.design.edits.paths import rebuilt
from firecrest.design.voice import Voice
from firecrest.present.plot.plot import FULL, Curve, Plot, nice_range
from firecrest.present.text.words import MATERIALS

WITHOUT = "without EQ"


@dataclass(frozen=True)
class Compared:
    """Two settings by name, their sums in Pa, and dB by which the first is louder.

    ``weighted`` as the ear weighs it, ``plain`` as power.
    """

    names: tuple[str, str]
    sums: tuple[Complex, Complex]
    weighted: float
    plain: float
    material: str


def settings_of(design: Design) -> list[str]:
    """What can be compared: all presets, and the present one without its bands."""
    return [*presets.names(design.voice), WITHOUT]


def voice_named(design: Design, name: str) -> Voice:
    """The voice of a setting."""
    if name == WITHOUT:
        channels = tuple(without_bands(channel) for channel in design.voice.channels)
        return rebuilt(design.voice, channels=channels)
    return presets.in_force(design.voice, name)


def compared(assessment: Assessment, a: Acoustic, first: str, second: str) -> Compared:
    """Both settings on the same box."""
    design = assessment.design
    sums = tuple(preset_heard(assessment, a, voice_named(design, n)) for n in (first, second))
    kind = programme_of(design.brief.listening).kind
    weighed, plain = (
        [loudness(VOICE_GRID, np.abs(p), kind, weighted=w) for p in sums] for w in (True, False)
    )
    return Compared(
        (first, second),
        (sums[0], sums[1]),
        weighed[0] - weighed[1],
        plain[0] - plain[1],
        design.brief.listening.material,
    )


def offsets(found: Compared) -> tuple[float, float]:
    """DB by which each is turned down: the louder one, never the softer one up."""
    return -max(found.weighted, 0.0), min(found.weighted, 0.0)


def compare_plot(found: Compared) -> Plot:
    """Both sums, level-matched."""
    levels = [level_of(p) + down for p, down in zip(found.sums, offsets(found), strict=True)]
    inside = (VOICE_GRID > 100) & (VOICE_GRID < 10e3)
    zero = float(np.mean(levels[0][inside]))
    high = max(float(np.max(level)) for level in levels) - zero
    y_range, step = nice_range(min(-24.0, high - 36), high + 2, (6, 10))
    curves = tuple(
        Curve(name, VOICE_GRID, level - zero, role, width, style, label_at=at)
        for name, level, role, width, style, at in (
            (found.names[0], levels[0], "olive", 2.8, "solid", 300.0),
            (found.names[1], levels[1], "ink", 2.0, "dashed", 4000.0),
        )
    )
    return Plot("Two settings", "frequency", FULL, y_range, step, "dB", curves)


def heard_sentence(made: Rendered) -> str:
    """What stands in the rendered sound."""
    parts = [f"level-matched by {figure(abs(made.louder), 1)} dB"]
    names = ("first", "second")
    for name, share in zip(names, made.over, strict=True):
        if share:
            parts.append(
                f"in the {name} a cone is past its travel {figure(100 * share, 1)} % of it"
            )
    if not any(made.over):
        parts.append("no cone passes its travel")
    return f"Rendered: {'; '.join(parts)}. Only travel is heard as distortion; heat is not."


def sentence(found: Compared) -> str:
    """By how much, and which one is turned down."""
    louder, softer = found.names if found.weighted >= 0 else found.names[::-1]
    by = abs(found.weighted)
    material = "pink noise" if found.material == "sine" else MATERIALS[found.material]
    if by < 0.05:
        return f"Both are equally loud with {material}, as the ear weighs it (K weighting)."
    return (
        f"“{louder}” is turned down by {figure(by, 1)} dB, so that both are equally loud with "
        f"{material} as the ear weighs it (K weighting); plain power would say "
        f"{figure(abs(found.plain), 1)} dB. “{softer}” is left as it is."
    )
