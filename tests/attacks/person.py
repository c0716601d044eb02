"""Someone at the window who does a bit of everything, by chance."""

import gc
import os
import threading

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QPushButton

from firecrest.app.stages.table import STAGES
from firecrest.app.stages.views import VOICE, VOICE_PAGES
from firecrest.app.start_page import StartPage, Tour
from firecrest.app.widgets.number_row import NumberRow
from firecrest.core.errors import FirecrestError
from firecrest.design.edits.paths import set_number, value_at
from firecrest.design.edits.voice import KINDS as BLOCKS
from firecrest.design.fields import field_facts
from firecrest.design.project import project_of
from firecrest.files.container import Document
from firecrest.files.demos import demo_names, read_demo
from firecrest.shelf.kinds import KINDS
from tests.attacks.random_designs import number_in, random_design

WORDS = ("alder", "under €40", "fs under 60 hz", "ø 100 to 200", "zzz", "4 ohm, paper", "<b>")
TYPED = ("7.1 L", "1/2 in", "340-2*12 mm", "120", "nonsense", "", "5e9", "0,25 cu ft")


class Person:
    """Acts on one window; every act is one that a person can do."""

    def __init__(self, window, dice, folder):
        self.window, self.dice, self.folder = window, dice, folder
        self.bases = [read_demo(name) for name in demo_names()]

    def acts(self):
        """Names of all there is to do."""
        return [name for name in sorted(dir(self)) if name.startswith("do_")]

    def act(self):
        """One thing."""
        act = getattr(self, self.dice.choice(self.acts()))
        act()
        QTest.qWait(self.dice.choice((0, 0, 5, 30)))
        return act.__name__

    @property
    def session(self):
        return self.window.session

    def _figure(self):
        """A path of a figure of the design, and its declaration."""
        design = self.session.design
        places = [
            ("box", "case"),
            ("brief", "loudness"),
            ("brief", "bass"),
            ("power", "boards", 0, "part"),
        ]
        for name in ("chambers", "groups", "openings"):
            places += [("box", name, k) for k in range(len(getattr(design.box, name)))]
        owner = value_at(design, self.dice.choice(places))
        path = next(p for p in places if value_at(design, p) is owner)
        names = [n for n in type(owner).__dataclass_fields__ if field_facts(type(owner), n)]
        name = self.dice.choice(names)
        return (*path, name), field_facts(type(owner), name)

    def do_stage(self):
        self.window.show_stage(self.dice.choice(list(STAGES)))

    def do_keep_ghost(self):
        self.window.toggle_ghost()

    def do_way(self):
        self.window.add_way()

    def do_voice(self):
        """Something of the lanes, handles, pages or views of Voice."""
        self.window.show_stage("voice")
        stage, dice = self.window.stage, self.dice
        voice = self.session.design.voice
        channel = dice.randrange(len(voice.channels))
        what = dice.randrange(6)
        if what == 0:
            stage.show_work(dice.choice([key for key, _ in VOICE_PAGES]))
        elif what == 1:
            stage.show_view(dice.choice([key for key, _ in VOICE]))
        elif what == 2 and stage.lanes is not None:
            block = dice.choice(stage.lanes.rows[channel].blocks)
            stage.choose(channel, block.item.key)
        elif what == 3:
            stage._add(dice.choice(list(BLOCKS)))
        elif what == 4 and stage.lanes is not None:
            block = dice.choice(stage.lanes.rows[channel].blocks)
            asked = dice.choice(("bypass", "earlier", "later", "remove"))
            stage.ask(channel, block.item.key, asked)
        else:
            keys = (Qt.Key.Key_Left, Qt.Key.Key_Up, Qt.Key.Key_PageUp, Qt.Key.Key_Delete)
            shown = [h for h in stage.handles.handles if h.isVisible()]
            if shown:
                QTest.keyClick(dice.choice(shown), dice.choice(keys))

    def do_button(self):
        """A button of the stage, as one presses anything: what asks or leaves is not pressed."""
        held = ("…", "Take", "Sheet")
        found = [
            b
            for b in self.window.stage.findChildren(QPushButton)
            if b.isVisible() and b.isEnabled() and not any(word in b.text() for word in held)
        ]
        if found:
            self.dice.choice(found).click()

    def do_played(self):
        field = getattr(self.window.stage, "played", None)
        if field is not None:
            field.textActivated.emit(self.dice.choice(("at 1 W", "5 V", "loud", "at the promise")))

    def do_beginning(self):
        getattr(self.window, self.dice.choice(("show_start", "start_tour", "toggle_side")))()
        for card in [*self.window.findChildren(StartPage), *self.window.findChildren(Tour)]:
            card.leave()

    def do_resize(self):
        self.window.resize(*self.dice.choice(((1024, 700), (1280, 800), (1600, 900))))

    def do_tab(self):
        for _ in range(self.dice.randrange(1, 30)):
            QTest.keyClick(QApplication.focusWidget() or self.window, Qt.Key.Key_Tab)

    def do_edit(self):
        """Mostly near what stands there: the whole range is refused more often than not."""
        path, facts = self._figure()
        value = number_in(self.dice, facts)
        now = value_at(self.session.design, path)
        if now and not facts.whole and self.dice.random() < 0.7:
            value = min(max(now * self.dice.uniform(0.9, 1.1), facts.low), facts.high)
        self.session.attempt(lambda: self.session.edit_number(path, value))

    def do_drag(self):
        path, facts = self._figure()
        value = value_at(self.session.design, path) or facts.low
        for step in range(12):
            new = min(max(value * (1 + 0.01 * step), facts.low), facts.high)
            new = round(new) if facts.whole else new
            self.session.attempt(lambda v=new: self.session.edit_number(path, v, fold="drag"))
            QApplication.processEvents()
        self.session.history.end_fold()

    def do_ghost(self):
        path, facts = self._figure()
        try:
            self.session.try_design(
                set_number(self.session.design, path, number_in(self.dice, facts))
            )
        except FirecrestError:
            return
        QApplication.processEvents()
        self.session.drop_trial()

    def do_type(self):
        rows = [r for r in self.window.stage.findChildren(NumberRow) if r.isVisible()]
        if not rows:
            return
        edit = self.dice.choice(rows).edit
        edit.setFocus()
        edit.selectAll()
        near = f"{edit.text().split()[0]}*1.02" if edit.text()[:1].isdigit() else ""
        QTest.keyClicks(edit, self.dice.choice((near, near, *TYPED)))
        key = Qt.Key.Key_Return if self.dice.random() < 0.7 else Qt.Key.Key_Escape
        QTest.keyClick(edit, key)

    def do_undo(self):
        for _ in range(self.dice.choice((1, 3, 10))):
            self.window.undo()

    def do_redo(self):
        self.window.redo()

    def do_dialog(self):
        name = self.dice.choice(("help_here", "show_keys", "about"))
        getattr(self.window, name)()
        QTest.qWait(5)
        for dialog in self.window.findChildren(QDialog):
            dialog.close()

    def do_table(self):
        chart = getattr(self.window.stage, "chart", None)
        if chart is not None and chart.content is not None:
            chart.show_table()
            QTest.qWait(5)
            for dialog in chart.findChildren(QDialog):
                dialog.close()

    def do_zoom(self):
        self.window.zoom(self.dice.choice(("1", "-1", "0", "0")))

    def do_find(self):
        finder = self.window.finder
        QTest.keyClicks(finder, self.dice.choice(("dep", "alder", "save", "x")))
        QTest.keyClick(finder, Qt.Key.Key_Escape)

    def do_theme(self):
        if self.dice.random() < 0.3:
            self.window.choose_theme(self.dice.choice(("light", "dark")))

    def do_search(self):
        stage = self._parts()
        stage.shelf.bar.search.setText(self.dice.choice(("", "", *WORDS)))

    def do_kind(self):
        stage = self._parts()
        stage.shelf.choose_kind(self.dice.choice(["", *KINDS]))
        stage.shelf.bar.retune.setChecked(self.dice.random() < 0.3)

    def do_row(self):
        stage = self._parts()
        rows = stage.shelf.table.rows_model.rows
        if rows:
            stage.shelf.table.selectRow(self.dice.randrange(len(rows)))
            if self.dice.random() < 0.4:
                stage.shelf.take(stage.shelf.table.current)

    def do_sheet(self):
        stage = self._parts()
        entry = self.dice.choice(list(self.session.shelf.entries().values()))
        stage.open_entry(entry.id)
        QTest.qWait(5)
        if self.dice.random() < 0.5:
            self.do_type()
        if self.dice.random() < 0.2:
            stage.paste(True)
        stage.close_sheet()

    def do_part(self):
        stage = self._parts()
        stage.open_path(("box", "groups", 0, "driver"))
        stage.choose_view(self.dice.choice(("figures", "wiring")))
        QTest.qWait(5)
        stage.close_sheet()

    def _parts(self):
        self.window.show_stage("parts")
        return self.window.stage

    def do_size(self):
        self.window.show_stage("size")
        stage = self.window.stage
        box = self.session.design.box
        kind = self.dice.choice([k for k in ("chambers", "groups", "openings") if getattr(box, k)])
        stage.select(("box", kind, self.dice.randrange(len(getattr(box, kind)))))
        views = ["ceiling", "response", "travel", "impedance", "delay", "pressure"]
        stage.show_view(self.dice.choice([*views, "ports"]))
        if self.dice.random() < 0.2:
            stage.open_starts()
            QTest.qWait(30)
            stage.close_starts()

    def do_save(self):
        self.session.save(self.folder / f"{self.dice.randrange(4)}.firecrest")

    def do_open(self):
        files = sorted(self.folder.glob("*.firecrest"))
        if files and self.dice.random() < 0.5:
            self.session.open(self.dice.choice(files))

    def do_demo(self):
        if self.dice.random() < 0.3:
            self.session.start(Document(project_of(self.dice.choice(self.bases))), None)

    def do_random_design(self):
        if self.dice.random() < 0.3:
            self.session.start(Document(project_of(random_design(self.dice, self.bases))), None)


def footprint():
    """What the program holds: memory in MB, widgets, threads, descriptors."""
    with open("/proc/self/statm") as stream:
        pages = int(stream.read().split()[1])
    return {
        "memory": pages * os.sysconf("SC_PAGE_SIZE") / 2**20,
        "widgets": len(QApplication.allWidgets()),
        "threads": max(threading.active_count(), len(os.listdir("/proc/self/task"))),
        "descriptors": len(os.listdir("/proc/self/fd")),
        "objects": len(gc.get_objects()),
    }
