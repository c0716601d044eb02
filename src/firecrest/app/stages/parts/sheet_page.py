"""One part's sheet: contradictions first, figures, what follows, what is missing, its curves."""

import contextlib
from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QLineEdit, QPushButton, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import below, column, columns, grid_of
from firecrest.app.stages.parts.bands import Band, dispute_band
from firecrest.app.stages.parts.curve_view import CurveView
from firecrest.app.stages.parts.extras import extras, large_travel
from firecrest.app.stages.parts.figures import FigureRow
from firecrest.app.stages.parts.fit_view import fit_widgets
from firecrest.app.stages.parts.paste_panel import PastePanel
from firecrest.app.stages.parts.subject import Subject
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import bound_combo, bound_text, labelled
from firecrest.app.widgets.plain import caution, label, markup, rich_label, tip
from firecrest.core.curve_text import CurvePoints, read_curve
from firecrest.core.errors import FirecrestError
from firecrest.design.amplifiers import Amplifier, BoardPart
from firecrest.design.curve import CurveOf
from firecrest.design.design import Design
from firecrest.design.edits.curves import curve_of
from firecrest.design.edits.paths import Path, replace_at, value_at
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.sources import WallSupply
from firecrest.present.parts import datasheet, parts, updates
from firecrest.present.parts.pasting import Offer, taken
from firecrest.present.plot.curves import impedance_picture, response_picture
from firecrest.present.power import power
from firecrest.present.power.cautions import part_caution
from firecrest.shelf.entry import LONGEST_NOTE

DRIVER_KINDS = [
    (k, k) for k in ("full range", "woofer", "subwoofer", "midrange", "tweeter", "horn tweeter")
]
TRAVEL_BY = (("geometric", "geometry"), ("distortion", "distortion"))
WIRED = (("series", "series"), ("parallel", "parallel"))
OF_KIND = {
    Amplifier: [(k, k) for k in ("board", "plate", "headphone output", "phone output")],
    WallSupply: power.FORMS,
}
FINS = (("none", "it has none"), ("length", "along its length"), ("width", "along its width"))
GAPS_SHOWN = 7


class Filled(QWidget):
    """A place whose widgets are replaced together."""

    def __init__(self) -> None:
        super().__init__()
        self._box = QVBoxLayout(self)
        self._box.setContentsMargins(0, 0, 0, 0)
        self._box.setSpacing(6)
        self.widgets: list[QWidget] = []

    def fill(self, widgets: Sequence[QWidget]) -> None:
        """Other widgets in place of those there were."""
        for old in self.widgets:
            self._box.removeWidget(old)
            old.hide()
            old.deleteLater()
        self.widgets = list(widgets)
        for new in self.widgets:
            self._box.addWidget(new)
        self.setVisible(bool(self.widgets))


