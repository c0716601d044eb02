"""Words and figures of the automatic EQ: its band, what it leaves, what it does not fill."""

import re
from itertools import pairwise

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.voicing.flattening import Flattening
from firecrest.assessment.voicing.heard import VOICE_GRID, ways_heard
from firecrest.assessment.voicing.lining import level_of
from firecrest.core.errors import ReadingError
from firecrest.core.reading import read_quantity
from firecrest.core.units import figure
from firecrest.core.voice.equaliser import Solved
from firecrest.present.size.facts import Fact
from firecrest.present.voice.plots import hz

USEFUL = 6.0
"""DB below its middle to which a response counts as its band."""
MOST_POINTS = 60


def band_of(assessment: Assessment, a: Acoustic) -> tuple[str, str]:
    """The band of the sum, half an octave in from where it falls by 6 dB, as fields show it."""
    heard = ways_heard(assessment, a)
    level = level_of(heard.whole)
    inside = (VOICE_GRID > 200) & (VOICE_GRID < 2000)
    loud = VOICE_GRID[(level > np.median(level[inside]) - USEFUL) & heard.inside]
    low, high = (float(loud[0]), float(loud[-1])) if len(loud) else (60.0, 10e3)
    low, high = max(low * 2**0.5, 40.0), min(high / 2**0.5, 16e3)
    if high < 2 * low:
        low, high = 100.0, 8000.0
    return f"{low:.0f} Hz", f"{high:.0f} Hz"


def read_points(text: str) -> tuple[tuple[float, float], ...]:
    """Points of a target: "100 Hz 3 dB, 1 kHz 0 dB". ReadingError says what cannot be read."""
    found = []
    for part in filter(None, re.split(r"[,;\n]\s*(?=[\d.])", text.strip())):
        match = re.fullmatch(r"\s*([\d.]+\s*k?(?:Hz)?)\s+([-−+]?[\d.]+)\s*(?:dB)?\s*", part)
        if match is None:
            raise ReadingError(
                f"“{part[:40]}” is no point. Write a frequency and a level: 100 Hz 3 dB."
            )
        level = float(match.group(2).replace("−", "-"))
        found.append((read_quantity(match.group(1), "frequency", "Hz"), level))
    if len(found) < 2 or len(found) > MOST_POINTS:
        raise ReadingError(f"A target needs 2 to {MOST_POINTS} points: 100 Hz 3 dB, 1 kHz 0 dB.")
    found.sort()
    if any(b[0] <= a[0] for a, b in pairwise(found)):
        raise ReadingError("Two points stand at one frequency.")
    return tuple(found)


def facts_of(asked: Flattening, found: Solved) -> list[Fact]:
    """What a solution leaves, and the dips that it does not fill."""
    task = asked.task
    before = task.rms(np.zeros(len(task.frequency)))
    rows = [
        Fact(
            "Left of it",
            f"{figure(found.rms, 2)} dB rms, was {figure(before, 2)}",
            "met",
            f"From {hz(task.band[0])} to {hz(task.band[1])}, each octave alike; the level is held.",
        )
    ]
    for dip in asked.dips:
        where = f"{hz(dip.low)} to {hz(dip.high)}"
        if dip.cancellation:
            rows.append(
                Fact(
                    "Not filled",
                    f"{where}, {figure(dip.depth, 0)} dB deep",
                    "close",
                    "Sound cancels there: a boost would cancel as well, and cost drive.",
                )
            )
    return rows
