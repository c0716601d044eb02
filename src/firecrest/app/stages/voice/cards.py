"""Cards of what is chosen in the lanes: a channel, its level, delay, limiters, a filter, bands."""

from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import numbers
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import (
    CalmCombo,
    bound_check,
    bound_combo,
    bound_text,
    labelled,
    unhook,
)
from firecrest.app.widgets.number_field import NumberEdit
from firecrest.app.widgets.number_row import NumberRow
from firecrest.app.widgets.plain import label, paragraph, tip
from firecrest.design.design import Design
from firecrest.design.edits import voice as edits
from firecrest.design.edits.boards import on_board
from firecrest.design.edits.paths import Path, dotted
from firecrest.present.frame.bindings import at_path
from firecrest.present.power.power import amplifier_names
from firecrest.present.voice.delays import Measure, delay_in
from firecrest.present.voice.lanes import numbered
from firecrest.proposals.elements import duplicate_way, moved
from firecrest.proposals.ways import without_way

FAMILIES = (
    ("butterworth", "Butterworth"),
    ("linkwitz_riley", "Linkwitz-Riley"),
    ("bessel", "Bessel"),
)
ORDERS = tuple((n, f"{6 * n} dB/oct") for n in range(1, 9))
MIXES = (
    ("mono", "Left + right, halves"),
    ("left", "Left"),
    ("right", "Right"),
    ("sub", "Shares of both"),
)
BAND_FIELDS = (("frequency", 74), ("gain", 62), ("q", 46))
"""Figures of a band and the width of their fields."""
BAND_KINDS = ("parametric", "low_shelf", "high_shelf", "notch")
Edit = Callable[[Design], tuple[str, Design]]


def card(session: Session, channel: int, key: str, places: Sequence[int]) -> QWidget:
    """The card of what ``key`` names in a lane."""
    if key == "way":
        return way_card(session, channel)
    here: Path = ("voice", "channels", channel)
    name = session.design.voice.channels[channel].name
    if key == "level":
        turned = bound_check(session, (*here, "inverted"), "Polarity turned")
        return _titled(f"Level of {name}", *numbers(session, (*here, "gain")), turned)
    if key == "delay":
        return delay_card(session, channel)
    if key == "limiter":
        fields = numbers(
            session, (*here, "limiter"), (*here, "limiter_rms"), (*here, "limiter_attack")
        )
        hint = paragraph("Protect, above, works out both from what the parts bear.", "hint")
        return _titled(f"Limiters of {name}", *fields, hint)
    if not places:
        return QWidget()
    kind = session.design.voice.channels[channel].blocks[places[0]].kind
    if kind in BAND_KINDS:
        return bands_card(session, channel, places)
    return block_card(session, channel, places[0])


def lone_edit(session: Session, path: Path, width: int) -> NumberEdit:
    """A number field without a label of its own."""
    edit = NumberEdit(session, at_path(session.design, path))
    edit.setProperty("path", dotted(path))
    fix(edit, width=width)

    def _follow() -> None:
        if session.has(path):
            edit.show_value()

    session.changed.connect(_follow)
    edit.destroyed.connect(lambda: unhook(session, _follow))
    return edit


def _titled(title: str, *rows: QWidget) -> QWidget:
    holder = QWidget()
    box = QVBoxLayout(holder)
    box.setContentsMargins(0, 0, 0, 0)
    box.setSpacing(2)
    box.addWidget(label(title, "section"))
    for row in rows:
        box.addWidget(row)
    box.addStretch(1)
    return holder


def _do(session: Session, edit: Edit) -> None:
    session.attempt(lambda: session.apply(*edit(session.design)))


def _button(session: Session, text: str, help: str, edit: Edit) -> QPushButton:
    button = QPushButton(text)
    tip(button, help)
    button.setAccessibleName(help)
    button.clicked.connect(lambda: _do(session, edit))
    return button


