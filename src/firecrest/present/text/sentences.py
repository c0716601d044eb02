"""Sentences that explain the promises: computed from the assessment, never stored."""

from dataclasses import replace
from math import inf

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.balance import balance
from firecrest.assessment.electrical import full_rail, source_at
from firecrest.assessment.further import (
    filter_that_holds_reach,
    high_passes,
    loudness_above_own_reach,
)
from firecrest.assessment.verdicts import Promise
from firecrest.core.limits.ceiling import Run, code_at
from firecrest.core.limits.elements import Limit
from firecrest.core.limits.kinds import kind_named
from firecrest.core.limits.low_note import LowNote
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.present.cabinet.tight import impossible_sentences
from firecrest.present.text.danger import danger_sentences
from firecrest.present.text.edges import turbulence_sentence
from firecrest.present.text.notes import is_code, said
from firecrest.present.text.pieces import Piece, Sentence
from firecrest.present.text.words import (
    PROMISE_NAMES,
    distance_text,
    either_way,
    ending,
    joined,
    kept_in,
    limit_name,
    margin_text,
    numeral,
    promise_unit,
    surroundings,
    waits_for_high_pass,
)
from firecrest.proposals.turning import turned

SLIGHT = 0.05
"""Dips below this many dB are not worth a sentence."""


def why(assessment: Assessment) -> list[Sentence]:
    """What holds the promises, worst first; one sentence of relief when nothing does."""
    found = [s for p in assessment.promises if (s := _promise_sentence(assessment, p)) is not None]
    order = {"short": 0, "unknown": 1, "wish": 2, "close": 3, "met": 4}
    found.sort(key=lambda s: order[s.mark])
    if not found:
        found = [_all_kept(assessment)]
    if assessment.acoustic is not None:
        low = assessment.acoustic.low_note
        told = waits_for_high_pass(assessment.promise("loudness"))
        if low is not None and not low.passed and not told and assessment.acoustic.plays:
            found.append(_low_note_sentence(assessment.acoustic, low))
        found += _dip(assessment, assessment.acoustic)
        found += _balance_sentence(assessment)
        found = _rest_sentences(assessment) + found
        found += _amplifier_sentences(assessment)
        found += turbulence_sentence(assessment, assessment.acoustic)
        found += _takeover(assessment.acoustic)
    return danger_sentences(assessment) + impossible_sentences(assessment) + found


def _all_kept(assessment: Assessment) -> Sentence:
    """Nothing wrong: how much is in hand, and what is closest."""
    judged = [p for p in assessment.promises if p.state == "met" and p.margin is not None]
    if not judged:
        return Sentence("met", (Piece("No promise has been made yet."),))
    closest = min(judged, key=lambda p: (p.margin or 0.0) / max(abs(p.target), 1e-9))
    loudness = assessment.promise("loudness")
    hand = f", with {margin_text(loudness, assessment.design)}" if loudness.state == "met" else ""
    name = PROMISE_NAMES[closest.key]
    return Sentence("met", (Piece(f"Every promise is kept{hand}. {name} is the closest."),))


def _promise_sentence(assessment: Assessment, promise: Promise) -> Sentence | None:
    """What is wrong with one promise; None when nothing is."""
    if promise.state in ("met", "none"):
        return None
    mark = "wish" if promise.wish_missed else promise.state
    path = FIELD_OF_PROMISE[promise.key]
    name = PROMISE_NAMES[promise.key]
    if promise.state == "unknown":
        return Sentence(mark, (Piece(name, path), Piece(f" is not known: {said(promise.reason)}.")))
    if promise.key == "loudness" and assessment.acoustic is not None:
        told = _loudness_sentence(assessment, assessment.acoustic, promise, mark)
        return replace(told, about="loudness")
    if promise.key == "bass":
        return Sentence(mark, _bass_pieces(assessment, promise))
    if promise.key == "runtime" and promise.reason:
        over = f"{name}: {said(promise.reason)}"
        return Sentence(mark, (Piece(over, ("brief", "runtime", "level")), Piece(".")))
    if promise.key == "size":
        over, side = margin_text(promise, assessment.design), said(promise.reason)
        end = "; turned on another side it fits." if turned(assessment.design) else "."
        return Sentence(mark, (Piece(f"The {side} is {over}", ("box", "case", side)), Piece(end)))
    unit = promise_unit(promise.key, assessment.design)
    got = numeral(promise, assessment.design) + ("" if unit.unit == "€" else f" {unit.unit}")
    tail = _ended_by(assessment) if promise.key == "runtime" else ""
    margin = distance_text(promise, assessment.design) + _likely(assessment, promise)
    return Sentence(mark, (Piece(f"{name} is {got}", path), Piece(f", {margin}{tail}.")))


