"""The first page: where to begin, and a tour of the window that can be left at any time."""

from collections.abc import Callable, Sequence
from pathlib import Path

from PySide6.QtCore import QEvent, QObject, QRect, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from firecrest.app.theme.size import fix, sized, text_size
from firecrest.app.widgets.place import bring_into_view
from firecrest.app.widgets.plain import label, menu_text, tip

Begin = tuple[str, str, Callable[[], object]]
"""What a button says, what it is good for, and what it does."""
WIDTH = 560
POINTER_WIDTH = 300
EDGE, BESIDE = 24, 26
"""Pixels about the page in its window, and of its frame beside what it holds."""
ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


class StartPage(QFrame):
    """A card over the window: blank, from parts, demos, recent files; Esc leaves it."""

    def __init__(
        self,
        window: QWidget,
        begins: Sequence[Begin],
        demos: Sequence[Begin],
        recent: Sequence[Begin],
    ) -> None:
        super().__init__(window)
        self.setProperty("role", "start")
        self.setAccessibleName("Start page")
        self._scroll, inner = QScrollArea(), QWidget()
        self._scroll.setWidgetResizable(True)
        self._scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._scroll.setWidget(inner)
        self._scroll.viewport().setAutoFillBackground(False)
        inner.setAutoFillBackground(False)
        QVBoxLayout(self).addWidget(self._scroll)
        box = QVBoxLayout(inner)
        box.setContentsMargins(14, 8, 14, 8)
        box.setSpacing(8)
        box.addWidget(label("What do you want to build?", "title"))
        self.buttons: list[QPushButton] = []
        for begin in begins:
            box.addWidget(self._button(begin, "way"))
            hint = label(begin[1], "hint")
            hint.setWordWrap(True)
            box.addWidget(hint)
        columns = QHBoxLayout()
        columns.setSpacing(24)
        for title, rows in (("Look at one that is finished", demos), ("Go on with", recent)):
            if rows:
                columns.addLayout(self._column(title, rows))
        box.addLayout(columns)
        box.addWidget(label("Esc leaves this page; Help, Start page brings it back.", "hint"))
        window.installEventFilter(self)
        text_size.changed.connect(self._stand)
        self.show()
        self._stand()
        self.buttons[0].setFocus(Qt.FocusReason.OtherFocusReason)

    def _stand(self) -> None:
        """In the middle of the window; what has no room scrolls."""
        window, inner = self.parentWidget(), self._scroll.widget()
        assert window is not None
        assert inner is not None
        inner.ensurePolished()
        hint = inner.sizeHint()
        width = min(max(sized(WIDTH), hint.width() + BESIDE), window.width() - EDGE)
        height = min(hint.height() + BESIDE, window.height() - EDGE)
        self.setGeometry(
            (window.width() - width) // 2, (window.height() - height) // 2, width, height
        )
        self.raise_()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Stay in the middle of a window that is resized."""
        if event.type() == QEvent.Type.Resize:
            self._stand()
        return super().eventFilter(watched, event)

    def _column(self, title: str, rows: Sequence[Begin]) -> QVBoxLayout:
        column = QVBoxLayout()
        column.setSpacing(2)
        column.addWidget(label(title, "section"))
        for row in rows:
            column.addWidget(self._button(row, "link"))
        column.addStretch(1)
        return column

    def _button(self, begin: Begin, role: str) -> QPushButton:
        text, help, act = begin
        button = QPushButton(menu_text(text))
        button.setProperty("role", role)
        button.setStyleSheet("text-align: left")
        tip(button, help)

        def press() -> None:
            self.leave()
            act()

        button.clicked.connect(press)
        self.buttons.append(button)
        return button

    def leave(self) -> None:
        """Away with the page."""
        self.hide()
        self.deleteLater()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        focus = self.focusWidget()
        if event.key() == Qt.Key.Key_Escape:
            self.leave()
        elif event.key() in ENTER and isinstance(focus, QPushButton):
            focus.click()
        elif step and isinstance(focus, QPushButton) and focus in self.buttons:
            place = (self.buttons.index(focus) + step) % len(self.buttons)
            self.buttons[place].setFocus(Qt.FocusReason.TabFocusReason)
            bring_into_view(self.buttons[place])
        else:
            super().keyPressEvent(event)


def recent_begins(paths: Sequence[str], open_path: Callable[[Path], object]) -> list[Begin]:
    """Recent files that are still there."""
    there = [Path(path) for path in paths if Path(path).exists()]
    return [(path.stem, str(path), lambda p=path: open_path(p)) for path in there[:5]]  # type: ignore[misc]


class Tour(QFrame):
    """Five pointers at the regions of the window, one after the other."""

    def __init__(self, window: QWidget, stops: Sequence[tuple[QWidget, str, str]]) -> None:
        super().__init__(window)
        self.setProperty("role", "start")
        self._stops, self._at = stops, 0
        self._box = box = QVBoxLayout(self)
        box.setContentsMargins(14, 10, 14, 10)
        self._title, self._text = label("", "panel"), label()
        self._text.setWordWrap(True)
        box.addWidget(self._title)
        box.addWidget(self._text)
        row = QHBoxLayout()
        self._count = label("", "hint")
        self.next = QPushButton("Next")
        self.next.clicked.connect(self.go_on)
        leave = QPushButton("Leave the tour")
        leave.clicked.connect(self.leave)
        row.addWidget(self._count)
        row.addStretch(1)
        row.addWidget(leave)
        row.addWidget(self.next)
        box.addLayout(row)
        fix(self, width=POINTER_WIDTH)
        self._point()

    def go_on(self) -> None:
        """To the next pointer; after the last one the tour is over."""
        self._at += 1
        if self._at < len(self._stops):
            self._point()
        else:
            self.leave()

    def leave(self) -> None:
        """Away with the tour."""
        self.hide()
        self.deleteLater()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        focus = self.focusWidget()
        if event.key() == Qt.Key.Key_Escape:
            self.leave()
        elif event.key() in ENTER and isinstance(focus, QPushButton):
            focus.click()
        else:
            super().keyPressEvent(event)

    def _point(self) -> None:
        """Stand beside the region that is told of."""
        target, title, text = self._stops[self._at]
        self._title.setText(title)
        self._text.setText(text)
        self.setAccessibleName(f"{title}. {text}")
        self._count.setText(f"{self._at + 1} of {len(self._stops)}")
        self.next.setText("Next" if self._at + 1 < len(self._stops) else "Done")
        self.show()
        inner = sized(POINTER_WIDTH) - 30
        self._text.setFixedSize(inner, self._text.heightForWidth(inner))
        self.setFixedHeight(self._box.totalSizeHint().height())
        self.move(_beside(self, target).topLeft())
        self.raise_()
        self.next.setFocus(Qt.FocusReason.OtherFocusReason)


def _beside(card: QWidget, target: QWidget) -> QRect:
    """Where a card stands: on the side of its target that has most room, inside the window."""
    window = card.parentWidget()
    assert window is not None
    spot = QRect(target.mapTo(window, target.rect().topLeft()), target.size())
    x, y = spot.center().x() - card.width() // 2, spot.bottom() + 8
    if spot.height() > window.height() // 2:  # a panel that stands upright
        right = window.width() - spot.right() > spot.left()
        x = spot.right() + 8 if right else spot.left() - card.width() - 8
        y = spot.top() + 60
    if y + card.height() > window.height():
        y = spot.top() - card.height() - 8
    x = min(max(x, 8), window.width() - card.width() - 8)
    return QRect(x, max(y, 8), card.width(), card.height())
