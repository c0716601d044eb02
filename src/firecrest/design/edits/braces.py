"""Edits of braces, shelves, dowels and dividers; what is mounted on dividers goes with them."""

from collections.abc import Sequence

from firecrest.core.cabinet.braces import WAYS
from firecrest.design.case import Brace
from firecrest.design.case_shape import Axis
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import CASE, placed_paths
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.standing import DIVIDER, is_divider, plate_of

BRACES: Path = (*CASE, "braces")


def add_shelf(design: Design) -> tuple[str, Design]:
    """(label, design) with one more shelf on the back, at two fifths of the height."""
    case = design.box.case
    made = Brace(
        name="Shelf", form="shelf", axis="y", at=round(-case.height / 10, 3), against="back",
        reach=round(0.4 * case.depth, 3),
    )  # fmt: skip
    return "Add shelf", replace_at(design, (*CASE, "braces"), (*case.braces, made))


def add_dowel(design: Design) -> tuple[str, Design]:
    """(label, design) with one more rod, from front to back, off the middle."""
    case = design.box.case
    made = Brace(
        name="Dowel", form="dowel", axis="z", thickness=0.016, spot_a=round(-case.length / 10, 3),
        spot_b=0.0,
    )  # fmt: skip
    return "Add dowel", replace_at(design, (*CASE, "braces"), (*case.braces, made))


def turned_brace(design: Design, place: int, axis: Axis) -> tuple[str, Design]:
    """(label, design) with a brace square to another axis; a shelf stays on a wall beside it."""
    path: Path = (*CASE, "braces", place)
    brace: Brace = value_at(design, path)
    made = rebuilt(brace, axis=axis)
    if WAYS[brace.against] == axis:
        made = rebuilt(made, against="bottom" if axis == "z" else "back")
    return f"Turn {brace.name.lower()}", replace_at(design, path, made)


def add_brace(design: Design) -> tuple[str, Design]:
    """(label, design) with one more brace across the longest way, away from the middle."""
    case = design.box.case
    axis: Axis = "x" if case.length >= max(case.height, case.depth) else "y"
    half = (case.length if axis == "x" else case.height) / 2
    inner_a = case.depth - 2 * case.wall
    inner_b = case.height - 2 * case.wall if axis == "x" else case.length - 2 * case.wall
    window = (0.55 * inner_a, 0.55 * inner_b)
    if axis == "y":
        window = window[1], window[0]
    made = Brace(
        name="Brace",
        axis=axis,
        at=round(-half / 5, 3),
        window_a=round(window[0], 3),
        window_b=round(window[1], 3),
    )
    return "Add brace", replace_at(design, BRACES, (*case.braces, made))


def as_divider(design: Design, on: bool, place: int) -> tuple[str, Design]:
    """(label, design) with a brace made a divider, or a brace again."""
    braces = design.box.case.braces
    made = rebuilt(braces[place], divider=on)
    label = f"{made.name}: {'parts two chambers' if on else 'a brace'}"
    everyone = (*braces[:place], made, *braces[place + 1 :])
    return label, _with_braces(design, everyone, list(range(len(braces))))


def remove_brace(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without one of the braces."""
    braces = design.box.case.braces
    kept = (*braces[:place], *braces[place + 1 :])
    left = [k for k in range(len(braces)) if k != place]
    return f"Remove {braces[place].name}", _with_braces(design, kept, left)


def _with_braces(design: Design, braces: tuple[Brace, ...], kept: Sequence[int]) -> Design:
    """The design with other braces; ``kept``: which of the present ones they were.

    Places on dividers follow their numbers; those on one that is no more are given up.
    """
    before = [k for k, b in enumerate(design.box.case.braces) if b.divider]
    after = [k for k, b in zip(kept, braces, strict=True) if b.divider]
    numbers = {before.index(k): n for n, k in enumerate(after) if k in before}
    for path in reversed(placed_paths(design)):
        mount = value_at(design, path)
        if not is_divider(mount.panel):
            continue
        number = numbers.get(plate_of(mount.panel))
        if number is not None:
            old = f"{DIVIDER}{plate_of(mount.panel) + 1}"
            panel = mount.panel.replace(old, f"{DIVIDER}{number + 1}", 1)
            design = replace_at(design, path, rebuilt(mount, panel=panel))
        elif path[:2] == ("box", "case"):
            continue  # what has to be on an outer panel is told of elsewhere
        elif path[-2] == "mounts":
            others = value_at(design, path[:-1])
            place = int(path[-1])
            design = replace_at(design, path[:-1], (*others[:place], *others[place + 1 :]))
        else:
            design = replace_at(design, path, None)
    return replace_at(design, BRACES, braces)
