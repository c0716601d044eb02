"""Every limit there is, one row each: what it compares, by which statistic, and what it is called.

Ceiling, programme level, low-note check, report, chain and sentences go over these rows; a further
limit is a further row. A row asks the same of held sines and of programme, which stand side by side
in what is asked; ``above`` says by how much peak, burst and long-term values lie above the rms.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.core.arrays import Number, Real, root
from firecrest.core.limits.bus import (
    Bus,
    average_current_limit,
    collapse_limit,
    converter_input_limit,
    converter_output_limit,
    swing_limit,
)
from firecrest.core.limits.elements import Asked, Limit, Ratings, spare
from firecrest.core.limits.material import PEAK, Statistic
from firecrest.core.power.boards import Boards

PACK = "P"
"""Code of a swing limit that is the pack's doing."""


@dataclass(frozen=True)
class Ask:
    """What is played on which parts."""

    asked: Asked
    ratings: Ratings
    boards: Boards
    bus: Bus
    above: Mapping[Statistic, Number]

    def until(self, statistic: Statistic, limit: Number | None, magnitude: Real) -> Real | None:
        """Drive at which a magnitude reaches ``limit`` by a statistic; None: it is not known."""
        if limit is None:
            return None
        return spare(limit, self.above[statistic] * magnitude)

    def on_bus(self, statistic: Statistic, drive: Real) -> Real:
        """The same of an equation of the bus, solved for a held sine of the draw's rms."""
        held = PEAK if statistic == "instant" else 1.0
        return np.asarray(drive * (held / self.above[statistic]))


@dataclass(frozen=True)
class Reached:
    """Drive (V rms of unit input) at which a part gives out; ``pack``: the pack is to blame."""

    drive: Real
    index: int = 0
    pack: Real | None = None


Found = Iterator[Reached]


@dataclass(frozen=True)
class LimitKind:
    """One row.

    ``link`` is who gives it in the chain, ``tint`` names its fill and pattern, ``field`` is what
    lifts it, with # for its place; what ``moves`` is checked for a held low note too.
    """

    key: str
    code: str
    statistic: Statistic
    link: str
    title: str
    tint: str
    gives: Callable[[Ask, "LimitKind"], Found]
    detail: str = ""
    field: tuple[str, ...] = ()
    moves: bool = False


def _at_rest(ask: Ask, kind: LimitKind) -> Found:
    """Nothing at all where a cut-off is open, or the board's supply too high, before one plays."""
    for volts in ask.bus.source.open_at_rest:
        yield Reached(np.where(volts < 0, 0.0, np.inf) + 0.0 * ask.bus.draw.mean_power)


def _swing(ask: Ask, kind: LimitKind) -> Found:
    """Each board by itself, while all of them load the source."""
    for board in sorted({feed.board for feed in ask.boards.feeds}):
        drive, pack = swing_limit(ask.bus, ask.boards, board)
        yield Reached(ask.on_bus(kind.statistic, drive), board, pack)


def _collapse(ask: Ask, kind: LimitKind) -> Found:
    if ask.boards.converters:
        yield Reached(ask.on_bus(kind.statistic, collapse_limit(ask.bus)))


def _source_current(ask: Ask, kind: LimitKind) -> Found:
    amperes = ask.bus.source.burst.get(kind.key)
    if amperes is not None:
        yield Reached(ask.on_bus(kind.statistic, average_current_limit(ask.bus, amperes)))


def _rating(ask: Ask, kind: LimitKind) -> Found:
    amperes = ask.bus.source.continuous
    if amperes is not None:
        yield Reached(ask.on_bus(kind.statistic, average_current_limit(ask.bus, amperes)))


def _converter_input(ask: Ask, kind: LimitKind) -> Found:
    for place, converter in enumerate(ask.boards.converters):
        if converter.input_current is not None:
            drive = converter_input_limit(ask.bus, ask.boards, place, converter.input_current)
            yield Reached(ask.on_bus(kind.statistic, drive), place)


