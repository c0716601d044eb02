"""Power: the printed watts meet the real pack."""

from collections.abc import Callable
from functools import partial
from typing import Any

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.stages.base import Stage, column, columns, grid_of, numbers
from firecrest.app.stages.power.feeding import (
    button,
    converter_rows,
    load_rows,
    rail_rows,
    receiver_rows,
)
from firecrest.app.widgets.bars import BarRow
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import Segments, bound_check, set_role
from firecrest.app.widgets.plain import caution, label
from firecrest.core.units import figure
from firecrest.design.amplifiers import Amplifier
from firecrest.design.design import Design
from firecrest.design.edits import boards as board_edits
from firecrest.design.edits import power as edits
from firecrest.design.edits.paths import Path
from firecrest.present.plot import plots
from firecrest.present.power import power
from firecrest.present.text import words
from firecrest.present.text.notes import said

CURRENTS = "Currents at the promise"


class PowerStage(Stage):
    """Volts through the hours over pack, amplifier truth and currents."""

    key, title, subtitle = "power", "Power", "what the amp really gets, and for how long"

    def build_heart(self) -> None:
        box = QVBoxLayout(self.heart)
        box.setContentsMargins(0, 2, 0, 0)
        self._what = label("", "second")
        box.addWidget(self._what)
        self._caution = caution()
        box.addWidget(self._caution)
        self.chart = Chart(self.session, height=170)
        box.addWidget(self.chart, 1)
        self._empty = label("", "second")
        self._empty.setWordWrap(True)
        box.addWidget(self._empty)
        box.addStretch()
        self.splitter.setSizes([270, 310])

    def structure(self) -> Any:
        p = self.session.design.power
        has_board = p.source.kind == "pack" and p.source.board is not None
        return (
            p.source.kind,
            words.source_name(self.session.design),
            has_board,
            tuple(_shape(board.part) for _, board in p.amplifiers),
            len(power.energy_rows(self.session.assessment)),
            len(power.current_rows(self.session.assessment)),
            tuple((load.name, load.rail) for load in p.other_loads),
            tuple(c.name for c in p.converters),
            tuple(b.part.name for b in p.boards if b.kind == "receiver"),
            len(self.session.design.voice.channels),
        )

    def build_lower(self) -> QWidget:
        return columns(self._source_column(), self._amplifier_column(), self._energy_column())

    def _source_column(self) -> QWidget:
        session, here = self.session, ("power", "source")
        names: dict[str, list[Path]] = {
            "pack": [
                (*here, "series"),
                (*here, "parallel"),
                (*here, "cell", "capacity"),
                (*here, "cell", "max_current"),
                (*here, "cell", "cut_off"),
                (*here, "board", "max_current"),
                (*here, "board", "cut_off"),
                (*here, "board", "resistance"),
                (*here, "board", "volume"),
                (*here, "board", "mass"),
                (*here, "board", "price"),
                (*here, "health"),
                (*here, "lead_resistance"),
            ],
            "wall": [
                (*here, name)
                for name in ("voltage", "resistance", "continuous_current", "burst_current")
            ],
            "mains": [],
        }
        kind = session.design.power.source.kind
        self.kinds = Segments(tuple(edits.KINDS.items()), "Power from")
        self.kinds.choose(kind)
        self.kinds.chosen.connect(self._choose_source)
        rows: list[QWidget] = [self.kinds, *numbers(session, *names[kind])]
        if kind == "pack":
            fitted = session.design.power.source.board is not None  # type: ignore[union-attr]
            words_ = f"{'Remove' if fitted else 'Add'} protection board"
            rows.append(button(session, words_, partial(edits.with_protection, on=not fitted)))
        self._caution.setText(power.caution(session.assessment))
        title = {"pack": "Pack", "wall": "Supply", "mains": "Mains"}[kind]
        return column(title, words.source_name(session.design), *rows)

    def _choose_source(self, kind: Any) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*edits.with_source(s.design, kind)))

    def _edit_claims(self, action: Callable[..., tuple[str, Design]], *arguments: int) -> None:
        s = self.session
        s.attempt(lambda: s.apply(*action(s.design, *arguments)))

    def _claim_buttons(self, board: int, count: int) -> QWidget:
        """Add a claim to a board, or take the last one away."""
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 2, 0, 2)
        add = QPushButton("Add claim")
        add.clicked.connect(lambda: self._edit_claims(edits.add_claim, board))
        row.addWidget(add)
        remove = QPushButton("Remove last")
        remove.setEnabled(count > 1)
        remove.clicked.connect(lambda: self._edit_claims(edits.remove_claim, board, count - 1))
        row.addWidget(remove)
        row.addStretch(1)
        return holder

    def _amplifier_column(self) -> QWidget:
        """Truth and figures of every amplifier board, one below the other."""
        boards = self.session.design.power.amplifiers
        self._truth: list[list[list[Any]]] = []
        self._bus: list[Any] = []
        self._dealt: list[Any] = []
        names = [name for _, name in power.amplifier_names(self.session.design)]
        rows: list[QWidget] = []
        for number, (place, board) in enumerate(boards):
            if number:
                rows.append(label(names[number], "section"))
            rows += self._board_rows(number, place, board.part)
            if len(boards) > 1:
                remove = partial(board_edits.remove_board, place=place)
                rows.append(button(self.session, f"Remove {names[number]}", remove))
        rows.append(button(self.session, "Add another board", board_edits.add_board))
        return column("Amplifier truth", boards[0][1].part.name, *rows)

    def _board_rows(self, number: int, place: int, part: Amplifier) -> list[QWidget]:
        session, here = self.session, ("power", "boards", place, "part")
        heads = [label(t, "hint") for t in ("into", "printed", "clean", "here")]
        count = len(power.amplifier_truth(session.assessment, number))
        self._truth.append([[label() for _ in range(4)] for _ in range(count)])
        self._bus.append(label("", "hint"))
        self._bus[number].setWordWrap(True)
        self._dealt.append(label("", "hint"))
        self._dealt[number].setWordWrap(True)
        rows: list[QWidget] = [grid_of([heads, *self._truth[number]]), self._bus[number]]
        rows += [self._dealt[number], *rail_rows(session, ("power", "boards", place))]
        rows.append(self._claim_buttons(place, len(part.claims)))
        claims: list[Path] = [(*here, "claims", k) for k in range(len(part.claims))]
        for n, kind in enumerate(part.other_outputs):
            claims += [(*here, "other_outputs", n, "claims", k) for k in range(len(kind.claims))]
        for claim in claims:
            rows += numbers(session, *((*claim, n) for n in ("power", "load", "supply", "thd")))
        names = ("current_limit", "idle_current", "gain", "cut_off", "highest_supply")
        rows += numbers(session, *((*here, n) for n in names))
        rows.append(bound_check(session, (*here, "bridged"), "Bridge-tied outputs"))
        rows.append(bound_check(session, (*here, "boosted"), "Has its own boost converter"))
        return rows

    def _energy_column(self) -> QWidget:
        session = self.session
        self._energy = [BarRow() for _ in power.energy_rows(session.assessment)]
        self._currents = [BarRow(stripe=True) for _ in power.current_rows(session.assessment)]
        dsp: Path = ("power", "boards", session.design.power.dsp_place)
        drawn = [*numbers(session, (*dsp, "part", "power")), *rail_rows(session, dsp)]
        self._drawn = label("", "hint")
        loads = [
            label("DSP and other loads", "section"),
            *drawn,
            *load_rows(session),
            *receiver_rows(session),
        ]
        more = [*self._currents, *loads, *converter_rows(session)]
        if not self._energy:
            return column(CURRENTS, "", *more)
        goes = [*self._energy, self._drawn, label(CURRENTS, "section")]
        return column("Where it goes", "at half charge", *goes, *more)

    def refresh(self) -> None:
        """Draw runtime, truth, energy and currents."""
        session, a = self.session, self.session.assessment
        plot = plots.runtime_plot(a)
        self.chart.setVisible(plot is not None)
        self._empty.setVisible(plot is None)
        acoustic = a.acoustic
        if plot is not None and acoustic is not None and acoustic.runtime is not None:
            ghost = plots.runtime_plot(session.ghost) if session.ghost else None
            self.chart.show_plot(plot, ghost)
            self._what.setText(
                f"Playing {words.MATERIALS[session.design.brief.listening.material]} at "
                f"{acoustic.runtime_level:.0f} dB mean; {words.ending(acoustic.runtime.ended_by)}. "
                f"Flat out: {acoustic.programme.level:.1f} dB mean."
            )
        else:
            self._what.setText("")
            self._empty.setText(_no_runtime(a))
        self._show_truth()
        energy = power.energy_rows(a)
        total = sum(w for _, w in energy) or 1.0
        for row, (name, watts) in zip(self._energy, energy, strict=False):
            row.show_bar(name, f"{figure(watts, 1)} W", watts / total, None, short=False)
        self._drawn.setText(f"{figure(total, 1)} W from the cells in all" if energy else "")
        for bar, current in zip(self._currents, power.current_rows(a), strict=False):
            bar.show_bar(
                current.name,
                f"{figure(current.asked, 1)} of {figure(current.bears, 1)} A",
                0.8 * current.asked / current.bears,
                0.8,
                short=current.asked > current.bears,
            )

    def _show_truth(self) -> None:
        a = self.session.assessment
        for number, rows in enumerate(self._truth):
            for row, truth in zip(rows, power.amplifier_truth(a, number), strict=False):
                for cell, text in zip(
                    row, (truth.load, truth.claimed, truth.clean, truth.here), strict=True
                ):
                    cell.setText(text)
                set_role(row[1], "bad" if truth.impossible else "")
            bus = power.bus_words(a, number)
            self._dealt[number].setText(power.outputs_words(a.design, number))
            self._bus[number].setText(f"“here”: clean watts, all channels at once, from {bus}.")


def _shape(part: Amplifier) -> tuple[str, int, tuple[int, ...]]:
    """What decides which fields a board has."""
    return part.name, len(part.claims), tuple(len(kind.claims) for kind in part.other_outputs)


def _no_runtime(assessment: Any) -> str:
    source = assessment.design.power.source
    if source.kind != "pack":
        return "It runs from the wall: there is no runtime to work out."
    if assessment.missing:
        return f"No curve yet: {said(assessment.missing[0])}."
    return "The pack cannot carry this load even when full: more cells, or a lower level."
