"""Undo and redo: a bounded list of designs with the name of the step that led to each."""

from dataclasses import dataclass, field

from firecrest.design.design import Design

LONGEST = 500


ARROW = " → "
"""Between both values of a figure in the label of a step."""


def joined(first: str, last: str) -> str:
    """One label for a row of steps of one figure: its first value and its last."""
    if ARROW not in first or ARROW not in last:
        return last
    return first.split(ARROW)[0] + ARROW + last.split(ARROW)[-1]


@dataclass
class History:
    """Present design, and what can be undone and redone. "Modified" is: not the saved object."""

    present: Design
    saved: Design | None = None
    past: list[tuple[str, Design]] = field(default_factory=list)
    future: list[tuple[str, Design]] = field(default_factory=list)
    _fold: str | None = None

    def push(self, label: str, design: Design, fold: str | None = None) -> None:
        """A new step; with the same ``fold`` key as the last one it joins that step (a drag)."""
        if fold is not None and fold == self._fold and self.past:
            first, design_before = self.past[-1]
            self.past[-1] = (joined(first, label), design_before)
        else:
            self.past = [*self.past[-LONGEST + 1 :], (label, self.present)]
        self.present, self.future, self._fold = design, [], fold

    def end_fold(self) -> None:
        """The drag is over: the next step stands alone."""
        self._fold = None

    def undo(self) -> None:
        """Back one step, if there is one."""
        self._fold = None
        if self.past:
            label, design = self.past.pop()
            self.future.append((label, self.present))
            self.present = design

    def redo(self) -> None:
        """Forward one step, if there is one."""
        self._fold = None
        if self.future:
            label, design = self.future.pop()
            self.past.append((label, self.present))
            self.present = design

    @property
    def modified(self) -> bool:
        """Whether the present design is another than the saved one."""
        return self.present is not self.saved
