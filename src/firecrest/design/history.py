"""Undo and redo: a bounded list of projects with the name of the step that led to each."""

from dataclasses import dataclass, field
from typing import Generic, TypeVar

State = TypeVar("State")

LONGEST = 500


ARROW = " → "
"""Between both values of a figure in the label of a step."""


def joined(first: str, last: str) -> str:
    """One label for a row of steps of one figure: its first value and its last."""
    if ARROW not in first or ARROW not in last:
        return last
    return first.split(ARROW)[0] + ARROW + last.split(ARROW)[-1]


@dataclass
class History(Generic[State]):
    """Present state, and what can be undone and redone. "Modified" is: not the saved object."""

    present: State
    saved: State | None = None
    past: list[tuple[str, State]] = field(default_factory=list)
    future: list[tuple[str, State]] = field(default_factory=list)
    _fold: str | None = None

    def push(self, label: str, state: State, fold: str | None = None) -> None:
        """A new step; with the same ``fold`` key as the last one it joins that step (a drag)."""
        if fold is not None and fold == self._fold and self.past:
            first, before = self.past[-1]
            self.past[-1] = (joined(first, label), before)
        else:
            self.past = [*self.past[-LONGEST + 1 :], (label, self.present)]
        self.present, self.future, self._fold = state, [], fold

    def turn(self, state: State) -> None:
        """The same state seen otherwise: no step, and what is saved stays saved."""
        if self.present is self.saved:
            self.saved = state
        self.present, self._fold = state, None

    def end_fold(self) -> None:
        """The drag is over: the next step stands alone."""
        self._fold = None

    def undo(self) -> None:
        """Back one step, if there is one."""
        self._fold = None
        if self.past:
            label, state = self.past.pop()
            self.future.append((label, self.present))
            self.present = state

    def redo(self) -> None:
        """Forward one step, if there is one."""
        self._fold = None
        if self.future:
            label, state = self.future.pop()
            self.past.append((label, self.present))
            self.present = state

    @property
    def modified(self) -> bool:
        """Whether the present state is another than the saved one."""
        return self.present is not self.saved
