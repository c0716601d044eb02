"""The brief: six promises, who they are made to, and the conditions they hold in."""

from typing import Literal

from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, number
from firecrest.design.tolerances import Tolerances

Importance = Literal["must", "wish", "open"]
Place = Literal["pole", "ground", "wall", "corner"]
Material = Literal["music", "pink", "speech", "instrument", "sine"]


@dataclass(frozen=True, kw_only=True, config=MODEL)
class LoudnessPromise:
    """Level of a sine with the programme's peak, at the listener."""

    level: float = number(
        "Loudness",
        "level",
        50,
        140,
        "dB",
        default=96.0,
        help=("Loudest clean level at the listener: dB rms of a sine with the programme's peak."),
    )
    importance: Importance = choice("Loudness counts as", default="must")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class BassPromise:
    """How low: the frequency at which the response may be ``drop`` dB down, at level."""

    frequency: float = number(
        "Bass reach",
        "frequency",
        10,
        300,
        "Hz",
        default=50.0,
        symbol="F6",
        help="The lowest note that is still kept up, at full level.",
    )
    drop: Literal[3, 6, 10] = choice("Down by", default=6)
    importance: Importance = choice("Bass reach counts as", default="must")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class RuntimePromise:
    """Hours of play at a long-term level."""

    duration: float = number(
        "Runtime",
        "time",
        60,
        3.6e6,
        "h",
        default=18000.0,
        help="Hours of play from full charge until a cut-off opens.",
    )
    level: float | None = number(
        "Playing level",
        "level",
        30,
        130,
        "dB",
        default=None,
        empty="9 dB below",
        help="Long-term mean at the listener; empty: 9 dB below the promised loudness.",
    )
    importance: Importance = choice("Runtime counts as", default="must")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class SizePromise:
    """Largest outer size."""

    length: float = number("Length at most", "length", 0.03, 3, "mm", default=0.34, digits=0)
    height: float = number("Height at most", "length", 0.03, 3, "mm", default=0.2, digits=0)
    depth: float = number("Depth at most", "length", 0.03, 3, "mm", default=0.19, digits=0)
    importance: Importance = choice("Size counts as", default="must")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class WeightPromise:
    """Heaviest finished box."""

    mass: float = number("Weight", "mass", 0.05, 500, "kg", default=6.0, digits=2)
    importance: Importance = choice("Weight counts as", default="must")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class CostPromise:
    """Dearest set of parts and material."""

    price: float = number("Cost", "money", 1, 1e6, "€", default=300.0, digits=0)
    importance: Importance = choice("Cost counts as", default="open")


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Conditions:
    """Air and charge for which ceiling and loudness hold."""

    temperature: float = number(
        "Temperature",
        "temperature",
        233.15,
        333.15,
        "°C",
        default=293.15,
        digits=0,
        help="Air temperature; data sheets mean 20 °C.",
    )
    pressure: float = number(
        "Air pressure", "pressure", 50e3, 110e3, "hPa", default=101325.0, digits=0
    )
    humidity: float = number(
        "Humidity",
        "share",
        0,
        1,
        "%",
        default=0.0,
        digits=0,
        help="Relative humidity; data sheets mean dry air.",
    )
    charge: float = number(
        "Charge",
        "share",
        0.02,
        1,
        "%",
        default=0.2,
        digits=0,
        help="Charge of the pack at which loudness must still be kept.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Listening:
    """Where the listener is and what is played."""

    distance: float = number(
        "Distance",
        "length",
        0.1,
        100,
        "m",
        default=2.0,
        help="From the middle of the front to the listener.",
    )
    place: Place = choice(
        "Place",
        default="ground",
        help=(
            "pole: free all round, no ground image; ground: half space; wall: floor and wall; "
            "corner: floor and two walls."
        ),
    )
    room: float | None = number(
        "Room, longest side",
        "length",
        1,
        60,
        "m",
        default=None,
        empty="outdoors",
        digits=1,
        help="Lifts the bass below the room's first mode, c/(2 × longest side). Empty: outdoors.",
    )
    noise_floor: float | None = number(
        "Noise where it is heard",
        "level",
        0,
        100,
        "dB",
        default=None,
        digits=0,
        empty="quiet room",
        help="A-weighted. The box may hiss up to that. Empty: 25 dB(A), a quiet room.",
    )
    room_lift: float = number(
        "Room lifts the bass by",
        "gain",
        0,
        18,
        "dB",
        default=8.0,
        digits=0,
        help="At the very bottom: leaks and yielding walls end the rise. 6 to 12 dB is usual.",
    )
    baffle: bool = choice(
        "Baffle step",
        default=False,
        help=(
            "Above about 115/width a front plays into the half space before it: 6 dB more on a "
            "pole, nothing on the ground, 6 or 12 dB less than below at a wall or in a corner."
        ),
    )
    material: Material = choice("Programme", default="music")
    steady_tone: bool = choice(
        "Steady tone",
        default=False,
        help="Judge heat and supply for tones that never stop, instead of programme.",
    )
    crest: float | None = number(
        "Crest factor",
        "gain",
        3.0102,
        30,
        "dB",
        default=None,
        empty="by kind",
        help="Peak over long-term rms; empty: 12 dB, of a played instrument 6 dB.",
    )
    burst: float | None = number(
        "Burst factor",
        "gain",
        0,
        20,
        "dB",
        default=None,
        empty="by kind",
        help=(
            "Highest 100 ms rms over long-term rms; empty: music and speech 6, instrument 4, "
            "pink 2 dB."
        ),
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Edges:
    """What is reckoned with beyond small signals at 20 °C; without all of them a box is linear."""

    turbulence: bool = choice(
        "Turbulence in ports",
        default=True,
        help="Fast air in a port loses pressure, with the speed itself. Off: as at low level.",
    )
    large_signal: bool = choice(
        "Bent motors and suspensions",
        default=False,
        help="Far from rest the motor weakens and suspensions stiffen. Off: as close to rest.",
    )
    hot_coils: bool = choice(
        "Hot coils",
        default=True,
        help="Coils warm up, resist more and play softer. Off: coils stay at 20 °C.",
    )
    suspensions: bool = choice(
        "Suspensions by temperature",
        default=True,
        help="Surrounds and spiders stiffen in the cold: an estimate. Off: as at 20 °C.",
    )


LINEAR = Edges(turbulence=False, large_signal=False, hot_coils=False, suspensions=False)
"""Small signals at 20 °C."""


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Brief:
    """What is owed, to whom, and where."""

    loudness: LoudnessPromise = LoudnessPromise()
    bass: BassPromise = BassPromise()
    runtime: RuntimePromise = RuntimePromise()
    size: SizePromise = SizePromise()
    weight: WeightPromise = WeightPromise()
    cost: CostPromise = CostPromise()
    listening: Listening = Listening()
    conditions: Conditions = Conditions()
    edges: Edges = Edges()
    tolerances: Tolerances = Tolerances()
