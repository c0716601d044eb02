"""Room round a thing wherever it goes on its panel, by the boxes that hold the solids."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import cabinet_of
from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.assessment.cabinet.fitted_spots import PLUG
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.cutouts import Rectangle, framed, grown
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.shapes.shell import Shell
from firecrest.core.cabinet.solids import Solid, disc, prism, solid
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.standing import is_divider, plate_of

GRID, FINER, ROUND = 7, 3, 30
"""Places tried each way, how often closer ones; points of a round outline that are looked at."""
ENOUGH = 0.015
"""m of room beyond which more does not count."""
KNOB_RIM, KNOB_DEEP = 0.008, 0.02
"""m round a knob's hole for the knob, and behind its panel for its body: estimates."""
BEFORE = 0.1
"""m before a panel in which nothing goes where a frame is: deeper than any panel is thick."""
UNSEEN = 250.0
"""Hz up to which a drawing that is not seen plays bass."""

Block = tuple[Real, Real]
"""Lowest and highest corner of what a piece fills."""


def roomiest(
    mine: Sequence[Sited], shell: Shell, half: tuple[float, float], known: Sequence[Block]
) -> tuple[float, float, float]:
    """(room, u, v) of the roomiest place over a panel; of equals the nearest to its middle."""
    shares = np.linspace(-0.9, 0.9, GRID)
    every = sorted(((x, y) for x in shares for y in shares), key=lambda s: abs(s[0]) + abs(s[1]))
    shapes = [_shape(s) for s in mine]

    def _better(best: _Found, tried: Iterable[tuple[float, float]]) -> _Found:
        for u, v in tried:
            if best[0] >= ENOUGH:
                break
            u, v = round(float(u), 3), round(float(v), 3)
            room = min(_room(shape, u, v, shell, known) for shape in shapes)
            best = (room, u, v) if room > best[0] + 1e-6 else best
        return best

    best = _better((-np.inf, 0.0, 0.0), ((x * half[0], y * half[1]) for x, y in every))
    step = 0.9 / (GRID - 1)
    for _ in range(FINER):  # around the best, closer every time
        _, u, v = best
        ways = [(u + i * step * half[0], v + j * step * half[1]) for i in WAYS for j in WAYS]
        best = _better(best, ways)
        step /= 2
    return best


_Found = tuple[float, float, float]
WAYS = (0, -1, 1)


def blocks_of(body: Solid) -> list[Block]:
    """The boxes along the axes that hold the pieces of a solid."""
    flat = [piece.reshape(-1, 3) for piece in body.pieces]
    return [(points.min(axis=0), points.max(axis=0)) for points in flat]


def boxes_of(design: Design, path: Path, panel: str = "") -> list[Block]:
    """Those of everything that has a place already, radiators wherever they move.

    The divider that ``panel`` is a face of is left out.
    """
    drawing = Drawing(design.box.case, cabinet_of(design), UNSEEN)
    bodies = [s.solid() for s in drawing.sited if s.path[: len(path)] != path]
    found = [block for body in bodies if body is not None for block in blocks_of(body)]
    for s in drawing.sited:
        free = _kept_free(s)
        if free is not None and s.path[: len(path)] != path:
            found.append((free.min(axis=0), free.max(axis=0)))
    dividers = [b for b in drawing.rolled.braces if b.divider]
    own = dividers[plate_of(panel)] if is_divider(panel) else None
    plates = [s for s in drawing.standing if s.brace != own]
    return found + [block for s in plates for block in blocks_of(s.solid)]


def fronts_of(drawing: Drawing, path: Path) -> list[Block]:
    """What lies on the panels and before them: frames, holes with the room behind a knob's."""
    others = [s for s in drawing.sited if s.path[: len(path)] != path]
    found = []
    for s in others:
        part = s.part
        cut = framed(part.cut, part.frame) if isinstance(part, core.Framed) else core.cut_of(part)
        if cut is not None:
            deep = float(s.at.t) + (KNOB_DEEP if isinstance(part, core.Knob) else 0.0)
            found += blocks_of(solid([prism(s.at, cut, -BEFORE, deep)]))
    return found


@dataclass(frozen=True, eq=False)
class _Shape:
    """A thing at the middle of its panel: points past the inner face, boxes, the panel's axes."""

    own: str
    inside: Real
    blocks: list[Block]
    u: Real
    v: Real


def _shape(s: Sited) -> _Shape:
    body = s.solid()
    if body is None:
        cut = core.cut_of(s.part)
        assert cut is not None
        body = solid([prism(s.at, grown(cut, KNOB_RIM), 0.0, float(s.at.t) + KNOB_DEEP)])
    inward = -np.asarray(s.at.normal, dtype=float)
    points = np.concatenate([_thinned(piece) for piece in body.pieces])
    deep = (points - np.asarray(s.at.o)) @ inward >= float(s.at.t) - 1e-9
    blocks = blocks_of(body)
    beyond = _kept_free(s)
    if beyond is not None:
        deep = np.concatenate([deep, np.ones(len(beyond), dtype=bool)])
        points = np.concatenate([points, beyond])
        blocks.append((beyond.min(axis=0), beyond.max(axis=0)))
    straight = s.at.turned(-float(s.part.mount.rot))
    axes = (np.asarray(way, dtype=float) for way in (straight.u, straight.v))
    return _Shape(s.part.mount.panel, points[deep], blocks, *axes)


def _kept_free(s: Sited) -> Real | None:
    """Points of what has to stay free before a part: a port's end, the plugs of a board."""
    if isinstance(s.part, core.Port) and s.part.slot is None:
        return _free_end(s.part, s.at)
    if isinstance(s.part, core.Board) and s.part.kind == "board":
        a, b, c = s.part.size
        start = float(s.at.t) + float(s.part.standoff) + float(c)
        return prism(s.at, Rectangle(a, b), start, start + PLUG).reshape(-1, 3)
    return None


def _free_end(port: core.Port, at: Frame) -> Real:
    """The bore's length before a port's open end, which has to stay free."""
    stretches, end, ahead = core.middle_line(port, at)
    _, a, b = stretches[-1][-1]
    r = float(port.bore) / 2
    ring = disc(end, a, b, r)[:: 360 // ROUND]
    return np.concatenate([ring, ring + 2 * r * ahead])


def _thinned(piece: Real) -> Real:
    """Points of a piece, of round outlines only some."""
    return np.asarray(piece[:, :: max(piece.shape[1] // ROUND, 1)]).reshape(-1, 3)


def _room(shape: _Shape, u: float, v: float, shell: Shell, known: Sequence[Block]) -> float:
    """Least room of a thing to what is there, and to the walls; negative where it is too tight."""
    shift = u * shape.u + v * shape.v
    least = ENOUGH
    if len(shape.inside):
        moved = shape.inside + shift
        gaps = [float(w.gap(moved).min()) for w in shell.walls if w.name != shape.own]
        least = min(least, *gaps)
    for low, high in shape.blocks:
        for other_low, other_high in known:
            off = np.maximum(other_low - high - shift, low + shift - other_high)
            least = min(least, float(off.max()))
    return least
