"""Everything of a design that is uncertain, as families of figures; which place takes which draw.

Each place of the design has its own columns of the sequence, so that two designs that share a part
share its draws: what differs between them is then what they differ in, not luck.
"""

from collections.abc import Iterator

import numpy as np

from firecrest.assessment.doubt.family import Column, Family, alone
from firecrest.assessment.doubt.parts import TESTS, Fitted, driver_family, radiator_family
from firecrest.assessment.wiring import driver_count, wiring_of
from firecrest.core.acoustics.losses import damping_of, tightness_of
from firecrest.design.amplifiers import Amplifier
from firecrest.design.box import Chamber, Port, RadiatorSet, placed
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.sheet import Sheet, tolerance_of
from firecrest.design.sources import Pack
from firecrest.design.tolerances import Tolerances

Families = Iterator[Family]
GROUP, OPENING, CHAMBER, BOARD, CELL = 12, 10, 4, 8, 6
"""Columns of the sequence for each element."""
SURROUNDINGS, DENSITY, THICKNESS = 0, 1, 2
FIRST = {"groups": 3, "openings": 15, "chambers": 25, "boards": 29, "cell": 37}
"""Where those of the first element of each kind begin: in the best spread part of the sequence."""
SECOND = {"groups": 43, "openings": 64, "chambers": 74, "boards": 86}
LATER = {"groups": 190, "openings": 262, "chambers": 74, "boards": 86}
WIDTH = {"groups": GROUP, "openings": OPENING, "chambers": CHAMBER, "boards": BOARD}
BOARD_TESTS = {"idle_current": "draw", "power": "draw", "mass": "scales", "price": "bill"}
Q_MOST, STUFFING_MOST = 2000.0, 0.3


def families(design: Design) -> tuple[Family, ...]:
    """What is uncertain in ``design``; figures without doubt (a tolerance of 0) are left out."""
    found = (
        *_surroundings(design),
        *_groups(design),
        *_openings(design),
        *_chambers(design),
        *_boards(design),
        *_cell(design),
    )
    return tuple(f for f in found if np.any(f.spread))


def _dimension(kind: str, place: int) -> int:
    """First column of the sequence of the element at ``place`` of its kind."""
    if place == 0:
        return FIRST[kind]
    if place == 1:
        return SECOND[kind]
    step = place - (2 if LATER[kind] != SECOND[kind] else 1)
    return LATER[kind] + step * WIDTH[kind]


def _surroundings(design: Design) -> Families:
    """The air, and the panels of the case."""
    likely, case = design.brief.tolerances, ("box", "case")
    warmth = ("brief", "conditions", "temperature")
    column = Column(SURROUNDINGS, figures=(warmth,), logarithmic=False, least=200.0, most=350.0)
    yield alone("", "temperature", warmth, "thermometer", likely.temperature, column)
    for name, share, place, test in (
        ("density", likely.panel_density, DENSITY, "scales"),
        ("wall", likely.panel_thickness, THICKNESS, "rule"),
    ):
        path = (*case, name)
        yield alone("panels", name, path, test, share, Column(place, figures=(path,)))


def _groups(design: Design) -> Families:
    """Drivers: equal ones share their draws, wherever they sit."""
    wiring = wiring_of(design.voice.channels)
    likely, groups = design.brief.tolerances, design.box.groups
    first: dict[int, list[int]] = {}
    for k, group in enumerate(groups):
        alike = next((j for j in first if groups[j].driver == group.driver), k)
        first.setdefault(alike, []).append(k)
    for k, places in first.items():
        part, path = groups[k].driver, ("box", "groups", k, "driver")
        numbers = tuple(("box", "groups", j, "driver") for j in places)
        units = sum(driver_count(groups[j], wiring) for j in places)
        dimension = _dimension("groups", k)
        found = driver_family(part, Fitted(path, numbers, dimension, units))
        if found is not None:
            yield found
        yield from _body(part, path, numbers, dimension + 9)
        if part.r_tv is None or part.r_tm is None:
            heat = tuple((*n, "thermal", name) for n in numbers for name in ("coil", "motor"))
            yield alone(
                part.name,
                "r_tv",
                (*path, "r_tv"),
                "heat",
                likely.coil_heat,
                Column(dimension + 11, inputs=heat),
            )


def _body(part: Sheet, path: Path, numbers: tuple[Path, ...], dimension: int) -> Families:
    """Weight and price of a part, where their origin is stated."""
    for k, name in enumerate(("mass", "price")):
        share = tolerance_of(part, name)
        if share is not None:
            places = tuple((*n, "bulk", name) for n in numbers)
            column = Column(dimension + k, inputs=places)
            yield alone(part.name, name, (*path, name), TESTS[name], share, column)


def _openings(design: Design) -> Families:
    openings, likely = design.box.openings, design.brief.tolerances
    for k, item in placed(openings, RadiatorSet):
        place: Path = ("box", "openings", k)
        path, dimension = (*place, "radiator"), _dimension("openings", k)
        found = radiator_family(item.radiator, Fitted(path, (place,), dimension, item.count))
        if found is not None:
            yield found
        yield from _body(item.radiator, path, ((*place, "radiator"),), dimension + 5)
    ports = placed(openings, Port)
    for k, port in ports:
        place = ("box", "openings", k)
        dimension = _dimension("openings", k)
        end = (*place, "end_correction")
        column = Column(dimension, inputs=(end,))
        yield alone(port.id, "end_correction", end, "tuning", likely.port_ends, column)
        if port.speed_limit is not None:
            path = (*place, "speed_limit")
            column = Column(dimension + 1, figures=(path,))
            yield alone(port.id, "speed_limit", path, "listen", likely.port_speed, column)
    if ports and design.brief.edges.turbulence:
        # One rule gives the loss of all of them.
        k = ports[0][0]
        path = ("box", "openings", k, "edges")
        column = Column(_dimension("openings", k) + 3, inputs=(("box", "air_loss"),))
        yield alone(ports[0][1].id, "edges", path, "listen", likely.port_loss, column)
    for k, port in ports:
        if port.speed_limit is None:
            # One rule gives the limits of all of them: they are off together.
            path = ("box", "openings", k, "speed_limit")
            column = Column(_dimension("openings", k) + 2, inputs=(("box", "air_speed"),))
            share = likely.port_speed_estimate
            yield alone(port.id, "speed_limit", path, "listen", share, column)
            return


