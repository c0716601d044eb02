"""Parts of a design to plain numbers; what follows from a part is kept with it.

Parts never change, so what was worked out from one belongs to it for as long as it lives.
"""

from dataclasses import astuple, replace
from math import pi, sqrt

from firecrest.assessment.figures import (
    SYMBOLS,
    driver_constants,
    kept_with,
    radiator_figures,
    wired_driver,
)
from firecrest.assessment.lower import inputs
from firecrest.core.acoustics.large_signal import Bend, Bends
from firecrest.core.acoustics.thermal import Thermal, usual_diameter, usual_thermal
from firecrest.core.arrays import Number
from firecrest.core.cabinet.parts import END_SHARE, FRAME_OVER, MAGNET_DEEP, MAGNET_SHARE
from firecrest.core.errors import MissingFigureError
from firecrest.core.note import note
from firecrest.core.power import amplifier as amp
from firecrest.core.power.cold import USUAL, Warmth
from firecrest.core.power.source import CellTable
from firecrest.design.amplifiers import Amplifier, BoardPart, DspBoard, OutputKind, Receiver
from firecrest.design.parts import DriverPart, FramedPart, RadiatorPart
from firecrest.design.sources import Cell, WallSupply


def bulk(part: object, volume: float | None = None) -> inputs.Bulk:
    """What a part takes, weighs and costs; 0 where its sheet has no such field."""
    name = getattr(part, "name", "part")
    takes = getattr(part, "volume", 0.0) if volume is None else volume
    mass, price = getattr(part, "mass", 0.0), getattr(part, "price", 0.0)
    fins = getattr(part, "fins", "none")
    return inputs.Bulk(name, takes, mass, price, _brick(part, takes), fins)


BRICK = (3.0, 2.0, 1.0)
"""Sides of a board that is known by the air it takes alone: an estimate."""
CELL_SLIM = 3.3
"""How many times as long as wide a cell is that is known by its room alone: an estimate."""
CUT_OF_CONE, DEPTH_OF_CUT = 1.1, 0.45
"""Cut-out over the cone's own diameter, depth over the cut-out: estimates."""


def _brick(part: object, takes: float) -> tuple[Number, Number, Number] | None:
    """Length, width and height of a board; by its air where they are not all known."""
    if not isinstance(part, BoardPart):
        return None
    known = part.length, part.width, part.height
    if None not in known:
        return known  # type: ignore[return-value]
    if takes <= 0:
        return None
    unit = (takes / (BRICK[0] * BRICK[1] * BRICK[2])) ** (1 / 3)
    a, b, c = (s * unit if k is None else k for k, s in zip(known, BRICK, strict=True))
    return a, b, c


def _cell_size(part: Cell) -> tuple[float, float]:
    """Diameter and length of a cell; by the room it takes where they are not known."""
    by_room = (max(part.volume, 1e-9) / (pi / 4 * CELL_SLIM)) ** (1 / 3)
    d = by_room if part.diameter is None else part.diameter
    return d, CELL_SLIM * d if part.length is None else part.length


def _framed(
    part: FramedPart, rear: float | None, rear_height: float | None
) -> inputs.Framed | None:
    """How a part sits in its panel, what is missing estimated; None where nothing tells its size.

    Estimates: frame 14 mm over its cut-out, cut-out of the size class or a tenth over the cone.
    """
    cut = part.cut_out
    if cut is None and part.frame is not None:
        cut = part.frame - FRAME_OVER
    if cut is None:
        cone = getattr(part, "sd", None)
        if cone is None and part.size is None:
            return None
        cut = CUT_OF_CONE * 2 * sqrt(cone / pi) if cone is not None else part.size
    assert cut is not None
    depth = DEPTH_OF_CUT * cut if part.depth is None else part.depth
    frame = cut + FRAME_OVER if part.frame is None else part.frame
    share = MAGNET_SHARE if isinstance(part, DriverPart) else END_SHARE
    wide = share * cut if rear is None else rear
    high = MAGNET_DEEP * depth if rear_height is None else rear_height
    return inputs.Framed(cut, part.flats, frame, depth, wide, high)


@kept_with
def lower_driver(part: DriverPart, coils: str) -> inputs.Driver:
    """A driver as its coils are wired; ``lacks`` names the first figure that does not follow."""
    wired = wired_driver(part, coils)
    lacks, constants = None, None
    try:
        constants = driver_constants(wired)
    except MissingFigureError as error:
        lacks = note("figure", figure=error.figure, part=error.part)
    room, thermal = bulk(part, part.displacement), _thermal(part, wired.pe)
    framed = _framed(part, part.magnet_diameter, part.magnet_height)
    bends = _bends(part)
    return inputs.Driver(constants, part.xmax, wired.pe, thermal, bends, room, lacks, framed)


