"""The parts in use as cards, their figures in groups, and what follows from them."""

import dataclasses
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet import driver_count, wiring_of
from firecrest.assessment.figures import SYMBOLS, derivation_of, radiator_figures
from firecrest.core.acoustics.driver import half_space_sensitivity
from firecrest.core.units import THIN_SPACE, figure, shown
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, value_at
from firecrest.design.fields import field_facts
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.present.words import decibels, source_name

FIGURES = {
    "DriverPart": (
        (
            "Small signal",
            (
                "re",
                "le",
                "fs",
                "qes",
                "qms",
                "qts",
                "vas",
                "sd",
                "bl",
                "mms",
                "cms",
                "rms",
                "l2",
                "r2",
            ),
        ),
        ("Limits and body", ("xmax", "xmech", "pe", "displacement", "frame", "mass", "price")),
    ),
    "RadiatorPart": (
        ("Moving part", ("sd", "mmp", "cmp", "rmp", "fp", "qmp", "xmax")),
        ("Body", ("displacement", "frame", "mass", "price")),
    ),
    "Amplifier": (
        ("Board", ("gain", "current_limit", "idle_current", "cut_off", "channels")),
        ("Body", ("volume", "mass", "price")),
    ),
    "DspBoard": (
        ("Board", ("full_scale", "sample_rate", "filters", "power", "regulator")),
        ("Body", ("volume", "mass", "price")),
    ),
    "Cell": (
        ("Cell", ("capacity", "max_current", "cut_off")),
        ("Body", ("volume", "mass", "price")),
    ),
    "WallSupply": (
        ("Supply", ("voltage", "resistance", "continuous_current", "burst_current")),
        ("Body", ("mass", "price")),
    ),
}


@dataclass(frozen=True)
class PartCard:
    """One part in use, in chain order."""

    path: Path
    kind: str
    name: str
    count: str
    cost: str
    origins: Mapping[str, int]
    spare: str
    short: bool


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
    for k, item in enumerate(design.box.radiators):
        found.append(
            _card(
                ("box", "radiators", k, "radiator"),
                "Radiators",
                item.radiator,
                f"× {item.count}",
                spares["radiators"],
            )
        )
    power = design.power
    found.append(
        _card(("power", "amplifier"), "Amplifier", power.amplifier, "one", spares["amplifier"])
    )
    found.append(_card(("power", "dsp"), "DSP", power.dsp, "one", spares["dsp"]))
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
    return found


def _card(path: Path, kind: str, part: Any, count: str, spare: float | None) -> PartCard:
    cost = f"{shown(part.price, 'money', '€', 0)} each, {shown(part.mass, 'mass', 'g', 0)}"
    origins = Counter(getattr(part, "origins", {}).values())
    text = "–" if spare is None else decibels(spare)
    short = spare is not None and spare < 0
    return PartCard(path, kind, part.name, count, cost, origins, text, short)


def totals(assessment: Assessment) -> str:
    """Parts, money and weight in all."""
    count = sum(i.count for i in assessment.cabinet.items)
    return (
        f"{count} pieces with the case, {shown(assessment.cabinet.price, 'money', '€', 0)}, "
        f"{shown(assessment.cabinet.mass, 'mass', 'kg', 2)}"
    )


def spare_at(assessment: Assessment) -> str:
    """Where the cards' dB are compared."""
    a = assessment.acoustic
    return f"dB to spare at {a.worst_frequency:.0f}{THIN_SPACE}Hz" if a else ""


def figure_groups(design: Design, path: Path) -> list[tuple[str, list[Path]]]:
    """(title, paths) of a part's figures; a driver's also say how it is wired."""
    part = value_at(design, path)
    groups: list[tuple[str, list[Path]]] = [
        (title, [(*path, name) for name in names]) for title, names in FIGURES[type(part).__name__]
    ]
    if path[-1] == "driver":
        wiring: list[Path] = [(*path[:-1], name) for name in ("in_series", "in_parallel")]
        groups[1] = (groups[1][0], [*groups[1][1], *wiring])
    return groups


@dataclass(frozen=True)
class Derived:
    """Rows (symbol, value, formula) that follow, and notes on gaps and contradictions."""

    rows: list[tuple[str, str, str]]
    notes: list[str]


def derived(design: Design, path: Path) -> Derived:
    """What follows from a part's figures, contradictions in words and per cent, and gaps."""
    part = value_at(design, path)
    if isinstance(part, DriverPart):
        return _driver(part)
    if isinstance(part, RadiatorPart):
        return _radiator(part)
    return Derived([], [])


def show_figure(model: type, name: str, value: float) -> str:
    """A figure with its unit, by the declaration of its field."""
    facts = field_facts(model, name)
    return f"{value:.4g}" if facts is None else facts.show(value)


def _driver(part: DriverPart) -> Derived:
    derivation = derivation_of(part)
    rows = [
        (SYMBOLS[key], show_figure(DriverPart, key, derivation.figures[key]), relation.text)
        for key, relation in derivation.derived.items()
        if getattr(part, key) is None
    ]
    if all(k in derivation.figures for k in ("fs", "vas", "qes")):
        level = half_space_sensitivity(derivation.figures)
        rows.append(("1 W, 1 m", f"{figure(level, 1)} dB", "half space, into Re"))
    notes = [
        f"{SYMBOLS[c.figure]} from {_and([SYMBOLS[n] for n in c.needs])} gives "
        f"{show_figure(DriverPart, c.figure, c.derived)}, the sheet says "
        f"{show_figure(DriverPart, c.figure, c.stated)}: {100 * c.apart:.0f} % apart. "
        f"{SYMBOLS[c.figure]} is not used."
        for c in derivation.contradictions
    ]
    if derivation.missing:
        gaps = _and([SYMBOLS[m] for m in derivation.missing])
        notes.append(f"Not known yet: {gaps}. Loudness and bass reach wait for it.")
    notes += [
        f"{SYMBOLS[k]} is not known: loudness waits for it."
        for k in ("xmax", "pe")
        if getattr(part, k) is None
    ]
    return Derived(rows, notes)


def _radiator(part: RadiatorPart) -> Derived:
    figures = radiator_figures(part)
    names = {f.name for f in dataclasses.fields(RadiatorPart)}
    rows = [
        (SYMBOLS[k], show_figure(RadiatorPart, k, v), "from resonance and Q")
        for k, v in figures.items()
        if v is not None and k in names and getattr(part, k) is None
    ]
    mass, compliance = figures["mmp"], figures["cmp"]
    if mass and compliance:
        resonance = (mass * compliance) ** -0.5 / 6.283185307179586
        rows.append(("Fp", f"{figure(resonance, 1)} Hz", "free, without added mass"))
    notes = []
    if gaps := [SYMBOLS[k] for k, v in figures.items() if v is None]:
        notes.append(f"Not known yet: {_and(gaps)}.")
    if part.xmax is None:
        notes.append("Travel is not known: taken as twice the drivers' displacement, ±40 %.")
    return Derived(rows, notes)


def _and(names: list[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
