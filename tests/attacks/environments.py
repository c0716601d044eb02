"""Attack: the program in environments it did not choose opens its window, or says why not.

Each case starts the real program. Its window must come up and end at a signal without a trace; a
headless command must end with one of its own statuses.
"""

import contextlib
import json
import os
import resource
import shutil
import signal
import sqlite3
import subprocess
import sys
import tempfile
from dataclasses import dataclass, field
from pathlib import Path

from firecrest.design.project import project_of
from firecrest.files.container import Document, write_document
from firecrest.files.demos import demo_names, read_demo
from firecrest.files.journal import WORK, Journal
from firecrest.shelf.store import Shelf
from tests.attacks.results import Result

UP_WITHIN_S = 40
START = """
import sys
from firecrest.app import start
offer = start.offer_left_over
def shown(window):
    offer(window)
    print("shown", flush=True)
start.offer_left_over = shown
from PySide6.QtWidgets import QMessageBox
QMessageBox.exec = lambda box: 0
from firecrest.__main__ import main
sys.exit(main())
"""
NO_ENTRY = """
import pwd
def none(number):
    raise KeyError(number)
pwd.getpwuid = none
"""


@dataclass
class Case:
    """One environment: what is different, and what is asked of the program."""

    name: str
    environment: dict[str, str | None] = field(default_factory=dict)
    arguments: tuple[str, ...] = ("open", "--demo", "slipway")
    prepare: object = None
    limits: dict[int, int] = field(default_factory=dict)
    options: dict[str, object] = field(default_factory=dict)
    python: tuple[str, ...] = ()
    code: str = ""
    end: int = signal.SIGTERM
    headless: bool = False


def attack(seed, count, seconds):
    """Every case once; ``seed`` plays no part, ``count`` and time bound how many."""
    result = Result("environments", count, seconds)
    chosen = cases()
    for number in result.rounds():
        if number >= len(chosen):
            break
        what = trouble(chosen[number])
        if what:
            result.fail(f"{chosen[number].name}: {what}")
    return result


