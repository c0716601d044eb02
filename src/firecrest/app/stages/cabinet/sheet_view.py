"""The drawing on graph paper: three views at one scale, whose parts can be dragged and stepped."""

from collections.abc import Callable, Sequence
from functools import partial
from math import ceil, floor
from typing import Any
from weakref import WeakKeyDictionary

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QPixmap, QPolygonF, QResizeEvent
from PySide6.QtWidgets import QWidget

from firecrest.app.exporting import Picture
from firecrest.app.session import Session
from firecrest.app.stages.cabinet.layers import Layers, shared
from firecrest.app.stages.cabinet.place_item import PlaceItem
from firecrest.app.stages.cabinet.sheet_paint import (
    paint_heavy,
    paint_ink,
    paint_measure,
    paint_paper,
)
from firecrest.app.stages.cabinet.tight_card import TightCard
from firecrest.app.theme.size import canvas, extent, fix, grown, ratio, sized, text_size
from firecrest.app.theme.style import colour, holder, text_font, title_font
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.paths import Path
from firecrest.present.cabinet.inks import Ink, Movable
from firecrest.present.cabinet.sheet import SheetView
from firecrest.present.cabinet.snapping import snapped
from firecrest.present.size.facts import Fact

HEAD, SIDE, FOOT, GAP = 40.0, 42.0, 10.0, 44.0
"""Room above a view for its title and measure, to its left, below all, and between two."""
DRAWS, PALE = 5.0, 0.4
"""How near, in pixels, a line draws a dragged part; how pale things without places are."""
LEAST_CARD = 140
RIM = 64.0
"""Pixels round a view for its title and measures."""
AROUND = QPointF(14.0, 14.0)
"""Pixels round a mark."""


def _feet(drawing: Drawing) -> float:
    """M that feet stand out below the case."""
    return 0.0 if drawing.case.feet is None else drawing.case.feet.height


