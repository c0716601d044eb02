"""Settings: one checked file; what does not fit counts as not set, and nothing is ever run."""

import json

import pytest

from firecrest.app.settings import FILE, LARGEST, Settings


@pytest.fixture
def store(tmp_path):
    return Settings(tmp_path)


def test_what_is_put_is_there_for_this_and_other_windows(store, tmp_path):
    store.put("theme", "dark")
    store.put_state("splitter/size", b"\x00\xff")
    other = Settings(tmp_path)
    assert other.get("theme", "desktop") == "dark"
    assert other.get_state("splitter/size") == b"\x00\xff"
    other.put("stage", "power")
    assert store.get("stage", "size") == "power"
    assert store.get("theme", "desktop") == "dark"
    assert (tmp_path / FILE).stat().st_mode & 0o777 == 0o600
    store.forget("splitter", "window")
    assert other.get_state("splitter/size") == b""


@pytest.mark.parametrize(
    ("key", "value"),
    [
        ("theme", 3), ("theme", "purple"), ("stage", ["size"]), ("folder", {"a": 1}),
        ("recent", "one"), ("recent", [1]), ("recent", ["x"] * 9), ("window/geometry", 7),
        ("window/geometry", "no base 64!"), ("splitter/size", [1]), ("units/length/mm", None),
        ("folder", "a" * 5000), ("folder", "nul\0"),
    ],
)  # fmt: skip
def test_what_does_not_fit_counts_as_not_set(store, tmp_path, key, value):
    (tmp_path / FILE).write_text(json.dumps({key: value, "theme": "dark"} | {key: value}))
    assert store.get(key, "usual") == "usual"
    with pytest.raises(ValueError, match="cannot be"):
        store.put(key, value)


@pytest.mark.parametrize(
    "data", [b"", b"{", b"[1]", b"\x80\x04\x95cos\nsystem\n.", b"[" * 99_999, b" " * (LARGEST + 1)]
)
def test_a_damaged_file_costs_what_was_remembered_and_no_more(store, tmp_path, data):
    (tmp_path / FILE).write_bytes(data)
    assert store.get("theme", "desktop") == "desktop"
    store.put("theme", "light")
    assert Settings(tmp_path).get("theme", "desktop") == "light"


def test_a_folder_that_cannot_be_written_is_no_trouble(tmp_path):
    (tmp_path / "file").write_text("")
    store = Settings(tmp_path / "file" / "below")
    store.put("theme", "dark")
    assert store.get("theme", "desktop") in ("dark", "desktop")


def test_settings_of_wrong_types_do_not_keep_the_window_from_opening(
    make_window, slipway, settings
):
    wrong = {"splitter/size": 3, "splitter/power": "AAAA", "window/geometry": [1], "stage": 9}
    folder = settings / "config" / "firecrest"
    folder.mkdir(parents=True)
    (folder / FILE).write_text(json.dumps(wrong))
    window = make_window(slipway)
    assert window.stage.key == "size"
    window.show_stage("power")
    assert window.stage.isVisible()
