"""Cabinet: net volume, weight and fit come from one drawing."""

from functools import partial
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from firecrest.app.rest import Rest
from firecrest.app.stages.base import Stage, buttons, column, columns, number
from firecrest.app.stages.cabinet import fields, fitted
from firecrest.app.stages.cabinet.filling import Filling
from firecrest.app.stages.cabinet.ledger_view import LedgerView
from firecrest.app.stages.cabinet.outputs import save_drawing
from firecrest.app.stages.cabinet.pieces_page import PiecesPage
from firecrest.app.stages.cabinet.sheet_view import SheetCanvas
from firecrest.app.stages.cabinet.solid_view import SolidPage
from firecrest.app.stages.size.rows import do
from firecrest.app.stages.views import CABINET
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import Segments
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.pages import Pages
from firecrest.app.widgets.plain import label, paragraph, tip
from firecrest.assessment.cabinet.drawing import drawing_of, drawing_of_design
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.design.design import Design
from firecrest.design.edits.cabinet import placed_paths, without_places
from firecrest.design.edits.paths import Path
from firecrest.present.cabinet.ledger import ledger_rows, measured_note
from firecrest.present.cabinet.sheet import sheet_views
from firecrest.present.cabinet.tight import (
    balance_facts,
    card_facts,
    lead_facts,
    panel_facts,
    tight_facts,
)
from firecrest.present.frame.bindings import air_volume
from firecrest.present.size.facts import Fact
from firecrest.proposals.parting import unparted
from firecrest.proposals.shaping import golden
from firecrest.proposals.siting import faced, loose_paths, placed_all

UNPLACED_FACT = Fact("Nothing has a place yet:", "press Place everything")
UNPLACED = "Nothing has a place yet: drawn where it might go. Openings are not counted."