class SheetPage(QWidget):
    """The sheet of a subject; its fields stay through a refresh, so that one can go on typing."""

    def __init__(
        self, session: Session, subject: Subject, *, pasting: bool, paste: Callable[[bool], None]
    ) -> None:
        super().__init__()
        self.session, self.subject, self.editing = session, subject, subject.editing
        self._paste = paste
        self.panel: PastePanel | None = None
        self.guess: QPushButton | None = None
        self.dispute: datasheet.Dispute | None = None
        self.impedance = self._chart("Impedance in free air", 164)
        self.response = self._chart("Measured response", 150)
        self.rows: list[FigureRow] = []
        self._bands, self._follows, self._gaps = Filled(), Filled(), Filled()
        self._fit = Filled()
        self._facts: tuple[object, ...] = ()
        self._measured: CurvePoints | None = None
        self.curve_views: dict[CurveOf, CurveView] = {}
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 2, 8, 4)
        box.setSpacing(8)
        box.addWidget(self._bands)
        box.addWidget(columns(*self._figure_columns()))
        box.addWidget(self._lower(pasting))
        box.addStretch(1)
        self.refresh()

    def _chart(self, name: str, height: int) -> Chart:
        chart = Chart(self.session, height=height)
        fix(chart, height=height)
        chart.setAccessibleName(name)
        return chart

    def refresh(self) -> None:
        """Everything that follows from the figures; nothing when they are as they were."""
        part = self.subject.part
        entry = self.subject.entry
        facts = (part, entry.revision if entry else 0)
        if not self._facts or part is not self._facts[0] or facts[1:] != self._facts[1:]:
            self._facts = facts
            self._measured = _points(part, "impedance")
            self._fit.fill(fit_widgets(self.editing, self.subject.path, part, self._measured))
            self._refresh_part(part)
        if isinstance(part, DriverPart):
            trial = self.editing.trial
            ghost = None
            if trial is not None:
                tried = value_at(trial.design, self.subject.path)
                ghost = impedance_picture(tried, None) if isinstance(tried, DriverPart) else None
            self.impedance.show_plot(impedance_picture(part, self._measured), ghost)

    def _refresh_part(self, part: object) -> None:
        self.dispute = datasheet.dispute(self.editing.assessment, self.subject.path)
        self._bands.fill(self._band_widgets())
        for view in self.curve_views.values():
            view.refresh()
        doubted = self.dispute.figures if self.dispute else ()
        for row in self.rows:
            row.set_doubted(row.name in doubted)
        self._follows.fill(self._follows_widgets(part))
        if isinstance(part, DriverPart):
            self._coils.setEnabled(part.coils == 2)
        if isinstance(part, DriverPart | RadiatorPart):
            self._gaps.fill([self._missing()])
        if isinstance(part, DriverPart):
            self.response.show_plot(response_picture(_points(part, "response")))

    # first what needs a decision ------------------------------------------------

    def _band_widgets(self) -> list[QWidget]:
        found: list[QWidget] = []
        news = self._update()
        if news is not None:
            found.append(
                Band(
                    news.sentence,
                    "The design keeps its own copy until you take the shelf's figures.",
                    [
                        ("Take the shelf's figures", "", lambda: self._apply(updates.taken, news)),
                        ("Keep mine", "", lambda: self._apply(updates.kept, news)),
                    ],
                )
            )
        if self.dispute is not None:
            found.append(dispute_band(self.dispute, self.settle))
        care = part_caution(self.subject.part)
        if care:
            line = caution(care)
            found.append(line)
        return found

    def _update(self) -> updates.Update | None:
        if not self.subject.in_design:
            return None
        part = value_at(self.session.design, self.subject.path)
        return updates.update_of(part, self.subject.path, self.session.shelf.entries())

    def _apply(
        self, edit: Callable[[Design, updates.Update], tuple[str, Design]], news: updates.Update
    ) -> None:
        session = self.session
        session.attempt(lambda: session.apply(*edit(session.design, news)))

    def settle(self, number: int) -> None:
        """One of the ways out of the contradiction."""
        assert self.dispute is not None
        self._do(self.dispute.choices[number].edit)

    def _do(self, edit: datasheet.Edit) -> None:
        editing = self.editing
        editing.attempt(lambda: editing.apply(*edit(editing.design)))

    # figures ---------------------------------------------------------------------

    def _figures(self, paths: Sequence[Path]) -> list[QWidget]:
        rows = [FigureRow(self.editing, path) for path in paths]
        self.rows += rows
        return list(rows)

    def _figure_columns(self) -> list[QWidget]:
        groups = parts.figure_groups(self.editing.design, self.subject.path)
        made = [
            column(title, "likely range", *([] if k else self._naming()), *self._figures(paths))
            for k, (title, paths) in enumerate(groups[:2])
        ]
        return [*made, self._picture_column()]

    def _naming(self) -> list[QWidget]:
        path = self.subject.path
        name = bound_text(self.editing, (*path, "name"))
        fix(name, width=166)
        rows = [labelled("Name", name)]
        if path[-1] == "driver":
            rows.append(labelled("Kind", bound_combo(self.editing, (*path, "kind"), DRIVER_KINDS)))
            rows.append(labelled("Stated for coils in", self._stated_for()))
            basis = bound_combo(self.editing, (*path, "xmax_basis"), TRAVEL_BY)
            tip(basis, "Xmax by the overhang of the coil, or measured up to a distortion")
            rows.append(labelled("Travel stated by", basis))
        elif type(self.subject.part) in OF_KIND:
            forms = OF_KIND[type(self.subject.part)]
            rows.append(labelled("Form", bound_combo(self.editing, (*path, "form"), forms)))
        if isinstance(self.subject.part, BoardPart):
            fins = bound_combo(self.editing, (*path, "fins"), FINS)
            tip(fins, "In the case they want to stand upright, with 20 mm free above and below")
            rows.append(labelled("Cooling fins run", fins))
        if self.subject.entry is not None:
            rows.append(labelled("Note", self._note_field()))
        return rows

    def _stated_for(self) -> QWidget:
        """How the coils were wired when the figures were taken; of two coils only."""
        combo = bound_combo(self.editing, (*self.subject.path, "stated_for"), WIRED)
        tip(combo, "Re, Le, Bl and the Q of a driver with two coils hold for them wired so")
        self._coils = combo
        return combo

    def _note_field(self) -> QLineEdit:
        """What one wants to remember of the shelf's part."""
        note = QLineEdit()
        fix(note, width=166)
        note.setAccessibleName("Note")
        note.setMaxLength(LONGEST_NOTE)
        entry = self.subject.entry
        note.setText(entry.notes if entry else "")
        note.setCursorPosition(0)
        tip(note, note.text())
        note.editingFinished.connect(lambda: self.keep_note(note.text()))
        return note

    def keep_note(self, text: str) -> None:
        """Another note on the shelf's part."""
        entry = self.subject.entry
        if entry is not None and text != entry.notes:
            self.session.shelf.attempt(lambda shelf: shelf.mark(entry.id, notes=text))

    def _picture_column(self) -> QWidget:
        """Impedance, and what follows from the figures."""
        holder = QWidget()
        box = QVBoxLayout(holder)
        box.setContentsMargins(0, 0, 0, 0)
        if isinstance(self.subject.part, DriverPart):
            box.addWidget(self._pictured("Impedance", "impedance", self.impedance))
            box.addWidget(self._fit)
        else:
            for unused in (self.impedance, self._fit):
                unused.setParent(self)
                unused.hide()
        for extra in extras(self.editing, self.subject.part, self.subject.path):
            box.addWidget(extra)
        box.addWidget(self._follows)
        box.addStretch(1)
        return holder

    def _follows_widgets(self, part: object) -> list[QWidget]:
        facts = datasheet.derived(part)
        found: list[QWidget] = []
        if facts.rows:
            found.append(column("Follows from these", "", grid_of(_pairs(facts.rows))))
        for note in facts.notes:
            line = caution(note)
            found.append(line)
        return found

    def _pictured(self, title: str, what: CurveOf, chart: Chart) -> QWidget:
        """A chart under its title, with what can be done with the measured curve."""
        view = CurveView(self.editing, self.subject.path, what, title, chart)
        self.curve_views[what] = view
        return view

    # below ---------------------------------------------------------------------------

    def _lower(self, pasting: bool) -> QWidget:
        part = self.subject.part
        groups = parts.figure_groups(self.editing.design, self.subject.path)
        known = isinstance(part, DriverPart | RadiatorPart)
        if not isinstance(part, DriverPart):
            self.response.setParent(self)
            self.response.hide()
        if pasting and known:
            self.response.setParent(self)
            self.response.hide()
            kind = "driver" if isinstance(part, DriverPart) else "radiator"
            self.panel = PastePanel(
                lambda: self.subject.part, kind, self.take, lambda: self._paste(False)
            )
            self._gaps.setParent(self)
            self._gaps.hide()
            return column("Pasted sheet", "nothing is taken until you say so", self.panel)
        outside = below(
            *(column(title, "likely range", *self._figures(paths)) for title, paths in groups[2:])
        )
        if isinstance(part, DriverPart):
            measured = self._pictured("Response", "response", self.response)
            bent = large_travel(self.editing, part, self.subject.path)
            return columns(outside, below(self._gaps, bent), measured)
        return columns(outside, self._gaps) if known else QWidget()

    def _missing(self) -> QWidget:
        """What is not known, and an estimate for those who have nothing."""
        gaps = datasheet.missing(self.subject.part)
        rows: list[QWidget] = []
        for gap in gaps[:GAPS_SHOWN]:
            line = rich_label()
            line.setText(f"<b>{gap.symbol}</b> {markup(gap.waits)}<br>{markup(gap.how)}")
            line.setWordWrap(True)
            rows.append(line)
        if len(gaps) > GAPS_SHOWN:
            rows.append(label(f"and {len(gaps) - GAPS_SHOWN} more", "second"))
        if not gaps:
            rows.append(label("Nothing: every result has its figures."))
        said = label(datasheet.waiting_promises(self.editing.assessment), "hint")
        said.setWordWrap(True)
        rows.append(said)
        self.guess = None
        if gaps:
            self.guess = QPushButton("Estimate from size and weight")
            tip(self.guess, "Fills what is missing with usual figures, with wide bands.")
            self.guess.clicked.connect(self.estimate)
            rows.append(self.guess)
        return column("Still missing", "for which result", *rows)

    def estimate(self) -> None:
        """Fill what is missing from size class and weight."""
        self._do(lambda design: datasheet.estimate_edit(design, self.subject.path))

    def take(self, found: list[Offer]) -> None:
        """Take pasted figures; a part without a name of its own takes that of the sheet."""
        assert self.panel is not None
        path, name = self.subject.path, self.panel.name

        def edit() -> None:
            said, design = taken(self.editing.design, path, found)
            if name and value_at(design, path).name.startswith("New "):
                design = replace_at(design, (*path, "name"), name)
            self.editing.apply(said, design)

        if self.editing.attempt(edit):
            self._paste(False)


def _pairs(rows: Sequence[tuple[str, str, str]]) -> list[list[QWidget]]:
    """Symbol and value, two a line, each with its formula as tooltip."""
    cells: list[list[QWidget]] = []
    for symbol, value, formula in rows:
        name, shown = label(symbol, "second"), label(value, "figure")
        for widget in (name, shown):
            tip(widget, formula)
        shown.setAccessibleName(f"{symbol} {value}, {formula}")
        cells.append([name, shown])
    return [[w for cell in cells[k : k + 2] for w in cell] for k in range(0, len(cells), 2)]


def _points(part: object, what: CurveOf) -> CurvePoints | None:
    """The measured curve of a part; None when there is none, or none that can be read."""
    curve = curve_of(part, what)
    with contextlib.suppress(FirecrestError):
        return read_curve(curve.content, curve.name, curve.unit) if curve else None
    return None
