"""Promise less: the highest level, the lowest note, the longest time that would be kept."""

from collections.abc import Iterator
from contextlib import suppress
from math import ceil, floor

from firecrest.core.errors import FirecrestError
from firecrest.core.note import note
from firecrest.design.edits.paths import set_number
from firecrest.proposals.moves.kinds import Proposal, Scene

HALF_HOUR = 1800.0
ROUNDED = {
    "loudness": (("brief", "loudness", "level"), lambda v: floor(2 * v) / 2),
    "bass": (("brief", "bass", "frequency"), lambda v: ceil(v)),
    "runtime": (("brief", "runtime", "duration"), lambda v: floor(v / HALF_HOUR) * HALF_HOUR),
    "weight": (("brief", "weight", "mass"), lambda v: ceil(10 * v) / 10),
    "cost": (("brief", "cost", "price"), lambda v: float(ceil(v))),
}
"""Where a promise is stored, and the next round figure that is kept."""


def less(scene: Scene) -> Iterator[Proposal]:
    """Of every promise that is short and has a figure."""
    for promise in scene.assessment.promises:
        if promise.key not in ROUNDED or promise.predicted is None or promise.margin is None:
            continue
        if promise.importance != "must" or promise.margin >= 0:
            continue
        path, rounded = ROUNDED[promise.key]
        value = float(rounded(promise.predicted))
        title = note("less", key=promise.key, value=value)
        with suppress(FirecrestError):
            made = set_number(scene.design, path, value)
            yield Proposal("less", title, made, path, asks_less=True)