class CabinetStage(Stage):
    """The drawing beside the ledger, over the fields of the case and what is tight."""

    key, title, subtitle = "cabinet", "Cabinet", "outside in: what fits, what eats the air"

    def build_heart(self) -> None:
        self.selected: Path | None = None
        self._view = "drawing"
        self._rest = Rest(self)
        self.views = Segments(CABINET, "View")
        self.views.choose(self._view)
        self.views.chosen.connect(self.show_view)
        save = QPushButton("Save drawing…")
        save.clicked.connect(self._save)
        tip(save, "Front, end and plan as a page (PDF), drawing (SVG) or picture (PNG)")
        self.bar.addWidget(save)
        self.bar.addWidget(self.views)
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 2, 0, 0)
        self.pages = Pages()
        box.addWidget(self.pages)
        self.sheet = SheetCanvas(self.session)
        self.sheet.chosen.connect(self.select)
        self.ledger = LedgerView(self.session)
        drawing = QWidget()
        row = QHBoxLayout(drawing)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(14)
        row.addWidget(self.sheet, 1)
        side = QScrollArea()
        side.setObjectName("scroll")
        side.setWidgetResizable(True)
        side.setFrameShape(QScrollArea.Shape.NoFrame)
        side.setWidget(self.ledger)
        fix(side, width=208)
        row.addWidget(side)
        self.pages.addWidget(drawing)
        self.solid, self.pieces = SolidPage(self.session), PiecesPage(self.session)
        self.pages.addWidget(self.solid)
        self.pages.addWidget(self.pieces)
        self.splitter.setSizes([430, 190])

    def _save(self) -> None:
        title = f"{self.session.design.name}: cabinet"
        save_drawing(self.session, self.window(), self.sheet.picture(title))

    def show_view(self, view: object) -> None:
        """Show the drawing, the case in the round, or the pieces."""
        self._view = str(view)
        self.views.choose(view)
        self.pages.setCurrentIndex([key for key, _ in CABINET].index(str(view)))
        self.refresh()

    def select(self, path: object) -> None:
        """Show the place of a part."""
        assert isinstance(path, tuple)
        if path != self.selected:
            self.selected = path
            self._changed()

    def reveal(self, path: Path) -> bool:
        """A place is shown with its part chosen."""
        if self.isVisible() and path[:-1] in placed_paths(self.session.design):
            self.select(path[:-1])
        return super().reveal(path)

    def structure(self) -> Any:
        design = self.session.design
        case = design.box.case
        shape = case.shape
        if self.selected is not None and self.selected not in placed_paths(design):
            self.selected = None
        return (
            self.selected,
            shape.kind,
            getattr(shape, "edges", ""),
            len(getattr(shape, "corners", ())),
            len(getattr(shape, "profile", ())),
            _joints(shape),
            tuple((b.name, b.divider, b.form, b.axis) for b in case.braces),
            tuple((b.id, b.name, b.holds, b.vent > 0) for b in case.inner),
            tuple((f.id, f.name, f.round) for f in case.fittings),
            (case.feet is None, case.printing is None, case.grille is None),
            (bool(loose_paths(design)), tuple(unparted(design))),
            bool(placed_paths(design)),
            tuple((c.name, c.stated_volume is None) for c in design.box.chambers),
        )

    def build_lower(self) -> QWidget:
        session = self.session
        self._rest.stop()
        self.tight, self.balance, self.panels = FactRows(), FactRows(), FactRows()
        outside = column(
            "Outside",
            "",
            *fields.outside_rows(session, number(session, air_volume())),
            buttons(("Golden proportions", partial(do, session, golden))),
        )
        middle = column(
            "Place",
            "",
            self._placing(),
            *self._parting(),
            *fields.place_rows(session, self.selected),
            label("Add", "section"),
            fitted.adding_buttons(session),
            *fitted.fitted_rows(session),
            label("Panels", "section"),
            *fields.panel_rows(session),
        )
        last = column(
            "Tight spots",
            "",
            self.tight,
            label("Balance", "section"),
            self.balance,
            label("First resonance of the panels", "section"),
            self.panels,
            label("Measure the air by filling it", "section"),
            Filling(session),
        )
        return columns(outside, middle, last)

    def _placing(self) -> QWidget:
        """Give places, or take them back."""
        actions = []
        if loose_paths(self.session.design):
            actions.append(("Place everything", partial(do, self.session, _placed)))
        if placed_paths(self.session.design):
            actions.append(("Take places back", partial(do, self.session, without_places)))
        return buttons(*actions)

    def _parting(self) -> list[QWidget]:
        """What waits for a divider to stand on."""
        names = unparted(self.session.design)
        if not names:
            return []
        said = f"{' and '.join(names)} sounds into another chamber: it has its place on a divider. "
        return [paragraph(f"{said}Add one.")]

    @property
    def busy(self) -> bool:
        """Whether something on show still waits for the hand to rest."""
        return self._rest.running

    def refresh(self) -> None:
        """Draw the sheet at once; sentences and pieces at rest."""
        a = self.session.assessment
        if self._view == "drawing":
            self._draw()
            note = measured_note(a)
            if not a.cabinet.placed:
                note = UNPLACED
            self.ledger.show_rows(ledger_rows(a), note)
        else:
            (self.solid if self._view == "solid" else self.pieces).refresh()
        self._rest.start([self._refresh_facts], lambda _: None)

    def _draw(self) -> None:
        """The sheet; where nothing has a place, as it might look."""
        a = self.session.assessment
        drawing = drawing_of(a)
        placed = a.cabinet.placed
        if not placed:
            drawing = drawing_of_design(faced(a.design))
        spots = spots_in(a) if placed else ()
        views = sheet_views(a, drawing, spots)
        self.sheet.show_views(views, drawing, self.selected, placed=placed)
        self.sheet.show_card(card_facts(drawing, spots) if placed else [UNPLACED_FACT])

    def _refresh_facts(self) -> None:
        a = self.session.assessment
        drawing = drawing_of(a)
        self.tight.show_facts([*tight_facts(spots_in(a)), *lead_facts(a, drawing)])
        self.balance.show_facts(balance_facts(a, drawing))
        self.panels.show_facts(panel_facts(drawing))


def _placed(design: Design) -> tuple[str, Design]:
    return "Place everything", placed_all(design)


def _joints(shape: Any) -> tuple[str, ...]:
    joints = getattr(shape, "joints", None)
    return () if joints is None else tuple(j.type for j in (joints.ring, joints.front, joints.back))
