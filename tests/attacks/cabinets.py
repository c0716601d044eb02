"""Attack: random cases with things anywhere, against solids of another library.

Each case: net air by its ledger against the boolean solid; mass and middle of the shell against its
mesh; what is told to meet against what does; meshes closed and as heavy as the ledger says.
"""

import random
from itertools import combinations

import numpy as np

from firecrest.assessment.assess import assess
from firecrest.assessment.cabinet.drawing import drawing_of
from firecrest.assessment.cabinet.spots import spots_of
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.outlines import cloud
from firecrest.core.cabinet.sections import ACROSS
from firecrest.core.cabinet.shapes.vase import Vase
from firecrest.core.cabinet.solids import prism
from firecrest.core.cabinet.weighing import shell_body
from firecrest.core.errors import FirecrestError
from firecrest.design.case import Brace
from firecrest.design.edits.cabinet import placed_paths
from firecrest.design.edits.paths import rebuilt, replace_at, value_at
from firecrest.design.shapes import inside_of, panel_names, shape_of
from firecrest.files.meshes import shell_meshes
from firecrest.proposals.shaping import SHAPES, with_shape
from firecrest.proposals.siting import placed_all
from tests.attacks.results import Result
from tests.unplaced import unplaced

AIR, SHELL, DEEP, FLAT = 1e-3, 2e-3, 3e-4, 2e-9
"""Shares that air and shells may differ by; m that solids may overlap unseen, and m3."""
KINDS = [kind for kind in SHAPES if kind != "ball"]


def attack(seed, count, seconds):
    """A random case each, everything in it moved about."""
    result = Result("cabinets", count, seconds)
    result.facts = {"air compared": 0, "pairs compared": 0, "meshes": 0}
    for number in result.rounds():
        try:
            _one(random.Random(f"{seed} {number}"), result, number)
        except FirecrestError as error:
            if error.unforeseen:
                result.fail(f"{number}: {error}")
    return result


def random_case(dice):
    """A Slipway of a random shape and size, everything in a place, and that moved a little."""
    base = unplaced("slipway")
    sizes = {name: getattr(base.box.case, name) * dice.uniform(1.0, 2.0)
             for name in ("length", "height", "depth")}  # fmt: skip
    case = rebuilt(base.box.case, wall=dice.uniform(0.006, 0.018), contents=(), **sizes)
    design = replace_at(base, ("box", "case"), case)
    kind = dice.choice(KINDS)
    if kind != "box":
        design = with_shape(design, kind)[1]
    design = placed_all(replace_at(design, ("box", "case", "braces"), tuple(_braces(dice, design))))
    names, far = panel_names(design.box.case), dice.choice((0.0, 0.003, 0.03))
    for path in placed_paths(design):
        mount = value_at(design, path)
        changed = {"u": mount.u + dice.gauss(0, far), "v": mount.v + dice.gauss(0, far)}
        if far > 0.01 and dice.random() < 0.15:
            changed["panel"] = dice.choice(names)
        design = replace_at(design, path, rebuilt(mount, **changed))
    return design


def _braces(dice, design):
    """None, or a plate across the case somewhere, with a window or without."""
    axis = dice.choice("xyz")
    inside = inside_of(shape_of(design.box.case))
    k = "xyz".index(axis)
    at = float(inside.low[k]) + dice.uniform(0.1, 0.9) * float(inside.size[k])
    wide = [float(inside.size["xyz".index(a)]) * dice.uniform(0.2, 0.5) for a in ACROSS[axis]]
    if dice.random() < 0.7:
        whole = dice.random() < 0.3
        yield Brace(axis=axis, at=at, divider=whole, window_a=wide[0], window_b=wide[1])


def _one(dice, result, number):
    design = random_case(dice)
    drawing = drawing_of(assess(design))
    spots = spots_of(drawing)
    where = f"{number} ({design.box.case.shape.kind})"
    _pairs(drawing, spots, result, where)
    clear = not any(s.impossible for s in spots)
    if clear:
        _air(drawing, result, where)
    try:
        meshes = shell_meshes(drawing)
    except FirecrestError as error:
        if clear:
            result.fail(f"{where}: {error}")
        return
    result.facts["meshes"] += 1
    _shell(drawing, meshes, result, where)


