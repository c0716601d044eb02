"""Files replaced in one step, their links, permissions and litter."""

import fcntl
import os
import time

import pytest

from firecrest.files.atomic import (
    BACKUP,
    LITTER_AGE_S,
    WRITING,
    clean_litter,
    clean_litter_of,
    replace_file,
)


def old(path, text=b""):
    """A file written a while ago."""
    path.write_bytes(text)
    then = time.time() - LITTER_AGE_S - 5
    os.utime(path, (then, then))
    return path


def written(text):
    return lambda stream: stream.write(text)


def test_a_link_is_followed_to_its_target(tmp_path):
    (tmp_path / "deep").mkdir()
    target = tmp_path / "deep" / "target"
    target.write_bytes(b"old")
    link = tmp_path / "link"
    link.symlink_to(target)
    replace_file(link, written(b"new"), backup=True)
    assert link.is_symlink()
    assert target.read_bytes() == b"new"
    assert (tmp_path / "deep" / f"target{BACKUP}").read_bytes() == b"old"


def test_permissions_stay_or_are_as_asked(tmp_path):
    path = tmp_path / "file"
    replace_file(path, written(b"1"))
    mask = os.umask(0)
    os.umask(mask)
    assert path.stat().st_mode & 0o777 == 0o666 & ~mask
    path.chmod(0o640)
    replace_file(path, written(b"2"))
    assert path.stat().st_mode & 0o777 == 0o640
    replace_file(path, written(b"3"), mode=0o600)
    assert path.stat().st_mode & 0o777 == 0o600


def test_a_writer_that_fails_leaves_the_old_file_and_no_litter(tmp_path):
    path = tmp_path / "file"
    path.write_bytes(b"old")

    def broken(stream):
        stream.write(b"half")
        raise OSError(28, "No space left on device")

    with pytest.raises(OSError, match="No space"):
        replace_file(path, broken)
    with pytest.raises(RuntimeError):
        replace_file(path, written(b"new"), check=lambda: (_ for _ in ()).throw(RuntimeError()))
    assert path.read_bytes() == b"old"
    assert [p.name for p in tmp_path.iterdir()] == ["file"]


def test_litter_goes_when_its_owner_is_gone_and_nothing_else_does(tmp_path):
    keep = [
        old(tmp_path / "x.firecrest"),
        old(tmp_path / ".x.firecrest.note"),
        old(tmp_path / ".other.firecrest.abcdefgh"),
        tmp_path / f".x.firecrest.young_00{WRITING}",
        old(tmp_path / f".x.firecrest.in_use00{WRITING}"),
    ]
    keep[3].write_bytes(b"")
    litter = [f".x.firecrest.abcdefgh{WRITING}", ".x.firecrest.123.old", ".x.firecrest.abcd_123"]
    for name in litter:
        old(tmp_path / name)
    with keep[4].open("rb") as held:
        fcntl.flock(held, fcntl.LOCK_EX)
        assert clean_litter(tmp_path, "x.firecrest") == 3
        assert sorted(tmp_path.iterdir()) == sorted(keep)
    assert clean_litter(tmp_path) == 1, "of any name, once it is let go"
    assert clean_litter(tmp_path / "nowhere") == 0


def test_litter_beside_several_documents(tmp_path):
    for name in "ab":
        (tmp_path / name).mkdir()
        old(tmp_path / name / f".x.firecrest.abcdefgh{WRITING}")
    paths = [str(tmp_path / name / "x.firecrest") for name in "abc"]
    assert list(clean_litter_of(paths)) == [1, 1, 0]


def test_long_names_of_any_letters_can_be_saved(tmp_path):
    for letter in "aß舟":
        name = letter * (240 // len(letter.encode()))
        replace_file(tmp_path / name, written(b"1"))
        assert (tmp_path / name).read_bytes() == b"1"
