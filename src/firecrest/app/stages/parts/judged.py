"""What parts would give: worked out for a job, kept while it holds, asked again for changes."""

from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtCore import QElapsedTimer, QObject, Signal

from firecrest.app.shelf_keeper import ShelfKeeper
from firecrest.app.stages.parts.chooser import Chooser
from firecrest.design.design import Design
from firecrest.search.choose import Candidate, Outcome
from firecrest.shelf.entry import Entry

FILL_EVERY_MS = 400


@dataclass(frozen=True, eq=False)
class Job:
    """What results hold for, beside the parts themselves."""

    design: Design
    kind: str
    place: int
    retune: bool

    def same(self, other: "Job | None") -> bool:
        """Whether another job asks for the same; designs are the same when they are one object."""
        return (
            other is not None
            and self.design is other.design
            and (self.kind, self.place, self.retune) == (other.kind, other.place, other.retune)
        )


class Judged(QObject):
    """Outcomes by id of the newest job; older ones stay until they are replaced."""

    filled = Signal()
    progressed = Signal(int, int)
    finished = Signal()
    failed = Signal(str)

    def __init__(self, shelf: ShelfKeeper, parent: QObject) -> None:
        super().__init__(parent)
        self._shelf = shelf
        self.outcomes: dict[str, Outcome] = {}
        self._bodies: dict[str, str] = {}
        self._job: Job | None = None
        self._clock = QElapsedTimer()
        self.chooser = Chooser(self)
        self.chooser.some.connect(self._take)
        self.chooser.finished.connect(self.finished)
        self.chooser.failed.connect(self.failed)

    def holds_for(self, job: Job) -> bool:
        """Whether the outcomes are of this job."""
        return job.same(self._job)

    def waiting(self, job: Job, first: Sequence[Entry] = ()) -> list[Entry]:
        """Parts of the kind without results of this job; those ``first`` before the others."""
        there = {e.id for e in first}
        rest = [e for e in self._shelf.entries().values() if e.id not in there]
        fresh = self._bodies if self.holds_for(job) else {}
        return [
            e
            for e in (*first, *rest)
            if e.kind == job.kind and not e.archived and fresh.get(e.id) != e.body
        ]

    def start(self, job: Job, first: Sequence[Entry]) -> None:
        """Work out what is waiting, instead of what is being worked out."""
        waiting = self.waiting(job, first)
        if not self.holds_for(job):
            self._bodies = {}
        self._job = job
        self._bodies.update({e.id: e.body for e in waiting})
        self._clock.start()
        candidates = [Candidate(e.id, e.part) for e in waiting]
        self.chooser.start(job.design, candidates, job.place, job.retune)

    def _take(self, outcomes: list[Outcome]) -> None:
        self.outcomes.update({o.id: o for o in outcomes})
        self.progressed.emit(self.chooser.done, self.chooser.total)
        if self._clock.elapsed() > FILL_EVERY_MS:
            self.filled.emit()
            self._clock.restart()

    def stop(self) -> None:
        """Leave the rest; what is there stays."""
        self.chooser.stop()
