"""Doubt of the present design, worked out beside the window while the hand rests."""

from PySide6.QtCore import QObject, Signal

from firecrest.app.rest import after
from firecrest.app.session import Session
from firecrest.app.work import Task, advice
from firecrest.assessment.doubt import doubt as work
from firecrest.assessment.doubt.bands import Doubt
from firecrest.assessment.doubt.doubt import Unsure
from firecrest.design.design import Design

REST_MS = 150


class Doubting(QObject):
    """Gives the session its doubt, never one of another design than the present.

    ``unsure`` is what makes it, None until that is known; ``found`` tells that it changed.
    """

    found = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self._made: dict[int, tuple[Unsure, ...]] = {}
        self._of: Design | None = None
        self.unsure: tuple[Unsure, ...] | None = None
        self._task, self._second = Task(self, advice), Task(self, advice)
        self._task.some.connect(self._take)
        self._second.some.connect(self._take_unsure)
        self._rest = after(self, REST_MS, self._start)
        session.changed.connect(self.renew)
        self.renew()

    @property
    def busy(self) -> bool:
        """Whether the present design's doubt is still being worked out."""
        return self._rest.isActive() or self._task.running or self._second.running

    def renew(self) -> None:
        """Leave what was of another design; show what is known of this one, or work it out."""
        self.stop()
        self.unsure = None
        design = self._session.design
        known = self._session.doubt_known(design)
        if known is not None:
            self.unsure = self._made.get(id(design))
            self._session.take_doubt(known)
        if self.unsure is None and self._session.assessment.acoustic is not None:
            self._rest.start()
        self.found.emit()

    def stop(self) -> None:
        """Leave what is under way."""
        self._task.stop()
        self._second.stop()
        self._rest.stop()

    def _start(self) -> None:
        self._of = design = self._session.design
        known = self._session.doubt_known(design)
        if known is None:
            self._task.start(work.doubts_of, {"": design})
        else:
            self._second.start(work.unsure_in_steps, design, known)

    def _take(self, found: tuple[str, Doubt]) -> None:
        """The bands; what makes them is asked for next, after what else waits."""
        design, doubt = self._session.design, found[1]
        if design is self._of:
            self._session.remember_doubt(design, doubt)
            self._session.take_doubt(doubt)
            self._second.start(work.unsure_in_steps, design, doubt)
            self.found.emit()

    def _take_unsure(self, found: tuple[Unsure, ...] | None) -> None:
        design = self._session.design
        if found is None or design is not self._of:
            return
        self.unsure = found
        self._made = {k: v for k, v in self._made.items() if k in self._session.doubts}
        self._made[id(design)] = found
        self.found.emit()
