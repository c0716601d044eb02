"""The shelf's database: connection, tables, and their migrations by ``user_version``."""

import os
import sqlite3
from pathlib import Path

from firecrest.core.errors import ShelfError

NAME = "shelf.sqlite"
PATIENCE_MS = 5000
"""How long one window waits while another one writes."""

MIGRATIONS = (
    """
    CREATE TABLE part (
        id TEXT PRIMARY KEY,
        kind TEXT NOT NULL,
        name TEXT NOT NULL,
        body TEXT NOT NULL,
        revision INTEGER NOT NULL CHECK (revision >= 1),
        words TEXT NOT NULL,
        size REAL, frame REAL, impedance REAL,
        price REAL NOT NULL, mass REAL NOT NULL,
        favourite INTEGER NOT NULL, stock INTEGER NOT NULL CHECK (stock >= 0),
        notes TEXT NOT NULL, archived INTEGER NOT NULL, shipped INTEGER NOT NULL
    ) STRICT;
    CREATE TABLE curve (
        part TEXT NOT NULL REFERENCES part (id) ON DELETE CASCADE,
        kind TEXT NOT NULL,
        name TEXT NOT NULL,
        body TEXT NOT NULL,
        PRIMARY KEY (part, kind)
    ) STRICT;
    CREATE TABLE used (
        part TEXT NOT NULL REFERENCES part (id) ON DELETE CASCADE,
        project TEXT NOT NULL,
        seen TEXT NOT NULL,
        PRIMARY KEY (part, project)
    ) STRICT;
    CREATE TABLE fact (name TEXT PRIMARY KEY, value INTEGER NOT NULL) STRICT;
    """,
)
"""One script per version; a shelf at version n runs those from n on."""


def data_folder() -> Path:
    """Where the shelf is kept, by the XDG rules."""
    base = os.environ.get("XDG_DATA_HOME") or str(Path.home() / ".local" / "share")
    return Path(base) / "firecrest"


def connect(path: Path) -> sqlite3.Connection:
    """Open or make the database at ``path`` and bring it up to date.

    Write-ahead log with full synchronisation: killed at any moment, the last whole change is
    there. Raises ShelfError when it is damaged or newer; it is then left as it is.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        connection = sqlite3.connect(path, isolation_level=None, timeout=PATIENCE_MS / 1000)
        connection.execute("PRAGMA journal_mode = WAL")
        connection.execute("PRAGMA synchronous = FULL")
        connection.execute("PRAGMA foreign_keys = ON")
        _migrate(connection)
    except (sqlite3.Error, OSError) as error:
        raise ShelfError(
            f"The shelf {path.name} cannot be opened: {error}. It was left as it is. "
            "Move it aside to start a new one."
        ) from error
    return connection


def _migrate(connection: sqlite3.Connection) -> None:
    """Run the missing scripts, each with its version in one transaction."""
    connection.execute("BEGIN IMMEDIATE")
    try:
        version = int(connection.execute("PRAGMA user_version").fetchone()[0])
        if version > len(MIGRATIONS):
            raise ShelfError(
                f"The shelf has version {version}; this Firecrest reads up to {len(MIGRATIONS)}. "
                "Open it with a newer Firecrest."
            )
        for script in MIGRATIONS[version:]:
            for statement in filter(str.strip, script.split(";")):
                connection.execute(statement)
        connection.execute(f"PRAGMA user_version = {len(MIGRATIONS)}")
    except BaseException:
        connection.execute("ROLLBACK")
        raise
    connection.execute("COMMIT")
