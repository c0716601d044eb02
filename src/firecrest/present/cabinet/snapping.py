"""Where a dragged part comes to rest: the middle, in line with others, equal margins, a grid."""

from collections.abc import Iterable, Sequence

from firecrest.assessment.cabinet.drawing import Drawing, Sited
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.cutouts import framed, half_size
from firecrest.design.edits.paths import Path

GRID = 1e-3


def snapped(drawing: Drawing, path: Path, u: float, v: float, reach: float) -> tuple[float, float]:
    """(u, v) in m near the place asked for: what is within ``reach`` draws it, else a 1 mm grid."""
    own = next((s for s in drawing.sited if s.path == path), None)
    if own is None:
        return u, v
    panel = own.part.mount.panel
    others = [s for s in drawing.sited if s.path != path and s.part.mount.panel == panel]
    field = drawing.shell.fields.get(panel)
    found = []
    for k, at in enumerate((u, v)):
        lines = _lines(own, others, k)
        if field is not None and field.r is None:
            half = float(field.a if k == 0 else field.b) / 2
            lines += _margins(own, others, half, k)
        found.append(_drawn(at, lines, reach))
    return found[0], found[1]


def _lines(own: Sited, others: Iterable[Sited], k: int) -> list[float]:
    """The middle, and others on the panel, as they are and mirrored."""
    del own
    lines = [0.0]
    for s in others:
        at = float((s.part.mount.u, s.part.mount.v)[k])
        lines += [at, -at]
    return lines


def _margins(own: Sited, others: Sequence[Sited], half: float, k: int) -> list[float]:
    """Places with equal margins: to both edges of the panel, or to an edge and a neighbour."""
    size = _half(own, k)
    lines = []
    for s in others:
        at, reach = float((s.part.mount.u, s.part.mount.v)[k]), _half(s, k)
        lines += [(at + reach + half) / 2, (at - reach - half) / 2]
    return [line for line in lines if abs(line) + size <= half]


def _half(s: Sited, k: int) -> float:
    part = s.part
    if isinstance(part, core.Driver | core.Radiator):
        return float(half_size(framed(part.cut, part.frame))[k])
    cut = core.cut_of(part)
    if cut is not None:
        return float(half_size(cut)[k])
    size = getattr(part, "size", (0.0, 0.0, 0.0))
    return float(size[k]) / 2


def _drawn(at: float, lines: Iterable[float], reach: float) -> float:
    near = min(lines, key=lambda line: abs(line - at), default=at)
    return near if abs(near - at) <= reach else round(at / GRID) * GRID
