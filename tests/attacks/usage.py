"""Attacks on the window: many windows that come and go, and one that is used for long.

Each runs in a process of its own, so that its end, of whatever kind, is seen.
"""

import gc
import json
import os
import random
import subprocess
import sys
import tempfile
import time
import traceback
from pathlib import Path

from tests.attacks.results import Result

SETTLED_S = 120.0
SAMPLE_S = 10.0
FLAT = {"memory": 1.10, "widgets": 1.10, "threads": 1.0, "descriptors": 1.10}
"""How much more than after settling may be there at the end."""


def cycles(seed, count, seconds):
    """Windows are opened, used while parts are chosen, and dropped in every way there is."""
    return _in_a_process("cycles", seed, count, seconds)


def soak(seed, count, seconds):
    """One window is used; what it holds stays flat after two minutes."""
    return _in_a_process("soak", seed, count, seconds)


def driver(seed, count, seconds):
    """One person after another acts on one design, and takes everything back."""
    return _in_a_process("driver", seed, count, seconds)


def _in_a_process(name, seed, count, seconds):
    result = Result(name, count, seconds)
    with tempfile.TemporaryDirectory() as folder:
        homes = {f"XDG_{n}_HOME": f"{folder}/{n}" for n in ("CONFIG", "DATA", "STATE")}
        process = subprocess.run(
            [sys.executable, "-X", "faulthandler", "-m", __name__, name, str(seed), str(count),
             str(seconds), folder],
            env={**os.environ, **homes, "QT_QPA_PLATFORM": "offscreen"},
            capture_output=True, text=True, check=False, timeout=seconds + 120,
        )  # fmt: skip
    for line in process.stdout.splitlines():
        told = json.loads(line)
        result.tried = told.get("tried", result.tried)
        result.facts |= told.get("facts", {})
        if "failed" in told:
            result.fail(told["failed"])
    if process.returncode:
        last = process.stderr.strip().splitlines()[-30:]
        result.fail(f"the process ended with status {process.returncode}: {' | '.join(last)}")
    return result


def tell(**what):
    """One line for the attacker."""
    print(json.dumps(what), flush=True)


class Troubles:
    """Errors that nobody caught, and what Qt complains of."""

    def __init__(self):
        from PySide6.QtCore import QtMsgType, qInstallMessageHandler

        grave = (QtMsgType.QtCriticalMsg, QtMsgType.QtFatalMsg, QtMsgType.QtWarningMsg)
        self.where, self.told = "", set()
        sys.excepthook = self._hook
        qInstallMessageHandler(lambda kind, _, text: kind in grave and self.add(f"Qt: {text}"))

    def _hook(self, kind, error, trace):
        frames = traceback.extract_tb(trace)[-3:]
        places = " ".join(f"{Path(f.filename).name}:{f.lineno}" for f in frames)
        self.add(f"{kind.__name__}: {error!s:.100} ({places})")

    def add(self, text):
        """Tell a trouble the first time it comes."""
        if text not in self.told and "propagateSizeHints" not in text:
            self.told.add(text)
            tell(failed=f"{self.where}: {text}")


def _run_cycles(seed, count, seconds, folder):
    from PySide6.QtTest import QTest

    from firecrest.app.session import Session
    from firecrest.app.start import make_application, make_window
    from firecrest.files.demos import demo_names, read_demo
    from tests.attacks.person import Person

    application, troubles = make_application(), Troubles()
    end, number, names = time.monotonic() + seconds, 0, demo_names()
    while number < count and time.monotonic() < end:
        dice = random.Random(f"{seed} {number}")
        troubles.where = f"cycle {seed} {number}"
        for _ in range(3):
            session = Session(read_demo(dice.choice(names)))
            session.edit_number(("box", "case", "wall"), 0.01)
            session.itself = session
        window = make_window(read_demo(dice.choice(names)))
        window.messages = Silent()
        window.show()
        window.show_stage("parts")
        QTest.qWait(dice.choice((0, 200, 400)))
        person = Person(window, dice, folder)
        for _ in range(dice.randrange(12)):
            person.act()
        window.itself = window
        way = dice.choice(("close", "delete later", "both", "drop"))
        if way in ("close", "both"):
            window.close()
        if way in ("delete later", "both"):
            window.deleteLater()
        del window, person, session
        if dice.random() < 0.3:
            gc.collect()
        QTest.qWait(0)
        number += 1
        tell(tried=number)
    assert not gc.isenabled()
    assert application is not None


ACTS = 100
"""Of one person of the driver."""
EDITING = ("do_edit", "do_drag", "do_type", "do_way", "do_button", "do_row")
"""Every other act of the driver changes something."""
NOT_OF_ONE_DESIGN = ("do_open", "do_demo", "do_random_design", "do_undo", "do_redo")


