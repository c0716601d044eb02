"""Kinds of box: what opens each chamber, and how chambers are laid out; each change one edit."""

from collections.abc import Sequence
from math import pi, sqrt
from typing import Literal, get_args

from firecrest.assessment.figures import wired_driver
from firecrest.assessment.openings.port import port_area
from firecrest.assessment.wiring import cone_count, wiring_of
from firecrest.core.acoustics.alignments import closed_volume, flat_bandpass
from firecrest.core.errors import DesignError, FirecrestError
from firecrest.design.blocks import HighPass, LowPass, followed
from firecrest.design.box import (
    OUTSIDE,
    Box,
    Chamber,
    DriverGroup,
    Opening,
    Position,
    RadiatorSet,
    placed,
    port_at,
)
from firecrest.design.design import Design
from firecrest.design.edits.box import check_faces_outside, new_opening
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.ids import found, fresh
from firecrest.design.outputs import output_kinds
from firecrest.design.shapes import shape_of, volumes
from firecrest.design.starts import START_SATELLITE
from firecrest.design.voice import Channel
from firecrest.proposals.inverse import tuner_path, with_tuning
from firecrest.proposals.ports import candidates, fit_in_case, with_port

Kind = Literal["sealed", "port", "radiators"]
Layout = Literal["one", "bandpass4", "bandpass6", "channels", "halves", "two-one"]
LAYOUTS: tuple[Layout, ...] = get_args(Layout)
PORT_SHARE = 6.0
"""A new port has the cone area over this."""
OWN_QTC = 0.9
"""Qtc of a closed chamber given to one group of drivers."""
LEAST_SHARE, MOST_SHARE = 0.04, 0.5
EASY_BENDS = 2
"""A start folds its port so often at most."""
CROSSOVER = 150.0
"""Corner in Hz at which a new subwoofer hands over."""


def kind_of(design: Design, chamber: int = 0) -> Kind:
    """What a chamber is, by what opens it."""
    id = design.box.chambers[chamber].id
    kinds = {o.kind for o in design.box.openings if id in (o.chamber, o.opens_to)}
    if "radiators" in kinds:
        return "radiators"
    return "port" if kinds else "sealed"


def layout_of(design: Design) -> Layout | None:
    """How the chambers are laid out; None when it is none of the named ways."""
    box = design.box
    inside = [g for g in box.groups if g.front != OUTSIDE]
    if inside and len(inside) == len(box.groups) and len(box.chambers) == 2:
        rear = {g.chamber for g in inside}
        opened = any(o.chamber in rear for o in box.openings)
        return "bandpass6" if opened else "bandpass4"
    if len(box.chambers) == 1:
        return "one"
    channels = [{g.channel for g in box.groups if g.chamber == c.id} for c in box.chambers]
    if any(len(names) != 1 for names in channels) or inside:
        return None
    names = {c.id for c in design.voice.channels}
    if names == {"left", "right"}:
        return "halves"
    return "two-one" if names == {"sub", "left", "right"} else "channels"


def with_kind(design: Design, kind: Kind, chamber: int = 0) -> Design:
    """A chamber closed, opened by a port, or by radiators; a sensible start, one edit.

    A port starts with a sixth of the cone area and, like radiators, at the promised bass note
    where that can be reached. DesignError when nothing would face outside any more.
    """
    if kind == kind_of(design, chamber):
        return design
    box = design.box
    id = box.chambers[chamber].id
    kept = tuple(o for o in box.openings if id not in (o.chamber, o.opens_to))
    if kind == "radiators":
        kept = (*kept, rebuilt(new_opening(kept, kind, id), count=2))
    elif kind == "port":
        kept = (*kept, _new_port(box, kept, id))
    made = replace_at(design, ("box",), rebuilt(box, openings=kept))
    check_faces_outside(made.box)
    if kind == "sealed":
        return made
    return _tuned_if_possible(made, design.brief.bass.frequency, chamber)


def _new_port(box: Box, beside: Sequence[Opening], chamber: str) -> Opening:
    """A round port for the drivers around a chamber, reckoned with as a pipe."""
    around = [g for g in box.groups if chamber in (g.chamber, g.front)] or list(box.groups)
    area = sum((g.driver.sd or 0.01) for g in around) / PORT_SHARE
    diameter = max(round(sqrt(4 * area / pi), 3), 0.01)
    return rebuilt(new_opening(beside, "port", chamber), diameter=diameter)


def with_layout(design: Design, layout: Layout) -> Design:
    """The box laid out anew, from a sensible start; one edit.

    DesignError when the voice or the board does not allow it.
    """
    if layout == layout_of(design):
        return design
    if layout == "one":
        return _one_chamber(design)
    if layout in ("bandpass4", "bandpass6"):
        return _bandpass(_one_chamber(design), sixth=layout == "bandpass6")
    if layout == "channels":
        return _chamber_for_each_channel(design)
    return _halves(design) if layout == "halves" else _two_one(design)


