"""Variants in the session: switching, copies, and another one shown behind."""

from PySide6.QtCore import Signal

from firecrest.app.editing import Editing
from firecrest.assessment.assess import Assessment, assess
from firecrest.design.design import Design
from firecrest.design.edits.variants import copy_variant, next_letter
from firecrest.design.project import Letter, Project, switched, variant_of
from firecrest.present.compare.trail import Point, point_of

LONGEST = 400
"""Points of the comparison that are kept."""


class Varying(Editing):
    """An editing whose project has variants; one history for all of them."""

    beside_changed = Signal()

    def __init__(self, begin: Design | Project) -> None:
        super().__init__(begin)
        self.beside: Letter | None = None
        self.trail: list[Point] = []
        self.changed.connect(self._track)
        self.tried.connect(self._track)
        self._before: Letter | None = None

    def _track(self) -> None:
        """Every design that was kept or tried is a point of the comparison."""
        point = point_of(self.trial or self.assessment)
        if point not in self.trail:
            self.trail = [*self.trail[-LONGEST + 1 :], point]

    def labelled(self, label: str, design: Design) -> str:
        """An undo step says its variant, where there are several and it is not of the brief."""
        alone = len(self.project.variants) == 1
        if alone or design.brief is not self.design.brief:
            return label
        return f"{self.project.in_force}: {label}"

    def apply_project(self, label: str, project: Project) -> None:
        """Another project as one undo step."""
        assessed = assess(project.design, self.memo)
        self.history.push(label, project)
        self._settle(assessed)

    def switch(self, letter: Letter) -> None:
        """Work on another variant: what is typed is kept first; not a step to undo."""
        if letter == self.project.in_force or not self.keep_typed():
            return
        before, there = self.project.in_force, switched(self.project, letter)
        assessed = assess(there.design, self.memo)
        self.history.turn(there)
        self._before = before
        if self.beside == letter:
            self.beside = before
        self._settle(assessed)

    def switch_by(self, steps: int) -> None:
        """The next variant, round the ends."""
        self.switch(next_letter(self.project, steps))

    def copy_in_force(self) -> None:
        """A copy of this variant, to work on."""
        if self.keep_typed():
            source = self.project.in_force
            self.apply_project(*copy_variant(self.project))
            self._before = source

    def design_at(self, letter: str) -> Design:
        """A variant as a whole design."""
        return self.project.design_of(variant_of(self.project, letter))

    def assessed(self, letter: str) -> Assessment:
        """The assessment of a variant."""
        if letter == self.project.in_force:
            return self.assessment
        return assess(self.design_at(letter), self.memo)

    # another one behind ------------------------------------------------------------

    def show_beside(self, letter: Letter | None) -> None:
        """Show a variant behind all that follows, as it stands; None lets go of it."""
        self.beside = letter
        self.keep_ghost(None if letter is None else self.assessed(letter))
        self.beside_changed.emit()

    def other(self) -> Letter | None:
        """The variant worked on before this one, else the next; None where there is only one."""
        letters = [v.letter for v in self.project.variants]
        if len(letters) == 1:
            return None
        known = self._before in letters and self._before != self.project.in_force
        return self._before if known else next_letter(self.project)

    def follow_beside(self) -> None:
        """The one behind as it stands now; it goes when it is no longer there, or in force."""
        if self.beside is None:
            return
        letters = [v.letter for v in self.project.variants]
        if self.beside not in letters or self.beside == self.project.in_force:
            self.beside = self.other()
        self.kept = None if self.beside is None else self.assessed(self.beside)
