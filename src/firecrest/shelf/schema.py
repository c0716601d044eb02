"""The shelf's database: connection, tables, and their migrations by ``user_version``."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from firecrest.core.errors import ShelfBusyError, ShelfError
from firecrest.folders import make_private, touch_private

NAME = "shelf.sqlite"
PATIENCE_MS = 100
"""How long a window stands still while another one writes; what takes longer waits beside it."""
BUSY = (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED)

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
    # 2: measured curves are figures of the part.
    """
    UPDATE part SET body = json_set(body, '$.curves', json((
        SELECT json_group_array(json_object(
            'what', curve.kind, 'name', substr(curve.name, 1, 120), 'content', curve.body))
        FROM curve WHERE curve.part = part.id)))
    WHERE id IN (SELECT part FROM curve) AND json_valid(body);
    DROP TABLE curve;
    """,
)
"""One script per version; a shelf at version n runs those from n on."""


@contextmanager
def told(what: str) -> Iterator[None]:
    """Troubles of the database as a sentence; ShelfBusyError when it is only in use elsewhere."""
    try:
        yield
    except sqlite3.Error as error:
        if (getattr(error, "sqlite_errorcode", 0) & 0xFF) in BUSY:
            raise ShelfBusyError("The shelf is in use by another program.") from error
        raise ShelfError(f"The shelf cannot be {what}: {error}. Nothing was changed.") from error


def connect(path: Path) -> sqlite3.Connection:
    """Open or make the database at ``path`` and bring it up to date.

    Write-ahead log with full synchronisation: killed at any moment, the last whole change is
    there. Nobody else can read it. Raises ShelfBusyError when it is in use, ShelfError when it is
    damaged or newer; it is then left as it is.
    """
    try:
        make_private(path.parent)
        touch_private(path)
        connection = sqlite3.connect(path, isolation_level=None, timeout=PATIENCE_MS / 1000)
    except (sqlite3.Error, OSError, ValueError) as error:
        raise _closed(path, error) from error
    try:
        with told("opened"):
            connection.execute("PRAGMA journal_mode = WAL")
            connection.execute("PRAGMA synchronous = FULL")
            connection.execute("PRAGMA foreign_keys = ON")
            _migrate(connection)
    except ShelfBusyError:
        connection.close()
        raise
    except ShelfError as error:
        connection.close()
        raise _closed(path, error.__cause__ or error) from error
    return connection


def _closed(path: Path, error: BaseException) -> ShelfError:
    if isinstance(error, ShelfError):
        return error
    return ShelfError(
        f"The shelf {path.name} cannot be opened: {error}. It was left as it is. "
        "Move it aside to start a new one."
    )


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