def _one_chamber(design: Design) -> Design:
    """Everything around the air of the first chamber, all cones facing outside."""
    box = design.box
    id = box.chambers[0].id
    whole = min(sum(c.share for c in box.chambers), 1.0)
    chamber = rebuilt(box.chambers[0], share=whole, stated_volume=None)
    if len(box.chambers) == 1:
        chamber = box.chambers[0]
    return _rebuilt(
        design,
        (chamber,),
        [rebuilt(g, chamber=id, front=OUTSIDE) for g in box.groups],
        [rebuilt(o, chamber=id) for o in box.openings if o.opens_to == OUTSIDE],
    )


def _rebuilt(
    design: Design,
    chambers: Sequence[Chamber],
    groups: Sequence[DriverGroup],
    openings: Sequence[Opening],
) -> Design:
    """The design with these elements; contents of chambers that went move to the first."""
    ids = [c.id for c in chambers]
    contents = tuple(
        item if item.chamber in ids else rebuilt(item, chamber=ids[0])
        for item in design.box.case.contents
    )
    case = rebuilt(design.box.case, contents=contents)
    box = rebuilt(
        design.box,
        case=case,
        chambers=tuple(chambers),
        groups=tuple(groups),
        openings=tuple(openings),
    )
    return replace_at(design, ("box",), box)


def figures_of(design: Design, group: DriverGroup) -> tuple[float, float, float]:
    """(Fs, Qts, Vas of all its cones) of a group; DesignError names what is not known."""
    known = wired_driver(group.driver, group.coils).derivation.figures
    for key, symbol in (("fs", "Fs"), ("qts", "Qts"), ("vas", "Vas")):
        if key not in known:
            raise DesignError(f"needs {symbol} of {group.driver.name}")
    cones = cone_count(group, wiring_of(design.voice.channels))
    share = 1.0 if group.pair == "alone" else 0.5
    return known["fs"], known["qts"], known["vas"] * cones * share


def _bandpass(design: Design, *, sixth: bool) -> Design:
    """The cones face a front chamber, which alone (or with the rear one) opens outwards.

    Shares of the air are those of the flat fourth-order box with its lower corner at the promised
    note. For the sixth order the rear chamber is tuned to that note, the front one an octave up.
    """
    box, note = design.box, design.brief.bass.frequency
    whole = box.chambers[0].share
    fs, qts, _ = figures_of(design, box.groups[0])
    vas = sum(figures_of(design, g)[2] for g in box.groups)
    start = flat_bandpass(fs, qts, vas, note)
    split = 0.5 if start is None or sixth else start.rear / (start.rear + start.front)
    split = min(max(split, 0.15), 0.85)
    rear = rebuilt(box.chambers[0], id="rear", name="rear", share=whole * split, stated_volume=None)
    front = Chamber(id="front", name="front", share=whole * (1 - split), leak_q=rear.leak_q)
    groups = [rebuilt(g, chamber="rear", front="front") for g in box.groups]
    ports = [_new_port(box, (), "front")]
    if sixth:
        ports.append(rebuilt(_new_port(box, ports, box.chambers[0].id), chamber="rear"))
    made = _rebuilt(design, (rear, front), groups, ports)
    tuning = 2 * note if sixth or start is None else start.tuning
    made = _tuned_if_possible(made, tuning, 1)
    return _tuned_if_possible(made, note, 0) if sixth else made


def _tuned_if_possible(design: Design, frequency: float, chamber: int) -> Design:
    """Tuned where that can be reached; a port too long for the case is made of thinner pipe."""
    try:
        made = with_tuning(design, frequency, chamber)
    except FirecrestError:
        return design
    path = tuner_path(made, chamber)
    assert path is not None
    return made if path[-1] == "added_mass" else _fitting(made, int(path[2]))


def _fitting(design: Design, place: int) -> Design:
    """The port folded as it needs, or the widest pipe that fits with two bends."""
    fit = fit_in_case(design, place)
    if fit.bends is not None and fit.bends <= EASY_BENDS:
        return replace_at(design, ("box", "openings", place, "bends"), fit.bends)
    now = port_at(design.box, place)
    for port in reversed(candidates(design, place)):
        if port_area(port) >= port_area(now) or port.count != now.count:
            continue
        try:
            made = with_port(design, place, port)
        except FirecrestError:
            continue
        found = fit_in_case(made, place)
        if found.bends is not None and found.bends <= EASY_BENDS:
            return made
    return design


def own_share(design: Design, place: int) -> float:
    """Share of the interior that closes a group of drivers at Qtc 0.9, within reason."""
    group, box = design.box.groups[place], design.box
    _, qts, vas = figures_of(design, group)
    wanted = closed_volume(vas, qts, OWN_QTC) or vas
    inside = float(volumes(shape_of(box.case))[1])
    room = cone_count(group, wiring_of(design.voice.channels)) * group.driver.displacement
    return min(max((wanted + room) / inside, LEAST_SHARE), MOST_SHARE)


