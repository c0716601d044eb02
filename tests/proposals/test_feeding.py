"""Fuse and wire as wanted; five designs that differ in one part name five bottlenecks."""

import pytest

from firecrest.assessment.assess import assess
from firecrest.assessment.power.dangers import dangers
from firecrest.core.errors import DesignError
from firecrest.design.edits.paths import rebuilt, replace_at, set_number
from firecrest.design.edits.power import with_source
from firecrest.design.sources import Converter, WallSupply
from firecrest.proposals.moves.kinds import Scene
from firecrest.proposals.moves.ranking import telling
from firecrest.proposals.wiring import with_wanted_fuse, with_wanted_wire
from firecrest.shelf.kinds import kind_of_part
from firecrest.shelf.stock import shipped_entries

SOURCE = ("power", "source")
BOARD = ("power", "boards", 0, "part")


@pytest.fixture(scope="module")
def shelf():
    found = {}
    for entry in shipped_entries():
        found.setdefault(kind_of_part(entry.part), []).append(entry.part)
    return found


def strong(slipway):
    """Slipway with drivers and radiators that bear everything: only the power is left to give."""
    design = set_number(slipway, ("box", "groups", 0, "driver", "xmax"), 0.03)
    design = set_number(design, ("box", "groups", 0, "driver", "pe"), 400.0)
    design = set_number(design, ("box", "openings", 0, "radiator", "xmax"), 0.06)
    design = set_number(design, ("brief", "loudness", "level"), 100.0)
    return set_number(design, ("power", "boards", 1, "part", "full_scale"), 3.0)


def weak_pack(design):
    pack = design.power.source
    board = rebuilt(pack.board, max_current=1.5)
    return replace_at(design, SOURCE, rebuilt(pack, board=board))


def weak_cells(design):
    pack = design.power.source
    cell = rebuilt(pack.cell, max_current=0.8)
    return replace_at(
        design, SOURCE, rebuilt(pack, cell=cell, board=rebuilt(pack.board, max_current=1.6))
    )


def weak_supply(design):
    supply = WallSupply(kind="wall", voltage=24.0, continuous_current=1.0, burst_current=1.5)
    return replace_at(design, SOURCE, supply)


def weak_converter(design):
    converter = Converter(output_voltage=24.0, input_current=2.0)
    made = replace_at(design, ("power", "converters"), (converter,))
    return replace_at(made, ("power", "boards", 0, "rail"), "converter")


DESIGNS = {
    "swing": lambda d: d,
    "amplifier current": lambda d: set_number(d, (*BOARD, "current_limit"), 2.0),
    "protection board": weak_pack,
    "cells": weak_cells,
    "supply": weak_supply,
    "converter input": weak_converter,
}


@pytest.mark.parametrize("name", list(DESIGNS))
def test_a_part_that_gives_first_is_named_and_the_first_move_cures_it(slipway, shelf, name):
    design = DESIGNS[name](strong(slipway))
    a = assess(design)
    held = a.acoustic.limits[a.acoustic.loudness.limit]
    assert held.name == name
    moves = [m for m in telling(Scene(a, shelf)) if m.proposal.kind != "guard"]
    first = moves[0]
    made = assess(first.proposal.design)
    loud, now = made.promise("loudness"), a.promise("loudness")
    assert first.gain > 0.3
    assert loud.predicted > now.predicted + 0.3
    holds = made.acoustic.limits[made.acoustic.loudness.limit]
    assert holds.name != name or loud.margin > now.margin + 0.3


def test_dangers_are_mended_first(slipway, shelf):
    own = slipway.power.source
    cases = (
        rebuilt(own, board=None),
        rebuilt(own, board=rebuilt(own.board, max_current=40.0)),
        rebuilt(own, charger=rebuilt(own.charger, current=9.0)),
        rebuilt(own, charger=rebuilt(own.charger, voltage=25.0)),
    )
    for pack in cases:
        design = replace_at(slipway, SOURCE, pack)
        assert len(dangers(design)) == 1
        first = telling(Scene(assess(design), shelf))[0]
        assert first.proposal.kind == "guard"
        assert dangers(first.proposal.design) == ()


def test_the_fuse_and_the_wire_wanted_are_fitted(slipway):
    label, made = with_wanted_fuse(slipway)
    assert label == "Fit fuse"
    assert (made.power.fuse.kind, made.power.fuse.rating) == ("blade", 5.0)
    thin = set_number(slipway, ("power", "lead", "area"), 0.14e-6)
    assert with_wanted_wire(thin)[1].power.lead.area == pytest.approx(0.34e-6)
    unknown = set_number(slipway, ("power", "lead", "length"), None)
    with pytest.raises(DesignError, match="How long is the lead"):
        with_wanted_wire(unknown)
    kinds = [m.proposal.kind for m in telling(Scene(assess(thin)))]
    assert {"wire", "fuse"} <= set(kinds)


def test_no_move_makes_a_danger_and_every_start_is_safe(slipway, shelf):
    """Leaving out a string would let the protection board open above what the cells bear."""
    offered = telling(Scene(assess(slipway), shelf))
    assert all(dangers(o.proposal.design) == () for o in offered)
    heavy = set_number(slipway, ("brief", "weight", "mass"), 5.3)
    single = telling(Scene(assess(heavy), shelf))
    assert all(dangers(o.proposal.design) == () for o in single)
    wall = with_source(slipway, "wall")[1]
    assert dangers(with_source(wall, "pack")[1]) == ()
