"""The main window: menu line, promise strip, rail, stage, side panel and chain."""

from functools import partial

from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QAction, QCloseEvent, QKeySequence, QResizeEvent
from PySide6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QMenu,
    QScrollArea,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.actions import ACTIONS, MENUS, Action
from firecrest.app.announcing import Announcer, announce
from firecrest.app.beginning import Beginning
from firecrest.app.doubting import Doubting
from firecrest.app.held_key import HeldKey
from firecrest.app.messages import Messages
from firecrest.app.session import Session
from firecrest.app.settings import settings
from firecrest.app.stages.table import STAGES, stage_class
from firecrest.app.theme.size import desktop_share, fix, sized, text_size
from firecrest.app.theme.style import holder
from firecrest.app.widgets.chain import Chain
from firecrest.app.widgets.drawer import Drawer
from firecrest.app.widgets.find import FindField
from firecrest.app.widgets.menu_bar import MenuBar
from firecrest.app.widgets.notice import Notice
from firecrest.app.widgets.pages import Pages
from firecrest.app.widgets.plain import label, menu_text, tip, tip_text
from firecrest.app.widgets.rail import Rail
from firecrest.app.widgets.side import SidePanel
from firecrest.app.widgets.strip import Strip
from firecrest.app.widgets.variants import VariantRow
from firecrest.design.edits.paths import Path as FieldPath
from firecrest.present.frame.find import stage_of
from firecrest.present.text.sentences import FIELD_OF_PROMISE
from firecrest.proposals.elements import add_chamber

LEAST, ROOMY = (1024, 700), 1180
LEAST_STAGE = 400
ONCE = ("beside", "ghost", "rail", "side", "full", "copy_variant")
"""Actions that a held key does once: they would go to and fro."""
NARROW_RAIL, SIDE = "shown/narrow rail", "shown/side"


