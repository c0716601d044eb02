"""Kinds of box at equal air or in the same case, and kits."""

import pytest

from firecrest.assessment.assess import assess, cabinet_of
from firecrest.core.errors import FirecrestError
from firecrest.files.demos import demo_names, read_demo
from firecrest.present.compare.kits import cell_of, counted, end_name, variant_name
from firecrest.proposals.kits import End, combined, ends_of, kit, other_kinds
from firecrest.proposals.layouts import kind_of
from firecrest.shelf.stock import shipped_entries


def parts(kind):
    return [e.part for e in shipped_entries() if e.kind == kind]


def test_other_kinds_have_the_same_air_or_the_same_case(slipway):
    for held in ("air", "outside"):
        found = other_kinds(slipway, held)
        assert [kind for kind, _ in found] == ["sealed", "port"]
        for kind, design in found:
            assert kind_of(design) == kind
            if held == "air":
                assert cabinet_of(design).air[0] == pytest.approx(cabinet_of(slipway).air[0])
            else:
                assert design.box.case == slipway.box.case


@pytest.mark.parametrize("name", demo_names())
def test_every_demo_has_other_kinds_that_can_be_heard(name):
    for _, design in other_kinds(read_demo(name), "air"):
        assert assess(design).acoustic is not None


def test_a_kit_is_every_combination_and_each_a_whole_design(slipway):
    own = slipway.box.groups[0].driver
    drivers = [own, *[p for p in parts("driver") if p.name in ("Hornbeam W12-4", "Hornbeam W10-4")]]
    ends = ends_of(slipway, parts("radiator"))
    assert [end_name(e) for e in ends] == ["closed", "port", "Rowan R16", ends[3].radiator.name]
    found = [c for row in kit(slipway, drivers, [0.29, 0.34, 0.42], ends) for c in row]
    assert len(found) == 3 * 3 * 4
    assert len({(c.driver, c.body, c.end) for c in found}) == 36
    for one in found[::7]:
        real = assess(one.design)
        assert one.figures.loudness == pytest.approx(real.promise("loudness").predicted, abs=1e-9)
        assert one.design.box.case.length == (0.29, 0.34, 0.42)[one.body]
    by_end = {
        e: next(c.figures.loudness for c in found if (c.driver, c.body, c.end) == (0, 1, e))
        for e in range(4)
    }
    assert by_end[3] > by_end[0], "a larger radiator is louder than a closed box"


def test_what_does_not_go_together_says_why(slipway):
    own = slipway.box.groups[0].driver
    with pytest.raises(FirecrestError):
        combined(slipway, own, 9.0, End("sealed"))
    (row,) = kit(slipway, [own], [9.0], [End("sealed")])
    assert row[0].design is None
    cell = cell_of(row[0], slipway.brief)
    assert (cell.text, cell.mark) == ("–", "none")
    assert "can be" in cell.tip


def test_cells_and_buttons_are_told_in_words(slipway):
    own = slipway.box.groups[0].driver
    (row,) = kit(slipway, [own], [0.34], [End("port")])
    cell = cell_of(row[0], slipway.brief)
    assert "dB" in cell.text
    assert "musts kept" in cell.tip
    assert variant_name(own.name, 0.34, End("port")) == "Alder W13-4, 340\u202fmm, port"
    assert counted(0, 7).startswith("Tick")
    assert counted(1, 7) == "Add 1 variant"
    assert counted(9, 7) == "Add 9 variants, 7 at most"
