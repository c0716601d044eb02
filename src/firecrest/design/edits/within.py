"""Edits of what is built into a case: boxes of their own within it, and a grille."""

from math import cos, sin

from firecrest.core.errors import DesignError
from firecrest.design.case_within import Grille, InnerBox
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import CASE, kept
from firecrest.design.edits.paths import Path, rebuilt, replace_at
from firecrest.design.ids import fresh
from firecrest.design.mount import Mount


def with_grille(design: Design, *, on: bool) -> tuple[str, Design]:
    """(label, design) with a grille before the front, or without."""
    made = Grille() if on else None
    return ("Add grille" if on else "Remove grille"), replace_at(design, (*CASE, "grille"), made)


SPARE, PLUG = 0.006, 0.015
"""m left round boards in their chamber, and in front of them for plugs."""


def add_amplifier_chamber(design: Design) -> tuple[str, Design]:
    """(label, design) with a box round the boards that have a place on the panel with most.

    DesignError while no board has a place and its sides, and where the box would be too large.
    """
    standing = [b for b in design.power.boards if b.mount is not None and _sides(b.part)]
    if not standing:
        raise DesignError(
            "Give the boards their places first, and their length, width and height in Parts."
        )
    panels = [b.mount.panel for b in standing if b.mount is not None]
    panel = max(dict.fromkeys(panels), key=panels.count)
    low, high, deep = [9.0, 9.0], [-9.0, -9.0], 0.0
    for board in standing:
        mount, sides = board.mount, _sides(board.part)
        if mount is None or sides is None or mount.panel != panel:
            continue
        a, b, c = sides
        cos_r, sin_r = abs(cos(mount.rot)), abs(sin(mount.rot))
        half = (a * cos_r + b * sin_r) / 2, (a * sin_r + b * cos_r) / 2
        for k, at in enumerate((mount.u, mount.v)):
            low[k], high[k] = min(low[k], at - half[k]), max(high[k], at + half[k])
        deep = max(deep, mount.standoff + c)
    usual = InnerBox()
    around = 2 * (usual.wall + SPARE)
    ids = [box.id for box in design.box.case.inner]
    made = rebuilt(
        usual,
        id=fresh(ids, "inner"),
        mount=Mount(panel=panel, u=kept((low[0] + high[0]) / 2), v=kept((low[1] + high[1]) / 2)),
        chamber=design.box.chambers[0].id,
        width=round(high[0] - low[0] + around, 3),
        height=round(high[1] - low[1] + around, 3),
        depth=round(deep + PLUG + usual.wall, 3),
    )
    path: Path = (*CASE, "inner")
    return "Add amplifier chamber", replace_at(design, path, (*design.box.case.inner, made))


def _sides(part: object) -> tuple[float, float, float] | None:
    """A board's sides along its panel and off it; None where one is not known."""
    found = [getattr(part, name, None) for name in ("length", "width", "height")]
    if any(side is None for side in found):
        return None
    return float(found[0]), float(found[1]), float(found[2])  # type: ignore[arg-type]


def add_inner_box(design: Design) -> tuple[str, Design]:
    """(label, design) with a box of its own behind the front, round the driver of a chamber.

    It becomes the last chamber that is not an inner box yet, where there are several.
    """
    case, chambers = design.box.case, design.box.chambers
    taken = {box.holds for box in case.inner}
    free = [c for c in chambers[1:] if c.id not in taken]
    holds = free[-1].id if free else ""
    mounts = [m for g in design.box.groups if g.chamber == holds for m in g.mounts]
    place = Mount(panel=mounts[0].panel, u=mounts[0].u, v=mounts[0].v) if mounts else Mount()
    name = free[-1].name if free else "Inner box"
    side = round(0.4 * min(case.length, case.height), 3)
    made = rebuilt(
        InnerBox(),
        id=fresh([box.id for box in case.inner], "inner"),
        name=name,
        mount=place,
        chamber=next(c.id for c in chambers if c.id != holds),
        holds=holds,
        width=side,
        height=side,
        depth=round(0.5 * case.depth, 3),
    )
    return "Add inner box", replace_at(design, (*CASE, "inner"), (*case.inner, made))


def remove_inner(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without one of the inner boxes; what stood in it stays where it is."""
    inner = design.box.case.inner
    kept = (*inner[:place], *inner[place + 1 :])
    return f"Remove {inner[place].name.lower()}", replace_at(design, (*CASE, "inner"), kept)
