"""Flatten: automatic EQ with its price shown before it is taken."""

from dataclasses import dataclass

from PySide6.QtWidgets import QCheckBox, QHBoxLayout, QLineEdit, QProgressBar, QPushButton, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.voice.pages import Page
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import CalmCombo, Segments
from firecrest.app.widgets.fact_rows import FactRows
from firecrest.app.widgets.plain import label, paragraph, tip
from firecrest.app.widgets.stepper import Stepper
from firecrest.app.work import Task
from firecrest.assessment.assess import assess
from firecrest.assessment.voicing.flattening import (
    Flattening,
    Wish,
    channels_of,
    cost_of,
    flattening,
    with_bands,
    without_bands_of,
)
from firecrest.core.errors import FirecrestError, ReadingError
from firecrest.core.reading import read_quantity
from firecrest.core.voice.equaliser import Bounds, Solved, equalise
from firecrest.design.design import Design
from firecrest.present.voice import advice
from firecrest.present.voice.flatten import band_of, facts_of, read_points
from firecrest.present.voice.plots import hz

SHAPES = (("flat", "Flat"), ("tilt", "Tilt"), ("warm", "Warm"), ("points", "Points"))
WHERE = (("axis", "On axis"), ("window", "±30° window"), ("power", "Whole fan"))


@dataclass(frozen=True)
class Filled:
    """What someone filled in: the band only where it was typed."""

    shape: str
    where: int
    band: tuple[str, str] | None
    most: int
    texts: tuple[str, ...]
    ticks: tuple[bool, ...]


