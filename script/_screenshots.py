"""Pictures of every main view at 1280 x 800, from the demo data."""

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

os.environ["XDG_CONFIG_HOME"] = tempfile.mkdtemp()
os.environ["XDG_STATE_HOME"] = tempfile.mkdtemp()
os.environ["XDG_DATA_HOME"] = tempfile.mkdtemp()

from PySide6.QtTest import QTest
from PySide6.QtWidgets import QScrollArea

from firecrest.app.main_window import MainWindow
from firecrest.app.stages.cabinet.stage import CabinetStage
from firecrest.app.stages.parts.stage import PartsStage
from firecrest.app.stages.power.stage import PowerStage
from firecrest.app.stages.size.stage import SizeStage
from firecrest.app.stages.table import STAGES
from firecrest.app.stages.voice.stage import VoiceStage
from firecrest.app.start import make_application, make_window
from firecrest.app.start_page import StartPage
from firecrest.design.edits.cabinet import moved
from firecrest.design.edits.presets import keep_as
from firecrest.design.edits.voice import add_block
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import read_demo, read_demo_project


def shoot_parts(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """Choosing, and a contradicting sheet."""
    stage = window.stage
    assert isinstance(stage, PartsStage)

    def worked_out() -> None:
        for _ in range(200):
            QTest.qWait(30)
            if not stage.shelf.judged.chooser.running and not stage.shelf._rest.isActive():
                break

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
    stage.close_sheet()


def shoot_boxes(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """Radiators and their travel on the Size stage."""

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
    """Through the hours, and the wiring picture."""
    stage = window.stage
    assert isinstance(stage, PowerStage)
    for view, name in (("hours", "power"), ("wiring", "power-wiring")):
        stage.show_view(view)
        settled(window)
        shoot(name)


def shoot_voice(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """One way with bands; three measured ways lined up, crossed, off the axis, compared."""

    def show(name: str) -> VoiceStage:
        window.session.start(Document(project_of(read_demo(name))), None)
        window.show_stage("voice")
        stage = window.stage
        assert isinstance(stage, VoiceStage)
        settled(window)
        return stage

    session = window.session
    stage = show("slipway")
    session.apply(*add_block(session.design, 0, "parametric"))
    session.edit(("voice", "channels", 0, "blocks", 2, "frequency"), 900.0)
    session.edit(("voice", "channels", 0, "blocks", 2, "gain"), -2.5)
    stage.choose(0, "block-1")
    settled(window)
    shoot("voice")
    stage = show("headland")
    stage.show_work("line up")
    settled(window)
    stage.page.look.click()
    settled(window)
    stage.page.take.click()
    stage.show_view("cross")
    stage.show_work("protect")
    settled(window)
    shoot("voice-where-to-cross")
    stage.show_view("fan")
    stage.show_work("lanes")
    stage.choose(1, "block-0")
    settled(window)
    shoot("voice-three-ways")
    session.apply(*keep_as(session.design, "Indoors"))
    session.apply(*add_block(session.design, 0, "low_shelf"))
    stage.show_view("sum")
    stage.show_work("compare")
    settled(window)
    stage.page.start()
    settled(window)
    shoot("voice-compare")
    show("slipway")


def shoot_cabinet(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """The drawing, a tight spot, pieces and sheets, and what a print takes."""
    session, stage = window.session, window.stage
    assert isinstance(stage, CabinetStage)
    pack = ("power", "source", "mount")
    settled(window)
    shoot("cabinet")
    session.apply("Pack moved", moved(session.design, pack, 0.1, 0.0))
    stage.select(pack)
    settled(window)
    shoot("cabinet-tight-spot")
    window.undo()
    stage.show_view("pieces")
    settled(window)
    shoot("cabinet-pieces")
    session.start(Document(project_of(read_demo("lantern"))), None)
    settled(window)
    shoot("cabinet-print")
    stage.show_view("drawing")
    session.start(Document(project_of(read_demo("slipway"))), None)


def settled(window: MainWindow) -> None:
    """Until doubt, moves, and what the stage asks for are there."""
    for _ in range(600):
        QTest.qWait(50)
        busy = window.doubting.busy or window.side.moves.busy
        asks = getattr(window.stage, "map", window.stage)
        if not busy and not getattr(asks, "busy", False):
            break
    QTest.qWait(250)


def shoot_start(window: MainWindow, shoot: Callable[[str], None]) -> None:
    """The first page of a new project."""
    window.session.start_blank()
    settled(window)
    window.show_start()
    shoot("start")
    for page in window.findChildren(StartPage):
        page.leave()
    window.session.start(Document(project_of(read_demo("slipway"))), None)


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
        elif key == "voice":
            shoot_voice(window, shoot)
        elif key == "cabinet":
            shoot_cabinet(window, shoot)
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
    window.choose_theme("dark")
    for _ in range(3):
        window.zoom("1")
    shoot("size-dark")


main(Path(sys.argv[1]))
