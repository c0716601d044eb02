"""Size: volume, tuning and travel are one decision."""

from functools import partial
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.rest import Coalesced, Rest
from firecrest.app.session import Session
from firecrest.app.stages.base import Stage, buttons, column, columns, numbers
from firecrest.app.stages.size.case_fields import CASE
from firecrest.app.stages.size.element_menu import open_menu, remove
from firecrest.app.stages.size.fields import owner_rows, owner_title
from firecrest.app.stages.size.map_panel import MapPanel
from firecrest.app.stages.size.picture import BoxPicture
from firecrest.app.stages.size.port_picker import PortPicker
from firecrest.app.stages.size.starts_page import StartsPage
from firecrest.app.stages.views import SIZE
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import CalmCombo, Segments, labelled
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import label
from firecrest.app.widgets.played_field import PlayedField
from firecrest.assessment.motion import PROMISE, Played
from firecrest.design.box import Port, placed
from firecrest.design.edits.paths import Path
from firecrest.present.plot import ceiling, plots, views
from firecrest.present.plot.plot import Plot
from firecrest.present.size import boxes, consequences
from firecrest.present.size.boxes import LAYOUT_WORDS
from firecrest.present.size.facts import Fact, facts
from firecrest.present.size.openings import opening_name, owner_kind
from firecrest.proposals.layouts import LAYOUTS, kind_of, layout_of
from firecrest.proposals.recalling import switched_layout

SUBTITLES = {
    "ceiling": "loudest clean level at the listener, and the part that gives first",
    "map": "every combination of two figures, same parts",
    "response": "the sum and each source, against the mean of the band",
    "travel": "each moving part, against its own limit",
    "impedance": "load on one amplifier output, its peaks named",
    "delay": "of the sum, against frequency",
    "pressure": "peak, in each chamber",
    "ports": "length against area, what fits and what is quiet",
}
RANGED = ("ceiling", "response")
PLAYED = ("travel", "pressure", "response")
"""Views that depend on what is played."""
FIRST: Path = ("box", "chambers", 0)
SMALL_PLOTS = 2


