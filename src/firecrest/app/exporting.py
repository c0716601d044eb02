"""What leaves the window as a file: one registry of formats, written whole or not at all.

Pictures are given as a function that paints them into a rectangle, tables as titles and rows.
"""

import csv
import io
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtCore import QBuffer, QMarginsF, QRectF, QSizeF
from PySide6.QtGui import (
    QImage,
    QPagedPaintDevice,
    QPageLayout,
    QPageSize,
    QPainter,
    QPdfWriter,
    QTextDocument,
)
from PySide6.QtSvg import QSvgGenerator

from firecrest.core.errors import FileError
from firecrest.files.atomic import write_file

SHARP = 2.0
"""Pixels of an image to one on the screen."""
MARGIN_MM, DOTS_PER_INCH = 18, 300


@dataclass(frozen=True)
class Picture:
    """What is painted: its title, its size in pixels on the screen, and how."""

    title: str
    size: QSizeF
    paint: Callable[[QPainter, QRectF], None]


@dataclass(frozen=True)
class Table:
    """Titles of the columns, and rows of texts or figures."""

    heads: Sequence[str]
    rows: Sequence[Sequence[object]]


def cell_text(value: object) -> str:
    """A cell as text; what is not known is empty, never a word of the machine's."""
    if isinstance(value, float):
        return f"{value:.6g}" if math.isfinite(value) else ""
    return "" if value is None else str(value)


def image_of(picture: Picture) -> QImage:
    """A picture as pixels, sharper than on the screen."""
    image = QImage((picture.size * SHARP).toSize(), QImage.Format.Format_RGB32)
    painter = QPainter(image)
    painter.scale(SHARP, SHARP)
    picture.paint(painter, QRectF(0, 0, picture.size.width(), picture.size.height()))
    painter.end()
    return image


def _png(picture: Picture) -> bytes:
    buffer = QBuffer()
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    image_of(picture).save(buffer, "PNG")  # type: ignore[call-overload]
    return bytes(buffer.data().data())


def _svg(picture: Picture) -> bytes:
    buffer = QBuffer()
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    drawing = QSvgGenerator(QSvgGenerator.SvgVersion.Svg11)  # 1.2 Tiny has no clipping
    drawing.setOutputDevice(buffer)
    area = QRectF(0, 0, picture.size.width(), picture.size.height())
    drawing.setSize(picture.size.toSize())
    drawing.setViewBox(area)
    drawing.setTitle(picture.title)
    painter = QPainter(drawing)
    picture.paint(painter, area)
    painter.end()
    return bytes(buffer.data().data())


def _page(title: str) -> tuple[QBuffer, QPdfWriter]:
    """An empty A4 page; a picture wider than high lies on its side."""
    buffer = QBuffer()
    buffer.open(QBuffer.OpenModeFlag.WriteOnly)
    page = QPdfWriter(buffer)
    page.setPageSize(QPageSize(QPageSize.PageSizeId.A4))
    page.setPageMargins(QMarginsF(*[MARGIN_MM] * 4), QPageLayout.Unit.Millimeter)
    page.setResolution(DOTS_PER_INCH)
    page.setTitle(title)
    return buffer, page


def _pdf(picture: Picture) -> bytes:
    buffer, page = _page(picture.title)
    if picture.size.width() > picture.size.height():
        page.setPageOrientation(QPageLayout.Orientation.Landscape)
    painter = QPainter(page)
    scale = min(page.width() / picture.size.width(), page.height() / picture.size.height())
    painter.scale(scale, scale)
    picture.paint(painter, QRectF(0, 0, picture.size.width(), picture.size.height()))
    painter.end()
    return bytes(buffer.data().data())


def table_csv(table: Table) -> bytes:
    """Commas, points, one row a line."""
    text = io.StringIO(newline="")
    csv.writer(text).writerows([table.heads, *([cell_text(v) for v in r] for r in table.rows)])
    return text.getvalue().encode()


def document_pdf(document: QTextDocument, title: str) -> bytes:
    """A text with pictures, as many pages as it takes."""
    buffer, page = _page(title)
    print_document(document, page)
    return bytes(buffer.data().data())


def print_document(document: QTextDocument, device: QPagedPaintDevice) -> None:
    """Lay a document out for the pages of ``device``, and paint them."""
    document.print_(device)


PICTURES: dict[str, tuple[str, Callable[[Picture], bytes]]] = {
    ".png": ("Picture (*.png)", _png),
    ".svg": ("Drawing (*.svg)", _svg),
    ".pdf": ("Page (*.pdf)", _pdf),
}
TABLES: dict[str, tuple[str, Callable[[Table], bytes]]] = {".csv": ("Table (*.csv)", table_csv)}


def kinds(*, picture: bool = True, table: bool = True) -> str:
    """Kinds of file as a file dialog lists them."""
    rows = [*(PICTURES.values() if picture else ()), *(TABLES.values() if table else ())]
    return ";;".join(words for words, _ in rows)


def export(path: Path, picture: Picture | None = None, table: Table | None = None) -> None:
    """Write a picture or a table in the format of the suffix of ``path``.

    FileError names the formats there are, or why it was not written; nothing is left half done.
    """
    suffix = path.suffix.lower()
    if picture is not None and suffix in PICTURES:
        write_file(path, PICTURES[suffix][1](picture))
    elif table is not None and suffix in TABLES:
        write_file(path, TABLES[suffix][1](table))
    else:
        known = [*(PICTURES if picture else ()), *(TABLES if table else ())]
        raise FileError(f"{path.name}: choose a name that ends in {', '.join(known)}.")
