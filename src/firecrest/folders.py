"""Where settings, parts and unsaved work are kept, by the XDG rules, and private to their owner."""

import contextlib
import os
import tempfile
from pathlib import Path

NAME = "firecrest"
PRIVATE_FOLDER, PRIVATE_FILE = 0o700, 0o600


def data_folder() -> Path:
    """Where the shelf is kept."""
    return _folder("XDG_DATA_HOME", ".local/share")


def state_folder() -> Path:
    """Where unsaved work is kept."""
    return _folder("XDG_STATE_HOME", ".local/state") / "unsaved"


def config_folder() -> Path:
    """Where settings are kept."""
    return _folder("XDG_CONFIG_HOME", ".config")


def _folder(variable: str, usual: str) -> Path:
    """The folder that a variable names; one that is not absolute counts as not set (XDG 0.8)."""
    named = os.environ.get(variable, "")
    if os.path.isabs(named):
        return Path(named) / NAME
    try:
        return Path.home() / usual / NAME
    except RuntimeError:
        # No HOME and no entry for this user, as in bare containers: nothing lasts there, but it
        # runs. The number keeps users apart; the folder is made private like the others.
        return Path(tempfile.gettempdir()) / f"{NAME}-{os.getuid()}" / usual / NAME


def make_private(folder: Path) -> None:
    """Make a folder of ours that no one else looks into; OSError when that cannot be."""
    folder.mkdir(mode=PRIVATE_FOLDER, parents=True, exist_ok=True)
    if folder.stat().st_mode & 0o777 != PRIVATE_FOLDER:
        with contextlib.suppress(PermissionError):
            folder.chmod(PRIVATE_FOLDER)


def touch_private(path: Path) -> None:
    """Make a file that no one else reads, or an older one private; OSError when it cannot be."""
    os.close(os.open(path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, PRIVATE_FILE))
    if path.stat().st_mode & 0o777 != PRIVATE_FILE:
        with contextlib.suppress(PermissionError):
            path.chmod(PRIVATE_FILE)
