"""Edit, redraw, batch and start-up times: medians and ratios from one run."""

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
from firecrest.design.design import Design
from firecrest.design.edits.paths import set_number
from firecrest.files.demos import read_demo

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
batches()
start_up()