class MainWindow(Beginning):
    """One window on one document."""

    undo_button: QToolButton
    redo_button: QToolButton

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        session.setParent(self)
        self.messages = Messages(self)
        text_size.changed.connect(self._arrange)
        self.resize(1280, 800)
        self.setAcceptDrops(True)
        self._visited: list[str] = ["promise"]
        self._at = 0
        self.actions_by_id: dict[str, QAction] = {}
        self._build()
        self._connect()
        self._restore_layout()
        self.show_stage(settings.get("stage", "size"))
        self._refresh_file()

    # building -------------------------------------------------------------------

    def _build(self) -> None:
        self.doubting = Doubting(self.session)
        self.held_key = HeldKey(self, Qt.Key.Key_B, lambda: self.session.show_beside(None))
        self.strip = Strip(self.session)
        self.rail = Rail(self.session)
        self.side = SidePanel(self.session, self.doubting)
        self.chain = Chain(self.session)
        self.stages = {}
        self.stack = Pages()
        page = QScrollArea()  # for texts so large that a stage has no room
        page.setWidgetResizable(True)
        page.setWidget(self.stack)
        middle = QHBoxLayout()
        middle.setSpacing(0)
        self.drawer = Drawer(self.side)
        for widget, stretch in ((self.rail, 0), (page, 1), (self.drawer, 0)):
            middle.addWidget(widget, stretch)
        whole = QWidget()
        self._whole = column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.menu_line = self._menu_line()
        column.addWidget(self.menu_line)
        column.addWidget(self.strip)
        column.addLayout(middle, 1)
        column.addWidget(self.chain)
        self.setCentralWidget(whole)
        self.notice = Notice(whole)

    def _menu_line(self) -> QWidget:
        line = QWidget()
        line.setObjectName("menuLine")
        line.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        fix(line, height=38)
        row = QHBoxLayout(line)
        row.setContentsMargins(12, 0, 12, 0)
        row.setSpacing(8)
        mark = label()
        mark.setPixmap(QApplication.windowIcon().pixmap(24, 24))
        row.addWidget(mark)
        row.addWidget(self._menus(), 0, Qt.AlignmentFlag.AlignVCenter)
        row.addSpacing(16)
        self.project = label("", "project")
        self.saved = label("", "second")
        row.addWidget(self.project)
        self.variants = VariantRow(self.session, self.copy_variant, self.fill_variant_menu)
        row.addWidget(self.variants)
        row.addWidget(self.saved)
        row.addStretch(1)
        for action, text in (("undo", "↶"), ("redo", "↷")):
            button = QToolButton()
            button.setDefaultAction(self.actions_by_id[action])
            button.setText(text)
            fix(button, width=28, height=26)
            row.addWidget(button)
            setattr(self, f"{action}_button", button)
        self._as_room_lasts = (
            (1180, self.variants.name),
            (1180, self.variants.word),
            (900, self.saved),
            (800, self.variants),
            (700, self.undo_button),
            (700, self.redo_button),
            (600, self.project),
        )
        self.finder = FindField(self._findable)
        row.addWidget(self.finder)
        return line

    def _menus(self) -> MenuBar:
        bar = MenuBar()
        menus = {name: bar.addMenu(name) for name in MENUS}
        subs: dict[str, QMenu] = {}
        for action in ACTIONS:
            if action.break_before:
                menus[action.menu].addSeparator()
            menu = menus[action.menu]
            if action.id == "save":
                self.recent = menu.addMenu("Open &recent")
                menu.addSeparator()
            if action.sub and action.sub not in subs:
                subs[action.sub] = menu.addMenu(action.sub)
            (subs[action.sub] if action.sub else menu).addAction(self._action(action))
        self.recent.aboutToShow.connect(self.fill_recent)
        return bar

    def _action(self, action: Action) -> QAction:
        made = QAction(action.text, self)
        made.setAutoRepeat(action.id not in ONCE)
        if action.shortcut:
            made.setShortcuts(QKeySequence.listFromString(action.shortcut))
        if action.id in ("rail", "side", "full", "ghost", "beside"):
            made.setCheckable(True)
        slot = getattr(self, action.slot)
        if action.argument:
            made.triggered.connect(lambda _=False, a=action.argument: slot(a))
        else:
            made.triggered.connect(lambda _=False: slot())
        self.actions_by_id[action.id] = made
        self.addAction(made)
        return made

    def _connect(self) -> None:
        self.rail.chosen.connect(self.show_stage)
        self.session.changed.connect(self._refresh_file)
        self.session.file_changed.connect(self._refresh_file)
        self.session.reveal.connect(self.reveal)
        self.session.refused.connect(self.notice.tell)
        self.session.told.connect(self.notice.tell)
        self.session.beside_changed.connect(self._refresh_file)
        self.session.changed.connect(self.notice.drop_offers)
        self.drawer.toggled.connect(self.actions_by_id["side"].setChecked)
        self.announcer = Announcer(self.session, self)
        self.session.file_changed.connect(self.notice.hide)
        self.session.shelf.refused.connect(self.notice.tell)
        for key, meter in self.strip.meters.items():
            meter.pressed.connect(partial(self._open_promise, key))

    # state on show --------------------------------------------------------------

    def _refresh_file(self) -> None:
        session = self.session
        self.actions_by_id["ghost"].setChecked(session.kept is not None)
        self.actions_by_id["beside"].setChecked(session.beside is not None)
        name = session.design.name
        self.project.setText(name)
        where = session.path.name if session.path else "not saved yet"
        self.saved.setText("● unsaved changes" if session.modified else where)
        self.setWindowTitle(f"{name}{' *' if session.modified else ''} – Firecrest")
        history = self.stage.editing.history if self.stages else session.history
        for key, steps, word in (("undo", history.past, "Undo"), ("redo", history.future, "Redo")):
            action = self.actions_by_id[key]
            action.setEnabled(bool(steps))
            named = f"{word}: {steps[-1][0]}" if steps else word
            action.setText(menu_text(named))
            action.setToolTip(tip_text(named))
            button: QToolButton = getattr(self, f"{key}_button")
            button.setText("↶" if key == "undo" else "↷")
            tip(button, named)
            button.setAccessibleName(named)

    def show_stage(self, key: str) -> None:
        """Show a stage and remember the visit."""
        if key not in STAGES:
            key = "size"
        self._enter(key)
        self.rail.buttons[key].setFocus(Qt.FocusReason.OtherFocusReason)
        if self._visited[self._at] != key:
            self._visited = [*self._visited[: self._at + 1], key]
            self._at += 1

    def _enter(self, key: str) -> None:
        if key not in self.stages:
            self.stages[key] = stage_class(key)(self.session)
            self.stages[key].edits_elsewhere.connect(self._refresh_file)
            fix(self.stages[key], least_height=LEAST_STAGE)
            self.stack.addWidget(self.stages[key])
        self.stack.setCurrentWidget(self.stages[key])
        self._refresh_file()
        self.rail.set_current(key)
        settings.put("stage", key)

    def go_back(self) -> None:
        """To the place visited before."""
        if self._at > 0:
            self._at -= 1
            self._enter(self._visited[self._at])

    def go_forward(self) -> None:
        """Undo going back."""
        if self._at + 1 < len(self._visited):
            self._at += 1
            self._enter(self._visited[self._at])

    def reveal(self, path: FieldPath) -> None:
        """Show the field of ``path``, on its own stage when this one has none."""
        self.notice.hide()
        if self.stage.reveal(path):
            return
        self.show_stage(stage_of(path))
        self.stage.reveal(path)

    def _open_promise(self, key: str) -> None:
        self.show_stage("promise")
        self.stage.reveal(FIELD_OF_PROMISE[key])

    def look_worst(self) -> None:
        """Let the crosshair go back to where loudness is held."""
        self.session.look_at(None)

    # the rest of the actions ---------------------------------------------------------

    def add_way(self) -> None:
        """One more channel with drivers of its own, shown where it is crossed over."""
        from firecrest.app.stages.voice.stage import VoiceStage

        self.show_stage("voice")
        stage = self.stage
        assert isinstance(stage, VoiceStage)
        stage.add_way()

    def add_chamber(self) -> None:
        """One more chamber, cut from the air of the last one, shown where it is filled."""
        s = self.session
        place = len(s.design.box.chambers) - 1
        if s.attempt(lambda: s.apply(*add_chamber(s.design, place))):
            self.reveal(("box", "chambers", place + 1, "share"))

    def try_move(self, number: str) -> None:
        """Go to a next move, which tries it: Enter keeps it, Esc drops it."""
        self.drawer.show_panel(True)
        if not self.side.moves.arm(int(number)):
            self.session.refused.emit(f"There is no next move {number} here.")

    def undo(self) -> None:
        """Back one step."""
        self.stage.editing.undo()

    def redo(self) -> None:
        """Forward one step."""
        self.stage.editing.redo()

    def toggle_rail(self) -> None:
        """Rail narrow or wide, remembered."""
        narrow = self.actions_by_id["rail"].isChecked()
        settings.put(NARROW_RAIL, narrow)
        self.rail.set_narrow(narrow or self._small())

    def toggle_side(self) -> None:
        """Side panel shown or not."""
        self.drawer.toggle()
        if not self._small():
            settings.put(SIDE, not self.side.isHidden())

    def toggle_full_screen(self) -> None:
        """The whole screen, or back."""
        self.showNormal() if self.isFullScreen() else self.showFullScreen()

    def zoom(self, steps: str) -> None:
        """Larger or smaller text with everything around it, remembered; 0 steps: 100 %."""
        text_size.choose(zoom=text_size.next_zoom(int(steps)))
        settings.put("zoom", text_size.zoom)
        announce(self, f"Text at {100 * text_size.factor:.0f} %")

    def choose_theme(self, choice: str) -> None:
        """Light, dark, or as the desktop has it."""
        holder.choose(choice)
        settings.put("theme", choice)

    def reset_layout(self) -> None:
        """Everything where it was on the first day."""
        settings.forget("splitter", "window", "shown")
        self.actions_by_id["rail"].setChecked(False)
        self.resize(1280, 800)
        self.rail.set_narrow(False)
        self.drawer.show_panel(True)

    # window -------------------------------------------------------------------------

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._arrange()

    def _arrange(self) -> None:
        """What has room at this size of window and text."""
        share = min(text_size.factor, 1.0)
        self.setMinimumSize(*(round(share * pixels) for pixels in LEAST))
        small = self._small()
        self.rail.set_narrow(small or self.actions_by_id["rail"].isChecked())
        self.strip.set_small(small)
        self.chain.set_small(small)
        self.drawer.set_small(small)
        for least, widget in self._as_room_lasts:
            widget.setVisible(self.width() >= sized(least))
        self._whole.activate()
        self.drawer.place()

    def _small(self) -> bool:
        """Whether the window has no room for a panel beside the stage."""
        return self.width() < sized(ROOMY)

    def _restore_layout(self) -> None:
        geometry = settings.get_state("window/geometry")
        if geometry:
            self.restoreGeometry(geometry)
        self.actions_by_id["rail"].setChecked(settings.get(NARROW_RAIL, False))
        self.rail.set_narrow(settings.get(NARROW_RAIL, False))
        if not settings.get(SIDE, True):
            self.drawer.show_panel(False)

    def end_at_once(self, number: int) -> None:
        """A signal ends the program: unsaved work is kept aside without a question."""
        self.keep_typed()
        self.session.keep_now()
        self._leave()
        QApplication.exit(128 + number)

    def _leave(self) -> None:
        for stage in self.stages.values():
            stage.leave()
        self.doubting.stop()
        self.side.stop()
        self.session.close()

    def changeEvent(self, event: QEvent) -> None:
        super().changeEvent(event)
        if event.type() == QEvent.Type.ActivationChange and self.isActiveWindow():
            self.look_at_file()

    def event(self, event: QEvent) -> bool:
        """The desktop has another text size."""
        if event.type() == QEvent.Type.ApplicationFontChange:
            dots = self.screen().logicalDotsPerInch()
            text_size.choose(desktop=desktop_share(QApplication.font(), dots))
        return super().event(event)

    def closeEvent(self, event: QCloseEvent) -> None:
        if not self.may_leave():
            event.ignore()
            return
        settings.put_state("window/geometry", bytes(self.saveGeometry().data()))
        self._leave()
        event.accept()
