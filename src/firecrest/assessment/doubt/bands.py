"""What is known of how sure an assessment is."""

from collections.abc import Mapping
from dataclasses import dataclass

from firecrest.core.arrays import Real
from firecrest.core.uncertainty.spread import Band


@dataclass(frozen=True)
class Doubt:
    """Bands by promise, and the ceiling's edges (F,) on ``EDIT_GRID`` where there is a ceiling."""

    bands: Mapping[str, Band]
    low: Real | None = None
    high: Real | None = None
