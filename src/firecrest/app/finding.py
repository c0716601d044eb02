"""Finding things by name, and the guide: what the window offers to those who look for something."""

from functools import partial
from typing import Protocol, cast

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QApplication

from firecrest.app.about import about_text, keys_text, text_dialog
from firecrest.app.actions import ACTIONS
from firecrest.app.guide_window import GuideWindow
from firecrest.app.stages.views import VIEWS, VOICE_PAGES
from firecrest.app.variant_actions import VariantActions
from firecrest.app.widgets.find import FindField, Found
from firecrest.design.edits.paths import Path
from firecrest.present.frame.find import STAGE_NAMES, findable
from firecrest.present.frame.synonyms import other_words
from firecrest.present.text.guide import pages


class ViewedStage(Protocol):
    """A stage with views above, or with pages below."""

    def show_view(self, view: object) -> None:
        """Show a view of the heart."""

    def show_work(self, work: object) -> None:
        """Show a page below."""


class Finding(VariantActions):
    """The finding half of the main window."""

    finder: FindField
    actions_by_id: dict[str, QAction]
    guide: GuideWindow | None = None

    def reveal(self, path: Path) -> None:
        """Show the field of ``path``; the window knows how."""

    def find_anything(self) -> None:
        """Keyboard to the find field."""
        self.finder.setFocus(Qt.FocusReason.ShortcutFocusReason)
        self.finder.selectAll()

    def find_here(self) -> None:
        """Keyboard to the search of the page on show, or to the find field where it has none."""
        search = self.stage.search_field()
        if search is None:
            self.find_anything()
        else:
            search.setFocus(Qt.FocusReason.ShortcutFocusReason)
            search.selectAll()

    def _findable(self) -> list[Found]:
        names = [(a, a.text.replace("&", "").rstrip("…")) for a in ACTIONS]
        commands = [
            Found(
                name,
                a.shortcut.split(";")[0] or "command",
                self.actions_by_id[a.id].trigger,
                other_words(name),
            )
            for a, name in names
        ]
        fields = [
            Found(text, kind, partial(self.reveal, path), other_words(label))
            for text, kind, path, label in findable(self.session.design)
        ]
        views = [self._view(key, *view) for key, names in VIEWS for view in names]
        views += [self._page_below(*page) for page in VOICE_PAGES]
        return commands + fields + views + self.shelf_findable() + self._guide_findable()

    def _view(self, stage: str, view: str, name: str) -> Found:
        def shown() -> None:
            self.show_stage(stage)
            cast(ViewedStage, self.stage).show_view(view)

        return Found(name, f"view of {STAGE_NAMES[stage]}", shown, f"view {stage}")

    def _page_below(self, page: str, name: str) -> Found:
        def shown() -> None:
            self.show_stage("voice")
            cast(ViewedStage, self.stage).show_work(page)

        return Found(name, f"page of {STAGE_NAMES['voice']}", shown, "page voice")

    def _guide_findable(self) -> list[Found]:
        """Pages and headings of the guide."""
        return [
            Found(heading, "guide", partial(self.open_guide, page.key, heading))
            for page in pages()
            for heading in page.headings
        ]

    def help_here(self) -> None:
        """The guide at the stage on show, and at what has the keyboard."""
        focus = QApplication.focusWidget()
        named = focus.accessibleName() if focus and self.stage.isAncestorOf(focus) else ""
        self.open_guide(self.stage.key, named.split(" of ")[0].split(":")[0])

    def open_guide(self, key: str, word: str = "") -> None:
        """A page of the guide at the first place of a word."""
        if self.guide is None:
            self.guide = GuideWindow(self)
        self.guide.open_at(key, word)

    def show_keys(self) -> None:
        """All shortcuts."""
        text_dialog(self, "Keys", keys_text()).show()

    def about(self) -> None:
        """Version and licences."""
        text_dialog(self, "About Firecrest", about_text()).show()
