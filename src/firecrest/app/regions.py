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


def _first_stop(region: QWidget) -> QWidget | None:
    """Where the keyboard enters a region; None while it is hidden or has nothing that takes it."""
    stops = region.stops() if isinstance(region, Stage) else stops_in(region)
    return next((w for w in stops if w.isVisible()), None)


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
        """Keyboard to the next region of the window that has anything to work with."""
        firsts = [(r, first) for r in self._regions() if (first := _first_stop(r)) is not None]
        now = QApplication.focusWidget()
        inside = (k for k, (r, _) in enumerate(firsts) if now is not None and r.isAncestorOf(now))
        _, first = firsts[(next(inside, -step) + step) % len(firsts)]
        first.setFocus(Qt.FocusReason.TabFocusReason)
        bring_into_view(first)

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
