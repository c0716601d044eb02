"""The ``.firecrest`` container: a zip with ``design.json`` and whatever is attached to it.

Saving is atomic (see ``atomic``), and the save before is kept as one backup. Attachments this
version does not know are carried along unchanged. What a container may hold is bounded as a whole,
so that a small file cannot unpack to a large one.
"""

import hashlib
import os
import stat
import zipfile
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from io import BytesIO
from itertools import pairwise
from pathlib import Path
from typing import Any, BinaryIO

from firecrest.core.errors import ChangedElsewhereError, DesignError, FileError, guarded
from firecrest.design.design import Design
from firecrest.design.project import Project
from firecrest.design.text import FAILURE, body_text, parsed, project_body, project_of_body
from firecrest.files.atomic import BACKUP, replace_file
from firecrest.files.bounded import read_bytes
from firecrest.files.curve_members import brought_in, set_out

SUFFIX = ".firecrest"
MEMBER = "design.json"
LARGEST_FILE = 256 * 2**20
LARGEST_DESIGN = 8 * 2**20
LARGEST_MEMBER = 64 * 2**20
LARGEST_WHOLE = 200 * 2**20
"""Bytes of all members together, unpacked."""
WIDEST_RATIO = 200
RATIO_FROM = 2**20
"""A member that unpacks to more than this must not be packed tighter than the ratio."""
MOST_MEMBERS = 2000
LONGEST_NAME = 255
STAMP = (1980, 1, 1, 0, 0, 0)
"""All members carry the same time, so that equal designs make equal files."""
KINDS_READ = (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED)
BARE = (b"{", b" ", b"\n", b"\r", b"\t", b"\xef")
"""How a bare ``design.json`` may begin; anything else is looked at as a container."""


@dataclass(frozen=True)
class Document:
    """A project with its attachments (name: bytes) and what could not be read of them."""

    project: Project
    attachments: Mapping[str, bytes] = field(default_factory=dict)
    lost: tuple[str, ...] = ()

    @property
    def design(self) -> Design:
        """The variant in force."""
        return self.project.design


@dataclass(frozen=True)
class FileStamp:
    """How a file was when last seen: which file, when written, how long, and what is in it."""

    inode: int
    written: int
    size: int
    digest: str


def stamp_of(path: Path) -> FileStamp | None:
    """The present stamp of a file; None when there is none that can be read."""
    try:
        with path.open("rb") as stream:
            facts = os.fstat(stream.fileno())
            digest = hashlib.file_digest(stream, "sha256").hexdigest()
    except (OSError, ValueError):
        return None
    return FileStamp(facts.st_ino, facts.st_mtime_ns, facts.st_size, digest)


def changed_since(path: Path, seen: FileStamp | None) -> bool:
    """Whether a file is another one than was seen, by what it holds.

    A file that is gone is not: saving it again harms nobody.
    """
    if seen is None:
        return False
    try:
        facts = path.stat()
    except (OSError, ValueError):
        return False
    if (facts.st_ino, facts.st_mtime_ns, facts.st_size) == (seen.inode, seen.written, seen.size):
        return False
    now = stamp_of(path)
    return now is not None and now.digest != seen.digest


def read_document(path: Path) -> Document:
    """Read a container or a bare ``design.json``.

    Raises FileError with what happened and what to do; the file is only ever read.
    """
    with guarded(path.name, FileError):
        data = read_bytes(path, LARGEST_FILE)
        if not data:
            raise FileError(f"{path.name} is empty. {_backup_hint(path)}".strip())
        return _document(path, data, {}, []) if data[:1] in BARE else _read_zip(path, data)


_DAMAGE = (zipfile.BadZipFile, zlib.error, EOFError, ValueError, RuntimeError, OSError, KeyError)


def _read_zip(path: Path, data: bytes) -> Document:
    """The members of a container; damaged attachments are reported, a damaged design is fatal."""
    try:
        with zipfile.ZipFile(BytesIO(data)) as archive:
            infos = [info for info in archive.infolist() if not info.filename.endswith("/")]
            _within_bounds(path, infos)
            named = {info.filename: info for info in infos}
            if MEMBER not in named:
                raise FileError(f"{path.name} is a zip file, but holds no {MEMBER}.")
            text = _member(archive, named[MEMBER], LARGEST_DESIGN)
            attachments: dict[str, bytes] = {}
            lost: list[str] = []
            for info in infos:
                if info.filename == MEMBER:
                    continue
                try:
                    if not _fit_name(info.filename) or info.filename in attachments:
                        raise ValueError("the name cannot be used, or is there twice")
                    attachments[info.filename] = _member(archive, info, LARGEST_MEMBER)
                except _DAMAGE as error:
                    lost.append(f"{info.filename:.80}: {error}")
    except _DAMAGE as error:
        raise FileError(
            f"{path.name} is damaged or not a Firecrest design ({error}). It was left as it is. "
            f"{_backup_hint(path)}"
        ) from error
    return _document(path, text, attachments, lost)


