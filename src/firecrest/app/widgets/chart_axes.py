"""The axes of a plot: its frame to the left and below, and the texts beside it."""

from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPen

from firecrest.app.theme.style import colour, text_font

APART, WIDE, HIGH = 5.0, 90.0, 18.0
"""Pixels between frame and texts, and the room in which a text is centred."""
Tick = tuple[float, str]


@dataclass(frozen=True)
class Axes:
    """Texts of both axes, each at its place on the axis."""

    below: Sequence[Tick]
    beside: Sequence[Tick]

    def paint(
        self,
        painter: QPainter,
        area: QRectF,
        across: tuple[float, float],
        upwards: tuple[float, float],
    ) -> None:
        """Around ``area``, whose sides span ``across`` and ``upwards``."""
        painter.setPen(QPen(colour("rule"), 1))
        painter.drawLine(area.topLeft(), area.bottomLeft())
        painter.drawLine(area.bottomLeft(), area.bottomRight())
        painter.setFont(text_font(11))
        painter.setPen(colour("ink2"))
        for at, text in self.below:
            x = area.left() + area.width() * _share(at, across)
            room = QRectF(x - WIDE / 2, area.bottom() + APART - 2, WIDE, HIGH)
            _write(painter, room, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop, text)
        for at, text in self.beside:
            y = area.bottom() - area.height() * _share(at, upwards)
            room = QRectF(area.left() - APART - WIDE, y - HIGH / 2, WIDE, HIGH)
            _write(painter, room, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, text)


def _share(at: float, ends: tuple[float, float]) -> float:
    return (at - ends[0]) / (ends[1] - ends[0])


def _write(painter: QPainter, room: QRectF, where: Qt.AlignmentFlag, text: str) -> None:
    painter.drawText(room, where | Qt.TextFlag.TextDontClip, text)