def _converter_output(ask: Ask, kind: LimitKind) -> Found:
    for place, converter in enumerate(ask.boards.converters):
        if converter.output_current is not None:
            drive = converter_output_limit(ask.bus, ask.boards, place, converter.output_current)
            yield Reached(ask.on_bus(kind.statistic, drive), place)


def _each(
    limits: tuple[Number | None, ...], values: tuple[Real, ...], ask: Ask, kind: LimitKind
) -> Found:
    for index, (limit, value) in enumerate(zip(limits, values, strict=True)):
        drive = ask.until(kind.statistic, limit, value)
        if drive is not None:
            yield Reached(drive, index)


def _output_current(ask: Ask, kind: LimitKind) -> Found:
    limits = tuple(feed.outputs.current_limit for feed in ask.boards.feeds)
    return _each(limits, ask.bus.draw.currents, ask, kind)


def _cone(ask: Ask, kind: LimitKind) -> Found:
    return _each(ask.ratings.x_max, ask.asked.travel, ask, kind)


def _opening(ask: Ask, kind: LimitKind) -> Found:
    """Travel or air speed of the openings whose motion is held to this row."""
    ratings, frequency = ask.ratings, ask.asked.frequency
    own = tuple(
        ratings.opening_limit(k, frequency) if key == kind.key and frequency is not None else None
        for k, key in enumerate(ratings.opening_kinds)
    )
    return _each(own, ask.asked.openings, ask, kind)


def _coil(ask: Ask, kind: LimitKind) -> Found:
    """Heat I^2 Re against the rated power, at the temperature that this makes, else at 20 C."""
    powers, ohms = ask.ratings.coil_power, ask.asked.coil_ohms or ask.ratings.coil_resistance
    amperes = tuple(
        None if power is None else root(power / ohm)
        for power, ohm in zip(powers, ohms, strict=True)
    )
    return _each(amperes, ask.asked.hot_coils or ask.asked.coils, ask, kind)


def _full_scale(ask: Ask, kind: LimitKind) -> Found:
    """The loudest of the input, the output, and every block between, which have headroom."""
    for index, (most, rows) in enumerate(
        zip(ask.ratings.full_scale, ask.asked.blocks, strict=True)
    ):
        loudest = np.maximum.reduce(rows, axis=-2)
        if not isinstance(ask.ratings.headroom, float) or ask.ratings.headroom > 1.0:
            ends = np.maximum(rows[..., 0, :], rows[..., -1, :])
            loudest = np.maximum(ends, loudest / ask.ratings.headroom)
        yield Reached(spare(most, ask.above[kind.statistic] * loudest), index)


def _lasting_limiter(ask: Ask, kind: LimitKind) -> Found:
    thresholds = ask.ratings.limiter_rms or (None,) * len(ask.bus.draw.volts)
    return _each(thresholds, ask.bus.draw.volts, ask, kind)


def _limiter(ask: Ask, kind: LimitKind) -> Found:
    return _each(ask.ratings.limiter, ask.bus.draw.volts, ask, kind)


def _current_of(
    key: str, detail: str, field: tuple[str, ...], title: str = "Pack current"
) -> LimitKind:
    """A burst current of the source."""
    return LimitKind(key, PACK, "burst", "pack", title, "dots", _source_current, detail, field)


