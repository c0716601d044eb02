"""The promises as a table: predicted, promised, margin and state, in words."""

from firecrest.assessment.assess import Assessment
from firecrest.present.text import words

HEADS = ("", "predicted", "promised", "margin", "state")


def promise_rows(assessment: Assessment) -> list[tuple[str, ...]]:
    """One row a promise, below ``HEADS``."""
    design = assessment.design
    rows: list[tuple[str, ...]] = []
    for p in assessment.promises:
        unit = words.promise_unit(p.key, design)
        predicted = words.numeral(p, design)
        if p.predicted is not None and unit.unit != "€":
            predicted = f"{predicted} {unit.unit}" + (" to spare" if p.key == "size" else "")
        target = "–" if p.state == "none" else words.target_text(p, design)
        state = "wish missed" if p.wish_missed else words.STATE_WORDS[p.state]
        name = words.PROMISE_NAMES[p.key]
        rows.append((name, predicted, target, words.margin_text(p, design), state))
    return rows
