"""The menus, all of them on show in either direction of writing."""

from PySide6.QtCore import QSize
from PySide6.QtWidgets import QMenuBar, QSizePolicy

from firecrest.app.theme.size import sized

BESIDE = 30
"""Pixels beside and between the titles, together."""


class MenuBar(QMenuBar):
    """As wide as its titles; from right to left the toolkit counts only the first."""

    def __init__(self) -> None:
        super().__init__()
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Preferred)

    def sizeHint(self) -> QSize:
        hint = super().sizeHint()
        titles = sum(self.actionGeometry(action).width() for action in self.actions())
        return hint.expandedTo(QSize(titles + sized(BESIDE), 0))