def with_own_chamber(design: Design, place: int) -> Design:
    """One group of drivers in a closed chamber of its own, cut from the one it shared."""
    box = design.box
    group = box.groups[place]
    if sum(g.chamber == group.chamber for g in box.groups) < 2:
        raise DesignError(f"{group.driver.name} has its chamber to itself already.")
    id = fresh([c.id for c in box.chambers], group.channel)
    old = found(box.chambers, group.chamber)
    share = min(own_share(design, place), 0.8 * old.share)
    chambers = [
        rebuilt(c, share=c.share - share, stated_volume=None) if c is old else c
        for c in box.chambers
    ]
    name = found(design.voice.channels, group.channel).name
    chambers.append(Chamber(id=id, name=name, share=share, leak_q=old.leak_q))
    groups = [rebuilt(g, chamber=id) if k == place else g for k, g in enumerate(box.groups)]
    return _rebuilt(design, chambers, groups, box.openings)


def _chamber_for_each_channel(design: Design) -> Design:
    """Groups of the first channel keep the air; those of every other one get a chamber."""
    first = design.voice.channels[0].id
    if all(g.channel == first for g in design.box.groups):
        raise DesignError(
            "There is one voice channel only: give the ways channels of their own first."
        )
    made = _one_chamber(design) if layout_of(design) != "one" else design
    for place, group in enumerate(design.box.groups):
        if group.channel == first:
            continue
        if group.channel in [c.id for c in made.box.chambers]:
            made = replace_at(made, ("box", "groups", place, "chamber"), group.channel)
        else:
            made = with_own_chamber(made, place)
    return made


def _halves(design: Design) -> Design:
    """Two equal halves, each with half the drivers, openings and outputs."""
    box, channels = design.box, design.voice.channels
    if len(channels) != 1 or len(box.groups) != 1 or channels[0].outputs % 2:
        raise DesignError("Halves need one group of drivers on one channel with two outputs.")
    odd = [r.radiator.name for _, r in placed(box.openings, RadiatorSet) if r.count % 2]
    if odd:
        raise DesignError(f"Halves need an even number of {odd[0]}.")
    design = _one_chamber(design)
    box, channel, chamber = design.box, channels[0], design.box.chambers[0]
    aside = box.case.length / 4
    halves = [
        rebuilt(chamber, id=n, name=n, share=chamber.share / 2, stated_volume=None)
        for n in ("left", "right")
    ]
    sides = (("left", Position(right=-aside)), ("right", Position(right=aside)))
    groups = [
        rebuilt(box.groups[0], id=f"drivers-{n}", chamber=n, channel=n, place=place)
        for n, place in sides
    ]
    openings = [_half(o, n, place) for n, place in sides for o in box.openings]
    voice = [rebuilt(channel, id=n, name=n, outputs=channel.outputs // 2) for n, _ in sides]
    made = _with_channels(design, voice, groups[:1])
    return _rebuilt(_with_channels(made, voice, groups), halves, groups, openings)


def _half(opening: Opening, side: str, place: Position) -> Opening:
    """Half of the radiators of a set, or a port like this one, for one side."""
    made = rebuilt(opening, id=f"{opening.id[:24]}-{side}", chamber=side)
    if isinstance(made, RadiatorSet):
        return rebuilt(made, count=made.count // 2)
    return rebuilt(made, place=place)


def _with_channels(
    design: Design, channels: Sequence[Channel], groups: Sequence[DriverGroup]
) -> Design:
    """Voice and groups changed together, as neither fits the other's old ids."""
    voice = rebuilt(design.voice, channels=tuple(channels))
    chamber = design.box.chambers[0].id
    kept = tuple(rebuilt(g, chamber=chamber) for g in groups)
    fed = {g.channel for g in kept}
    voice = rebuilt(voice, channels=tuple(c for c in channels if c.id in fed))
    box = rebuilt(design.box, groups=kept)
    return rebuilt(design, voice=voice, box=box)


def _two_one(design: Design) -> Design:
    """The present drivers as subwoofer in a chamber of their own, small ones left and right."""
    old = design.voice.channels[0]
    board = found([board for _, board in design.power.amplifiers], old.board)
    outputs = len(output_kinds(board))
    if outputs < 3:
        raise DesignError(
            f"2.1 takes three outputs, {board.part.name} has {outputs}: "
            "choose another board in Parts."
        )
    design = _one_chamber(design)
    box = design.box
    sub = rebuilt(
        old,
        id="sub",
        name="sub",
        outputs=1,
        blocks=followed(
            old.blocks,
            LowPass(kind="low_pass", frequency=CROSSOVER, family="linkwitz_riley", order=4),
        ),
    )
    high = HighPass(kind="high_pass", frequency=CROSSOVER, family="linkwitz_riley", order=4)
    sides = [Channel(id=n, name=n, board=board.id, blocks=(high,)) for n in ("left", "right")]
    aside = box.case.length / 3
    small = [
        DriverGroup(
            id=f"satellite-{n}",
            driver=START_SATELLITE,
            chamber=box.chambers[0].id,
            channel=n,
            place=Position(right=x),
        )
        for n, x in (("left", -aside), ("right", aside))
    ]
    bass = rebuilt(box.groups[0], channel="sub")
    made = _with_channels(design, (sub, *sides), (bass, *small))
    for place in (1, 2):
        made = with_own_chamber(made, place)
    return made