def _likely(assessment: Assessment, promise: Promise) -> str:
    """How sure a promise is that may be kept and may not."""
    if promise.state != "close" or promise.band is None:
        return ""
    return f", {either_way(promise, assessment.design)}: {kept_in(promise.band)}"


def _bass_pieces(assessment: Assessment, promise: Promise) -> tuple[Piece, ...]:
    design = assessment.design
    path = FIELD_OF_PROMISE["bass"]
    if promise.predicted is None:
        return (Piece("Bass reach", path), Piece(f" has no answer: {said(promise.reason)}."))
    where = " inside the band" if is_code(promise.reason, "inside") else ""
    got = f"{promise.predicted:.1f}{THIN_SPACE}Hz"
    return (
        Piece(f"Bass stops at {got}{where}", frequency=promise.predicted),
        Piece(f", {design.brief.bass.drop} dB down at level ({surroundings(design)}); "),
        Piece("the promise is "),
        Piece(f"{promise.target:g}{THIN_SPACE}Hz", path),
        Piece(f"{_likely(assessment, promise)}."),
        *_held_by_filter(assessment),
    )


def _held_by_filter(assessment: Assessment) -> tuple[Piece, ...]:
    """The high-pass that holds the reach, where one does."""
    a = assessment.acoustic
    held = None if a is None else filter_that_holds_reach(assessment, a)
    if held is None:
        return ()
    path, corner = held
    return (Piece(f" The {corner:.0f}{THIN_SPACE}Hz high-pass", path), Piece(" holds it."))


def _ended_by(assessment: Assessment) -> str:
    acoustic = assessment.acoustic
    if acoustic is None or acoustic.runtime is None:
        return ""
    return f"; {ending(acoustic.runtime.ended_by)}"


def _loudness_sentence(
    assessment: Assessment, a: Acoustic, promise: Promise, mark: str
) -> Sentence:
    """The weakest link: part, range, size and place; or the held low note."""
    if waits_for_high_pass(promise) and a.low_note is not None:
        return _low_note_sentence(a, a.low_note)
    assert a.loudness is not None
    if promise.predicted is None:
        limit = a.limits[a.loudness.limit]
        weak = limit_name(limit, code_at(limit, a.loudness.point))
        where = a.loudness.frequency
        return Sentence(
            mark,
            (
                Piece(weak, field_of_limit(assessment, limit)),
                Piece(" has nothing to give; "),
                Piece(
                    f"nothing clean can be played at {_hz(where)}{THIN_SPACE}Hz", frequency=where
                ),
                Piece("."),
            ),
        )
    run = run_at(a, a.loudness.point)
    above = loudness_above_own_reach(assessment, a)
    own = "" if above is None else f" {_above(*above)}"
    limit = a.limits[run.limit]
    name, path = limit_name(limit, run.code), field_of_limit(assessment, limit)
    held_by = _filter_that_holds(assessment.design, limit, a.loudness.frequency)
    ended = _span(float(a.frequency[run.start]), float(a.frequency[run.stop]))
    says = f" gives out first from {ended}{_detail(limit)}; "
    if held_by is not None:
        path, corner = held_by
        name, says = f"The {corner:.0f}{THIN_SPACE}Hz high-pass", f" holds it from {ended}; "
    return Sentence(
        mark,
        (
            Piece(name, path),
            Piece(says),
            Piece(
                f"{distance_text(promise, assessment.design)} at "
                f"{_hz(a.loudness.frequency)}{THIN_SPACE}Hz",
                frequency=a.loudness.frequency,
            ),
            Piece(f"{_likely(assessment, promise)}.{own}"),
        ),
    )


