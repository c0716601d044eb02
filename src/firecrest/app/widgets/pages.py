"""Pages of which one is on show."""

from PySide6.QtCore import QSize
from PySide6.QtWidgets import QStackedWidget


class Pages(QStackedWidget):
    """As small as the one on show: hidden ones learn of another text size only when shown."""

    def minimumSizeHint(self) -> QSize:
        page = self.currentWidget()
        if page is None:
            return super().minimumSizeHint()
        return page.minimumSizeHint().expandedTo(page.minimumSize())
