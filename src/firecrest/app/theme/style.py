"""Fonts, palette and style sheet of the application, built from the colour roles."""

import re
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from importlib import resources
from string import Template

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PySide6.QtWidgets import QApplication

from firecrest.app.theme.size import fit_all, sized, text_size
from firecrest.app.theme.tokens import Theme

TITLE_FAMILY = "Manrope"
TEXT_FAMILY = "Clear Sans"
MEDIUM_FAMILY = "Clear Sans Medium"
PIXELS = re.compile(r"(?<![\w#])([1-9]\d*)px\b")
"""A size of the style sheet but 0, which is one at 100 %."""


def load_fonts() -> None:
    """Register the fonts that ship with the program."""
    folder = resources.files("firecrest.app") / "resources" / "fonts"
    for file in sorted(folder.iterdir(), key=lambda f: f.name):
        QFontDatabase.addApplicationFontFromData(file.read_bytes())


@cache
def title_font(pixels: int, *, bold: bool = True) -> QFont:
    """Manrope at ``pixels``; figures of equal width."""
    font = QFont(TITLE_FAMILY)
    font.setPixelSize(pixels)
    font.setWeight(QFont.Weight.Bold if bold else QFont.Weight.DemiBold)
    return font


@cache
def text_font(pixels: int = 12, *, medium: bool = False) -> QFont:
    """Clear Sans at ``pixels``."""
    font = QFont(MEDIUM_FAMILY if medium else TEXT_FAMILY)
    font.setPixelSize(pixels)
    return font


class ThemeHolder(QObject):
    """The theme in force; ``changed`` tells own-drawn widgets to draw again."""

    changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.theme = Theme(dark=False)
        self.choice = "desktop"
        self._dressed: tuple[bool, float] | None = None
        text_size.changed.connect(self._fit)

    def choose(self, choice: str) -> None:
        """``light``, ``dark``, or ``desktop`` to follow it."""
        self.choice = choice
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        dark = choice == "dark"
        if choice == "desktop":
            dark = application.styleHints().colorScheme() == Qt.ColorScheme.Dark
        if self._dressed == (dark, text_size.factor):
            return
        self._dressed = (dark, text_size.factor)
        self.theme = Theme(dark=dark)
        application.setOverrideCursor(Qt.CursorShape.WaitCursor)  # every widget is dressed anew
        application.setPalette(_palette(self.theme))
        application.setStyleSheet(style_sheet(self.theme))
        application.restoreOverrideCursor()
        self.changed.emit()

    def _fit(self) -> None:
        """Another text size: the style sheet, then every size that is set."""
        self.choose(self.choice)
        fit_all()

    @contextmanager
    def on_paper(self) -> Iterator[None]:
        """Own-drawn widgets in the light set for a while: paper is white in every theme."""
        before, self.theme = self.theme, Theme(dark=False)
        self.changed.emit()
        try:
            yield
        finally:
            self.theme = before
            self.changed.emit()


holder = ThemeHolder()


def theme() -> Theme:
    """The theme in force."""
    return holder.theme


def colour(role: str, alpha: float = 1.0) -> QColor:
    """A role's colour in the theme in force."""
    return _mixed(theme()[role], alpha)


@cache
def _mixed(name: str, alpha: float) -> QColor:
    """One colour for all who draw with it: nobody changes it."""
    made = QColor(name)
    made.setAlphaF(alpha)
    return made


def _palette(t: Theme) -> QPalette:
    palette = QPalette()
    roles = QPalette.ColorRole
    for role, name in (
        (roles.Window, "paper"),
        (roles.WindowText, "ink"),
        (roles.Base, "field"),
        (roles.AlternateBase, "sheet"),
        (roles.Text, "ink"),
        (roles.Button, "sheet"),
        (roles.ButtonText, "ink"),
        (roles.Highlight, "olive"),
        (roles.HighlightedText, "onolive"),
        (roles.ToolTipBase, "ambert"),
        (roles.ToolTipText, "ink"),
        (roles.PlaceholderText, "ink2"),
        (roles.Link, "olive"),
    ):
        palette.setColor(role, QColor(t[name]))
    return palette


def style_sheet(t: Theme) -> str:
    """Style sheet from the colour roles, at the text size; its text is resources/style.qss."""
    text = resources.files("firecrest.app") / "resources" / "style.qss"
    families = {
        "title_family": TITLE_FAMILY,
        "text_family": TEXT_FAMILY,
        "medium_family": MEDIUM_FAMILY,
    }
    made = Template(text.read_text(encoding="utf-8")).substitute(families | t.roles())
    return PIXELS.sub(lambda found: f"{sized(float(found[1])) or 1}px", made)
