"""What a box does, solved: its sound, its ceiling, what of it lasts.

The derivation runs on floats and on columns (designs, 1).
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from firecrest.assessment.acoustic import ratings_of, transfers_from
from firecrest.assessment.cabinet.places import sounding_elements, unplaced
from firecrest.assessment.cabinet.rollup import CabinetResult, cabinet
from firecrest.assessment.conditions import (
    air_of,
    duty_of,
    front_width,
    programme_of,
    softness_of,
    surroundings_of,
)
from firecrest.assessment.electrical import boards_of, source_at, standing_of
from firecrest.assessment.heat import Heated, heated, lasting, warming_of
from firecrest.assessment.lower import inputs
from firecrest.assessment.memo import Memo
from firecrest.assessment.network import BoxModel, box_model, placed_model
from firecrest.assessment.sound import Scene, voice_rows
from firecrest.assessment.ways import Measured, drives_of, measured_of, ways_of
from firecrest.assessment.wiring import Wiring, wiring_of
from firecrest.assessment.yielding import Driven, Places, Yielding, ceiling_of, places_in, yielding
from firecrest.core.acoustics.radiation import level
from firecrest.core.arrays import Number, Real, decibel, largest
from firecrest.core.circuit.solution import Solution
from firecrest.core.circuit.solve import solve
from firecrest.core.limits.bus import Bus
from firecrest.core.limits.ceiling import Ceiling, ceiling, smallest, softer
from firecrest.core.limits.draw import Draw, draw_of
from firecrest.core.limits.elements import Hot, Limit, Ratings, Transfers, asked_of
from firecrest.core.limits.kinds import Ask, reached
from firecrest.core.limits.material import (
    PROGRAMME,
    SINES,
    Material,
    Statistic,
    material_of,
    sines_of,
)
from firecrest.core.note import note
from firecrest.core.power.boards import Boards
from firecrest.design.brief import Edges, Listening
from firecrest.design.voice import Channel

SILENCE = -150.0
"""dB at unit input below which sources have cancelled to rounding errors."""
NOTHING = -500.0
"""dB that stand for no sound at all, so that sums and means of levels stay numbers."""
CANCELLED = note("cancelled")
STILL = Edges(turbulence=False, large_signal=False, hot_coils=False)
TO_BE_SURE = 0.5
"""DB by which sources that add up may lose more than their coils do."""
Reached = tuple[Real, tuple[Limit, ...]]


@dataclass(frozen=True)
class Programmed:
    """What programme of 1 V rms draws and how loud it is, and what each limit allows of it.

    ``draw`` and ``unit_level`` are those of cold coils; ``allowed`` and the highest ``level``, with
    ``hot_unit_level``, those of coils by ``rises`` K warmer than 20 C, where these have been
    reckoned with (``lasting_in``); ``cold_level`` is that before they warm.
    """

    draw: Draw
    unit_level: Real
    allowed: tuple[Limit, ...]
    level: Real
    cold_level: Real
    hot_unit_level: Real
    rises: tuple[Number, ...] = ()


@dataclass(frozen=True)
class Sounding:
    """What a box does at its brief's charge; levels in dB at the listener per unit input.

    ``draw`` and ``top`` are of a held sine at each frequency. ``top_unit_level`` is the level per
    unit input at the ceiling, which with ``yielding`` ports or hot coils is not that of small
    signals; ``still`` is the ceiling without what fast air loses.
    """

    inputs: inputs.Inputs
    frequency: Real
    cabinet: CabinetResult
    scene: Scene
    transfers: Transfers
    ratings: Ratings
    unit_level: Real
    draw: Draw
    top: Ceiling
    programmed: Programmed
    still: Ceiling
    top_unit_level: Real
    yielding: Yielding | None
    warm: Heated | None
    bearing: "Bearing"
    played: Material


def wiring_in(numbers: inputs.Inputs) -> Wiring:
    """Names and outputs of the voice's channels."""
    return wiring_of(numbers.voice.channels)


def elements_in(numbers: inputs.Inputs, memo: Memo) -> inputs.Elements:
    """What sound depends on: of the case around it only where things are mounted on it."""
    box = numbers.box
    sited = any(e.mounts for e in (*box.groups, *box.openings))
    case = box.case if sited else None
    doubts = box.air_speed, box.air_loss
    return memo(sounding_elements, case, box.chambers, box.groups, box.openings, *doubts)


def cabinet_in(numbers: inputs.Inputs, memo: Memo) -> CabinetResult:
    """Net air, size, weight and cost."""
    return memo(cabinet, numbers.box, numbers.power, wiring_in(numbers))


def model_in(numbers: inputs.Inputs, memo: Memo) -> BoxModel:
    """The network of a box with its own net air, and where all of it sounds from."""
    return memo(placed_model, network_in(numbers, memo), elements_in(numbers, memo))


