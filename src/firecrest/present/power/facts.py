"""Pack, charger, supply, standing, gain and hiss in facts."""

from collections.abc import Iterator

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.electrical import standing_of
from firecrest.assessment.power.charging import Charging, charging
from firecrest.assessment.power.flows import spent
from firecrest.assessment.power.gain import FAINT, SILENT, gain_rows, hiss_of
from firecrest.assessment.power.given import HALF, source_now
from firecrest.assessment.power.standing import ASLEEP, OFF, Stood, standing_states
from firecrest.assessment.power.standing import SILENT as NO_SIGNAL
from firecrest.assessment.power.supplies import SupplyFacts, supply_facts
from firecrest.core.power.flow import SOURCE
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.sources import Pack
from firecrest.present.power.hours import level_of
from firecrest.present.power.truth import minutes
from firecrest.present.size.facts import Fact
from firecrest.present.text.units import told

WATT_HOUR, DAY = 3600.0, 24.0
SPREAD_CAUTION = 0.02
JOIN_VOLTS, JOIN_OHMS = 0.02, 0.01
"""V by which cells may differ when they are joined, for so many ohms between them."""
STANDING_WORDS = {NO_SIGNAL: "Silent, awake", ASLEEP: "Asleep", OFF: "Switched off"}


def pack_facts(assessment: Assessment, use: str) -> list[Fact]:
    """Printed and usable energy, resistance, and what of the cells asks for care."""
    source = assessment.design.power.source
    return list(_pack(assessment, source, use)) if isinstance(source, Pack) else []


def _pack(assessment: Assessment, source: Pack, use: str) -> Iterator[Fact]:
    table, cell = source.cell.table, source.cell
    charge = np.array([p.charge for p in table])
    volts = np.array([p.rest_voltage for p in table])
    mean = float(np.trapezoid(volts, charge)) + volts[0] * charge[0] + volts[-1] * (1 - charge[-1])
    printed = source.series * source.parallel * cell.capacity * mean / WATT_HOUR
    yield Fact("Printed energy", f"{figure(printed, 0)} Wh", help="Cells as printed, at rest.")
    level = level_of(assessment, use)
    found = None if level is None else spent(assessment, level)
    if found is not None and found.watt_hours is not None:
        lost = sum(found.watt_hours.get(k, 0.0) for k in ("cells", "protection board", "leads"))
        usable = found.watt_hours[SOURCE] - lost
        yield Fact(
            "Usable at this use",
            f"{figure(usable, 0)} Wh",
            help="What reaches the amplifier's bus from full to the end, at this level, "
            "temperature and age.",
        )
    half = source_now(assessment, HALF)
    yield Fact(
        "Source and lead resist",
        told(float(np.ravel(half.resistance)[0]), "resistance", "mΩ", 0),
        help="Cells, protection board and lead together, at half charge.",
    )
    standing = standing_of(assessment.numbers.power)
    yield Fact(
        "Before anything plays",
        f"{figure(float(np.ravel(standing.amperes)[0]), 2)} A and "
        f"{figure(float(np.ravel(standing.watts)[0]), 1)} W",
        help="Idle current of boards on the bus; watts of loads and of what hangs behind "
        "converters.",
    )
    if source.parallel > 1:
        most = JOIN_VOLTS * 2 * float(source.cell.table[-1].resistance) / JOIN_OHMS
        yield Fact(
            "Before joining in parallel",
            f"within {told(most, 'voltage', 'mV', 0)}",
            help="Cells that differ by more drive a large current into each other: charge each to "
            "the same voltage first. An estimate: 20 mV for each 10 mΩ between them.",
        )
    if source.spread > SPREAD_CAUTION:
        yield Fact(
            "Cells do not match",
            f"{source.spread:.0%} weaker",
            "close",
            "The weakest group empties first and may be driven too low: match the cells, and "
            "charge with a balancer.",
        )
    if source.board is not None and not source.board.balances and source.series > 1:
        yield Fact("No balancing", "drifts apart", "close", "Balance every few months.")


def charging_facts(assessment: Assessment) -> list[Fact]:
    """How long charging takes, and while it plays."""
    found = charging(assessment)
    return [] if found is None else list(_charging(assessment, found))


def _charging(assessment: Assessment, found: Charging) -> Iterator[Fact]:
    for start, charge in found.runs:
        taper = charge.taper / charge.seconds if charge.seconds > 0 else 0.0
        share = f"; the last {taper:.0%} of it the current tapers" if taper > 0.01 else ""
        yield Fact(
            "From empty" if start == found.runs[0][0] else f"From {start:.0%}",
            _hours(charge.seconds / WATT_HOUR),
            help=f"Constant current, then constant voltage{share}.",
        )
    meanwhile = found.meanwhile
    if meanwhile is not None:
        words = "never full" if meanwhile.seconds is None else _hours(meanwhile.seconds / WATT_HOUR)
        mark = "close" if meanwhile.seconds is None else ""
        yield Fact(
            "From 20 %, playing at the promise",
            words,
            mark,
            "The box draws from the charger first; what is left goes into the cells.",
        )
        if not meanwhile.ends:
            yield Fact(
                "While it plays",
                "the charger never ends",
                "close",
                "What plays keeps its current up: cells stay at full voltage, which ages "
                "them. Switch off to let it end.",
            )
    if found.break_even is not None:
        yield Fact(
            "Charging carries up to",
            f"{figure(found.break_even, 0)} dB mean",
            help="Louder, and the pack drains although it is plugged in.",
        )
    if found.current > found.contact:
        yield Fact(
            "Charging contact",
            f"bears {found.contact:g} A",
            "short",
            "It gets hot: charge with less, or choose another contact.",
        )


