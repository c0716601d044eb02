"""The comparison as rows of text, for tables and the command line; and as plain data."""

from collections.abc import Mapping, Sequence
from typing import Any

from firecrest.design.edits.paths import dotted
from firecrest.present.compare.columns import Compared, reaches
from firecrest.present.compare.differing import Difference
from firecrest.present.report import clean
from firecrest.present.text import words

HEADS = ("",)


def comparison_rows(
    columns: Sequence[Compared], differences: Sequence[Difference]
) -> list[list[str]]:
    """Rows below a head of variants: standing, promises, reaches, what differs."""
    rows = [["standing", *(c.standing for c in columns)]]
    for key, name in words.PROMISE_NAMES.items():
        rows.append([name, *(_promise(c, key) for c in columns)])
        likely = [_likely(c, key) for c in columns]
        if any(likely):
            rows.append([f"{name}, likely", *likely])
    both = [reaches(c.assessment) for c in columns]
    rows.append(["F3 / F6 / F10, Hz", *(small for small, _ in both)])
    rows.append(["the same at the promise, Hz", *(level for _, level in both)])
    rows += [[d.label, *(d.values.get(c.letter, "–") for c in columns)] for d in differences]
    return rows


def _likely(column: Compared, key: str) -> str:
    return words.likely_range(column.assessment.promise(key), column.assessment.design)


def _promise(column: Compared, key: str) -> str:
    """Value and margin."""
    meter = column.meters[key]
    unit = f" {meter.unit}" if meter.unit else ""
    return f"{meter.numeral}{unit}, {meter.margin}"


def comparison_report(
    columns: Sequence[Compared], differences: Sequence[Difference]
) -> dict[str, Any]:
    """The comparison in SI."""
    plain: dict[str, Any] = clean(
        {
            "format": "firecrest-compare-1",
            "name": columns[0].assessment.design.name,
            "variants": [_variant(c) for c in columns],
            "differences": [_difference(d) for d in differences],
        }
    )
    return plain


def _difference(row: Difference) -> Mapping[str, Any]:
    return {
        "label": row.label,
        "path": dotted(row.path),
        "values": dict(row.values),
        "effect": row.effect,
    }


def _variant(column: Compared) -> Mapping[str, Any]:
    own, a = column.variant, column.assessment
    small, level = reaches(a)
    return {
        "letter": own.letter,
        "name": own.name,
        "standing": own.standing,
        "in_force": column.here,
        "promises": {
            p.key: {
                "predicted": p.predicted,
                "target": p.target,
                "margin": p.margin,
                "state": p.state,
                "low": p.band.low if p.band else None,
                "high": p.band.high if p.band else None,
                "kept": p.band.kept if p.band else None,
            }
            for p in a.promises
        },
        "reaches": {"small_signal": small, "at_level": level},
    }