def network_in(numbers: inputs.Inputs, memo: Memo) -> BoxModel:
    """The same without places: it stays the same object wherever things are moved to."""
    rolled, air = cabinet_in(numbers, memo), memo(air_of, numbers.brief.conditions)
    brief = numbers.brief
    softness = memo(softness_of, brief.conditions, brief.edges)
    elements = unplaced(elements_in(numbers, memo), memo)
    return memo(box_model, elements, wiring_in(numbers), rolled.air, air, softness)


def measured_in(numbers: inputs.Inputs, memo: Memo) -> tuple[Measured | None, ...]:
    """What was measured of each channel's way."""
    elements = elements_in(numbers, memo)
    channels = numbers.voice.channels
    return tuple(_measured(numbers.box, elements, channel, memo) for channel in channels)


def _measured(
    box: inputs.Box, elements: inputs.Elements, channel: Channel, memo: Memo
) -> Measured | None:
    if not channel.response.curves:
        return None
    group = next(g for g in elements.groups if g.channel == channel.id)
    closed = not any(
        {group.chamber, group.front} & {item.chamber, item.opens_to} for item in box.openings
    )
    place = group.place
    spot = tuple(float(np.ravel(x)[0]) for x in (place.right, place.up, place.forward))
    return memo(measured_of, channel.response, closed, spot)


def _heard_with(model: BoxModel, places: Places, coils: tuple[int, ...]) -> tuple[int, ...]:
    """The channel with which each drive of the whole solution is heard."""
    openings = [mouth.opening for mouth in places.mouths]
    channels = tuple(range(model.network.channels))
    return (*channels, *drives_of(model, openings, (*coils, *places.bent)))


def sounding(
    numbers: inputs.Inputs, frequency: Real, memo: Memo, *, still: bool = False
) -> Sounding:
    """Solve a box and find its ceiling; ``still``: as at low level and cold, for a first look."""
    brief, power, channels = numbers.brief, numbers.power, numbers.voice.channels
    rolled, air = cabinet_in(numbers, memo), memo(air_of, brief.conditions)
    elements, wiring = unplaced(elements_in(numbers, memo), memo), wiring_in(numbers)
    model, network = model_in(numbers, memo), network_in(numbers, memo)
    around = memo(surroundings_of, brief.listening, front_width(numbers.box.case), air)
    edges = STILL if still else brief.edges
    places = memo(places_in, elements, network, air, edges)
    coils = tuple(range(len(model.owners))) if edges.hot_coils or places.bent else ()
    whole = memo(solve, model.network, frequency, places.mouths, coils, places.bent)
    solution = memo(_of_voices, whole, len(wiring)) if places.mouths or coils else whole
    rows = tuple(memo(voice_rows, c, power.dsp.sample_rate, frequency) for c in channels)
    ways = memo(
        ways_of, model, solution, air, front_width(numbers.box.case), measured_in(numbers, memo)
    )
    scene = memo(Scene, model, solution, around, air, ways, None)
    stage = scene
    if whole is not solution:
        stage = memo(
            Scene, model, whole, around, air, ways, memo(_heard_with, model, places, coils)
        )
    transfers = memo(transfers_from, scene, rows, tuple(c.outputs for c in channels))
    warm = None
    if edges.hot_coils:
        warming = memo(warming_of, elements, network, brief.conditions.temperature)
        warm = memo(heated, stage, transfers, warming, len(wiring) + len(places.mouths))
        transfers = memo(_at_rated, warm)
    lossy = None
    if places.mouths or places.bent:
        lossy = memo(yielding, stage, transfers, rows, places, len(coils))
    bearers = elements, wiring, channels, power, numbers.carried, network, brief.edges
    ratings = memo(ratings_of, *bearers)
    boards, played = boards_in(numbers, memo), memo(_material, brief.listening, frequency)
    draw = memo(draw_of, transfers.outputs, boards, played)
    bearing = memo(Bearing, ratings, boards, bus_in(numbers, draw, memo))
    given = memo(_given, transfers, bearing, played)
    driven = memo(_driven, given, transfers, lossy, bearing, memo(_sines, brief.listening))
    return Sounding(
        numbers,
        frequency,
        rolled,
        scene,
        transfers,
        ratings,
        given.unit_level,
        given.draw,
        driven.top,
        given.programmed,
        memo(_softer, given, transfers).top,
        driven.unit_level,
        lossy,
        warm,
        bearing,
        played,
    )


def lasting_in(sound: Sounding, memo: Memo) -> Programmed:
    """What lasts with coils as warm as half an hour of programme makes them.

    Only worked out where it is asked for: an edit needs it where play comes near to what lasts.
    """
    if sound.warm is None:
        return sound.programmed
    cold, rated = sound.programmed, sound.transfers.heated
    return memo(_lasting, cold, sound.warm, rated, sound.bearing, sound.played)