def _run_driver(seed, count, seconds, folder):
    from PySide6.QtWidgets import QApplication

    from firecrest.app.start import make_application, make_window
    from firecrest.design.project import project_of
    from firecrest.files.container import Document
    from firecrest.files.demos import read_demo
    from tests.attacks.person import Person

    make_application()
    troubles, window = Troubles(), make_window(read_demo("slipway"))
    window.messages = Silent()
    window.show()
    session, began, tried, steps = window.session, time.monotonic(), 0, 0
    while tried < count and time.monotonic() - began < seconds:
        dice = random.Random(f"{seed} {tried}")
        person = Person(window, dice, folder)
        acts = [n for n in person.acts() if n not in NOT_OF_ONE_DESIGN]
        first = dice.choice(person.bases)
        session.start(Document(project_of(first)), None)
        for k in range(ACTS):
            name = dice.choice(acts if dice.random() < 0.5 else EDITING)
            troubles.where = f"person {seed} {tried}, act {k} {name}"
            getattr(person, name)()
            if window.isActiveWindow() and QApplication.focusWidget() is None:
                troubles.add(f"the keyboard is nowhere after {name}")
        session.drop_typed()
        steps += len(session.history.past)
        while session.history.past:
            session.undo()
        if session.design != first:
            troubles.add("undo does not lead back to the first design")
        tried += 1
        tell(tried=tried, facts={"steps taken back": str(steps)})
    window.close()


def _run_soak(seed, count, seconds, folder):
    from firecrest.app.start import make_application, make_window
    from firecrest.files.demos import read_demo
    from tests.attacks.person import Person, footprint

    make_application()
    troubles = Troubles()
    window = make_window(read_demo("slipway"))
    window.messages = Silent()
    window.show()
    _fill_caches()
    person = Person(window, random.Random(f"{seed}"), folder)
    began = sampled = time.monotonic()
    settled, last, acts = None, None, 0
    while acts < count and time.monotonic() - began < seconds:
        troubles.where = f"act {acts}"
        troubles.where = f"act {acts} {person.act()}"
        acts += 1
        if time.monotonic() - sampled > SAMPLE_S:
            sampled, last = time.monotonic(), _at_rest(window, footprint)
            tell(tried=acts)
            print(f"{sampled - began:.0f} s {acts} {last}", file=sys.stderr)
            if settled is None and sampled - began > min(SETTLED_S, seconds / 3):
                settled = last
    last = _at_rest(window, footprint)
    tell(tried=acts, facts={k: f"{settled[k]:.0f} → {v:.0f}" for k, v in last.items() if settled})
    for key, share in FLAT.items():
        if settled and last[key] > settled[key] * share:
            tell(failed=f"{key} grew from {settled[key]:.0f} to {last[key]:.0f}")
    window.close()


def _fill_caches():
    """Pictures that are kept, up to a bound, are no leak: all patterns of both themes are made."""
    import scipy.signal  # noqa: F401  # Bessel filters load it when the first one is met

    from firecrest.app.theme.tokens import DARK, LIGHT, TINTS
    from firecrest.app.widgets.patterns import limit_brush, pattern_tile
    from firecrest.core.limits.kinds import KINDS

    for theme, shade in ((LIGHT, "light"), (DARK, "dark")):
        for kind in KINDS:
            limit_brush(kind.code, *getattr(TINTS[kind.tint], shade), 1.0)
        pattern_tile("hatch", theme["flame"], theme["yolk"], 1.0)


def _at_rest(window, footprint):
    """The footprint with the same on show each time, and nothing left to collect."""
    from PySide6.QtTest import QTest

    from firecrest.assessment.memo import KEPT
    from firecrest.design.project import project_of
    from firecrest.files.container import Document
    from firecrest.files.demos import read_demo

    session = window.session
    session.start(Document(project_of(read_demo("slipway"))), None)
    for step in range(KEPT + 1):  # what stages remember of the designs before gives way
        session.edit_number(("box", "case", "depth"), 0.17 + 1e-3 * step)
        session.edit_number(("power", "source", "series"), 3 + step % 3)
        session.edit_number(("voice", "channels", 0, "gain"), float(-step))
    session.start(Document(project_of(read_demo("slipway"))), None)
    window.choose_theme("light")
    for key in ("promise", "parts", "size", "power", "voice"):
        window.show_stage(key)
        QTest.qWait(20)
    QTest.qWait(200)
    gc.collect()
    return footprint()


class Silent:
    """Answers every question by itself."""

    def __getattr__(self, name):
        return lambda *_: {"keep_changes": "drop", "changed_elsewhere": "over"}.get(name)


if __name__ == "__main__":
    which, first, most, time_s, place = sys.argv[1:]
    run = {"cycles": _run_cycles, "driver": _run_driver, "soak": _run_soak}[which]
    run(int(first), int(most), float(time_s), Path(place))
