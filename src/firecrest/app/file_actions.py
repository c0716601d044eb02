"""What the window does with files: new, open, save, recent, dropped; never losing work."""

from functools import partial
from pathlib import Path

from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import QApplication, QMainWindow, QMenu

from firecrest.app.messages import Messages
from firecrest.app.session import Session
from firecrest.app.settings import MOST_RECENT, settings
from firecrest.app.widgets.notice import Notice
from firecrest.app.widgets.plain import menu_text, tip
from firecrest.core.errors import ChangedElsewhereError, FirecrestError
from firecrest.files.atomic import clean_litter, write_file
from firecrest.files.container import SUFFIX, Document, read_document, read_only
from firecrest.files.demos import read_demo_project
from firecrest.files.journal import LeftOver
from firecrest.present.text.differing import differing_text

TABLES = (".csv", ".tsv")
MOST_LOST = 12


class FileActions(QMainWindow):
    """The file half of the main window."""

    session: Session
    messages: Messages
    recent: QMenu
    notice: Notice
    _told_of_change = False

    def take_parts_from(self, path: Path) -> None:
        """Take parts from a file; the shelf half of the window knows how."""

    def keep_typed(self) -> None:
        """What is being typed counts as work: kept as if one had gone on to the next field."""
        focus = QApplication.focusWidget()
        if focus is not None and self.isAncestorOf(focus):
            focus.clearFocus()
            focus.setFocus()

    def may_leave(self) -> bool:
        """Whether the present work may be left: saved, or given up knowingly."""
        self.keep_typed()
        if not self.session.modified:
            return True
        answer = self.messages.keep_changes(self.session.design.name)
        return answer == "drop" or (answer == "save" and self.save())

    def new_project(self) -> bool:
        """Start from a blank design; False when the present work is stayed with."""
        left = self.may_leave()
        if left:
            self.session.start_blank()
        return left

    def open_demo(self, name: str) -> None:
        """Open a shipped demo."""
        if self.may_leave():
            self.session.start(Document(read_demo_project(name)), None)

    def open_file(self) -> None:
        """Ask for a file and open it."""
        if self.may_leave():
            path = self.messages.open_path(settings.get("folder", ""))
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
        clean_litter(path.parent, path.name)
        if document.lost:
            self._tell_lost(document)
        return True

    def _tell_lost(self, document: Document) -> None:
        self.messages.tell(
            "Opened in part",
            "These attachments could not be read:\n"
            + "\n".join(document.lost[:MOST_LOST])
            + ("\n…" if len(document.lost) > MOST_LOST else "")
            + "\nThe file itself was left as it is; save under another name to keep your work.",
        )

    def save(self) -> bool:
        """Save to the file in use, or ask for one."""
        self.keep_typed()
        return self._save_to(self.session.path) if self.session.path else self.save_as()

    def save_as(self) -> bool:
        """Ask for a file and save to it."""
        self.keep_typed()
        folder = Path(settings.get("folder", ""))
        path = self.messages.save_path(str(folder / f"{self.session.design.name}{SUFFIX}"))
        if path is None:
            return False
        return self._save_to(path if path.suffix == SUFFIX else path.with_name(path.name + SUFFIX))

    def _save_to(self, path: Path, *, over: bool = False) -> bool:
        if read_only(path) and not self.messages.replace_read_only(path.name):
            return False
        try:
            self.session.save(path, over=over)
        except ChangedElsewhereError:
            return self._settle(path)
        except FirecrestError as error:
            self.messages.tell("Not saved", str(error))
            return False
        self._used(path)
        return True

    def _settle(self, path: Path) -> bool:
        """The file is not as it was opened here: what shall be done about it; whether saved."""
        try:
            there = read_document(path).design
            text = differing_text(self.session.design, there)
        except FirecrestError as error:
            text = f"It cannot be compared: {error}"
        answer = self.messages.changed_elsewhere(path.name, text)
        if answer == "save_as":
            return self.save_as()
        if answer == "over":
            return self._save_to(path, over=True)
        if answer == "reload":
            self.open_path(path)
        return False

    def look_at_file(self) -> None:
        """Tell once when the file in use was changed elsewhere."""
        changed = self.session.changed_elsewhere()
        if changed and not self._told_of_change:
            self.session.refused.emit(
                f"{self.session.path.name} was changed by another window or program. "  # type: ignore[union-attr]
                "Saving will ask what to do."
            )
        self._told_of_change = changed

    def restore(self, item: LeftOver) -> None:
        """Go on with work that a crash left over."""
        self.session.restore(item)
        if item.document.lost:
            self._tell_lost(item.document)

    def _used(self, path: Path) -> None:
        settings.put("folder", str(path.parent))
        known = [p for p in settings.get("recent", []) if p != str(path)]
        settings.put("recent", [str(path), *known][:MOST_RECENT])

    def fill_recent(self) -> None:
        self.recent.clear()
        for name in settings.get("recent", []):
            path = Path(name)
            action = self.recent.addAction(menu_text(path.name))
            tip(action, name)
            action.triggered.connect(lambda _=False, p=path: self.may_leave() and self.open_path(p))
        if not settings.get("recent", []):
            self.recent.addAction("Nothing yet").setEnabled(False)

    def tell_mistake(self, text: str, report: str) -> None:
        """Tell of a mistake of the program, with a way to save what helps to find it."""
        self.notice.tell(text, [("Save a report…", partial(self._save_report, report))], bad=True)

    def _save_report(self, report: str) -> None:
        path = self.messages.save_as("Save a report", "firecrest-report.txt", "Text (*.txt)")
        if path is None:
            return
        try:
            write_file(path, report.encode())
        except FirecrestError as error:
            self.messages.tell("Not saved", str(error))

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
