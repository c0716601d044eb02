"""The regions of the window, and how the keyboard goes from one to the next."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication, QStackedWidget, QWidget

from firecrest.app.shelf_actions import ShelfActions
from firecrest.app.stages.base import Stage
from firecrest.app.widgets.chain import Chain
from firecrest.app.widgets.place import bring_into_view
from firecrest.app.widgets.rail import Rail
from firecrest.app.widgets.side import SidePanel
from firecrest.app.widgets.stops import next_stop, of_group, stops_in
from firecrest.app.widgets.strip import Strip


class Regions(ShelfActions):
    """Menu line, strip, rail, stage, side panel and chain as the keyboard sees them."""

    menu_line: QWidget
    strip: Strip
    rail: Rail
    side: SidePanel
    chain: Chain
    stack: QStackedWidget

    @property
    def stage(self) -> Stage:
        """The stage on show."""
        found = self.stack.currentWidget()
        assert isinstance(found, Stage)
        return found

    def _regions(self) -> list[QWidget]:
        return [self.strip, self.rail, self.stage, self.side, self.chain]

    def next_region(self, step: int = 1) -> None:
        """Keyboard to the next region of the window."""
        regions = [r for r in self._regions() if r.isVisible()]
        focus = QApplication.focusWidget()
        here = next((k for k, r in enumerate(regions) if focus and r.isAncestorOf(focus)), -step)
        region = regions[(here + step) % len(regions)]
        for child in region.findChildren(QWidget):
            if child.isVisible() and child.focusPolicy() & Qt.FocusPolicy.TabFocus:
                child.setFocus(Qt.FocusReason.TabFocusReason)
                bring_into_view(child)
                break

    def previous_region(self) -> None:
        """Keyboard to the region before."""
        self.next_region(-1)

    def focusNextPrevChild(self, next: bool) -> bool:
        """Tab goes from region to region as one works; strip, rail and chain are one stop each."""
        now = QApplication.focusWidget()
        side = [w for w in stops_in(self.side) if w.isVisible()]
        stops = [
            *(w for w in stops_in(self.menu_line) if w.isEnabled()),
            *of_group(self.strip, now),
            *of_group(self.rail, now),
            *self.stage.stops(),
            *side,
            *of_group(self.chain, now),
        ]
        found = next_stop(stops, now, forward=next)
        if found is None:
            return super().focusNextPrevChild(next)
        reason = Qt.FocusReason.TabFocusReason if next else Qt.FocusReason.BacktabFocusReason
        found.setFocus(reason)
        bring_into_view(found)
        return True
