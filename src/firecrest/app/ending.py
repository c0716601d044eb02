"""Endings that nobody chose: signals of the system, and mistakes of the program.

Either way unsaved work is kept aside first, and the next start offers it.
"""

import platform
import signal
import socket
import sys
import traceback
from collections.abc import Callable
from pathlib import Path
from types import TracebackType

from PySide6.QtCore import QObject, QSocketNotifier, qVersion

from firecrest import __version__

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


def report_of(trace: str) -> str:
    """What helps to find a mistake: where it happened, and with which versions. No design, no
    path of a file, no name of a person is in it but those the trace itself holds.
    """
    lines = [
        f"Firecrest {__version__}, Python {platform.python_version()}, Qt {qVersion()}",
        f"{platform.system()} {platform.release()} {platform.machine()}",
        "",
        trace.replace(str(Path.home()), "~"),
    ]
    return "\n".join(lines)


def watch_mistakes(keep: Callable[[], None], tell: Callable[[str, str], None]) -> None:
    """An error that nothing foresaw keeps the work aside, is logged, and is told once.

    ``tell`` gets the sentence, and the report that can be saved. ``keep`` must not raise for a full
    disk; while it runs, further errors only reach the log.
    """
    busy, known = False, set()

    def hook(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        nonlocal busy
        text = "".join(traceback.format_exception(kind, error, trace))
        sys.stderr.write(text)
        if busy or text in known or issubclass(kind, KeyboardInterrupt):
            return
        busy = True
        known.add(text)
        try:
            keep()
            tell(
                f"Something went wrong inside Firecrest ({kind.__name__}). Your work was kept "
                "aside; undo the last step, or save under another name and start again.",
                report_of(text),
            )
        finally:
            busy = False

    sys.excepthook = hook