KINDS: tuple[LimitKind, ...] = (
    LimitKind(
        "bus at rest",
        PACK,
        "instant",
        "pack",
        "Bus at rest",
        "dots",
        _at_rest,
        "outside what the board runs from",
    ),
    LimitKind("swing", "V", "instant", "amplifier", "Amp voltage", "upright", _swing),
    _current_of("cells", "the cells' current", ("power", "source", "parallel")),
    _current_of(
        "protection board",
        "the protection board's current",
        ("power", "source", "board", "max_current"),
    ),
    _current_of(
        "supply",
        "the supply's burst current",
        ("power", "source", "burst_current"),
        "Supply current",
    ),
    LimitKind(
        "converter input",
        PACK,
        "burst",
        "pack",
        "Pack current",
        "dots",
        _converter_input,
        "the converter's input current",
        ("power", "converters", "#", "input_current"),
    ),
    LimitKind(
        "converter output",
        PACK,
        "burst",
        "pack",
        "Pack current",
        "dots",
        _converter_output,
        "the converter's output current",
        ("power", "converters", "#", "output_current"),
    ),
    LimitKind(
        "collapse",
        PACK,
        "instant",
        "pack",
        "Pack current",
        "dots",
        _collapse,
        "the bus, which collapses",
    ),
    LimitKind(
        "supply rating",
        PACK,
        "long-term",
        "pack",
        "Supply current",
        "dots",
        _rating,
        "the supply's continuous current",
        ("power", "source", "continuous_current"),
    ),
    LimitKind(
        "amplifier current",
        "A",
        "instant",
        "amplifier",
        "Amp current",
        "rings",
        _output_current,
        field=("power", "boards", "#", "part", "current_limit"),
    ),
    LimitKind(
        "cone",
        "C",
        "instant",
        "drivers",
        "Cone travel",
        "level",
        _cone,
        field=("box", "groups", "#", "driver", "xmax"),
        moves=True,
    ),
    LimitKind(
        "radiator",
        "R",
        "instant",
        "radiators",
        "Radiator travel",
        "rising",
        _opening,
        field=("box", "openings", "#", "radiator", "xmax"),
        moves=True,
    ),
    LimitKind(
        "port",
        "U",
        "instant",
        "box",
        "Port air speed",
        "zigzag",
        _opening,
        field=("box", "openings", "#", "diameter"),
        moves=True,
    ),
    LimitKind(
        "coil",
        "H",
        "long-term",
        "drivers",
        "Coil heat",
        "net",
        _coil,
        field=("box", "groups", "#", "driver", "pe"),
    ),
    LimitKind(
        "full scale",
        "L",
        "instant",
        "dsp",
        "Full scale",
        "dashes",
        _full_scale,
        "0 dBFS inside the DSP",
        ("power", "boards", "#", "part", "full_scale"),
    ),
    LimitKind(
        "limiter",
        "L",
        "instant",
        "dsp",
        "Limiter",
        "dashes",
        _limiter,
        "the limiter's threshold",
        ("voice", "channels", "#", "limiter"),
    ),
    LimitKind(
        "long-term limiter",
        "L",
        "long-term",
        "dsp",
        "Long-term limiter",
        "dashes",
        _lasting_limiter,
        "the long-term limiter's threshold",
        ("voice", "channels", "#", "limiter_rms"),
    ),
)
"""In the order in which they are named when two give out at the same drive."""
SAG = LimitKind("sag", PACK, "instant", "pack", "Pack sag", "dots", _swing)
"""What the swing is called where an ideal source would lift it."""


def reached(ask: Ask) -> tuple[Limit, ...]:
    """Every known limit, in the order of the rows."""
    return tuple(
        Limit(kind.key, kind.code, found.drive, found.index, found.pack)
        for kind in KINDS
        for found in kind.gives(ask, kind)
    )


def row_of(limit: Limit, code: str) -> LimitKind:
    """The row that a limit is told by where its letter is ``code``: sag is the pack's."""
    kind = kind_named(limit.name)
    return SAG if code == PACK != kind.code else kind


def kind_named(key: str) -> LimitKind:
    """The row of a limit; KeyError when there is none."""
    for kind in KINDS:
        if kind.key == key:
            return kind
    raise KeyError(key)


def kind_of_code(code: str) -> LimitKind:
    """The first row of a code letter; KeyError when no row has it."""
    for kind in KINDS:
        if kind.code == code:
            return kind
    raise KeyError(code)


def tint_of(code: str) -> str:
    """The tint of a code letter; KeyError when no row has it."""
    return kind_of_code(code).tint
