"""Pages below the heart of Voice beside the lanes: line up, flatten, protect, curves, compare."""

from collections.abc import Callable, Sequence
from pathlib import Path as FilePath

from PySide6.QtCore import Qt
from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import numbers
from firecrest.app.stages.voice.cards import lone_edit
from firecrest.app.widgets.choices import Segments, bound_combo, labelled
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import caution, label, paragraph, tip
from firecrest.assessment.voicing.guarding import guards
from firecrest.assessment.voicing.lining import line_up
from firecrest.core.voice.alignment import Criterion
from firecrest.design.curve import FREQUENCY_UNITS, LONGEST
from firecrest.design.design import Design
from firecrest.design.edits import ways
from firecrest.design.edits.paths import Path
from firecrest.files.atomic import write_file
from firecrest.files.bounded import read_bytes
from firecrest.files.curves import way_curve
from firecrest.present.text.notes import said
from firecrest.present.voice import advice, guarding
from firecrest.shelf.table import decoded

KINDS = "Curves (*.txt *.csv *.frd *.dat);;All files (*)"
PLACES = (
    ("pole", "on a pole"),
    ("ground", "on the ground"),
    ("wall", "against a wall"),
    ("corner", "in a corner"),
)
HOLDS = (("by itself", "by itself"), ("measurement", "the curve"), ("model", "the model"))


class Page(QWidget):
    """A page that draws itself when it is on show."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.box = QVBoxLayout(self)
        self.box.setContentsMargins(0, 4, 8, 4)
        self.box.setSpacing(4)

    def refresh(self) -> None:
        """Draw the present state."""

    @property
    def busy(self) -> bool:
        """Whether what it shows is still being worked out."""
        return False

    def leave(self) -> None:
        """Another page comes on show: nothing is tried any more."""
        self.session.drop_trial()


class LineUpPage(Page):
    """Every step that lines the ways up, as a preview; each can be taken alone."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        top = QHBoxLayout()
        self.by = Segments((("sum", "Loudest sum"), ("phase", "Phases match")), "Delays by")
        tip(self.by.button("sum"), "The delay with which both ways give the most, or are flattest")
        tip(self.by.button("phase"), "The delay with which their phases follow each other best")
        self.criterion: Criterion = "sum"
        self.by.choose("sum")
        self.by.chosen.connect(self._judge)
        top.addWidget(label("Delays by", "second"))
        top.addWidget(self.by)
        top.addStretch(1)
        self.look = QPushButton("Try it")
        self.look.setCheckable(True)
        tip(self.look, "Show what all ticked steps would do, as ghosts")
        self.look.clicked.connect(lambda on: self._try() if on else self.session.drop_trial())
        self.take = QPushButton("Line up")
        tip(self.take, "Take all ticked steps as one; undo brings the old settings back")
        self.take.clicked.connect(self.line_up)
        top.addWidget(self.look)
        top.addWidget(self.take)
        self.box.addLayout(top)
        self.said = paragraph("", "second")
        self.box.addWidget(self.said)
        self._list = QVBoxLayout()
        self._list.setSpacing(1)
        self.box.addLayout(self._list)
        self.facts = FactRows()
        self.box.addWidget(self.facts)
        self.box.addStretch(1)
        self.ticks: list[QCheckBox] = []
        self.steps: list[advice.Step] = []

    def _judge(self, by: object) -> None:
        self.criterion = "phase" if by == "phase" else "sum"
        self.refresh()

    def refresh(self) -> None:
        a = self.session.assessment
        if a.acoustic is None:
            self._show([])
            self.said.setText("Nothing can be lined up yet: figures are missing.")
            return
        found = line_up(a, a.acoustic, self.criterion)
        self._show(advice.steps(a, a.acoustic, found))
        offsets = advice.offset_facts(a, a.acoustic, found)
        self.facts.show_facts([*advice.pair_facts(a, a.acoustic), *offsets])
        idle = all(step.idle for step in self.steps)
        one = len(a.design.voice.channels) < 2
        text = (
            "One way alone has nothing to be lined up with."
            if one
            else (
                "All ways are lined up."
                if idle
                else "Nothing is changed until you take it. Untick what you want to leave."
            )
        )
        self.said.setText(text)
        self.take.setEnabled(not idle and not one)
        self.look.setEnabled(not idle and not one)

    def _show(self, steps: Sequence[advice.Step]) -> None:
        pairs = zip(self.steps, self.ticks, strict=False)
        kept = {(step.key, step.channel): tick.isChecked() for step, tick in pairs}
        self.steps = list(steps)
        while len(self.ticks) < len(steps):
            tick = QCheckBox()
            tick.clicked.connect(lambda _: self._try() if self.look.isChecked() else None)
            self._list.addWidget(tick)
            self.ticks.append(tick)
        for k, tick in enumerate(self.ticks):
            tick.setVisible(k < len(steps))
            if k >= len(steps):
                continue
            step = steps[k]
            tick.setText(f"{step.title}: as it is" if step.idle else f"{step.title}; {step.why}")
            tip(tick, step.why)
            tick.setEnabled(not step.idle)
            tick.setChecked(not step.idle and kept.get((step.key, step.channel), True))

    def chosen(self) -> list[advice.Step]:
        """The ticked steps."""
        pairs = zip(self.steps, self.ticks, strict=False)
        return [step for step, tick in pairs if tick.isChecked() and not step.idle]

    def _try(self) -> None:
        self.session.attempt(
            lambda: self.session.try_design(advice.taken(self.session.design, self.chosen()))
        )

    def line_up(self) -> None:
        """Take the ticked steps as one undo step."""
        self.look.setChecked(False)
        s = self.session
        s.attempt(lambda: s.apply("Line up", advice.taken(s.design, self.chosen())))

    def leave(self) -> None:
        self.look.setChecked(False)
        super().leave()


