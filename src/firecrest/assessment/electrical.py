"""Boards, source and converters of a design as the bus that everything hangs on."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from firecrest.assessment.lower import inputs
from firecrest.core.arrays import Number, largest
from firecrest.core.power import source as src
from firecrest.core.power.boards import Board, Boards, Feed, Load, Standing, load_power, standing
from firecrest.core.power.cold import worn
from firecrest.core.power.discharge import Player, at_rest, player_of
from firecrest.design.outputs import Carried
from firecrest.design.sources import Converter

FLAT = (0.0, 1.0)
DROPOUT = 0.5
"""V that a converter which steps down needs above its output: an estimate of common parts."""


def pack_model(pack: inputs.Pack, lead: Number, temperature: Number) -> src.Pack:
    """Cells at ``temperature`` (K), board and a ``lead`` of so many ohms as one."""
    cell, board = pack.cell, pack.board
    left = worn(cell.table, cell.capacity, cell.warmth, temperature, pack.health)
    return src.Pack(
        left.table,
        left.capacity,
        cell.max_current,
        cell.cut_off,
        pack.series,
        pack.parallel,
        board.resistance if board else 0.0,
        board.max_current if board else None,
        board.cut_off if board else None,
        lead,
        pack.spread,
        board.own_current if board else 0.0,
    )


def store_of(power: inputs.Power, temperature: Number) -> src.Pack | None:
    """What runs empty: the pack, or a battery or power bank that is sold by its energy.

    The latter has its energy at any temperature and keeps its stated voltage to the end, where its
    own electronics switch off.
    """
    source = power.source
    if isinstance(source, inputs.Pack):
        return pack_model(source, power.lead.resistance, temperature)
    if source is None or source.energy is None:
        return None
    return flat_pack(power, source, source.energy / source.voltage)


def converter_model(part: Converter) -> src.Converter:
    """A converter; one that steps down stops a little above its output."""
    cut_off: Number | None = part.cut_off
    if part.step == "down":
        least = part.output_voltage + DROPOUT
        cut_off = least if cut_off is None else largest((cut_off, least))
    return src.Converter(
        part.output_voltage,
        part.efficiency,
        part.input_current,
        cut_off,
        part.output_current,
        part.idle_power,
    )


def boards_of(power: inputs.Power, carried: tuple[Carried, ...] = ()) -> Boards:
    """All amplifier boards, with the outputs that carry each voice channel."""
    boards = zip(power.amplifiers, power.rails, strict=True)
    return Boards(
        tuple(Board(amplifier.kinds[0], rail) for amplifier, rail in boards),
        tuple(converter_model(part) for part in power.converters),
        tuple(Feed(power.amplifiers[board].kinds[kind], board) for board, kind, _ in carried),
    )


def loads_list(power: inputs.Power) -> list[Load]:
    """DSP, receivers and other loads, in this order."""
    loads = [Load(power.dsp.power, power.dsp.regulator, power.dsp_rail)]
    loads += [
        Load(item.power, item.regulator, rail)
        for item, rail in zip(power.receivers, power.receiver_rails, strict=True)
    ]
    loads += [
        Load(load.power, load.efficiency, rail)
        for load, rail in zip(power.other_loads, power.load_rails, strict=True)
    ]
    return loads


def loads_of(power: inputs.Power) -> Number:
    """What they take from the source, W."""
    return load_power(loads_list(power), [converter_model(part) for part in power.converters])


def standing_of(power: inputs.Power) -> Standing:
    """What is taken before anything plays."""
    return standing(boards_of(power), loads_of(power))


def playing(power: inputs.Power) -> Player:
    """What plays from the source."""
    return player_of(boards_of(power), loads_of(power))


def flat_pack(power: inputs.Power, source: inputs.Supply, amperes: Number = 1.0) -> src.Pack:
    """A supply as a pack that keeps its voltage, behind the lead."""
    table = src.CellTable(FLAT, (source.voltage,) * 2, (source.resistance,) * 2)
    return src.Pack(table, amperes, None, None, 1, 1, lead_resistance=power.lead.resistance)


def _rest(power: inputs.Power, pack: src.Pack, charge: Number) -> dict[str, Number]:
    """Volts in hand before anything plays, by what could be open; the least of several boards."""
    found: dict[str, Number] = dict(at_rest(pack, charge, playing(power)))
    for name, volts in _against_rails(power):
        found[name] = np.minimum(found[name], volts) if name in found else volts
    return found


def _against_rails(power: inputs.Power) -> Iterator[tuple[str, Number]]:
    """Volts in hand of each board against its rail."""
    for number, board in enumerate(boards_of(power).boards):
        rail, model = full_rail(power, number), board.model
        if board.converter is not None and model.cut_off is not None:
            yield "amplifier", rail - model.cut_off
        if model.highest is not None:
            yield "highest supply", model.highest - rail


def full_rail(power: inputs.Power, board: int) -> Number:
    """Volts that an amplifier board gets at most: of its converter, or of a full source at rest."""
    place, source = power.rails[board], power.source
    if place is not None:
        return power.converters[place].output_voltage
    assert source is not None
    if isinstance(source, inputs.Pack):
        return source.series * source.cell.table.voltage_at(1.0)
    return source.voltage


def source_at(power: inputs.Power, charge: Number, temperature: Number) -> src.Source:
    """The source at ``charge`` and ``temperature`` (packs only; other sources do not change).

    The highest supply of a board is held against a full pack, whatever the charge.
    """
    source = power.source
    if source is None:
        return src.Source(0.0, 0.0)
    if isinstance(source, inputs.Pack):
        pack = pack_model(source, power.lead.resistance, temperature)
        made = src.pack_source(pack, charge)
    else:
        pack = flat_pack(power, source)
        burst = source.continuous_current if source.burst_current is None else source.burst_current
        limits = {"supply": burst}
        ohms = source.resistance + power.lead.resistance
        made = src.Source(source.voltage, ohms, limits, source.continuous_current)
    return replace(made, at_rest=_rest(power, pack, charge))