class SizeStage(Stage):
    """Views over the picture of the box, the fields of what is selected, and what follows."""

    key, title, subtitle = "size", "Size", "how much air, tuned where"

    def __init__(self, session: Session) -> None:
        self._view, self._full = "ceiling", False
        self.selected: Path = FIRST
        self._starting = False
        self._played = PROMISE
        self._slow: list[Fact] = []
        super().__init__(session)

    def build_heart(self) -> None:
        self.views = Segments(SIZE, "Plot")
        self.views.setProperty("compact", "true")
        self.views.choose(self._view)
        self.views.chosen.connect(self.show_view)
        self.bar.addWidget(self.views)
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 2, 0, 0)
        box.setSpacing(2)
        head = QHBoxLayout()
        head.setSpacing(10)
        self._name = label("Ceiling", "section")
        self._what = label("", "second")
        self.range = Segments((("bass", "Bass"), ("full", "Full range")), "Range")
        self.range.choose("bass")
        self.range.chosen.connect(self._choose_range)
        self.played = PlayedField(self.session)
        self.played.chosen.connect(self._play)
        head.addWidget(self._name)
        head.addWidget(self._what)
        head.addStretch(1)
        head.addWidget(self.played)
        head.addWidget(self.range)
        box.addLayout(head)
        self.chart = Chart(self.session, height=200)
        box.addWidget(self.chart, 1)
        self.map = MapPanel(self.session)
        self.map.hide()
        box.addWidget(self.map, 1)
        self._note = label("", "hint")
        box.addWidget(self._note)
        self.ports = PortPicker(self.session, self.chart, self.refresh)
        self.later = Rest(self)
        self._after = Coalesced(self, self._refresh_box)
        self.splitter.setSizes([320, 260])
        self.splitter.setStretchFactor(0, 6)
        self.splitter.setStretchFactor(1, 4)

    def show_view(self, view: object) -> None:
        """Show another view in the heart."""
        self._view = str(view)
        self.views.choose(self._view)
        mapped = self._view == "map"
        self.chart.setVisible(not mapped)
        self.map.setVisible(mapped)
        self.map.begin() if mapped else self.map.stop()
        self.ports.show_port(self._port_place() if self._view == "ports" else None)
        self.refresh()

    def _play(self, played: object) -> None:
        assert isinstance(played, Played)
        self._played = played
        self.refresh()

    def _choose_range(self, which: object) -> None:
        self._full = which == "full"
        self.refresh()

    # what is selected ------------------------------------------------------------

    def select(self, owner: Path) -> None:
        """Show the fields of a room or element of the picture."""
        self.selected = owner
        if self._view == "ports":
            self.ports.show_port(self._port_place())
        self._changed()

    def _port_place(self) -> int:
        """The port selected, or the first one."""
        if owner_kind(self.session.design, self.selected) == "port":
            return int(self.selected[2])
        ports = placed(self.session.design.box.openings, Port)
        return ports[0][0] if ports else 0

    def reveal(self, path: Path) -> bool:
        """Select what owns the field of ``path`` first."""
        owner = boxes.owner_of(path)
        if owner is not None and self.isVisible() and self.session.has(owner):
            self._starting = False
            self.select(owner)
        return super().reveal(path)

    def structure(self) -> Any:
        box = self.session.design.box
        if not self.session.has(self.selected):
            self.selected = FIRST
        return (
            self._starting,
            self.selected,
            tuple(kind_of(self.session.design, k) for k in range(len(box.chambers))),
            tuple((c.id, c.name) for c in box.chambers),
            tuple((g.driver.name, g.pair, g.chamber) for g in box.groups),
            tuple((opening_name(o), getattr(o, "shape", "")) for o in box.openings),
            tuple(item.name for item in box.case.contents),
        )

    # the lower part --------------------------------------------------------------

    def build_lower(self) -> QWidget:
        self.later.stop()
        self._after.stop()
        self.travel: list[tuple[Chart, QWidget]] = []
        self.starts: StartsPage | None = None
        if self._starting:
            self.starts = StartsPage(self.session, self._back_button)
            self.starts.left.connect(self.close_starts)
            return self.starts
        rows = owner_rows(self.session, self.selected, self.show_view)
        title = owner_title(self.session.design, self.selected)
        return columns(self._box_column(), column(title, "", *rows), self._follows_column())

    def _back_button(self) -> QPushButton:
        back = QPushButton("← Box")
        back.clicked.connect(self.close_starts)
        return back

    def open_starts(self) -> None:
        """Offer sensible starts instead of the fields."""
        self._starting = True
        self._changed()

    def close_starts(self) -> None:
        """Back to the picture and the fields."""
        self._starting = False
        self.session.drop_trial()
        self._changed()

    def _box_column(self) -> QWidget:
        self.layouts = CalmCombo()
        self.layouts.setAccessibleName("Layout of the box")
        self._layout_keys = list(LAYOUTS)
        self.layouts.addItems([LAYOUT_WORDS[key] for key in LAYOUTS])
        self.layouts.activated.connect(self._choose_layout)
        self.picture = BoxPicture()
        self.picture.chosen.connect(self.select)
        self.picture.ended.connect(partial(remove, self.session))
        self.picture.offered.connect(
            lambda path, spot: open_menu(self.session, path, self.picture, spot)
        )
        case = ("box", "case")
        sizes = numbers(self.session, *((*case, n) for n in ("length", "height", "depth", "wall")))
        return column(
            "Box",
            "select a part of it",
            labelled("Layout", self.layouts),
            self.picture,
            buttons(("Sensible starts…", self.open_starts), ("Case…", lambda: self.select(CASE))),
            *sizes,
        )

    def _choose_layout(self, place: int) -> None:
        key = self._layout_keys[place]
        self.session.attempt(
            lambda: self.session.apply(
                f"Layout: {LAYOUT_WORDS[key]}",
                switched_layout(self.session.design, key, self.session.past_designs()),
            )
        )
        self._show_layout()

    def _show_layout(self) -> None:
        key = layout_of(self.session.design)
        self.layouts.setCurrentIndex(-1 if key is None else self._layout_keys.index(key))

    def _follows_column(self) -> QWidget:
        self.facts = FactRows()
        rows: list[QWidget] = [self.facts]
        for plot in self._small_plots(self.session.assessment):
            chart = Chart(self.session, height=92)
            title = label(plot.name, "second")
            rows += [title, chart]
            self.travel.append((chart, title))
        rows.append(label("Below the bass note: a held low note.", "hint"))
        return column("What follows", "at the promise", *rows)

    def _small_plots(self, assessment: Any) -> list[Plot]:
        """Travel of what is selected; of the first parts when a chamber is."""
        found = plots.travel_plots(assessment, self.selected)
        return found[:SMALL_PLOTS]

    # drawing ---------------------------------------------------------------------

    def refresh(self) -> None:
        """Draw heart, picture, facts and travel, with ghosts of what is tried."""
        session = self.session
        if self._view == "map":
            self._show_map_head()
            return
        plot = self._plot(session.assessment)
        ghost = self._plot(session.ghost) if session.ghost and self._view != "ports" else None
        self._name.setText(plot.name)
        self._what.setText(SUBTITLES[self._view])
        self.range.setVisible(self._view in RANGED)
        self.played.setVisible(self._view in PLAYED)
        self._note.setText("  ".join(plot.notes))
        self.chart.show_plot(plot, ghost)
        if not self._starting:
            self._after.start()

    def _show_map_head(self) -> None:
        self._name.setText("Map")
        self._what.setText(SUBTITLES["map"])
        self.range.hide()
        self.played.hide()
        self._note.setText("Each point is assessed; the cross is a real design.")
        if not self._starting:
            self._after.start()

    def leave(self) -> None:
        self.map.stop()

    def _refresh_box(self) -> None:
        session = self.session
        if not self.isVisible() or not session.has(self.selected):
            return  # another design came meanwhile; the stage is drawn anew when it is seen
        self._show_layout()
        self.picture.show_picture(boxes.picture(session.assessment), self.selected)
        tried = self._small_plots(session.ghost) if session.ghost else []
        for k, plot in enumerate(self._small_plots(session.assessment)):
            if k < len(self.travel):
                chart, title = self.travel[k]
                title.setText(plot.name)  # type: ignore[attr-defined]
                chart.show_plot(plot, tried[k] if k < len(tried) else None)
        if session.trial is None:
            self._follow()

    def _follow(self) -> None:
        """Quick facts now, slow ones once the hand rests; older slow ones go."""
        quick = facts(self.session.assessment, self.selected)
        self._slow = []
        self.facts.show_facts(quick)

        def _more(found: object) -> None:
            assert isinstance(found, list)
            self._slow += found
            self.facts.show_facts([*quick, *self._slow])

        self.later.start(consequences.jobs(self.session.assessment, self.selected), _more)

    def _plot(self, assessment: Any) -> Plot:
        at = self.session.frequency
        if self._view == "response":
            return views.response_plot(
                assessment, full=self._full, frequency=at, played=self._played
            )
        if self._view == "ports":
            return self.ports.plot()
        if self._view == "ceiling":
            return ceiling.ceiling_plot(assessment, full=self._full, frequency=at)
        if self._view in PLAYED:
            plot = {"travel": views.travel_plot, "pressure": views.pressure_plot}[self._view]
            return plot(assessment, at, self._played)
        return {"impedance": views.impedance_plot, "delay": views.delay_plot}[self._view](
            assessment, at
        )
