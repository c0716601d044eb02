"""Attack: a window is killed at any moment of edits, saves, autosaves and shelf writes.

Afterwards the document opens, the shelf is whole and has every part that was put on it, and of the
edits at most those of the last two seconds are gone.
"""

import json
import os
import random
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from firecrest.core.errors import FirecrestError
from firecrest.design.project import project_of
from firecrest.files.container import read_document
from firecrest.files.journal import left_over
from firecrest.shelf.store import Shelf
from tests.attacks.results import Result

MOST_LOST_S = 2.0
LONGEST_S = 5.0
ATTACHED = 3_000_000


def attack(seed, count, seconds):
    """Kills of windows that one nursery, with everything loaded, brings up by fork."""
    result = Result("kills", count, seconds)
    nursery = subprocess.Popen(
        [sys.executable, "-m", __name__], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    )
    worst = 0.0
    try:
        for number in result.rounds():
            with tempfile.TemporaryDirectory() as name:
                what, lost = _once(nursery, random.Random(f"{seed} {number}"), Path(name))
            worst = max(worst, lost)
            if what:
                result.fail(f"kill {seed} {number}: {what}")
    finally:
        nursery.stdin.close()
        nursery.wait(timeout=20)
    result.facts["most lost"] = f"{worst:.2f} s"
    return result


def _once(nursery, dice, folder):
    """What is wrong after one kill, and the seconds of work that it cost."""
    nursery.stdin.write(json.dumps({"folder": str(folder), "seed": dice.random()}) + "\n")
    nursery.stdin.flush()
    process = int(nursery.stdout.readline())
    log = folder / "log"
    until = time.monotonic() + 30
    while not (log.exists() and "edit" in log.read_text()):
        if time.monotonic() > until:
            return "the window never came up", 0.0
        time.sleep(0.02)
    time.sleep(dice.uniform(0.0, LONGEST_S))
    killed = time.monotonic()
    os.kill(process, signal.SIGKILL)
    nursery.stdout.readline()
    done = [line.split() for line in log.read_text().splitlines() if line.endswith(".")]
    try:
        return _after(folder, done, killed)
    except (FirecrestError, sqlite3.Error, AssertionError) as error:
        return f"{type(error).__name__} {error!s:.200}", 0.0


def _after(folder, done, killed):
    """Documents, shelf and edits after a kill."""
    edits = {int(n): float(at) for what, n, at, _ in done if what == "edit"}
    found = [0]
    document = folder / "x.firecrest"
    if any(what == "saved" for what, *_ in done) or document.exists():
        found.append(_number(read_document(document).design))
    backup = folder / "x.firecrest.backup"
    if backup.exists():
        read_document(backup)
    items = left_over(folder / "state" / "firecrest" / "unsaved")
    found += [_number(item.document.design) for item in items]
    for item in items:
        item.journal.let_go()
    kept = max(found)
    lost = max([killed - at for n, at in edits.items() if n > kept], default=0.0)
    if lost > MOST_LOST_S:
        return f"{lost:.2f} s of work lost (edit {kept} of {max(edits)})", lost
    parts = [n for what, n, *_ in done if what == "part"]
    shelf = Shelf(folder / "data" / "firecrest" / "shelf.sqlite")
    names = {e.name for e in shelf.entries().values()}
    shelf.close()
    missing = [n for n in parts if f"mine {n}" not in names]
    return (f"parts {missing} are gone" if missing or shelf.skipped else ""), lost


def _number(design):
    """The number of the last edit a design has seen."""
    return int(design.note.split()[-1]) if design.note.startswith("edit ") else 0


# the nursery ---------------------------------------------------------------------------


def _nursery():
    """Bring up one window after the other in children of this process."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from firecrest.app import start  # noqa: F401  # loaded once for all children
    from firecrest.app.main_window import MainWindow  # noqa: F401

    for line in sys.stdin:
        asked = json.loads(line)
        child = os.fork()
        if child == 0:
            _work(Path(asked["folder"]), random.Random(asked["seed"]))
            os._exit(0)
        print(child, flush=True)
        os.waitpid(child, 0)
        print("gone", flush=True)


def _work(folder, dice):
    """A window at work until it is killed, which logs what is done."""
    for name in ("config", "data", "state"):
        os.environ[f"XDG_{name.upper()}_HOME"] = str(folder / name)
    os.dup2(os.open(os.devnull, os.O_RDWR), 0)
    os.dup2(0, 1)
    from PySide6.QtCore import QCoreApplication

    from firecrest.app.start import make_application, make_window
    from firecrest.files.container import Document
    from firecrest.files.demos import read_demo
    from firecrest.present.parts.starts import new_part

    make_application()
    window = make_window(read_demo("lantern"))
    window.show()
    session, path = window.session, folder / "x.firecrest"
    if dice.random() < 0.5:
        files = {"photos/a": random.Random(1).randbytes(ATTACHED)}
        session.start(Document(project_of(read_demo("slipway")), files), None)
    log = os.open(folder / "log", os.O_WRONLY | os.O_CREAT | os.O_APPEND)

    def note(what, number):
        os.write(log, f"{what} {number} {time.monotonic()} .\n".encode())

    number = 0
    while True:
        number += 1
        session.edit(("note",), f"edit {number}")
        note("edit", number)
        if dice.random() < 0.03:
            session.save(path)
            note("saved", number)
        if dice.random() < 0.03:
            part = new_part("driver")
            name = f"mine {number}"
            session.shelf.attempt(lambda s, n=name, p=part: s.add("driver", renamed(p, n)))
            note("part", number)
        until = time.monotonic() + dice.choice((0.0, 0.0, 0.02, 0.2))
        while True:
            QCoreApplication.processEvents()
            if time.monotonic() >= until:
                break


def renamed(part, name):
    """A part of another name."""
    import dataclasses

    return dataclasses.replace(part, name=name)


if __name__ == "__main__":
    _nursery()
