"""What the window does with files: new, open, save, recent, dropped; never losing work."""

from pathlib import Path

from PySide6.QtCore import QSettings
from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import QMainWindow, QMenu

from firecrest.app.messages import Messages
from firecrest.app.session import Session
from firecrest.core.errors import FirecrestError
from firecrest.files.container import SUFFIX, Document
from firecrest.files.demos import read_demo

RECENT = 8
TABLES = (".csv", ".tsv")


class FileActions(QMainWindow):
    """The file half of the main window."""

    session: Session
    messages: Messages
    recent: QMenu

    def take_parts_from(self, path: Path) -> None:
        """Take parts from a file; the shelf half of the window knows how."""

    def may_leave(self) -> bool:
        """Whether the present work may be left: saved, or given up knowingly."""
        if not self.session.modified:
            return True
        answer = self.messages.keep_changes(self.session.design.name)
        return answer == "drop" or (answer == "save" and self.save())

    def new_project(self) -> None:
        """Start from a blank design."""
        if self.may_leave():
            self.session.start_blank()

    def open_demo(self, name: str) -> None:
        """Open a shipped demo."""
        if self.may_leave():
            self.session.start(Document(read_demo(name)), None)

    def open_file(self) -> None:
        """Ask for a file and open it."""
        if self.may_leave():
            path = self.messages.open_path(str(QSettings().value("folder", "")))
            if path is not None:
                self.open_path(path)

    def open_path(self, path: Path) -> bool:
        """Open a file; a refusal leaves everything as it is."""
        try:
            document = self.session.open(path)
        except FirecrestError as error:
            self.messages.tell("Not opened", str(error))
            return False
        self._used(path)
        if document.lost:
            self.messages.tell(
                "Opened in part",
                "These attachments could not be read:\n"
                + "\n".join(document.lost)
                + "\nThe file itself was left as it is; save under another name to keep your work.",
            )
        return True

    def save(self) -> bool:
        """Save to the file in use, or ask for one."""
        return self._save_to(self.session.path) if self.session.path else self.save_as()

    def save_as(self) -> bool:
        """Ask for a file and save to it."""
        folder = Path(str(QSettings().value("folder", "")))
        path = self.messages.save_path(str(folder / f"{self.session.design.name}{SUFFIX}"))
        if path is None:
            return False
        return self._save_to(path if path.suffix == SUFFIX else path.with_name(path.name + SUFFIX))

    def _save_to(self, path: Path) -> bool:
        try:
            self.session.save(path)
        except FirecrestError as error:
            self.messages.tell("Not saved", str(error))
            return False
        self._used(path)
        return True

    def _used(self, path: Path) -> None:
        settings = QSettings()
        settings.setValue("folder", str(path.parent))
        known = [p for p in self._recent() if p != str(path)]
        settings.setValue("recent", [str(path), *known][:RECENT])

    def _recent(self) -> list[str]:
        value = QSettings().value("recent", [])
        return [value] if isinstance(value, str) else list(map(str, value or []))  # type: ignore[call-overload]

    def fill_recent(self) -> None:
        self.recent.clear()
        for name in self._recent():
            path = Path(name)
            action = self.recent.addAction(path.name)
            action.setToolTip(name)
            action.triggered.connect(lambda _=False, p=path: self.may_leave() and self.open_path(p))
        if not self._recent():
            self.recent.addAction("Nothing yet").setEnabled(False)

    def rename(self) -> None:
        """Give the project another name."""
        name = self.messages.new_name(self.session.design.name)
        if name:
            self.session.attempt(lambda: self.session.edit(("name",), name))

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """A file dropped on the window is opened; a table of parts is taken."""
        paths = [Path(u.toLocalFile()) for u in event.mimeData().urls() if u.isLocalFile()]
        if paths and paths[0].suffix.lower() in TABLES:
            self.take_parts_from(paths[0])
            return
        if paths and self.may_leave():
            self.open_path(paths[0])
