"""Fields of what is selected in the picture: a chamber, a driver group, radiators or a port."""

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtWidgets import QCheckBox, QComboBox

from firecrest.app.session import Session
from firecrest.app.settings import settings
from firecrest.app.stages.base import buttons, number, numbers
from firecrest.app.stages.size.case_fields import CASE, case_rows
from firecrest.app.stages.size.rows import Rows, do, preset_combo
from firecrest.app.widgets.choices import Segments, bound_check, bound_combo, bound_text, labelled
from firecrest.app.widgets.plain import label, tip
from firecrest.core.errors import FirecrestError
from firecrest.design.box import OUTSIDE
from firecrest.design.design import Design
from firecrest.design.edits import box as edits
from firecrest.design.edits.paths import Path, value_at
from firecrest.present.frame import bindings
from firecrest.present.size import losses
from firecrest.present.size.facts import added_words
from firecrest.present.size.openings import owner_kind
from firecrest.proposals import elements
from firecrest.proposals.holding import with_air_of, with_opening
from firecrest.proposals.inverse import tuner_path
from firecrest.proposals.layouts import kind_of, with_own_chamber
from firecrest.proposals.ports import with_shape
from firecrest.proposals.recalling import switched_kind

Tools = tuple[tuple[str, Callable[[], None]], ...]
HOLD_AIR = "hold/air"
KINDS = (("sealed", "Sealed"), ("port", "Port"), ("radiators", "Radiators"))
EDGES = (("plain", "plain"), ("one_flared", "one flared"), ("both_flared", "both flared"))
ENDS = (
    ("one_flanged", "one in the panel"),
    ("both_flanged", "both in panels"),
    ("both_free", "both free"),
    ("along_wall", "slot along a wall"),
)
SHAPES = (("round", "round"), ("slot", "slot"))
PAIRS = (("alone", "one driver"), ("clamshell", "a clamshell pair"), ("tunnel", "a tunnel pair"))
PAIR_WIRING = (("parallel", "parallel"), ("series", "series"))


def owner_title(design: Design, owner: Path) -> str:
    """What the fields are of."""
    item, kind = value_at(design, owner), owner_kind(design, owner)
    if kind == "case":
        return "Case"
    if kind == "chambers":
        return f"Chamber {item.name}" if len(design.box.chambers) > 1 else "Air"
    if kind == "groups":
        return str(item.driver.name)
    return "Port" if kind == "port" else str(item.radiator.name)


def owner_rows(session: Session, owner: Path, act: Callable[[str], None]) -> Rows:
    """Rows of fields of the room or element at ``owner``; ``act`` asks the stage for a view."""
    if owner == CASE:
        return case_rows(session)
    of_kind = {"chambers": _chamber, "groups": _group, "radiators": _radiators, "port": _port}
    return of_kind[owner_kind(session.design, owner)](session, owner, act)


# chambers ---------------------------------------------------------------------------


def _chamber(session: Session, owner: Path, act: Callable[[str], None]) -> Rows:
    place = int(owner[2])
    kinds = Segments(KINDS, "Kind of box")
    kinds.setProperty("compact", "true")
    kinds.choose(kind_of(session.design, place))
    hold = QCheckBox("Hold the air")
    tip(hold, "Another kind of box keeps the net air of this chamber: the case grows or shrinks")
    hold.setChecked(settings.get(HOLD_AIR, False))
    hold.toggled.connect(partial(settings.put, HOLD_AIR))
    kinds.chosen.connect(partial(_choose_kind, session, kinds, place))
    rows: Rows = [kinds, hold, number(session, bindings.air_volume(place))]
    if len(session.design.box.chambers) > 1:
        rows.insert(0, labelled("Name", bound_text(session, (*owner, "name"))))
    if tuner_path(session.design, place) is not None:
        rows.append(number(session, bindings.tuning(place)))
    rows.append(labelled("Tightness", _tightness(session, place)))
    rows.append(labelled("Inside", _damping(session, place)))
    names = ["share", "leak_q", "stuffing", "absorption_q", "fill_resistivity", "fill_share"]
    rows += numbers(session, *((*owner, n) for n in (*names, "leak_resistance", "stated_volume")))
    rows.append(
        buttons(
            ("Add port", lambda: _add_opening(session, "port", place)),
            ("Add radiator", lambda: _add_opening(session, "radiators", place)),
        )
    )
    rows.append(
        buttons(
            ("Add chamber", lambda: do(session, lambda d: elements.add_chamber(d, place))),
            *(_chamber_tools(session, owner) if len(session.design.box.chambers) > 1 else ()),
        )
    )
    return rows


def _chamber_tools(session: Session, owner: Path) -> Tools:
    """What several chambers can be asked; boards and cells are in the first."""
    place = int(owner[2])
    return (
        ("Remove", lambda: do(session, lambda d: elements.remove_chamber(d, place))),
        *_order(session, owner),
    )


def _order(session: Session, owner: Path) -> Tools:
    """Earlier or later among its kind."""
    return (
        ("▲", lambda: do(session, lambda d: elements.moved(d, owner, -1))),
        ("▼", lambda: do(session, lambda d: elements.moved(d, owner, 1))),
    )


def _choose_kind(session: Session, kinds: Segments, place: int, kind: Any) -> None:
    before = session.design

    def switch() -> None:
        made = switched_kind(before, kind, place, session.past_designs())
        if settings.get(HOLD_AIR, False):
            made = with_air_of(made, before, place)
        session.apply(f"Box: {dict(KINDS)[kind].lower()}", made)

    if not session.attempt(switch):
        kinds.choose(kind_of(session.design, place))


