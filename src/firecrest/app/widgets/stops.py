"""Where the Tab key stops, in the order in which one works: fields before plots."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractButton, QScrollArea, QWidget

from firecrest.app.widgets.pressable import Pressable


def stops_in(page: QWidget) -> list[QWidget]:
    """What on a page can have the keyboard, in order; areas that only scroll have no need of it."""
    return [
        w
        for w in page.findChildren(QWidget)
        if _stops(w) and not w.isHidden() and w.focusProxy() is None and type(w) is not QScrollArea
    ]


def _stops(widget: QWidget) -> bool:
    """Whether Tab stops at it: of buttons of which one is down, at that one.

    The toolkit lets Tab stop there only once it has had the keyboard.
    """
    down = _down_beside(widget)
    if down is not None:
        return down is widget
    return bool(widget.focusPolicy() & Qt.FocusPolicy.TabFocus)


def standing_for(widget: QWidget) -> QWidget:
    """The button that is down, for one that arrows reach from it; any other widget itself."""
    return _down_beside(widget) or widget


def _down_beside(widget: QWidget) -> QAbstractButton | None:
    """The button that is down among those of which always one is; None for anything else."""
    group = widget.group() if isinstance(widget, QAbstractButton) else None
    return group.checkedButton() if group is not None and group.exclusive() else None


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
