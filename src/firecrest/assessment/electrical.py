"""Amplifier, source and loads as the plain numbers of the core."""

from firecrest.assessment.memo import stage
from firecrest.core.arrays import Number
from firecrest.core.power import amplifier as amp
from firecrest.core.power import source as src
from firecrest.design.power import Amplifier, Converter, Mains, Pack, Power, Source, WallSupply


@stage
def amplifier_model(part: Amplifier) -> amp.AmplifierModel:
    """The board's claims, read."""
    efficiency = part.efficiency and (part.efficiency.value, part.efficiency.claim)
    return amp.read_claims(
        [amp.Claim(c.power, c.load, c.supply, c.thd) for c in part.claims],
        channels=part.channels,
        bridged=part.bridged,
        idle_current=part.idle_current,
        boosted=part.boosted,
        own_mains=part.own_mains,
        current_limit=part.current_limit,
        efficiency=efficiency or None,
        cut_off=part.cut_off,
    )


@stage
def pack_model(pack: Pack) -> src.Pack:
    """Cells, board and leads as one."""
    cell, board = pack.cell, pack.board
    table = src.CellTable(
        tuple(p.charge for p in cell.table),
        tuple(p.rest_voltage for p in cell.table),
        tuple(p.resistance for p in cell.table),
    )
    return src.Pack(
        table,
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


FLAT = (0.0, 1.0)


@stage
def store_of(source: Source) -> src.Pack | None:
    """What runs empty: the pack, or a battery or power bank that is sold by its energy.

    The latter keeps its stated voltage to the end, where its own electronics switch off.
    """
    if isinstance(source, Pack):
        return pack_model(source)
    if not isinstance(source, WallSupply) or source.energy is None:
        return None
    volts, ohms = (source.voltage,) * 2, (source.resistance,) * 2
    table = src.CellTable(FLAT, volts, ohms)
    return src.Pack(table, source.energy / source.voltage, None, None, 1, 1)


def converter_model(part: Converter | None) -> src.Converter | None:
    """The converter, if there is one."""
    if part is None:
        return None
    return src.Converter(part.output_voltage, part.efficiency, part.input_current, part.cut_off)


def other_power(power: Power) -> float:
    """What DSP and other loads take from the bus, W."""
    loads = [(power.dsp.power, power.dsp.regulator)]
    loads += [(load.power, load.efficiency) for load in power.other_loads]
    return src.other_load(loads)


def source_at(power: Power, charge: float) -> src.Source:
    """The bus at ``charge`` (packs only; other sources do not change)."""
    source, converter, other = power.source, converter_model(power.converter), other_power(power)
    if isinstance(source, Pack):
        return src.pack_source(pack_model(source), charge, other, converter)
    if isinstance(source, WallSupply):
        burst: dict[str, Number] = {"supply": source.burst_current or source.continuous_current}
        if converter is not None and converter.input_current is not None:
            burst["converter input"] = converter.input_current
        return src.Source(
            source.voltage, source.resistance, other, burst, source.continuous_current, converter
        )
    assert isinstance(source, Mains)
    return src.Source(0.0, 0.0)
