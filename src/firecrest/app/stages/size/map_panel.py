"""The map of the Size stage with its axes, the cut, what stands at the cross, and good spots."""

from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from firecrest.app.rest import after
from firecrest.app.session import Session
from firecrest.app.stages.size.cut_view import CutView
from firecrest.app.stages.size.map_view import MapView
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import CalmCombo
from firecrest.app.widgets.marks import Mark
from firecrest.app.widgets.plain import label, tip
from firecrest.app.work import Task, advice
from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.present.frame.meters import mark_of
from firecrest.present.size import crossing, mapview
from firecrest.present.size.mapview import AXES, FILLS, share_of
from firecrest.present.text import words
from firecrest.proposals import mapping
from firecrest.proposals.mapping import Key, Map, axes_of, design_at
from firecrest.proposals.spots import Spot, spots

REST_MS, CROSS_MS = 150, 60
PROMISES = ("loudness", "bass", "runtime", "size", "weight", "cost")


class MapPanel(QWidget):
    """A map of the present design over two of its figures; nothing is asked while it is hidden."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._map: Map | None = None
        self._of: Design | None = None
        self._asked: Design | None = None
        self._at: tuple[float, float] | None = None
        self._reason = ""
        self._worth: list[Spot] = []
        self._task = Task(self, advice)
        self._task.some.connect(self._take)
        self._task.failed.connect(self._fail)
        self._moved = Task(self, advice)
        self._moved.some.connect(self._take_moved)
        self._own: Design | None = None
        self._rest = after(self, REST_MS, self._start)
        self._crossing = after(self, CROSS_MS, self._try)
        self._build()
        session.changed.connect(self._changed)
        session.tried.connect(self._tried)

    def _build(self) -> None:
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(3)
        line = QHBoxLayout()
        line.setSpacing(6)
        self.across, self.up, self.fill = CalmCombo(), CalmCombo(), CalmCombo()
        for name, combo in (("across", self.across), ("up", self.up), ("filled by", self.fill)):
            line.addWidget(label(name, "hint"))
            combo.setAccessibleName(f"Map {name}")
            line.addWidget(combo)
        for key in FILLS:
            self.fill.addItem(mapview.fill_name(key), key)
        line.addStretch(1)
        self._legend = label("", "second")
        line.addWidget(self._legend)
        whole.addLayout(line)
        row = QHBoxLayout()
        row.setSpacing(8)
        self.view, self.cut = MapView(), CutView()
        row.addWidget(self.view, 1)
        row.addWidget(self.cut)
        row.addWidget(self._card())
        whole.addLayout(row, 1)
        fix(self, least_height=320)
        self.view.crossed.connect(lambda *_: self._crossing.start())
        self.view.taken.connect(self.go)
        self.view.dropped.connect(self._drop)
        for combo in (self.across, self.up):
            combo.currentIndexChanged.connect(lambda _: self._axes_chosen())
        self.fill.currentIndexChanged.connect(lambda _: self._draw())

    def _card(self) -> QWidget:
        card = QWidget()
        fix(card, width=170)
        box = QVBoxLayout(card)
        box.setContentsMargins(0, 4, 0, 0)
        box.setSpacing(2)
        box.addWidget(label("At the cross", "section"))
        self._where = label("", "figure")
        self._where.setWordWrap(True)
        box.addWidget(self._where)
        self._rows: dict[str, tuple[Mark, QLabel]] = {}
        for key in PROMISES:
            line = QHBoxLayout()
            mark, value = Mark("none", 10), label("")
            line.addWidget(mark)
            line.addWidget(label(words.PROMISE_NAMES[key]))
            line.addStretch(1)
            line.addWidget(value)
            self._rows[key] = (mark, value)
            box.addLayout(line)
        self._takes = label("", "second")
        self._takes.setWordWrap(True)
        fix(self._takes, least_height=34)
        box.addWidget(self._takes)
        self.there = QPushButton("Go there")
        tip(self.there, "Make this the design; Enter on the map does the same")
        self.there.clicked.connect(lambda _=False: self.go())
        box.addWidget(self.there)
        self._spots: list[QPushButton] = []
        for place in range(3):
            button = QPushButton()
            button.clicked.connect(lambda _=False, k=place: self._to_spot(k))
            button.setProperty("compact", "true")
            self._spots.append(button)
            box.addWidget(button)
        box.addStretch(1)
        return card

    # asking -----------------------------------------------------------------------------

    @property
    def busy(self) -> bool:
        """Whether a map is still being worked out."""
        return self._rest.isActive() or self._task.running or self._crossing.isActive()

    def begin(self) -> None:
        """The map comes on show."""
        self._offer_axes()
        self._changed()

    def stop(self) -> None:
        """It leaves the show: nothing goes on, nothing stays tried."""
        self._task.stop()
        self._moved.stop()
        self._rest.stop()
        self._crossing.stop()
        self.session.drop_trial()

    def _changed(self) -> None:
        if not self.isVisible():
            return
        self._offer_axes()
        design = self.session.design
        if design is self._of and self._map is not None:
            self._draw()
            return
        self._task.stop()
        self._crossing.stop()
        if self._map is not None:
            self.view.show_old()
        if self.session.assessment.acoustic is None:
            self._map = None
            self.view.message = "A map needs a box that can be heard: see what is missing."
            self._draw()
            return
        self.view.message = "being worked out…"
        self._rest.start()

    def _offer_axes(self) -> None:
        """What this design can be mapped over; the chosen ones stay where they can."""
        keys = axes_of(self.session.design)
        for combo, first in ((self.across, "air"), (self.up, "tuning")):
            now = combo.currentData() or first
            offered = [combo.itemData(k) for k in range(combo.count())]
            if offered == keys:
                continue
            combo.blockSignals(True)
            combo.clear()
            for key in keys:
                combo.addItem(AXES[key][0], key)
            other = self.across.currentData() if combo is self.up else None
            wanted = now if now in keys and now != other else next(k for k in keys if k != other)
            combo.setCurrentIndex(keys.index(wanted))
            combo.blockSignals(False)

    def _axes_chosen(self) -> None:
        if self.across.currentData() == self.up.currentData():
            keys = [self.up.itemData(k) for k in range(self.up.count())]
            other = next(k for k, key in enumerate(keys) if key != self.across.currentData())
            self.up.setCurrentIndex(other)
            return
        self._of, self._map, self._at = None, None, None
        self.session.drop_trial()
        self._changed()
        self._draw()

    def _start(self) -> None:
        self._asked = self.session.design
        across, up = self.across.currentData(), self.up.currentData()
        self._task.start(mapping.maps, self._asked, across, up)

    def _take(self, found: Map) -> None:
        if self._asked is not self.session.design:
            return
        if found.across.key != self.across.currentData() or found.up.key != self.up.currentData():
            return
        self._map, self._of = found, self._asked
        self._draw()

    def _fail(self, reason: str) -> None:
        self._map = None
        self.view.message = reason.strip().split("\n")[-1]
        self._draw()

    # drawing ----------------------------------------------------------------------------

    def _draw(self) -> None:
        found = self._map
        if found is None or self._of is not self.session.design:
            if found is None:
                self.view.show_map(None, ())
                self.cut.show_cut(None, 0.5)
            return
        self._offer_fills(found)
        shown = mapview.picture(found, self.session.assessment, self.fill.currentData())
        self.view.show_map(shown, self._discs(found))
        ends = f"from {shown.legend[0]} to {shown.legend[-1]}" if shown.legend else ""
        self._legend.setText(ends)
        if self._at is None:
            x, y = crossing.present_at(found, self.session.design)
            self.view.set_cross(share_of(found.across, x), share_of(found.up, y))
        self._show_cut()
        self._show_spots(found)
        self._show_card()

    def _offer_fills(self, found: Map) -> None:
        """Promises, and every limit that this map knows."""
        keys, chosen = mapview.fills_of(found), self.fill.currentData()
        if [self.fill.itemData(k) for k in range(self.fill.count())] == keys:
            return
        self.fill.blockSignals(True)
        self.fill.clear()
        for key in keys:
            self.fill.addItem(mapview.fill_name(key), key)
        self.fill.setCurrentIndex(keys.index(chosen) if chosen in keys else 0)
        self.fill.blockSignals(False)

    def _discs(self, found: Map) -> list[tuple[float, float, str, bool]]:
        session = self.session
        discs: list[tuple[float, float, str, bool]] = []
        for variant in session.project.variants:
            design = session.design_at(variant.letter)
            try:
                x, y = crossing.present_at(found, design)
            except FirecrestError:
                continue
            place = (share_of(found.across, x), share_of(found.up, y))
            if all(0 <= share <= 1 for share in place):
                here = variant.letter == session.project.in_force
                discs.append((*place, variant.letter, here))
        return discs

    def _show_cut(self) -> None:
        found, cross = self._map, self.view.cross
        if found is not None and cross is not None:
            x = found.across.low + cross[0] * (found.across.high - found.across.low)
            self.cut.show_cut(crossing.cut_at(found, self.session.assessment, x), cross[1])

    def _show_spots(self, found: Map) -> None:
        worth = self._worth = spots(found)
        for k, button in enumerate(self._spots):
            button.setVisible(k < len(worth))
            if k < len(worth):
                title, where = crossing.spot_text(found, worth[k])
                button.setText(f"{title.split()[0]}: {where}")
                button.setAccessibleName(f"{title}: {where}")
                tip(button, f"{title}\n{where}, worst promise {worth[k].worst:+.1f} dB")

    def _to_spot(self, place: int) -> None:
        spot = self._worth[place]
        self.point_at(spot.x, spot.y)

    def point_at(self, x: float, y: float) -> None:
        """Put the cross at two values, and try it."""
        found = self._map
        if found is not None:
            self.view.set_cross(share_of(found.across, x), share_of(found.up, y))
            self._crossing.start()

    # the cross ---------------------------------------------------------------------------

    def _wanted(self) -> dict[Key, float] | None:
        found, cross = self._map, self.view.cross
        if found is None or cross is None:
            return None
        values = {}
        for axis, share in ((found.across, cross[0]), (found.up, cross[1])):
            values[axis.key] = axis.low + share * (axis.high - axis.low)
        return values

    def _try(self) -> None:
        """The real design at the cross, as a ghost."""
        wanted = self._wanted()
        if wanted is None or self._of is not self.session.design:
            return
        self._at = self.view.cross
        self._show_cut()
        try:
            made = design_at(self.session.design, wanted)
        except FirecrestError as error:
            self._reason = str(error)
            self.session.drop_trial()
            self._show_card()
            return
        self._reason = ""
        self._own = made
        self.session.try_design(made)
        self._show_card()

    def _tried(self) -> None:
        """Something is tried: by the cross, or a move, which moves the line of loudness."""
        self._show_card()
        trial, found = self.session.trial, self._map
        self._moved.stop()
        self.view.show_moved(())
        if found is None or trial is None or trial.design is self._own or not self.isVisible():
            return
        axes = (found.across.key, found.up.key)
        if set(axes) <= set(axes_of(trial.design)):
            self._moved.start(mapping.moved_map, trial.design, found.across, found.up)

    def _take_moved(self, tried: Map) -> None:
        """Where loudness is kept with what is tried."""
        if self.session.trial is not None:
            self.view.show_moved(mapview.loudness_lines(tried, self.session.trial))

    def _show_card(self) -> None:
        """What stands at the cross."""
        found = self._map
        if found is None or not self.isVisible():
            return
        trial, wanted = self.session.trial, self._wanted()
        shown = trial or self.session.assessment
        if wanted is not None and (trial is not None or self._reason):
            x, y = wanted[found.across.key], wanted[found.up.key]
        else:
            x, y = crossing.present_at(found, self.session.design)
        self._where.setText(crossing.where(found, x, y))
        for promise in shown.promises:
            mark, value = self._rows[promise.key]
            mark.set_state("none" if self._reason else mark_of(promise))
            unit = words.promise_unit(promise.key, shown.design).unit
            unit = "" if unit == "€" else f" {unit}"
            value.setText("–" if self._reason else words.numeral(promise, shown.design) + unit)
        self._takes.setText(self._reason or crossing.takes(self.session.design, shown.design))
        self.there.setEnabled(trial is not None)

    def _drop(self) -> None:
        """The cross goes back to the present design."""
        self._at, self._reason = None, ""
        self.session.drop_trial()
        self._draw()

    def go(self) -> None:
        """Make the design at the cross the present one."""
        self._crossing.stop()
        self._try()
        found, trial, wanted = self._map, self.session.trial, self._wanted()
        if found is None or trial is None or wanted is None:
            return
        x, y = wanted[found.across.key], wanted[found.up.key]
        self._at = None
        self.session.apply(f"Go to {crossing.where(found, x, y)}", trial.design)
