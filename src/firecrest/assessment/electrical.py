"""Source and converter of a design as the bus that its amplifier sees."""

from dataclasses import replace

from firecrest.assessment.lower import inputs
from firecrest.core.arrays import Number
from firecrest.core.power import source as src
from firecrest.core.power.runtime import Player, at_rest
from firecrest.design.power import Converter

FLAT = (0.0, 1.0)


def pack_model(pack: inputs.Pack) -> src.Pack:
    """Cells, board and leads as one."""
    cell, board = pack.cell, pack.board
    return src.Pack(
        cell.table,
        cell.capacity,
        cell.max_current,
        cell.cut_off,
        pack.series,
        pack.parallel,
        board.resistance if board else 0.0,
        board.max_current if board else None,
        board.cut_off if board else None,
        pack.lead_resistance,
    )


def store_of(power: inputs.Power) -> src.Pack | None:
    """What runs empty: the pack, or a battery or power bank that is sold by its energy.

    The latter keeps its stated voltage to the end, where its own electronics switch off.
    """
    source = power.source
    if isinstance(source, inputs.Pack):
        return pack_model(source)
    if source is None or source.energy is None:
        return None
    return flat_pack(source, source.energy / source.voltage)


def converter_model(part: Converter | None) -> src.Converter | None:
    """The converter, if there is one."""
    if part is None:
        return None
    return src.Converter(part.output_voltage, part.efficiency, part.input_current, part.cut_off)


def other_power(power: inputs.Power) -> Number:
    """What DSP and other loads take from the bus, W."""
    loads = [(power.dsp.power, power.dsp.regulator)]
    loads += [(load.power, load.efficiency) for load in power.other_loads]
    return src.other_load(loads)


def player_of(power: inputs.Power) -> Player:
    """What plays from the source."""
    return Player(power.amplifier.model, other_power(power), converter_model(power.converter))


def flat_pack(source: inputs.Supply, amperes: Number = 1.0) -> src.Pack:
    """A supply as a pack that keeps its voltage."""
    table = src.CellTable(FLAT, (source.voltage,) * 2, (source.resistance,) * 2)
    return src.Pack(table, amperes, None, None, 1, 1)


def _rest(power: inputs.Power, charge: Number) -> dict[str, Number]:
    """Volts in hand before anything plays, by what could be open."""
    source, amplifier = power.source, power.amplifier.model
    assert source is not None
    pack = pack_model(source) if isinstance(source, inputs.Pack) else flat_pack(source)
    found: dict[str, Number] = dict(at_rest(pack, charge, player_of(power)))
    bus = pack.rest_voltage(1.0) if power.converter is None else power.converter.output_voltage
    if power.converter is not None and amplifier.cut_off is not None:
        found["amplifier"] = bus - amplifier.cut_off
    if amplifier.highest is not None:
        found["highest supply"] = amplifier.highest - bus
    return found


def source_at(power: inputs.Power, charge: Number) -> src.Source:
    """The bus at ``charge`` (packs only; other sources do not change).

    The highest supply of a board is held against a full pack, whatever the charge.
    """
    source = power.source
    if source is None:
        return src.Source(0.0, 0.0)
    return replace(_source(power, source, charge), at_rest=_rest(power, charge))


def _source(power: inputs.Power, source: inputs.Pack | inputs.Supply, charge: Number) -> src.Source:
    converter, other = converter_model(power.converter), other_power(power)
    if isinstance(source, inputs.Pack):
        return src.pack_source(pack_model(source), charge, other, converter)
    burst = source.continuous_current if source.burst_current is None else source.burst_current
    limits = {"supply": burst}
    if converter is not None and converter.input_current is not None:
        limits["converter input"] = converter.input_current
    return src.Source(
        source.voltage, source.resistance, other, limits, source.continuous_current, converter
    )