def _add_opening(session: Session, kind: edits.Kind, place: int) -> None:
    """One more opening; why it is not tuned as the chamber was is told."""
    troubles: list[FirecrestError | None] = []

    def add() -> None:
        label, made, trouble = with_opening(session.design, kind, place)
        session.apply(label, made)
        troubles.append(trouble)

    if session.attempt(add):
        text = added_words(session.design, troubles[0])
        if text:
            session.refused.emit(text)


def _tightness(session: Session, place: int) -> QComboBox:
    return preset_combo(
        session,
        "Tightness",
        losses.TIGHTNESS_WORDS,
        lambda design: losses.tightness_in_force(design, place),
        lambda design, preset: losses.with_tightness(design, place, preset),
    )


def _damping(session: Session, place: int) -> QComboBox:
    return preset_combo(
        session,
        "Inside",
        losses.DAMPING_WORDS,
        lambda design: losses.damping_in_force(design, place),
        lambda design, preset: losses.with_damping(design, place, preset),
    )


# elements ---------------------------------------------------------------------------


def _chamber_options(session: Session, *, outside: bool) -> list[tuple[str, str]]:
    names = [(c.id, c.name) for c in session.design.box.chambers]
    return [(OUTSIDE, "outside"), *names] if outside else names


def _where(session: Session, owner: Path, faces: str) -> Rows:
    """Chamber behind, and what it faces; only where there is a choice."""
    if len(session.design.box.chambers) < 2:
        return []
    behind = bound_combo(session, (*owner, "chamber"), _chamber_options(session, outside=False))
    front = bound_combo(session, (*owner, faces), _chamber_options(session, outside=True))
    return [labelled("Chamber behind", behind), labelled("Faces", front)]


def _position(session: Session, owner: Path) -> Rows:
    rows: Rows = [label("Sounds from, off the middle of the front", "hint")]
    return rows + numbers(session, *((*owner, "place", n) for n in ("right", "up", "forward")))


def _group(session: Session, owner: Path, act: Callable[[str], None]) -> Rows:
    place = int(owner[2])
    pairs = bound_combo(session, (*owner, "pair"), PAIRS)
    rows: Rows = [*_where(session, owner, "front"), labelled("Each cone driven by", pairs)]
    channels = [(c.id, c.name) for c in session.design.voice.channels]
    if len(channels) > 1:
        driven = bound_combo(session, (*owner, "channel"), channels)
        rows.insert(0, labelled("Driven by channel", driven))
    group = session.design.box.groups[place]
    if group.pair != "alone":
        wiring = bound_combo(session, (*owner, "pair_in"), PAIR_WIRING)
        rows.append(labelled("The two wired in", wiring))
        rows += numbers(session, (*owner, "trapped"))
    rows += numbers(session, (*owner, "driver", "xmax"))
    rows.append(bound_check(session, (*owner, "opposed"), "Half face the other way (opposed)"))
    rows += _position(session, owner)
    own: tuple[tuple[str, Callable[[], None]], ...] = ()
    if sum(g.chamber == group.chamber for g in session.design.box.groups) > 1:
        made = partial(with_own_chamber, place=place)
        title = f"A chamber for {group.driver.name}"
        own = (("A chamber of its own", lambda: do(session, lambda d: (title, made(d)))),)
    sheet = ("Figures…", lambda: session.go_to((*owner, "driver", "fs")))
    rows.append(buttons(*own, sheet))
    several = len(session.design.box.groups) > 1
    more: Tools = (
        ("Duplicate", lambda: do(session, lambda d: elements.duplicate_group(d, place))),
    )
    if several:
        gone = ("Remove", lambda: do(session, lambda d: elements.remove_group(d, place)))
        more = (*more, gone, *_order(session, owner))
    rows.append(buttons(*more))
    return rows


def _radiators(session: Session, owner: Path, act: Callable[[str], None]) -> Rows:
    rows: Rows = []
    rows += numbers(
        session,
        (*owner, "count"),
        (*owner, "added_mass"),
        (*owner, "washer"),
        *((*owner, "radiator", name) for name in ("sd", "mmp", "cmp", "rmp", "xmax")),
    )
    rows.append(bound_check(session, (*owner, "horizontal"), "Faces up or down (sags)"))
    rows.append(bound_check(session, (*owner, "opposed"), "Half face the other way (opposed)"))
    rows += [*_where(session, owner, "opens_to"), *_position(session, owner)]
    place = int(owner[2])
    rows.append(
        buttons(
            ("Whole washers", lambda: do(session, lambda d: edits.whole_washers(d, place))),
            ("Remove", lambda: do(session, lambda d: edits.remove_opening(d, owner))),
        )
    )
    return rows


def _port(session: Session, owner: Path, act: Callable[[str], None]) -> Rows:
    port = value_at(session.design, owner)
    sides = ("diameter",) if port.shape == "round" else ("width", "height")
    shaped = partial(with_shape, place=int(owner[2]))
    shape = bound_combo(
        session, (*owner, "shape"), SHAPES, lambda design, value: shaped(design, shape=value)
    )
    rows: Rows = [labelled("Shape", shape)]
    rows += numbers(session, *((*owner, n) for n in ("count", *sides, "length", "bends")))
    rows.append(buttons(("Choose a port…", lambda: act("ports"))))
    rows.append(labelled("Edges", bound_combo(session, (*owner, "edges"), EDGES)))
    rows.append(labelled("Ends sit", bound_combo(session, (*owner, "mounting"), ENDS)))
    rows.append(bound_check(session, (*owner, "resonances"), "Pipe resonances"))
    rows += numbers(
        session, *((*owner, n) for n in ("speed_limit", "loss_q", "end_correction", "wall"))
    )
    rows += [*_where(session, owner, "opens_to"), *_position(session, owner)]
    rows.append(buttons(("Remove", lambda: do(session, lambda d: edits.remove_opening(d, owner)))))
    return rows
