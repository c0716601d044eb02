"""Endings that nobody chose: signals of the system, and mistakes of the program.

Either way unsaved work is kept aside first, and the next start offers it.
"""

import signal
import socket
import sys
import traceback
from collections.abc import Callable
from types import TracebackType

from PySide6.QtCore import QObject, QSocketNotifier

SIGNALS = (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)


class SignalWatch(QObject):
    """Calls ``ended`` with the signal's number, in the main thread and between two events."""

    def __init__(self, parent: QObject, ended: Callable[[int], None]) -> None:
        super().__init__(parent)
        self._here, self._there = socket.socketpair()
        self._there.setblocking(False)
        self._here.setblocking(False)
        self._ended = ended
        for number in SIGNALS:
            signal.signal(number, lambda *_: None)  # the number arrives through the socket
        signal.set_wakeup_fd(self._there.fileno(), warn_on_full_buffer=False)
        self._notifier = QSocketNotifier(self._here.fileno(), QSocketNotifier.Type.Read, self)
        self._notifier.activated.connect(self._read)

    def _read(self) -> None:
        for number in self._here.recv(64):
            if number in SIGNALS:
                self._ended(number)
                return


def watch_mistakes(keep: Callable[[], None], tell: Callable[[str], None]) -> None:
    """An error that nothing foresaw keeps the work aside, is logged, and is told.

    ``keep`` must not raise for a full disk; while it runs, further errors only reach the log.
    """
    busy = False

    def hook(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        nonlocal busy
        sys.stderr.write("".join(traceback.format_exception(kind, error, trace)))
        if busy or issubclass(kind, KeyboardInterrupt):
            return
        busy = True
        try:
            keep()
            tell(
                f"Something went wrong inside Firecrest ({kind.__name__}). Your work was kept "
                "aside; undo the last step, or save under another name and start again."
            )
        finally:
            busy = False

    sys.excepthook = hook
