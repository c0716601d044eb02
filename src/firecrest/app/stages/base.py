"""What stages share: title line, heart plot over columns of fields, rebuilding, revealing."""

from collections.abc import Callable, Sequence
from functools import partial
from typing import Any

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import (
    QFrame,
    QGraphicsOpacityEffect,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QSplitter,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.editing import Editing
from firecrest.app.session import Session
from firecrest.app.settings import settings
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.number_row import NumberRow
from firecrest.app.widgets.place import bring_into_view, place_on, return_to
from firecrest.app.widgets.plain import label, tip
from firecrest.app.widgets.stops import stops_in
from firecrest.design.edits.paths import Path
from firecrest.present.frame.bindings import Binding, at_path

MARGIN = 18
SETTLES, SETTLE_MS = 5, 20
"""How often, and how far apart, a revealed field is brought into view again."""
LEAST_LOWER = 110
"""Of the fields below the heart: some rows are always in sight."""


class Stage(QWidget):
    """A stage: ``heart`` above ``lower``, refreshed only while it is seen.

    A subclass builds its lower columns in ``build_lower`` and says in ``structure`` when they
    must be built again (a part came or went).
    """

    key = ""
    title = ""
    subtitle = ""
    edits_elsewhere = Signal()
    """What undo works on has changed; see ``editing``."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("stage")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.session = session
        self._stale = True
        self._built: Any = None
        column = QVBoxLayout(self)
        column.setContentsMargins(MARGIN, 10, MARGIN, 4)
        column.setSpacing(4)
        self.bar = QHBoxLayout()
        self.bar.setSpacing(10)
        self.bar.addWidget(label(self.title, "title"))
        self.bar.addWidget(label(self.subtitle, "second"))
        self.bar.addStretch(1)
        column.addLayout(self.bar)
        self.splitter = QSplitter(Qt.Orientation.Vertical)
        self.splitter.setChildrenCollapsible(False)
        self.splitter.setHandleWidth(3)
        column.addWidget(self.splitter, 1)
        self.heart = QWidget()
        self._scroll = QScrollArea()
        self._scroll.setObjectName("scroll")
        self._scroll.setWidgetResizable(True)
        self._scroll.setFrameShape(QFrame.Shape.NoFrame)
        fix(self._scroll, least_height=LEAST_LOWER)
        self.splitter.addWidget(self.heart)
        self.splitter.addWidget(self._scroll)
        self.splitter.splitterMoved.connect(self._remember)
        self.build_heart()
        session.changed.connect(self._changed)
        session.tried.connect(self._changed)
        session.looked.connect(self._changed)
        session.doubted.connect(self._changed)

    # for subclasses -------------------------------------------------------------

    def build_heart(self) -> None:
        """Put widgets into ``self.heart``."""

    def structure(self) -> Any:
        """Anything that, when it changes, asks for new lower columns."""
        return ()

    def build_lower(self) -> QWidget:
        """The fields below the heart."""
        return QWidget()

    def refresh(self) -> None:
        """Draw the present assessment."""

    @property
    def editing(self) -> Editing:
        """What undo and redo work on while this stage is shown."""
        return self.session

    def stops(self) -> list[QWidget]:
        """Where Tab stops: fields first, then plots and the title line."""

        def _when(widget: QWidget) -> tuple[bool, bool]:
            held = [w for w in (widget, widget.parentWidget()) if w is not None]
            later = isinstance(widget, Chart) or any(self.bar.indexOf(w) >= 0 for w in held)
            return later, not self.heart.isAncestorOf(widget)

        return sorted((w for w in stops_in(self) if w.isVisible() and w.isEnabled()), key=_when)

    def search_field(self) -> QLineEdit | None:
        """Where one types to search this stage."""
        return None

    def leave(self) -> None:
        """The window closes."""

    # running ------------------------------------------------------------------------

    def _changed(self) -> None:
        self._stale = not self.isVisible()
        if not self._stale:
            self._renew()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self._restore()
        self._renew()

    def _renew(self) -> None:
        wanted = self.structure()
        if wanted != self._built:
            self._built = wanted
            place = place_on(self._scroll.widget(), self._scroll)
            old = self._scroll.takeWidget()
            if old is not None:
                old.setParent(None)
                old.deleteLater()
            page = self.build_lower()
            self._scroll.setWidget(page)
            self.refresh()
            return_to(page, place, self._scroll)
            return
        self.refresh()

    def _remember(self) -> None:
        settings.put_state(f"splitter/{self.key}", bytes(self.splitter.saveState().data()))

    def _restore(self) -> None:
        state = settings.get_state(f"splitter/{self.key}")
        if state:
            self.splitter.restoreState(state)

    # finding fields --------------------------------------------------------------------

    def field(self, path: Path) -> QWidget | None:
        """The field of ``path`` on this stage."""
        for row in self.findChildren(NumberRow):
            if row.binding.path == path:
                return row
        dotted = ".".join(map(str, path))
        for widget in self.findChildren(QWidget):
            if widget.property("path") == dotted:
                return widget
        return None

    def reveal(self, path: Path) -> bool:
        """Show, focus and flash the field of ``path`` once; False when it is not here."""
        if not self.isVisible():
            return False
        widget = self.field(path)
        if widget is None:
            return False
        if isinstance(widget, NumberRow):
            widget.focus()
            widget = widget.edit
        else:
            widget.setFocus(Qt.FocusReason.OtherFocusReason)
        keep_in_view(widget)
        flash(widget)
        return True


ARROWS = {"▲": "Move earlier", "▼": "Move later"}
"""What buttons that show an arrow are called."""


def keep_in_view(widget: QWidget, again: int = SETTLES) -> None:
    """Bring into view now, and in the next turns: a page that is new is laid out step by step."""
    bring_into_view(widget)
    if again:
        QTimer.singleShot(SETTLE_MS, widget, partial(keep_in_view, widget, again - 1))


def flash(widget: QWidget) -> None:
    """One short dip of a widget's opacity, so that the eye finds it."""
    effect = QGraphicsOpacityEffect(widget)
    effect.setOpacity(0.35)
    widget.setGraphicsEffect(effect)
    QTimer.singleShot(240, widget, lambda: widget.setGraphicsEffect(None))  # type: ignore[arg-type]


def columns(*parts: QWidget) -> QWidget:
    """Parts side by side, equally wide."""
    holder = QWidget()
    row = QHBoxLayout(holder)
    row.setContentsMargins(0, 6, 8, 4)
    row.setSpacing(22)
    for part in parts:
        row.addWidget(part, 1)
    return holder


def below(*parts: QWidget) -> QWidget:
    """Parts one below the other."""
    holder = QWidget()
    box = QVBoxLayout(holder)
    box.setContentsMargins(0, 0, 0, 0)
    box.setSpacing(12)
    for part in parts:
        box.addWidget(part)
    return holder


def column(title: str, hint: str, *rows: QWidget) -> QWidget:
    """A section title with rows below it."""
    holder = QWidget()
    box = QVBoxLayout(holder)
    box.setContentsMargins(0, 0, 0, 0)
    box.setSpacing(2)
    head = QHBoxLayout()
    head.addWidget(label(title, "section"))
    head.addStretch(1)
    if hint:
        head.addWidget(label(hint, "hint"))
    box.addLayout(head)
    for row in rows:
        box.addWidget(row)
    box.addStretch(1)
    return holder


def numbers(session: Editing, *paths: Path) -> list[NumberRow]:
    """Number rows of stored figures that exist in the present design."""
    return [NumberRow(session, at_path(session.design, p)) for p in paths if session.has(p)]


def number(session: Editing, binding: Binding) -> NumberRow:
    """A number row of a computed figure."""
    return NumberRow(session, binding)


def grid_of(rows: Sequence[Sequence[QWidget]]) -> QWidget:
    """A plain table of widgets."""
    holder = QWidget()
    grid = QGridLayout(holder)
    grid.setContentsMargins(0, 0, 0, 0)
    grid.setHorizontalSpacing(10)
    grid.setVerticalSpacing(4)
    for r, row in enumerate(rows):
        for c, widget in enumerate(row):
            grid.addWidget(widget, r, c)
    return holder


def buttons(*parts: tuple[str, Callable[[], None]]) -> QWidget:
    """A row of buttons."""
    holder = QWidget()
    holder.setProperty("compact", "true")
    row = QHBoxLayout(holder)
    row.setContentsMargins(0, 3, 0, 3)
    row.setSpacing(6)
    for text, action in parts:
        button = QPushButton(text)
        if text in ARROWS:
            tip(button, ARROWS[text])
            button.setAccessibleName(ARROWS[text])
        button.clicked.connect(lambda _=False, act=action: act())
        row.addWidget(button)
    row.addStretch(1)
    return holder
