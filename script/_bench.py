"""Edit, redraw, batch and start-up times: medians and ratios from one run."""

import dataclasses
import os
import platform
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable

os.environ["XDG_CONFIG_HOME"] = tempfile.mkdtemp()
os.environ["XDG_STATE_HOME"] = tempfile.mkdtemp()
os.environ["XDG_DATA_HOME"] = tempfile.mkdtemp()

import numpy as np

from firecrest.app.start import make_application, make_window
from firecrest.assessment.assess import assess
from firecrest.assessment.batch import assess_batch
from firecrest.assessment.layouts import with_kind, with_layout
from firecrest.assessment.placing import put
from firecrest.design.design import Design
from firecrest.design.edits.paths import set_number
from firecrest.files.container import Document
from firecrest.files.demos import read_demo
from firecrest.search.choose import Candidate, choose
from firecrest.shelf.entry import Entry, made_entry
from firecrest.shelf.query import parse_query, select
from firecrest.shelf.stock import shipped_entries
from firecrest.shelf.store import Shelf

FRAME = 1000 / 60
EMPTY = """
import sys, time
from PySide6.QtWidgets import QApplication, QMainWindow
import pyqtgraph
a = QApplication(sys.argv); w = QMainWindow(); w.setCentralWidget(pyqtgraph.PlotWidget())
w.resize(1280, 800); w.show(); a.processEvents(); a.processEvents()
"""
OURS = """
import sys
from firecrest.app.start import make_application, make_window
from firecrest.files.demos import read_demo
a = make_application(); w = make_window(read_demo("slipway"))
w.show(); a.processEvents(); a.processEvents()
"""


def timings(work: Callable[[int], object], times: int) -> list[float]:
    """Times of ``work(k)`` in ms."""
    taken = []
    for k in range(times):
        start = time.perf_counter()
        work(k)
        taken.append(1000 * (time.perf_counter() - start))
    return taken


def milliseconds(work: Callable[[int], object], times: int) -> float:
    """Median time of ``work(k)`` in ms."""
    return statistics.median(timings(work, times))


def designs(count: int) -> list[Design]:
    """Slipway with other depths and added masses."""
    base = read_demo("slipway")
    made = []
    for k in range(count):
        deeper = set_number(base, ("box", "case", "depth"), 0.15 + 2e-4 * k)
        made.append(set_number(deeper, ("box", "radiators", 0, "added_mass"), 0.01 + 1e-4 * k))
    return made


def edits() -> None:
    """One edit of each branch to its assessment."""
    base = read_demo("slipway")
    assess(base)
    for name, path, value in (
        ("depth of the case", ("box", "case", "depth"), 0.18),
        ("added mass", ("box", "radiators", 0, "added_mass"), 0.02),
        ("filter gain", ("voice", "channels", 0, "blocks", 1, "gain"), 3.0),
        ("cells in series", ("power", "source", "lead_resistance"), 0.02),
        ("loudness target", ("brief", "loudness", "level"), 95.0),
        ("cost target", ("brief", "cost", "price"), 300.0),
    ):
        ms = milliseconds(
            lambda k, p=path, v=value: assess(set_number(base, p, v * (1 + 1e-4 * k))), 60
        )
        print(f"edit to assessment, {name:18} {ms:7.2f} ms  {ms / FRAME:5.0%} of a 60 Hz frame")


def redraw() -> None:
    """One edit to a drawn window, on the Size stage."""
    application = make_application()
    window = make_window(read_demo("slipway"))
    window.show()
    window.show_stage("size")
    application.processEvents()
    path = ("box", "radiators", 0, "added_mass")

    def whole(k: int) -> None:
        window.session.edit_number(path, 0.02 + 1e-5 * k, fold="bench")
        window.grab()

    def drawing(_: int) -> None:
        window.session.changed.emit()
        window.grab()

    ms_whole, ms_draw = milliseconds(whole, 40), milliseconds(drawing, 40)
    ms_grab = milliseconds(lambda _: window.grab(), 20)
    application.processEvents()

    def partial(k: int) -> None:
        window.session.edit_number(path, 0.03 + 1e-5 * k, fold="bench")
        application.processEvents()

    taken = timings(partial, 60)
    ms_shown, best = statistics.median(taken), min(taken)
    print(
        f"edit, assessed and repainted   {ms_shown:7.2f} ms  {ms_shown / FRAME:5.0%} of a frame, "
        f"best {best:.2f} ms"
    )
    print(
        f"edit and whole window rendered {ms_whole:7.2f} ms, without assessing {ms_draw:.2f} ms, "
        f"rendering alone {ms_grab:.2f} ms"
    )


HANDLES = (
    ("boathouse-radiators", ("box", "radiators", 0, "added_mass"), 0.2, 1e-5),
    ("boathouse-radiators", ("box", "case", "depth"), 0.42, 1e-5),
    ("breakwater", ("box", "ports", 0, "length"), 0.3, 1e-5),
    ("breakwater", ("box", "case", "depth"), 0.25, 1e-5),
    ("sixth", ("box", "ports", 0, "length"), 0.2, 1e-5),
    ("sixth", ("box", "chambers", 1, "leak_q"), 9.0, 1e-3),
)


