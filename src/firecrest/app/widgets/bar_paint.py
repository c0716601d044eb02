"""A promise's bar: how far it is filled, where its stripe stands, and where it likely ends."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen, QPolygonF

from firecrest.app.theme.style import colour, theme
from firecrest.app.widgets.patterns import pattern_tile
from firecrest.present.frame.meters import Meter


def paint_bar(p: QPainter, bar: QRectF, m: Meter, dots: float) -> None:
    """Bars against their stripe, what is missing, the likely range, and the ghost's tick.

    ``dots`` is the ratio of the device, for patterns.
    """
    p.setPen(Qt.PenStyle.NoPen)
    rows = m.bars or (0.0,)
    gap = 1.5 if len(rows) > 1 else 0.0
    height = (bar.height() - gap * (len(rows) - 1)) / len(rows)
    stripe = bar.left() + m.stripe * bar.width()
    for k, share in enumerate(rows):
        row = QRectF(bar.left(), bar.top() + k * (height + gap), bar.width(), height)
        p.fillRect(row, colour("tray"))
        if not m.floor and m.judged:
            ground = QRectF(stripe, row.top(), row.right() - stripe, height)
            p.fillRect(ground, pattern_tile("hatch", theme()["rule2"], "", dots))
        done = QRectF(row.left(), row.top(), max(0.0, min(share, 1.0)) * row.width(), height)
        p.fillRect(done, colour("olive" if m.judged else "rule2"))
        _missing(p, row, done, stripe, m, dots)
    if m.judged:
        _tick(p, stripe, bar)
    if m.whisker is not None:
        _whisker(p, m.whisker, bar)
    if m.ghost_at is not None:
        x = bar.left() + min(max(m.ghost_at, 0.0), 1.0) * bar.width()
        p.setPen(QPen(colour("stripe"), 1))
        p.setBrush(colour("crest"))
        p.drawPolygon(
            QPolygonF(
                [
                    QPointF(int(x) - 5, int(bar.top()) - 7),
                    QPointF(int(x) + 5, int(bar.top()) - 7),
                    QPointF(int(x), int(bar.top()) + 1),
                ]
            )
        )


def _missing(p: QPainter, row: QRectF, done: QRectF, stripe: float, m: Meter, dots: float) -> None:
    """What lacks up to a floor, or what is over a cap."""
    if not (m.judged and m.known):
        return
    low, high = sorted((done.right(), stripe))
    over = (m.floor and done.right() < stripe) or (not m.floor and done.right() > stripe)
    if over:
        brush = pattern_tile("hatch", theme()["flame"], theme()["yolk"], dots)
        p.fillRect(QRectF(low, row.top(), high - low, row.height()), brush)


def _whisker(p: QPainter, ends: tuple[float, float], bar: QRectF) -> None:
    """From where to where the figure likely is, below the bar."""
    left, right = (round(bar.left() + end * bar.width()) + 0.5 for end in ends)
    y = round(bar.bottom()) + 3.5
    p.setRenderHint(QPainter.RenderHint.Antialiasing, False)
    p.setPen(QPen(colour("ink2"), 1))
    p.drawLine(QPointF(left, y), QPointF(right, y))
    for x in (left, right):
        p.drawLine(QPointF(x, y - 2), QPointF(x, y + 2))
    p.setRenderHint(QPainter.RenderHint.Antialiasing)


def _tick(p: QPainter, x: float, bar: QRectF) -> None:
    p.fillRect(QRectF(x - 3, bar.top() - 4, 6, bar.height() + 8), colour("brow"))
    p.fillRect(QRectF(x - 1.5, bar.top() - 4, 3, bar.height() + 8), colour("stripe"))
