"""Edits of the brief."""

from firecrest.design.brief import Edges
from firecrest.design.design import Design
from firecrest.design.edits.paths import replace_at


def with_edges(design: Design, edges: Edges) -> tuple[str, Design]:
    """(label, design) with what is reckoned with beyond small signals."""
    return "What is reckoned with", replace_at(design, ("brief", "edges"), edges)
