"""Attack: whatever may be asked of a design is done, or refused in words; advice never fails."""

import random
import warnings
from typing import get_args

from firecrest.assessment.assess import assess
from firecrest.assessment.doubt.doubt import doubt_of
from firecrest.assessment.protection import protected
from firecrest.assessment.voicing.crossing import crossing
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.assessment.voicing.flattening import Wish, flattening
from firecrest.assessment.voicing.guarding import guards
from firecrest.assessment.voicing.lining import line_up
from firecrest.core.errors import FirecrestError
from firecrest.core.voice.equaliser import Bounds
from firecrest.design.design import Design
from firecrest.design.edits.paths import set_number, value_at
from firecrest.files.demos import demo_names, read_demo
from firecrest.proposals import (
    adding,
    kits,
    layouts,
    mapping,
    placing,
    shaping,
    siting,
    sizing,
    ways,
)
from firecrest.proposals.holding import with_opening
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.ranking import KINDS, pairs, telling
from firecrest.proposals.turning import turned
from firecrest.shelf.stock import shipped_entries
from tests.attacks.editing import edits
from tests.attacks.random_designs import random_design
from tests.attacks.results import Result, mistake

WISH = Wish(None, "axis", "flat", Bounds((40.0, 300.0)), 4)
FITTINGS = ("terminal", "handle", "knob", "plate")


def attack(seed, count, seconds):
    """Every proposal of random designs, half of them such as people make of the demos."""
    result = Result("proposals", count, seconds)
    bases = [read_demo(name) for name in demo_names()]
    entries = shipped_entries()
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        for number in result.rounds():
            hand = random.Random(f"{seed} {number}")
            usual = number % 2 == 1
            design = hand.choice(bases) if usual else random_design(hand, bases)
            found = []
            for _ in range(hand.randint(1, 6) if usual else 0):
                design = changed(hand, design, entries, found)
            for what in (*found, *troubles(design, entries, hand)):
                result.fail(f"design {seed} {number}: {what}")
    return result


def changed(hand, design, entries, found):
    """A design with one change of the kind that people make; what fails is ``found``."""
    level = design.brief.loudness.level + hand.uniform(-6, 8)
    side = ("box", "case", hand.choice(("length", "height", "depth")))
    ways_to = [
        ("loudness", lambda: set_number(design, ("brief", "loudness", "level"), level)),
        ("size", lambda: set_number(design, side, value_at(design, side) * hand.uniform(0.6, 1.5))),
        ("part", lambda: placing.put(design, hand.choice(entries).part)),
        hand.choice(list(_asked(design, entries, hand))),
    ]
    name, asked = hand.choice(ways_to)
    made, trouble = _tried(name, asked)
    found += [trouble] if trouble else []
    return made if type(made) is type(design) else design


def _tried(name, asked):
    """(what comes of it, what is wrong with that): a refusal in words is right."""
    try:
        made = asked()
        made = made[1] if isinstance(made, tuple) else made
        if isinstance(made, Design):
            assess(made)
    except FirecrestError as error:
        return None, f"{name}: refused, {error!s:.80}" if name.startswith("advice") else ""
    except Exception as error:
        return None, f"{name}: {mistake(error)}"
    return made, ""


def troubles(design, entries, hand):
    """What fails with anything but a refusal in words."""
    for name, asked in (*_asked(design, entries, hand), *_advice(design, entries)):
        _, trouble = _tried(name, asked)
        if trouble:
            yield trouble


def _asked(design, entries, hand):
    """What one can ask for, by name: each gives a design, or (label, design)."""
    for kind in get_args(layouts.Kind):
        yield f"kind {kind}", lambda kind=kind: layouts.with_kind(design, kind)
    for kind in ("port", "radiators"):
        yield f"opening {kind}", lambda kind=kind: with_opening(design, kind, 0)
    for layout in get_args(layouts.Layout):
        yield f"layout {layout}", lambda layout=layout: layouts.with_layout(design, layout)
    yield "way", lambda: ways.with_way(design)
    for place in range(len(design.voice.channels)):
        yield "without a way", lambda place=place: ways.without_way(design, place)
    for place in range(len(design.box.groups)):
        yield "own chamber", lambda place=place: layouts.with_own_chamber(design, place)
    for kind in shaping.SHAPES:
        yield f"shape {kind}", lambda kind=kind: shaping.with_shape(design, kind)
    yield "golden", lambda: shaping.golden(design)
    yield "turned", lambda: turned(design)
    yield "divider", lambda: adding.with_divider(design)
    yield "brace", lambda: adding.with_brace(design)
    yield "amplifier chamber", lambda: adding.with_amplifier_chamber(design)
    for kind in FITTINGS:
        yield f"fitting {kind}", lambda kind=kind: adding.with_fitting(design, kind)
    yield "places", lambda: siting.placed_all(design)
    for key, start in sizing.starts().items():
        yield f"start {key}", lambda start=start: start(design)
    for entry in hand.sample(entries, 4):
        yield f"put {entry.id}", lambda entry=entry: placing.put(design, entry.part)
    end = hand.choice((kits.End("sealed"), kits.End("port")))
    driver = next(e.part for e in entries if e.kind == "driver")
    yield from edits(design)
    yield "kit", lambda: kits.combined(design, driver, 0.3, end)


def _advice(design, entries):
    """What is worked out by itself."""
    now = assess(design)
    parts = {entry.kind: [e.part for e in entries if e.kind == entry.kind] for entry in entries}
    scene = Scene(now, parts)
    yield "advice: moves", lambda: pairs(scene, telling(scene))
    for kind in KINDS if now.acoustic is not None else ():
        yield f"advice: {kind.__name__}", lambda kind=kind: list(kind(scene))
    yield "advice: doubt", lambda: doubt_of(design, 32)
    across, up = mapping.axes_of(design)[:2]
    yield "map", lambda: next(iter(mapping.maps(design, across, up)))
    a = now.acoustic
    if a is None:
        return
    yield "advice: high-pass", lambda: protected(now)
    yield "advice: line up", lambda: line_up(now, a)
    yield "advice: limiters", lambda: guards(now, a, any_sine=False)
    for crossover in crossovers(design.voice):
        yield "advice: crossing", lambda crossover=crossover: crossing(now, a, crossover)
    yield "flat", lambda: flattening(now, a, WISH)
