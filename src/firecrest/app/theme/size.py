"""Text size: everything drawn or fixed in pixels follows the desktop's text, and the zoom.

Sizes in the code are those at 100 %. ``fix`` gives a widget its sizes and keeps them for the next
change; own-drawn widgets paint on a ``canvas`` whose units are those of 100 %, in their ``extent``.
"""

import json

from PySide6.QtCore import QObject, QRect, QRectF, Qt, Signal
from PySide6.QtGui import QFont, QPainter
from PySide6.QtWidgets import QApplication, QWidget

SMALLEST, LARGEST = 0.8, 2.0
USUAL_POINTS = 10.0
USUAL = (0.88, 1.15)
"""Desktops ship with 9 to 11 points: all of them are 100 %."""
STEPS = (0.8, 0.9, 1.0, 1.1, 1.2, 1.4, 1.6, 1.8, 2.0)
"""Zooms that the commands go through."""
KEPT = "sizes"
"""Property of a widget in which ``fix`` keeps its sizes at 100 %."""


def desktop_share(font: QFont, dots_per_inch: float) -> float:
    """Size of the desktop's text over the usual one; 1 for what desktops ship with."""
    points = font.pointSizeF()
    if points <= 0:
        points = font.pixelSize() * 72.0 / dots_per_inch
    share = points / USUAL_POINTS * dots_per_inch / 96.0
    return 1.0 if USUAL[0] <= share <= USUAL[1] else share


class TextSize(QObject):
    """The size in force: ``factor``, the desktop's share times the zoom, from 0.8 to 2."""

    changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.desktop = self.zoom = self.factor = 1.0

    def choose(self, *, desktop: float | None = None, zoom: float | None = None) -> None:
        """Another desktop's share or zoom; ``changed`` tells, where the size is another one."""
        before = self.factor
        self.desktop = self.desktop if desktop is None else desktop
        self.zoom = self.zoom if zoom is None else min(max(zoom, STEPS[0]), STEPS[-1])
        self.factor = min(max(self.desktop * self.zoom, SMALLEST), LARGEST)
        if self.factor != before:
            self.changed.emit()

    def next_zoom(self, steps: int) -> float:
        """The zoom some ``steps`` further up or down; 0 steps: 100 %."""
        if not steps:
            return 1.0
        further = [
            z for z in STEPS if (z > self.zoom + 0.01 if steps > 0 else z < self.zoom - 0.01)
        ]
        return (further or [self.zoom])[0 if steps > 0 else -1]


text_size = TextSize()


def sized(pixels: float) -> int:
    """Whole pixels on the screen of ``pixels`` at 100 %."""
    return round(pixels * text_size.factor)


def fix(
    widget: QWidget,
    *,
    width: float | None = None,
    height: float | None = None,
    least_width: float | None = None,
    least_height: float | None = None,
    most_width: float | None = None,
    most_height: float | None = None,
) -> None:
    """Fixed, least or most sizes of a widget, in pixels at 100 %; what is not given stays."""
    given = {
        "setFixedWidth": width,
        "setFixedHeight": height,
        "setMinimumWidth": least_width,
        "setMinimumHeight": least_height,
        "setMaximumWidth": most_width,
        "setMaximumHeight": most_height,
    }
    known = json.loads(widget.property(KEPT) or "{}")
    known |= {name: pixels for name, pixels in given.items() if pixels is not None}
    widget.setProperty(KEPT, json.dumps(known))
    _fit(widget, known)


def _fit(widget: QWidget, known: dict[str, float]) -> None:
    for name, pixels in known.items():
        getattr(widget, name)(sized(pixels))


def fit_all() -> None:
    """Every widget's sizes anew, after another text size."""
    for widget in QApplication.allWidgets():
        known = widget.property(KEPT)
        if known:
            _fit(widget, json.loads(known))


def canvas(widget: QWidget) -> QPainter:
    """A painter on ``widget`` whose units are pixels at 100 %, smooth.

    What is drawn runs from left to right in every layout: its places are, and its words.
    """
    painter = QPainter(widget)
    painter.setLayoutDirection(Qt.LayoutDirection.LeftToRight)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.scale(text_size.factor, text_size.factor)
    return painter


def extent(widget: QWidget) -> QRectF:
    """The whole of ``widget`` on its canvas."""
    return shrunk(widget.rect())


def ratio(widget: QWidget) -> float:
    """Pixels of the device per unit of the canvas of ``widget``."""
    return widget.devicePixelRatioF() * text_size.factor


def shrunk(rect: QRect | QRectF) -> QRectF:
    """A rectangle of the screen in pixels at 100 %."""
    f = text_size.factor
    return QRectF(rect.x() / f, rect.y() / f, rect.width() / f, rect.height() / f)


def grown(rect: QRectF) -> QRect:
    """A rectangle in pixels at 100 % on the screen."""
    f = text_size.factor
    return QRectF(rect.x() * f, rect.y() * f, rect.width() * f, rect.height() * f).toRect()
