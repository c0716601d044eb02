"""Edits, drags, many designs at once, choosing, searching and start: ratios measured in one run.

``_bench.py [PART ...]``; each part ends with a line ``PART RATIO``.
"""

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
from firecrest.app.work import workshop
from firecrest.assessment.assess import assess
from firecrest.assessment.memo import Memo
from firecrest.assessment.vary import vary
from firecrest.assessment.voicing.flattening import Wish, flattening
from firecrest.assessment.voicing.lining import line_up
from firecrest.core.memory import keep_freed
from firecrest.core.parallel import use_all_cores
from firecrest.core.voice.equaliser import Bounds, equalise
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import moved as placed_at
from firecrest.design.edits.paths import set_number, value_at
from firecrest.design.edits.voice import add_block as with_voice
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import demo_names, read_demo
from firecrest.proposals.layouts import with_kind, with_layout
from firecrest.proposals.placing import put
from firecrest.proposals.siting import placed_all
from firecrest.search.choose import Candidate, choose
from firecrest.shelf.entry import Entry, made_entry
from firecrest.shelf.query import matching, of_kind, parse_query
from firecrest.shelf.stock import shipped_entries
from firecrest.shelf.store import Shelf

sys.path.insert(0, os.path.dirname(__file__))
from _kernel import FREQUENCY
from _kernel import rate as kernel_rate
from _understand import first_moves, gaps, understanding