def _chambers(design: Design) -> Families:
    for k, chamber in enumerate(design.box.chambers):
        yield from _chamber(
            chamber, ("box", "chambers", k), _dimension("chambers", k), design.brief.tolerances
        )


def _chamber(chamber: Chamber, place: Path, dimension: int, likely: Tolerances) -> Families:
    """Leak, absorption, what stuffing adds, and a measured volume."""
    owner = chamber.name
    for k, (name, word, share) in enumerate(
        (
            ("leak_q", "seal", _leak_range(chamber, likely)),
            ("absorption_q", "in the box", _absorption_range(chamber, likely)),
            ("leak_resistance", "seal", likely.losses),
            ("fill_resistivity", "in the box", likely.fibre),
        )
    ):
        overruled = name == "leak_q" and chamber.leak_resistance is not None
        if getattr(chamber, name) is not None and not overruled:
            path, own = (*place, name), dimension + k % 2
            yield alone(owner, name, path, word, share, Column(own, figures=(path,)))
    path = (*place, "stuffing")
    share = _stuffing_range(chamber, likely)
    column = Column(
        dimension + 2, figures=(path,), logarithmic=False, least=0.0, most=STUFFING_MOST
    )
    if chamber.fill_resistivity is None and share > 0:
        yield alone(owner, "stuffing", path, "in the box", share, column)
    if chamber.stated_volume is not None:
        path = (*place, "stated_volume")
        column = Column(dimension + 3, figures=(path,))
        yield alone(owner, "stated_volume", path, "water", likely.measured_air, column)


def _leak_range(chamber: Chamber, likely: Tolerances) -> float:
    """Share either way: of the words a leak was chosen by, else as typed."""
    words = tightness_of(chamber.leak_q)
    return likely.losses if words is None else (words.high / words.low) ** 0.5 - 1.0


def _absorption_range(chamber: Chamber, likely: Tolerances) -> float:
    words = damping_of(chamber.stuffing, chamber.absorption_q)
    if words is None:
        return likely.losses
    _, loose, dense = words.absorption_q
    return float((loose / dense) ** 0.5 - 1.0)


def _stuffing_range(chamber: Chamber, likely: Tolerances) -> float:
    """Of the share of air that stuffing adds, either way."""
    words = damping_of(chamber.stuffing, chamber.absorption_q)
    if words is None:
        return likely.stuffing * chamber.stuffing
    _, low, high = words.stuffing
    return (high - low) / 2.0


def _boards(design: Design) -> Families:
    """What boards draw, weigh and cost; claims and losses of amplifiers."""
    for k, board in enumerate(design.power.boards):
        part, path = board.part, ("power", "boards", k, "part")
        dimension = _dimension("boards", k)
        for n, (name, test) in enumerate(BOARD_TESTS.items()):
            share = tolerance_of(part, name) if getattr(part, name, None) else None
            if share is not None:
                place = (*path, name)
                column = Column(dimension + n, figures=(place,))
                yield alone(part.name, name, place, test, share, column)
    for n, (k, board) in enumerate(design.power.amplifiers):
        yield from _amplifier(board.part, k, n, design.brief.tolerances)


def _amplifier(part: Amplifier, place: int, number: int, likely: Tolerances) -> Families:
    """Claims and losses of the board at ``place``, the amplifier ``number``."""
    path, dimension = ("power", "boards", place, "part"), _dimension("boards", place)
    claims: list[Path] = [(*path, "claims", n, "power") for n in range(len(part.claims))]
    for k, kind in enumerate(part.other_outputs):
        own = (*path, "other_outputs", k, "claims")
        claims += [(*own, n, "power") for n in range(len(kind.claims))]
    share = tolerance_of(part, "claims")
    share = likely.amplifier_power if share is None else share
    column = Column(dimension + 4, figures=tuple(claims))
    yield alone(part.name, "claims", claims[0], "load", share, column)
    kinds = ("power", "amplifiers", number, "kinds")
    losses = tuple((*kinds, n, "loss") for n in range(1 + len(part.other_outputs)))
    column = Column(dimension + 5, inputs=losses)
    share = likely.amplifier_losses
    yield alone(part.name, "efficiency", (*path, "efficiency"), "load", share, column)


def _cell(design: Design) -> Families:
    """Capacity and resistance of cells."""
    source, likely = design.power.source, design.brief.tolerances
    if not isinstance(source, Pack):
        return
    cell, path = source.cell, ("power", "source", "cell")
    used = source.health < 1.0 or cell.origins.get("capacity") == "estimate"
    share = likely.cell_capacity_aged if used else likely.cell_capacity
    place, dimension = (*path, "capacity"), FIRST["cell"]
    column = Column(dimension, figures=(place,))
    yield alone(cell.name, "capacity", place, "discharge", share, column)
    rows = tuple(
        ("power", "source", "cell", "table", "resistance", n) for n in range(len(cell.table))
    )
    column = Column(dimension + 1, inputs=rows)
    share = likely.cell_resistance
    yield alone(cell.name, "resistance", (*path, "table"), "discharge", share, column)
    yield from _body(cell, path, (path,), dimension + 2)
