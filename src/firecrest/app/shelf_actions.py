"""What the window does with the shelf: new parts, files in and out, undo of its changes."""

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from firecrest.app.file_actions import FileActions
from firecrest.app.stages.base import Stage
from firecrest.app.widgets.find import Found
from firecrest.core.errors import FirecrestError
from firecrest.files.atomic import write_file
from firecrest.files.bounded import read_bytes
from firecrest.present.parts.taking import report
from firecrest.shelf.exchange import LARGEST, planned, read_file, take, write_parts
from firecrest.shelf.kinds import KINDS
from firecrest.shelf.table import write_table

if TYPE_CHECKING:
    from firecrest.app.stages.parts.stage import PartsStage

PARTS = "Parts (*.csv *.tsv *.txt *.json);;All files (*)"
SAVED = {"csv": "Table (*.csv)", "json": "Parts (*.json)"}


class ShelfActions(FileActions):
    """The shelf half of the main window."""

    stages: dict[str, Stage]

    def show_stage(self, key: str) -> None:
        """Show a stage; the window knows how."""

    def _parts(self) -> "PartsStage":
        """The Parts stage, brought to front."""
        from firecrest.app.stages.parts.stage import PartsStage

        self.show_stage("parts")
        stage = self.stages["parts"]
        assert isinstance(stage, PartsStage)
        return stage

    def new_shelf_part(self, kind: str) -> None:
        """A new part and its sheet."""
        self._parts().new_part(kind)

    def paste_sheet(self) -> None:
        """Paste into the open sheet, or into a new driver."""
        stage = self._parts()
        if stage.subject is not None:
            stage.paste(True)
        else:
            stage.new_part("driver", pasting=True)

    def shelf_findable(self) -> list[Found]:
        """The shelf's parts, for the find field."""
        return [
            Found(
                entry.name, f"on the shelf: {KINDS[entry.kind].word}", partial(self._open, entry.id)
            )
            for entry in self.session.shelf.entries().values()
        ]

    def _open(self, id: str) -> None:
        self._parts().open_entry(id)

    def take_parts(self) -> None:
        """Read a file of parts, show what it would do, and take it when told so."""
        path = self.messages.open_any("Take parts from a file", PARTS)
        if path is not None:
            self.take_parts_from(path)

    def take_parts_from(self, path: Path) -> None:
        """As ``take_parts``, of a known file; a broken one changes nothing."""
        stage = self._parts()
        try:
            table = read_file(read_bytes(path, LARGEST), path.name, stage.shelf.kind or "driver")
        except FirecrestError as error:
            self.messages.tell("Nothing taken", f"{error}\nThe shelf is as it was.")
            return
        taking = planned(table, self.session.shelf.entries())
        count = len(taking.new) + len(taking.changed)
        text = report(path.name, table, taking)
        if count == 0:
            self.messages.tell("Nothing to take", text)
        elif self.messages.confirm("Take parts", text, f"Take {count} parts"):
            self.session.shelf.attempt(lambda shelf: take(shelf, taking))

    def save_shelf(self, form: str) -> None:
        """Write all parts that are not put away to a file."""
        path = self.messages.save_as("Save the shelf", f"shelf.{form}", SAVED[form])
        if path is None:
            return
        entries = [e for e in self.session.shelf.entries().values() if not e.archived]
        text = write_table(entries) if form == "csv" else write_parts(entries)
        try:
            write_file(path, text.encode())
        except FirecrestError as error:
            self.messages.tell("Not saved", str(error))

    def undo_shelf(self) -> None:
        """Take back the last change of the shelf made in this window."""
        self.session.shelf.attempt(lambda shelf: shelf.undo())

    def redo_shelf(self) -> None:
        """Make it again."""
        self.session.shelf.attempt(lambda shelf: shelf.redo())
