from dataclasses import replace

import numpy as np
import pytest

from firecrest.core.cabinet import parts as made_of
from firecrest.core.cabinet.balance import Push, balance, walk
from firecrest.core.cabinet.braces import solid_of, split
from firecrest.core.cabinet.clearance import (
    down_firing_height,
    free_length,
    knob_fit,
    removable,
    vent_area,
    wall_gap,
)
from firecrest.core.cabinet.cutouts import area, framed
from firecrest.core.cabinet.cutting import Piece, settings
from firecrest.core.cabinet.distance import solids_apart
from firecrest.core.cabinet.joints import cut_panels
from firecrest.core.cabinet.ledger import rooms, slabs
from firecrest.core.cabinet.materials import material_share
from firecrest.core.cabinet.plates import resonance
from firecrest.core.cabinet.printing import Printer, plan, spools
from firecrest.core.cabinet.sheets import Sheet, layout, lower_bound
from firecrest.core.cabinet.templates import pages_of
from firecrest.core.cabinet.weighing import (
    brace_masses,
    case_mass,
    foot_masses,
    part_masses,
    shell_body,
)
from tests.reference.cabinet import CASES, case, expected

ALL = list(CASES)
BOXES = [n for n in ALL if CASES[n]["shape"]["kind"] == "box" and CASES[n]["print"] is None]


def near(value, within=2e-4):
    return pytest.approx(value, rel=within, abs=1e-12)


def chambers(one):
    dividers = [b for b in one.braces if b.divider]
    gross = slabs(one.inside, dividers)
    names = ["main"] if not dividers else ["amp", "main"]
    standing = [("main", brace) for brace in one.braces if not brace.divider]
    thickness = {name: frame.t for name, frame in one.frames.items()}
    return rooms(
        dict(zip(names, gross, strict=True)), one.parts, (), thickness, standing, one.inside
    )


@pytest.mark.parametrize("name", ALL)
def test_volumes_are_those_of_the_reference(name):
    one, ledger = case(name), expected(name)["ledger"]
    shell = one.shell
    assert shell.outside.volume == near(ledger["outside"])
    assert shell.inside.volume == near(ledger["interior"])
    assert shell.recess == near(ledger["open_recess_not_in_outside"])
    assert shell.size == pytest.approx(expected(name)["size"], abs=5e-5)


@pytest.mark.parametrize("name", ALL)
def test_ledger_of_every_chamber(name):
    found = chambers(case(name))
    for chamber, said in expected(name)["chambers"].items():
        room = found[chamber]
        assert room.gross == near(said["gross"])
        assert room.openings == near(said["openings"])
        assert room.braces == near(said["braces"])
        for kind in ("driver", "radiator", "port", "board", "pack", "cup"):
            assert room.taken[kind] == near(said[kind]), kind
        assert room.net == pytest.approx(said["net"], abs=1e-5)
        assert room.net == near(said["net"])


@pytest.mark.parametrize("name", ALL)
def test_solids_openings_and_recesses_of_parts(name):
    one = case(name)
    for part in one.parts:
        said = expected(name)["part_volumes"][part.name]
        t = one.frames[part.mount.panel].t
        assert made_of.solid_volume(part) == near(said["solid"])
        assert made_of.opening(part, t) == near(said["opening"])
        assert made_of.recess(part) == near(said["recess"])
        if said["cut_area"] is not None:
            assert area(made_of.cut_of(part)) == near(said["cut_area"], 1e-4)
        if said["frame_area"] is not None:
            assert area(framed(part.cut, part.frame)) == near(said["frame_area"], 1e-4)


@pytest.mark.parametrize("name", BOXES)
def test_panels_by_their_joints_fill_the_walls(name):
    one = case(name)
    cuts = {c.name: c for c in cut_panels(one.shape)}
    for said in expected(name)["panels"]:
        cut = cuts[said["name"]]
        assert (cut.a, cut.b, cut.t) == pytest.approx((said["a"], said["b"], said["t"]), abs=5e-5)
        assert cut.volume == near(said["net_before_openings"])
    walls = one.shell.outside.volume - one.shell.inside.volume
    assert sum(c.volume for c in cuts.values()) == pytest.approx(walls, rel=1e-9)


