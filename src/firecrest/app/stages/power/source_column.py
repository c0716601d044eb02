"""Fields of the source: pack with its board and charger, or supply, and how cold and old it is."""

from functools import partial
from pathlib import Path as FilePath

from PySide6.QtWidgets import QPushButton, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import column, numbers
from firecrest.app.stages.power.feeding import button
from firecrest.app.widgets.choices import Segments, bound_check, bound_combo, labelled
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import caution, label, tip
from firecrest.design.edits import power as edits
from firecrest.design.edits import supplies as supply_edits
from firecrest.design.edits.paths import Path
from firecrest.design.sources import Pack, WallSupply
from firecrest.present.power import cautions, facts
from firecrest.present.power.logs import cells_from_log
from firecrest.present.power.power import BEHAVIOURS, CONTACTS, FORMS
from firecrest.present.text import words

HERE: Path = ("power", "source")
CELLS = ("series", "parallel")
CELL = ("capacity", "max_current", "charge_current", "cut_off")
BOARD = ("max_current", "cut_off", "resistance", "own_current", "volume", "mass", "price")
CHARGER = ("current", "voltage", "end_current", "lead_resistance")
SUPPLY = ("voltage", "resistance", "continuous_current", "burst_current", "energy")
STEP = ("voltage", "continuous_current", "burst_current")
TITLES = {"pack": "Pack", "wall": "Supply", "mains": "Mains"}


class SourceColumn:
    """The first column of the stage and what of it changes with every assessment."""

    def __init__(self, session: Session) -> None:
        self.session = session
        self.kinds = Segments(tuple(edits.KINDS.items()), "Power from")
        self.facts, self.charging, self.supply = FactRows(), FactRows(), FactRows()
        self._dangers = caution()
        self._caution = caution()

    def build(self) -> QWidget:
        """All of it."""
        source = self.session.design.power.source
        self.kinds.choose(source.kind)
        self.kinds.chosen.connect(self._choose)
        rows: list[QWidget] = [self.kinds, self._dangers]
        if isinstance(source, Pack):
            rows += self._pack(source)
        elif isinstance(source, WallSupply):
            rows += self._supply(source)
        self._caution.setText(cautions.caution(self.session.assessment))
        rows.append(self._caution)
        return column(TITLES[source.kind], words.source_name(self.session.design), *rows)

    def refresh(self, use: str) -> None:
        """Show the present assessment."""
        a = self.session.assessment
        found = cautions.danger_words(a)
        self._dangers.setText("\n".join(found))
        self._dangers.setVisible(bool(found))
        self.facts.show_facts(facts.pack_facts(a, use))
        self.charging.show_facts(facts.charging_facts(a))
        self.supply.show_facts(facts.supply_words(a))

    def _choose(self, kind: object) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*edits.with_source(s.design, kind)))  # type: ignore[arg-type]

    def _pack(self, pack: Pack) -> list[QWidget]:
        session = self.session
        rows: list[QWidget] = [*numbers(session, *((*HERE, n) for n in CELLS)), self.facts]
        rows += self._worn()
        rows += numbers(session, *((*HERE, "cell", n) for n in CELL))
        rows += numbers(session, (*HERE, "spread"))
        log = QPushButton("Read a discharge log…")
        tip(log, "Time, volts and amperes as CSV: capacity and resistance as measured.")
        log.clicked.connect(self._ask_for_log)
        rows.append(log)
        rows.append(label("Protection board", "section"))
        rows += numbers(session, *((*HERE, "board", n) for n in BOARD))
        if pack.board is not None:
            rows.append(bound_check(session, (*HERE, "board", "balances"), "Balances the cells"))
        word = f"{'Remove' if pack.board else 'Add'} protection board"
        rows.append(button(session, word, partial(edits.with_protection, on=pack.board is None)))
        return [*rows, *self._charger(pack)]

    def _ask_for_log(self) -> None:
        messages = self.kinds.window().messages  # type: ignore[attr-defined]
        path = messages.open_any("Discharge log", "Logs (*.csv *.txt *.log);;All files (*)")
        if path is not None:
            self.session.attempt(lambda: self.read_log(path))

    def read_log(self, path: FilePath) -> None:
        """Take what a logged discharge gave as the cells' own; FirecrestError says why not."""
        self.session.apply(*cells_from_log(self.session.design, path))

    def _worn(self) -> list[QWidget]:
        """How cold and how old it is, as switches that change the promises."""
        session = self.session
        cold = Segments(((293.15, "20 °C"), (273.15, "0 °C"), (263.15, "−10 °C")), "Temperature")
        cold.choose(session.design.brief.conditions.temperature)
        where = ("brief", "conditions", "temperature")
        cold.chosen.connect(lambda t: session.attempt(lambda: session.edit(where, t)))
        old = Segments(((1.0, "new"), (0.8, "80 %")), "Capacity left by age")
        old.choose(session.design.power.source.health)  # type: ignore[union-attr]
        aged = (*HERE, "health")
        old.chosen.connect(lambda share: session.attempt(lambda: session.edit(aged, share)))
        fields = numbers(session, where, aged)
        return [labelled("Cold", cold), labelled("Age", old), *fields]

    def _charger(self, pack: Pack) -> list[QWidget]:
        session = self.session
        rows: list[QWidget] = [label("Charger", "section")]
        if pack.charger is not None:
            here = (*HERE, "charger")
            rows += numbers(session, *((*here, n) for n in CHARGER))
            rows.append(labelled("Contact", bound_combo(session, (*here, "contact"), CONTACTS)))
            text = "May play while it charges"
            rows += [bound_check(session, (*here, "while_playing"), text), self.charging]
        word = f"{'Remove' if pack.charger else 'Add'} charger"
        on = pack.charger is None
        rows.append(button(session, word, partial(edits.with_charger, on=on)))
        if cautions.lithium(pack):
            rows.append(caution(cautions.CAUTION_CHARGING))
        return rows

    def _supply(self, part: WallSupply) -> list[QWidget]:
        session = self.session
        rows: list[QWidget] = [
            labelled("Form", bound_combo(session, (*HERE, "form"), FORMS)),
            *numbers(session, *((*HERE, n) for n in SUPPLY)),
            labelled("Asked too much", bound_combo(session, (*HERE, "behaviour"), BEHAVIOURS)),
        ]
        if part.behaviour == "fold-back":
            rows += numbers(session, (*HERE, "short_current"))
        if part.behaviour == "hiccup":
            rows += numbers(session, (*HERE, "trip_time"), (*HERE, "retry_time"))
        rows += numbers(session, (*HERE, "keep_current"), (*HERE, "time_out"))
        return [*rows, self.supply, *self._steps(part)]

    def _steps(self, part: WallSupply) -> list[QWidget]:
        """Voltages that can be asked for, each with a way to ask for it."""
        session = self.session
        rows: list[QWidget] = [label("Voltages that can be asked for", "section")]
        for place, step in enumerate(part.steps):
            rows += numbers(session, *((*HERE, "steps", place, n) for n in STEP))
            ask = partial(supply_edits.ask_for, place=place)
            rows.append(button(session, f"Ask for {step.voltage:g} V", ask))
        rows.append(button(session, "Add a voltage", supply_edits.add_step))
        if part.steps:
            rows.append(button(session, "Remove the last", supply_edits.remove_step))
        return rows
