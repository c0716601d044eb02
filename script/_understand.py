"""Doubt, moves and maps, measured: how long they take, and how good the first move is."""

import random
import time
from collections.abc import Callable

import numpy as np
from PySide6.QtCore import QTimer
from PySide6.QtTest import QTest

from firecrest.app.start import make_window
from firecrest.assessment.assess import assess
from firecrest.assessment.doubt.doubt import doubt_of
from firecrest.assessment.worth import worst_must
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.design.edits.paths import set_number, value_at
from firecrest.files.demos import demo_names, read_demo
from firecrest.proposals.mapping import axes_of, maps
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.ranking import FIRST, every, pairs, telling, told_of
from firecrest.proposals.placing import put
from firecrest.shelf.stock import shipped_entries

DESIGNS = 200
SETTLE_MS = 2500


def best_of(work: Callable[[], object], times: int) -> float:
    """Shortest of several runs, ms."""
    found = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        found.append(time.perf_counter() - start)
    return 1e3 * min(found)


def shelf_parts() -> dict[str, list[object]]:
    """The shipped parts by kind."""
    found: dict[str, list[object]] = {}
    for entry in shipped_entries():
        found.setdefault(entry.kind, []).append(entry.part)
    return found


def understanding() -> float:
    """Doubt, moves and maps of every demo on one core; ms of Slipway's doubt over 60."""
    parts, slipway = shelf_parts(), 0.0
    doubt_of(read_demo("slipway"))
    for name in demo_names():
        design = read_demo(name)
        doubt = best_of(lambda d=design: doubt_of(d), 5)  # type: ignore[misc]
        scene = Scene(assess(design), parts)
        moves = best_of(lambda s=scene: pairs(s, telling(s)), 2)  # type: ignore[misc]
        keys = axes_of(design)
        both = ("air", "tuning") if "tuning" in keys else ("air", keys[1])
        steps, start = [], time.perf_counter()
        for _ in maps(design, *both):
            steps.append(1e3 * (time.perf_counter() - start))
            start = time.perf_counter()
        slipway = doubt if name == "slipway" else slipway
        print(
            f"{name:20} doubt {doubt:6.0f} ms, moves {moves:6.0f} ms, "
            f"map {steps[0]:6.0f} ms, refined in {steps[1]:6.0f} ms more"
        )
    return slipway / 60


def gaps() -> float:
    """Longest time the window's loop stands still while advice is worked out, over 30 ms."""
    window = make_window(read_demo("slipway"))
    window.show()
    window.show_stage("size")
    QTest.qWait(2 * SETTLE_MS)
    found, last = [0.0], [time.perf_counter()]

    def _tick() -> None:
        now = time.perf_counter()
        found.append(1e3 * (now - last[0]))
        last[0] = now

    timer = QTimer()
    timer.timeout.connect(_tick)
    path = ("box", "openings", 0, "added_mass")
    mass = value_at(window.session.design, path)
    worst = []
    for k in range(5):
        window.session.edit_number(path, mass * (1 + 0.02 * (k + 1)))
        QTest.qWait(120)  # the edit's own drawing
        found[:], last[0] = [0.0], time.perf_counter()
        timer.start(0)
        QTest.qWait(SETTLE_MS)
        timer.stop()
        worst.append(max(found))
    window.doubting.stop()
    window.side.stop()
    window.session.close()
    window.hide()
    print(f"longest gap while doubt, moves and what makes doubt arrive: {sorted(worst)[2]:.0f} ms")
    return sorted(worst)[2] / 30


def first_moves() -> float:
    """The first move against the best of all moves, on random designs; the least share of any.

    What ends a danger, or mends what cannot be built, is told before and is not counted.
    """
    parts, hand, shares, kinds = shelf_parts(), random.Random(7), [], set()
    for design in _random_designs(parts, hand):
        scene = Scene(assess(design), parts)
        found = every(scene)
        sound = [o for o in found if not o.breaks and not o.proposal.asks_less]
        most = max((o.gain for o in sound), default=0.0)
        kinds |= {o.proposal.kind for o in found}
        told = [o for o in told_of(scene, found) if o.proposal.kind not in FIRST]
        if most > 0.05 and told and np.isfinite(most):
            now = worst_must(scene.assessment.promises)
            gain = worst_must(assess(told[0].proposal.design).promises) - now
            shares.append(gain / most)
    good = sum(share >= 0.8 for share in shares)
    print(
        f"first move against the best single one: {len(shares)} of {DESIGNS} designs have one; at "
        f"least 80 % in {good}, least {min(shares):.2f}, median {np.median(shares):.2f}; "
        f"{len(kinds)} kinds"
    )
    return min(shares)


def _random_designs(parts: dict[str, list[object]], hand: random.Random) -> list[Design]:
    """Demos with other promises, parts and sizes."""
    names, found = [*demo_names(), "untitled"], []
    while len(found) < DESIGNS:
        design = read_demo(hand.choice(names))
        level = design.brief.loudness.level + hand.uniform(-1, 8)
        try:
            design = set_number(design, ("brief", "loudness", "level"), level)
            case = ("box", "case", hand.choice(("length", "height", "depth")))
            design = set_number(design, case, value_at(design, case) * hand.uniform(0.85, 1.2))
            if hand.random() < 0.4:
                design = put(design, hand.choice(parts["driver"]))
            assess(design)
        except FirecrestError:
            continue
        found.append(design)
    return found
