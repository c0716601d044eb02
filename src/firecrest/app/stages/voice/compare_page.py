"""Compare: two presets, or with and without EQ, matched in level, on a plot and to hear."""

from pathlib import Path

from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QProgressBar, QPushButton

from firecrest.app.playing import Playing, player
from firecrest.app.session import Session
from firecrest.app.stages.voice.pages import Page
from firecrest.app.theme.size import fix
from firecrest.app.widgets.chart import Chart
from firecrest.app.widgets.choices import CalmCombo
from firecrest.app.widgets.plain import caution, label, paragraph, tip
from firecrest.app.work import Task
from firecrest.assessment.conditions import playing_level
from firecrest.assessment.voicing.listening import Rendered, Source, rendered
from firecrest.core.arrays import Real
from firecrest.core.errors import FirecrestError, RangeError
from firecrest.core.reading import read_quantity
from firecrest.core.voice.programme_sound import PROGRAMMES
from firecrest.files.sound import read_sound, write_sound
from firecrest.present.voice import compare

OWN = "A WAV of yours…"
LEVELS = (40.0, 130.0)
WAVS = "Sound (*.wav);;All files (*)"


class ComparePage(Page):
    """Both sums on one plot, the louder one turned down; the same as sound."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._job = Task(self)
        self._job.some.connect(self._some)
        self._job.finished.connect(self._idle)
        self._job.failed.connect(session.refused.emit)
        self.playing = Playing(self)
        self.made: Rendered | None = None
        self._made_of: object = None
        self._own: tuple[Real, int] | None = None
        self._build_choice()
        self.chart = Chart(session, height=110)
        self.box.addWidget(self.chart, 1)
        self.said = paragraph("", "second")
        self.box.addWidget(self.said)
        self._build_sound()
        self._idle()

    def _build_choice(self) -> None:
        top = QHBoxLayout()
        top.addWidget(label("Compare", "second"))
        self.first, self.second = CalmCombo(), CalmCombo()
        for combo, name in ((self.first, "First"), (self.second, "Second")):
            combo.setAccessibleName(f"{name} setting")
            fix(combo, least_width=140)
            combo.activated.connect(lambda _: self.refresh())
        top.addWidget(self.first)
        top.addWidget(label("with", "second"))
        top.addWidget(self.second)
        top.addStretch(1)
        self.swap = QPushButton("Swap")
        tip(self.swap, "The other way round")
        self.swap.clicked.connect(self._swap)
        top.addWidget(self.swap)
        self.box.addLayout(top)

    def _build_sound(self) -> None:
        row = QHBoxLayout()
        row.addWidget(label("To hear", "second"))
        self.what = CalmCombo()
        self.what.setAccessibleName("What is played")
        self.what.addItems([*(name.capitalize() for name in PROGRAMMES), OWN])
        tip(self.what, "A short programme made up by us, or a WAV of yours, up to a minute")
        self.what.activated.connect(self._picked)
        row.addWidget(self.what)
        row.addWidget(label("as at", "second"))
        self.level = QLineEdit()
        fix(self.level, width=76)
        self.level.setAccessibleName("Long-term level")
        help = "Level at the listener that the first setting plays at: loud enough, cones run out"
        tip(self.level, f"{help} of travel, and that is heard")
        row.addWidget(self.level)
        row.addStretch(1)
        self.render_button = QPushButton("Render")
        self.render_button.clicked.connect(self.start)
        self.play_first, self.play_second = QPushButton("Play first"), QPushButton("Play second")
        self.play_first.clicked.connect(lambda: self._play(0))
        self.play_second.clicked.connect(lambda: self._play(1))
        self.silence = QPushButton("Stop")
        self.silence.clicked.connect(self._stop)
        self.write_button = QPushButton("Write WAVs…")
        self.write_button.clicked.connect(self.write)
        for button in (
            self.render_button,
            self.play_first,
            self.play_second,
            self.silence,
            self.write_button,
        ):
            row.addWidget(button)
        self.box.addLayout(row)
        self.progress = QProgressBar()
        self.progress.setTextVisible(False)
        fix(self.progress, height=3)
        self.progress.setAccessibleName("Rendering")
        self.box.addWidget(self.progress)
        self.heard = paragraph("", "hint")
        self.box.addWidget(self.heard)
        self.box.addWidget(
            caution(
                "Start with the volume low: headphones and a boosted setting can "
                "be loud. Above 85 dB for long, or 100 dB briefly, hearing is "
                "harmed."
            )
        )

    def _swap(self) -> None:
        a, b = self.first.currentIndex(), self.second.currentIndex()
        self.first.setCurrentIndex(b)
        self.second.setCurrentIndex(a)
        self.refresh()

    def refresh(self) -> None:
        a = self.session.assessment
        names = compare.settings_of(a.design)
        for combo, start in ((self.first, 0), (self.second, 1)):
            if [combo.itemText(k) for k in range(combo.count())] != names:
                place = combo.currentIndex() if combo.count() else start
                combo.clear()
                combo.addItems(names)
                combo.setCurrentIndex(min(max(place, 0), len(names) - 1))
        if not self.level.text():
            self.level.setText(f"{float(playing_level(a.design.brief)):.0f} dB")
        if self._made_of is not None and self._made_of != self._wanted():
            self.made, self._made_of = None, None
        self._idle()
        if a.acoustic is None:
            self.said.setText("Nothing can be compared yet: figures are missing.")
            return
        found = compare.compared(a, a.acoustic, self.first.currentText(), self.second.currentText())
        self.chart.show_plot(compare.compare_plot(found))
        self.said.setText(compare.sentence(found))

    # sound ------------------------------------------------------------------------------

    def _wanted(self) -> tuple[object, ...]:
        texts = (c.currentText() for c in (self.first, self.second, self.what))
        return (id(self.session.design), *texts, self.level.text())

    def _picked(self, place: int) -> None:
        if self.what.itemText(place) != OWN:
            self.refresh()
            return
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.open_any("A sound to listen with", WAVS)
        if path is None or not self.session.attempt(lambda: self.take_own(path)):
            self.what.setCurrentIndex(0)
        self.refresh()

    def take_own(self, path: Path) -> None:
        """A WAV of the maker's as what is played; FileError when it is none."""
        self._own = read_sound(path)

    def start(self) -> None:
        """Render both settings in the child process."""
        s = self.session

        def _begin() -> None:
            if s.assessment.acoustic is None:
                raise FirecrestError("Nothing can be heard yet: figures are missing.")
            level = read_quantity(self.level.text(), "level", "dB")
            if not LEVELS[0] <= level <= LEVELS[1]:
                raise RangeError(f"The level can be {LEVELS[0]:.0f} to {LEVELS[1]:.0f} dB.")
            names = (self.first.currentText(), self.second.currentText())
            voices = tuple(compare.voice_named(s.design, name) for name in names)
            self.made, self._made_of = None, self._wanted()
            self._job.start(rendered, s.design, voices, self.source(), level)
            self._idle()

        s.attempt(_begin)

    def source(self) -> Source:
        """What is played: a made-up programme by its name, or the maker's own."""
        if self.what.currentText() == OWN and self._own is not None:
            return self._own
        keys = list(PROGRAMMES)
        return keys[min(self.what.currentIndex(), len(keys) - 1)]

    def _some(self, item: object) -> None:
        if isinstance(item, Rendered):
            self.made = item
            self.heard.setText(compare.heard_sentence(item))
        elif isinstance(item, float):
            self.progress.setValue(round(100 * item))

    @property
    def busy(self) -> bool:
        return self._job.running

    def _idle(self) -> None:
        running, there = self._job.running, self.made is not None
        self.render_button.setEnabled(not running)
        self.silence.setEnabled(running or there)
        self.write_button.setEnabled(there)
        sound = player() is not None
        for button in (self.play_first, self.play_second):
            button.setEnabled(there and sound)
            tip(button, "From the start" if sound else "No player was found: write WAVs instead")
        if not running:
            self.progress.setValue(0)
        if not there and not running:
            self.heard.setText("Render first: both settings through chain, ways and travel.")

    def _play(self, which: int) -> None:
        if self.made is not None:
            samples = (self.made.first, self.made.second)[which]
            self.session.attempt(lambda: self.playing.play(samples))

    def _stop(self) -> None:
        self._job.stop()
        self.playing.stop()
        self._idle()

    def write(self) -> None:
        """Both settings as WAVs, the second one beside the first."""
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Write WAVs", "first.wav", WAVS)
        if path is not None and self.made is not None:
            made = self.made

            def _edit() -> None:
                write_sound(path, made.first)
                write_sound(path.with_name(f"{path.stem} second{path.suffix}"), made.second)

            self.session.attempt(_edit)

    def leave(self) -> None:
        self._job.stop()
        self.playing.clear()
        super().leave()