class FlattenPage(Page):
    """What to flatten, over which band, to which target; found bands as ghosts, then taken."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._job = Task(self)
        self._job.some.connect(self._some)
        self._job.finished.connect(self._done)
        self._asked: tuple[Design, Wish, Flattening] | None = None
        self.found: Solved | None = None
        first, second = QHBoxLayout(), QHBoxLayout()
        self.what = CalmCombo()
        self.what.setAccessibleName("Flatten")
        self.where = CalmCombo()
        self.where.setAccessibleName("Flattened where")
        self.where.addItems([text for _, text in WHERE])
        self.shape = Segments(SHAPES, "Target")
        self._shape = "flat"
        self.shape.choose("flat")
        self.shape.chosen.connect(self._shaped)
        self.low, self.high = _entry("From", "60 Hz"), _entry("To", "10 kHz")
        self.most = Stepper("", "Bands", 1, 16)
        self.most.show_value(6)
        self.boost, self.cut = _entry("Boost at most", "6 dB"), _entry("Cut at most", "12 dB")
        self.points = _entry("Points", "")
        self.points.setPlaceholderText("100 Hz 3 dB, 1 kHz 0 dB, 10 kHz -3 dB")
        self.points.setVisible(False)
        tip(self.points, "Levels joined by straight lines: frequency and dB, parted by commas")
        self.cuts = QCheckBox("Cuts only")
        tip(self.cuts, "Nothing is lifted; the target stands 2 dB lower")
        self.fill = QCheckBox("Fill cancellations")
        tip(self.fill, "Where sound cancels, more of it cancels too: off unless you know better")
        _fill(first, ("Flatten", self.what), ("", self.where), ("from", self.low))
        _fill(first, ("to", self.high), ("to be", self.shape), ("", self.points))
        first.addStretch(1)
        _fill(second, ("Bands", self.most), ("boost", self.boost), ("cut", self.cut))
        _fill(second, ("", self.cuts), ("", self.fill))
        second.addStretch(1)
        self.search_button = QPushButton("Find bands")
        self.search_button.clicked.connect(self.search)
        self.stop = QPushButton("Stop")
        self.stop.clicked.connect(self._stopped)
        self.take = QPushButton("Take them")
        tip(self.take, "The bands found take the place of those there; undo brings them back")
        self.take.clicked.connect(self.keep)
        for button in (self.search_button, self.stop, self.take):
            second.addWidget(button)
        self.progress = QProgressBar()
        self.progress.setTextVisible(False)
        self.progress.setAccessibleName("Search for bands")
        fix(self.progress, height=3)
        self.said = paragraph("", "second")
        self.facts = FactRows()
        for part in (first, second):
            self.box.addLayout(part)
        for part_of in (self.progress, self.said, self.facts):
            self.box.addWidget(part_of)
        self.box.addStretch(1)
        self._idle()

    @property
    def busy(self) -> bool:
        """Whether bands are being looked for."""
        return self._job.running

    # what is wished ------------------------------------------------------------------

    @property
    def filled(self) -> Filled:
        """What is typed and ticked, to be filled in again on a page built anew."""
        band = None
        if self.low.isModified() or self.high.isModified():
            band = self.low.text(), self.high.text()
        texts = tuple(e.text() for e in (self.boost, self.cut, self.points))
        ticks = self.cuts.isChecked(), self.fill.isChecked()
        return Filled(self._shape, self.where.currentIndex(), band, self.most.value, texts, ticks)

    def fill_in(self, filled: Filled) -> None:
        """As it was filled in before."""
        self.shape.choose(filled.shape)
        self._shaped(filled.shape)
        self.where.setCurrentIndex(filled.where)
        self.most.show_value(filled.most)
        for edit, text in zip((self.boost, self.cut, self.points), filled.texts, strict=True):
            edit.setText(text)
        for box, tick in zip((self.cuts, self.fill), filled.ticks, strict=True):
            box.setChecked(tick)
        for edit, text in zip((self.low, self.high), filled.band or (), strict=False):
            edit.setText(text)
            edit.setModified(True)

    def _shaped(self, shape: object) -> None:
        self._shape = str(shape)
        self.points.setVisible(shape == "points")

    def wish(self) -> Wish:
        """What the fields ask for; ReadingError says which cannot be read."""
        low, high = (read_quantity(f.text(), "frequency", "Hz") for f in (self.low, self.high))
        if not 20 <= low < high <= 20e3:
            raise ReadingError(
                f"From {hz(low)} to {hz(high)} is no band: it goes upwards, from 20 Hz at the "
                "lowest to 20 kHz at the highest."
            )
        up, down = (read_quantity(f.text(), "gain", "dB") for f in (self.boost, self.cut))
        if not (0 <= up <= 20 and 0 <= abs(down) <= 30):
            raise ReadingError("Boosts can be 0 to 20 dB, cuts 0 to 30 dB.")
        only = self.cuts.isChecked()
        bounds = Bounds((low, high), (-abs(down), 0.0 if only else up))
        points = read_points(self.points.text()) if self._shape == "points" else ()
        place = self.what.currentIndex()
        return Wish(
            None if place <= 0 else place - 1,
            WHERE[max(self.where.currentIndex(), 0)][0],  # type: ignore[arg-type]
            self._shape,  # type: ignore[arg-type]
            bounds,
            self.most.value,
            points=points,
            offset=-2.0 if only else 0.0,
            fill=self.fill.isChecked(),
        )

    # searching -------------------------------------------------------------------------

    def search(self) -> None:
        """Look for bands in the child process; what is found on the way is shown as it comes."""
        s = self.session

        def _begin() -> None:
            if s.assessment.acoustic is None:
                raise FirecrestError("Nothing can be flattened yet: figures are missing.")
            wish = self.wish()
            bare = without_bands_of(s.design, channels_of(s.design, wish))
            start = assess(bare, s.memo)
            assert start.acoustic is not None
            asked = flattening(start, start.acoustic, wish)
            self._asked, self.found = (s.design, wish, asked), None
            self._job.start(equalise, asked.task, wish.count)
            self._busy()

        s.attempt(_begin)

    def _some(self, found: object) -> None:
        assert isinstance(found, Solved)
        self.found = found
        self.progress.setValue(round(100 * found.done))
        self._show()

    def _done(self) -> None:
        self._idle()
        self._show()

    def _stopped(self) -> None:
        """What is there stays."""
        self._job.stop()
        self._idle()
        self._show()

    def _busy(self) -> None:
        self.progress.setRange(0, 100)
        self.progress.setValue(0)
        for button, on in ((self.search_button, False), (self.stop, True), (self.take, False)):
            button.setEnabled(on)

    def _idle(self) -> None:
        self.progress.setValue(0)
        self.search_button.setEnabled(True)
        self.stop.setEnabled(False)
        self.take.setEnabled(self.found is not None and self._current())

    def _current(self) -> bool:
        """Whether what was found is of the design in force."""
        return self._asked is not None and self._asked[0] is self.session.design

    def made(self) -> Design | None:
        """The design with the bands found."""
        if self._asked is None or self.found is None:
            return None
        design, wish, _ = self._asked
        return with_bands(design, channels_of(design, wish), self.found)

    def _show(self) -> None:
        """Ghosts and the price of what was found."""
        made = self.made()
        if made is None or not self._current() or self._asked is None or self.found is None:
            return
        self.session.attempt(lambda: self.session.try_design(made))
        cost = cost_of(self.session.assessment, made)
        self.said.setText(f"It costs: {advice.cost_sentence(cost)}.")
        self.facts.show_facts(facts_of(self._asked[2], self.found))

    def keep(self) -> None:
        """The bands found in force, as one undo step."""
        made, s = self.made(), self.session
        if made is None or not self._current():
            return
        self.found = None
        s.attempt(lambda: s.apply("Flatten", made))
        self._idle()

    def refresh(self) -> None:
        a = self.session.assessment
        names = ["the sum", *advice.names_of(a.design)]
        if [self.what.itemText(k) for k in range(self.what.count())] != names:
            place = max(self.what.currentIndex(), 0)
            self.what.clear()
            self.what.addItems(names)
            self.what.setCurrentIndex(min(place, len(names) - 1))
        if not self.low.isModified() and not self.high.isModified() and a.acoustic is not None:
            low, high = band_of(a, a.acoustic)
            self.low.setText(low)
            self.high.setText(high)
        if self._asked is not None and not self._current():
            self._job.stop()
            self.found = None
            self._idle()
            self.said.setText("The design has changed since: look for bands again.")
        elif self._asked is None:
            self.said.setText(
                "Bands that are there are taken out first. Boosts stay below the ceiling; the "
                "level stays as it is."
            )

    def leave(self) -> None:
        self._job.stop()
        self._idle()
        super().leave()


def _fill(row: QHBoxLayout, *parts: tuple[str, QWidget]) -> None:
    """Widgets, each after its word."""
    for text, widget in parts:
        if text:
            row.addWidget(label(text, "second"))
        row.addWidget(widget)


def _entry(name: str, text: str) -> QLineEdit:
    edit = QLineEdit(text)
    edit.setAccessibleName(name)
    fix(edit, width=86)
    return edit