def _bends(part: DriverPart) -> Bends | None:
    """How a driver bends: as measured, else as usual over its Xmax."""
    if not part.large:
        return None if part.xmax is None else Bends(part.xmax)
    last = part.large[-1].travel
    travel = (0.0, *(p.travel / last for p in part.large))

    def _bend(name: str) -> Bend:
        return Bend(travel, (1.0, *(getattr(p, name) for p in part.large)))

    return Bends(last, _bend("kms"), _bend("bl"), _bend("le"))


def _thermal(part: DriverPart, power: float | None) -> Thermal | None:
    """How a coil heats: as stated, else as usual for its diameter, else for its rated power."""
    stated = (part.r_tv, part.r_tm, part.c_tv, part.c_tm)
    diameter: Number | None = part.coil_diameter
    if diameter is None and power is not None:
        diameter = usual_diameter(power)
    if diameter is None:
        return None if None in stated else Thermal(*stated)  # type: ignore[arg-type]
    usual = astuple(usual_thermal(diameter))
    return Thermal(*(u if own is None else own for own, u in zip(stated, usual, strict=True)))


@kept_with
def lower_radiator(part: RadiatorPart) -> inputs.Radiator:
    """A radiator; ``lacks`` names the first figure that does not follow."""
    known = radiator_figures(part)
    gaps = [key for key, value in known.items() if value is None]
    lacks = note("figure", figure=SYMBOLS[gaps[0]], part=part.name) if gaps else None
    return inputs.Radiator(
        known["mmp"],
        known["cmp"],
        known["rmp"],
        known["sd"],
        part.xmax,
        None if part.xmax is None else Bends(part.xmax),
        bulk(part, part.displacement),
        lacks,
        _framed(part, part.end_diameter, 0.0),
    )


@kept_with
def read_amplifier(part: Amplifier) -> tuple[amp.ReadClaims, ...]:
    """The claims of each kind of a board's outputs, read; the first ones first.

    Its efficiency figure is of the first ones; the others switch with the same losses.
    """
    stated = part.efficiency and (part.efficiency.value, part.efficiency.claim)
    first = _read(part, part, stated or None)
    others = [_read(part, kind, None) for kind in part.other_outputs]
    alike = [replace(o, model=replace(o.model, loss=first.model.loss)) for o in others]
    return (first, *alike)


def _read(
    part: Amplifier, kind: Amplifier | OutputKind, efficiency: tuple[float, int] | None
) -> amp.ReadClaims:
    """The claims of one kind of outputs."""
    return amp.read_claims(
        [amp.Claim(c.power, c.load, c.supply, c.thd) for c in kind.claims],
        channels=kind.channels,
        bridged=kind.bridged,
        idle_current=part.idle_current,
        boosted=part.boosted,
        own_mains=part.own_mains,
        current_limit=kind.current_limit,
        efficiency=efficiency,
        cut_off=part.cut_off,
        highest=part.highest_supply,
    )


@kept_with
def lower_amplifier(part: Amplifier) -> inputs.Amplifier:
    """A board."""
    kinds = tuple(read.model for read in read_amplifier(part))
    return inputs.Amplifier(kinds, part.gain, bulk(part))


@kept_with
def lower_receiver(part: Receiver) -> inputs.Receiver:
    """A receiver."""
    return inputs.Receiver(part.power, part.regulator, bulk(part))


@kept_with
def lower_dsp(part: DspBoard) -> inputs.Dsp:
    """A signal processor."""
    return inputs.Dsp(
        part.full_scale, part.headroom, part.sample_rate, part.power, part.regulator, bulk(part)
    )


@kept_with
def lower_cell(part: Cell) -> inputs.Cell:
    """A cell."""
    table = CellTable(
        tuple(p.charge for p in part.table),
        tuple(p.rest_voltage for p in part.table),
        tuple(p.resistance for p in part.table),
    )
    warmth = Warmth(
        tuple(p.temperature for p in part.warmth),
        tuple(p.capacity for p in part.warmth),
        tuple(p.resistance for p in part.warmth),
    )
    return inputs.Cell(
        table,
        warmth if part.warmth else USUAL[part.chemistry],
        part.capacity,
        part.max_current,
        part.cut_off,
        bulk(part),
        *_cell_size(part),
    )


@kept_with
def lower_supply(part: WallSupply) -> inputs.Supply:
    """A wall supply, a battery or a power bank; only what is carried weighs."""
    return inputs.Supply(
        part.voltage,
        part.resistance,
        part.continuous_current,
        part.burst_current,
        part.energy,
        bulk(part, 0.0),
    )
