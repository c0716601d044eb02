"""How sure an assessment is, as data for other programs and as words for the command line."""

from collections.abc import Sequence
from typing import Any

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import Assessment
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.doubt.doubt import Unsure
from firecrest.design.edits.paths import dotted
from firecrest.present.report import clean
from firecrest.present.text import words

HEAD = "likely"


def doubt_report(doubt: Doubt, unsure: Sequence[Unsure]) -> dict[str, Any]:
    """Bands in SI, the ceiling's in dB, and what makes the doubt of the worst promise."""
    ceiling = None
    if doubt.low is not None:
        ceiling = {"frequency": EDIT_GRID, "low": doubt.low, "high": doubt.high}
    plain: dict[str, Any] = clean(
        {
            "promises": {
                key: {"low": band.low, "high": band.high, "kept": band.kept}
                for key, band in doubt.bands.items()
            },
            "ceiling": ceiling,
            "not_sure_of": [
                {
                    "owner": u.figure.owner,
                    "figure": u.figure.name,
                    "path": dotted(u.figure.path),
                    "tolerance": u.figure.tolerance,
                    "promise": u.promise,
                    "share": u.share,
                    "test": u.figure.test,
                }
                for u in unsure
            ],
        }
    )
    return plain


def likely_column(assessment: Assessment) -> list[str]:
    """The likely range of each promise, below ``HEAD``; "" where there is none."""
    return [words.likely_range(p, assessment.design) for p in assessment.promises]
