"""A page for paper: the promises, why, what is assumed, and the plots of the stage on show."""

from collections.abc import Sequence

from PySide6.QtCore import QUrl
from PySide6.QtGui import QTextDocument

from firecrest.app.exporting import Picture, image_of
from firecrest.app.theme.style import TEXT_FAMILY
from firecrest.app.widgets.plain import markup
from firecrest.assessment.assess import Assessment
from firecrest.present.promise.table import HEADS, promise_rows
from firecrest.present.text.edges import assumed
from firecrest.present.text.helping import why_and_what_helps

PLOT_WIDTH, SMALLER = 500.0, 0.8
STYLE = (
    f"* {{ font-family: '{TEXT_FAMILY}'; font-size: 10pt; color: black; }}"
    " h1 { font-size: 16pt; } h2 { font-size: 12pt; } td { padding: 2px 10px 2px 0; }"
)


def page_of(assessment: Assessment, stage: str, plots: Sequence[Picture]) -> QTextDocument:
    """The page as a document; its plots stand below what is said."""
    document = QTextDocument()
    document.setDefaultStyleSheet(STYLE)
    design = assessment.design
    parts = [f"<h1>{markup(design.name)}</h1>", f"<p>{markup(design.note)}</p>"]
    cells = [HEADS, *promise_rows(assessment)]
    rows = ("".join(f"<td>{markup(cell)}</td>" for cell in row) for row in cells)
    parts.append(f"<table>{''.join(f'<tr>{row}</tr>' for row in rows)}</table>")
    why = [sentence.plain for sentence in why_and_what_helps(assessment)]
    parts += [_list("Why", why), _list("What the figures assume", assumed(assessment))]
    for place, plot in enumerate(sorted(plots, key=lambda p: -p.size.width())):
        name = f"plot{place}"
        document.addResource(
            QTextDocument.ResourceType.ImageResource.value, QUrl(name), image_of(plot)
        )
        parts.append(f"<h2>{markup(stage)}: {markup(plot.title)}</h2>")
        parts.append(f'<p><img src="{name}" width="{_width(plot):.0f}"></p>')
    document.setHtml("".join(parts))
    return document


def _width(plot: Picture) -> float:
    """Points a plot is wide on paper: small ones stay small."""
    return float(min(plot.size.width() * SMALLER, PLOT_WIDTH))


def _list(title: str, items: Sequence[str]) -> str:
    if not items:
        return ""
    return f"<h2>{title}</h2><ul>{''.join(f'<li>{markup(item)}</li>' for item in items)}</ul>"
