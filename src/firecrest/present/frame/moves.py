"""Next moves: changes the program proposes by itself, each with what it does to the promises.

Each is worked out by a job of its own, so that the window can take them one after another.
"""

from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass

from firecrest.assessment.assess import Assessment, assess
from firecrest.assessment.balance import balance
from firecrest.assessment.protection import protected
from firecrest.assessment.sharing import shared_air
from firecrest.core.acoustics.openings.port import SPEED_LIMITS
from firecrest.core.errors import FirecrestError
from firecrest.core.units import figure
from firecrest.design.box import Port, placed, port_at
from firecrest.design.design import Design
from firecrest.design.edits.paths import replace_at, set_number, value_at
from firecrest.present.frame.effects import changes
from firecrest.present.text.units import told, told_sides
from firecrest.present.text.words import joined
from firecrest.proposals.inverse import with_tuning
from firecrest.proposals.layouts import with_own_chamber
from firecrest.proposals.ports import candidates, fit_in_case, with_port, worst_speed
from firecrest.proposals.turning import SIDES, turned


def _quieter(before: Assessment, after: Assessment) -> bool:
    """Whether a change takes from loudness as promised."""
    was, now = (x.promise("loudness").predicted for x in (before, after))
    return was is not None and now is not None and now < was - 0.05


@dataclass(frozen=True)
class Move:
    """A proposed change: imperative title, why, effects in few words, and the design it makes."""

    title: str
    detail: str
    effects: tuple[str, ...]
    design: Design


Job = Callable[[], Move | None]


def jobs(assessment: Assessment) -> Iterator[Job]:
    """One job per proposal that may be worth it."""
    yield lambda: _turned(assessment)
    if assessment.acoustic is None:
        return
    yield lambda: _balanced(assessment)
    yield lambda: _high_pass(assessment)
    yield lambda: _own_chamber(assessment)
    for place, _ in placed(assessment.design.box.openings, Port):
        yield lambda place=place: _fold(assessment, place)  # type: ignore[misc]
        yield lambda place=place: _flared(assessment, place)  # type: ignore[misc]
        yield lambda place=place: _wider(assessment, place)  # type: ignore[misc]


def _move(assessment: Assessment, title: str, detail: str, design: Design) -> Move:
    after = assess(design, assessment.memo)
    said = changes(assessment.promises, after.promises)
    kept = [
        new.key
        for old, new in zip(assessment.promises, after.promises, strict=True)
        if new.state == "met" and old.state in ("short", "close")
    ]
    said += [f"keeps {key}" for key in kept]
    return Move(title, detail, tuple(said) or ("no promise moves",), design)


def _turned(assessment: Assessment) -> Move | None:
    """The case on another side, where that alone makes it fit."""
    made = turned(assessment.design) if assessment.promise("size").state == "short" else None
    if made is None:
        return None
    asked = made.brief.size
    sizes = told_sides(getattr(asked, side) for side in SIDES)
    detail = f"Its place is then {sizes} seen from the box: length, height, depth."
    return _move(assessment, "Turn the box on another side", detail, made)


def _balanced(assessment: Assessment) -> Move | None:
    """The louder ways turned down to the others, in steps of half a dB.

    Not where shared air takes the bass: that is cured first.
    """
    found, design = balance(assessment), assessment.design
    if found is None or shared_air(assessment) is not None:
        return None
    places = found.louder if found.by > 0 else (found.lowest,)
    down = round(2 * abs(found.by)) / 2
    for place in places:
        path = ("voice", "channels", place, "gain")
        try:
            design = set_number(design, path, value_at(design, path) - down)
        except FirecrestError:
            return None
    names = joined([design.voice.channels[place].name for place in places])
    return _move(
        assessment,
        f"Turn {names} down by {figure(down, 1)} dB",
        "Every way is then about as loud in its own band.",
        design,
    )


def _high_pass(assessment: Assessment) -> Move | None:
    """A protection high-pass, when a held low note asks for one and one helps."""
    found = protected(assessment)
    a = assessment.acoustic
    if found is None or a is None or a.low_note is None:
        return None
    low, (corner, design) = a.low_note, found
    before = _at_note(assessment)
    move = _move(
        assessment,
        f"Add a high-pass at {figure(corner, 1)} Hz",
        f"A held note of {figure(low.frequency, 0)} Hz goes {figure(-low.margin, 1)} dB too far.",
        design,
    )
    after = _at_note(assess(design, assessment.memo))
    note = assessment.design.brief.bass.frequency
    cost = f"{figure(after - before, 1)} dB at {note:g} Hz"
    return Move(move.title, move.detail, (*move.effects, cost), move.design)


