"""Questions and notices to the person at the window, in one place so that tests can answer."""

from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QInputDialog, QMessageBox, QWidget

KINDS = "Firecrest designs (*.firecrest);;Bare designs (*.json);;All files (*)"


class Messages:
    """Asks with real dialogs; a test replaces it by one that answers by itself."""

    def __init__(self, window: QWidget) -> None:
        self._window = window

    def keep_changes(self, name: str) -> str:
        """``save``, ``drop`` or ``cancel`` for unsaved work."""
        box = QMessageBox(self._window)
        box.setWindowTitle("Unsaved work")
        box.setText(f"“{name}” has changes that are not saved.")
        save = box.addButton("Save", QMessageBox.ButtonRole.AcceptRole)
        drop = box.addButton("Do not save", QMessageBox.ButtonRole.DestructiveRole)
        box.addButton("Stay here", QMessageBox.ButtonRole.RejectRole)
        box.exec()
        return {id(save): "save", id(drop): "drop"}.get(id(box.clickedButton()), "cancel")

    def restore(self, name: str) -> bool:
        """Whether left-over work of a crash shall be opened."""
        box = QMessageBox(self._window)
        box.setWindowTitle("Work from last time")
        box.setText(f"Firecrest ended without closing. Unsaved work on “{name}” was kept.")
        yes = box.addButton("Open it", QMessageBox.ButtonRole.AcceptRole)
        box.addButton("Throw it away", QMessageBox.ButtonRole.DestructiveRole)
        box.exec()
        return box.clickedButton() is yes

    def tell(self, title: str, text: str) -> None:
        """Something that went wrong, with what to do."""
        QMessageBox.warning(self._window, title, text)

    def open_path(self, folder: str) -> Path | None:
        """A file to open."""
        name, _ = QFileDialog.getOpenFileName(self._window, "Open", folder, KINDS)
        return Path(name) if name else None

    def save_path(self, suggested: str) -> Path | None:
        """A file to save to."""
        name, _ = QFileDialog.getSaveFileName(
            self._window, "Save as", suggested, "Firecrest designs (*.firecrest)"
        )
        return Path(name) if name else None

    def open_any(self, title: str, kinds: str) -> Path | None:
        """A file of other ``kinds`` to read."""
        name, _ = QFileDialog.getOpenFileName(self._window, title, "", kinds)
        return Path(name) if name else None

    def save_as(self, title: str, suggested: str, kinds: str) -> Path | None:
        """A file of other ``kinds`` to write."""
        name, _ = QFileDialog.getSaveFileName(self._window, title, suggested, kinds)
        return Path(name) if name else None

    def confirm(self, title: str, text: str, yes: str) -> bool:
        """Whether to go on as ``text`` says; it may be long."""
        box = QMessageBox(self._window)
        box.setWindowTitle(title)
        head, _, rest = text.partition("\n\n")
        box.setText(head)
        if rest:
            box.setDetailedText(rest)
        accept = box.addButton(yes, QMessageBox.ButtonRole.AcceptRole)
        box.addButton("Drop", QMessageBox.ButtonRole.RejectRole)
        box.exec()
        return box.clickedButton() is accept

    def new_name(self, name: str) -> str | None:
        """Another name for the project."""
        text, good = QInputDialog.getText(self._window, "Rename", "Name", text=name)
        return text.strip() if good and text.strip() else None
