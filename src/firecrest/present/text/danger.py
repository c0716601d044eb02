"""What would hurt someone or burn, as sentences that lead to the field that ends it."""

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.dangers import dangers
from firecrest.design.edits.paths import Path
from firecrest.present.text.notes import said
from firecrest.present.text.pieces import Piece, Sentence

SOURCE: Path = ("power", "source")
FIELDS: dict[str, Path] = {
    "no protection board": (*SOURCE, "series"),
    "board above cells": (*SOURCE, "board", "max_current"),
    "charger too strong": (*SOURCE, "charger", "current"),
    "charger too high": (*SOURCE, "charger", "voltage"),
    "charged below freezing": ("brief", "conditions", "temperature"),
    "step up overfed": ("power", "converters", 0, "output_voltage"),
}


def danger_sentences(assessment: Assessment) -> list[Sentence]:
    """Every danger, the worst first; they stand before everything else."""
    return [
        Sentence("short", (Piece("Danger", FIELDS[found.code]), Piece(f": {said(found)}")))
        for found in dangers(assessment.design)
    ]