@pytest.mark.parametrize("name", ALL)
def test_first_resonance_of_every_panel(name):
    one = case(name)
    fields = split(one.shell.fields, one.braces, one.shell.low, one.shell.high)
    for panel, said in expected(name)["plates"].items():
        field = fields[panel]
        found = resonance(field, one.material, one.infill, one.raw["bass_band"][1])
        assert found.supported == near(said["simply_supported"], 1e-3), panel
        assert found.clamped == near(said["clamped"], 1e-3)
        assert found.flag == said["flag"]


def solids(one, swept=True):
    found = {}
    for part in one.parts:
        at = made_of.placed(part, one.frames)
        made = made_of.solid_of(part, at, swept)
        if made is not None:
            found[part.name] = (part, at, made)
    return found


@pytest.mark.parametrize("name", ALL)
def test_distances_to_walls(name):
    one = case(name)
    made = solids(one)
    for part_name, said in expected(name)["wall_gaps"].items():
        part, at, solid = made[part_name]
        found = wall_gap(solid, part.mount.panel, at, one.shell)
        assert found.gap == pytest.approx(said["gap"], abs=1e-4), part_name
        assert found.wall == said["wall"] or pytest.approx(said["gap"], abs=1e-9) == found.gap


@pytest.mark.parametrize("name", ALL)
def test_distances_between_parts(name):
    one = case(name)
    made = {n: (p.mount.chamber, s) for n, (p, _, s) in solids(one).items()}
    for brace in one.braces:
        made[brace.name] = (None, solid_of(brace, one.inside))
    names = list(made)
    found = {}
    for k, a in enumerate(names):
        for b in names[k + 1 :]:
            one_room, other = made[a][0], made[b][0]
            if one_room and other and one_room != other:
                continue
            near_by = solids_apart(made[a][1], made[b][1], 0.06)
            if near_by is not None and near_by.gap < 0.06:
                found[frozenset((a, b))] = near_by.gap
    said = {frozenset((p["a"], p["b"])): p["gap"] for p in expected(name)["pair_gaps"]}
    assert set(found) == set(said)
    for pair, gap in said.items():
        assert found[pair] == pytest.approx(gap, abs=1e-4), pair


@pytest.mark.parametrize("name", ALL)
def test_what_comes_out_ports_knobs_feet_and_vents(name):
    one, said = case(name), expected(name)
    made = solids(one, swept=False)
    for part in one.parts:
        if part.kind == "driver":
            assert removable(part, ()) is said["removable"][part.name]
        if part.kind == "knob":
            fit, want = knob_fit(part, one.frames[part.mount.panel].t), said["knobs"][part.name]
            assert (fit.panel, fit.most, fit.thin_by) == pytest.approx(
                (want["panel"], want["most_panel"], want["thin_by"]), abs=5e-5
            )
        if part.kind == "port":
            want = said["port_ends"][part.name]
            _, at, _ = made[part.name]
            others = [s for n, (_, _, s) in made.items() if n != part.name]
            others += [solid_of(b, one.inside) for b in one.braces]
            free, end = free_length(part, at, one.shell, others)
            assert free == pytest.approx(want["free_length"], abs=3e-4)
            assert end == pytest.approx(want["end"], abs=5e-5)
        if part.name in said["down_firing"]:
            least = said["down_firing"][part.name]["least_height"]
            assert down_firing_height(part) == pytest.approx(least, abs=5e-5)
    if one.raw["vents"]:
        vents = one.raw["vents"]
        found = vent_area(vents["heat_W"], vents["height"], vents["rise"])
        assert found == near(said["vents"]["area_each"])


def items_of(one):
    body = shell_body(one.shell, one.parts)
    items = [case_mass(body, one.material, one.infill, one.shell.printed_wall)]
    items += brace_masses(one.braces, one.inside, one.material.density)
    items += part_masses((p, made_of.placed(p, one.frames)) for p in one.parts)
    feet = one.raw["feet"]
    if feet:
        low = one.shell.lowest
        items += foot_masses(feet["points"], feet["mass_each"], low, feet["height"])
    return items


