"""What follows for one chamber, port, radiator or driver of a box: rows beside its fields."""

from dataclasses import dataclass
from math import pi

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import air_of
from firecrest.assessment.figures import derivation_of, wired_driver
from firecrest.assessment.motion import case_force, largest, motion_of
from firecrest.assessment.openings.port import port_ends
from firecrest.assessment.wiring import cone_count, wiring_of
from firecrest.core.acoustics.openings import Radiator
from firecrest.core.acoustics.openings.port import first_pipe_resonance
from firecrest.core.air import GRAVITY
from firecrest.core.units import MINUS, figure
from firecrest.design.box import Port, RadiatorSet, placed, port_at, radiators_at
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.present.size.openings import owner_kind
from firecrest.present.text.units import told, told_of
from firecrest.proposals.ports import fit_in_case, worst_speed

TOP = 500.0
"""Hz up to which travel is looked at."""
RULE_OF_THUMB = 2.0
HEAVIEST = 5
"""Things of the case that are told by their weight."""
WALKS = 50.0
"""Force as a share of the weight, in per cent, from which a box may walk: a stated estimate."""


@dataclass(frozen=True)
class Fact:
    """One figure that follows: name, value, a mark (met, close, short or none), what it means."""

    name: str
    value: str
    mark: str = ""
    help: str = ""


def facts(assessment: Assessment, owner: Path) -> list[Fact]:
    """What follows at once for the room or element at ``owner``."""
    a = assessment.acoustic
    if a is None:
        return []
    if owner_kind(assessment.design, owner) == "case":
        return _case(assessment)
    place = int(owner[2])
    of_kind = {"chambers": _chamber, "groups": _group, "radiators": _radiator, "port": _port}
    return of_kind[owner_kind(assessment.design, owner)](assessment, a, place)


def _case(assessment: Assessment) -> list[Fact]:
    """The heaviest things of the box, and what they have in it."""
    heavy = sorted(assessment.cabinet.items, key=lambda i: i.count * i.mass, reverse=True)
    whole = float(assessment.cabinet.mass)
    return [
        Fact(
            item.name[:1].upper() + item.name[1:],
            told(item.count * item.mass, "mass", "kg", 2),
            "",
            f"{100 * item.count * item.mass / whole:.0f} % of the weight.",
        )
        for item in heavy[:HEAVIEST]
        if item.mass > 0
    ]


def _signed_mass(value: float) -> str:
    text = told(value, "mass", "g", 1)
    return text if text.startswith(MINUS) else f"+{text}"


def _chamber(assessment: Assessment, a: Acoustic, place: int) -> list[Fact]:
    """Resonance and Q of a closed chamber, or how it is opened."""
    design = assessment.design
    id = design.box.chambers[place].id
    around = [g for g in design.box.groups if id in (g.chamber, g.front)]
    if not around:
        return [Fact("Drivers", "none around it", "close", "Nothing plays into this air.")]
    group = around[0]
    known = wired_driver(group.driver, group.coils).derivation.figures
    found = []
    if "fs" in known and "qts" in known and a.model.tuning[place] is None:
        fc = a.model.reference[place]
        qtc = known["qts"] * fc / known["fs"]
        found.append(Fact("Resonance of cone and air", f"{fc:.1f} Hz"))
        found.append(
            Fact(
                "Qtc",
                figure(qtc, 2),
                "met" if qtc <= 1.05 else "close",
                "0.7 is flat; above 1 the bass swells before it falls.",
            )
        )
    if "vas" in known:
        cones = cone_count(group, wiring_of(design.voice.channels))
        share = 0.5 if group.pair != "alone" else 1.0
        ratio = cones * share * known["vas"] / assessment.cabinet.air[place]
        found.append(
            Fact("Vas over this air", figure(ratio, 2), "", "Above 3 the air rules the cone.")
        )
    return found


def _group(assessment: Assessment, a: Acoustic, place: int) -> list[Fact]:
    """Travel of a cone at the promise."""
    found = []
    motion = motion_of(assessment, a)
    for k, owner in enumerate(a.model.owners):
        limit = a.ratings.x_max[k]
        if owner != place or limit is None:
            continue
        moved = largest(motion.cone[k], a.frequency, TOP)[0]
        most = float(np.asarray(limit))
        inner = place < k
        found.append(
            Fact(
                "Travel, outer cone" if inner else "Travel at the promise",
                told_of(moved, most, "length", "mm", (1, 1)),
                "met" if moved <= most else "short",
                "Peak, one way; below the bass note a held low note.",
            )
        )
    group = assessment.design.box.groups[place]
    if group.pair != "alone":
        found.append(
            Fact(
                "Isobaric pair",
                "half the Vas",
                "",
                "Two drivers move one cone's air: half the case, twice the drivers and watts.",
            )
        )
    return [*found, _shaking(assessment, a)]


def _shaking(assessment: Assessment, a: Acoustic) -> Fact:
    """Largest force of all moving masses on the case at the promise, against its weight."""
    force, at = case_force(assessment, a)
    share = 100 * force / (assessment.cabinet.mass * GRAVITY)
    return Fact(
        "Shakes the case",
        f"{figure(force, 1)} N at {at:.0f} Hz, {figure(share, 0)} % of its weight",
        "met" if share < WALKS else "close",
        "Peak, at the promise; opposed parts cancel. Above about half its weight a box may walk.",
    )


def _element(a: Acoustic, place: int) -> Radiator:
    """A radiator in the network."""
    element = a.model.network.openings[place]
    assert isinstance(element, Radiator)
    return element


