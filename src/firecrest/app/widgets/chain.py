"""The chain: a rope from pack to listener, as thick at each link as it has dB to spare."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QWidget

from firecrest.app.rest import READ_MS, Coalesced
from firecrest.app.session import Session
from firecrest.app.theme.size import canvas, extent, fix, grown
from firecrest.app.theme.style import colour, holder, text_font, title_font
from firecrest.app.widgets.marks import paint_ring
from firecrest.app.widgets.plain import tip
from firecrest.app.widgets.pressable import Pressable
from firecrest.present.frame.chain import ChainLink, ChainRow, chain

HEIGHT, SMALL_HEIGHT = 66, 44
THIN, THICK = 1.6, 9.5
CAPTION, PLATE = 140, 14
"""Room for the caption, and what a plate adds to its text."""


def half_width(spare: float | None) -> float:
    """Rope half-width in px, linear from -1.8 dB to +6 dB."""
    if spare is None:
        return THICK
    share = min(max((spare + 1.8) / 7.8, 0.0), 1.0)
    return THIN + share * (THICK - THIN)


class LinkWidget(Pressable):
    """One link, as a value that can be focused and read out; drawn by the chain."""

    def __init__(self, owner: "Chain", place: int) -> None:
        super().__init__()
        self.setParent(owner)
        self._owner = owner
        self.pressed.connect(lambda: owner.follow(place))

    def paintEvent(self, event: QPaintEvent) -> None:
        """The chain draws it."""

    def focus_changed(self) -> None:
        """The chain draws the ring."""
        self._owner.update()


class Chain(QWidget):
    """Seven links and a caption that names the frequency of the comparison."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("chain")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.session = session
        self._small = False
        fix(self, height=HEIGHT)
        self.row: ChainRow = chain(session.assessment, None)
        self.links = [LinkWidget(self, k) for k in range(len(self.row.links))]
        self._after = Coalesced(self, self.refresh, READ_MS)
        session.changed.connect(self._after.start)
        session.looked.connect(self.refresh)
        holder.changed.connect(self.update)
        self.refresh()

    def refresh(self) -> None:
        """Follow the assessment and the pinned crosshair."""
        row = chain(self.session.assessment, self.session.frequency)
        if row == self.row and self.links[0].accessibleName():
            return
        self.row = row
        for widget, link in zip(self.links, self.row.links, strict=True):
            widget.setAccessibleName(f"{link.name}: {link.plate}")
            widget.setAccessibleDescription(link.part)
            tip(widget, f"{link.name}: {link.plate}\n{link.part}\n{link.tooltip}")
        self.update()

    def set_small(self, small: bool) -> None:
        """One line, for small windows."""
        self._small = small
        fix(self, height=SMALL_HEIGHT if small else HEIGHT)

    def follow(self, place: int) -> None:
        """Go to the field that moves a link most."""
        path = self.row.links[place].path
        if path is not None:
            self.session.go_to(path)

    def resizeEvent(self, event: object) -> None:
        for k, widget in enumerate(self.links):
            left, width = self._slot(k)
            widget.setGeometry(grown(QRectF(left, 2, width, extent(self).height() - 4)))

    def _slot(self, place: int) -> tuple[float, float]:
        width = (extent(self).width() - CAPTION - 10) / len(self.row.links)
        return CAPTION + place * width, width

    def _centre(self, place: int) -> float:
        left, width = self._slot(place)
        return left + width / 2

    def paintEvent(self, event: QPaintEvent) -> None:
        p, whole = canvas(self), extent(self)
        p.setPen(QPen(colour("rule2"), 1))
        p.drawLine(QPointF(0, 0), QPointF(whole.width(), 0))
        p.setFont(title_font(14))
        p.setPen(colour("ink"))
        small = self._small
        p.drawText(QPointF(14, 18 if small else 22), "Chain")
        if not small:
            p.setFont(text_font(11))
            p.setPen(colour("ink2"))
            p.drawText(QPointF(14, 39), "dB to spare at")
        p.setFont(text_font(11, medium=True))
        p.setPen(colour("ink"))
        p.drawText(QPointF(14, 34 if small else 54), self.row.caption)
        self._rope(p)
        for k, (link, text) in enumerate(zip(self.row.links, self._texts(), strict=True)):
            self._link(p, k, link, text)

    def _rope(self, p: QPainter) -> None:
        middle = extent(self).height() / 2 - 1
        centres = [self._centre(k) for k in range(len(self.row.links))]
        halves = [half_width(link.spare) for link in self.row.links]
        xs = [CAPTION, *centres, extent(self).width() - 10]
        hs = [halves[0], *halves, halves[-1]]
        top, bottom = [], []
        for k in range(len(xs) - 1):
            steps = 6
            for s in range(steps + 1):
                t = s / steps
                smooth = t * t * (3 - 2 * t)
                x = xs[k] + t * (xs[k + 1] - xs[k])
                h = hs[k] + smooth * (hs[k + 1] - hs[k])
                top.append(QPointF(x, middle - h))
                bottom.append(QPointF(x, middle + h))
        path = QPainterPath(top[0])
        for point in (*top[1:], *reversed(bottom)):
            path.lineTo(point)
        path.closeSubpath()
        p.fillPath(path, colour("olive"))
        self._neck(p, path, centres)

    def _neck(self, p: QPainter, rope: QPainterPath, centres: list[float]) -> None:
        """Flame about the weakest link when it is short."""
        for k, link in enumerate(self.row.links):
            if link.weakest and link.spare is not None and link.spare < 0:
                p.save()
                p.setClipRect(QRectF(centres[k] - 48, 0, 96, extent(self).height()))
                p.fillPath(rope, colour("flame"))
                p.restore()

    def _texts(self) -> list[str]:
        """What the plates say: as much as all of them have room for."""
        links, metrics = self.row.links, QFontMetricsF(text_font(12, medium=True))
        fuller = [[x.plate for x in links], [x.short for x in links]]
        if self._small:  # there names have no line of their own
            fuller = [
                [f"{x.name} {t}" for x, t in zip(links, f, strict=True)] for f in fuller
            ] + fuller
        free = self._slot(0)[1] - 4 - PLATE
        fits = (f for f in fuller if all(metrics.horizontalAdvance(t) <= free for t in f))
        return next(fits, fuller[-1])

    def _link(self, p: QPainter, place: int, link: ChainLink, text: str) -> None:
        left, width = self._slot(place)
        height = extent(self).height()
        p.setFont(text_font(12, medium=True))
        p.setPen(colour("ink"))
        small = self._small
        if not small:
            p.drawText(QRectF(left, 3, width, 16), Qt.AlignmentFlag.AlignCenter, link.name)
        font = text_font(12, medium=True)
        plate_width = min(QFontMetricsF(font).horizontalAdvance(text) + PLATE, width - 4)
        plate = QRectF(left + (width - plate_width) / 2, height / 2 - 11, plate_width, 20)
        p.setBrush(colour("yolk" if link.weakest else "card"))
        p.setPen(QPen(colour("stripe" if link.weakest else "rule2"), 1))
        p.drawRoundedRect(plate, 4, 4)
        p.setFont(font)
        p.setPen(colour("onyolk" if link.weakest else "ink"))
        p.drawText(plate, Qt.AlignmentFlag.AlignCenter, text)
        p.setFont(text_font(11))
        p.setPen(colour("ink2"))
        if not small:
            self._part(p, QRectF(left, height - 18, width, 16), link.part)
        if self.links[place].hasFocus():
            paint_ring(p, QRectF(left + 1, 1, width - 2, height - 2))

    def _part(self, p: QPainter, box: QRectF, part: str) -> None:
        text = QFontMetricsF(p.font()).elidedText(
            part, Qt.TextElideMode.ElideRight, box.width() - 6
        )
        p.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
