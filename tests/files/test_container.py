"""Containers: atomic, tolerant of damage, never destroying what was there."""

import os
import subprocess
import sys
import time
import zipfile
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from firecrest.core.errors import ChangedElsewhereError, FileError, FirecrestError
from firecrest.design.design import SCHEMA_VERSION
from firecrest.design.project import project_of
from firecrest.design.text import project_to_json
from firecrest.files import atomic, container
from firecrest.files.atomic import BACKUP
from firecrest.files.container import (
    Document,
    changed_since,
    read_document,
    read_only,
    stamp_of,
    write_document,
)
from firecrest.files.demos import demo_names, read_demo


@pytest.fixture
def file(tmp_path, slipway):
    path = tmp_path / "slipway.firecrest"
    write_document(
        path, Document(project_of(slipway), {"curves/z.csv": b"10,4\n", "photos/a.png": b"\x89PNG"})
    )
    return path


def test_round_trip_with_attachments(file, slipway):
    document = read_document(file)
    assert document.design == slipway
    assert document.attachments == {"curves/z.csv": b"10,4\n", "photos/a.png": b"\x89PNG"}
    assert document.lost == ()


def test_a_bare_design_json_opens_too(tmp_path, slipway):
    path = tmp_path / "design.json"
    path.write_text(project_to_json(project_of(slipway)))
    assert read_document(path).design == slipway


def test_saving_keeps_the_save_before_as_one_backup(file, slipway, blank):
    write_document(file, Document(project_of(blank)))
    assert read_document(file).design == blank
    assert read_document(file.with_name(file.name + BACKUP)).design == slipway
    assert sorted(p.name for p in file.parent.iterdir()) == [file.name, file.name + BACKUP]


def test_equal_designs_make_equal_files(tmp_path, slipway):
    for name in "ab":
        write_document(tmp_path / f"{name}.firecrest", Document(project_of(slipway)))
    assert (tmp_path / "a.firecrest").read_bytes() == (tmp_path / "b.firecrest").read_bytes()


REWRITE = """
import os, sys
from pathlib import Path
from firecrest.design.project import project_of
from firecrest.files.container import Document, write_document
from firecrest.files.demos import blank_design
print("ready", flush=True)
while True:
    files = {"photos/big": os.urandom(200_000)}
    write_document(Path(sys.argv[1]), Document(project_of(blank_design()), files))
"""


def test_killed_at_any_moment_a_whole_file_is_there(file):
    for k in range(6):
        process = subprocess.Popen(
            [sys.executable, "-c", REWRITE, str(file)], stdout=subprocess.PIPE
        )
        assert process.stdout.readline() == b"ready\n"
        time.sleep(0.03 + 0.013 * k)
        process.kill()
        process.communicate()
        assert read_document(file).design is not None


def test_a_failed_save_leaves_the_old_file(file, slipway, blank, monkeypatch):
    def full(*_args):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(atomic.os, "fsync", full)
    with pytest.raises(FileError, match=r"not saved: No space left.*Save it somewhere else"):
        write_document(file, Document(project_of(blank)))
    assert read_document(file).design == slipway
    assert [p.name for p in file.parent.iterdir()] == [file.name]


def test_damaged_attachments_are_told_and_the_design_opens(file, slipway):
    data = bytearray(file.read_bytes())
    with zipfile.ZipFile(file) as archive:
        place = archive.getinfo("photos/a.png").header_offset + 30 + len("photos/a.png")
    data[place : place + 3] = b"\xff\xff\xff"
    file.write_bytes(data)
    document = read_document(file)
    assert document.design == slipway
    assert document.lost[0].startswith("photos/a.png")


def test_truncated_files_are_refused_and_left(file):
    data = file.read_bytes()
    for share in (0.0, 0.1, 0.5, 0.9, 0.99):
        cut = file.with_name("cut.firecrest")
        cut.write_bytes(data[: int(len(data) * share)])
        with pytest.raises(FileError):
            read_document(cut)
        assert cut.read_bytes() == data[: int(len(data) * share)]


def test_the_backup_is_named_when_the_file_is_damaged(file, blank):
    write_document(file, Document(project_of(blank)))
    file.write_bytes(b"PK\x03\x04 damaged")
    with pytest.raises(FileError, match=r"slipway.firecrest.backup"):
        read_document(file)


def test_foreign_huge_and_missing_files(tmp_path, file):
    with pytest.raises(FileError, match="is not there"):
        read_document(tmp_path / "none.firecrest")
    with pytest.raises(FileError, match="is not a file"):
        read_document(tmp_path)
    other = tmp_path / "other.zip"
    with zipfile.ZipFile(other, "w") as archive:
        archive.writestr("letter.txt", "hello")
    with pytest.raises(FileError, match=r"holds no design.json"):
        read_document(other)
    bomb = tmp_path / "bomb.firecrest"
    with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("design.json", b" " * (container.LARGEST_DESIGN + 1))
    with pytest.raises(FileError, match="larger than 8 MB"):
        read_document(bomb)
    sparse = tmp_path / "sparse.firecrest"
    with sparse.open("wb") as stream:
        stream.truncate(container.LARGEST_FILE + 1)
    with pytest.raises(FileError, match="larger than 256 MB"):
        read_document(sparse)


def packed(path, slipway, *members, kind=zipfile.ZIP_DEFLATED):
    """A container with a design and other members."""
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("design.json", project_to_json(project_of(slipway)), zipfile.ZIP_DEFLATED)
        for name, data in members:
            archive.writestr(name, data, kind)
    return path