def _at_note(assessment: Assessment) -> float:
    """Response at the promised note in dB re the reference band."""
    a = assessment.acoustic
    assert a is not None
    k = int(abs(a.frequency - assessment.design.brief.bass.frequency).argmin())
    return float(a.unit_level[k] - a.reaches.reference)


def _own_chamber(assessment: Assessment) -> Move | None:
    """Chambers for drivers that another channel pushes about, and the tuning kept."""
    shared = shared_air(assessment)
    a = assessment.acoustic
    if shared is None or a is None:
        return None
    design = assessment.design
    names = joined(list(dict.fromkeys(design.box.groups[k].driver.name for k in shared.places)))
    try:
        for place in shared.places:
            design = with_own_chamber(design, place)
    except FirecrestError:
        return None
    tuning = a.model.tuning[0]
    if tuning is not None:
        with suppress(FirecrestError):
            design = with_tuning(design, float(tuning))
    own = "a chamber of its own" if len(shared.places) == 1 else "chambers of their own"
    return _move(
        assessment,
        f"Give {names} {own}",
        f"Shared air: pushed by the other channel they take {figure(shared.loss, 1)} dB from the "
        f"sum at {figure(shared.frequency, 0)} Hz.",
        design,
    )


def _fold(assessment: Assessment, place: int) -> Move | None:
    """As many bends as a port needs to fit."""
    port = port_at(assessment.design.box, place)
    fit = fit_in_case(assessment.design, place)
    if port.length <= fit.longest or fit.bends is None:
        return None
    design = replace_at(assessment.design, ("box", "openings", place, "bends"), fit.bends)
    count = "once" if fit.bends == 1 else f"{fit.bends} times"
    over = told(port.length - fit.longest, "length", "mm", 0)
    return _move(assessment, f"Fold the port {count}", f"It is {over} too long.", design)


def _flared(assessment: Assessment, place: int) -> Move | None:
    """Both ends flared, where that alone makes the port quiet at the promise."""
    design = assessment.design
    fast, port = worst_speed(assessment, place), port_at(design.box, place)
    if fast is None or port.speed_limit is not None or port.edges == "both_flared":
        return None
    loud = fast.limit * SPEED_LIMITS["both_flared"] / SPEED_LIMITS[port.edges]
    if not fast.limit < fast.speed <= loud:
        return None
    made = replace_at(design, ("box", "openings", place, "edges"), "both_flared")
    moves, quiet = (told(v, "speed", "m/s", 0) for v in (fast.speed, loud))
    detail = f"Its air moves at {moves}; flared, {quiet} is quiet (estimate)."
    return _move(assessment, "Flare both ends of the port", detail, made)


def _wider(assessment: Assessment, place: int) -> Move | None:
    """The next pipe or slot that is quiet at the promise and fits."""
    design, fast = assessment.design, worst_speed(assessment, place)
    if fast is None or fast.speed <= fast.limit:
        return None
    port = port_at(design.box, place)
    wider = [
        c
        for c in candidates(design, place)
        if c.count == port.count and c.diameter * c.height > port.diameter * port.height
    ]
    for candidate in wider:
        try:
            made = with_port(design, place, candidate)
        except FirecrestError:
            return None
        if fit_in_case(made, place).bends is None:
            return None
        after = assess(made, assessment.memo)
        found = worst_speed(after, place)
        if _quieter(assessment, after):
            return None
        if found is not None and found.speed <= found.limit:
            new = port_at(made.box, place)
            size = new.diameter if new.shape == "round" else new.height
            return _move(
                assessment,
                f"Widen the port to {told(size, 'length', 'mm', 0)} inside",
                f"Its air moves at {told(fast.speed, 'speed', 'm/s', 0)}; then "
                f"{told(found.speed, 'speed', 'm/s', 0)}, "
                f"{told(new.length, 'length', 'mm', 0)} long.",
                made,
            )
    return None
