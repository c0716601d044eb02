"""Pages of which one is on show."""

from PySide6.QtCore import QSize
from PySide6.QtWidgets import QFrame, QScrollArea, QStackedWidget, QWidget


class Pages(QStackedWidget):
    """As small as the one on show: hidden ones learn of another text size only when shown."""

    def minimumSizeHint(self) -> QSize:
        page = self.currentWidget()
        if page is None:
            return super().minimumSizeHint()
        return page.minimumSizeHint().expandedTo(page.minimumSize())


def scrolled(inner: QWidget) -> QScrollArea:
    """A page that scrolls where it has no room."""
    scroll = QScrollArea()
    scroll.setObjectName("scroll")
    scroll.setWidgetResizable(True)
    scroll.setFrameShape(QFrame.Shape.NoFrame)
    scroll.setWidget(inner)
    return scroll