def test_a_container_has_one_budget_for_all_that_it_unpacks_to(tmp_path, slipway):
    path = tmp_path / "x.firecrest"
    tight = packed(path, slipway, ("zeros", b"0" * 3_000_000), ("good", b"1"))
    document = read_document(tight)
    assert document.attachments == {"good": b"1"}
    assert document.lost == ("zeros: packed tighter than any figures are",)
    many = packed(path, slipway, *((f"m{k}", b"") for k in range(container.MOST_MEMBERS + 1)))
    with pytest.raises(FileError, match="holds 2002 files"):
        read_document(many)
    whole = [(f"m{k}", bytes(50 * 2**20)) for k in range(5)]
    with pytest.raises(FileError, match=r"of 250 MB: not a Firecrest design"):
        read_document(packed(path, slipway, *whole, kind=zipfile.ZIP_STORED))
    for kind in (zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA):
        document = read_document(packed(path, slipway, ("a", b"1" * 99), kind=kind))
        assert "packed in a way" in document.lost[0]


def test_members_that_lie_over_each_other_are_refused(tmp_path, slipway):
    path = packed(tmp_path / "x.firecrest", slipway, ("a", b"1" * 500), kind=zipfile.ZIP_STORED)
    data = bytearray(path.read_bytes())
    with zipfile.ZipFile(path) as archive:
        first = archive.getinfo("design.json").header_offset
        start = archive.start_dir
    entry = data.index(b"PK\x01\x02", data.index(b"PK\x01\x02", start) + 4)
    data[entry + 42 : entry + 46] = first.to_bytes(4, "little")
    path.write_bytes(data)
    with pytest.raises(FileError, match="lie over each other"):
        read_document(path)


@pytest.mark.parametrize("name", ["../up", "/root", "a//b", "x" * 300, "a\x01", "."])
def test_names_that_cannot_be_kept_are_told(tmp_path, slipway, name):
    document = read_document(packed(tmp_path / "x.firecrest", slipway, (name, b"1"), ("b", b"2")))
    assert document.attachments == {"b": b"2"}
    assert "the name cannot be used" in document.lost[0]


def test_an_empty_name_is_told_too(tmp_path, slipway):
    path = packed(tmp_path / "x.firecrest", slipway, ("q", b"1"))
    data = bytearray(path.read_bytes())
    place = data.index(b"PK\x01\x02", data.index(b"PK\x01\x02") + 4)
    assert data[place + 46 : place + 47] == b"q"
    data[place + 28 : place + 30] = b"\0\0"
    del data[place + 46]
    end = data.rindex(b"PK\x05\x06")
    size = int.from_bytes(data[end + 12 : end + 16], "little") - 1
    data[end + 12 : end + 16] = size.to_bytes(4, "little")
    path.write_bytes(data)
    assert len(read_document(path).lost) == 1


def test_what_was_read_can_be_saved_and_read_again_however_tight(tmp_path, slipway):
    path = packed(
        tmp_path / "x.firecrest", slipway, ("zeros", b"0" * 3_000_000), kind=zipfile.ZIP_STORED
    )
    document = read_document(path)
    write_document(path, document)
    assert read_document(path) == document


def test_devices_and_pipes_are_no_files(tmp_path):
    os.mkfifo(tmp_path / "pipe")
    for path in (Path("/dev/zero"), tmp_path / "pipe"):
        with pytest.raises(FileError, match="is not a file"):
            read_document(path)
    with pytest.raises(FileError, match="NUL"):
        read_document(tmp_path / "a\0b")


def test_a_file_changed_elsewhere_is_not_overwritten(file, slipway, blank):
    seen = stamp_of(file)
    assert not changed_since(file, seen)
    file.touch()
    assert not changed_since(file, seen), "the same text is no change"
    stamp = write_document(file, Document(project_of(slipway), {"other": b"1"}), seen)
    assert changed_since(file, seen)
    with pytest.raises(ChangedElsewhereError, match="was changed by another window"):
        write_document(file, Document(project_of(blank)), seen)
    assert read_document(file).design == slipway
    write_document(file, Document(project_of(blank)), stamp)
    file.unlink()
    assert not changed_since(file, stamp)
    write_document(file, Document(project_of(blank)), stamp)


def test_read_only_files_are_known_by_their_mark(file):
    assert not read_only(file)
    file.chmod(0o444)
    assert read_only(file)
    assert not read_only(file.with_name("none"))


def test_newer_designs_are_refused_with_what_to_do(tmp_path, slipway):
    path = tmp_path / "new.json"
    path.write_text(
        project_to_json(project_of(slipway)).replace(f'"schema": {SCHEMA_VERSION}', '"schema": 99')
    )
    with pytest.raises(FileError, match=r"schema 99.*newer Firecrest"):
        read_document(path)


@settings(max_examples=80, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.data())
def test_any_mutation_gives_a_document_or_our_own_error(file, data):
    original = bytearray(file.read_bytes())
    for _ in range(data.draw(st.integers(1, 6))):
        place = data.draw(st.integers(0, len(original) - 1))
        original[place] = data.draw(st.integers(0, 255))
    path = file.with_name("mutated.firecrest")
    path.write_bytes(original)
    try:
        assert read_document(path).design is not None
    except FirecrestError as error:
        assert str(error)
    assert path.read_bytes() == bytes(original)


def test_every_demo_opens():
    assert "slipway" in demo_names()
    for name in demo_names():
        assert read_demo(name).name
    with pytest.raises(FileError, match=r"There are: boathouse.*slipway"):
        read_demo("nothing")