def _filter_that_holds(design: Design, limit: Limit, frequency: float) -> tuple[Path, float] | None:
    """The high-pass that takes so much at ``frequency`` that full scale gives out before anything
    does; None where full scale does not, or no filter is to blame.
    """
    if limit.name != "full scale":
        return None
    own = [(p, c) for p, c in high_passes(design) if p[2] == limit.index and c > frequency]
    return max(own, key=lambda found: found[1], default=None)


def _above(level: float, frequency: float) -> str:
    """What the box plays where it reaches by itself, so that its reach is not laid to loudness."""
    return f"It plays {level:.0f} dB above {frequency:.0f}{THIN_SPACE}Hz, its own F6."


def _low_note_sentence(a: Acoustic, low: LowNote) -> Sentence:
    """A held low note that drives a part too far, and the high-pass that cures it."""
    part = limit_name(a.limits[low.limit], a.limits[low.limit].code)
    cure = (
        f"needs a high-pass: second order at {low.high_pass:.0f}{THIN_SPACE}Hz, added last"
        if low.high_pass is not None
        else "no high-pass cures it"
    )
    return Sentence(
        "close",
        (
            Piece("A held note at "),
            Piece(f"{low.frequency:.0f}{THIN_SPACE}Hz", frequency=low.frequency),
            Piece(f" takes {part.lower()} {-low.margin:.1f} dB too far; {cure}."),
        ),
    )


def _dip(assessment: Assessment, a: Acoustic) -> list[Sentence]:
    """A hole between the bass reach and the top of its band, which the reach does not tell."""
    if assessment.missing or not SLIGHT <= a.reaches.dip < inf:
        return []
    low, high = a.reaches.band
    drop = assessment.design.brief.bass.drop
    text = f"Between {_hz(low)} and {_hz(high)}{THIN_SPACE}Hz the level at the promise dips "
    return [Sentence("close", (Piece(f"{text}{a.reaches.dip:.1f} dB below −{drop} dB."),))]


def _balance_sentence(assessment: Assessment) -> list[Sentence]:
    """A way that is far louder than the others in its own band."""
    found, channels = balance(assessment), assessment.design.voice.channels
    if found is None:
        return []
    ways = joined([channels[place].name for place in found.louder])
    verb = "plays" if len(found.louder) == 1 else "play"
    than = "louder" if found.by > 0 else "softer"
    path: Path = ("voice", "channels", found.louder[0], "gain")
    text = f" {verb} {figure(abs(found.by), 1)} dB {than} than {channels[found.lowest].name}, "
    return [Sentence("close", (Piece(ways, path), Piece(f"{text}each in its own band.")))]


def run_at(a: Acoustic, point: int) -> Run:
    """The run that holds grid ``point``."""
    return next(r for r in a.runs if r.start <= point <= r.stop)


def _span(low: float, high: float) -> str:
    """A range of frequencies: "48 to 71 Hz", "58 Hz to 20 kHz"."""
    if high < 1000:
        return f"{_hz(low)} to {_hz(high)}{THIN_SPACE}Hz"
    return f"{_hz(low)}{THIN_SPACE}Hz to {high / 1000:.3g}{THIN_SPACE}kHz"


def _hz(value: float) -> str:
    return f"{value:.0f}"


def _detail(limit: Limit) -> str:
    detail = kind_named(limit.name).detail
    return f" ({detail})" if detail else ""


def _takeover(a: Acoustic) -> list[Sentence]:
    """The limit that takes over above where loudness is held, with its margin."""
    if a.loudness is None:
        return []
    here = run_at(a, a.loudness.point)
    later = [r for r in a.runs if r.start > here.stop and a.frequency[r.start] < a.f_hi]
    if not later:
        return []
    run = later[0]
    span = slice(run.start, run.stop + 1)
    inside = a.frequency[span] <= a.f_hi
    margin = float((a.top.level[span] - a.asked[span])[inside].min())
    name = limit_name(a.limits[run.limit], run.code)
    hand = f"with at least {margin:.1f} dB in hand" if margin >= 0 else f"{-margin:.1f} dB short"
    where = a.frequency[run.start]
    return [
        Sentence(
            "met" if margin >= 0 else "short",
            (
                Piece(f"From {_hz(where)}{THIN_SPACE}Hz", frequency=float(where)),
                Piece(f" {name.lower()} takes over, {hand}."),
            ),
        )
    ]


