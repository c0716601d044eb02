"""A table to read and copy: nothing in it can be changed."""

from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QAbstractItemView, QApplication, QTableView, QTableWidget
from PySide6.QtWidgets import QTableWidgetItem as Item

from firecrest.app.exporting import Table, cell_text

SHOWN_DIGITS = 5


class DataTable(QTableWidget):
    """A ``Table`` on show; Ctrl+C copies what is selected, with its titles."""

    def __init__(self, table: Table, name: str) -> None:
        super().__init__(len(table.rows), len(table.heads))
        self.setAccessibleName(name)
        self.setHorizontalHeaderLabels(list(table.heads))
        self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setTabKeyNavigation(False)  # arrows go from cell to cell, Tab leaves
        self.verticalHeader().hide()
        for r, row in enumerate(table.rows):
            for c, value in enumerate(row):
                shown = f"{value:.{SHOWN_DIGITS}g}" if isinstance(value, float) else value
                self.setItem(r, c, Item("–" if cell_text(value) == "" else str(shown)))
        self.resizeColumnsToContents()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy):
            copy_selection(self)
        else:
            super().keyPressEvent(event)


def copy_selection(view: QTableView) -> None:
    """Put the selected cells on the clipboard, tabs between columns, their titles on top."""
    model, cells = view.model(), view.selectionModel().selectedIndexes()
    if not cells:
        return
    rows = sorted({cell.row() for cell in cells})
    columns = sorted({cell.column() for cell in cells})
    orientation = view.horizontalHeader().orientation()
    heads = [str(model.headerData(c, orientation) or "") for c in columns]
    chosen = {(cell.row(), cell.column()) for cell in cells}
    lines = [
        [str(model.index(r, c).data() or "") if (r, c) in chosen else "" for c in columns]
        for r in rows
    ]
    text = "\n".join("\t".join(line) for line in [heads, *lines])
    QApplication.clipboard().setText(text + "\n")
