"""The items of a plot's scene in which its drawing is painted, at the text size in force."""

import weakref
from typing import TYPE_CHECKING

import pyqtgraph as pg
from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter

from firecrest.app.theme.size import ratio, shrunk, text_size
from firecrest.app.widgets.chart_labels import LabelPainter

if TYPE_CHECKING:
    from firecrest.app.widgets.chart import Chart


class Layer(pg.GraphicsObject):
    """One scene item that lets ``ChartPainter`` paint in pixels."""

    def __init__(self, chart: "Chart", over: bool) -> None:
        super().__init__()
        # Weakly: in a cycle with the chart, what the chart's scene holds would never be freed.
        self._of, self._over = weakref.ref(chart), over
        self.setZValue(60 if over else -5)
        self.setAcceptedMouseButtons(Qt.MouseButton.NoButton)

    def boundingRect(self) -> QRectF:
        chart = self._of()
        return QRectF() if chart is None else chart.plot_area()

    def paint(self, painter: QPainter, *_: object) -> None:
        chart = self._of()
        if chart is None:
            return
        content, ghost = chart.content, chart.ghost
        if content is None:
            return
        area = chart.plot_area()
        painter.setClipRect(area)
        painter.scale(text_size.factor, text_size.factor)
        painter.setLayoutDirection(Qt.LayoutDirection.LeftToRight)
        inner = shrunk(area)
        worker = LabelPainter(painter, inner, chart.pixels_in(inner), ratio(chart))
        if self._over:
            worker.over(content)
        else:
            worker.under(content, ghost)