def _row(*parts: QWidget) -> QWidget:
    holder = QWidget()
    row = QHBoxLayout(holder)
    row.setContentsMargins(0, 2, 0, 2)
    row.setSpacing(6)
    for part in parts:
        row.addWidget(part)
    row.addStretch(1)
    return holder


def way_card(session: Session, channel: int) -> QWidget:
    """A channel: its name, input, board and outputs; copied, linked, moved, taken away."""
    here: Path = ("voice", "channels", channel)
    own, channels = session.design.voice.channels[channel], session.design.voice.channels
    rows: list[QWidget] = [labelled("Name", bound_text(session, (*here, "name")))]
    rows.append(labelled("Input", bound_combo(session, (*here, "mix"), MIXES)))
    if own.mix == "sub":
        rows += numbers(session, (*here, "left_share"), (*here, "right_share"))
    boards = amplifier_names(session.design)
    if len(boards) > 1:
        chosen = bound_combo(
            session,
            (*here, "board"),
            boards,
            lambda design, board: on_board(design, channel, board),
        )
        rows.append(labelled("Board", chosen))
    shown = ("gain", "delay", "outputs", "first")
    rows += numbers(session, *((*here, name) for name in shown))
    others = [(k, c.name) for k, c in enumerate(channels) if k != channel]
    if others:
        rows.append(labelled("Linked with", _link_combo(session, channel, others)))
        target = CalmCombo()
        target.setAccessibleName(f"Copy the chain of {own.name} to")
        target.addItems([name for _, name in others])
        copy = QPushButton("Copy chain to")
        tip(copy, "Level, delay, filters and limiters of this channel, put into another")
        copy.clicked.connect(
            lambda: _do(
                session, lambda d: edits.copy_chain(d, channel, others[target.currentIndex()][0])
            )
        )
        rows.append(_row(copy, target))
    tools = [
        _button(
            session,
            "Duplicate",
            "One more way like it, with its drivers",
            lambda d: duplicate_way(d, channel),
        )
    ]
    if others:
        tools += [
            _button(session, "▲", f"Move way earlier {own.name}", lambda d: moved(d, here, -1)),
            _button(session, "▼", f"Move way later {own.name}", lambda d: moved(d, here, 1)),
            _button(
                session, "Remove way", f"Remove way {own.name}", lambda d: without_way(d, channel)
            ),
        ]
    rows.append(_row(*tools))
    return _titled(f"Channel {own.name}", *rows)


def _link_combo(session: Session, channel: int, others: list[tuple[int, str]]) -> QWidget:
    """Which channel shares the chain: what is set in one is set in both."""
    own, channels = session.design.voice.channels[channel], session.design.voice.channels
    combo = CalmCombo()
    combo.setAccessibleName(f"{own.name} linked with")
    combo.addItems(["none", *(name for _, name in others)])
    now = [k for k, _ in others if own.link and channels[k].link == own.link]
    combo.setCurrentIndex(1 + [k for k, _ in others].index(now[0]) if now else 0)
    choices = [None, *(k for k, _ in others)]
    combo.activated.connect(
        lambda place: _do(session, lambda d: edits.link(d, channel, choices[place]))
    )
    return combo


def delay_card(session: Session, channel: int) -> QWidget:
    """A delay in time, in samples of the board and as a path."""
    here: Path = ("voice", "channels", channel)
    name = session.design.voice.channels[channel].name
    rows: list[QWidget] = list(numbers(session, (*here, "delay")))
    measures: tuple[Measure, ...] = ("samples", "path")
    rows += [NumberRow(session, delay_in(session.design, channel, m)) for m in measures]
    hint = paragraph("A board without fractional delay rounds to whole samples.", "hint")
    return _titled(f"Delay of {name}", *rows, hint)


