"""Playing samples through what the desktop has: one of its own players, when there is one."""

import shutil
from pathlib import Path
from tempfile import mkdtemp

from PySide6.QtCore import QObject, QProcess, Signal

from firecrest.core.arrays import Real
from firecrest.core.errors import FileError
from firecrest.files.sound import write_sound

PLAYERS = ("pw-play", "paplay", "aplay")
"""Programs that play a WAV and end, the newest sound system first."""


def player() -> str | None:
    """The program that plays here; None where there is no sound."""
    return next((path for name in PLAYERS if (path := shutil.which(name))), None)


class Playing(QObject):
    """One sound at a time."""

    ended = Signal()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._process = QProcess(self)
        self._process.finished.connect(lambda *_: self.ended.emit())
        self._folder: Path | None = None

    def play(self, samples: Real) -> None:
        """Play samples at 48 kHz from their start; FileError where nothing can play them."""
        program = player()
        if program is None:
            raise FileError("Nothing here plays sound: write WAVs, and play these elsewhere.")
        self.stop()
        if self._folder is None:
            self._folder = Path(mkdtemp(prefix="firecrest-"))
        file = self._folder / "playing.wav"
        write_sound(file, samples)
        self._process.start(program, [str(file)])

    def stop(self) -> None:
        """Silence."""
        if self._process.state() != QProcess.ProcessState.NotRunning:
            self._process.kill()
            self._process.waitForFinished(500)

    def clear(self) -> None:
        """Silence, and nothing left on disk."""
        self.stop()
        if self._folder is not None:
            shutil.rmtree(self._folder, ignore_errors=True)
            self._folder = None
