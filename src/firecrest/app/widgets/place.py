"""Where the keyboard and the eye are on a page, so that both stay there when it is built anew."""

from dataclasses import dataclass

from PySide6.QtCore import Qt, QTimer
from PySide6.QtWidgets import QAbstractButton, QApplication, QLineEdit, QScrollArea, QWidget

from firecrest.app.widgets.number_row import NumberRow
from firecrest.app.widgets.stops import standing_for, stops_in


@dataclass(frozen=True)
class Place:
    """What has the keyboard, of which ``kind`` of widget it is ("" for nothing on this page), as
    which of all that can have it, the caret and what is marked in a line of text, and how far the
    page is scrolled.
    """

    key: str
    kind: str
    number: int
    caret: tuple[int, int, int]
    scrolled: tuple[int, int]


def key_of(widget: QWidget) -> str:
    """What a widget is known by, whichever object it is: its path, or its name."""
    parent = widget.parentWidget()
    if isinstance(parent, NumberRow):
        return ".".join(map(str, parent.binding.path))
    text = widget.text() if isinstance(widget, QAbstractButton) else ""
    return str(widget.property("path") or widget.accessibleName() or text)


def place_on(page: QWidget | None, scroll: QScrollArea) -> Place:
    """Where one is on ``page``."""
    scrolled = scroll.horizontalScrollBar().value(), scroll.verticalScrollBar().value()
    focus = QApplication.focusWidget()
    if page is None or focus is None or not page.isAncestorOf(focus):
        return Place("", "", -1, (0, -1, 0), scrolled)
    focus, caret = standing_for(focus), (0, -1, 0)
    if isinstance(focus, QLineEdit):
        caret = focus.cursorPosition(), focus.selectionStart(), focus.selectionLength()
    stops = stops_in(page)
    number = stops.index(focus) if focus in stops else -1
    return Place(key_of(focus), type(focus).__name__, number, caret, scrolled)


def return_to(page: QWidget, place: Place, scroll: QScrollArea) -> None:
    """Back to ``place``: what has the same key, or else the next of its kind, or the first."""
    if place.number >= 0:
        stops = stops_in(page)
        alike = [w for w in stops if key_of(w) == place.key]
        if len(alike) > 1 and place.number < len(stops) and stops[place.number] in alike:
            alike = [stops[place.number]]
        round_about = [*stops[place.number :], *reversed(stops[: place.number])]
        kin = [w for w in round_about if type(w).__name__ == place.kind]
        for widget in [w for w in (*alike, *kin, *stops) if w.isEnabled()][:1]:
            widget.setFocus(Qt.FocusReason.OtherFocusReason)
            _set_caret(widget, place.caret)

    def _scroll() -> None:
        scroll.horizontalScrollBar().setValue(place.scrolled[0])
        scroll.verticalScrollBar().setValue(place.scrolled[1])

    QTimer.singleShot(0, page, _scroll)  # once the page knows its size


def _set_caret(widget: QWidget, caret: tuple[int, int, int]) -> None:
    position, start, length = caret
    if isinstance(widget, QLineEdit):
        widget.deselect()
        widget.setCursorPosition(position)
        if start >= 0:
            widget.setSelection(start, length)


AROUND = 12
"""Pixels beside what is scrolled into view."""


def bring_into_view(widget: QWidget) -> None:
    """Scroll whatever ``widget`` stands in until it is seen as a whole, or its upper left is."""
    area: QWidget | None = widget.parentWidget()
    while area is not None:
        inner = area.widget() if isinstance(area, QScrollArea) else None
        if isinstance(area, QScrollArea) and inner is not None:
            for corner in (widget.rect().bottomRight(), widget.rect().topLeft()):
                spot = widget.mapTo(inner, corner)
                area.ensureVisible(spot.x(), spot.y(), AROUND, AROUND)
        area = area.parentWidget()
