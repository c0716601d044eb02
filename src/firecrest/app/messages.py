"""Questions and notices to the person at the window, in one place so that tests can answer."""

from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QFileDialog, QInputDialog, QMessageBox, QWidget

if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrinter

KINDS = "Firecrest designs (*.firecrest);;Bare designs (*.json);;All files (*)"


class Messages:
    """Asks with real dialogs; a test replaces it by one that answers by itself."""

    def __init__(self, window: QWidget) -> None:
        self._window = window

    def _ask(self, title: str, text: str, choices: Mapping[str, str], escape: str) -> str:
        """The key of the choice; ``escape`` when the question is closed. Never rich text."""
        box = QMessageBox(self._window)
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setWindowTitle(title)
        head, _, rest = text.partition("\n\n")
        box.setText(head)
        if rest:
            box.setDetailedText(rest)
        role = QMessageBox.ButtonRole.ActionRole
        buttons = {key: box.addButton(word, role) for key, word in choices.items()}
        box.setDefaultButton(next(iter(buttons.values())))
        box.setEscapeButton(buttons[escape])
        box.exec()
        pressed = box.clickedButton()
        found = next((key for key, button in buttons.items() if button is pressed), escape)
        box.deleteLater()
        return found

    def keep_changes(self, name: str) -> str:
        """``save``, ``drop`` or ``cancel`` for unsaved work."""
        return self._ask(
            "Unsaved work",
            f"“{name}” has changes that are not saved.",
            {"save": "Save", "drop": "Do not save", "cancel": "Stay here"},
            "cancel",
        )

    def restore(self, name: str, more: int) -> str:
        """``open``, ``drop`` or ``later`` for left-over work of a crash."""
        windows = "one more window" if more == 1 else f"{more} more windows"
        others = f" Work of {windows} was kept too." if more else ""
        return self._ask(
            "Work from last time",
            f"Firecrest ended without closing. Unsaved work on “{name}” was kept.{others}",
            {"open": "Open it", "later": "Ask again next time", "drop": "Throw it away"},
            "later",
        )

    def changed_elsewhere(self, name: str, difference: str) -> str:
        """``save_as``, ``reload``, ``over`` or ``cancel`` when a file is not as it was opened."""
        return self._ask(
            "Changed elsewhere",
            f"{name} was changed by another window or program since you opened or saved it here. "
            "Saving now would put your work in place of that; details list what differs."
            f"\n\n{difference}",
            {
                "save_as": "Save under another name",
                "reload": "Take the file's state",
                "over": "Save over it",
                "cancel": "Stay here",
            },
            "cancel",
        )

    def replace_read_only(self, name: str) -> bool:
        """Whether a file that is marked read-only shall be replaced."""
        text = f"{name} is marked read-only. Saving replaces it and keeps the mark."
        return self._ask("Read-only", text, {"no": "Stay here", "yes": "Replace it"}, "no") == "yes"

    def tell(self, title: str, text: str) -> None:
        """Something that went wrong, with what to do."""
        self._ask(title, text.replace("\n\n", "\n"), {"close": "Close"}, "close")

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

    def open_many(self, title: str, kinds: str) -> list[Path]:
        """Files of other ``kinds`` to read, several at once."""
        names, _ = QFileDialog.getOpenFileNames(self._window, title, "", kinds)
        return [Path(name) for name in names]

    def save_as(self, title: str, suggested: str, kinds: str) -> Path | None:
        """A file of other ``kinds`` to write."""
        name, _ = QFileDialog.getSaveFileName(self._window, title, suggested, kinds)
        return Path(name) if name else None

    def printer(self) -> "QPrinter | None":
        """Where to print; None when nobody wants to after all."""
        from PySide6.QtPrintSupport import QPrintDialog, QPrinter

        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        dialog = QPrintDialog(printer, self._window)
        good = dialog.exec() == QDialog.DialogCode.Accepted
        dialog.deleteLater()
        return printer if good else None

    def confirm(self, title: str, text: str, yes: str) -> bool:
        """Whether to go on as ``text`` says; it may be long."""
        return self._ask(title, text, {"yes": yes, "no": "Drop"}, "no") == "yes"

    def variant_name(self, letter: str, name: str) -> str | None:
        """A name for a variant, "" for none; None when it stays as it is."""
        text, good = QInputDialog.getText(
            self._window, "Rename the variant", f"Name of {letter}", text=name
        )
        return text.strip() if good else None

    def new_name(self, name: str, title: str = "Rename") -> str | None:
        """Another name, of the project or what ``title`` says."""
        text, good = QInputDialog.getText(self._window, title, "Name", text=name)
        return text.strip() if good and text.strip() else None