def _within_bounds(path: Path, infos: Sequence[zipfile.ZipInfo]) -> None:
    """FileError when a container claims more than a design ever holds, or claims it twice."""
    whole = sum(info.file_size for info in infos)
    if len(infos) > MOST_MEMBERS or whole > LARGEST_WHOLE:
        raise FileError(
            f"{path.name} holds {len(infos)} files of {whole / 2**20:.0f} MB: not a Firecrest "
            f"design, which has up to {MOST_MEMBERS} of {LARGEST_WHOLE // 2**20} MB."
        )
    places = sorted((info.header_offset, info.compress_size) for info in infos)
    for (start, size), (following, _) in pairwise(places):
        if start + size > following:
            raise FileError(f"{path.name} has files that lie over each other: it was not opened.")


def _fit_name(name: str) -> bool:
    """Whether an attachment's name can be kept and written again."""
    parts = name.split("/")
    return (
        0 < len(name) <= LONGEST_NAME
        and not any(part in ("", ".", "..") for part in parts)
        and not any(ord(letter) < 32 or 0xD800 <= ord(letter) < 0xE000 for letter in name)
    )


def _member(archive: zipfile.ZipFile, info: zipfile.ZipInfo, largest: int) -> bytes:
    """Bytes of one member, never more than ``largest`` whatever the header claims."""
    if info.compress_type not in KINDS_READ:
        raise ValueError(f"packed in a way (number {info.compress_type}) that is not read")
    if info.file_size > largest:
        raise ValueError(f"larger than {largest // 2**20} MB")
    if info.file_size > max(RATIO_FROM, WIDEST_RATIO * info.compress_size):
        raise ValueError("packed tighter than any figures are")
    with archive.open(info) as stream:
        data = stream.read(largest + 1)
    if len(data) > largest:
        raise ValueError(f"larger than {largest // 2**20} MB")
    return data


def _document(
    path: Path, text: bytes, members: Mapping[str, bytes], lost: Sequence[str]
) -> Document:
    """The project with its curves brought in, and the attachments that are none of them."""
    if len(text) > LARGEST_DESIGN:
        raise FileError(f"{path.name} is larger than {LARGEST_DESIGN // 2**20} MB: not a design.")
    try:
        return document_of(parsed(text, FAILURE), members, lost)
    except DesignError as error:
        raise FileError(f"{path.name} cannot be opened. {error}\n{_backup_hint(path)}") from error


def document_of(body: Any, members: Mapping[str, bytes], lost: Sequence[str]) -> Document:
    """A document of its JSON tree and members; DesignError when the tree is no project."""
    attachments, missing = brought_in(body, members)
    return Document(project_of_body(body), attachments, (*lost, *missing))


def members_of(document: Document) -> tuple[dict[str, Any], dict[str, bytes]]:
    """(JSON tree, members) of a document: what its curves hold stands among the members."""
    body = project_body(document.project)
    return body, {**set_out(body), **document.attachments}


def _backup_hint(path: Path) -> str:
    backup = path.with_name(path.name + BACKUP)
    return f"The save before it is in {backup.name}." if backup.exists() else ""


def read_only(path: Path) -> bool:
    """Whether a file is there and marked as not to be written."""
    try:
        return not path.stat().st_mode & (stat.S_IWUSR | stat.S_IWGRP | stat.S_IWOTH)
    except (OSError, ValueError):
        return False


def write_document(path: Path, document: Document, seen: FileStamp | None = None) -> FileStamp:
    """Save ``document`` at ``path``, keeping the file that was there as its backup; its new stamp.

    Raises FileError when it cannot, ChangedElsewhereError when the file is not as it was ``seen``;
    the old file is then untouched.
    """

    def check() -> None:
        """The last look before the file is replaced."""
        if changed_since(path, seen):
            raise ChangedElsewhereError(
                f"{path.name} was changed by another window or program since it was opened here."
            )

    try:
        replace_file(path, lambda s: _write_zip(s, document), backup=True, check=check)
    except (OSError, ValueError) as error:
        reason = getattr(error, "strerror", None) or error
        raise FileError(f"{path.name} was not saved: {reason}. Save it somewhere else.") from error
    stamp = stamp_of(path)
    assert stamp is not None or not path.exists()
    return stamp or FileStamp(0, 0, 0, "")


def _write_zip(stream: BinaryIO, document: Document) -> None:
    with zipfile.ZipFile(stream, "w") as archive:
        body, members = members_of(document)
        for name, data in {MEMBER: body_text(body).encode(), **members}.items():
            info = zipfile.ZipInfo(name, STAMP)
            # Large attachments are photos and recordings, packed already; and whatever is written
            # stays within the ratio that is read.
            small = len(data) <= RATIO_FROM
            info.compress_type = zipfile.ZIP_DEFLATED if small else zipfile.ZIP_STORED
            archive.writestr(info, data)
