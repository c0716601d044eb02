"""Edits that a button or a choice makes, of whatever a design has."""

from functools import partial
from typing import get_args

from firecrest.design.edits import (
    boards,
    box,
    braces,
    cabinet,
    case,
    outline,
    parts,
    power,
    presets,
    supplies,
    voice,
    wiring,
    within,
)

PLAIN = (
    boards.add_board,
    boards.add_receiver,
    boards.add_converter,
    braces.add_shelf,
    braces.add_dowel,
    braces.add_brace,
    cabinet.without_places,
    case.add_content,
    power.add_load,
    within.add_inner_box,
    within.add_amplifier_chamber,
)
SWITCHES = (cabinet.with_feet, cabinet.printed, within.with_grille)
WIRED = (wiring.with_fuse, wiring.with_switch)
OF_PACKS = (power.with_own_warmth, power.with_protection, power.with_charger)


def edits(design):
    """(name, what gives (label, design)) of every button there would be."""
    for make in PLAIN:
        yield make.__name__, partial(make, design)
    for on in (True, False):
        for make in SWITCHES:
            yield f"{make.__name__} {on}", partial(make, design, on=on)
        for make in WIRED:
            yield f"{make.__name__} {on}", partial(make, design, on)
    yield from _of_source(design)
    yield from _of_boards(design)
    yield from _of_box(design)
    yield from _of_voice(design)


def _of_source(design):
    for kind in get_args(power.Kind):
        yield f"source {kind}", partial(power.with_source, design, kind)
    source = design.power.source
    if source.kind == "pack":
        for make in (power.add_cell_point, power.remove_cell_point, power.with_usual_table):
            yield make.__name__, partial(make, design)
        for make in OF_PACKS:
            for on in (True, False):
                yield f"{make.__name__} {on}", partial(make, design, on)
        for series in (1, source.series + 1):
            yield f"{series} in series", partial(power.with_series, design, series)
    if source.kind == "wall":
        yield "add step", partial(supplies.add_step, design)
        if source.steps:
            yield "remove step", partial(supplies.remove_step, design)
            yield "ask for a step", partial(supplies.ask_for, design, 0)


def _of_boards(design):
    for k, board in enumerate(design.power.boards):
        yield f"remove board {k}", partial(boards.remove_board, design, k)
        if board.kind == "amplifier":
            path = ("power", "boards", k, "part")
            yield f"add claim {k}", partial(power.add_claim, design, k)
            yield f"remove claim {k}", partial(power.remove_claim, design, k, 0)
            yield f"add outputs {k}", partial(power.add_output_kind, design, path)
            for on in (True, False):
                yield f"efficiency {k} {on}", partial(power.with_efficiency, design, path, on)


def _of_box(design):
    made = design.box
    for k, _ in enumerate(made.openings):
        yield f"remove opening {k}", partial(box.remove_opening, design, ("box", "openings", k))
    for k, _ in enumerate(made.groups):
        path = ("box", "groups", k, "driver")
        yield f"travel point {k}", partial(parts.add_travel_point, design, path)
    for k, brace in enumerate(made.case.braces):
        yield f"remove brace {k}", partial(braces.remove_brace, design, k)
        if brace.form == "plate":
            yield f"divider {k}", partial(braces.as_divider, design, not brace.divider, k)
        for axis in "xyz":
            yield f"turn brace {k}", partial(braces.turned_brace, design, k, axis)
    for k, _ in enumerate(made.case.fittings):
        yield f"remove fitting {k}", partial(cabinet.remove_fitting, design, k)
    for k, _ in enumerate(made.case.inner):
        yield f"remove inner box {k}", partial(within.remove_inner, design, k)
    if outline.points_field(made.case):
        yield "add point", partial(outline.add_outline_point, design)
        yield "remove point", partial(outline.remove_outline_point, design, 0)
    for path in cabinet.placed_paths(design):
        yield f"mirror {path}", partial(cabinet.mirrored, design, path)
        for panel in ("top", "right"):
            yield f"{path} to {panel}", partial(cabinet.on_panel, design, path, panel)


def _of_voice(design):
    yield "keep as", partial(presets.keep_as, design, "another room")
    channels = range(len(design.voice.channels))
    for k in channels:
        for kind in voice.KINDS:
            yield f"{kind} in {k}", partial(voice.add_block, design, k, kind)
        for other in channels:
            if other != k:
                yield f"chain {k} to {other}", partial(voice.copy_chain, design, k, other)
                yield f"link {k} and {other}", partial(voice.link, design, k, other)
