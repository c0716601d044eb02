"""Drivers and coils in series and parallel: what each way means here, and its connections drawn."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.figures import wired_driver
from firecrest.core.acoustics.wiring import coil_factors, combination
from firecrest.core.circuit.solution import output_impedance
from firecrest.core.errors import FirecrestError
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.amplifiers import Amplifier, OutputKind
from firecrest.design.box import Coils, DriverGroup
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt, replace_at
from firecrest.design.ids import found, place_of
from firecrest.present.text.words import decibels

JUDGED = (20.0, 20000.0)
COIL_WORDS = {"as stated": "", "series": "coils in series", "parallel": "coils in parallel",
              "one": "one coil, the other open"}  # fmt: skip


@dataclass(frozen=True)
class Way:
    """One way to wire the drivers of a group on each amplifier output."""

    in_series: int
    in_parallel: int
    coils: Coils
    name: str
    nominal: str
    least: str
    at_voltage: str
    at_power: str
    loudness: str
    verdict: str
    allowed: bool | None
    in_force: bool


def ways(assessment: Assessment, place: int) -> list[Way]:
    """All series-parallel arrangements of the drivers there are, with both coils' ways."""
    group = assessment.design.box.groups[place]
    count = group.in_series * group.in_parallel
    shapes = [(s, count // s) for s in range(1, count + 1) if count % s == 0]
    shapes = [(s, p) for s, p in shapes if s <= 8 and p <= 8]
    both: tuple[Coils, ...] = ("series", "parallel", "one")
    coils: tuple[Coils, ...] = both if group.driver.coils == 2 else ("as stated",)
    return [
        _way(assessment, place, rebuilt(group, in_series=s, in_parallel=p, coils=c))
        for s, p in shapes
        for c in coils
    ]


def _effective(group: DriverGroup) -> Coils:
    """How the coils are wired, with "as stated" spelt out for two of them."""
    if group.driver.coils == 1 or group.coils != "as stated":
        return group.coils
    return group.driver.stated_for


def _way(assessment: Assessment, place: int, group: DriverGroup) -> Way:
    now = assessment.design.box.groups[place]
    in_force = (now.in_series, now.in_parallel, _effective(now)) == (
        group.in_series,
        group.in_parallel,
        _effective(group),
    )
    made = (
        assessment
        if in_force
        else assess(replace_at(assessment.design, ("box", "groups", place), group), assessment.memo)
    )
    least = least_impedance(made, place)
    nominal = wired_driver(group.driver, group.coils).nominal
    factors = combination(group.in_series, group.in_parallel)
    coils = coil_factors(group.driver.stated_for, group.coils)
    loud = made.promise("loudness").predicted
    allowed, verdict = board_verdict(made, place)
    return Way(
        group.in_series,
        group.in_parallel,
        group.coils,
        _name(group),
        "–" if nominal is None else f"{figure(nominal * factors.impedance, 1)}{THIN_SPACE}Ω",
        "–" if least is None else _at(least),
        decibels(factors.at_voltage + coils.at_voltage),
        decibels(factors.at_power + coils.at_power),
        "–" if loud is None else f"{figure(loud, 1)}{THIN_SPACE}dB",
        verdict,
        allowed,
        in_force,
    )


def _at(least: tuple[float, float]) -> str:
    return f"{figure(least[0], 1)}{THIN_SPACE}Ω at {least[1]:.0f}{THIN_SPACE}Hz"


def _name(group: DriverGroup) -> str:
    """The arrangement in words."""
    s, p = group.in_series, group.in_parallel
    if s == p == 1:
        drivers = "one driver"
    elif s == 1 or p == 1:
        drivers = f"{s * p} in {'parallel' if s == 1 else 'series'}"
    else:
        drivers = f"{p} strings of {s} in series"
    coils = COIL_WORDS[_effective(group)]
    return f"{drivers}, {coils}" if coils else drivers


def least_impedance(assessment: Assessment, place: int) -> tuple[float, float] | None:
    """(ohm, Hz) of the least load on one output of a group's channel, in this box, 20 Hz up."""
    a = assessment.acoustic
    if a is None:
        return None
    design = assessment.design
    channel = place_of(design.voice.channels, design.box.groups[place].channel)
    ohm = np.abs(output_impedance(a.solution, channel))
    judged = (a.frequency >= JUDGED[0]) & (a.frequency <= JUDGED[1])
    k = int(np.argmin(np.where(judged, ohm, np.inf)))
    return float(ohm[k]), float(a.frequency[k])


def board_verdict(assessment: Assessment, place: int) -> tuple[bool | None, str]:
    """Whether the amplifier may drive the load, and why, in a sentence.

    A nominal impedance is judged by a board's rating; the least impedance of a driver of that
    rating lies up to 20 % below it by common standard, so only what is lower than that counts.
    """
    design = assessment.design
    boards = [board.part for _, board in design.power.amplifiers]
    channel = place_of(design.voice.channels, design.box.groups[place].channel)
    board, kind, _ = assessment.numbers.carried[channel]
    amplifier = boards[board]
    kinds: list[Amplifier | OutputKind] = [amplifier, *amplifier.other_outputs]
    rated = kinds[kind].least_load or min(claim.load for claim in kinds[kind].claims)
    least = least_impedance(assessment, place)
    if least is None:
        return None, "The load is not known: figures of the driver are missing."
    said = f"{amplifier.name} is rated down to {rated:g}{THIN_SPACE}Ω, the minimum is {_at(least)}"
    if least[0] >= rated:
        return True, f"{said}: it may."
    if least[0] >= 0.8 * rated:
        return True, f"{said}: within the 20 % that a nominal {rated:g}{THIN_SPACE}Ω allows."
    return False, f"{said}: it draws {figure(rated / least[0], 1)} times the rated current there."


def arrange(design: Design, place: int, way: Way) -> tuple[str, Design]:
    """(label, design) wired in another way."""
    group = design.box.groups[place]
    made = rebuilt(group, in_series=way.in_series, in_parallel=way.in_parallel, coils=way.coils)
    return f"Wire: {way.name}", replace_at(design, ("box", "groups", place), made)


def with_count(design: Design, place: int, count: int) -> tuple[str, Design]:
    """(label, design) with ``count`` drivers on each output, in parallel until told otherwise.

    FirecrestError beyond 1 to 8.
    """
    if not 1 <= count <= 8:
        raise FirecrestError("Drivers on one output can be 1 to 8.")
    group = rebuilt(design.box.groups[place], in_series=1, in_parallel=count)
    return f"{count} drivers on an output", replace_at(design, ("box", "groups", place), group)


# the picture -----------------------------------------------------------------------

Role = Literal["plus", "minus", "link"]
COLUMN, ROW, COIL = 150.0, 92.0, 46.0


@dataclass(frozen=True)
class Coil:
    """A coil drawn at its top (+) end, with what stands beside it."""

    x: float
    y: float
    label: str


@dataclass(frozen=True)
class Wire:
    """A wire through its points: from + of the board, to - of the board, or between coils."""

    points: tuple[tuple[float, float], ...]
    role: Role


@dataclass(frozen=True)
class WiringPicture:
    """Connections of one output without pixels; ``size`` bounds all of it."""

    title: str
    coils: tuple[Coil, ...]
    wires: tuple[Wire, ...]
    plus: tuple[float, float]
    minus: tuple[float, float]
    size: tuple[float, float]
    notes: tuple[str, ...]


CLAMSHELL_NOTE = {
    True: ("Clamshell: swap + and − of the outer driver, so that both cones move the same way.",),
    False: (),
}


def wiring_picture(assessment: Assessment, place: int) -> WiringPicture:
    """Every coil of one output with + and -, strings side by side, series chains downwards."""
    group = assessment.design.box.groups[place]
    strings = _strings(group)
    deepest = max(len(s) for s in strings)
    top, bottom = 60.0, 60.0 + deepest * ROW
    coils, wires = [], []
    for k, string in enumerate(strings):
        x = 150.0 + k * COLUMN
        wires.append(Wire(((70.0, top), (x, top), (x, top + 20)), "plus"))
        y = top + 20
        for n, label in enumerate(string):
            coils.append(Coil(x, y, label))
            last = n == len(string) - 1
            end = bottom + 20 if last else y + ROW
            if last:
                wires.append(Wire(((x, y + COIL), (x, end), (70.0, end)), "minus"))
            else:
                wires.append(Wire(((x, y + COIL), (x, end)), "link"))
            y = end
    channel = found(assessment.design.voice.channels, group.channel)
    outputs = "" if channel.outputs == 1 else f", the same on each of {channel.outputs} outputs"
    size = (150.0 + len(strings) * COLUMN, bottom + 60.0)
    return WiringPicture(
        f"{assessment.design.name}: {group.driver.name}, {_name(group)}{outputs}",
        tuple(coils),
        tuple(wires),
        (70.0, top),
        (70.0, bottom + 20),
        size,
        (
            board_verdict(assessment, place)[1],
            "Check polarity with a small battery before closing: + to +, the cone moves out.",
            *CLAMSHELL_NOTE[group.pair == "clamshell"],
        ),
    )


def _pair_strings(group: DriverGroup) -> list[list[str]]:
    """Labels of the drivers of isobaric pairs, by string, from + to -."""
    found: list[list[str]] = []
    for k in range(group.in_parallel):
        numbers = range(k * group.in_series + 1, (k + 1) * group.in_series + 1)
        if group.pair_in == "series":
            found.append([f"pair {n}, {which}" for n in numbers for which in ("inner", "outer")])
        else:
            found += [[f"pair {n}, {which}" for n in numbers] for which in ("inner", "outer")]
    return found


def _strings(group: DriverGroup) -> list[list[str]]:
    """Labels of the coils in each parallel string, from + to -."""
    if group.pair != "alone":
        return _pair_strings(group)
    names = iter(range(1, group.in_series * group.in_parallel + 1))
    effective = _effective(group)
    found: list[list[str]] = []
    for _ in range(group.in_parallel):
        string: list[str] = []
        twin: list[str] = []
        for _ in range(group.in_series):
            n = next(names)
            if group.driver.coils == 1:
                string.append(f"driver {n}")
            elif effective == "series":
                string += [f"driver {n}, coil a", f"driver {n}, coil b"]
            else:
                string.append(f"driver {n}, coil a")
                twin.append(f"driver {n}, coil b")
        found.append(string)
        if twin and effective == "parallel":
            found.append(twin)
    return found
