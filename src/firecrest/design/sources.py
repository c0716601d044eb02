"""Where the power comes from: cells and packs, chargers, supplies, and steps between."""

from typing import Annotated, Literal

from pydantic import Field
from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, identity, items, number, text
from firecrest.design.mount import Mount
from firecrest.design.sheet import Sheet

Contact = Literal[
    "barrel 5.5 mm",
    "magnetic contact",
    "USB-C",
    "USB-C, marked lead",
    "screw terminal",
    "pack plug, small",
    "pack plug, large",
]
"""What charges or feeds through a wall; ``core.power.connectors`` knows what each bears."""


@dataclass(frozen=True, kw_only=True, config=MODEL)
class CellPoint:
    """Rest voltage and resistance of a cell at one charge."""

    charge: float = number("Charge", "share", 0, 1, "%", digits=0)
    rest_voltage: float = number("Rest voltage", "voltage", 0.5, 5, "V", digits=2)
    resistance: float = number("Resistance", "resistance", 0, 2, "mΩ", digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class CellWarmth:
    """What a cell holds and how it resists at one temperature, against 20 °C."""

    temperature: float = number("Temperature", "temperature", 233.15, 333.15, "°C", digits=0)
    capacity: float = number("Capacity left", "share", 0.05, 1.5, "%", digits=0)
    resistance: float = number("Resistance, times", "number", 0.2, 20, "", digits=2)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Cell(Sheet):
    """One cell; its tables rise, in charge and in temperature, and are flat beyond their ends.

    Without a table by temperature the usual one of its chemistry is taken, an estimate.
    """

    chemistry: Literal[
        "lithium ion", "lithium iron phosphate", "nickel metal hydride", "lead acid"
    ] = choice("Chemistry", default="lithium ion")
    capacity: float = number("Capacity", "charge", 36, 3.6e6, "Ah", digits=2)
    max_current: float | None = number("Current at most", "current", 0.01, 500, "A", default=None)
    charge_current: float | None = number(
        "Charged at most at",
        "current",
        0.01,
        500,
        "A",
        default=None,
        empty="half its Ah",
        help="Empty: half its capacity in an hour, an estimate.",
    )
    cut_off: float | None = number(
        "Empty below", "voltage", 0.5, 4, "V", default=None, empty="none", digits=2
    )
    diameter: float | None = number(
        "Diameter",
        "length",
        0.003,
        0.3,
        "mm",
        default=None,
        empty="by its room",
        digits=1,
        help="Empty: of a cell 3.3 times as long as wide that takes its room, an estimate.",
    )
    length: float | None = number(
        "Length", "length", 0.003, 1, "mm", default=None, empty="by its room", digits=1
    )
    table: tuple[CellPoint, ...] = items("Voltage and resistance", least=2, most=60)
    warmth: tuple[CellWarmth, ...] = items("By temperature", default=(), most=20)
    volume: float = number("Room it takes", "volume", 0, 1, "L", default=0.0, digits=3)
    mass: float = number("Weight", "mass", 0, 20, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=1)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class ProtectionBoard:
    """The board that opens when the pack is asked too much."""

    max_current: float | None = number("Opens above", "current", 0.1, 500, "A")
    cut_off: float | None = number(
        "Opens below", "voltage", 0.5, 400, "V", default=None, empty="none", digits=2
    )
    resistance: float = number("Board resistance", "resistance", 0, 1, "mΩ", default=0.0, digits=0)
    own_current: float = number(
        "Takes by itself",
        "current",
        0,
        1,
        "mA",
        default=0.0,
        digits=2,
        help="At all times, also when everything is switched off.",
    )
    balances: bool = choice(
        "Balances the cells",
        default=True,
        help="Brings all groups to the same voltage at the end of each charge.",
    )
    volume: float = number("Room it takes", "volume", 0, 1, "L", default=0.0, digits=3)
    mass: float = number("Weight", "mass", 0, 20, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Charger:
    """What charges a pack: constant current, then constant voltage."""

    name: str = text("Name", default="Charger")
    current: float = number("Charging current", "current", 0.01, 200, "A", digits=2)
    voltage: float = number("Charges to", "voltage", 0.5, 500, "V", digits=2)
    end_current: float | None = number(
        "Ends at",
        "current",
        0.001,
        100,
        "A",
        default=None,
        empty="a 20th of the Ah",
        digits=2,
        help="Empty: a twentieth of the pack's capacity in an hour.",
    )
    lead_resistance: float = number(
        "Charger's lead", "resistance", 0, 5, "mΩ", default=0.03, digits=0
    )
    contact: Contact = choice(
        "Charging contact",
        default="barrel 5.5 mm",
        help="Each bears so much: magnetic contacts 2 A, small barrels 5 A.",
    )
    while_playing: bool = choice(
        "May play while it charges",
        default=True,
        help="The box hangs at the pack's terminals, beside the charger.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Pack:
    """Cells in series x parallel, behind a protection board and leads."""

    kind: Literal["pack"]
    cell: Cell
    series: int = number("Cells in series", "number", 1, 100, "", default=1, digits=0)
    parallel: int = number("Cells in parallel", "number", 1, 100, "", default=1, digits=0)
    board: ProtectionBoard | None = choice("Protection board", default=None)
    health: float = number(
        "Capacity left by age",
        "share",
        0.3,
        1,
        "%",
        default=1.0,
        digits=0,
        help="100 % is new. At 80 % a cell has some 1.6 times the resistance of a new one.",
    )
    spread: float = number(
        "Weak group, less by",
        "share",
        0,
        0.5,
        "%",
        default=0.0,
        digits=0,
        help="Of the groups in series. Matched new cells: 0; salvaged or unmatched: about 3 %.",
    )
    charger: Charger | None = choice("Charger", default=None)
    mount: Mount | None = choice("Place", default=None)
    across: int | None = number(
        "Cells side by side",
        "number",
        1,
        100,
        "",
        default=None,
        empty="nearly square",
        digits=0,
        help="The rest goes in rows behind these.",
    )
    lie: Literal["u", "v", "w"] = choice(
        "Cells point", default="v", help="Across the panel, up it, or away from it."
    )
    wrap: float = number("Wrap", "length", 0, 0.01, "mm", default=0.001, digits=1)
    wrapped: bool = choice(
        "Wrapped whole", default=True, help="Else air goes between the cells, but not the glue."
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class SupplyStep:
    """A voltage that can be asked for, with the currents it gives then."""

    voltage: float = number("Voltage", "voltage", 1, 60, "V")
    continuous_current: float = number("Continuous", "current", 0.05, 50, "A")
    burst_current: float | None = number(
        "Burst", "current", 0.05, 100, "A", default=None, empty="continuous"
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class WallSupply(Sheet):
    """A wall supply or laptop brick."""

    kind: Literal["wall"]
    name: str = text("Name", default="Wall supply")
    form: Literal["wall supply", "laptop brick", "house battery", "car outlet", "power bank"] = (
        choice("Form", default="wall supply")
    )
    behaviour: Literal["constant current", "fold-back", "hiccup", "latch"] = choice(
        "When asked too much",
        default="constant current",
        help="Its voltage sinks; it gives less and less; it goes off and tries again; it goes off "
        "until it is unplugged.",
    )
    short_current: float | None = number(
        "Current into a short circuit",
        "current",
        0,
        1000,
        "A",
        default=None,
        empty="a quarter of burst",
        help="Of one that folds back. Empty: a quarter of its burst current, an estimate.",
    )
    trip_time: float = number(
        "Goes off after", "time", 0.001, 60, "s", default=0.1, digits=2, help="Of too much current."
    )
    retry_time: float = number(
        "Tries again after", "time", 0.01, 600, "s", default=1.0, digits=1, help="Having gone off."
    )
    steps: tuple[SupplyStep, ...] = items("Voltages that can be asked for", default=(), most=10)
    keep_current: float | None = number(
        "Goes off below",
        "current",
        0,
        5,
        "mA",
        default=None,
        empty="never",
        digits=0,
        help="Many power banks switch off when little is drawn.",
    )
    time_out: float = number(
        "After", "time", 1, 36000, "s", default=30.0, digits=0, help="Of so small a load."
    )
    energy: float | None = number(
        "Energy it holds",
        "energy",
        360,
        1e9,
        "Wh",
        default=None,
        empty="no end",
        digits=0,
        help="Of a battery or power bank, at its output. Empty: from the wall, without end.",
    )
    voltage: float = number("Voltage", "voltage", 1, 400, "V")
    resistance: float = number("Regulation", "resistance", 0, 10, "mΩ", default=0.0, digits=0)
    continuous_current: float = number("Continuous current", "current", 0.05, 500, "A")
    burst_current: float | None = number(
        "Burst current",
        "current",
        0.05,
        1000,
        "A",
        default=None,
        empty="continuous",
        help="Empty: its continuous one.",
    )
    mass: float = number(
        "Weight carried",
        "mass",
        0,
        20,
        "g",
        default=0.0,
        digits=0,
        help="0 when it stays on the wall.",
    )
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=0)


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Mains:
    """The amplifier has its own mains supply."""

    kind: Literal["mains"]


Source = Annotated[Pack | WallSupply | Mains, Field(discriminator="kind", title="Power from")]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Converter:
    """A step between source and boards."""

    id: str = identity("converter")
    name: str = text("Name", default="Converter")
    step: Literal["up or down", "up", "down"] = choice(
        "Steps",
        default="up or down",
        help="One that steps down stops 0.5 V above its output; one that steps up cannot take more "
        "than it gives.",
    )
    output_voltage: float = number("Output", "voltage", 1, 400, "V")
    efficiency: float = number("Efficiency", "share", 0.1, 1, "%", default=0.9, digits=0)
    input_current: float | None = number(
        "Input current at most", "current", 0.05, 500, "A", default=None
    )
    output_current: float | None = number(
        "Output current at most", "current", 0.05, 500, "A", default=None, empty="none stated"
    )
    idle_power: float = number(
        "Takes by itself", "power", 0, 50, "W", default=0.0, digits=2, help="With nothing on it."
    )
    cut_off: float | None = number(
        "Stops below", "voltage", 0.5, 400, "V", default=None, empty="none"
    )
    mass: float = number("Weight", "mass", 0, 20, "g", default=0.0, digits=0)
    price: float = number("Price", "money", 0, 1e4, "€", default=0.0, digits=0)