@pytest.mark.parametrize("name", ALL)
def test_weight_centre_of_gravity_tipping_and_walking(name):
    one, said = case(name), expected(name)
    items = items_of(one)
    for item in items:
        assert item.mass == near(said["mass"]["items"][item.name], 5e-4), item.name
    feet = one.raw["feet"]
    stands_on = np.array(feet["points"]) if feet else one.shell.stands_on
    floor = one.shell.lowest - (feet["height"] if feet else 0.0)
    found = balance(items, stands_on, floor)
    assert found.mass == near(said["mass"]["total"], 5e-4)
    assert found.centre == pytest.approx(said["mass"]["centre_of_gravity"], abs=1e-4)
    assert found.floor == pytest.approx(said["mass"]["floor_y"], abs=5e-5)
    assert np.degrees(found.tip_angle) == pytest.approx(said["tip"]["angle_deg"], abs=0.05)
    asked = one.raw["walk"]
    by_name = {p.name: p for p in one.parts}
    pushes = [
        Push(
            by_name[p["name"]].moving_mass,
            p["x_peak"],
            p["phase"],
            one.frames[by_name[p["name"]].mount.panel].normal,
        )
        for p in asked["parts"]
    ]
    walked, want = walk(pushes, asked["f"], found.mass, asked["mu"]), said["walk"]
    assert walked.horizontal == pytest.approx(want["force_horizontal"], rel=1e-3, abs=1e-9)
    assert walked.vertical == pytest.approx(want["force_vertical"], rel=1e-3, abs=1e-9)
    for margin, key in ((walked.slide, "slide_margin_db"), (walked.hop, "hop_margin_db")):
        assert (margin is None) == (want[key] is None)
        assert margin is None or margin == pytest.approx(want[key], abs=0.02)
    assert walked.travel == near(want["case_travel"], 1e-3)


def wooden(one, said):
    """The cut list of a reference case per thickness in mm."""
    found = {}
    for row in [*said["panels"], *said["brace_panels"]]:
        a = max(row["a"], row.get("a2", 0.0))
        piece = Piece(row["name"], a, row["b"], row["t"], row.get("count", 1))
        found.setdefault(str(round(row["t"] * 1e3)), []).append(piece)
    return found


@pytest.mark.parametrize("name", [n for n in ALL if CASES[n]["sheet"]])
def test_sheets_and_settings(name):
    one, said = case(name), expected(name)
    sheet = Sheet(*(one.raw["sheet"][k] for k in ("width", "height", "kerf", "margin")))
    for thickness, pieces in wooden(one, said).items():
        want = said["sheets"][thickness]
        assert sum(p.count for p in pieces) == want["parts"]
        assert lower_bound(pieces, sheet) == want["lower_bound"]
        batch = [replace(p, count=p.count * one.raw["batch"]) for p in pieces]
        assert lower_bound(batch, sheet) == want["batch_lower_bound"]
        laid = layout(pieces, sheet)
        assert laid.sheets <= want["feasible"]
        if want["fence_settings"] is not None:
            assert settings(pieces).count == want["fence_settings"]


@pytest.mark.parametrize("name", [n for n in ALL if CASES[n]["print"]])
def test_print_plan(name):
    one, said = case(name), expected(name)["print"]
    asked = one.raw["print"]
    printer = Printer(
        tuple(asked["bed"]),
        asked["margin"],
        asked["layer"],
        asked["flow"],
        asked["layer_change"],
        asked["spool"],
    )
    body = shell_body(one.shell, one.parts)
    share = material_share(one.infill, one.shell.printed_wall)
    assert body.volume == near(said["shell_volume"], 5e-4)
    found = plan(one.shell.size, body.volume, share, one.material.density, printer)
    assert found.volume == near(said["material_volume"], 5e-4)
    assert found.mass == near(said["mass"], 5e-4)
    assert found.pieces == said["pieces"]
    assert found.layers == said["layers"]
    assert found.seconds == near(said["seconds"], 1e-3)
    assert found.filament == near(said["filament_m"], 1e-3)
    assert found.spools == said["spools"]
    assert spools(found.mass, printer, one.raw["batch"]) == said["batch_spools"]
    assert found.whole_turned is said["whole_fits_turned_in_plane"]
    assert dict(zip("xyz", found.split, strict=True)) == said["split"]


@pytest.mark.parametrize("name", ALL)
def test_pages_of_a_template(name):
    wide, high, _ = case(name).shell.size
    assert pages_of(wide, high) == expected(name)["template_pages_A4_front"]
