"""Exit 0 when Qt's widgets and its X11 plug-in find all their system libraries."""

import ctypes
import pathlib
import sys

try:
    import PySide6
    from PySide6 import QtGui, QtWidgets  # noqa: F401

    plugins = pathlib.Path(PySide6.__file__).parent / "Qt" / "plugins" / "platforms"
    for name in ("libqoffscreen.so", "libqxcb.so"):
        ctypes.CDLL(str(plugins / name))
except (ImportError, OSError):
    sys.exit(1)
