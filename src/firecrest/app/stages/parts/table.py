"""The shelf's table: rows of parts, painted with marks, small ceilings and verdicts."""

from typing import Any

from PySide6.QtCore import (
    QAbstractTableModel,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QRectF,
    QSize,
    Qt,
    Signal,
)
from PySide6.QtGui import QKeyEvent, QKeySequence, QPainter, QPen
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHeaderView,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
)

from firecrest.app.stages.parts.mini import paint_mini
from firecrest.app.theme.size import shrunk, sized, text_size
from firecrest.app.theme.style import colour, text_font, title_font
from firecrest.app.widgets.data_table import copy_selection
from firecrest.app.widgets.marks import paint_mark, paint_origin
from firecrest.app.widgets.plain import tip_text
from firecrest.design.design import Design
from firecrest.present.parts import shelf as shown
from firecrest.present.parts.shelf import Column, Row

Index = QModelIndex | QPersistentModelIndex
ROW_HEIGHT = 39
RIGHT = ("loudness", "bass", "hours", "kg", "cost", "have", "price", "mass")
WORDS = {"met": "kept", "short": "short", "wish": "wish missed", "close": "close",
         "unknown": "not known", "none": ""}  # fmt: skip


class ShelfModel(QAbstractTableModel):
    """Rows in the order of the chosen column."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[Row] = []
        self.columns: tuple[Column, ...] = shown.RESULTS
        self.design: Design | None = None
        self.faded = False
        self.working = False

    def show_rows(self, rows: list[Row], columns: tuple[Column, ...], design: Design) -> None:
        """Other rows or columns."""
        self.beginResetModel()
        self.rows, self.columns, self.design = rows, columns, design
        self.endResetModel()

    def renew(self, rows: list[Row]) -> None:
        """The same parts in the same order with other results."""
        self.rows = rows
        if rows:
            last = self.index(len(rows) - 1, len(self.columns) - 1)
            self.dataChanged.emit(self.index(0, 0), last)

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.rows)

    def columnCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(self.columns)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = 0) -> Any:
        if orientation != Qt.Orientation.Horizontal:
            return None
        if role == Qt.ItemDataRole.DisplayRole:
            return self.columns[section].title
        if role == Qt.ItemDataRole.TextAlignmentRole:
            side = Qt.AlignmentFlag.AlignLeft
            if section and (self.columns[section].figure or self.columns[section].key in RIGHT):
                side = Qt.AlignmentFlag.AlignRight
            return side | Qt.AlignmentFlag.AlignVCenter
        return None

    def data(self, index: Index, role: int = 0) -> Any:
        row, column = self.rows[index.row()], self.columns[index.column()]
        if role == Qt.ItemDataRole.DisplayRole:
            return shown.cell(row, column, working=self.working)
        if role == Qt.ItemDataRole.AccessibleTextRole:
            return self._spoken(row, column)
        if role == Qt.ItemDataRole.ToolTipRole:
            return tip_text(self._told(row, column))
        return None

    def _spoken(self, row: Row, column: Column) -> str:
        """What a screen reader says of a cell."""
        text = shown.cell(row, column, working=self.working)
        if row.outcome is not None and column.key == "promises":
            text = ", ".join(f"{key} {WORDS[s]}" for key, s in shown.states(row.outcome))
        elif row.outcome is not None and not column.figure:
            text = f"{text} {WORDS[shown.state_of(row.outcome, column.key)]}".strip()
        return f"{column.title}: {text}"

    def _told(self, row: Row, column: Column) -> str:
        if shown.trouble(row):
            return shown.trouble(row)
        if row.outcome is not None and column.key == "promises":
            return "\n".join(f"{key}: {WORDS[s]}" for key, s in shown.states(row.outcome))
        if row.outcome is not None and column.key in ("ceiling", "loudness", "bass"):
            return shown.first_to_give(row.outcome)
        return row.entry.notes


class ShelfDelegate(QStyledItemDelegate):
    """Paints cells by the kind of their column."""

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        return QSize(sized(40), sized(ROW_HEIGHT))

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        model = index.model()
        assert isinstance(model, ShelfModel)
        row, column = model.rows[index.row()], model.columns[index.column()]
        rect = shrunk(option.rect)
        painter.save()
        painter.scale(text_size.factor, text_size.factor)
        painter.setLayoutDirection(Qt.LayoutDirection.LeftToRight)
        self._ground(painter, option, rect, row, index.column() == 0)
        faded = model.faded and row.outcome is not None and column.key not in ("part", "have")
        unfit = row.outcome is not None and row.outcome.fit.fits is False
        if faded or (unfit and column.key == "ceiling"):
            painter.setOpacity(0.45)
        if column.key == "part":
            self._part(painter, rect, row)
        elif row.outcome is not None and not column.figure and column.key != "have":
            self._result(painter, rect, row, column, model)
        else:
            painter.setFont(text_font(13, medium=True))
            painter.setPen(colour("ink"))
            self._text(painter, rect, str(index.data()), right=True)
        painter.restore()

    def _ground(
        self, p: QPainter, option: QStyleOptionViewItem, rect: QRectF, row: Row, first: bool
    ) -> None:
        chosen = bool(option.state & QStyle.StateFlag.State_Selected)
        p.fillRect(rect, colour("field" if chosen else "sheet"))
        if row.in_force:
            p.fillRect(rect, colour("olivet", 0.55))
        p.setPen(QPen(colour("ink" if chosen else "rule"), 1))
        p.drawLine(rect.bottomLeft(), rect.bottomRight())
        if chosen:
            p.drawLine(rect.topLeft(), rect.topRight())
            if first:
                p.fillRect(QRectF(rect.left(), rect.top(), 4, rect.height()), colour("crest"))

    def _part(self, p: QPainter, rect: QRectF, row: Row) -> None:
        """Name over origin; a favourite has a star."""
        origin, text = shown.subtitle(row.entry)
        left = rect.left() + 10
        p.setPen(colour("ink"))
        p.setFont(title_font(12))
        star = "★ " if row.entry.favourite else ""
        name = p.fontMetrics().elidedText(
            star + row.entry.name, Qt.TextElideMode.ElideRight, int(rect.width() - 12)
        )
        p.drawText(QPointF(left, rect.top() + 16), name)
        paint_origin(p, QRectF(left + 1, rect.top() + 23, 7, 7), origin)
        p.setPen(colour("flame" if shown.BAD_SHEET in text else "ink2"))
        p.setFont(text_font(11))
        said = "in this design" if row.in_force else "elsewhere in it" if row.elsewhere else text
        said = p.fontMetrics().elidedText(said, Qt.TextElideMode.ElideRight, int(rect.width() - 26))
        p.drawText(QPointF(left + 13, rect.top() + 31), said)

    def _result(
        self, p: QPainter, rect: QRectF, row: Row, column: Column, model: ShelfModel
    ) -> None:
        outcome, design = row.outcome, model.design
        assert outcome is not None
        assert design is not None
        p.setFont(text_font(12, medium=column.key != "fit"))
        if column.key == "ceiling":
            area = rect.adjusted(6, 5, -6, -5)
            paint_mini(p, area, shown.mini(outcome, design), self._ratio(p))
        elif column.key == "fit":
            self._fit(p, rect, row)
        elif column.key == "promises":
            states = shown.states(outcome)
            for k, (_, state) in enumerate(reversed(states)):
                paint_mark(
                    p, QRectF(rect.right() - 18 - 14 * k, rect.center().y() - 5, 10, 10), state
                )
        elif shown.trouble(row):
            if column.key == "loudness":
                p.setPen(colour("ink2"))
                p.setFont(text_font(11))
                wide = rect.adjusted(2, 0, 250, 0)
                p.setClipping(False)
                self._text(p, wide, shown.trouble(row))
        else:
            self._value(p, rect, row, column)

    def _ratio(self, p: QPainter) -> float:
        return p.device().devicePixelRatioF() * text_size.factor

    def _fit(self, p: QPainter, rect: QRectF, row: Row) -> None:
        assert row.outcome is not None
        fits = row.outcome.fit.fits
        state = "short" if fits is False or row.outcome.refusal else "met" if fits else "unknown"
        paint_mark(p, QRectF(rect.left() + 4, rect.center().y() - 5, 10, 10), state)
        p.setPen(colour("flame" if state == "short" else "ink"))
        self._text(p, rect.adjusted(14, 0, 0, 0), shown.fit_text(row.outcome))

    def _value(self, p: QPainter, rect: QRectF, row: Row, column: Column) -> None:
        """A figure, with the mark of its promise when that is not simply kept."""
        assert row.outcome is not None
        text, state = shown.cell(row, column), shown.state_of(row.outcome, column.key)
        p.setFont(title_font(13, bold=False))
        p.setPen(colour({"short": "flame", "wish": "amber", "close": "amber"}.get(state, "ink")))
        self._text(p, rect, text, right=True)
        if state in ("short", "wish", "close") and text:
            width = p.fontMetrics().horizontalAdvance(text)
            x = rect.right() - 8 - width - 14
            paint_mark(p, QRectF(max(x, rect.left()), rect.center().y() - 4.5, 9, 9), state)

    def _text(self, p: QPainter, rect: QRectF, text: str, *, right: bool = False) -> None:
        side = Qt.AlignmentFlag.AlignRight if right else Qt.AlignmentFlag.AlignLeft
        room = rect.adjusted(4, 0, -8, 0)
        kept = p.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(room.width()))
        p.drawText(room, int(side | Qt.AlignmentFlag.AlignVCenter), kept)


class ShelfTable(QTableView):
    """The table itself: arrows try, Enter takes, a double click opens the sheet."""

    tried = Signal(object)
    taken = Signal(object)
    opened = Signal(object)
    sorted_by = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.rows_model = ShelfModel()
        self.setModel(self.rows_model)
        self.setItemDelegate(ShelfDelegate(self))
        self.setAccessibleName("Shelf")
        self.setShowGrid(False)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self.setFrameShape(QTableView.Shape.NoFrame)
        self.setTabKeyNavigation(False)
        self.verticalHeader().hide()
        self.verticalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
        header = self.horizontalHeader()
        header.setHighlightSections(False)
        header.setSectionsClickable(True)
        header.sectionClicked.connect(self.sorted_by)
        self.doubleClicked.connect(lambda index: self.opened.emit(self._row(index.row())))
        text_size.changed.connect(self.set_widths)
        self.selectionModel().currentRowChanged.connect(
            lambda now, _: self.tried.emit(self._row(now.row()))
        )

    def _row(self, place: int) -> Row | None:
        rows = self.rows_model.rows
        return rows[place] if 0 <= place < len(rows) else None

    @property
    def current(self) -> Row | None:
        """The row that is tried."""
        return self._row(self.currentIndex().row())

    def set_widths(self) -> None:
        """Rows and columns as declared; the part's name takes what is left."""
        self.verticalHeader().setDefaultSectionSize(sized(ROW_HEIGHT))
        self.horizontalHeader().setMinimumSectionSize(sized(30))
        columns = self.rows_model.columns
        header = self.horizontalHeader()
        for k, column in enumerate(columns):
            self.setColumnWidth(k, sized(column.width))
        header.setSectionResizeMode(QHeaderView.ResizeMode.Interactive)
        header.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            alt = event.modifiers() & Qt.KeyboardModifier.AltModifier
            (self.opened if alt else self.taken).emit(self.current)
        elif event.key() == Qt.Key.Key_Escape:
            self.clearSelection()
            self.setCurrentIndex(QModelIndex())
        elif event.matches(QKeySequence.StandardKey.Copy):
            copy_selection(self)
        else:
            super().keyPressEvent(event)
