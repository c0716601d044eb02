"""Long work, in one child process for all windows: the one way to compute off the main thread.

Nothing of Qt crosses over, so nothing of Qt can be destroyed there; a computation that takes all
memory or crashes ends the child and not the window. Items come back in the main thread.
"""

import atexit
import os
import pickle
import socket
import subprocess
import sys
import weakref
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from itertools import count
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QCoreApplication, QObject, QSocketNotifier, QTimer, Signal
from shiboken6 import isValid

from firecrest import worker

if TYPE_CHECKING:
    from multiprocessing.connection import Connection

PACKAGE_HOME = str(Path(__file__).parents[2])
TRIES = 2
"""How often a job may take the child with it before it is given up."""


@dataclass
class _Job:
    """A job that runs or waits: what to run, whose it is, and how often it was begun."""

    body: bytes
    owner: "weakref.ref[Task]"
    begun: int = 0


class Workshop:
    """The child process, its jobs by number, and the way back."""

    def __init__(self) -> None:
        self._numbers = count(1)
        self._jobs: dict[int, _Job] = {}
        self._child: subprocess.Popen[bytes] | None = None
        self._connection: Connection | None = None
        self._notifier: QSocketNotifier | None = None

    @property
    def process(self) -> int | None:
        """Number of the child process while it lives."""
        return self._child.pid if self._child and self._child.poll() is None else None

    def start(self) -> None:
        """Start the child, ahead of the first job; nothing when it is there."""
        if self.process is not None:
            return
        from multiprocessing.connection import Connection

        self.close()
        here, there = socket.socketpair()
        search = os.pathsep.join([PACKAGE_HOME, *filter(None, [os.environ.get("PYTHONPATH")])])
        self._child = subprocess.Popen(
            [sys.executable, "-m", worker.__name__, str(there.fileno())],
            pass_fds=[there.fileno()],
            stdin=subprocess.DEVNULL,
            env={**os.environ, "PYTHONPATH": search},
        )
        there.close()
        self._connection = Connection(here.detach())
        self._notifier = QSocketNotifier(
            self._connection.fileno(), QSocketNotifier.Type.Read, QCoreApplication.instance()
        )
        self._notifier.activated.connect(self._take)

    def run(self, owner: "Task", work: Any) -> int:
        """Ask for (function, arguments, keywords); the number under which items come back."""
        number = next(self._numbers)
        self._jobs[number] = _Job(pickle.dumps(work), weakref.ref(owner))
        self._begin(number)
        return number

    def stop(self, number: int) -> None:
        """Leave the rest of a job; no item of it comes any more."""
        if self._jobs.pop(number, None) is not None:
            self._send((worker.STOP, number, b""))

    def close(self) -> None:
        """Let go of the child: it ends when its pipe closes. Jobs are kept."""
        if self._notifier is not None and isValid(self._notifier):
            self._notifier.setEnabled(False)
            self._notifier.deleteLater()
        if self._connection is not None:
            self._connection.close()
        if self._child is not None:
            try:
                self._child.wait(timeout=0.2)
            except subprocess.TimeoutExpired:
                self._child.kill()
                self._child.wait()
        self._child = self._connection = self._notifier = None

    def _begin(self, number: int) -> None:
        try:
            self.start()
        except OSError as error:
            # No room for another process: told once the one who asked knows the job's number.
            reason = f"no process could be started: {error.strerror}"
            QTimer.singleShot(0, lambda: self._give_up(number, reason))
            return
        self._jobs[number].begun += 1
        self._send((worker.RUN, number, self._jobs[number].body))

    def _send(self, message: tuple[str, int, bytes]) -> None:
        if self._connection is not None:
            try:
                self._connection.send(message)
            except OSError:
                return  # the child has gone; its end of the pipe will tell, and jobs go again

    def _take(self) -> None:
        """One message of the child: one at a time, so that the window stays quick."""
        if self._connection is None:
            return
        try:
            what, number, item = self._connection.recv()
        except (EOFError, OSError):
            self._again()
            return
        job = self._jobs.get(number)
        owner = job.owner() if job else None
        if owner is None or not isValid(owner):
            self.stop(number)
            return
        if what != worker.SOME:
            del self._jobs[number]
        owner.take(number, what, item)

    def _again(self) -> None:
        """The child has ended: start another for what was under way, or give a job up."""
        self.close()
        for number, job in list(self._jobs.items()):
            owner = job.owner()
            if owner is not None and isValid(owner) and job.begun < TRIES:
                owner.take(number, worker.RUN, None)
                self._begin(number)
            else:
                self._give_up(number, "the calculation's process ended")

    def _give_up(self, number: int, reason: str) -> None:
        job = self._jobs.pop(number, None)
        owner = job.owner() if job else None
        if owner is not None and isValid(owner):
            owner.take(number, worker.FAILED, reason)


workshop = Workshop()
"""What a maker asks for: choosing, searching."""
advice = Workshop()
"""What the program thinks of by itself: doubt, moves, maps; never waits for the other."""
for _shop in (workshop, advice):
    atexit.register(_shop.close)


class Task(QObject):
    """One line of work of a view: a newer job takes the place of the one before."""

    some = Signal(object)
    finished = Signal()
    began_again = Signal()
    failed = Signal(str)

    def __init__(self, parent: QObject, shop: Workshop | None = None) -> None:
        super().__init__(parent)
        self._shop = shop or workshop
        self._number = 0
        self.running = False

    def start(self, function: Callable[..., Iterable[Any]], *args: Any, **keywords: Any) -> None:
        """Run a generator function of a module; what it yields comes through ``some``."""
        self.stop()
        self.running = True
        self._number = self._shop.run(self, (function, args, keywords))

    def stop(self) -> None:
        """Leave the rest; what is there stays."""
        if self.running:
            self.running = False
            self._shop.stop(self._number)

    def take(self, number: int, what: str, item: Any) -> None:
        """What the workshop has for this task."""
        if number != self._number or not self.running:
            return
        if what == worker.SOME:
            self.some.emit(item)
        elif what == worker.RUN:
            self.began_again.emit()
        else:
            self.running = False
            if what != worker.DONE:
                self.failed.emit(str(item))
            self.finished.emit()