def _hours(hours: float) -> str:
    if not np.isfinite(hours):
        return "–"
    return minutes(hours * WATT_HOUR) if hours < 1.5 else f"{figure(hours, 1)}{THIN_SPACE}h"


def standing_facts(assessment: Assessment) -> list[Fact]:
    """What it takes while nothing plays, and for how many days the pack bears that."""
    return [_standing(assessment, found) for found in standing_states(assessment)]


def _standing(assessment: Assessment, found: Stood) -> Fact:
    takes = told(found.watts, "power", "W", 2)
    if found.hours is None:
        return Fact(STANDING_WORDS[found.state], takes, help="From the wall: no end.")
    if not np.isfinite(found.hours):
        return Fact(STANDING_WORDS[found.state], "nothing drawn", help="It lasts for ever.")
    days = found.hours / DAY
    time = _hours(found.hours) if days < 2 else f"{days:.0f} days"
    week = "" if found.weekly is None else f"; {min(found.weekly, 1.0):.0%} of the charge in a week"
    part = [b.part for _, b in assessment.design.power.amplifiers if b.part.sleep_current is None]
    cannot = found.state == ASLEEP and bool(part)
    help = f"{takes} from the source{week}."
    if cannot:
        help += f" {part[0].name} cannot sleep: no current asleep is stated."
    return Fact(STANDING_WORDS[found.state], time, "close" if cannot else "", help)


PLAYER_WORDS = {
    "phone": "Phone",
    "headphone output": "Headphone output",
    "line output": "Line output",
}
SHORT_OF, TOO_MUCH = -1.0, 20.0


def gain_facts(assessment: Assessment, board: int) -> list[Fact]:
    """What drives a board to full, and what players come to."""
    rows = [row for row in gain_rows(assessment) if row.board == board]
    if not rows:
        return []
    row = rows[0]
    found = [
        Fact(
            "Input for full",
            told(row.full, "voltage", "V", 2),
            help="Volts rms at the board's input for its clean watts.",
        )
    ]
    for player, came in row.players:
        if came.margin < SHORT_OF:
            text, mark = f"short by {figure(-came.margin, 1)} dB", "close"
            help = f"It will not drive it to full: {came.share:.0%} of the power at most."
        elif came.margin > TOO_MUCH:
            text, mark = f"{figure(came.margin, 0)} dB too much", "close"
            help = "Nearly all of the knob is unused."
        else:
            over = came.margin >= 0.05
            text = f"drives it, {figure(came.margin, 1)} dB over" if over else "just drives it"
            mark = ""
            help = "Enough for full power."
        if came.overloads:
            help += " At its loudest the DSP's input overloads: turn the player down."
        help += f" {player.volts:g} V behind {player.resistance:g} Ω, an estimate."
        found.append(Fact(PLAYER_WORDS[player.name], text, mark, help))
    return found


def hiss_facts(assessment: Assessment) -> list[Fact]:
    """What is heard when nothing plays."""
    found = hiss_of(assessment)
    if found is None:
        return [
            Fact(
                "Hiss",
                "needs the boards' noise",
                "close",
                "From their sheets, or measure it with the input shorted.",
            )
        ]
    floor = assessment.design.brief.listening.noise_floor
    faint = FAINT if floor is None else floor
    if found.level < SILENT:
        word = "silent"
    elif found.level <= faint:
        word = "faint in a quiet room"
    else:
        word = "plain in a quiet room"
    mark = "close" if found.level > faint else ""
    missing = f" Without {', '.join(found.unknown)}: noise not known." if found.unknown else ""
    return [
        Fact(
            "Hiss at the listener",
            f"{figure(found.level, 0)} dB(A), {word}",
            mark,
            f"Gain at its highest.{missing} Below 15 dB(A) nobody hears it: an estimate.",
        ),
        Fact(
            "Hiss at " + told(0.5, "length", "m", 1),
            f"{figure(found.near, 0)} dB(A)",
            help="Where someone leans in.",
        ),
    ]


BEHAVES = {
    "constant current": "sinks: it clips early",
    "fold-back": "folds back: less and less",
    "hiccup": "goes off and on again",
    "latch": "goes off until unplugged",
}


def supply_words(assessment: Assessment) -> list[Fact]:
    """What a supply does when it is asked too much, and where that begins."""
    found = supply_facts(assessment)
    return [] if found is None else list(_supply(assessment, found))


def _supply(assessment: Assessment, found: SupplyFacts) -> Iterator[Fact]:
    yield Fact("Gives at most", f"{figure(found.largest_power, 0)} W", help="In bursts.")
    yield Fact(
        "Asked too much it",
        BEHAVES[found.behaviour],
        help="As its sheet says, or as such supplies usually do.",
    )
    if found.silence is not None:
        yield Fact("Silent then", f"{found.silence:.0%} of the time", "close")
    if found.start_margin is not None:
        starts = found.start_margin > 0
        yield Fact(
            "Starts",
            "yes" if starts else "no",
            "met" if starts else "short",
            "It must give the idle current at the voltage at which the boards start.",
        )
    if found.bottleneck is not None and found.bottleneck < 1.0:
        where = ""
        if found.band is not None:
            where = f", between {found.band[0]:.0f} and {found.band[1]:.0f} Hz"
        yield Fact(
            "The supply is the bottleneck",
            f"above {found.bottleneck:.0%} of full level",
            "close",
            f"Full level is what the rest would give without it{where}.",
        )
    for state, watts in found.keep_alive:
        yield Fact(
            f"Switches off {STANDING_WORDS[state].lower()}",
            f"after {minutes(found.time_out)}",
            "close",
            f"It takes too little for this source: a load of {figure(watts, 1)} W keeps it "
            "on, and empties it sooner.",
        )
