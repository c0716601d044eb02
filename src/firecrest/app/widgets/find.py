"""The find field: every command, field, part and stage by a few letters of its name."""

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtGui import QFocusEvent, QKeyEvent
from PySide6.QtWidgets import QLineEdit, QListWidget, QListWidgetItem, QWidget

from firecrest.app.theme.size import fix

SHOWN = 12


@dataclass(frozen=True)
class Found:
    """One thing that can be found: its text, what kind it is, what choosing it does, and other
    words for it.
    """

    text: str
    kind: str
    act: Callable[[], object]
    also: str = ""


BY_OTHER_WORDS = 1000
"""What is found by another word for it only stands below what is called so."""


def matches(query: str, text: str, also: str = "") -> int | None:
    """Rank of a match (smaller is better): every word of ``query`` occurs; None otherwise."""
    low, other = text.lower(), also.lower()
    words = query.lower().split()
    if not all(word in low for word in words):
        if all(word in low or word in other for word in words):
            return BY_OTHER_WORDS + len(low)
        return None
    starts = sum(low.startswith(w) or f" {w}" in low for w in words)
    return len(low) - 100 * starts


LONGEST = 200


class FindField(QLineEdit):
    """Line with a list below it; arrows choose, Enter goes, Esc leaves."""

    left = Signal()

    def __init__(self, sources: Callable[[], list[Found]]) -> None:
        super().__init__()
        self._sources = sources
        self._found: list[Found] = []
        self._list: QListWidget | None = None
        self.setPlaceholderText("Find anything  (Ctrl K)")
        self.setAccessibleName("Find a command, field or part")
        fix(self, most_width=288)
        self.setMaxLength(LONGEST)
        fix(self, least_width=150)
        self.textChanged.connect(self._search)

    def results(self) -> list[str]:
        """Texts on show."""
        return [f.text for f in self._found]

    def _search(self, query: str) -> None:
        ranked = []
        if query.strip():
            for found in self._sources():
                rank = matches(query, found.text, found.also)
                if rank is not None:
                    ranked.append((rank, found))
        ranked.sort(key=lambda pair: pair[0])
        self._found = [found for _, found in ranked[:SHOWN]]
        self._show()

    def _show(self) -> None:
        window: QWidget = self.window()
        if self._list is None or self._list.parent() is not window:
            self._list = QListWidget(window)
            self._list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            self._list.setAccessibleName("Found")
            self._list.itemClicked.connect(lambda item: self._go(self._list.row(item)))
        self._list.clear()
        for found in self._found:
            self._list.addItem(QListWidgetItem(f"{found.text}    {found.kind}"))
        if not self._found and self.text().strip():
            self._list.addItem(QListWidgetItem("Nothing of that name"))
        self._list.setVisible(bool(self.text().strip()))
        self._list.setCurrentRow(0)
        height = 8 + 22 * max(self._list.count(), 1)
        spot = self.mapTo(window, QPoint(0, self.height() + 2))
        width = max(self.width(), 360)
        self._list.setGeometry(min(spot.x(), window.width() - width - 8), spot.y(), width, height)
        self._list.raise_()

    def _go(self, row: int) -> None:
        if 0 <= row < len(self._found):
            act = self._found[row].act
            self._leave()
            act()

    def _leave(self) -> None:
        self.clear()
        if self._list is not None:
            self._list.hide()
        self.left.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if key in (Qt.Key.Key_Down, Qt.Key.Key_Up) and self._list is not None:
            step = 1 if key == Qt.Key.Key_Down else -1
            self._list.setCurrentRow((self._list.currentRow() + step) % max(len(self._found), 1))
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._go(self._list.currentRow() if self._list is not None else 0)
        elif key == Qt.Key.Key_Escape:
            self._leave()
        else:
            super().keyPressEvent(event)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if self._list is not None:
            self._list.hide()
