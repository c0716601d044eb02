"""Parts: the tray over the shelf, and the sheet of one part."""

from functools import partial
from typing import Any

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLineEdit,
    QMenu,
    QPushButton,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from firecrest.app.editing import Editing
from firecrest.app.session import Session
from firecrest.app.stages.base import Stage
from firecrest.app.stages.parts.sheet_page import SheetPage
from firecrest.app.stages.parts.shelf_panel import ShelfPanel
from firecrest.app.stages.parts.subject import Subject, of_design, of_shelf
from firecrest.app.stages.parts.tray import Tray
from firecrest.app.stages.parts.wiring_page import WiringPage
from firecrest.app.widgets.choices import Segments
from firecrest.app.widgets.place import bring_into_view
from firecrest.app.widgets.plain import label, tip
from firecrest.core.errors import FirecrestError
from firecrest.design.edits.paths import value_at
from firecrest.present.parts import parts, updates
from firecrest.present.parts.parts import PartCard
from firecrest.present.parts.starts import new_part
from firecrest.proposals.placing import number_at
from firecrest.shelf.entry import Entry
from firecrest.shelf.kinds import KINDS, kind_of_part


class PartsStage(Stage):
    """Two pages: tray over shelf, and one part's sheet."""

    key, title, subtitle = "parts", "Parts", "what you chose, and what else would do"

    def __init__(self, session: Session) -> None:
        self.subject: Subject | None = None
        self.view = "figures"
        self.pasting = False
        self._chosen: Any = ("box", "groups", 0, "driver")
        super().__init__(session)
        self._bar_buttons()
        self.heart.hide()
        column = self.layout()
        assert isinstance(column, QVBoxLayout)
        column.removeWidget(self.splitter)
        self.pages = QStackedWidget()
        self.pages.addWidget(self._browse())
        self.pages.addWidget(self._one_part())
        column.addWidget(self.pages, 1)
        session.shelf.changed.connect(self._shelf_changed)

    # building --------------------------------------------------------------------

    def _bar_buttons(self) -> None:
        paste = QPushButton("Paste a sheet")
        tip(paste, "Make a new driver from the text of a data sheet")
        paste.clicked.connect(lambda: self.new_part("driver", pasting=True))
        self.new_button = QToolButton()
        self.new_button.setText("New part ▾")
        self.new_button.setProperty("role", "main")
        self.new_button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self.new_button)
        for kind in KINDS.values():
            menu.addAction(kind.word).triggered.connect(
                lambda _=False, k=kind.key: self.new_part(k)
            )
        self.new_button.setMenu(menu)
        self.bar.addWidget(paste)
        self.bar.addWidget(self.new_button)

    def _browse(self) -> QWidget:
        page = QWidget()
        box = QVBoxLayout(page)
        box.setContentsMargins(0, 4, 0, 0)
        box.setSpacing(4)
        self.tray = Tray()
        self.tray.chosen.connect(self.choose)
        self.tray.opened.connect(lambda card: self.open_path(card.path))
        self.shelf = ShelfPanel(self.session)
        self.shelf.opened.connect(self.open_entry)
        self.shelf.kind_changed.connect(self._follow_kind)
        box.addWidget(self.tray)
        box.addWidget(self.shelf, 1)
        return page

    def _one_part(self) -> QWidget:
        page = QWidget()
        box = QVBoxLayout(page)
        box.setContentsMargins(0, 4, 0, 0)
        head = QHBoxLayout()
        back = QPushButton("‹ Parts")
        tip(back, "Back to the shelf (Esc)")
        back.clicked.connect(self.close_sheet)
        head.addWidget(back)
        self.part_name = label("", "panel")
        self.part_facts = label("", "second")
        head.addWidget(self.part_name)
        head.addWidget(self.part_facts)
        head.addStretch(1)
        self.shelf_button = QPushButton("Put on the shelf")
        self.shelf_button.clicked.connect(self._put_on_shelf)
        head.addWidget(self.shelf_button)
        self.paste_button = QPushButton("Paste figures")
        self.paste_button.clicked.connect(lambda: self.paste(not self.pasting))
        head.addWidget(self.paste_button)
        self.views = Segments([("figures", "Figures"), ("wiring", "Wiring")], "View")
        self.views.chosen.connect(self.choose_view)
        head.addWidget(self.views)
        box.addLayout(head)
        box.addWidget(self.splitter, 1)
        self._scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        return page

    # which page -----------------------------------------------------------------------

    @property
    def editing(self) -> Editing:
        """What undo works on: the sheet of a shelf part has steps of its own."""
        return self.session if self.subject is None else self.subject.editing

    def choose(self, card: PartCard) -> None:
        """A card of the tray: its kind becomes the shelf's."""
        self._chosen = card.path
        part = value_at(self.session.design, card.path)
        self.shelf.choose_kind(kind_of_part(part), number_at(self.session.design, card.path))
        self.refresh()

    def _follow_kind(self, kind: str) -> None:
        """The tray's card of the kind that the shelf shows."""
        design = self.session.design
        paths = [p for p in updates.part_paths(design) if kind_of_part(value_at(design, p)) == kind]
        if paths and self._chosen not in paths:
            self._chosen = paths[0]
            self.refresh()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Esc leaves the sheet."""
        if event.key() == Qt.Key.Key_Escape and self.subject is not None:
            self.close_sheet()
        else:
            super().keyPressEvent(event)

    def search_field(self) -> QLineEdit | None:
        """The shelf's search, while the shelf is on show."""
        return self.shelf.bar.search if self.pages.currentIndex() == 0 else None

    def leave(self) -> None:
        """What is under way is left."""
        self.shelf.leave()

    def open_path(self, path: Any) -> None:
        """The sheet of a part of the design."""
        self._open(of_design(self.session, path))

    def open_entry(self, id: str) -> None:
        """The sheet of a shelf part."""
        entry = self.session.shelf.entries().get(id)
        if entry is None:
            return
        try:
            self._open(of_shelf(self.session, entry))
        except FirecrestError as error:
            self.session.refused.emit(str(error))

    def _open(self, subject: Subject, *, pasting: bool = False) -> None:
        self._let_go()
        self.subject, self.view, self.pasting = subject, "figures", pasting
        if not subject.in_design:
            subject.editing.changed.connect(self._edited)
            subject.editing.tried.connect(self._ghost)
            subject.editing.refused.connect(self.session.refused)
            self._ghost()
        self.pages.setCurrentIndex(1)
        self._renew()
        self.edits_elsewhere.emit()
        self._to_sheet()

    def _to_sheet(self) -> None:
        """The keyboard goes where one goes on: to the text that is pasted, or the first figure."""
        page = self._scroll.widget()
        if not isinstance(page, SheetPage):
            return
        field = (
            page.panel.text
            if page.panel is not None
            else next(
                (w for w in self.stops() if isinstance(w, QLineEdit) and page.isAncestorOf(w)), None
            )
        )
        if field is not None:
            field.setFocus(Qt.FocusReason.OtherFocusReason)
            bring_into_view(field)
            QTimer.singleShot(0, field, partial(bring_into_view, field))

    def _let_go(self) -> None:
        """Nothing of the sheet is tried any more."""
        if self.subject is not None and not self.subject.in_design:
            self.subject.editing.blockSignals(True)
            self.subject.editing.deleteLater()
        self.session.drop_trial()
        self.subject = None

    def close_sheet(self) -> None:
        """Back to tray and shelf."""
        self._let_go()
        self.pages.setCurrentIndex(0)
        self._renew()
        self.edits_elsewhere.emit()
        self.shelf.to_row()

    def choose_view(self, view: str) -> None:
        """Figures, or wiring of a driver in the design."""
        self.view = view
        self._renew()

    def paste(self, on: bool) -> None:
        """Open or close the pasted sheet."""
        self.pasting = on
        self._built = None
        self._renew()
        self._to_sheet()

    def new_part(self, kind: str, *, pasting: bool = False) -> None:
        """A new part on the shelf, and its sheet."""
        entry = self.session.shelf.attempt(lambda shelf: shelf.add(kind, new_part(kind)))
        if isinstance(entry, Entry):
            self._open(of_shelf(self.session, entry), pasting=pasting)

    # a shelf part under edit ----------------------------------------------------------

    def _edited(self) -> None:
        assert self.subject is not None
        if not self.subject.keep():
            self.open_entry(self.subject.entry_id)
            return
        self._ghost()
        self._renew()
        self.edits_elsewhere.emit()

    def _ghost(self) -> None:
        """Show in the strip what the part of the sheet would do."""
        if self.subject is None or not self.subject.present:
            return
        editing = self.subject.editing
        self.session.try_design(editing.trial.design if editing.trial else editing.design)

    def _put_on_shelf(self) -> None:
        """The design's part as a shelf part: a new one, or its figures onto the one there is."""
        subject = self.subject
        if subject is None or not subject.in_design:
            return
        part = value_at(self.session.design, subject.path)
        entry = subject.entry
        if entry is None:
            made = self.session.shelf.attempt(
                lambda shelf: shelf.add(kind_of_part(part), parts.off_shelf(part))
            )
        else:
            made = self.session.shelf.attempt(
                lambda shelf: shelf.keep_part(entry, parts.off_shelf(part))
            )
        if isinstance(made, Entry):
            session = self.session
            session.attempt(
                lambda: session.apply(*parts.linked(session.design, subject.path, made))
            )
            self._open(of_design(self.session, subject.path))

    # showing -----------------------------------------------------------------------------

    def _shelf_changed(self) -> None:
        if self.subject is not None and not self.subject.in_design and self.subject.entry is None:
            self.close_sheet()
        self._changed()

    def reveal(self, path: Any) -> bool:
        if not self.isVisible():
            return False
        for part_path in updates.part_paths(self.session.design):
            if path[: len(part_path)] == part_path:
                self.open_path(part_path)
        if path[:2] == ("box", "groups") and path[-1] in ("in_series", "in_parallel", "coils"):
            self.open_path((*path[:3], "driver"))
            self.choose_view("wiring")
            return True
        return super().reveal(path)

    def structure(self) -> Any:
        if self.subject is None:
            return "shelf"
        if self.subject.in_design and not self.session.has(self.subject.path):
            self.subject = None
            self.pages.setCurrentIndex(0)
            return "shelf"
        part = self.subject.part
        names = ("claims", "table", "warmth", "large", "other_outputs")
        lists = tuple(len(getattr(part, name, ())) for name in names)
        kinds = getattr(part, "efficiency", None) is None, getattr(part, "chemistry", "")
        return self.subject, self.view, self.pasting, type(part), lists, kinds

    def build_lower(self) -> QWidget:
        if self.subject is None:
            return QWidget()
        if self.view == "wiring":
            return WiringPage(self.session, int(self.subject.path[2]))
        return SheetPage(self.session, self.subject, pasting=self.pasting, paste=self.paste)

    def refresh(self) -> None:
        """Draw tray and shelf, or the head of the sheet."""
        if self.subject is None:
            assessment = self.session.assessment
            cards = parts.cards(assessment)
            if self._chosen not in [c.path for c in cards]:
                self._chosen = cards[0].path
            news = updates.updates(self.session.design, self.session.shelf.entries())
            self.tray.show_parts(assessment, self._chosen, {u.path for u in news})
            self.shelf.refresh()
            return
        if self.subject.outdated:
            self.open_entry(self.subject.entry_id)
            return
        page = self._scroll.widget()
        if isinstance(page, WiringPage | SheetPage):
            page.refresh()
        self._head()

    def _head(self) -> None:
        subject = self.subject
        assert subject is not None
        part = subject.part
        self.part_name.setText(part.name)  # type: ignore[attr-defined]
        entry = subject.entry
        self.part_facts.setText(parts.standing(part, subject.in_design, entry))
        driver = subject.in_design and subject.path[-1] == "driver"
        self.views.setVisible(driver)
        self.views.choose(self.view)
        self.paste_button.setVisible(subject.path[-1] in ("driver", "radiator"))
        ahead = entry is not None and not parts.same_figures(part, entry.part)
        self.shelf_button.setVisible(subject.in_design and (entry is None or ahead))
        self.shelf_button.setText(
            "Put on the shelf" if entry is None else "Put these figures on the shelf"
        )
