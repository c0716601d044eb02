"""Edits of what stands where in a case, and of its shape, braces, feet and fittings."""

from collections.abc import Sequence

from firecrest.core.cabinet.materials import FILAMENTS, MATERIALS
from firecrest.core.errors import DesignError
from firecrest.design.case import Feet, Fitting, Printing
from firecrest.design.design import Design
from firecrest.design.edits.case import material_in_force, with_material
from firecrest.design.edits.outline import SHAPE, outline_point, with_outline_point
from firecrest.design.edits.paths import Path, rebuilt, replace_at, set_number, value_at
from firecrest.design.ids import fresh
from firecrest.design.mount import Mount

CASE: Path = ("box", "case")
STEP = 1e-4
"""m to which places are kept."""


def place_at(design: Design, path: Path) -> tuple[float, float]:
    """(u, v) of the place at ``path``, or (across, up) of a point of the case's outline."""
    if path[:3] == SHAPE:
        return outline_point(design, path)
    mount: Mount = value_at(design, path)
    return mount.u, mount.v


def moved(design: Design, path: Path, u: float, v: float) -> Design:
    """The place at ``path`` moved to (u, v) on its panel; or a point of the outline."""
    if path[:3] == SHAPE:
        return with_outline_point(design, path, u, v)
    mount: Mount = value_at(design, path)
    return replace_at(design, path, rebuilt(mount, u=kept(u), v=kept(v)))


def kept(value: float) -> float:
    """A measure of a place as it is kept."""
    return round(value / STEP) * STEP


def without_places(design: Design) -> tuple[str, Design]:
    """(label, design) with nothing in a place."""
    for kind in ("groups", "openings"):
        for k, item in enumerate(getattr(design.box, kind)):
            if item.mounts:
                design = replace_at(design, ("box", kind, k, "mounts"), ())
    for k, board in enumerate(design.power.boards):
        if board.mount is not None:
            design = replace_at(design, ("power", "boards", k, "mount"), None)
    source = design.power.source
    if source.kind == "pack" and source.mount is not None:
        design = replace_at(design, ("power", "source", "mount"), None)
    return "Take all places back", design


def on_panel(design: Design, path: Path, panel: str) -> tuple[str, Design]:
    """(label, design) with a part on the middle of another panel."""
    mount: Mount = value_at(design, path)
    made = replace_at(design, path, rebuilt(mount, panel=panel, u=0.0, v=0.0))
    return f"Move to the {panel}", made


def mirrored(design: Design, path: Path) -> tuple[str, Design]:
    """(label, design) with the other one of a pair at the mirrored place."""
    if path[-2] != "mounts":
        raise DesignError("Only drivers, radiators and ports come in pairs.")
    mounts: tuple[Mount, ...] = value_at(design, path[:-1])
    place = int(path[-1])
    if len(mounts) != 2:
        raise DesignError(f"A pair is mirrored; here are {len(mounts)}.")
    own, other = mounts[place], 1 - place
    twin = rebuilt(mounts[other], panel=own.panel, u=-own.u, v=own.v, rot=-own.rot)
    if own.panel in SIDES:
        twin = rebuilt(twin, panel=SIDES[own.panel], u=-own.u)
    return "Mirror the pair", replace_at(design, (*path[:-1], other), twin)


SIDES = {"left": "right", "right": "left"}


WORDS = {
    "box": "box",
    "taper": "tapered box",
    "prism": "wedge or outline",
    "cylinder": "cylinder",
    "ball": "ball",
    "vase": "turned profile",
    "stack": "stacked layers",
}


def with_feet(design: Design, *, on: bool) -> tuple[str, Design]:
    """(label, design) with feet, or without."""
    return ("Add feet" if on else "Remove feet"), replace_at(
        design, (*CASE, "feet"), Feet() if on else None
    )


FITTINGS = {
    "plate": Fitting(
        kind="plate",
        name="Control plate",
        mount=Mount(panel="back"),
        width=0.06,
        height=0.04,
        corner=0.005,
        depth=0.003,
        mass=0.03,
    ),
    "terminal": Fitting(name="Terminal cup"),
    "handle": Fitting(
        kind="handle",
        name="Handle cup",
        mount=Mount(panel="top"),
        width=0.1,
        height=0.024,
        corner=0.008,
        depth=0.018,
    ),
    "knob": Fitting(
        kind="knob", name="Knob", mount=Mount(panel="back"), round=True, width=0.0072, mass=0.02
    ),
}


def add_fitting(design: Design, kind: str) -> tuple[str, Design]:
    """(label, design) with a terminal, handle, knob or control plate in a panel."""
    fittings = design.box.case.fittings
    made = rebuilt(
        FITTINGS[kind], id=fresh([f.id for f in fittings], kind), chamber=design.box.chambers[0].id
    )
    label = f"Add {made.name.lower()}"
    return label, replace_at(design, (*CASE, "fittings"), (*fittings, made))


def remove_fitting(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without one of the fittings."""
    fittings = design.box.case.fittings
    kept = (*fittings[:place], *fittings[place + 1 :])
    return f"Remove {fittings[place].name}", replace_at(design, (*CASE, "fittings"), kept)


def printed(design: Design, *, on: bool) -> tuple[str, Design]:
    """(label, design) of a printed case, or of sheets, of a material that can be so made."""
    label = "Print the case" if on else "Make the case of sheets"
    place = material_in_force(design)
    filament = place is not None and list(MATERIALS)[place] in FILAMENTS
    if filament != on:
        _, design = with_material(design, FILAMENTS[0] if on else next(iter(MATERIALS)))
    return label, replace_at(design, (*CASE, "printing"), Printing() if on else None)


def placed_paths(design: Design) -> Sequence[Path]:
    """Where every place stands."""
    found: list[Path] = []
    for kind in ("groups", "openings"):
        for k, item in enumerate(getattr(design.box, kind)):
            found += [("box", kind, k, "mounts", n) for n in range(len(item.mounts))]
    for k, board in enumerate(design.power.boards):
        if board.mount is not None:
            found.append(("power", "boards", k, "mount"))
    source = design.power.source
    if source.kind == "pack" and source.mount is not None:
        found.append(("power", "source", "mount"))
    found += [("box", "case", "inner", k, "mount") for k in range(len(design.box.case.inner))]
    found += [("box", "case", "fittings", k, "mount") for k in range(len(design.box.case.fittings))]
    return found


FILLINGS = {"water": 998.0, "rice": 850.0, "dry sand": 1600.0}
"""kg/m3 of what a case is filled with to measure its air; rice and sand as poured, estimates."""


def measured_by_filling(
    design: Design, place: int, filling: str, mass: float
) -> tuple[str, Design]:
    """(label, design) with a chamber's measured volume: ``mass`` kg of what filled it."""
    if mass <= 0:
        raise DesignError("What was filled in has to weigh more than nothing.")
    chamber = design.box.chambers[place]
    volume = mass / FILLINGS[filling]
    path: Path = ("box", "chambers", place, "stated_volume")
    return f"Measured volume of {chamber.name}", set_number(design, path, volume)


def not_measured(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) with a chamber's air by the drawing again."""
    return "Air by the drawing", replace_at(
        design, ("box", "chambers", place, "stated_volume"), None
    )