class ProtectPage(Page):
    """Thresholds that follow from what the parts bear, for programme or for any sine."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        top = QHBoxLayout()
        self.safe = Segments((("programme", "Programme"), ("sine", "Any sine")), "Safe for")
        self.safe.choose("programme")
        self.safe.chosen.connect(self._judge)
        tip(self.safe.button("programme"), "Below the lowest notes of the programme less is held")
        tip(self.safe.button("sine"), "Every note from 20 Hz may be held at full level")
        top.addWidget(label("Safe for", "second"))
        top.addWidget(self.safe)
        top.addStretch(1)
        self.set_all = QPushButton("Set all")
        tip(self.set_all, "Set the limiters of every channel; undo takes them back")
        self.set_all.clicked.connect(self.protect)
        top.addWidget(self.set_all)
        self.box.addLayout(top)
        self._columns = QHBoxLayout()
        self._columns.setSpacing(22)
        self.box.addLayout(self._columns)
        self.rows: list[tuple[QWidget, QLabel, FactRows, QPushButton]] = []
        self.box.addWidget(
            caution(
                "A limiter saves parts, not ears: above 85 dB for long, or 100 dB "
                "briefly, wear protection. Thresholds are predictions; try them "
                "with rising level before they are relied on."
            )
        )
        self.box.addStretch(1)
        self.any_sine = False

    def _judge(self, safe: object) -> None:
        self.any_sine = safe == "sine"
        self.refresh()

    def refresh(self) -> None:
        a = self.session.assessment
        found = [] if a.acoustic is None else guards(a, a.acoustic, any_sine=self.any_sine)
        while len(self.rows) < len(found):
            self.rows.append(self._column(len(self.rows)))
        for k, (holder, head, rows, button) in enumerate(self.rows):
            holder.setVisible(k < len(found))
            if k < len(found):
                name = a.design.voice.channels[k].name
                head.setText(name)
                button.setAccessibleName(f"Set the limiters of {name}")
                facts = guarding.guard_facts(a, k, found[k])
                if k == 0:
                    facts += guarding.high_pass_facts(a)
                rows.show_facts(facts)

    def _column(self, channel: int) -> tuple[QWidget, QLabel, FactRows, QPushButton]:
        holder = QWidget()
        box = QVBoxLayout(holder)
        box.setContentsMargins(0, 0, 0, 0)
        head, rows = label("", "section"), FactRows()
        button = QPushButton("Set")
        tip(button, "Set the limiters of this channel")
        button.clicked.connect(lambda: self._set([channel]))
        line = QHBoxLayout()
        line.addWidget(head)
        line.addStretch(1)
        line.addWidget(button)
        box.addLayout(line)
        box.addWidget(rows)
        box.addStretch(1)
        self._columns.addWidget(holder, 1)
        return holder, head, rows, button

    def protect(self) -> None:
        """Set the limiters of all channels as one step."""
        self._set(range(len(self.session.design.voice.channels)))

    def _set(self, channels: Sequence[int]) -> None:
        s = self.session

        def _edit() -> None:
            a = s.assessment
            if a.acoustic is None:
                return
            made = a.design
            for k, found in enumerate(guards(a, a.acoustic, any_sine=self.any_sine)):
                if k in channels:
                    made = guarding.guarded(a, k, found, made)
            s.apply("Protect", made)

        s.attempt(_edit)


class CurvesPage(Page):
    """The measured curves of one way: dropped or opened, with angle, distance and drive."""

    def __init__(self, session: Session, channel: int) -> None:
        super().__init__(session)
        self.channel = channel
        self.setAcceptDrops(True)
        here: Path = ("voice", "channels", channel, "response")
        own = session.design.voice.channels[channel]
        top = QHBoxLayout()
        top.addWidget(label(f"Curves of {own.name}", "section"))
        top.addWidget(label("drop text files here, several angles at once", "hint"))
        top.addStretch(1)
        self.attach_button = QPushButton("Attach curves…")
        self.attach_button.clicked.connect(self.attach)
        top.addWidget(self.attach_button)
        if own.response.curves:
            clear = QPushButton("Remove all")
            clear.clicked.connect(lambda: self._do(lambda d: ways.without_curves(d, channel)))
            top.addWidget(clear)
        self.box.addLayout(top)
        self.notice = paragraph("", "hint")
        self.notice.setVisible(False)
        self.box.addWidget(self.notice)
        if not own.response.curves:
            self.box.addWidget(
                paragraph(
                    "Nothing is attached: this way is predicted from its drivers and the box, off "
                    "the axis as a rigid piston. Measure it in the box, on and off the axis, "
                    "with one time zero for all ways."
                )
            )
        else:
            fields = QWidget()
            row = QHBoxLayout(fields)
            row.setContentsMargins(0, 0, 0, 0)
            row.setSpacing(18)
            row.addWidget(numbers(session, (*here, "join"))[0], 1)
            row.addWidget(labelled("Level of", bound_combo(session, (*here, "hold"), HOLDS)), 1)
            row.addWidget(numbers(session, (*here, "low_tail"))[0], 1)
            row.addWidget(numbers(session, (*here, "high_tail"))[0], 1)
            self.box.addWidget(fields)
            for place in range(len(own.response.curves)):
                self.box.addWidget(self._row((*here, "curves", place), place))
        self.box.addStretch(1)

    def _row(self, here: Path, place: int) -> QWidget:
        curve = self.session.design.voice.channels[self.channel].response.curves[place]
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(6)
        name = label(curve.name)
        tip(name, curve.name)
        row.addWidget(name, 1)
        for field in ("angle", "distance", "volts"):
            row.addWidget(lone_edit(self.session, (*here, field), 84))
        row.addWidget(bound_combo(self.session, (*here, "place"), PLACES))
        units = [(unit, unit) for unit in FREQUENCY_UNITS]
        row.addWidget(bound_combo(self.session, (*here, "unit"), units))
        for text, help, act in (
            ("Export…", f"Write {curve.name} to a file again", lambda: self.export(place)),
            (
                "✕",
                f"Remove {curve.name}",
                lambda: self._do(lambda d: ways.without_curve(d, self.channel, place)),
            ),
        ):
            button = QPushButton(text)
            tip(button, help)
            button.setAccessibleName(help)
            button.clicked.connect(act)
            row.addWidget(button)
        return holder

    def _do(self, edit: Callable[[Design], tuple[str, Design]]) -> None:
        self.session.attempt(lambda: self.session.apply(*edit(self.session.design)))

    def attach(self) -> None:
        """Curves from text files."""
        messages = self.window().messages  # type: ignore[attr-defined]
        paths = messages.open_many("Attach curves", KINDS)
        self.attach_files(paths)

    def attach_files(self, paths: Sequence[FilePath]) -> None:
        """Curves from these files, as one undo step; a bad one refuses them all."""
        if not paths:
            return
        told: list[str] = []

        def _edit() -> None:
            curves = []
            for path in paths:
                curve, notices = way_curve(decoded(read_bytes(path, LONGEST)), path.name)
                curves.append(curve)
                told.extend(f"{path.name}: {said(notice)}" for notice in notices)
            self.session.apply(*ways.with_curves(self.session.design, self.channel, curves))

        stage = self.told_to
        if self.session.attempt(_edit) and told and stage is not None:
            stage(" ".join(told))

    told_to: Callable[[str], None] | None = None

    def export(self, place: int) -> None:
        """One curve as it was read, to a file."""
        curve = self.session.design.voice.channels[self.channel].response.curves[place]
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Export the curve", curve.name, KINDS)
        if path is not None:
            self.session.attempt(lambda: write_file(path, curve.content.encode()))

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        urls = [url for url in event.mimeData().urls() if url.isLocalFile()]
        event.setDropAction(Qt.DropAction.CopyAction)
        event.accept()
        self.attach_files([FilePath(url.toLocalFile()) for url in urls])
