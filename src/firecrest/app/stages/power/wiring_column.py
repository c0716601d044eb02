"""Currents against what is in their way, and the fields of lead, fuse, switch and plug."""

from functools import partial

from PySide6.QtWidgets import QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import column, numbers
from firecrest.app.stages.power.feeding import button
from firecrest.app.widgets.bars import BarRow
from firecrest.app.widgets.choices import bound_combo, labelled
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import caution, label, tip
from firecrest.core.units import figure
from firecrest.design.edits import wiring as edits
from firecrest.design.edits.paths import Path
from firecrest.present.power.cautions import CAUTION_WIRING
from firecrest.present.power.currents import current_rows, wiring_facts
from firecrest.present.power.power import CONTACTS, FUSES
from firecrest.proposals.wiring import with_wanted_fuse, with_wanted_wire

LEAD: Path = ("power", "lead")
SPEAKER: Path = ("power", "speaker_lead")
MARK = 0.8
"""Where on a bar the stripe of what is borne stands."""


class WiringColumn:
    """The third column of the stage."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.facts = FactRows()
        self.bars = [BarRow(stripe=True) for _ in current_rows(session.assessment)]

    def build(self) -> QWidget:
        """All of it."""
        return column(
            "Currents",
            "asked, of what it bears",
            *self.bars,
            label("Fuse, wire, switch", "section"),
            self.facts,
            *self._fields(),
            caution(CAUTION_WIRING),
        )

    def _fields(self) -> list[QWidget]:
        session, power = self.session, self.session.design.power
        if power.source.kind == "mains":
            return numbers(session, (*SPEAKER, "length"), (*SPEAKER, "area"))  # type: ignore[return-value]
        rows: list[QWidget] = [*numbers(session, *((*LEAD, n) for n in LEAD_FIELDS))]
        plugs = [(None, "not chosen"), *CONTACTS]
        rows.append(labelled("Plug at the source", bound_combo(session, ("power", "plug"), plugs)))
        if power.fuse is not None:
            rows += numbers(session, ("power", "fuse", "rating"))
            kinds = bound_combo(session, ("power", "fuse", "kind"), FUSES)
            rows.append(labelled("Fuse type", kinds))
            rows.append(button(session, "Remove fuse", partial(edits.with_fuse, on=False)))
        rows.append(button(session, "Fit the fuse wanted", with_wanted_fuse))
        rows += numbers(session, ("power", "switch", "rating"), ("power", "switch", "volts"))
        words = f"{'Remove' if power.switch else 'Add'} switch"
        rows.append(button(session, words, partial(edits.with_switch, on=power.switch is None)))
        rows.append(button(session, "Take the wire wanted", with_wanted_wire))
        rows.append(label("Leads to the drivers", "section"))
        return [*rows, *numbers(session, *((*SPEAKER, n) for n in LEAD_FIELDS))]

    def refresh(self) -> None:
        """Show the present assessment."""
        a = self.session.assessment
        self.facts.show_facts(wiring_facts(a))
        for bar, row in zip(self.bars, current_rows(a), strict=False):
            bar.show_bar(
                row.name,
                f"{figure(row.asked, 1)} of {figure(row.bears, 1)} A",
                MARK * row.asked / row.bears,
                MARK,
                short=row.short,
            )
            tip(bar, row.help)


LEAD_FIELDS = ("length", "area", "contacts")
