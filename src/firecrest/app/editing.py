"""Editing a design with undo, ghosts and refusals: what number fields and choices work on.

The window's ``Session`` is one; the sheet of a shelf part is another, on a design of its own that
holds that part.
"""

from collections.abc import Callable, Iterator
from typing import Any, Protocol

from PySide6.QtCore import QObject, Signal

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.memo import Memo
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, change_label, replace_at, set_number, value_at
from firecrest.design.edits.voice import as_the_board_plays
from firecrest.design.history import History
from firecrest.design.project import Project, project_of, with_design


class Typed(Protocol):
    """A field in which something is being typed, or stands refused."""

    def keep(self) -> bool:
        """Put it in force; False when it is refused."""

    def restore(self) -> None:
        """Back to what is in force."""


class Editing(QObject):
    """A design, its history, its assessment, and what is tried."""

    changed = Signal()
    tried = Signal()
    refused = Signal(str)

    def __init__(self, begin: Design | Project, parent: QObject | None = None) -> None:
        super().__init__(parent)
        project = begin if isinstance(begin, Project) else project_of(begin)
        self.history = History(project, saved=project)
        self.memo = Memo()
        self.assessment = assess(project.design, self.memo)
        self.trial: Assessment | None = None
        self.kept: Assessment | None = None
        self.typed: list[Typed] = []

    @property
    def project(self) -> Project:
        """The present project."""
        return self.history.present

    @property
    def design(self) -> Design:
        """The present design: the variant in force."""
        return self.history.present.design

    def past_designs(self) -> Iterator[Design]:
        """The designs before the present one, newest first."""
        return (project.design for _, project in reversed(self.history.past))

    # edits -----------------------------------------------------------------

    def apply(self, label: str, design: Design, fold: str | None = None) -> None:
        """A new design as one undo step (or joined to the step of the same ``fold``)."""
        design = as_the_board_plays(self.design, design)
        if design == self.design:
            self.drop_trial()
            return
        assessed = assess(design, self.memo)  # before it enters the history, should that fail
        named = self.labelled(label, design)
        self.history.push(named, with_design(self.history.present, design), fold)
        self._settle(assessed)

    def labelled(self, label: str, design: Design) -> str:
        """The name of the step to ``design``."""
        return label

    def edit(self, path: Path, value: Any, fold: str | None = None) -> None:
        """Another value at ``path``; FirecrestError when the design refuses it."""
        design = replace_at(self.design, path, value)
        self.apply(change_label(self.design, design, path), design, fold)

    def edit_number(self, path: Path, value: float | None, fold: str | None = None) -> None:
        """A number at ``path`` within its range."""
        design = set_number(self.design, path, value)
        self.apply(change_label(self.design, design, path), design, fold)

    def attempt(self, action: Callable[[], None]) -> bool:
        """Run an edit; a refusal is told and nothing changes."""
        try:
            action()
        except FirecrestError as error:
            self.refused.emit(str(error))
            return False
        return True

    def undo(self) -> None:
        """Back one step: what is typed is one; a refused text is taken back before any."""
        if not self.keep_typed():
            self.drop_typed()
            return
        self.history.undo()
        self._settle()

    def redo(self) -> None:
        """Forward one step, unless something else was typed first."""
        if not self.keep_typed():
            self.drop_typed()
            return
        self.history.redo()
        self._settle()

    def keep_typed(self) -> bool:
        """Put all that is being typed in force; False when any of it is refused."""
        kept = [field.keep() for field in list(self.typed)]
        return all(kept)

    def drop_typed(self) -> None:
        """Every field back to what is in force."""
        for field in list(self.typed):
            field.restore()

    def _settle(self, assessed: Assessment | None = None) -> None:
        self.trial = None
        self.assessment = assess(self.design, self.memo) if assessed is None else assessed
        self.settled()
        self.changed.emit()

    def settled(self) -> None:
        """What a subclass does after every change, before the views are told."""

    # try before keep -------------------------------------------------------

    def try_design(self, design: Design) -> None:
        """Show ghosts of ``design`` without changing anything."""
        design = as_the_board_plays(self.design, design)
        self.trial = None if design == self.design else assess(design, self.memo)
        self.tried.emit()

    def drop_trial(self) -> None:
        """No ghosts any more."""
        if self.trial is not None:
            self.trial = None
            self.tried.emit()

    @property
    def ghost(self) -> Assessment | None:
        """What is drawn behind the present: what is tried, or else what was kept to compare."""
        return self.trial if self.trial is not None else self.kept

    def keep_ghost(self, assessment: Assessment | None) -> None:
        """Hold curves and promises behind all that follows; None lets go of them."""
        self.kept = assessment
        self.tried.emit()

    def has(self, path: Path) -> bool:
        """Whether the design has a place at ``path``."""
        try:
            value_at(self.design, path)
        except FirecrestError:
            return False
        return True
