"""Folders by the XDG rules, private, and there also for users that have no home."""

import os
import pwd

import pytest

from firecrest import folders


def test_a_relative_folder_counts_as_not_set(monkeypatch, tmp_path):
    monkeypatch.setenv("HOME", str(tmp_path))
    monkeypatch.setenv("XDG_DATA_HOME", "somewhere/else")
    assert folders.data_folder() == tmp_path / ".local/share/firecrest"
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    assert folders.data_folder() == tmp_path / "data/firecrest"


def test_a_user_without_home_or_entry_still_has_folders(monkeypatch):
    def none(number):
        raise KeyError(number)

    for name in ("HOME", "XDG_CONFIG_HOME", "XDG_STATE_HOME"):
        monkeypatch.delenv(name, raising=False)
    monkeypatch.setattr(pwd, "getpwuid", none)
    assert str(os.getuid()) in str(folders.config_folder())
    assert folders.state_folder().name == "unsaved"


@pytest.mark.parametrize("mask", [0, 0o022, 0o777])
def test_folders_and_files_are_private_whatever_the_mask(tmp_path, mask):
    before = os.umask(mask)
    try:
        folders.make_private(tmp_path / "a")
        folders.touch_private(tmp_path / "a" / "file")
    finally:
        os.umask(before)
    assert (tmp_path / "a").stat().st_mode & 0o777 == 0o700
    assert (tmp_path / "a" / "file").stat().st_mode & 0o777 == 0o600


def test_older_folders_and_files_become_private(tmp_path):
    (tmp_path / "a").mkdir(mode=0o755)
    (tmp_path / "a" / "file").write_text("kept")
    folders.make_private(tmp_path / "a")
    folders.touch_private(tmp_path / "a" / "file")
    assert (tmp_path / "a").stat().st_mode & 0o777 == 0o700
    assert (tmp_path / "a" / "file").stat().st_mode & 0o777 == 0o600
    assert (tmp_path / "a" / "file").read_text() == "kept"