def drags() -> None:
    """Handles of the Size stage dragged: each move assessed and drawn before the next one."""
    application = make_application()
    sixth = with_layout(read_demo("boathouse-bandpass"), "bandpass6")
    window = make_window(sixth)
    window.show()
    window.show_stage("size")
    for name, path, value, step in HANDLES:
        design = sixth if name == "sixth" else read_demo(name)
        window.session.start(Document(design), None)
        for _ in range(20):
            application.processEvents()

        moved = [set_number(design, path, value + step * k) for k in range(130)]

        def move(k: int, moved: list[Design] = moved) -> None:
            window.session.apply("bench", moved[k], fold="bench")
            application.processEvents()

        timings(move, 10)
        taken = timings(lambda k, move=move: move(k + 10), 80)  # type: ignore[misc]
        alone = milliseconds(lambda k, moved=moved: assess(moved[k + 90]), 40)  # type: ignore[misc]
        ms, best = statistics.median(taken), min(taken)
        slow = sorted(taken)[int(0.9 * len(taken))]
        what = ".".join(str(p) for p in path[1:])
        print(
            f"drag, {name:20} {what:24} {ms:6.1f} ms a move, {ms / FRAME:4.0%} of a frame "
            f"(best {best / FRAME:4.0%}, 9 in 10 under {slow / FRAME:4.0%}), {ms / alone:.1f} x "
            "its assessment"
        )


def batches() -> None:
    """256 designs at 160 frequencies, together and one at a time, beside a plain NumPy pass."""
    made = designs(256)
    grid = np.geomspace(10, 1000, 160)
    assess_batch(made[:4], grid)
    one = milliseconds(lambda k: assess(made[k]), 100)
    together = milliseconds(lambda _: assess_batch(made, grid), 3) / 256
    values = np.random.default_rng(1).random((256, 160)) + 1j
    plain = milliseconds(lambda _: np.abs(values * values + 1.0), 50) / 256
    print(
        f"one at a time {1000 / one:7.0f} assessments/s; batched {1000 / together:7.0f}/s: "
        f"{one / together:.1f} x; a plain NumPy pass over 256 x 160 takes 1/"
        f"{together / plain:.0f} of a batch"
    )


def many_drivers(count: int) -> list[Entry]:
    """Made-up drivers between the shipped ones."""
    parts = [
        e.part
        for e in shipped_entries()
        if e.kind == "driver" and e.part.sd is not None and "tweeter" not in e.part.kind
    ]
    return [
        made_entry(
            "driver",
            dataclasses.replace(
                parts[k % len(parts)],
                name=f"{parts[k % len(parts)].name} {k}",
                xmax=parts[k % len(parts)].xmax * (0.8 + 0.4 * (k % 97) / 97),
                price=5.0 + k % 90,
            ),
        )
        for k in range(count)
    ]


def choosing() -> None:
    """500 candidates as they are, and each at the best of 16 tunings, beside one at a time."""
    base = read_demo("slipway")
    found = [Candidate(e.id, e.part) for e in many_drivers(500)]
    designs = [put(base, c.part) for c in found[:60]]
    one = milliseconds(lambda k: assess(designs[k % 60]), 120)
    for name, design in (("radiators", base), ("port", with_kind(base, "port"))):
        plain = milliseconds(lambda _, d=design: list(choose(d, found)), 3)
        tuned = milliseconds(lambda _, d=design: list(choose(d, found, retune=True)), 3)
        print(
            f"choosing, {name:9}: 500 as they are {plain:6.0f} ms; x 16 tunings (and two finer "
            f"passes) {tuned:6.0f} ms, 1/{500 * 16 * one / tuned:.0f} of one at a time"
        )


def searching() -> None:
    """A search typed letter by letter over 5,000 parts: below the window and in it."""
    shelf = Shelf()
    shelf.add_all(many_drivers(5000), "bench")
    text = "hornbeam w13, under €40"
    entries = list(shelf.entries().values())

    def letter(k: int) -> object:
        return select(entries, parse_query(text[: 1 + k % len(text)]), kind="driver")

    plain = milliseconds(lambda _: [t for t in entries if "w13" in t.words], 20)
    below = milliseconds(letter, 3 * len(text))
    symbols = milliseconds(lambda _: select(entries, parse_query("fs 40 to 60")), 5)
    reread = milliseconds(lambda _: Shelf(shelf.path).entries(), 5)
    shelf.close()
    application = make_application()
    window = make_window(read_demo("slipway"))
    window.show()
    window.show_stage("parts")
    application.processEvents()
    panel = window.stage.shelf
    panel._choose_view("figures")
    search = panel.bar.search

    def typed(k: int) -> None:
        search.setText(text[: 1 + k % len(text)])
        application.processEvents()

    shown = statistics.median(timings(typed, 2 * len(text)))
    print(
        f"search over 5,000 parts: a letter {below:5.1f} ms below the window, {shown:5.1f} ms to "
        f"the drawn table ({shown / FRAME:.1f} frames); {below / plain:.1f} x a plain pass over "
        f"the words; by a figure that follows {symbols:.0f} ms; reading the shelf {reread:.0f} ms"
    )
    window.session.close()


def start_up() -> None:
    """Start to a shown window, against an empty program with the same libraries."""

    def run(code: str) -> Callable[[int], object]:
        return lambda _: subprocess.run([sys.executable, "-c", code], check=True)

    run(OURS)(0)
    empty, ours = milliseconds(run(EMPTY), 5), milliseconds(run(OURS), 5)
    print(
        f"start to usable window {ours:6.0f} ms, empty program {empty:6.0f} ms: "
        f"{ours / empty:.2f} x"
    )


print(
    f"{platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}, "
    f"NumPy {np.__version__}"
)
edits()
redraw()
drags()
batches()
choosing()
searching()
start_up()
