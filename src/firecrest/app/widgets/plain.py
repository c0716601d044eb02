"""Texts on show, always plain: names come from files, and rich text in them would be obeyed.

A label or tooltip left to itself reads ``<img src=…>`` in a name as markup and loads what it
names. All labels are made here, and all tooltips are set here.
"""

from html import escape
from typing import Protocol

from PySide6.QtCore import Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtGui import Qt as QtText
from PySide6.QtWidgets import QLabel, QWidget


def label(text: str = "", role: str = "", parent: QWidget | None = None) -> QLabel:
    """A text in one of the roles of the style sheet."""
    made = QLabel(parent) if parent is not None else QLabel()
    made.setTextFormat(Qt.TextFormat.PlainText)
    made.setText(text)
    if role:
        made.setProperty("role", role)
    return made


class _Whole(QLabel):
    """A wrapped text that is never cut: as high as its lines, at any width."""

    def setText(self, text: str) -> None:
        super().setText(text)
        self._stand()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._stand()

    def _stand(self) -> None:
        self.setMinimumHeight(0)  # the height asked for would not be less than the one set
        self.setFixedHeight(max(self.heightForWidth(self.width()), 0))


def caution(text: str = "") -> QLabel:
    """A warning, which is on show as a whole wherever it stands."""
    return paragraph(text, "caution")


def paragraph(text: str = "", role: str = "second") -> QLabel:
    """A text of some lines, on show as a whole wherever it stands."""
    made = _Whole()
    made.setTextFormat(Qt.TextFormat.PlainText)
    made.setText(text)
    made.setProperty("role", role)
    made.setWordWrap(True)
    return made


class _Linked(QLabel):
    """A text with links, as high as its lines."""

    def heightForWidth(self, width: int) -> int:
        """The room of a ring around it is counted twice in what a label says by itself."""
        ring = self.contentsMargins()
        return super().heightForWidth(width + ring.left() + ring.right())


def rich_label() -> QLabel:
    """A label whose words are made by ``markup``."""
    made = _Linked()
    made.setTextFormat(Qt.TextFormat.RichText)
    return made


def markup(text: str) -> str:
    """A plain text as it must stand inside rich text."""
    return escape(text)


def tip_text(text: str) -> str:
    """A text as a tooltip shows it letter by letter."""
    return f"<qt>{markup(text)}</qt>" if QtText.mightBeRichText(text) else text


class Tipped(Protocol):
    """A widget, action or format of text."""

    def setToolTip(self, text: str, /) -> None: ...


def tip(widget: Tipped, text: str) -> None:
    """Give a widget its tooltip."""
    widget.setToolTip(tip_text(text))


def menu_text(text: str) -> str:
    """A name as a menu or button shows it: no letter of it is a shortcut."""
    return text.replace("&", "&&")
