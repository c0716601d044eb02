"""Work for the child process: this module knows nothing of Qt."""

import os
import signal
import sys

from firecrest.core.errors import FirecrestError


def counted(last):
    yield from range(last)


def refused():
    yield 1
    raise FirecrestError("too small")


def broken():
    yield from ()
    raise ZeroDivisionError("by nothing")


def endless():
    number = 0
    while True:
        number += 1
        yield number


def deadly():
    yield 1
    os.kill(os.getpid(), signal.SIGKILL)


def where():
    yield os.getpid(), [name for name in sys.modules if name.startswith("PySide6")]
