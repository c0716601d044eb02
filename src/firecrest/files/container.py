"""The ``.firecrest`` container: a zip with ``design.json`` and whatever is attached to it.

Saving is atomic: a temporary file beside the target is written, flushed to the disk and renamed,
so that at any moment the old or the new file is there, whole. The save before is kept as one
backup. Attachments this version does not know are carried along unchanged.
"""

import contextlib
import os
import tempfile
import zipfile
import zlib
from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path

from firecrest.core.errors import DesignError, FileError
from firecrest.design.design import Design
from firecrest.design.text import design_from_json, design_to_json

SUFFIX = ".firecrest"
BACKUP = ".backup"
MEMBER = "design.json"
LARGEST_FILE = 256 * 2**20
LARGEST_DESIGN = 8 * 2**20
LARGEST_MEMBER = 64 * 2**20
MOST_MEMBERS = 2000
STAMP = (1980, 1, 1, 0, 0, 0)
"""All members carry the same time, so that equal designs make equal files."""


@dataclass(frozen=True)
class Document:
    """A design with its attachments (name: bytes) and what could not be read of them."""

    design: Design
    attachments: Mapping[str, bytes] = field(default_factory=dict)
    lost: tuple[str, ...] = ()


def read_document(path: Path) -> Document:
    """Read a container or a bare ``design.json``.

    Raises FileError with what happened and what to do; the file is only ever read.
    """
    try:
        if not path.is_file():
            raise FileError(
                f"{path.name} is not there." if not path.exists() else f"{path.name} is not a file."
            )
        if path.stat().st_size > LARGEST_FILE:
            raise FileError(f"{path.name} is larger than {LARGEST_FILE // 2**20} MB: not a design.")
        with path.open("rb") as stream:
            head = stream.read(4)
        if head[:1] in (b"{", b" ", b"\n", b"\xef"):
            return Document(_design(path, path.read_bytes()))
        return _read_zip(path)
    except OSError as error:
        raise FileError(f"{path.name} cannot be read: {error.strerror or error}.") from error


def _read_zip(path: Path) -> Document:
    """The members of a container; damaged attachments are reported, a damaged design is fatal."""
    try:
        with zipfile.ZipFile(path) as archive:
            infos = archive.infolist()
            if len(infos) > MOST_MEMBERS:
                raise FileError(f"{path.name} holds {len(infos)} files: not a Firecrest design.")
            if MEMBER not in archive.namelist():
                raise FileError(f"{path.name} is a zip file, but holds no {MEMBER}.")
            text = _member(archive, archive.getinfo(MEMBER), LARGEST_DESIGN)
            attachments, lost = {}, []
            for info in infos:
                if info.filename == MEMBER or info.is_dir():
                    continue
                try:
                    attachments[info.filename] = _member(archive, info, LARGEST_MEMBER)
                except _DAMAGE as error:
                    lost.append(f"{info.filename}: {error}")
    except _DAMAGE as error:
        raise FileError(
            f"{path.name} is damaged or not a Firecrest design ({error}). It was left as it is. "
            f"{_backup_hint(path)}"
        ) from error
    return Document(_design(path, text), attachments, tuple(lost))


_DAMAGE = (zipfile.BadZipFile, zlib.error, EOFError, ValueError, RuntimeError, OSError, KeyError)


def _member(archive: zipfile.ZipFile, info: zipfile.ZipInfo, largest: int) -> bytes:
    """Bytes of one member, never more than ``largest`` whatever the header claims."""
    with archive.open(info) as stream:
        data = stream.read(largest + 1)
    if len(data) > largest:
        raise ValueError(f"larger than {largest // 2**20} MB")
    return data


def _design(path: Path, text: bytes) -> Design:
    if len(text) > LARGEST_DESIGN:
        raise FileError(f"{path.name} is larger than {LARGEST_DESIGN // 2**20} MB: not a design.")
    try:
        return design_from_json(text)
    except DesignError as error:
        raise FileError(f"{path.name} cannot be opened. {error}\n{_backup_hint(path)}") from error


def _backup_hint(path: Path) -> str:
    backup = path.with_name(path.name + BACKUP)
    return f"The save before it is in {backup.name}." if backup.exists() else ""


def write_document(path: Path, document: Document) -> None:
    """Save ``document`` at ``path``, keeping the file that was there as its backup.

    Raises FileError when it cannot; the old file is then untouched.
    """
    try:
        _replace(path, document)
    except OSError as error:
        raise FileError(
            f"{path.name} was not saved: {error.strerror or error}. Save it somewhere else."
        ) from error


def _replace(path: Path, document: Document) -> None:
    handle, name = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
    temporary = Path(name)
    try:
        with os.fdopen(handle, "wb") as stream:
            _write_zip(stream, document)
            stream.flush()
            os.fsync(stream.fileno())
        _permissions(temporary, path)
        if path.exists():
            _keep_backup(path)
        os.replace(temporary, path)
        _sync_folder(path.parent)
    finally:
        temporary.unlink(missing_ok=True)


def _permissions(temporary: Path, path: Path) -> None:
    """Those of the file that is replaced, or what the user's mask gives a new one."""
    if path.exists():
        mode = path.stat().st_mode & 0o777
    else:
        mask = os.umask(0)
        os.umask(mask)
        mode = 0o666 & ~mask
    temporary.chmod(mode)


def _keep_backup(path: Path) -> None:
    """A second name for the old file, put in place in one step."""
    backup = path.with_name(path.name + BACKUP)
    spare = path.with_name(f".{path.name}.{os.getpid()}.old")
    with contextlib.suppress(OSError):
        spare.unlink(missing_ok=True)
        os.link(path, spare)
        os.replace(spare, backup)


def _sync_folder(folder: Path) -> None:
    """Make the rename itself durable, where the system can."""
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def _write_zip(stream: object, document: Document) -> None:
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:  # type: ignore[call-overload]
        members = {MEMBER: design_to_json(document.design).encode(), **document.attachments}
        for name, data in members.items():
            info = zipfile.ZipInfo(name, STAMP)
            info.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(info, data)
