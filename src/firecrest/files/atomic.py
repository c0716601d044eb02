"""Files replaced in one step: at any moment the old or the new one is there, whole.

The new text goes to a temporary file beside the target, locked by its writer, flushed to the disk
and renamed. What a killed writer left behind is known by its name and by nobody holding its lock.
"""

import contextlib
import fcntl
import os
import re
import tempfile
import time
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import BinaryIO

from firecrest.core.errors import FileError

BACKUP = ".backup"
WRITING = ".writing"
LITTER_AGE_S = 60.0
"""A temporary file younger than this may not be locked yet."""


def replace_file(
    path: Path,
    write: Callable[[BinaryIO], object],
    *,
    mode: int | None = None,
    backup: bool = False,
    durable: bool = True,
    check: Callable[[], object] = lambda: None,
) -> None:
    """Write ``path`` anew by ``write``; a link is followed to its target.

    ``mode`` are its permissions, None those of the file that is replaced or what the user's mask
    gives a new one. ``backup`` keeps the old file beside it; without ``durable`` a power cut may
    cost the new one. ``check`` runs last before the rename and may raise. OSError when it cannot
    be written; the old file is then untouched.
    """
    path = Path(os.path.realpath(path))
    handle, name = tempfile.mkstemp(
        prefix=f".{_short(path.name)}.", suffix=WRITING, dir=path.parent
    )
    temporary = Path(name)
    try:
        with os.fdopen(handle, "wb") as stream:
            with contextlib.suppress(OSError):
                fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
            write(stream)
            stream.flush()
            os.fchmod(stream.fileno(), _mode(path) if mode is None else mode)
            if durable:
                os.fsync(stream.fileno())
            check()
            if backup and path.exists():
                _keep_backup(path)
            os.replace(temporary, path)
        if durable:
            _sync_folder(path.parent)
    finally:
        temporary.unlink(missing_ok=True)


def write_file(path: Path, data: bytes) -> None:
    """Write a file that a person asked for; FileError, and the old one stays, when it cannot be."""
    try:
        replace_file(path, lambda stream: stream.write(data))
    except (OSError, ValueError) as error:
        reason = getattr(error, "strerror", None) or error
        raise FileError(f"{path.name} was not saved: {reason}. Save it somewhere else.") from error


def _short(name: str) -> str:
    """As much of a name as leaves room for what is added, whatever its letters take on disk."""
    return name[:50]


def _mode(path: Path) -> int:
    if path.exists():
        return path.stat().st_mode & 0o777
    mask = os.umask(0)
    os.umask(mask)
    return 0o666 & ~mask


def _keep_backup(path: Path) -> None:
    """A second name for the old file, put in place in one step."""
    spare = path.with_name(f".{_short(path.name)}.{os.getpid()}.old")
    with contextlib.suppress(OSError):
        spare.unlink(missing_ok=True)
        os.link(path, spare)
        os.replace(spare, path.with_name(path.name + BACKUP))


def _sync_folder(folder: Path) -> None:
    """Make the rename itself durable, where the system can."""
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def clean_litter(folder: Path, name: str = "") -> int:
    """Remove what killed writers left of ``name`` ("" for every file of ours); how many.

    Names of earlier versions, without the ending, count only for a stated ``name``.
    """
    whose = re.escape(_short(name)) if name else r".+"
    older = r"|\.[a-z0-9_]{8}" if name else ""
    litter = re.compile(rf"\.{whose}(?:\.[a-z0-9_]{{8}}{re.escape(WRITING)}|\.\d+\.old{older})")
    removed = 0
    with contextlib.suppress(OSError):
        for path in folder.iterdir():
            if litter.fullmatch(path.name) and _owner_is_gone(path):
                with contextlib.suppress(OSError):
                    path.unlink()
                    removed += 1
    return removed


def clean_litter_of(paths: Sequence[str]) -> Iterator[int]:
    """``clean_litter`` beside several files, one after the other; a job of the child process."""
    for path in map(Path, paths):
        yield clean_litter(path.parent, path.name)


def _owner_is_gone(path: Path) -> bool:
    """Whether no one writes a temporary file any more."""
    try:
        if time.time() - path.lstat().st_mtime < LITTER_AGE_S or path.is_symlink():
            return False
        with path.open("rb") as stream:
            fcntl.flock(stream, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        return False
    return True
