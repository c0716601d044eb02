"""What a design comes to in plain numbers: the design's own tree, each part as its constants.

A number is a float, or a column (designs, 1) where many designs are worked out at once; everything
else (counts, places, kinds, what is not known) is the topology, the same in all of them. Branches
that hold plain numbers already (brief, case, chambers, ports, voice) are the models themselves.
Nothing here is shown, and no range is checked again.
"""

from dataclasses import dataclass, field

from firecrest.core.acoustics.driver import DriverConstants
from firecrest.core.acoustics.large_signal import Bends
from firecrest.core.acoustics.thermal import Thermal
from firecrest.core.arrays import Number
from firecrest.core.note import Note
from firecrest.core.power.amplifier import AmplifierModel
from firecrest.core.power.cold import Warmth
from firecrest.core.power.source import CellTable
from firecrest.design.box import Chamber, Port, Position
from firecrest.design.brief import Brief
from firecrest.design.case import Case
from firecrest.design.mount import Mount
from firecrest.design.outputs import Carried
from firecrest.design.power import Lead, OtherLoad
from firecrest.design.sources import Converter, ProtectionBoard
from firecrest.design.voice import Voice

LABEL = {"label": True}
"""Marks a field that is only shown: designs that differ in it are of one topology."""


@dataclass(frozen=True)
class Bulk:
    """The air a thing takes (m3), its weight (kg) and price; ``size`` of a brick in m, if known.

    ``fins``: the side of it that cooling fins run along.
    """

    name: str = field(metadata=LABEL)
    volume: Number
    mass: Number
    price: Number
    size: tuple[Number, Number, Number] | None = None
    fins: str = "none"


@dataclass(frozen=True)
class Framed:
    """How a driver or radiator sits in a panel, m: ``rear`` is its magnet's, or its end's, size.

    ``flats`` is None of a round frame, ``rear_height`` 0 of a radiator.
    """

    cut_out: Number
    flats: Number | None
    frame: Number
    depth: Number
    rear: Number
    rear_height: Number


@dataclass(frozen=True)
class Driver:
    """A driver as its coils are wired; None where a figure is not known.

    ``lacks`` tells the first figure without which there are no constants; ``thermal`` is None where
    nothing tells how its coil heats, ``bends`` where nothing tells how far it travels.
    """

    constants: DriverConstants | None
    xmax: Number | None
    pe: Number | None
    thermal: Thermal | None
    bends: Bends | None
    bulk: Bulk
    lacks: Note | None
    framed: Framed | None = None


@dataclass(frozen=True)
class Group:
    """Equal drivers; see ``design.box.DriverGroup``."""

    driver: Driver
    chamber: str
    front: str
    channel: str
    in_series: int
    in_parallel: int
    pair: str
    pair_in: str
    trapped: Number | None
    place: Position
    mounts: tuple[Mount, ...] = ()


@dataclass(frozen=True)
class Radiator:
    """A passive radiator without added mass; ``lacks`` as of a driver."""

    mmp: Number | None
    cmp: Number | None
    rmp: Number | None
    sd: Number | None
    xmax: Number | None
    bends: Bends | None
    bulk: Bulk
    lacks: Note | None
    framed: Framed | None = None


@dataclass(frozen=True)
class Radiators:
    """Equal passive radiators; see ``design.box.RadiatorSet``."""

    radiator: Radiator
    count: int
    added_mass: Number
    horizontal: bool
    chamber: str
    opens_to: str
    place: Position
    mounts: tuple[Mount, ...] = ()


Opening = Port | Radiators


@dataclass(frozen=True)
class Elements:
    """What is in a case and can be heard: all that sound depends on, but for the air.

    ``air_speed`` is a factor on all estimated limits of the air speed in ports, ``air_loss`` on
    what fast air loses in them.
    """

    chambers: tuple[Chamber, ...]
    groups: tuple[Group, ...]
    openings: tuple[Opening, ...]
    air_speed: Number = field(default=1.0, kw_only=True)
    air_loss: Number = field(default=1.0, kw_only=True)


@dataclass(frozen=True)
class Box(Elements):
    """Case and acoustic elements."""

    case: Case


@dataclass(frozen=True)
class Amplifier:
    """A board as the claims of each kind of its outputs read."""

    kinds: tuple[AmplifierModel, ...]
    gain: Number
    bulk: Bulk
    mount: Mount | None = None
    place: int = 0


@dataclass(frozen=True)
class Dsp:
    """The signal processor."""

    full_scale: Number
    headroom: Number
    sample_rate: Number
    power: Number
    regulator: Number
    bulk: Bulk
    mount: Mount | None = None
    place: int = 0


@dataclass(frozen=True)
class Receiver:
    """A receiver: watts through a regulator."""

    power: Number
    regulator: Number
    bulk: Bulk
    mount: Mount | None = None
    place: int = 0


@dataclass(frozen=True)
class Layout:
    """Cells of a pack: ``n`` of them along u, v and inwards, pointing along ``lie``."""

    mount: Mount
    n: tuple[Number, Number, Number]
    lie: str
    wrap: Number
    wrapped: bool


@dataclass(frozen=True)
class Cell:
    """One cell; capacity in A s."""

    table: CellTable
    warmth: Warmth
    capacity: Number
    max_current: Number | None
    cut_off: Number | None
    bulk: Bulk
    diameter: Number
    length: Number


@dataclass(frozen=True)
class Pack:
    """Cells behind a protection board and leads."""

    cell: Cell
    series: int
    parallel: int
    board: ProtectionBoard | None
    health: Number
    spread: Number
    layout: Layout | None


@dataclass(frozen=True)
class Supply:
    """A wall supply, or what is sold by its energy (J)."""

    voltage: Number
    resistance: Number
    continuous_current: Number
    burst_current: Number | None
    energy: Number | None
    bulk: Bulk


@dataclass(frozen=True)
class Power:
    """Everything between the wall or the cells and the drivers; ``source`` is None at the mains.

    Rails are places among the converters, None is the source itself: one for each amplifier, for
    the DSP, and for each receiver and load.
    """

    amplifiers: tuple[Amplifier, ...]
    rails: tuple[int | None, ...]
    dsp: Dsp
    dsp_rail: int | None
    receivers: tuple[Receiver, ...]
    receiver_rails: tuple[int | None, ...]
    source: Pack | Supply | None
    converters: tuple[Converter, ...]
    other_loads: tuple[OtherLoad, ...]
    load_rails: tuple[int | None, ...]
    lead: Lead


@dataclass(frozen=True)
class Inputs:
    """A whole design; ``carried`` tells which outputs carry each channel of the voice."""

    brief: Brief
    box: Box
    power: Power
    voice: Voice
    carried: tuple[Carried, ...]