def block_card(session: Session, channel: int, place: int) -> QWidget:
    """One filter that is no band."""
    here: Path = ("voice", "channels", channel, "blocks", place)
    block = session.design.voice.channels[channel].blocks[place]
    rows: list[QWidget] = list(numbers(session, *((*here, n) for n in edits.FIGURES[block.kind])))
    if block.kind in ("high_pass", "low_pass"):
        rows.append(labelled("Family", bound_combo(session, (*here, "family"), FAMILIES)))
        rows.append(labelled("Slope", bound_combo(session, (*here, "order"), ORDERS)))
    if block.kind == "all_pass":
        turns = ((1, "180°, first order"), (2, "360°, second order"))
        rows.append(labelled("Turns by", bound_combo(session, (*here, "order"), turns)))
    if block.kind == "own_crossover":
        family = dict(FAMILIES)[block.family]
        rows.append(
            paragraph(
                f"{edits.KINDS[block.side]}, {family}, {6 * block.order} dB/oct: the board’s own, "
                "analogue and fixed. Its knobs are frequency, level and phase.",
                "hint",
            )
        )
    rows.append(bound_check(session, (*here, "bypassed"), "Bypassed"))
    if block.kind != "own_crossover":
        rows.append(_tools(session, channel, place))
    else:
        gone = "The amplifier’s crossover is switched off"
        remove = _button(session, "Remove", gone, partial(_removed, channel=channel, place=place))
        rows.append(_row(remove))
    return _titled(edits.KINDS[block.kind], *rows)


def _tools(session: Session, channel: int, place: int) -> QWidget:
    name = edits.KINDS[session.design.voice.channels[channel].blocks[place].kind]
    return _row(
        _button(
            session, "◀", f"Move earlier: {name}", lambda d: edits.move_block(d, channel, place, -1)
        ),
        _button(
            session, "▶", f"Move later: {name}", lambda d: edits.move_block(d, channel, place, 1)
        ),
        _button(
            session, "Remove", f"Remove: {name}", lambda d: edits.remove_block(d, channel, place)
        ),
    )


def bands_card(session: Session, channel: int, places: Sequence[int]) -> QWidget:
    """Bands that follow each other: one row each, numbered as on the plot."""
    holder = QWidget()
    grid = QGridLayout(holder)
    grid.setContentsMargins(0, 0, 0, 0)
    grid.setHorizontalSpacing(4)
    grid.setVerticalSpacing(2)
    for column, head in enumerate(("", "Centre", "Gain", "Q", "")):
        grid.addWidget(label(head, "hint"), 0, column)
    own = session.design.voice.channels[channel]
    numbers_of = numbered(own)
    for row, place in enumerate(places, 1):
        block, number = own.blocks[place], numbers_of[place]
        here: Path = ("voice", "channels", channel, "blocks", place)
        on = bound_check(session, (*here, "bypassed"), str(number))
        on.setAccessibleName(f"Band {number} bypassed")
        tip(on, f"{edits.KINDS[block.kind]} {number}; ticked: bypassed")
        grid.addWidget(on, row, 0)
        for column, (name, wide) in enumerate(BAND_FIELDS, 1):
            if hasattr(block, name):
                edit = lone_edit(session, (*here, name), wide)
                grid.addWidget(edit, row, column)
        gone = _button(
            session, "✕", f"Remove band {number}", partial(_removed, channel=channel, place=place)
        )
        fix(gone, width=26)
        gone.setStyleSheet("padding: 0")
        grid.addWidget(gone, row, 4)
    grid.setColumnStretch(5, 1)
    adds = [
        _button(
            session,
            text,
            f"Add {edits.KINDS[kind].lower()}",
            partial(_added, channel=channel, kind=kind),
        )
        for kind, text in (
            ("parametric", "Band"),
            ("low_shelf", "Low"),
            ("high_shelf", "High"),
            ("notch", "Notch"),
        )
    ]
    return _titled(f"EQ of {own.name}", holder, _row(label("Add", "hint"), *adds))


def _removed(design: Design, channel: int, place: int) -> tuple[str, Design]:
    return edits.remove_block(design, channel, place)


def _added(design: Design, channel: int, kind: str) -> tuple[str, Design]:
    return edits.add_beside(design, channel, kind)
