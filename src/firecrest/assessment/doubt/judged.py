"""Promises judged by their doubt too."""

from collections.abc import Sequence
from dataclasses import replace

from firecrest.assessment.assess import Assessment
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.verdicts import Promise
from firecrest.core.uncertainty.spread import Band


def worst_of(promises: Sequence[Promise], doubt: Doubt) -> str | None:
    """The promise that is nearest to being broken, or furthest beyond, measured by its doubt."""
    ranked = [
        (p.importance != "must", p.margin / doubt.bands[p.key].width, p.key)
        for p in promises
        if p.importance != "open"
        and p.margin is not None
        and p.key in doubt.bands
        and doubt.bands[p.key].width > 0
    ]
    return min(ranked)[2] if ranked else None


def with_doubt(assessment: Assessment, doubt: Doubt) -> Assessment:
    """The assessment whose promises are close where their target lies inside their band."""
    promises = tuple(_judged(p, doubt.bands.get(p.key)) for p in assessment.promises)
    return replace(assessment, promises=promises, doubt=doubt)


def _judged(promise: Promise, found: Band | None) -> Promise:
    if found is None or promise.importance == "open":
        return promise
    unsure = promise.state in ("met", "short") and found.undecided
    return replace(promise, band=found, state="close" if unsure else promise.state)
