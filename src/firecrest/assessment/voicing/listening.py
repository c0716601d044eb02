"""Two settings of a voice rendered to samples: through chain, ways and the limits of cones."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.acoustic import transfers_from
from firecrest.assessment.assess import assess
from firecrest.assessment.sound import voice_rows, whole_pressure
from firecrest.core.arrays import Complex, Real
from firecrest.core.voice.programme_sound import PROGRAMMES, RATE
from firecrest.core.voice.rendering import at_rate, frequencies, lacking, level_matched, through
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt
from firecrest.design.voice import Voice

LOUDEST = 0.8
"""Peak of what is written, of full scale."""


@dataclass(frozen=True)
class Rendered:
    """Two settings as samples at 48 kHz, level-matched; ``louder`` dB by which the first was.

    ``over`` is the share of time in which a cone was past its travel, of each setting; None where
    no travel is known.
    """

    first: Real
    second: Real
    louder: float
    over: tuple[float | None, float | None]


Source = str | tuple[Real, int]
"""A made-up programme by its name, or samples and how many a second."""


def rendered(
    design: Design, voices: tuple[Voice, Voice], source: Source, level: float
) -> Iterator[float | Rendered]:
    """Shares done, then both settings of a ``source``, played at ``level`` dB SPL.

    ``level`` is the long-term level at the listener, of the first setting.
    """
    yield 0.05
    samples = PROGRAMMES[source]() if isinstance(source, str) else at_rate(*source, RATE)
    made: list[tuple[Real, float | None]] = []
    drive: float | None = None
    for k, voice in enumerate(voices):
        yield 0.1 + 0.4 * k
        pressure, travels = _responses(rebuilt(design, voice=voice))
        plain = through(samples, pressure, RATE)
        if drive is None:
            rms = float(np.sqrt(np.mean(plain**2))) or 1.0
            drive = 20e-6 * 10 ** (level / 20) / rms
        yield 0.3 + 0.4 * k
        made.append(_limited(plain * drive, samples * drive, travels))
    first, second, louder = level_matched(made[0][0], made[1][0])
    top = max(float(np.max(np.abs(first))), float(np.max(np.abs(second))), 1e-12)
    scale = LOUDEST / top
    yield Rendered(
        (first * scale).astype(np.float32),
        (second * scale).astype(np.float32),
        louder,
        (made[0][1], made[1][1]),
    )


Travel = tuple[Complex, float, float]
"""Travel of a cone per unit input, its limit in m, and pascals per m/s2 of it."""


def _responses(design: Design) -> tuple[Complex, list[Travel]]:
    """Pressure per unit input at the rendering's frequencies, and every cone's travel."""
    a = assess(design).acoustic
    if a is None:
        return np.ones(len(frequencies(RATE)), dtype=np.complex128), []
    scene = a.scene.at(frequencies(RATE))
    rate = design.power.dsp.sample_rate
    rows = [voice_rows(channel, rate, scene.frequency) for channel in design.voice.channels]
    pressure = whole_pressure(scene, [row[-1] for row in rows])
    answers = transfers_from(scene, rows, [c.outputs for c in design.voice.channels])
    found: list[Travel] = []
    around, air = scene.around, scene.air
    for n, driver in enumerate(scene.model.network.drivers):
        limit = a.ratings.x_max[n]
        if limit is None:
            continue
        area = driver.count * float(driver.constants.s_d)
        pascals = float(air.density) * area / (float(around.solid_angle) * float(around.distance))
        found.append((answers.excursion[n], float(limit), pascals))
    return pressure, found


def _limited(heard: Real, played: Real, travels: list[Travel]) -> tuple[Real, float | None]:
    """What is heard with cones held at their travel, and the share of time in which one was."""
    if not travels:
        return heard, None
    over = np.zeros(len(played), dtype=bool)
    for response, limit, pascals in travels:
        travel = through(played, response, RATE)
        past = np.abs(travel) > limit
        if past.any():
            heard = heard - pascals * lacking(travel, limit, RATE)
            over |= past
    return heard, float(np.mean(over))