def _hull(points):
    from manifold3d import Manifold

    return Manifold.hull_points(np.asarray(points, dtype=float).reshape(-1, 3))


def _solid(solid):
    from manifold3d import Manifold

    return Manifold.batch_boolean([_hull(p) for p in solid.pieces], _add())


def _add():
    from manifold3d import OpType

    return OpType.Add


def _pairs(drawing, spots, result, where):
    """What meets is told, and what is told meets."""
    told = {frozenset(s.paths) for s in spots if s.kind == "pair" and s.impossible}
    solids = {s.path: (s, s.solid()) for s in drawing.sited}
    for (_, (one, a)), (_, (other, b)) in combinations(solids.items(), 2):
        if a is None or b is None or one.part.mount.chamber != other.part.mount.chamber:
            continue
        result.facts["pairs compared"] += 1
        common = (_solid(a) ^ _solid(b)).volume()
        pair = frozenset((one.path, other.path))
        if common > FLAT and pair not in told:
            result.fail(f"{where}: {one.part.name} and {other.part.name} meet, not told")
        if common == 0 and pair in told:
            near = next(s for s in spots if frozenset(s.paths) == pair and s.kind == "pair")
            if near.gap < -DEEP or _apart(a, b) > DEEP:
                result.fail(f"{where}: {one.part.name} and {other.part.name} told to meet")


def _apart(a, b):
    """Least distance by the other library, m."""
    return _solid(a).min_gap(_solid(b), 0.1)


def _air(drawing, result, where):
    """Inside, and the openings, less everything in it."""
    shape = drawing.rolled.shape
    if isinstance(shape, Vase):
        return
    inside = _hull(cloud(shape, inside=True))
    openings, filled = [], []
    for s in drawing.sited:
        cut = core.cut_of(s.part)
        if isinstance(s.part, core.Driver | core.Radiator):
            seal = float(core.seal_plane(s.part, s.at.t))
            openings.append(_hull(prism(s.at, cut, seal, float(s.at.t))))
        solid = s.solid(swept=False)
        if solid is not None:
            filled.append(_solid(solid))
    filled += [_solid(standing.solid) for standing in drawing.standing]
    air = inside
    for body in openings:
        air += body
    for body in filled:
        air -= body
    (room,) = drawing.rolled.rooms.values()
    stated = sum(float(core.air_taken(s.part) - core.solid_volume(s.part)) for s in drawing.sited)
    loose = sum(float(v) for k, v in room.taken.items() if k == "other")
    for thing in drawing.rolled.things:
        if thing.loose and thing.kind != "other":
            loose += float(thing.item.count * thing.item.volume * thing.loose)
    said = float(room.net) + stated + loose
    result.facts["air compared"] += 1
    if abs(air.volume() - said) > AIR * said:
        result.fail(f"{where}: {1e3 * said:.4f} L by the ledger, {1e3 * air.volume():.4f} L solid")


def _shell(drawing, meshes, result, where):
    """Closed pieces that are the ledger's shell, with its middle."""
    body = shell_body(drawing.shell, [s.part for s in drawing.sited])
    volume, moment = 0.0, np.zeros(3)
    for mesh in meshes:
        edges = np.concatenate([mesh.triangles[:, k] for k in ([0, 1], [1, 2], [2, 0])])
        there = {(int(a), int(b)) for a, b in edges}
        if len(there) != len(edges) or any((b, a) not in there for a, b in there):
            result.fail(f"{where}: {mesh.name} is not closed")
        a, b, c = (mesh.vertices[mesh.triangles[:, k]] / 1e3 for k in range(3))
        wedge = np.sum(a * np.cross(b, c), axis=1) / 6
        volume += float(wedge.sum())
        moment += ((a + b + c) / 4 * wedge[:, None]).sum(axis=0)
    if abs(volume - float(body.volume)) > SHELL * volume:
        result.fail(f"{where}: shell {1e6 * volume:.1f} cm3, {1e6 * float(body.volume):.1f} told")
    off = np.abs(moment / volume - np.array([float(c) for c in body.centre]))
    if off.max() > SHELL * max(float(s) for s in drawing.shell.size):
        result.fail(f"{where}: the shell's middle is {1e3 * off.max():.2f} mm off")
