"""Voice: what each driver is told to play, and what that costs."""

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QMenu,
    QPushButton,
    QSizePolicy,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.stages.base import Stage, column, numbers
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import bound_check, bound_combo, bound_text, labelled
from firecrest.app.widgets.plain import label, tip
from firecrest.design.design import Design
from firecrest.design.edits import voice as edits
from firecrest.design.edits.boards import on_board
from firecrest.design.edits.paths import Path
from firecrest.present.frame.owners import owner_of
from firecrest.present.plot import ceiling, views
from firecrest.present.power.power import amplifier_names
from firecrest.proposals.elements import duplicate_way, moved
from firecrest.proposals.ways import with_way, without_way

FAMILIES = (
    ("butterworth", "Butterworth"),
    ("linkwitz_riley", "Linkwitz-Riley"),
    ("bessel", "Bessel"),
)
ORDERS = tuple((n, f"{6 * n} dB/oct") for n in range(1, 9))


class VoiceStage(Stage):
    """Response over ceiling after the voice, and the blocks of each channel."""

    key, title, subtitle = "voice", "Voice", "what each driver is told to play"

    def build_heart(self) -> None:
        more = QPushButton("Add way")
        tip(more, "One more channel with small drivers of its own, crossed over to the first")
        more.clicked.connect(self.add_way)
        self.bar.addWidget(more)
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 2, 0, 0)
        box.setSpacing(2)
        top = QHBoxLayout()
        top.setSpacing(10)
        top.addWidget(label("Response", "section"))
        self._worth = label("", "second")
        top.addWidget(self._worth)
        top.addStretch(1)
        box.addLayout(top)
        self.response = Chart(self.session, height=120)
        box.addWidget(self.response, 5)
        line = QHBoxLayout()
        line.setSpacing(10)
        line.addWidget(label("Ceiling after voice", "section"))
        line.addWidget(
            label("how loud the voice as a whole goes before a note gives out", "second")
        )
        line.addStretch(1)
        box.addLayout(line)
        self.ceiling = Chart(self.session, height=120)
        box.addWidget(self.ceiling, 6)
        self.splitter.setSizes([360, 230])

    def structure(self) -> Any:
        channels = self.session.design.voice.channels
        kinds = [tuple(block.kind for block in c.blocks) for c in channels]
        lanes = [(c.name, edits.sections_used(c), k) for c, k in zip(channels, kinds, strict=True)]
        return lanes, amplifier_names(self.session.design)

    def build_lower(self) -> QWidget:
        holder = QWidget()
        box = QVBoxLayout(holder)
        box.setContentsMargins(0, 6, 8, 4)
        box.setSpacing(12)
        for place in range(len(self.session.design.voice.channels)):
            box.addWidget(self._lane(place))
        box.addStretch(1)
        return holder

    def _lane(self, place: int) -> QWidget:
        channel = self.session.design.voice.channels[place]
        here: Path = ("voice", "channels", place)
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(8)
        row.addWidget(self._source_card(here))
        for k in range(len(channel.blocks)):
            row.addWidget(self._block_card(place, k))
        row.addStretch(1)
        add = QToolButton()
        add.setText("Add filter ▾")
        add.setAccessibleName(f"Add a filter to {channel.name}")
        add.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(add)
        for kind, name in edits.KINDS.items():
            menu.addAction(name).triggered.connect(partial(self._add, place, kind))
        add.setMenu(menu)
        self.add_button = add
        head = QHBoxLayout()
        used = edits.sections_used(channel)
        dsp = self.session.design.power.dsp
        head.addWidget(
            label(
                f"{dsp.name}, {dsp.sample_rate / 1e3:g} kHz: {used} of {dsp.filters} filters used",
                "second",
            )
        )
        head.addStretch(1)
        head.addWidget(self._tool(place, "Duplicate way", lambda d: duplicate_way(d, place)))
        if len(self.session.design.voice.channels) > 1:
            head.addWidget(self._tool(place, "▲", lambda d: moved(d, here, -1), "Move way earlier"))
            head.addWidget(self._tool(place, "▼", lambda d: moved(d, here, 1), "Move way later"))
            head.addWidget(self._remove_button(place))
        head.addWidget(add)
        inner = QWidget()
        box = QVBoxLayout(inner)
        box.setContentsMargins(0, 0, 0, 0)
        box.addLayout(head)
        box.addWidget(holder)
        return column(f"Lane {channel.name}", "in the order of the board", inner)

    def _source_card(self, here: Path) -> QWidget:
        card, box = _card("Channel")
        box.addWidget(labelled("Name", bound_text(self.session, (*here, "name"))))
        boards = amplifier_names(self.session.design)
        if len(boards) > 1:
            chosen = bound_combo(
                self.session,
                (*here, "board"),
                boards,
                lambda design, board: on_board(design, int(here[2]), board),
            )
            box.addWidget(labelled("Board", chosen))
        for row in numbers(
            self.session, (*here, "gain"), (*here, "limiter"), (*here, "outputs"), (*here, "first")
        ):
            box.addWidget(row)
        box.addWidget(bound_check(self.session, (*here, "inverted"), "Polarity turned"))
        box.addStretch(1)
        return card

    def _tool(
        self, place: int, text: str, edit: Callable[[Design], tuple[str, Design]], name: str = ""
    ) -> QPushButton:
        """A button of a lane that makes one edit."""
        s, button = self.session, QPushButton(text)
        button.setAccessibleName(f"{name or text} {s.design.voice.channels[place].name}")
        tip(button, name or "One more like it, with its drivers, in the same chambers")
        button.clicked.connect(lambda: s.attempt(lambda: s.apply(*edit(s.design))))
        return button

    def _remove_button(self, place: int) -> QPushButton:
        remove = QPushButton("Remove way")
        tip(remove, "This channel, its drivers, and the chamber they leave empty")
        remove.setAccessibleName(f"Remove way {self.session.design.voice.channels[place].name}")
        remove.clicked.connect(lambda: self._remove_way(place))
        return remove

    def _block_card(self, channel: int, place: int) -> QWidget:
        session = self.session
        here: Path = ("voice", "channels", channel, "blocks", place)
        kind = session.design.voice.channels[channel].blocks[place].kind
        card, box = _card(edits.KINDS[kind])
        for row in numbers(session, *((*here, n) for n in edits.FIGURES[kind])):
            box.addWidget(row)
        if kind in ("high_pass", "low_pass"):
            box.addWidget(labelled("Family", bound_combo(session, (*here, "family"), FAMILIES)))
            box.addWidget(labelled("Slope", bound_combo(session, (*here, "order"), ORDERS)))
        box.addStretch(1)
        tools = QHBoxLayout()
        for text, name, action in (
            ("◀", "Move earlier", lambda: self._move(channel, place, -1)),
            ("▶", "Move later", lambda: self._move(channel, place, 1)),
            ("✕", "Remove", lambda: self._remove(channel, place)),
        ):
            button = QPushButton(text)
            fix(button, width=30)
            button.setStyleSheet("padding: 0")
            tip(button, name)
            button.setAccessibleName(f"{name}: {owner_of(session.design, here)}")
            button.setProperty("path", f"{name}: {edits.KINDS[kind]}")  # wherever it moves
            button.clicked.connect(action)
            tools.addWidget(button)
        box.addLayout(tools)
        return card

    def add_way(self) -> None:
        """One more channel with drivers of its own."""
        s = self.session
        s.attempt(lambda: s.apply(*with_way(s.design)))

    def _remove_way(self, place: int) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*without_way(s.design, place)))

    def _add(self, channel: int, kind: str, _checked: bool = False) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*edits.add_block(s.design, channel, kind)))

    def _move(self, channel: int, place: int, by: int) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*edits.move_block(s.design, channel, place, by)))

    def _remove(self, channel: int, place: int) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*edits.remove_block(s.design, channel, place)))

    def refresh(self) -> None:
        """Draw response and ceiling, with ghosts."""
        a, t = self.session.assessment, self.session.ghost
        self._worth.setText(ceiling.beyond_lumps(a))
        whole = partial(views.response_plot, full=True)
        self.response.show_plot(whole(a), whole(t) if t else None)
        self.ceiling.show_plot(
            ceiling.voice_ceiling_plot(a), ceiling.voice_ceiling_plot(t) if t else None
        )


def _card(title: str) -> tuple[QFrame, QVBoxLayout]:
    """A card with a title."""
    card = QFrame()
    card.setProperty("role", "card")
    fix(card, least_width=206)
    card.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Preferred)
    box = QVBoxLayout(card)
    box.setContentsMargins(10, 6, 10, 8)
    box.setSpacing(2)
    box.addWidget(label(title, "figure"))
    return card, box