class SheetCanvas(QWidget):
    """Three views and their parts; ``chosen`` tells the place of what is pressed."""

    chosen = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.scale = 1.0
        self._views: Sequence[SheetView] = ()
        self._origins: dict[str, QPointF] = {}
        self._drawing: Drawing | None = None
        self._chosen: Path | None = None
        self._placed = True
        self._polygons: WeakKeyDictionary[Ink, Any] = WeakKeyDictionary()
        self._layers: dict[str, Layers] = {}
        self._paper, self._paper_key = QPixmap(), (0, 0, "", 0.0)
        self.items: dict[tuple[str, Path], PlaceItem] = {}
        self._card = TightCard(self)
        self.setAccessibleName("Drawing of the case")
        fix(self, least_height=260)
        holder.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(sized(560), sized(430))

    def show_views(
        self,
        views: Sequence[SheetView],
        drawing: Drawing,
        chosen: Path | None,
        *,
        placed: bool = True,
    ) -> None:
        """Draw front, end and plan; the ``chosen`` part is framed.

        What has no place yet is drawn paler, and cannot be moved.
        """
        before, self._views = self._where(), views
        self._drawing, self._chosen, self._placed = drawing, chosen, placed
        self._lay()
        after = self._where()
        if before.keys() != after.keys() or any(before[k][0] != after[k][0] for k in after):
            self.update()
        else:
            for key, (_, view) in after.items():
                self.update(grown(self._changed(before[key][1], view)))

    def _where(self) -> dict[str, tuple[Any, SheetView]]:
        """Each view with all but its inks and marks that it is painted by."""
        return {v.key: (self._stand(v), v) for v in self._views if v.key in self._origins}

    def _stand(self, view: SheetView) -> tuple[Any, ...]:
        """Where a view is drawn, and what is written round it."""
        o = self._origins[view.key]
        return (
            o.x(), o.y(), self.scale, self._placed, self._paper_key, view.title, view.sizes,
            view.promised,
        )  # fmt: skip

    def _changed(self, before: SheetView, after: SheetView) -> QRectF:
        """What of a view that stays where it is has to be painted anew."""
        below, above = shared(before.inks, after.inks)
        area = QRectF()
        for view in (before, after):
            for ink in view.inks[below : len(view.inks) - above]:
                area = area.united(self._polygon(view, ink).boundingRect())
            if (before.marks, before.heavy) != (after.marks, after.heavy):
                spots = [m.at for m in view.marks] + ([view.heavy] if view.heavy else [])
                for spot in spots:
                    at = self._spot(view, spot)
                    area = area.united(QRectF(at - AROUND, at + AROUND))
        return area.adjusted(-3, -3, 3, 3) if area.isValid() else area

    def show_card(self, facts: Sequence[Fact]) -> None:
        """The tightest spots and how it stands, in the corner that no view takes."""
        self._card.show_facts(facts)
        self._lay_card()

    def move_part(self, movable: Movable, u: float, v: float, snap: bool) -> None:
        """A part to a place; one drag is one step of undo."""
        if snap and self._drawing is not None:
            u, v = snapped(self._drawing, movable.path, u, v, DRAWS / self.scale)
        session = self.session

        def _edit() -> None:
            design = moved(session.design, movable.path, u, v)
            session.apply(f"{movable.name} moved", design, fold=f"place {movable.path}")

        session.attempt(_edit)

    # laying out ------------------------------------------------------------------

    def _lay(self) -> None:
        if len(self._views) < 3:
            return
        front, end, plan = self._views
        area = extent(self)
        wide = [v.high[0] - v.low[0] for v in (front, end, plan)]
        tall = [v.high[1] - v.low[1] for v in (front, end, plan)]
        across = max(wide[0], wide[2]) + wide[1]
        feet = 0.0 if self._drawing is None else _feet(self._drawing)
        upright = max(tall[0], tall[1]) + feet + tall[2]
        room_x = area.width() - 2 * SIDE - GAP - FOOT
        room_y = area.height() - 2 * HEAD - 2 * FOOT
        self.scale = max(min(room_x / across, room_y / upright), 10.0)
        s = self.scale
        left = SIDE + 8
        second = left + s * max(wide[0], wide[2]) + GAP + SIDE / 2
        top = HEAD + 4
        below = top + s * (max(tall[0], tall[1]) + feet) + HEAD + FOOT
        for view, x, y in ((front, left, top), (end, second, top), (plan, left, below)):
            self._origins[view.key] = QPointF(x - s * view.low[0], y + s * view.high[1])
        self._place_items()

    def _lay_card(self) -> None:
        corner = grown(self.free_corner())
        self._card.setVisible(corner.width() >= sized(LEAST_CARD) and corner.height() >= sized(80))
        wanted = min(corner.height(), self._card.sizeHint().height())
        self._card.setGeometry(corner.left(), corner.top(), corner.width(), wanted)
        self._card.raise_()

    def free_corner(self) -> QRectF:
        """What no view takes, right below: for the card of tight spots."""
        if len(self._views) < 3:
            return QRectF()
        front, plan, area = self._views[0], self._views[2], extent(self)
        left = max(self._spot(v, (v.high[0], 0.0)).x() for v in (front, plan)) + 16
        top = self._spot(plan, (0.0, plan.high[1])).y() - 22
        return QRectF(left, top, area.width() - left - 10, area.height() - top - 10)

    def _spot(self, view: SheetView, at: tuple[float, float]) -> QPointF:
        o = self._origins[view.key]
        return QPointF(o.x() + self.scale * at[0], o.y() - self.scale * at[1])

    def _place_items(self) -> None:
        wanted = {
            (v.key, m.path): (v, m)
            for v in self._views
            for m in v.movables
            if self._placed or m.handle
        }
        for key in [k for k in self.items if k not in wanted]:
            old = self.items.pop(key)
            old.hide()
            old.deleteLater()
        for key, (view, movable) in wanted.items():
            item = self.items.get(key)
            if item is None:
                item = PlaceItem(self, self.session, lambda: self.scale, self.move_part)
                item.chosen.connect(self.chosen.emit)
                self.items[key] = item
                item.show()
            item.show_movable(movable, view.title, on=movable.path == self._chosen)
            a, b = self._spot(view, movable.low), self._spot(view, movable.high)
            item.setGeometry(grown(QRectF(a, b).normalized().adjusted(-3, -3, 3, 3)))
        smallest = sorted(self.items.values(), key=lambda i: i.width() * i.height(), reverse=True)
        for item in smallest:
            item.raise_()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._lay()
        self._lay_card()

    # painting ---------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        p, area = canvas(self), extent(self)
        p.drawPixmap(area, self._ground(), QRectF(self._paper.rect()))
        for view in self._views:
            if view.key in self._origins:
                self._paint_view(p, view, layered=True)

    def _pixmap(self, area: QRectF, paint: Callable[[QPainter], None]) -> QPixmap:
        """A clear sheet of an area of the paper, painted on."""
        made = QPixmap((area.size() * ratio(self)).toSize())
        made.fill(Qt.GlobalColor.transparent)
        p = QPainter(made)
        p.setLayoutDirection(Qt.LayoutDirection.LeftToRight)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        p.scale(ratio(self), ratio(self))
        p.translate(-area.topLeft())
        paint(p)
        p.end()
        return made

    def _paint_views(self, p: QPainter) -> None:
        for view in self._views:
            if view.key in self._origins:
                self._paint_view(p, view)

    def picture(self, title: str) -> Picture:
        """The drawing for a file, without what is chosen."""

        def _paint(p: QPainter, area: QRectF) -> None:
            p.setRenderHint(QPainter.RenderHint.Antialiasing)
            paint_paper(p, area)
            self._paint_views(p)

        return Picture(title, extent(self).size(), _paint)

    def _ground(self) -> QPixmap:
        """Graph paper, drawn once for a size and theme."""
        size = self.size() * self.devicePixelRatioF()
        key = (size.width(), size.height(), colour("sheet").name(), text_size.factor)
        if key != self._paper_key:
            self._paper, self._paper_key = QPixmap(size), key
            p = QPainter(self._paper)
            p.scale(ratio(self), ratio(self))
            paint_paper(p, extent(self))
            p.end()
        return self._paper

    def _paint_view(self, p: QPainter, view: SheetView, *, layered: bool = False) -> None:
        if layered:
            self._paint_layers(p, view)
        else:
            self._paint_under(p, view, view.inks)
            self._paint_over(p, view, ())
        if view.heavy is not None:
            paint_heavy(p, self._spot(view, view.heavy))
        for mark in view.marks:
            p.setBrush(Qt.BrushStyle.NoBrush)
            p.setPen(QPen(colour("flame" if mark.impossible else "amber"), 2.2))
            p.drawEllipse(self._spot(view, mark.at), 11, 11)

    def _paint_under(self, p: QPainter, view: SheetView, inks: Sequence[Ink]) -> None:
        self._paint_title(p, view)
        self._paint_inks(p, view, inks)

    def _paint_over(self, p: QPainter, view: SheetView, inks: Sequence[Ink]) -> None:
        self._paint_inks(p, view, inks)
        self._paint_promise(p, view)
        self._paint_measures(p, view)

    def _paint_inks(self, p: QPainter, view: SheetView, inks: Sequence[Ink]) -> None:
        for ink in inks:
            p.setOpacity(PALE if ink.path is not None and not self._placed else 1.0)
            paint_ink(p, ink, self._polygon(view, ink))
        p.setOpacity(1.0)

    def _paint_layers(self, p: QPainter, view: SheetView) -> None:
        """What lies below and above the inks that change is painted once for as long as they do."""
        where = self._stand(view)
        layers, inks = self._layers.get(view.key), view.inks
        if layers is None or layers.where != where:
            layers = Layers(where, inks)
        elif not layers.holds(inks):
            below, above = shared(layers.inks, inks)
            last, area = inks[len(inks) - above :], self._area(view)
            under = self._pixmap(area, partial(self._paint_under, view=view, inks=inks[:below]))
            over = self._pixmap(area, partial(self._paint_over, view=view, inks=last))
            layers = Layers(where, inks, below, above, area, under, over)
        self._layers[view.key] = layers
        if layers.under is None or layers.over is None:
            self._paint_under(p, view, inks)
            self._paint_over(p, view, ())
            return
        whole = QRectF(layers.under.rect())
        p.drawPixmap(layers.area, layers.under, whole)
        self._paint_inks(p, view, inks[layers.below : len(inks) - layers.above])
        p.drawPixmap(layers.area, layers.over, whole)

    def _area(self, view: SheetView) -> QRectF:
        """What a view takes with all that is written round it, in whole pixels of the screen."""
        corners = (
            self._spot(view, (view.low[0], view.high[1])),
            self._spot(view, (view.high[0], view.low[1])),
        )
        found = self._promised(view).united(QRectF(*corners))
        for ink in view.inks:
            found = found.united(self._polygon(view, ink).boundingRect())
        sharp = ratio(self)
        left, top = (floor(sharp * (c - RIM)) for c in (found.left(), found.top()))
        right, low = (ceil(sharp * (c + RIM)) for c in (found.right(), found.bottom()))
        return QRectF(left / sharp, top / sharp, (right - left) / sharp, (low - top) / sharp)

    def _polygon(self, view: SheetView, ink: Ink) -> QPolygonF:
        """An outline in pixels; kept as long as the ink stays, and where it is drawn."""
        o, s = self._origins[view.key], self.scale
        where = (o.x(), o.y(), s)
        kept = self._polygons.get(ink)
        if kept is None or kept[0] != where:
            if ink.rest is None:
                made = QPolygonF([QPointF(o.x() + s * x, o.y() - s * y) for x, y in ink.points])
            else:
                still, (right, up) = ink.rest
                made = self._polygon(view, still).translated(s * right, -s * up)
            kept = self._polygons[ink] = (where, made)
        return kept[1]

    def _paint_title(self, p: QPainter, view: SheetView) -> None:
        p.setPen(colour("ink"))
        p.setFont(title_font(13))
        corner = self._spot(view, (view.low[0], view.high[1]))
        p.drawText(QPointF(corner.x(), corner.y() - 26), view.title)

    def _paint_promise(self, p: QPainter, view: SheetView) -> None:
        """The promised outline, centred on the case."""
        if view.promised is None:
            return
        p.setBrush(Qt.BrushStyle.NoBrush)
        p.setPen(QPen(colour("stripe"), 1.6, Qt.PenStyle.DashLine))
        p.drawRect(self._promised(view))

    def _promised(self, view: SheetView) -> QRectF:
        if view.promised is None:
            return QRectF()
        middle = ((view.low[0] + view.high[0]) / 2, (view.low[1] + view.high[1]) / 2)
        half = (view.promised[0] / 2, view.promised[1] / 2)
        a = self._spot(view, (middle[0] - half[0], middle[1] + half[1]))
        return QRectF(a, self._spot(view, (middle[0] + half[0], middle[1] - half[1])))

    def _paint_measures(self, p: QPainter, view: SheetView) -> None:
        """Measures above and, of front and plan, to the left."""
        p.setFont(text_font(12, medium=True))
        a = self._spot(view, (view.low[0], view.high[1]))
        b = self._spot(view, (view.high[0], view.low[1]))
        paint_measure(p, QPointF(a.x(), a.y() - 12), QPointF(b.x(), a.y() - 12), view.sizes[0])
        if view.key in ("front", "plan"):
            paint_measure(p, QPointF(a.x() - 18, b.y()), QPointF(a.x() - 18, a.y()), view.sizes[1])