def most_lost(sound: Sounding) -> Number:
    """DB that warm coils take of the programme level at most.

    No coil gets hotter than its rated power makes it, nor than the power that it takes cold, at a
    drive that grows by as much as its resistance may; and none takes more than that gains.
    """
    hot, warm, weights = sound.transfers.heated, sound.warm, sound.played.weights
    if hot is None or warm is None or weights is None:
        return 0.0
    drive, gained = smallest(sound.programmed.allowed), []
    drive = np.where(np.isfinite(drive), drive, 0.0)
    for k, current in enumerate(sound.transfers.coil_current):
        cold = warm.warming.ohms[k]
        most = hot.ohms[k] / cold
        watts = (drive * most) ** 2 * (np.abs(current) ** 2 @ weights)[..., None] * cold
        gained.append(np.minimum(most, 1.0 + warm.gained(k, watts) / cold))
    found = decibel(largest(gained))
    return np.asarray(np.maximum(found, 0.0) + TO_BE_SURE)


@dataclass(frozen=True)
class Bearing:
    """What bears what is played: parts, boards, and the bus with what it draws."""

    ratings: Ratings
    boards: Boards
    bus: Bus

    def limits(self, transfers: Transfers, material: Material, places: slice | None) -> Reached:
        """(level per unit input, every limit) of a box whose answers are ``transfers``."""
        asked, draw = (
            asked_of(transfers, material),
            draw_of(transfers.outputs, self.boards, material),
        )
        above: Mapping[Statistic, Number] = material.above
        if places is not None:
            asked, draw = asked.of(places), draw.of(places)
            above = {key: np.asarray(value)[..., places] for key, value in above.items()}
        bus = replace(self.bus, draw=draw)
        limits = reached(Ask(asked, self.ratings, self.boards, bus, above))
        return np.maximum(level(asked.heard), NOTHING), limits


def _at_rated(warm: Heated) -> Transfers:
    """The cold box, with what its coils carry when they are hot."""
    return warm.at_rated()


def _lasting(
    cold: Programmed, warm: Heated, rated: Hot | None, bearing: Bearing, played: Material
) -> Programmed:
    """What lasts with coils as warm as programme makes them."""
    assert played.weights is not None
    assert rated is not None

    def _allowed(transfers: Transfers) -> Reached:
        return bearing.limits(transfers, played, PROGRAMME)

    found = lasting(warm, rated, played.weights, smallest(cold.allowed), _allowed)
    top = ceiling(found.unit_level, found.limits)
    return replace(
        cold,
        allowed=found.limits,
        level=top.level,
        hot_unit_level=found.unit_level,
        rises=found.rises,
    )


def _softer(given: "_Given", transfers: Transfers) -> Driven:
    """The ceiling without what fast air loses; where coils give out first they are hot."""
    return Driven(*softer(given.top, given.unit_level, transfers.heated))


def _of_voices(whole: Solution, channels: int) -> Solution:
    """The answers to the channels, without those to sites."""
    return whole.of(slice(channels))


def _sines(listening: Listening) -> Material:
    """Held sines alone, with the duty of the brief's programme."""
    return sines_of(duty_of(listening))


def _driven(
    given: "_Given", transfers: Transfers, lossy: Yielding | None, bearing: Bearing, sines: Material
) -> Driven:
    """The ceiling of held sines with what fast air loses."""
    driven = Driven(given.top, given.unit_level)
    if lossy is not None:
        driven = ceiling_of(lossy, driven, lambda found: bearing.limits(found, sines, None))
    return Driven(*softer(driven.top, driven.unit_level, transfers.heated))


def _material(listening: Listening, frequency: Real) -> Material:
    """Held sines, and the brief's programme."""
    return material_of(programme_of(listening), duty_of(listening), frequency)


def boards_in(numbers: inputs.Inputs, memo: Memo) -> Boards:
    """The boards of a design, with the outputs of each voice channel."""
    return memo(boards_of, numbers.power, numbers.carried)


def bus_in(numbers: inputs.Inputs, draw: Draw, memo: Memo) -> Bus:
    """The bus of a design at its brief's charge while ``draw`` is played."""
    conditions = numbers.brief.conditions
    source = memo(source_at, numbers.power, conditions.charge, conditions.temperature)
    return memo(Bus, source, memo(standing_of, numbers.power), draw)


@dataclass(frozen=True)
class _Given:
    """How far a box goes on its source; see ``Sounding``."""

    unit_level: Real
    draw: Draw
    top: Ceiling
    programmed: Programmed


def _given(transfers: Transfers, bearing: Bearing, played: Material) -> _Given:
    """Limits, ceiling and programme level; no sound at all counts as ``NOTHING`` dB."""
    asked = asked_of(transfers, played)
    bus = bearing.bus
    limits = reached(Ask(asked, bearing.ratings, bearing.boards, bus, played.above))
    unit = np.maximum(level(asked.heard), NOTHING)
    top = ceiling(unit, limits)
    return _Given(
        unit[..., SINES],
        bus.draw.of(SINES),
        Ceiling(
            tuple(limit.of(SINES) for limit in limits), top.level[..., SINES], top.first[..., SINES]
        ),
        Programmed(
            bus.draw.of(PROGRAMME),
            unit[..., PROGRAMME],
            tuple(limit.of(PROGRAMME) for limit in limits),
            top.level[..., PROGRAMME],
            top.level[..., PROGRAMME],
            unit[..., PROGRAMME],
        ),
    )
