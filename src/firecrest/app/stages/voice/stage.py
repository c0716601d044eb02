"""Voice: what each driver is told to play, and what that costs."""

from functools import partial
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QVBoxLayout, QWidget

from firecrest.app.rest import Coalesced, Rest
from firecrest.app.stages.base import Stage
from firecrest.app.stages.views import VOICE, VOICE_PAGES
from firecrest.app.stages.voice import heart
from firecrest.app.stages.voice.cards import card
from firecrest.app.stages.voice.compare_page import ComparePage
from firecrest.app.stages.voice.flatten_page import Filled, FlattenPage
from firecrest.app.stages.voice.handles import Handles
from firecrest.app.stages.voice.lane_view import LaneView
from firecrest.app.stages.voice.pages import CurvesPage, LineUpPage, Page, ProtectPage
from firecrest.app.stages.voice.side import SideColumn
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import CalmCombo, Segments, set_role
from firecrest.app.widgets.pages import Pages, scrolled
from firecrest.app.widgets.plain import label, menu_text, tip
from firecrest.design.edits import presets
from firecrest.design.edits import voice as edits
from firecrest.design.edits.paths import Path
from firecrest.present.power.power import amplifier_names
from firecrest.present.voice.lanes import filters_used, grouped, has_handle, lanes, too_many
from firecrest.proposals.ways import with_way

CARD_WIDTH = 262
SCROLLBAR = 14


