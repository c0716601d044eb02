"""Bytes of a file that a person chose: never more than was agreed, never from what has no end."""

from pathlib import Path

from firecrest.core.errors import FileError


def read_bytes(path: Path, largest: int) -> bytes:
    """Bytes of a plain file.

    FileError when it is not there, is no plain file (a device or pipe would never end), is larger
    than ``largest`` bytes, or cannot be read.
    """
    try:
        if "\0" in str(path):
            raise FileError("A file name cannot hold a NUL. Choose another file.")
        if not path.exists():
            raise FileError(f"{path.name} is not there.")
        if not path.is_file():
            raise FileError(f"{path.name} is not a file.")
        with path.open("rb") as stream:
            data = stream.read(largest + 1)
    except (OSError, ValueError) as error:
        reason = getattr(error, "strerror", None) or error
        raise FileError(f"{path.name} cannot be read: {reason}.") from error
    if len(data) > largest:
        raise FileError(f"{path.name} is larger than {largest // 2**20} MB.")
    return data
