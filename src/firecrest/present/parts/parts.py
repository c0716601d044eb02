"""The parts in use as cards, and the figures of a part in groups."""

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from firecrest.assessment.assess import Assessment
from firecrest.assessment.wiring import driver_count, wiring_of
from firecrest.core.units import THIN_SPACE
from firecrest.design.box import RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, value_at
from firecrest.design.sheet import ShelfLink
from firecrest.present.frame.owners import owner_of
from firecrest.present.text.units import told
from firecrest.present.text.words import decibels, source_name
from firecrest.shelf.entry import Entry

FIGURES: dict[str, tuple[tuple[str, tuple[str, ...]], ...]] = {
    "DriverPart": (
        ("Coil and motor", ("re", "le", "bl", "nominal", "pe", "xmax", "xmech", "l2", "r2")),
        ("Moving parts", ("fs", "qms", "qes", "qts", "vas", "sd", "mms", "cms", "rms")),
        (
            "Outside",
            (
                "size",
                "frame",
                "cut_out",
                "flats",
                "depth",
                "magnet_diameter",
                "magnet_height",
                "displacement",
                "mass",
                "price",
                "coils",
            ),
        ),
        ("Heat of the coil", ("coil_diameter", "r_tv", "r_tm", "c_tv", "c_tm")),
    ),
    "RadiatorPart": (
        ("Moving part", ("sd", "mmp", "cmp", "rmp", "fp", "qmp", "xmax")),
        (
            "Outside",
            (
                "size",
                "frame",
                "cut_out",
                "flats",
                "depth",
                "end_diameter",
                "displacement",
                "mass",
                "price",
            ),
        ),
    ),
    "Amplifier": (
        (
            "Board",
            (
                "channels",
                "gain",
                "least_load",
                "current_limit",
                "idle_current",
                "cut_off",
                "highest_supply",
            ),
        ),
        ("Outside", ("length", "width", "height", "volume", "mass", "price")),
    ),
    "DspBoard": (
        ("Board", ("full_scale", "headroom", "sample_rate", "filters", "power", "regulator")),
        ("Outside", ("length", "width", "height", "volume", "mass", "price")),
    ),
    "Cell": (
        ("Cell", ("capacity", "max_current", "cut_off")),
        ("Outside", ("diameter", "length", "volume", "mass", "price")),
    ),
    "WallSupply": (
        ("Supply", ("voltage", "resistance", "continuous_current", "burst_current", "energy")),
        ("Outside", ("mass", "price")),
    ),
}


SHORT_LABELS = {
    "nominal": "Nominal load",
    "le": "Inductance",
    "l2": "Second coil",
    "r2": "Beside it",
    "xmax": "Travel",
    "xmech": "End stop",
    "vas": "Equivalent air",
    "depth": "Depth behind",
    "idle_current": "Idle current",
    "continuous_current": "Continuous",
    "regulator": "Regulator",
    "full_scale": "Full scale",
}
"""Labels where the row is narrow; tooltips and screen readers have the whole one."""


def short_label(name: str) -> str | None:
    """A shorter label of a figure; None to keep its own."""
    return SHORT_LABELS.get(name)


@dataclass(frozen=True)
class PartCard:
    """One part in use, in chain order; ``whose`` tells equal ones apart."""

    path: Path
    kind: str
    name: str
    count: str
    cost: str
    origins: Mapping[str, int]
    spare: str
    short: bool
    whose: str = ""


def cards(assessment: Assessment) -> list[PartCard]:
    """Cards of all parts: drivers, radiators, amplifier, DSP, source."""
    design = assessment.design
    spares = {link.key: link.spare for link in assessment.links}
    found = []
    for k, group in enumerate(design.box.groups):
        count = driver_count(group, wiring_of(design.voice.channels))
        found.append(
            _card(
                ("box", "groups", k, "driver"),
                "Drivers",
                group.driver,
                f"× {count}",
                spares["drivers"],
            )
        )
    for k, item in placed(design.box.openings, RadiatorSet):
        found.append(
            _card(
                ("box", "openings", k, "radiator"),
                "Radiators",
                item.radiator,
                f"× {item.count}",
                spares["radiators"],
            )
        )
    power = design.power
    for k, board in power.amplifiers:
        path: Path = ("power", "boards", k, "part")
        found.append(_card(path, "Amplifier", board.part, "one", spares["amplifier"]))
    dsp: Path = ("power", "boards", power.dsp_place, "part")
    found.append(_card(dsp, "DSP", power.dsp, "one", spares["dsp"]))
    if power.source.kind == "pack":
        source = power.source
        found.append(
            _card(
                ("power", "source", "cell"),
                "Cells",
                source.cell,
                f"{source.series}S {source.parallel}P",
                spares["pack"],
            )
        )
    elif power.source.kind == "wall":
        found.append(
            _card(("power", "source"), "Supply", power.source, source_name(design), spares["pack"])
        )
    return [replace(c, whose=owner_of(design, c.path) or c.name) for c in found]


def _card(path: Path, kind: str, part: Any, count: str, spare: float | None) -> PartCard:
    cost = f"{told(part.price, 'money', '€', 0)} each, {told(part.mass, 'mass', 'g', 0)}"
    origins = Counter(getattr(part, "origins", {}).values())
    text = "–" if spare is None else decibels(spare)
    short = spare is not None and spare < 0
    return PartCard(path, kind, part.name, count, cost, origins, text, short)


def totals(assessment: Assessment) -> str:
    """Parts, money and weight in all."""
    count = sum(i.count for i in assessment.cabinet.items)
    return (
        f"{count} pieces with the case, {told(assessment.cabinet.price, 'money', '€', 0)}, "
        f"{told(assessment.cabinet.mass, 'mass', 'kg', 2)}"
    )


def spare_at(assessment: Assessment) -> str:
    """Where the cards' dB are compared."""
    a = assessment.acoustic
    return f"dB to spare at {a.worst_frequency:.0f}{THIN_SPACE}Hz" if a else ""


def figure_groups(design: Design, path: Path) -> list[tuple[str, list[Path]]]:
    """(title, paths) of a part's figures."""
    part = value_at(design, path)
    return [
        (title, [(*path, name) for name in names]) for title, names in FIGURES[type(part).__name__]
    ]


def off_shelf(part: Any) -> Any:
    """A part without its link to the shelf."""
    return rebuilt(part, shelf=None)


def linked(design: Design, path: Path, entry: Entry) -> tuple[str, Design]:
    """(label, design) whose part at ``path`` is tied to a shelf entry."""
    link = ShelfLink(part=entry.id, revision=entry.revision)
    made = rebuilt(value_at(design, path), shelf=link)
    return f"{entry.name} put on the shelf", replace_at(design, path, made)


def same_figures(part: Any, other: Any) -> bool:
    """Whether two parts are the same but for their links."""
    return bool(off_shelf(part) == off_shelf(other))


def standing(part: Any, in_design: bool, entry: Entry | None) -> str:
    """Where one is: the design's copy or the shelf's part, and how many there are."""
    where = "in this design" if in_design else "on the shelf"
    if entry is None:
        return f"{where}, not on the shelf"
    have = f", have {entry.stock}" if entry.stock else ""
    return f"{where}{have}{', put away' if entry.archived else ''}"
