"""Pictures of every main view at 1280 x 800, from the demo data."""

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

os.environ["XDG_CONFIG_HOME"] = tempfile.mkdtemp()
os.environ["XDG_STATE_HOME"] = tempfile.mkdtemp()
os.environ["XDG_DATA_HOME"] = tempfile.mkdtemp()

from PySide6.QtCore import QTimer
from PySide6.QtGui import QPainter
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QPushButton, QScrollArea

from firecrest.app.main_window import MainWindow
from firecrest.app.stages.parts.stage import PartsStage
from firecrest.app.stages.power.stage import PowerStage
from firecrest.app.stages.size.stage import SizeStage
from firecrest.app.stages.table import STAGES
from firecrest.app.start import make_application, make_window
from firecrest.app.start_page import StartPage
from firecrest.design.edits.paths import set_number
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo, read_demo_project
from firecrest.present.parts.wiring import with_count
from firecrest.present.text.differing import differing_text

SHEET = """ALDER W13-4  5 1/4 in full range
Nom. imp.  4 ohm
Re 3,5 Ω    Le 0,30 mH
fs 58 Hz    Qms 4.5
Mmd 12.1 g  Sd 84 cm2
Vas 0.26 cu.ft
power 40 W RMS
magnet ferrite, paper cone
sens. 88 dB/2.83V/1m"""


