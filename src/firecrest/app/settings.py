"""What the window remembers: one JSON file, checked when it is read, never able to run anything.

Each kind of setting is declared once; a value that does not fit its declaration counts as not set.
A file that cannot be read or written costs what was remembered and nothing else.
"""

import base64
import binascii
import contextlib
import json
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any

from firecrest.files.atomic import replace_file
from firecrest.folders import PRIVATE_FILE, config_folder, make_private

FILE = "settings.json"
LARGEST = 2**20
LONGEST_TEXT = 4096
MOST_RECENT = 8


def _text(value: Any) -> bool:
    return isinstance(value, str) and len(value) <= LONGEST_TEXT and "\0" not in value


def _theme(value: Any) -> bool:
    return value in ("light", "dark", "desktop")


def _zoom(value: Any) -> bool:
    return isinstance(value, int | float) and 0.5 <= value <= 4.0


def _yes_no(value: Any) -> bool:
    return isinstance(value, bool)


def _paths(value: Any) -> bool:
    return isinstance(value, list) and len(value) <= MOST_RECENT and all(map(_text, value))


def _state(value: Any) -> bool:
    """Bytes of a window or splitter, written as base64."""
    try:
        return _text(value) and bool(base64.b64decode(value, validate=True))
    except (binascii.Error, ValueError):
        return False


SETTINGS: Mapping[str, Callable[[Any], bool]] = {
    "theme": _theme,
    "zoom": _zoom,
    "stage": _text,
    "folder": _text,
    "recent": _paths,
    "window": _state,
    "splitter": _state,
    "units": _text,
    "hold": _yes_no,
    "shown": _yes_no,
}
"""First word of a key: what fits it. ``splitter/size`` and ``units/length/mm`` are of families."""


def unit_key(quantity: str, usual: str) -> str:
    """Key of the unit in which a kind of figure is shown: a quantity and its usual unit."""
    return f"units/{quantity}/{usual.replace('/', 'per')}"


def chosen_unit(quantity: str, usual: str) -> str:
    """The unit chosen for a kind of figure, or the usual one."""
    found: str = settings.get(unit_key(quantity, usual), usual)
    return found


class Settings:
    """The file and what it held when last read; another window's changes are seen and kept."""

    def __init__(self, folder: Path | None = None) -> None:
        self._folder = folder
        self._seen: tuple[Path, int, int] | None = None
        self._values: dict[str, Any] = {}

    def get(self, key: str, default: Any) -> Any:
        """A setting, or ``default`` when it is not set or does not fit."""
        self._look()
        value = self._values.get(key, default)
        return value if value is default or SETTINGS[key.split("/")[0]](value) else default

    def put(self, key: str, value: Any) -> None:
        """Remember a setting; KeyError and ValueError are mistakes of the program."""
        if not SETTINGS[key.split("/")[0]](value):
            raise ValueError(f"{key} cannot be {value!r:.80}")
        self._look()
        if self._values.get(key) != value:
            self._values[key] = value
            self._write()

    def get_state(self, key: str) -> bytes:
        """Bytes of a window or splitter; empty when there are none."""
        return base64.b64decode(self.get(key, ""))

    def put_state(self, key: str, state: bytes) -> None:
        """Remember bytes of a window or splitter."""
        self.put(key, base64.b64encode(state).decode("ascii"))

    def forget(self, *families: str) -> None:
        """Nothing of these families is remembered any more."""
        self._look()
        self._values = {k: v for k, v in self._values.items() if k.split("/")[0] not in families}
        self._write()

    @property
    def _path(self) -> Path:
        return (self._folder or config_folder()) / FILE

    def _look(self) -> None:
        """Read the file when it is not the one that was read."""
        path = self._path
        try:
            facts = path.stat()
            seen = (path, facts.st_mtime_ns, facts.st_size)
            if seen == self._seen:
                return
            if facts.st_size > LARGEST or not path.is_file():
                raise ValueError("not a file of settings")
            values = json.loads(path.read_text(encoding="utf-8"))
            self._values = values if isinstance(values, dict) else {}
        except (OSError, ValueError, RecursionError):
            if self._seen is None or self._seen[0] != path:
                self._values = {}
            seen = (path, 0, 0)
        self._seen = seen

    def _write(self) -> None:
        path = self._path
        fit = {k: v for k, v in self._values.items() if k.split("/")[0] in SETTINGS}
        with contextlib.suppress(OSError):
            make_private(path.parent)
            text = json.dumps(fit, indent=1, sort_keys=True).encode("ascii")
            replace_file(path, lambda stream: stream.write(text), mode=PRIVATE_FILE, durable=False)
            facts = path.stat()
            self._seen = (path, facts.st_mtime_ns, facts.st_size)


settings = Settings()
"""Those of this program."""
