"""Attack: random valid designs are assessed, reported, shown, saved and opened."""

import dataclasses
import math
import random
import re
import tempfile
import warnings
from pathlib import Path

import numpy as np

from firecrest.assessment.assess import assess
from firecrest.core.errors import FirecrestError
from firecrest.design.box import Port, placed
from firecrest.design.project import project_of
from firecrest.design.text import project_from_json, project_to_json
from firecrest.files.container import Document, read_document, write_document
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.frame import moves
from firecrest.present.frame.chain import chain
from firecrest.present.frame.meters import meter
from firecrest.present.frame.rail import rail
from firecrest.present.parts import wiring
from firecrest.present.parts.parts import cards
from firecrest.present.plot.ceiling import voice_ceiling_plot
from firecrest.present.plot.plots import distance_plot, travel_plots
from firecrest.present.plot.views import (
    delay_plot,
    impedance_plot,
    pressure_plot,
    response_plot,
    travel_plot,
)
from firecrest.present.power import currents, flows, hours, hum, truth
from firecrest.present.power import facts as power_facts
from firecrest.present.power.cautions import caution, hearing_caution
from firecrest.present.power.picture import wiring_picture
from firecrest.present.power.power import bus_words
from firecrest.present.promise.brief import clauses
from firecrest.present.report import STANDARD_DRIVE, report
from firecrest.present.size import consequences
from firecrest.present.size.boxes import picture
from firecrest.present.size.facts import facts
from firecrest.present.size.sizing import offer, start_list
from firecrest.present.text.sentences import why
from firecrest.proposals.ports import candidates, choice_of
from firecrest.search.choose import Candidate, choose
from firecrest.shelf.stock import shipped_entries
from tests.attacks.random_designs import random_design
from tests.attacks.results import Result, mistake
from tests.attacks.stages import cabinet_shown, voice_shown

GRID = np.geomspace(10, 1000, 61)
SAVE_EVERY = 10
DEEP_EVERY = 20


def attack(seed, count, seconds):
    """Nothing but finite figures or reasons may come of a valid design."""
    result = Result("designs", count, seconds)
    bases = [read_demo(name) for name in demo_names()]
    with tempfile.TemporaryDirectory() as folder, warnings.catch_warnings():
        warnings.simplefilter("error")
        path = Path(folder) / "x.firecrest"
        for number in result.rounds():
            design = random_design(random.Random(f"{seed} {number}"), bases)
            target = path if number % SAVE_EVERY == 0 else None
            for what in troubles(design, target, deep=number % DEEP_EVERY == 0):
                result.fail(f"design {seed} {number}: {what}")
    return result


def troubles(design, path=None, *, deep=False):
    """What is wrong with what comes of a design, in words; ``deep`` asks for proposals too."""
    try:
        assessment = assess(design)
        yield from _promises(assessment)
        yield from _report(assessment)
        yield from _shown(assessment)
        if deep:
            _proposed(assessment)
        if path is not None:
            write_document(path, Document(project_of(design)))
            if read_document(path).design != design:
                yield "it is another one after saving"
        elif project_from_json(project_to_json(project_of(design))).design != design:
            yield "it is another one after writing"
    except FirecrestError as error:
        yield f"refused after it was accepted: {error}"
    except Exception as error:
        yield mistake(error)


def _promises(assessment):
    for promise in assessment.promises:
        for name in ("predicted", "target", "margin"):
            value = getattr(promise, name)
            if value is not None and not math.isfinite(value):
                yield f"{promise.key}: {name} is {value}"
        if promise.state == "unknown" and not promise.reason:
            yield f"{promise.key}: unknown without a reason"
        if promise.state in ("met", "close") and promise.predicted is None:
            yield f"{promise.key}: {promise.state} without a figure"


def _report(assessment):
    for name, value in _leaves("", report(assessment, STANDARD_DRIVE, GRID)):
        if isinstance(value, float) and not math.isfinite(value):
            yield f"report: {name} is {value}"
            return


def _leaves(name, node):
    if isinstance(node, dict):
        for key, value in node.items():
            yield from _leaves(f"{name}.{key}", value)
    elif isinstance(node, list | tuple):
        for value in node:
            yield from _leaves(f"{name}[]", value)
    else:
        yield name, node


def _shown(assessment):
    """What every window shows of every design."""
    said = [meter(promise, assessment.design, assessment) for promise in assessment.promises]
    views = (
        why,
        lambda a: clauses(a, None),
        chain_at,
        rail,
        picture,
        cards,
        response_plot,
        *PLOTS,
        *POWER,
    )
    said += [view(assessment) for view in views]
    for board in range(len(assessment.design.power.amplifiers)):
        said.append(truth.board_truth(assessment, board))
        said.append(power_facts.gain_facts(assessment, board))
        said.append(bus_words(assessment, board))
    said += [facts(assessment, owner) for owner in owners(assessment.design)]
    cabinet_shown(assessment)
    voice_shown(assessment)
    for at in (None, 50.0):
        said += [plot(assessment, at) for plot in AT_FREQUENCY]
    for text in words_in(said):
        if NO_NUMBER.search(text):
            yield f"shown: {text:.80}"


NO_NUMBER = re.compile(r"(?<![A-Za-z])[-−]?(inf|nan)(?![A-Za-z])")


def words_in(node):
    """Every text in nested views."""
    if isinstance(node, str):
        yield node
    elif isinstance(node, list | tuple):
        for item in node:
            yield from words_in(item)
    elif dataclasses.is_dataclass(node):
        for field in dataclasses.fields(node):
            yield from words_in(getattr(node, field.name))


def chain_at(assessment):
    """The chain at its own frequency and at one that is pinned."""
    return chain(assessment, None), chain(assessment, 60.0)


def owners(design):
    """Everything one can select on the Size stage."""
    box = design.box
    for name in ("chambers", "groups", "openings"):
        yield from (("box", name, place) for place in range(len(getattr(box, name))))


PLOTS = (travel_plots, hours.level_plot, distance_plot, voice_ceiling_plot)
POWER = (
    caution,
    hearing_caution,
    currents.current_rows,
    currents.wiring_facts,
    hours.use_rows,
    hours.drain_sentence,
    power_facts.charging_facts,
    power_facts.standing_facts,
    power_facts.hiss_facts,
    power_facts.supply_words,
    lambda a: [hours.evening(a, use) for use in hours.USE_WORDS],
    lambda a: [flows.flow_picture(a, use) for use in hours.USE_WORDS],
    lambda a: wiring_picture(a.design),
    lambda a: hum.hum_list(a.design),
)
AT_FREQUENCY = (travel_plot, impedance_plot, delay_plot, pressure_plot)


def _proposed(assessment):
    """What the window proposes for a design: moves, effects, wirings, starts, candidates."""
    design = assessment.design
    for _ in moves.moves_of(design):
        pass
    for owner in owners(design):
        for job in consequences.jobs(assessment, owner):
            job()
    for place in range(len(design.box.groups)):
        wiring.ways(assessment, place)
        wiring.wiring_picture(assessment, place)
    for place, _ in placed(design.box.openings, Port):
        for port in candidates(design, place)[:4]:
            choice_of(design, place, port)
    for key, _, _ in start_list(0.71):
        offer(assessment, key, 0.71)
    parts = [e for e in shipped_entries() if e.kind in ("driver", "cell", "amplifier")][::12]
    for entry in parts:
        for some in choose(design, [Candidate(entry.id, entry.part)], retune=True):
            assert some