class VoiceStage(Stage):
    """The sum over the ceiling, lanes of blocks below, and what works on all of them."""

    key, title, subtitle = "voice", "Voice", "what each driver is told to play"

    def build_heart(self) -> None:
        self._rest, self._below = Rest(self), Rest(self)
        self._slow = Coalesced(self, self._refresh_lower)
        self.chosen: tuple[int, str] = (0, "way")
        self.page: Page | None = None
        self._filled: Filled | None = None
        self.work = "lanes"
        self.views = Segments(VOICE, "View")
        self.views.chosen.connect(self.show_view)
        self.bar.addWidget(self.views)
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 2, 0, 0)
        self.pages = Pages()
        box.addWidget(self.pages)
        self.sum = heart.SumPage(self.session)
        self.views_by_key: dict[str, Any] = {"sum": self.sum, **heart.pages(self.session)}
        for key, _ in VOICE:
            self.pages.addWidget(self.views_by_key[key])
        self.handles = Handles(self.sum.response, self.session, self.choose_band, self.remove_band)
        self.view = "sum"
        self.views.choose("sum")
        self.splitter.setSizes([318, 276])

    @property
    def response(self) -> Any:
        """The plot of the sum."""
        return self.sum.response

    @property
    def ceiling(self) -> Any:
        """The plot of the ceiling after the voice."""
        return self.sum.ceiling

    def show_view(self, view: object) -> None:
        """Show a view of the heart."""
        self.view = str(view)
        self.views.choose(view)
        self.pages.setCurrentIndex([key for key, _ in VOICE].index(self.view))
        self._draw_heart()

    # the lower part ---------------------------------------------------------------------

    def structure(self) -> Any:
        channels = self.session.design.voice.channels
        shape = [
            (
                c.id,
                c.name,
                c.link,
                c.mix == "sub",
                tuple((b.kind, _family(b)) for b in c.blocks),
                tuple(curve.name for curve in c.response.curves),
            )
            for c in channels
        ]
        return shape, amplifier_names(self.session.design), self.work, self.chosen

    def build_lower(self) -> QWidget:
        self._keep_choice()
        self._below.stop()  # it was to draw the page that goes now
        holder = QWidget()
        box = QVBoxLayout(holder)
        box.setContentsMargins(0, 6, 0, 4)
        box.setSpacing(6)
        box.addWidget(self._works())
        self.lanes: LaneView | None = None
        self.side: SideColumn | None = None
        if isinstance(self.page, FlattenPage):
            self._filled = self.page.filled
        self.page = None
        channel = self.chosen[0]
        made = {
            "line up": lambda: LineUpPage(self.session),
            "flatten": lambda: FlattenPage(self.session),
            "protect": lambda: ProtectPage(self.session),
            "curves": lambda: CurvesPage(self.session, channel),
            "compare": lambda: ComparePage(self.session),
        }
        if self.work in made:
            self.page = made[self.work]()
            if isinstance(self.page, FlattenPage) and self._filled is not None:
                self.page.fill_in(self._filled)
            if isinstance(self.page, CurvesPage):
                self.page.told_to = lambda text: self.session.told.emit(text, ())
                box.addWidget(self._ways())
            box.addWidget(self.page)
        else:
            box.addWidget(self._lane_page())
        box.addStretch(1)
        return holder

    def _works(self) -> QWidget:
        """What one works with below, and the presets."""
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 8, 0)
        row.setSpacing(8)
        works = Segments(VOICE_PAGES, "Below")
        works.choose(self.work)
        works.chosen.connect(self.show_work)
        self.works = works
        row.addWidget(works)
        row.addStretch(1)
        self.preset = CalmCombo()
        self.preset.setAccessibleName("Preset")
        fix(self.preset, least_width=120)
        tip(self.preset, "Voices for different places, stored with the design")
        self.preset.activated.connect(self._switch)
        keep = QPushButton("Keep as…")
        tip(keep, "Go on under a new name; what was set stays under the old one")
        keep.clicked.connect(self.keep_preset)
        drop = QPushButton("✕")
        fix(drop, width=26)
        drop.setStyleSheet("padding: 0")
        tip(drop, "Remove this preset; the next one comes in force")
        drop.setAccessibleName("Remove this preset")
        drop.clicked.connect(lambda: self._edit(lambda d: presets.removed(d, d.voice.preset)))
        drop.setEnabled(len(presets.names(self.session.design.voice)) > 1)
        self.drop_preset = drop
        for widget in (self.preset, keep, drop):
            row.addWidget(widget)
        return holder

    def _ways(self) -> QWidget:
        """Which way's curves are on show."""
        names = [(k, c.name) for k, c in enumerate(self.session.design.voice.channels)]
        segments = Segments(names, "Way")
        segments.choose(self.chosen[0])
        segments.chosen.connect(lambda k: self.choose(int(k), "way"))
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(segments)
        row.addStretch(1)
        holder.setVisible(len(names) > 1)
        return holder

    def _lane_page(self) -> QWidget:
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 8, 0)
        row.setSpacing(16)
        left = QWidget()
        box = QVBoxLayout(left)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        head = QHBoxLayout()
        head.addWidget(label("Lanes", "section"))
        head.addStretch(1)
        self.used = label("", "hint")
        head.addWidget(self.used)
        filters = QToolButton()
        filters.setText("Add filter ▾")
        tip(filters, "One more filter in the chosen lane")
        filters.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(filters)
        for kind, name in edits.KINDS.items():
            menu.addAction(menu_text(name), partial(self._add, kind))
        filters.setMenu(menu)
        self.add_button = filters
        head.addWidget(filters)
        more = QPushButton("Add way")
        tip(more, "One more channel with drivers of its own, crossed over to the highest one")
        more.clicked.connect(self.add_way)
        head.addWidget(more)
        box.addLayout(head)
        self.lanes = LaneView(lanes(self.session.assessment), self.choose, self.ask)
        scroll = scrolled(self.lanes)
        fix(scroll, least_height=self.lanes.whole + SCROLLBAR)  # however short the card is
        box.addWidget(scroll, 1)
        row.addWidget(left, 1)
        places = self._places()
        self.side = SideColumn(self.session, card(self.session, *self.chosen, places))
        fix(self.side, width=CARD_WIDTH)
        row.addWidget(self.side)
        return holder

    def _keep_choice(self) -> None:
        """What is chosen must exist."""
        channels = self.session.design.voice.channels
        channel, key = self.chosen
        if channel >= len(channels):
            self.chosen = (0, "way")
        elif key.startswith("block-") and int(key[6:]) not in self._starts(channel):
            starts = [s for s in self._starts(channel) if s <= int(key[6:])]
            self.chosen = (channel, f"block-{starts[-1]}" if starts else "way")
        self._built = self.structure()

    def _starts(self, channel: int) -> list[int]:
        return [places[0] for places in grouped(self.session.design.voice.channels[channel])]

    def _places(self) -> tuple[int, ...]:
        """The filters that the chosen block stands for."""
        channel, key = self.chosen
        if not key.startswith("block-"):
            return ()
        own = self.session.design.voice.channels[channel]
        return next((p for p in grouped(own) if p[0] == int(key[6:])), ())

    # choosing and editing ---------------------------------------------------------------

    def show_work(self, work: object) -> None:
        """Show another page below."""
        if self.page is not None:
            self.page.leave()
        self.work = str(work)
        self._renew()
        self.works.button(self.work).setFocus()

    def choose(self, channel: int, key: str) -> None:
        """Open the card of a block, a channel or what else stands in a lane."""
        if self.chosen != (channel, key):
            self.chosen = (channel, key)
            self._renew()

    def choose_band(self, place: int) -> None:
        """The card of the band whose handle was pressed."""
        channel = self.chosen[0]
        own = self.session.design.voice.channels[channel]
        start = next((p[0] for p in grouped(own) if place in p), place)
        if self.work == "lanes":
            self.choose(channel, f"block-{start}")

    def remove_band(self, place: int) -> None:
        """Take away the band of a handle."""
        self._edit(lambda d: edits.remove_block(d, self.chosen[0], place))

    def ask(self, channel: int, key: str, what: str) -> None:
        """Bypass, move or remove what a block stands for."""
        own = self.session.design.voice.channels[channel]
        places = next((p for p in grouped(own) if f"block-{p[0]}" == key), ())
        if not places:
            return
        self.chosen = (channel, key)
        if what == "bypass":
            self._edit(lambda d: edits.bypass_all(d, channel, places))
        elif what == "remove":
            self._edit(lambda d: edits.remove_blocks(d, channel, places))
        else:
            groups = grouped(own)
            here = groups.index(places)
            there = {"earlier": here - 1, "later": here + 1}.get(what)
            if there is None:
                dragged = int(what.removeprefix("drop "))
                here = next(k for k, p in enumerate(groups) if dragged in p)
                there = groups.index(places)
            self._edit(lambda d: edits.move_group(d, channel, groups, here, there))
            self._focus_lane(channel)

    def _focus_lane(self, channel: int) -> None:
        """The keyboard to the chosen block of a lane."""
        if self.lanes is None:
            return
        for block in self.lanes.rows[channel].blocks:
            if block.item.key == self.chosen[1]:
                block.setFocus()

    def _add(self, kind: str) -> None:
        s, channel = self.session, self.chosen[0]
        before = s.design.voice.channels[channel].blocks
        if s.attempt(lambda: s.apply(*edits.add_block(s.design, channel, kind))):
            now = s.design.voice.channels[channel].blocks
            new = next((k for k, block in enumerate(now) if before[k : k + 1] != (block,)), None)
            if new is not None:
                self.choose(channel, self._key_of(channel, ("blocks", new)))

    def add_way(self) -> None:
        """One more channel with drivers of its own."""
        self._edit(with_way)

    def keep_preset(self) -> None:
        """Ask for a name and go on under it."""
        messages = self.window().messages  # type: ignore[attr-defined]
        name = messages.new_name("", "Keep the voice as")
        if name is not None:
            self._edit(lambda d: presets.keep_as(d, name))

    def _switch(self, place: int) -> None:
        names = presets.names(self.session.design.voice)
        self._edit(lambda d: presets.switched(d, names[place]))

    def _edit(self, edit: Any) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*edit(s.design)))

    # drawing ------------------------------------------------------------------------------

    @property
    def busy(self) -> bool:
        """Whether something on show still waits for the hand to rest."""
        page_busy = self.page is not None and self.page.busy
        return self._rest.running or self._below.running or page_busy

    def refresh(self) -> None:
        """The heart follows every move, what stands below a little later."""
        self._draw_heart()
        self._slow.start()

    def _draw_heart(self) -> None:
        if self.view == "cross":
            self._rest.start([self.views_by_key["cross"].refresh], lambda _: None)
        else:
            self.views_by_key[self.view].refresh()
        if self.view == "sum":
            places = self._places()
            own = self.session.design.voice.channels
            shown = min(self.chosen[0], len(own) - 1)
            band = next((p for p in places if has_handle(own[shown].blocks[p])), None)
            self.handles.show(shown, band)

    def _refresh_lower(self) -> None:
        a = self.session.assessment
        names = presets.names(a.design.voice)
        if [self.preset.itemText(k) for k in range(self.preset.count())] != names:
            self.preset.clear()
            self.preset.addItems(names)
        self.preset.setCurrentIndex(names.index(a.design.voice.preset))
        self.drop_preset.setEnabled(len(names) > 1)
        if self.lanes is not None:
            self.lanes.show_lanes(lanes(a), self.chosen)
            self.used.setText(filters_used(a.design))
            set_role(self.used, "bad" if too_many(a.design) else "hint")
        if self.side is not None:
            self._below.start([self.side.refresh], lambda _: None)
        if self.page is not None:
            self._below.start([self.page.refresh], lambda _: None)

    def field(self, path: Path) -> QWidget | None:
        """The field of a figure; the card in which it stands is opened first."""
        if path[:2] == ("voice", "channels") and len(path) > 3 and self.isVisible():
            channel = int(path[2])
            curves = path[3] == "response"
            self.work = "curves" if curves else "lanes"
            self.chosen = (channel, "way" if curves else self._key_of(channel, path[3:]))
            self._renew()
        return super().field(path)

    def _key_of(self, channel: int, rest: Path) -> str:
        if rest[0] == "blocks":
            own = self.session.design.voice.channels[channel]
            start = next((p[0] for p in grouped(own) if int(rest[1]) in p), 0)
            return f"block-{start}"
        keys = {"gain": "level", "inverted": "level", "delay": "delay"}
        return "limiter" if str(rest[0]).startswith("limiter") else keys.get(str(rest[0]), "way")


def _family(block: Any) -> Any:
    """What of a block decides which fields its card has."""
    return getattr(block, "order", None) if block.kind in ("own_crossover",) else None
