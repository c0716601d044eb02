"""Wiring: every way to connect the drivers, what the board says to it, and a picture to print."""

from functools import partial
from math import inf
from pathlib import Path as FilePath

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.exporting import Picture, export, kinds
from firecrest.app.session import Session
from firecrest.app.theme.size import canvas, extent, fix
from firecrest.app.theme.style import text_font, title_font
from firecrest.app.theme.tokens import Theme
from firecrest.app.widgets.marks import Mark
from firecrest.app.widgets.plain import caution, label, tip
from firecrest.app.widgets.stepper import Stepper
from firecrest.present.parts import wiring
from firecrest.present.parts.wiring import COIL, Way, WiringPicture

PRINTED = Theme(dark=False)
"""Drawings to be printed always use the light set."""
WIDTHS = {"plus": 2.4, "minus": 2.4, "link": 1.8}
LARGEST_ON_SCREEN = 1.15
LEAST_WIDTH, NOTES = 420.0, 66.0


class WiringView(QWidget):
    """The picture on screen, as it will be printed."""

    def __init__(self) -> None:
        super().__init__()
        self.picture: WiringPicture | None = None
        fix(self, least_height=250)

    def show_picture(self, picture: WiringPicture) -> None:
        """Another picture."""
        self.picture = picture
        self.setAccessibleName(f"{picture.title}. {' '.join(picture.notes)}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.picture is not None:
            painter = canvas(self)
            paint_wiring(painter, extent(self), self.picture, LARGEST_ON_SCREEN)
            painter.end()


def paint_wiring(p: QPainter, area: QRectF, picture: WiringPicture, largest: float = inf) -> None:
    """The picture, as large as it fits into ``area``, on paper white."""
    p.setRenderHint(QPainter.RenderHint.Antialiasing)
    p.fillRect(area, QColor(PRINTED["field"]))
    width, height = max(picture.size[0], LEAST_WIDTH), picture.size[1] + NOTES
    scale = min(area.width() / width, area.height() / height, largest)
    p.save()
    p.translate(area.left(), area.top())
    p.scale(scale, scale)
    p.setPen(QColor(PRINTED["ink"]))
    p.setFont(title_font(13))
    wrapped = int(Qt.TextFlag.TextWordWrap)
    p.drawText(QRectF(12, 4, width - 24, 40), wrapped, picture.title)
    for wire in picture.wires:
        colour = QColor(PRINTED["flame"] if wire.role == "plus" else PRINTED["ink"])
        style = Qt.PenStyle.DashLine if wire.role == "link" else Qt.PenStyle.SolidLine
        p.setPen(QPen(colour, WIDTHS[wire.role], style))
        p.drawPolyline(QPolygonF([QPointF(x, y) for x, y in wire.points]))
    for coil in picture.coils:
        _coil(p, coil.x, coil.y, coil.label)
    for sign, (x, y) in (("+", picture.plus), ("−", picture.minus)):
        _terminal(p, x, y, sign)
    p.setPen(QColor(PRINTED["ink2"]))
    p.setFont(text_font(11))
    room = QRectF(12, picture.size[1] - 12, width - 24, NOTES + 12)
    p.drawText(room, wrapped, "\n".join(picture.notes))
    p.restore()


def _coil(p: QPainter, x: float, y: float, name: str) -> None:
    """A coil from its + end down, with both signs."""
    p.setPen(QPen(QColor(PRINTED["olive"]), 2.2))
    p.setBrush(QColor(PRINTED["olivet"]))
    p.drawRoundedRect(QRectF(x - 15, y, 30, COIL), 6, 6)
    p.setPen(QColor(PRINTED["ink"]))
    p.setFont(title_font(13))
    p.drawText(QRectF(x - 15, y + 2, 30, 18), int(Qt.AlignmentFlag.AlignCenter), "+")
    p.drawText(QRectF(x - 15, y + COIL - 20, 30, 18), int(Qt.AlignmentFlag.AlignCenter), "−")
    p.setFont(text_font(11))
    p.drawText(QPointF(x + 20, y + COIL / 2 + 4), name)


def _terminal(p: QPainter, x: float, y: float, sign: str) -> None:
    p.setPen(QPen(QColor(PRINTED["ink"]), 1.6))
    p.setBrush(QColor(PRINTED["field"]))
    p.drawEllipse(QPointF(x - 10, y), 10, 10)
    p.setFont(title_font(13))
    p.drawText(QRectF(x - 20, y - 10, 20, 20), int(Qt.AlignmentFlag.AlignCenter), sign)
    p.setFont(text_font(11))
    p.drawText(QRectF(x - 68, y - 10, 44, 20), int(Qt.AlignmentFlag.AlignRight), "amp")


def write_wiring(path: FilePath, picture: WiringPicture) -> None:
    """Save the picture for the bench in the format of the suffix of ``path``; FileError if not."""
    size = QSizeF(max(picture.size[0], LEAST_WIDTH), picture.size[1] + NOTES)

    def paint(painter: QPainter, area: QRectF) -> None:
        paint_wiring(painter, area, picture)

    export(path, Picture(picture.title, size, paint))


class WiringPage(QWidget):
    """Ways as rows over the picture of the one in force."""

    def __init__(self, session: Session, place: int) -> None:
        super().__init__()
        self.session, self.place = session, place
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 4, 8, 4)
        head = QHBoxLayout()
        head.addWidget(label("Drivers on each output", "section"))
        self.count = Stepper("", "Drivers on each output", 1, 8)
        self.count.stepped.connect(self._set_count)
        head.addWidget(self.count)
        head.addStretch(1)
        save = QPushButton("Save picture for the bench…")
        save.clicked.connect(self._save)
        head.addWidget(save)
        box.addLayout(head)
        self._table = QWidget()
        self._box = box
        box.addWidget(self._table)
        self.view = WiringView()
        box.addWidget(self.view, 1)
        self.ways: list[Way] = []
        self.buttons: list[QPushButton] = []
        self.refresh()

    def refresh(self) -> None:
        """All ways, and the picture of the one in force."""
        assessment = self.session.assessment
        group = assessment.design.box.groups[self.place]
        self.count.show_value(group.in_series * group.in_parallel)
        self.ways = wiring.ways(assessment, self.place)
        table = self._rows()
        self._box.replaceWidget(self._table, table)
        self._table.deleteLater()
        self._table = table
        self.view.show_picture(wiring.wiring_picture(assessment, self.place))

    def _rows(self) -> QWidget:
        holder = QWidget()
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 4, 0, 4)
        grid.setHorizontalSpacing(16)
        titles = ("", "way", "nominal", "least, in this box", "same volts", "same watts",
                  "loudness", "")  # fmt: skip
        for c, title in enumerate(titles):
            grid.addWidget(label(title, "hint"), 0, c)
        self.buttons = []
        for r, way in enumerate(self.ways, 1):
            mark = {True: "met", False: "short", None: "unknown"}[way.allowed]
            grid.addWidget(Mark(mark), r, 0)
            texts = (way.name, way.nominal, way.least, way.at_voltage, way.at_power, way.loudness)
            for c, text in enumerate(texts, 1):
                cell = label(text, "figure" if c in (1, 6) else "")
                tip(cell, way.verdict)
                grid.addWidget(cell, r, c)
            button = QPushButton("in force" if way.in_force else "Wire so")
            button.setEnabled(not way.in_force)
            button.setAccessibleName(f"Wire {way.name}: {way.verdict}")
            button.clicked.connect(partial(self._wire, way))
            fix(button, width=84)
            grid.addWidget(button, r, 7)
            self.buttons.append(button)
        worst = next((w for w in self.ways if w.in_force), None)
        if worst is not None:
            said = caution(worst.verdict)
            grid.addWidget(said, len(self.ways) + 1, 0, 1, 8)
        return holder

    def _wire(self, way: Way, _checked: bool = False) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*wiring.arrange(s.design, self.place, way)))

    def _set_count(self, count: int) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*wiring.with_count(s.design, self.place, count)))

    def _save(self) -> None:
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Wiring picture", "wiring.pdf", kinds(table=False))
        if path is not None and self.view.picture is not None:
            picture = self.view.picture
            self.session.attempt(lambda: write_wiring(path, picture))
