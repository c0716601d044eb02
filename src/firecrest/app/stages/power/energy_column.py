"""Where the energy goes, how long it stands, and everything else that draws from the source."""

from PySide6.QtWidgets import QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import column, numbers
from firecrest.app.stages.power.feeding import converter_rows, load_rows, rail_rows, receiver_rows
from firecrest.app.stages.power.flow_view import FlowView
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import label, paragraph
from firecrest.design.edits.paths import Path
from firecrest.present.power.facts import standing_facts
from firecrest.present.power.flows import flow_picture


class EnergyColumn:
    """The second column of the stage."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.flow, self.standing = FlowView(), FactRows()
        self._rests = label("While nothing plays", "section")
        self._title, self._hint = label("", "section"), paragraph("", "hint")

    def build(self) -> QWidget:
        """All of it."""
        session = self.session
        dsp: Path = ("power", "boards", session.design.power.dsp_place)
        names = ("power", "standby_power", "noise", "full_scale_input", "input_resistance")
        return column(
            "Energy",
            "",
            self._title,
            self.flow,
            self._hint,
            self._rests,
            self.standing,
            label("DSP and other loads", "section"),
            *numbers(session, *((*dsp, "part", name) for name in names)),
            *rail_rows(session, dsp),
            *load_rows(session),
            *receiver_rows(session),
            *converter_rows(session),
        )

    def refresh(self, use: str) -> None:
        """Show the present assessment."""
        a = self.session.assessment
        picture = flow_picture(a, use)
        self.flow.show_flow(picture)
        for widget in (self.flow, self._title, self._hint):
            widget.setVisible(picture is not None)
        if picture is not None:
            unit = "" if picture.unit == "W" else f", {picture.unit}"
            self._title.setText(picture.title + unit)
            self._hint.setText(picture.sentence)
        found = standing_facts(a)
        self._rests.setVisible(bool(found))
        self.standing.show_facts(found)
