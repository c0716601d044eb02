"""Promise: what is owed, to whom, and where; the rest is judged by it."""

from dataclasses import fields
from typing import Any

from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from firecrest.app.stages.base import Stage, below, column, columns, numbers
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import (
    Segments,
    bound_check,
    bound_combo,
    bound_segments,
    labelled,
    set_role,
)
from firecrest.app.widgets.marks import Mark
from firecrest.app.widgets.note_edit import NoteEdit
from firecrest.app.widgets.number_field import NumberEdit
from firecrest.app.widgets.plain import caution, label, tip
from firecrest.design.edits.paths import Path
from firecrest.design.tolerances import Tolerances
from firecrest.present.frame.bindings import at_path
from firecrest.present.frame.meters import mark_of
from firecrest.present.plot import plots
from firecrest.present.power.cautions import hearing_caution
from firecrest.present.promise.brief import clauses
from firecrest.present.text import words

IMPORTANCE = (("must", "Must"), ("wish", "Wish"), ("open", "Open"))
PLACES = tuple((key, text) for key, text in words.PLACES.items())
MATERIALS = tuple((key, text) for key, text in words.MATERIALS.items())
DROPS = ((3, "−3 dB"), (6, "−6 dB"), (10, "−10 dB"))


class PromiseStage(Stage):
    """The brief as a sentence, level against distance, and the six promises."""

    key, title, subtitle = "promise", "Promise", "what you owe, to whom, and where"

    def build_heart(self) -> None:
        row = QHBoxLayout(self.heart)
        row.setContentsMargins(0, 4, 0, 4)
        row.setSpacing(18)
        self._clauses: list[tuple[Mark, QLabel]] = []
        left = QVBoxLayout()
        left.setSpacing(3)
        for k, parts in enumerate(self._sentence()):
            line = QHBoxLayout()
            line.setSpacing(6)
            for part in parts:
                line.addWidget(part if isinstance(part, QWidget) else label(part, "project"))
            line.addStretch(1)
            left.addLayout(line)
            left.addWidget(self._hook(k))
        left.addStretch(1)
        row.addLayout(left, 3)
        right = QVBoxLayout()
        right.addWidget(label("Level against distance", "section"))
        self.chart = Chart(self.session, height=110)
        right.addWidget(self.chart, 1)
        self._caution = caution()
        right.addWidget(self._caution)
        row.addLayout(right, 2)
        self.splitter.setSizes([330, 260])

    def _hook(self, place: int) -> QWidget:
        holder = QWidget()
        line = QHBoxLayout(holder)
        line.setContentsMargins(14, 0, 0, 4)
        mark, text = Mark("none"), label("", "second")
        line.addWidget(mark)
        line.addWidget(text)
        line.addStretch(1)
        self._clauses.append((mark, text))
        return holder

    def _edit(self, *path: str) -> NumberEdit:
        full: Path = ("brief", *path)
        edit = NumberEdit(self.session, at_path(self.session.design, full))
        edit.setProperty("path", ".".join(map(str, full)))
        fix(edit, width=84)
        self.session.changed.connect(edit.show_value)
        return edit

    def _combo(self, options: Any, *path: str) -> QWidget:
        return bound_combo(self.session, ("brief", *path), options)

    def _sentence(self) -> list[list[Any]]:
        return [
            [
                "This box gives",
                self._edit("loudness", "level"),
                "at",
                self._edit("listening", "distance"),
                "in",
                self._combo(PLACES, "listening", "place"),
            ],
            [
                "of",
                self._combo(MATERIALS, "listening", "material"),
                "down to",
                self._edit("bass", "frequency"),
                "at",
                self._combo(DROPS, "bass", "drop"),
            ],
            [
                "for",
                self._edit("runtime", "duration"),
                "at a mean of",
                self._edit("runtime", "level"),
            ],
            [
                "inside",
                self._edit("size", "length"),
                "×",
                self._edit("size", "height"),
                "×",
                self._edit("size", "depth"),
            ],
            ["under", self._edit("weight", "mass"), "for", self._edit("cost", "price")],
        ]

    def build_lower(self) -> QWidget:
        return columns(below(self._table(), self._ranges()), self._conditions())

    def _ranges(self) -> QWidget:
        """How far figures may be off that no part's sheet states."""
        place = ("brief", "tolerances")
        rows = numbers(self.session, *((*place, f.name) for f in fields(Tolerances)))
        return column("Likely ranges", "5 to 95 %, either way", *rows)

    def _table(self) -> QWidget:
        holder = QWidget()
        grid = QGridLayout(holder)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(10)
        grid.setVerticalSpacing(3)
        self._rows: dict[str, tuple[Mark, QLabel, QLabel]] = {}
        for c, text in enumerate(("", "how much it counts", "", "achieved", "how far")):
            grid.addWidget(label(text, "hint"), 0, c)
        self.importance: dict[str, Segments] = {}
        for r, (key, name) in enumerate(words.PROMISE_NAMES.items(), start=1):
            segments = bound_segments(self.session, ("brief", key, "importance"), IMPORTANCE)
            self.importance[key] = segments
            mark, got, far = Mark("none"), label("", "figure"), label("", "second")
            for c, widget in enumerate((label(name), segments, mark, got, far)):
                grid.addWidget(widget, r, c)
            self._rows[key] = (mark, got, far)
        return column("Six promises", "wishes never hold the box back", holder)

    def _conditions(self) -> QWidget:
        session = self.session
        listening, conditions = ("brief", "listening"), ("brief", "conditions")
        rows = numbers(
            session,
            (*conditions, "charge"),
            (*conditions, "temperature"),
            (*conditions, "pressure"),
            (*conditions, "humidity"),
            (*listening, "crest"),
            (*listening, "burst"),
            (*listening, "noise_floor"),
        )
        place = numbers(session, (*listening, "room"), (*listening, "room_lift"))
        baffle = bound_check(session, (*listening, "baffle"), "Step of the front (baffle)")
        tick = bound_check(session, (*listening, "steady_tone"), "Judge heat for steady tones")
        note = label(
            "Pole: free all round, no ground image. Open air: half space. Room: a stated simple "
            "lift below its first mode. Baffle: from around 115 over the width up the front plays "
            "into the half space before it, wherever it stands.",
            "hint",
        )
        note.setWordWrap(True)
        ticks = (labelled("", baffle), labelled("", tick))
        remarks = [label("Note", "section"), NoteEdit(session, ("note",))]
        return column("Conditions", "", *place, *rows, *ticks, note, *remarks)

    def refresh(self) -> None:
        """Draw clauses, table and distance plot."""
        session = self.session
        trial = session.trial
        lines = clauses(session.assessment, trial)
        for (mark, text), clause in zip(self._clauses, lines, strict=True):
            mark.set_state(clause.mark)
            text.setText(clause.text)
        for promise in session.assessment.promises:
            mark, got, far = self._rows[promise.key]
            state = mark_of(promise)
            mark.set_state(state)
            unit = words.promise_unit(promise.key, session.design)
            suffix = "" if unit.unit in ("€", "") else f" {unit.unit}"
            got.setText(words.numeral(promise, session.design) + suffix)
            far.setText(words.how_sure(promise, session.design))
            tip(far, words.likely_range(promise, session.design))
            set_role(far, {"short": "bad", "met": "good"}.get(state, "second"))
        ghost = plots.distance_plot(trial) if trial else None
        self.chart.show_plot(plots.distance_plot(session.assessment), ghost)
        heard = hearing_caution(session.assessment)
        self._caution.setVisible(bool(heard))
        self._caution.setText(heard)
