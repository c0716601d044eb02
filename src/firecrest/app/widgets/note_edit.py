"""A note of several lines bound to a path: kept when one goes on, or before the file is saved."""

from PySide6.QtGui import QFocusEvent
from PySide6.QtWidgets import QPlainTextEdit

from firecrest.app.editing import Editing
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import unhook
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.fields import label_of

HEIGHT = 64


class NoteEdit(QPlainTextEdit):
    """Text to remember something by; Tab leaves it."""

    def __init__(self, session: Editing, path: Path) -> None:
        super().__init__()
        self.session, self.path = session, path
        fix(self, height=HEIGHT)
        self.setTabChangesFocus(True)
        self.setAccessibleName(label_of(type(value_at(session.design, path[:-1])), str(path[-1])))
        self.setProperty("path", ".".join(map(str, path)))
        session.changed.connect(self.refresh)
        self.destroyed.connect(lambda: unhook(session, self.refresh))
        self.refresh()

    def refresh(self) -> None:
        """Show what is in force, unless one is writing."""
        text = str(value_at(self.session.design, self.path))
        if not self.document().isModified() and self.toPlainText() != text:
            self.setPlainText(text)

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        if self.document().isModified():
            text = self.toPlainText()
            self.document().setModified(False)
            self.session.attempt(lambda: self.session.edit(self.path, text))
            self.refresh()
