"""The child process that long work runs in: no Qt here, and nothing of the window can end here.

Jobs come as (number, pickled (function, arguments)); every item that the function yields goes back
with the job's number. A job that is stopped leaves off at its next item. When the window goes, the
pipe closes and the process ends by itself.
"""

import os
import pickle
import signal
import sys
import threading
import traceback
from queue import SimpleQueue
from typing import TYPE_CHECKING

from firecrest.core.errors import FirecrestError

if TYPE_CHECKING:
    from multiprocessing.connection import Connection

RUN, STOP = "run", "stop"
SOME, DONE, REFUSED, FAILED = "some", "done", "refused", "failed"
COURTESY = 5
"""How much the window goes first (nice)."""


class Desk:
    """Jobs as they come in, and which of them are stopped."""

    def __init__(self, connection: "Connection") -> None:
        self._connection = connection
        self._jobs: SimpleQueue[tuple[int, bytes]] = SimpleQueue()
        self._stopped: set[int] = set()

    def listen(self) -> None:
        """Take in what the window asks for, also while a job runs; end when it has gone."""
        try:
            while True:
                what, number, job = self._connection.recv()
                if what == RUN:
                    self._jobs.put((number, job))
                else:
                    self._stopped.add(number)
        except (EOFError, OSError):
            os._exit(0)

    def serve(self) -> None:
        """Work, one job after the other."""
        while True:
            number, job = self._jobs.get()
            self._tell(*self._worked(number, job), number)
            self._stopped.discard(number)

    def _worked(self, number: int, job: bytes) -> tuple[str, object]:
        """One job, item by item, and how it ended."""
        try:
            function, arguments, keywords = pickle.loads(job)
            if number not in self._stopped:
                for item in function(*arguments, **keywords):
                    if number in self._stopped:
                        break
                    self._tell(SOME, item, number)
        except FirecrestError as error:
            return REFUSED, str(error)
        except Exception:
            return FAILED, traceback.format_exc()
        return DONE, None

    def _tell(self, what: str, item: object, number: int) -> None:
        try:
            self._connection.send((what, number, item))
        except OSError:
            os._exit(0)


def main() -> None:
    """Serve the pipe whose number is the argument."""
    from multiprocessing.connection import Connection

    signal.signal(signal.SIGINT, signal.SIG_IGN)
    os.nice(COURTESY)
    desk = Desk(Connection(int(sys.argv[1])))
    threading.Thread(target=desk.listen, daemon=True).start()
    # What jobs need is there before the first one.
    import firecrest.assessment.doubt.doubt
    import firecrest.present.frame.moves
    import firecrest.search.choose  # noqa: F401
    from firecrest.core.memory import keep_freed
    from firecrest.core.parallel import use_all_cores

    use_all_cores()
    keep_freed()
    desk.serve()


if __name__ == "__main__":
    main()