def shoot_parts(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """Choosing, a contradicting sheet, a pasted one, and wiring."""
    stage = window.stage
    assert isinstance(stage, PartsStage)

    def worked_out() -> None:
        for _ in range(200):
            QTest.qWait(30)
            if not stage.shelf.judged.chooser.running and not stage.shelf._rest.isActive():
                break

    here = ("box", "groups", 0, "driver")
    stage.choose(stage.tray.cards[1].card)
    stage.shelf.bar.retune.setChecked(True)
    worked_out()
    stage.shelf.table.selectRow(2)
    shoot("parts")
    stage.shelf.table.clearSelection()
    stage.shelf.bar.retune.setChecked(False)
    stage.shelf.choose_kind("driver")
    stage.shelf.bar.views.button("results").click()
    stage.open_entry("hornbeam-w21-8-old-sheet")
    shoot("parts-sheet")
    QApplication.clipboard().setText(SHEET)
    stage.open_path(here)
    stage.paste(True)
    QTest.qWait(50)
    bar = stage._scroll.verticalScrollBar()
    bar.setValue(bar.maximum())
    shoot("parts-paste")
    stage.paste(False)
    session = window.session
    session.apply(*with_count(session.design, 0, 2))
    stage.choose_view("wiring")
    settled(window)
    shoot("parts-wiring")
    session.undo()
    stage.close_sheet()


def shoot_boxes(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """Radiators, bandpass, 2.1, starts, and choosing a port, on the Size stage."""

    def show(name: str, owner: tuple[str | int, ...], view: str) -> SizeStage:
        window.session.start(Document(project_of(read_demo(name))), None)
        window.show_stage("size")
        stage = window.stage
        assert isinstance(stage, SizeStage)
        stage.select(owner)
        stage.show_view(view)
        rested(stage)
        return stage

    def rested(stage: SizeStage) -> None:
        for _ in range(200):
            QTest.qWait(60)
            busy = stage.later.running or stage.ports.busy or window.side.moves.busy
            if not busy and not window.doubting.busy:
                break

    show("boathouse-radiators", ("box", "openings", 0), "travel")
    bar = window.side.findChild(QScrollArea).verticalScrollBar()
    bar.setValue(window.side.unsure.y() - 12)
    shoot("size-radiators")
    bar.setValue(0)
    show("boathouse-bandpass", ("box", "chambers", 1), "response")
    window.session.look_at(60.0)
    shoot("size-bandpass")
    show("breakwater", ("box", "chambers", 0), "response")
    window.session.look_at(150.0)
    shoot("size-two-one")
    show("boathouse-bandpass", ("box", "openings", 0), "ports")
    shoot("size-ports")
    window.session.start(Document(project_of(read_demo("slipway"))), None)
    shoot_map(window, shoot)


def shoot_map(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """The map with its cross beside the present design."""
    window.show_stage("size")
    stage = window.stage
    assert isinstance(stage, SizeStage)
    stage.select(("box", "chambers", 0))
    stage.show_view("map")
    settled(window)
    stage.map.point_at(7.6e-3, 45.0)
    QTest.qWait(400)
    shoot("map")
    stage.show_view("ceiling")
    window.session.drop_trial()


def shoot_compare(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """Boathouse's three boxes beside each other."""
    window.session.start(Document(read_demo_project("boathouse")), None)
    for depth in (0.40, 0.42, 0.44):
        window.session.edit_number(("box", "case", "depth"), depth)
    window.session.switch("B")
    window.show_stage("compare")
    settled(window)
    shoot("compare")
    window.session.start(Document(project_of(read_demo("slipway"))), None)


def shoot_power(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """Through the hours, the truth about a board, and the wiring picture."""
    stage = window.stage
    assert isinstance(stage, PowerStage)
    for view, name in (("hours", "power"), ("boards", "power-boards"), ("wiring", "power-wiring")):
        stage.show_view(view)
        settled(window)
        shoot(name)


def settled(window: MainWindow) -> None:
    """Until doubt, moves, and what the stage asks for are there."""
    for _ in range(600):
        QTest.qWait(50)
        busy = window.doubting.busy or window.side.moves.busy
        asks = getattr(window.stage, "map", window.stage)
        if not busy and not getattr(asks, "busy", False):
            break
    QTest.qWait(250)


def shoot_question(window: MainWindow, ask: Callable[[], object], file: Path) -> None:
    """A question over the window, with its details open."""

    def look() -> None:
        box = QApplication.activeModalWidget()
        for button in box.findChildren(QPushButton):
            if "Details" in button.text():
                button.click()
        QTest.qWait(100)
        picture, question = window.grab(), box.grab()
        painter = QPainter(picture)
        x, y = (
            (picture.width() - question.width()) // 2,
            (picture.height() - question.height()) // 2,
        )
        painter.drawPixmap(x, y, question)
        painter.end()
        picture.save(str(file))
        print(file.stem)
        box.reject()

    QTimer.singleShot(200, look)
    ask()


def shoot_start(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """The first page of a new project."""
    window.session.start_blank()
    window.show_start()
    shoot("start")
    for page in window.findChildren(StartPage):
        page.leave()
    window.session.start(Document(project_of(read_demo("slipway"))), None)


def shoot_files(window: MainWindow, folder: Path) -> None:
    """Another window has saved the file."""
    session, messages = window.session, window.messages
    window.show_stage("size")
    session.edit_number(("box", "case", "depth"), 0.17)
    other = set_number(read_demo("slipway"), ("box", "openings", 0, "added_mass"), 0.03)
    text = differing_text(session.design, other)
    settled(window)
    shoot_question(
        window,
        lambda: messages.changed_elsewhere("slipway.firecrest", text),
        folder / "files-changed.png",
    )
    session.undo()


def main(folder: Path) -> None:
    """Save every picture to ``folder``."""
    folder.mkdir(parents=True, exist_ok=True)
    application = make_application()
    window = make_window(read_demo("slipway"))
    window.resize(1280, 800)
    window.show()

    def shoot(name: str) -> None:
        for _ in range(3):
            application.processEvents()
        QTest.qWait(120)
        window.grab().save(str(folder / f"{name}.png"))
        print(name)

    window.choose_theme("light")
    for key in STAGES:
        window.show_stage(key)
        if key == "parts":
            shoot_parts(window, shoot)
        elif key == "power":
            shoot_power(window, shoot)
        elif key == "compare":
            shoot_compare(window, shoot)
        else:
            settled(window)
            if key == "size":
                window.try_move("1")
                QTest.qWait(400)
            shoot(key)
            window.session.drop_trial()
    shoot_boxes(window, shoot)
    shoot_start(window, shoot)
    shoot_files(window, folder)
    window.choose_theme("dark")
    for _ in range(3):
        window.zoom("1")
    shoot("size-dark")


main(Path(sys.argv[1]))