FRAME = 1000 / 60
PACK, CONE = ("power", "source", "mount"), ("box", "groups", 0, "mounts", 0)
EMPTY = """
import sys, time
from PySide6.QtWidgets import QApplication, QMainWindow, QWidget
import numpy, pydantic.dataclasses
a = QApplication(sys.argv); w = QMainWindow(); w.setCentralWidget(QWidget())
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


def edits() -> None:
    """One edit to its assessment: of each branch of Slipway, and of the case of every demo."""
    slowest = 0.0
    for name, path, step in (
        *(("slipway", path, step) for path, step in BRANCHES),
        *((name, ("box", "case", "depth"), 1e-4) for name in demo_names()),
    ):
        base, memo = read_demo(name), Memo()
        assess(base, memo)
        value = value_at(base, path)
        made = [set_number(base, path, value * (1 + step * k)) for k in range(1, 81)]
        ms = milliseconds(lambda k, made=made, memo=memo: assess(made[k], memo), 80)  # type: ignore[misc]
        slowest = max(slowest, ms)
        print(f"edit to assessment, {name:20} {'.'.join(map(str, path[1:])):24} {ms:6.2f} ms")
    ratio("edit", slowest / FRAME)


BRANCHES = (
    (("box", "openings", 0, "added_mass"), 1e-4),
    (("voice", "channels", 0, "blocks", 1, "gain"), 1e-4),
    (("power", "lead", "contacts"), 1e-4),
    (("brief", "loudness", "level"), 1e-5),
    (("brief", "cost", "price"), 1e-4),
)


def ratio(name: str, value: float) -> None:
    """The last line of a part."""
    print(f"{name} {value:.3g}")


HANDLES = (
    ("boathouse-radiators", ("box", "openings", 0, "added_mass"), 0.2, 1e-5),
    ("boathouse-radiators", ("box", "case", "depth"), 0.42, 1e-5),
    ("breakwater", ("box", "openings", 0, "length"), 0.3, 1e-5),
    ("breakwater", ("box", "case", "depth"), 0.25, 1e-5),
    ("sixth", ("box", "openings", 0, "length"), 0.2, 1e-5),
    ("sixth", ("box", "chambers", 1, "leak_q"), 9.0, 1e-3),
    ("slipway", ("power", "source", "cell", "capacity"), 14400.0, 1.0),
    ("slipway", ("power", "other_loads", 0, "power"), 3.2, 1e-3),
    ("slipway", ("brief", "runtime", "level"), 85.0, 1e-3),
)


def drags() -> None:
    """Handles of Size, figures of Power dragged: each move assessed and drawn before the next."""
    application = make_application()
    sixth = with_layout(read_demo("boathouse-bandpass"), "bandpass6")
    window = make_window(sixth)
    window.show()
    slowest = 0.0
    for name, path, value, step in HANDLES:
        design = sixth if name == "sixth" else read_demo(name)
        window.session.start(Document(project_of(design)), None)
        window.show_stage("power" if path[0] != "box" else "size")
        for _ in range(20):
            application.processEvents()

        moved = [set_number(design, path, value + step * k) for k in range(130)]

        def move(k: int, moved: list[Design] = moved) -> None:
            window.session.apply("bench", moved[k], fold="bench")
            application.processEvents()

        timings(move, 10)
        taken = timings(lambda k, move=move: move(k + 10), 80)  # type: ignore[misc]
        memo = Memo()
        alone = milliseconds(
            lambda k, moved=moved, memo=memo: assess(moved[k + 90], memo),  # type: ignore[misc]
            40,
        )
        ms, best = statistics.median(taken), min(taken)
        slow = sorted(taken)[int(0.9 * len(taken))]
        what = ".".join(str(p) for p in path[1:])
        print(
            f"drag, {name:20} {what:24} {ms:6.1f} ms a move, {ms / FRAME:4.0%} of a frame "
            f"(best {best / FRAME:4.0%}, 9 in 10 under {slow / FRAME:4.0%}), {ms / alone:.1f} x "
            "its assessment"
        )
        slowest = max(slowest, ms)
    ratio("drag", slowest / FRAME)


def varying() -> None:
    """Slipway with five figures varied: all limits and promises, beside a fused kernel.

    The kernel is of the same kind of box, four limits, without voice, programme, runtime, promises.
    """
    base, draw = read_demo("slipway"), np.random.default_rng(0)
    group = ("box", "groups", 0, "driver")
    spans = {
        ("box", "case", "depth"): (0.15, 0.20),
        ("box", "openings", 0, "added_mass"): (0.01, 0.05),
        (*group, "constants", "m_ms"): (0.009, 0.011),
        (*group, "constants", "bl"): (4.0, 5.0),
        (*group, "xmax"): (0.003, 0.005),
    }
    share = 0.0
    for count, times in ((256, 20), (4096, 5)):
        columns = {path: draw.uniform(*span, count) for path, span in spans.items()}
        vary(base, columns, FREQUENCY)
        ours = count / min(timings(lambda _, c=columns: vary(base, c, FREQUENCY), times)) * 1e3  # type: ignore[misc]
        kernel = max(kernel_rate(count) for _ in range(5))
        share = ours / kernel
        print(
            f"{count:5d} designs x {len(FREQUENCY)} frequencies: {ours:8.0f} designs/s with all "
            f"promises; fused kernel {kernel:8.0f}/s: {share:.2f}"
        )
    ratio("vary", share)


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
    ratio("choose", tuned / (500 * 16 * one))


def searching() -> None:
    """A search typed letter by letter over 20,000 parts: below the window and in it."""
    shelf = Shelf()
    shelf.add_all(many_drivers(20_000), "bench")
    text = "hornbeam w13, under €40"
    entries = list(shelf.entries().values())
    drivers = of_kind(entries, "driver", archived=False)

    def letter(k: int) -> object:
        return matching(drivers, parse_query(text[: 1 + k % len(text)]))

    plain = milliseconds(lambda _: [t for t in entries if "w13" in t.words], 20)
    below = milliseconds(letter, 3 * len(text))
    symbols = milliseconds(lambda _: matching(entries, parse_query("fs 40 to 60")), 5)
    reread = milliseconds(lambda _: Shelf(shelf.path).entries(), 5)
    shelf.close()
    application = make_application()
    window = make_window(read_demo("slipway"))
    window.show()
    window.show_stage("parts")
    application.processEvents()
    panel = window.stage.shelf
    panel._choose_view("figures")
    workshop.close()  # what was begun for the other view takes both cores
    search = panel.bar.search

    def typed(k: int) -> None:
        search.setText(text[: 1 + k % len(text)])
        application.processEvents()

    shown = statistics.median(timings(typed, 2 * len(text)))
    print(
        f"search over 20,000 parts: a letter {below:5.1f} ms below the window, {shown:5.1f} ms to "
        f"the drawn table ({shown / FRAME:.1f} frames); {below / plain:.1f} x a plain pass over "
        f"the words; by a figure that follows {symbols:.0f} ms; reading the shelf {reread:.0f} ms"
    )
    window.session.close()
    workshop.close()
    ratio("search", shown / FRAME)


def start_up() -> None:
    """Start to a shown window, against an empty program with the same libraries."""

    def run(code: str) -> Callable[[int], object]:
        return lambda _: subprocess.run([sys.executable, "-c", code], check=True)

    os.environ["XDG_DATA_HOME"] = tempfile.mkdtemp()  # not the shelf of the search
    run(OURS)(0)  # compiles what is not compiled yet
    empty, ours = milliseconds(run(EMPTY), 5), milliseconds(run(OURS), 5)
    print(
        f"start to usable window {ours:6.0f} ms, empty program {empty:6.0f} ms: "
        f"{ours / empty:.2f} x"
    )
    ratio("start", ours / empty)


def gaps_in_window() -> float:
    """``gaps`` with an application."""
    make_application()
    return gaps()


def voicing() -> None:
    """A handle dragged on a three-way, each move drawn; ten bands found; the ways lined up."""
    application = make_application()
    design = with_voice(read_demo("headland"), 0, "parametric")[1]
    window = make_window(design)
    window.show()
    window.show_stage("voice")
    for _ in range(20):
        application.processEvents()
    path = ("voice", "channels", 0, "blocks", 2, "gain")
    moved = [set_number(design, path, 0.05 * k) for k in range(100)]

    def move(k: int) -> None:
        window.session.apply("bench", moved[k], fold="bench")
        application.processEvents()

    timings(move, 10)
    taken = timings(lambda k: move(k + 10), 80)
    ms, best = statistics.median(taken), min(taken)
    print(
        f"drag of a band, three ways  {ms:6.1f} ms a move, {ms / FRAME:4.0%} of a frame (best "
        f"{best / FRAME:4.0%})"
    )
    a = window.session.assessment
    lining = milliseconds(lambda _: line_up(a, a.acoustic), 5)
    print(f"three ways lined up         {lining:6.1f} ms")
    wish = Wish(None, "axis", "flat", Bounds((60.0, 14e3)), 10)
    task = flattening(a, a.acoustic, wish).task
    bands = milliseconds(lambda _: list(equalise(task, 10)), 3)
    print(f"ten bands found             {bands:6.1f} ms")
    ratio("voice", ms / FRAME)


def cabinet() -> None:
    """A pack and a driver dragged in the drawing of Slipway: distances, ledger, promises follow."""
    application = make_application()
    design = placed_all(read_demo("slipway"))
    window = make_window(design)
    window.show()
    window.show_stage("cabinet")
    for _ in range(20):
        application.processEvents()
    slowest = 0.0
    for what, path in (("pack", PACK), ("driver", CONE)):
        mount = value_at(design, path)
        steps = [placed_at(design, path, mount.u + 5e-4 * k, mount.v) for k in range(60)]

        def move(k: int, steps: list[Design] = steps) -> None:
            window.session.apply("bench", steps[k], fold="bench")
            application.processEvents()

        timings(move, 10)
        taken = timings(lambda k, move=move: move(k + 10), 45)  # type: ignore[misc]
        ms, best = statistics.median(taken), min(taken)
        print(
            f"drag of a {what:6} in the drawing  {ms:6.1f} ms a move, {ms / FRAME:4.0%} of a frame "
            f"(best {best / FRAME:4.0%})"
        )
        slowest = max(slowest, ms)
    ratio("cabinet", slowest / FRAME)


PARTS = {
    "voice": voicing,
    "cabinet": cabinet,
    "edit": edits,
    "drag": drags,
    "vary": varying,
    "choose": choosing,
    "search": searching,
    "understand": lambda: ratio("understand", understanding()),
    "gaps": lambda: ratio("gaps", gaps_in_window()),
    "moves": lambda: ratio("moves", first_moves()),
    "start": start_up,
}


asked = sys.argv[1:] or list(PARTS)
if not set(asked) <= set(PARTS):
    sys.exit(f"there is no such part; there are: {' '.join(PARTS)}")
print(
    f"{platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}, "
    f"NumPy {np.__version__}"
)
use_all_cores()  # as the child processes do that choosing and advice run in
keep_freed()
for part in asked:
    PARTS[part]()
