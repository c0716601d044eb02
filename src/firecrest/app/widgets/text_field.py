"""A line of text of the design: undo belongs to the document unless something is being typed."""

from PySide6.QtCore import QEvent
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QLineEdit

from firecrest.app.editing import Editing
from firecrest.design.edits.paths import Path

UNDO, REDO = QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo


class TextField(QLineEdit):
    """Shows and sets the text at ``path``."""

    def __init__(self, session: Editing, path: Path) -> None:
        super().__init__()
        self.session, self.path, self._shown = session, path, ""
        self.editingFinished.connect(self.keep)

    def show_text(self, text: str) -> None:
        """Show what is in force."""
        self._shown = text
        if self.text() != text:
            self.setText(text)

    @property
    def _typing(self) -> bool:
        """Whether it says something else than was last shown."""
        return self.text() != self._shown

    def keep(self) -> None:
        """Put what is typed in force."""
        text = self.text()
        if self._typing and self.session.has(self.path):
            self._shown = text
            self.session.attempt(lambda: self.session.edit(self.path, text))

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.ShortcutOverride and not self._typing:
            assert isinstance(event, QKeyEvent)
            if event.matches(UNDO) or event.matches(REDO):
                event.ignore()
                return False
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(UNDO) and self._typing:
            self.undo()
            if not self.isUndoAvailable():
                self.setText(self._shown)
        elif event.matches(UNDO):
            self.session.undo()
        elif event.matches(REDO) and not self._typing:
            self.session.redo()
        else:
            super().keyPressEvent(event)