def trouble(case):
    """What went wrong in a case; nothing when it was as it must be."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        folder.chmod(0o777)
        environment = {
            **os.environ,
            "HOME": name,
            "XDG_CONFIG_HOME": f"{name}/config",
            "XDG_DATA_HOME": f"{name}/data",
            "XDG_STATE_HOME": f"{name}/state",
            "QT_QPA_PLATFORM": "offscreen",
        }
        held = case.prepare(folder) if case.prepare else None
        arguments = [a.replace("HERE", name) for a in case.arguments]
        for key, value in case.environment.items():
            environment.pop(key, None)
            if value is not None:
                environment[key] = value.replace("HERE", name)
        program = ["-m", "firecrest"] if case.headless else ["-c", case.code + START]
        process = subprocess.Popen(
            [sys.executable, *case.python, *program, *arguments],
            env=environment,
            stdout=case.options.get("stdout", lambda: subprocess.PIPE)(),
            stderr=subprocess.PIPE,
            preexec_fn=lambda: _limit(case),  # the child does nothing else
        )
        try:
            return _headless(process) if case.headless else _window(process, case)
        finally:
            process.kill()
            process.communicate()
            if held is not None:
                held.close()


def _limit(case):
    for what, value in case.limits.items():
        resource.setrlimit(what, (value, value))
    if case.options.get("umask") is not None:
        os.umask(case.options["umask"])
    if case.options.get("no folder"):
        gone = tempfile.mkdtemp()
        os.chdir(gone)
        shutil.rmtree(gone)


def _headless(process):
    try:
        _, told = process.communicate(timeout=UP_WITHIN_S)
    except subprocess.TimeoutExpired:
        return "it did not end"
    if process.returncode not in (0, 1, 2, 141) or b"Traceback" in told:
        return f"status {process.returncode}: {_last(told)}"
    return ""


def _window(process, case):
    watch = subprocess.Popen(["sleep", str(UP_WITHIN_S)])
    try:
        line = _line_within(process, watch)
        if line != b"shown\n":
            process.kill()
            told = process.communicate()[1]
            return f"no window (status {process.returncode}): {_last(told)}"
        process.send_signal(case.end)
        try:
            _, told = process.communicate(timeout=10)
        except subprocess.TimeoutExpired:
            return "it did not end at a signal"
    finally:
        watch.kill()
        watch.wait()
    if process.returncode != 128 + case.end or b"Traceback" in told:
        return f"ended with status {process.returncode}: {_last(told)}"
    return ""


def _line_within(process, watch):
    """The first line it prints, or nothing when the time is over before."""
    import selectors

    with selectors.DefaultSelector() as ready:
        ready.register(process.stdout, selectors.EVENT_READ)
        while watch.poll() is None and process.poll() is None:
            if ready.select(0.2):
                return process.stdout.readline()
    return process.stdout.readline() if process.poll() is not None else b""


def _last(told):
    lines = told.decode(errors="replace").strip().splitlines()
    return (lines[-1] if lines else "no word")[:160]


# what is prepared -----------------------------------------------------------------------


def settings_of(value, *, raw=False):
    """A file of settings that holds ``value``."""

    def prepare(folder):
        path = folder / "config" / "firecrest" / "settings.json"
        path.parent.mkdir(parents=True)
        path.write_text(value if raw else json.dumps(value))

    return prepare


def file_at(place, data=b"", *, pipe=False, folder=False):
    """A file, pipe or folder somewhere below the home."""

    def prepare(home):
        path = home / place
        path.parent.mkdir(parents=True, exist_ok=True)
        if pipe:
            os.mkfifo(path)
        elif folder:
            path.mkdir()
        else:
            path.write_bytes(data)

    return prepare


def shelf_with(*statements, hold=False):
    """A shelf that somebody else has written to, or holds."""

    def prepare(folder):
        path = folder / "data" / "firecrest" / "shelf.sqlite"
        Shelf(path).close()
        other = sqlite3.connect(path, isolation_level=None)
        for statement in statements:
            other.execute(statement)
        if hold:
            other.execute("PRAGMA locking_mode = EXCLUSIVE")
            other.execute("BEGIN EXCLUSIVE")
            return other
        other.close()
        return None

    return prepare


def left_over_work(change):
    """Work of a window that has ended, changed afterwards."""

    def prepare(folder):
        journal = Journal(folder / "state" / "firecrest" / "unsaved", "gone")
        journal.keep(Document(project_of(read_demo("slipway")), {"a": b"1"}), None)
        journal.let_go()
        change(folder / "state" / "firecrest" / "unsaved" / "gone")

    return prepare


def saved_design(folder):
    """A design at the home."""
    write_document(folder / "x.firecrest", Document(project_of(read_demo(demo_names()[0]))))


def turkish(folder):
    """A locale in which a small i is not the small letter of I, if the system can make it."""
    command = ["localedef", "-i", "tr_TR", "-f", "UTF-8", str(folder / "tr_TR.UTF-8")]
    with contextlib.suppress(OSError):
        subprocess.run(command, capture_output=True, check=False)


def _pipe_in_place(folder):
    (folder / WORK).unlink()
    os.mkfifo(folder / WORK)


BAD_BODY = "UPDATE part SET body = '{\"kind\": 1}' WHERE id IN (SELECT id FROM part LIMIT 3)"
BAD_KIND = "UPDATE part SET kind = 'teapot' WHERE id IN (SELECT id FROM part LIMIT 3)"
LONG_ID = "UPDATE part SET id = printf('%.200c', 'x') WHERE id IN (SELECT id FROM part LIMIT 1)"


def cases():
    """Every environment."""
    return [*_surroundings(), *_stores(), *_headless_cases()]


def _surroundings():
    """What the system gives or does not give."""
    return [
        Case("as usual"),
        Case("interrupted from the terminal", end=signal.SIGINT),
        Case("terminal closed", end=signal.SIGHUP),
        Case("without assertions", python=("-O",)),
        *(Case(f"locale {name}", {"LC_ALL": name}) for name in ("C", "POSIX", "xx_YY", "C.UTF-8")),
        Case("Turkish", {"LOCPATH": "HERE", "LC_ALL": "tr_TR.UTF-8"}, prepare=turkish),
        Case("ASCII output", {"PYTHONIOENCODING": "ascii", "PYTHONUTF8": "0"}),
        Case("no HOME", {"HOME": None}),
        Case("HOME and XDG not set", dict.fromkeys(_XDG)),
        Case("no HOME and no entry for the user", dict.fromkeys(_XDG), code=NO_ENTRY),
        Case("HOME empty", {**dict.fromkeys(_XDG), "HOME": ""}),
        Case("HOME is a file", {**dict.fromkeys(_XDG), "HOME": "/dev/null"}),
        Case("XDG relative", dict.fromkeys(_XDG[1:], "somewhere/else")),
        Case("XDG below a file", dict.fromkeys(_XDG[1:], "/dev/null/x")),
        Case("TMPDIR missing", {"TMPDIR": "/nowhere/at/all"}),
        Case("PATH empty", {"PATH": ""}),
        Case("no working folder", options={"no folder": True}),
        Case("few open files", limits={resource.RLIMIT_NOFILE: 64}),
        Case("disk full from the start", limits={resource.RLIMIT_FSIZE: 0}),
        Case("disk full soon", limits={resource.RLIMIT_FSIZE: 100_000}),
        Case("mask lets all in", options={"umask": 0}),
        Case("mask lets no one in", options={"umask": 0o777}),
        Case("screen of half size", {"QT_SCALE_FACTOR": "0.5"}),
        Case("screen of three times the size", {"QT_SCALE_FACTOR": "3"}),
        Case("huge type", {"QT_FONT_DPI": "300"}),
    ]


def _stores():
    """What stands in the folders of the program, and what it is asked to open."""
    return [
        Case("settings of wrong types", prepare=settings_of(_WRONG)),
        Case("settings are a list", prepare=settings_of([1, 2])),
        Case("settings damaged", prepare=settings_of('{"theme": "da', raw=True)),
        Case("settings endless deep", prepare=settings_of("[" * 100_000, raw=True)),
        Case("settings are a folder", prepare=file_at(_SETTINGS, folder=True)),
        Case("settings are a pipe", prepare=file_at(_SETTINGS, pipe=True)),
        Case("settings pickled", prepare=file_at(_SETTINGS, b"\x80\x04\x95cos\nsystem\n.")),
        Case("shelf damaged", prepare=file_at(_SHELF, b"SQLite format 3\x00" + b"\xff" * 5000)),
        Case("shelf is a folder", prepare=file_at(_SHELF, folder=True)),
        Case("shelf newer", prepare=shelf_with("PRAGMA user_version = 99")),
        Case("shelf with bad parts", prepare=shelf_with(BAD_BODY, BAD_KIND, LONG_ID)),
        Case("shelf held by another program", prepare=shelf_with(hold=True)),
        Case("unsaved work damaged", prepare=left_over_work(lambda f: (f / WORK).write_text("{"))),
        Case("unsaved work is a pipe", prepare=left_over_work(_pipe_in_place)),
        Case("unsaved work without attachments", prepare=left_over_work(_without_attachments)),
        Case("unsaved work is a file", prepare=file_at("state/firecrest/unsaved", b"x")),
        Case("a file that is not there", arguments=("open", "HERE/none.firecrest")),
        Case("a device as file", arguments=("open", "/dev/zero")),
        Case("a pipe as file", arguments=("open", "HERE/pipe"), prepare=file_at("pipe", pipe=True)),
        Case("a file with an odd name", arguments=("open", "HERE/\udcff<b>%s&.firecrest")),
    ]


def _headless_cases():
    """Commands that need no window."""
    found = [
        Case("no display", {"QT_QPA_PLATFORM": None, "DISPLAY": None, "WAYLAND_DISPLAY": None}),
        Case("ASCII table", {"PYTHONIOENCODING": "ascii"}, _ASSESS),
        Case("ASCII JSON", {"PYTHONIOENCODING": "ascii"}, (*_ASSESS, "--json")),
        Case("Latin JSON", {"PYTHONIOENCODING": "latin-1"}, (*_ASSESS, "--json")),
        Case("locale C, no UTF-8", {"LC_ALL": "C", "PYTHONUTF8": "0", "PYTHONCOERCECLOCALE": "0"},
             _ASSESS),
        Case("output full", arguments=(*_ASSESS, "--json"), options={"stdout": _full}),
        Case("output gone", arguments=(*_ASSESS, "--json"), options={"stdout": _broken}),
        Case("no HOME, headless", dict.fromkeys(_XDG), _ASSESS),
        Case("a device, headless", arguments=("assess", "/dev/zero")),
        Case("a saved file", arguments=("assess", "HERE/x.firecrest"), prepare=saved_design),
    ]  # fmt: skip
    for case in found:
        case.headless = True
    return found


def _without_attachments(folder):
    shutil.rmtree(folder / "attachments", ignore_errors=True)


def _full():
    return open("/dev/full", "wb")  # the child writes to it


def _broken():
    reading, writing = os.pipe()
    os.close(reading)
    return writing


_XDG = ("HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_STATE_HOME")
_ASSESS = ("assess", "--demo", "slipway")
_SETTINGS = "config/firecrest/settings.json"
_SHELF = "data/firecrest/shelf.sqlite"
_WRONG = {
    "theme": 3, "stage": ["size"], "folder": {"a": 1}, "recent": "one", "window/geometry": 7,
    "splitter/size": "no base 64!", "splitter/power": [1], "units/length/mm": None, "other": 1,
    "splitter/parts": "AAAA",
}  # fmt: skip