OPEN_AT_REST = {
    "collapse": "the source can't carry the board even in silence",
    "amplifier": "the board's supply is below the voltage at which it stops",
    "converter": "the converter's input is below the voltage at which it stops",
    "protection board": "the protection board is open before anything plays",
    "cell": "the cells are below their cut-off before anything plays",
}


def _rest_sentences(assessment: Assessment) -> list[Sentence]:
    """Why nothing plays at all; and a supply that may break the board, with the usual caution."""
    held = assessment.design.brief.conditions
    source = source_at(assessment.numbers.power, held.charge, held.temperature)
    power = assessment.design.power
    found = [
        Sentence("short", (Piece("Nothing plays", _bus_field(assessment)), Piece(f": {words}.")))
        for key, words in OPEN_AT_REST.items()
        if key in source.at_rest and np.any(np.asarray(source.at_rest[key]) < 0)
    ]
    over = float(np.ravel(source.at_rest.get("highest supply", 0.0))[0])
    for number, (place, board) in enumerate(power.amplifiers if over < 0 else ()):
        most = board.part.highest_supply
        rail = float(np.ravel(full_rail(assessment.numbers.power, number))[0])
        if most is None or rail <= most:
            continue
        path: Path = ("power", "boards", place, "part", "highest_supply")
        text = f" takes {most:g} V at most and would get {figure(rail - most, 1)} V more: it may "
        text += "break, get hot or catch fire. Don't connect it; nothing is promised."
        found.append(Sentence("short", (Piece(board.part.name, path), Piece(text))))
    return found


def _amplifier_sentences(assessment: Assessment) -> list[Sentence]:
    """Claims that cannot be true."""
    found = []
    boards = assessment.design.power.amplifiers
    for (place, board), kinds in zip(boards, assessment.claims, strict=True):
        path: Path = ("power", "boards", place, "part", "claims", 0, "power")
        notes = dict.fromkeys(c for read in kinds for c in read.contradictions)
        found += [
            Sentence("close", (Piece(board.part.name, path), Piece(f": {said(c)}."))) for c in notes
        ]
    return found


CLAIMED: Path = ("part", "claims", 0, "power")
FIELD_OF_PROMISE: dict[str, Path] = {
    "loudness": ("brief", "loudness", "level"),
    "bass": ("brief", "bass", "frequency"),
    "runtime": ("brief", "runtime", "duration"),
    "size": ("brief", "size", "length"),
    "weight": ("brief", "weight", "mass"),
    "cost": ("brief", "cost", "price"),
}


def field_of_limit(assessment: Assessment, limit: Limit) -> Path:
    """The field that moves a limit most."""
    field, place = kind_named(limit.name).field, limit.index
    if not field:
        return _bus_field(assessment)
    if field[1] == "groups" and assessment.acoustic is not None:
        place = assessment.acoustic.model.owners[place]
    if field[1] == "boards":
        place = _board_of(assessment, limit)
    return tuple(place if step == "#" else step for step in field)


def _bus_field(assessment: Assessment) -> Path:
    """What lifts the bus: cells in series, the supply's voltage, or the board's claim."""
    kind = assessment.design.power.source.kind
    if kind == "pack":
        return ("power", "source", "series")
    return (
        ("power", "source", "voltage")
        if kind == "wall"
        else ("power", "boards", assessment.design.power.amplifiers[0][0], *CLAIMED)
    )


def _board_of(assessment: Assessment, limit: Limit) -> int:
    """Place among the boards of the one that gives a limit of a voice channel."""
    power = assessment.design.power
    if kind_named(limit.name).link == "dsp":
        return power.dsp_place
    return power.amplifiers[assessment.numbers.carried[limit.index][0]][0]
