"""The independent results for the voice, and their text curves."""

import json
from pathlib import Path

from firecrest.core.curve_text import read_curve
from firecrest.core.voice.chain import Filter
from firecrest.core.voice.response import Response, response_of

HERE = Path(__file__).parent / "data" / "voice"
NAMES = {"gain": "gain_db"}


def data(name):
    return json.loads((HERE / name).read_text())


def block_of(row):
    """A filter block of the reference as plain numbers."""
    return Filter(**{NAMES.get(key, key): value for key, value in row.items()})


def curve(name) -> Response:
    """A text curve, read as the program reads those of its users."""
    points = read_curve((HERE / name).read_text(), name)
    return response_of(points.frequency, points.magnitude, points.phase)
