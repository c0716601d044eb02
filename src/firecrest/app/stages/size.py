"""Size: volume, tuning and travel are one decision."""

from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import Stage, column, columns, number, numbers
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import Segments, bound_check, bound_combo, label, labelled
from firecrest.assessment.layouts import kind_of, with_kind
from firecrest.present import bindings, ceiling, plots
from firecrest.present.plot import Plot

KINDS = (("sealed", "Sealed"), ("port", "Port"), ("radiators", "Radiators"))
VIEWS = (("ceiling", "Ceiling"), ("response", "Response"), ("impedance", "Impedance"))
SUBTITLES = {
    "ceiling": "loudest clean level at the listener, and the part that gives first",
    "response": "before and after the voice, against the mean of its own band",
    "impedance": "load on one amplifier output",
}
EDGES = (("plain", "plain"), ("one_flared", "one flared"), ("both_flared", "both flared"))
ENDS = (
    ("one_flanged", "one in the panel"),
    ("both_flanged", "both in panels"),
    ("both_free", "both free"),
)


class SizeStage(Stage):
    """Ceiling over box, openings and travel."""

    key, title, subtitle = "size", "Size", "how much air, tuned where, moving how far"

    def __init__(self, session: Session) -> None:
        self._view, self._full = "ceiling", False
        super().__init__(session)

    def build_heart(self) -> None:
        self.views = Segments(VIEWS, "Plot")
        self.views.choose(self._view)
        self.views.chosen.connect(self._choose_view)
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
        head.addWidget(self._name)
        head.addWidget(self._what)
        head.addStretch(1)
        head.addWidget(self.range)
        box.addLayout(head)
        self.chart = Chart(self.session, height=220)
        box.addWidget(self.chart, 1)
        self._note = label("", "hint")
        box.addWidget(self._note)
        self.splitter.setSizes([340, 240])
        self.splitter.setStretchFactor(0, 6)
        self.splitter.setStretchFactor(1, 4)

    def _choose_view(self, view: object) -> None:
        self._view = str(view)
        self.refresh()

    def _choose_range(self, which: object) -> None:
        self._full = which == "full"
        self.refresh()

    def structure(self) -> Any:
        box = self.session.design.box
        return (
            kind_of(self.session.design),
            len(box.groups),
            len(box.radiators),
            len(box.ports),
            tuple(p.shape for p in box.ports),
        )

    def build_lower(self) -> QWidget:
        self.travel: list[tuple[Chart, QWidget]] = []
        return columns(self._box_column(), self._openings_column(), self._travel_column())

    def _box_column(self) -> QWidget:
        session = self.session
        self.kinds = Segments(KINDS, "Kind of box")
        self.kinds.choose(kind_of(session.design))
        self.kinds.chosen.connect(self._choose_kind)
        rows: list[QWidget] = [self.kinds, number(session, bindings.air_volume())]
        if kind_of(session.design) != "sealed":
            rows.append(number(session, bindings.tuning()))
        case, main = ("box", "case"), ("box", "chambers", 0)
        rows += numbers(
            session,
            (*case, "length"),
            (*case, "height"),
            (*case, "depth"),
            (*case, "wall"),
            (*main, "leak_q"),
            (*main, "stuffing"),
            (*main, "absorption_q"),
            (*main, "leak_resistance"),
            (*main, "stated_volume"),
        )
        return column("Box", "net air, all parts taken off", *rows)

    def _choose_kind(self, kind: object) -> None:
        names = dict(KINDS)
        if not self.session.attempt(
            lambda: self.session.apply(
                f"Box: {names[str(kind)].lower()}",
                with_kind(self.session.design, kind),  # type: ignore[arg-type]
            )
        ):
            self.kinds.choose(kind_of(self.session.design))

    def _openings_column(self) -> QWidget:
        session, box = self.session, self.session.design.box
        rows: list[QWidget] = []
        for k, item in enumerate(box.radiators):
            here = ("box", "radiators", k)
            rows.append(label(f"{item.radiator.name}", "figure"))
            rows += numbers(
                session,
                (*here, "count"),
                (*here, "added_mass"),
                *((*here, "radiator", name) for name in ("sd", "mmp", "cmp", "rmp", "xmax")),
            )
            rows.append(bound_check(session, (*here, "horizontal"), "Faces up or down (sags)"))
        for k, port in enumerate(box.ports):
            rows += self._port_rows(("box", "ports", k), port.shape)
        if not rows:
            note = label(
                "The box is closed: the cone alone moves the air. "
                "A port or radiators reach lower and lift the ceiling near their tuning.",
                "second",
            )
            note.setWordWrap(True)
            rows.append(note)
        title = {"radiators": "Radiators", "port": "Port", "sealed": "Openings"}[
            kind_of(session.design)
        ]
        return column(title, "", *rows)

    def _port_rows(self, here: tuple[str | int, ...], shape: str) -> list[QWidget]:
        session = self.session
        sides = ("diameter",) if shape == "round" else ("width", "height")
        shapes = bound_combo(session, (*here, "shape"), (("round", "round"), ("slot", "slot")))
        names = ("count", *sides, "length")
        rows: list[QWidget] = [labelled("Shape", shapes)]
        rows += numbers(session, *((*here, name) for name in names))
        rows.append(labelled("Edges", bound_combo(session, (*here, "edges"), EDGES)))
        rows.append(labelled("Ends sit", bound_combo(session, (*here, "mounting"), ENDS)))
        rows += numbers(
            session,
            *((*here, name) for name in ("speed_limit", "loss_q", "end_correction", "wall")),
        )
        return rows

    def _travel_column(self) -> QWidget:
        rows: list[QWidget] = []
        for plot in plots.travel_plots(self.session.assessment):
            chart = Chart(self.session, height=92)
            title = label(plot.name, "second")
            rows += [title, chart]
            self.travel.append((chart, title))
        rows.append(label("Below the bass note: a held low note.", "hint"))
        return column("Travel at the promise", "peak, one way", *rows)

    def refresh(self) -> None:
        """Draw heart and travel, with ghosts of what is tried."""
        session = self.session
        plot = self._plot(session.assessment)
        ghost = self._plot(session.trial) if session.trial else None
        self._name.setText(plot.name)
        self._what.setText(SUBTITLES[self._view])
        self.range.setVisible(self._view != "impedance")
        self._note.setText("  ".join(plot.notes))
        self.chart.show_plot(plot, ghost)
        tried = plots.travel_plots(session.trial) if session.trial else []
        for k, plot in enumerate(plots.travel_plots(session.assessment)):
            if k < len(self.travel):
                chart, title = self.travel[k]
                title.setText(plot.name)  # type: ignore[attr-defined]
                chart.show_plot(plot, tried[k] if k < len(tried) else None)

    def _plot(self, assessment: Any) -> Plot:
        if self._view == "response":
            return plots.response_plot(assessment, full=self._full)
        if self._view == "impedance":
            return plots.impedance_plot(assessment)
        return ceiling.ceiling_plot(assessment, full=self._full, frequency=self.session.frequency)
