"""What has the keyboard shows it: a ring of at least 3:1 on every kind of control."""

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QScrollArea, QWidget

from firecrest.app.widgets.chain import LinkWidget
from tests.app.helpers import doubted, rested

LEAST = 60
"""Pixels that must change by 3:1."""


def luminances(widget):
    image = widget.grab().toImage().convertToFormat(QImage.Format.Format_RGB32)
    data = np.frombuffer(image.constBits(), np.uint8).reshape(image.height(), -1, 4)[..., 2::-1]
    share = data / 255
    linear = np.where(share <= 0.04045, share / 12.92, ((share + 0.055) / 1.055) ** 2.4)
    return linear @ (0.2126, 0.7152, 0.0722)


def ring(widget):
    """Pixels that change by 3:1 or more when ``widget`` gets the keyboard; None if it does not."""
    shown = widget.parentWidget() if isinstance(widget, LinkWidget) else widget
    before = luminances(shown)
    widget.setFocus(Qt.FocusReason.TabFocusReason)
    QApplication.processEvents()
    if QApplication.focusWidget() not in (widget, widget.focusProxy()):
        return None
    high, low = np.maximum(before, luminances(shown)), np.minimum(before, luminances(shown))
    return int(np.count_nonzero((high + 0.05) / (low + 0.05) >= 3))


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_every_kind_of_control_shows_that_it_has_the_keyboard(window, theme):
    window.choose_theme(theme)
    doubted(window)
    rested(window.side.moves)
    seen = set()
    for key in ("promise", "parts", "size", "compare", "power", "voice"):
        window.show_stage(key)
        QTest.qWait(60)
        for widget in window.findChildren(QWidget):
            kind = type(widget), widget.property("role")
            stops = (
                widget.focusPolicy() & Qt.FocusPolicy.TabFocus and type(widget) is not QScrollArea
            )
            if kind in seen or not stops or not widget.isVisible() or not widget.isEnabled():
                continue
            seen.add(kind)
            (QApplication.focusWidget() or window).clearFocus()
            found = ring(widget)
            assert found is None or found >= min(LEAST, widget.width()), (kind, found)
    assert len(seen) > 15
    window.choose_theme("light")