def _radiator(assessment: Assessment, a: Acoustic, place: int) -> list[Fact]:
    """Mass, notch, washers, displacement, reserve and sag of a radiator."""
    design = assessment.design
    item, constants = radiators_at(design.box, place), _element(a, place)
    found = [
        Fact("Moves in all", f"{told(constants.mass, 'mass', 'g', 1)} each"),
        Fact(
            "Notch",
            f"{figure(constants.resonance, 1)} Hz",
            "met" if constants.resonance < 0.8 * design.brief.bass.frequency else "close",
            "Its own resonance with the added mass: there it cancels the cone.",
        ),
    ]
    if item.washer:
        count = round(item.added_mass / item.washer)
        off = count * item.washer - item.added_mass
        found.append(
            Fact(
                "In washers",
                f"{count} each" + (f", {_signed_mass(off)}" if abs(off) >= 5e-5 else ""),
                "",
                "Whole washers nearest to the added mass, and what they are off by.",
            )
        )
    found += _displacement(assessment, a, place)
    sag = GRAVITY / (2 * pi * constants.resonance) ** 2
    words = "it sags by" if item.horizontal else "facing up it would sag by"
    help = f"By its weight {words} g/(2πFp)²."
    found.append(Fact("Sag", told(sag, "length", "mm", 1), "", help))
    return [*found, _shaking(assessment, a)]


def _displacement(assessment: Assessment, a: Acoustic, place: int) -> list[Fact]:
    """Displacement against the drivers, and travel in reserve at the promise."""
    design = assessment.design
    item = radiators_at(design.box, place)
    travel = a.ratings.openings[place]
    if travel is None:
        return []
    wiring = wiring_of(design.voice.channels)
    swept = [
        (g.driver.xmax or 0.0)
        * (derivation_of(g.driver).figures.get("sd") or 0.0)
        * cone_count(g, wiring)
        for g in design.box.groups
        if item.chamber in (g.chamber, g.front)
    ]
    own = sum(
        r.count * _element(a, k).area * float(np.asarray(a.ratings.openings[k] or 0))
        for k, r in placed(design.box.openings, RadiatorSet)
        if r.chamber == item.chamber
    )
    found = []
    if sum(swept) > 0:
        ratio = own / sum(swept)
        found.append(
            Fact(
                "Displacement, times the drivers'",
                figure(ratio, 2),
                "met" if ratio >= RULE_OF_THUMB else "close",
                "All radiators of this chamber against its drivers; 2 or more is the usual rule.",
            )
        )
    moved, _ = largest(motion_of(assessment, a).opening[place], a.frequency, TOP)
    reserve = float(np.asarray(travel)) - moved
    found.append(
        Fact(
            "Travel in reserve",
            told(reserve, "length", "mm", 1),
            "met" if reserve >= 0 else "short",
            "At the promise, and with a held low note below it; after sag.",
        )
    )
    return found


def _port(assessment: Assessment, a: Acoustic, place: int) -> list[Fact]:
    """Fit, air speed and pipe resonance of a port."""
    design = assessment.design
    port = port_at(design.box, place)
    fast = worst_speed(assessment, place)
    pipe = float(
        first_pipe_resonance(port.length, port_ends(port), air_of(design.brief.conditions))
    )
    ends = port_ends(port)
    found = [
        _fit(assessment, place),
        Fact("Both ends add", told(ends, "length", "mm", 0), "", "The end correction, in all."),
    ]
    if fast is not None:
        found.append(
            Fact(
                "Air speed at the promise",
                told_of(fast.speed, fast.limit, "speed", "m/s", (1, 0)),
                "met" if fast.speed <= fast.limit else "short",
                f"Peak, at {fast.frequency:.0f} Hz where it is closest to its limit, with a held "
                "low note below the promised one. A limit that is not typed is an estimate, "
                "±30 %; it grows with frequency and, slowly, with the width.",
            )
        )
    found.append(
        Fact(
            "First pipe resonance",
            f"{figure(pipe, 0)} Hz",
            "met" if pipe > a.f_hi else "close",
            "Half a wave in the port. Below the top of the judged band it colours the sum"
            + ("." if port.resonances else "; tick pipe resonances to reckon with it."),
        )
    )
    return found


def _fit(assessment: Assessment, place: int) -> Fact:
    """Whether a port fits into its case as it is, straight or folded."""
    port = port_at(assessment.design.box, place)
    fit = fit_in_case(assessment.design, place)
    help = (
        "Along the depth, then folded along the walls; half its bore stays clear at the open "
        "end. Other things in the case are not looked at."
    )
    spare = fit.longest - port.length
    folds = "straight" if port.bends == 0 else f"with {_bends(port.bends)}"
    if fit.narrow:
        return Fact("Fits", "too thick for the case", "short", help)
    if spare >= 0:
        return Fact("Fits", f"{folds}, {told(spare, 'length', 'mm', 0)} to spare", "met", help)
    if fit.bends is None:
        return Fact("Fits", "no, even folded six times", "short", help)
    over = told(-spare, "length", "mm", 0)
    return Fact("Fits", f"{over} too long; {_bends(fit.bends)} needed", "short", help)


def added_words(design: Design, trouble: Exception | None) -> str:
    """What is wrong with the opening added last: not tuned, or not fitting; empty when nothing."""
    said = [] if trouble is None else [f"Added, but the tuning moves. {trouble}"]
    place = len(design.box.openings) - 1
    if isinstance(design.box.openings[place], Port):
        fit = fit_in_case(design, place)
        if fit.narrow or fit.bends is None:
            how = "too thick" if fit.narrow else "too long, even folded"
            said.append(f"The new port is {how} for this case: choose another under Ports.")
    return " ".join(said)


def _bends(count: int) -> str:
    return "one bend" if count == 1 else f"{count} bends"
