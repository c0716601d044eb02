"""Where the Tab key stops, in the order in which one works: fields before plots."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractButton, QScrollArea, QWidget

from firecrest.app.widgets.pressable import Pressable


def stops_in(page: QWidget) -> list[QWidget]:
    """What on a page can have the keyboard, in order; areas that only scroll have no need of it."""
    tab = Qt.FocusPolicy.TabFocus
    return [
        w
        for w in page.findChildren(QWidget)
        if w.focusPolicy() & tab
        and not w.isHidden()
        and w.focusProxy() is None
        and type(w) is not QScrollArea
        and not _beside(w)
    ]


def _beside(widget: QWidget) -> bool:
    """Whether it is a button that arrows reach from the one that is down beside it."""
    group = widget.group() if isinstance(widget, QAbstractButton) else None
    if group is None or not group.exclusive() or group.checkedButton() is None:
        return False
    return group.checkedButton() is not widget


def of_group(region: QWidget, now: QWidget | None) -> Sequence[QWidget]:
    """The one stop of a region whose members are gone through by arrows: the one that has the
    keyboard, the current one, or the first.
    """
    members = [w for w in stops_in(region) if isinstance(w, Pressable) and w.isVisible()]
    if now is not None and now in members:
        return [now]
    current = [w for w in members if getattr(w, "current", False)]
    return (current or members)[:1]


def next_stop(stops: Sequence[QWidget], now: QWidget | None, *, forward: bool) -> QWidget | None:
    """The stop after or before ``now``, round the ends; None when ``now`` is none of them."""
    if now is None or now not in stops:
        return None
    return stops[(list(stops).index(now) + (1 if forward else -1)) % len(stops)]
