"""Fonts, palette and style sheet of the application, built from the colour roles."""

from importlib import resources

from PySide6.QtCore import QObject, Qt, Signal
from PySide6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PySide6.QtWidgets import QApplication

from firecrest.app.theme.tokens import Theme

TITLE_FAMILY = "Manrope"
TEXT_FAMILY = "Clear Sans"
MEDIUM_FAMILY = "Clear Sans Medium"


def load_fonts() -> None:
    """Register the fonts that ship with the program."""
    folder = resources.files("firecrest.app") / "resources" / "fonts"
    for file in sorted(folder.iterdir(), key=lambda f: f.name):
        QFontDatabase.addApplicationFontFromData(file.read_bytes())


def title_font(pixels: int, *, bold: bool = True) -> QFont:
    """Manrope at ``pixels``; figures of equal width."""
    font = QFont(TITLE_FAMILY)
    font.setPixelSize(pixels)
    font.setWeight(QFont.Weight.Bold if bold else QFont.Weight.DemiBold)
    return font


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
        self._dressed = False

    def choose(self, choice: str) -> None:
        """``light``, ``dark``, or ``desktop`` to follow it."""
        self.choice = choice
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        dark = choice == "dark"
        if choice == "desktop":
            dark = application.styleHints().colorScheme() == Qt.ColorScheme.Dark
        if self._dressed and self.theme.dark == dark:
            return
        self._dressed = True
        self.theme = Theme(dark=dark)
        application.setPalette(_palette(self.theme))
        application.setStyleSheet(style_sheet(self.theme))
        self.changed.emit()


holder = ThemeHolder()


def theme() -> Theme:
    """The theme in force."""
    return holder.theme


def colour(role: str, alpha: float = 1.0) -> QColor:
    """A role's colour in the theme in force."""
    made = QColor(theme()[role])
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
    """Style sheet from the colour roles."""
    return f"""
* {{ font-family: "{TEXT_FAMILY}"; font-size: 12px; color: {t["ink"]}; }}
QMainWindow, QDialog, QMessageBox {{ background: {t["paper"]}; }}
QToolTip {{ background: {t["ambert"]}; color: {t["ink"]}; border: 1px solid {t["rule2"]};
    padding: 4px; }}
#menuLine {{ background: {t["paper"]}; border-bottom: 1px solid {t["rule"]}; }}
#strip {{ background: {t["sheet"]}; border-bottom: 2px solid {t["stripe"]}; }}
#rail {{ background: {t["tray"]}; border-right: 1px solid {t["rule"]}; }}
#stage, #stage > QWidget, #scroll, #scroll > QWidget > QWidget {{ background: {t["sheet"]}; }}
#side {{ background: {t["paper"]}; border-left: 1px solid {t["rule"]}; }}
#chain {{ background: {t["paper"]}; border-top: 1px solid {t["rule2"]}; }}
QLabel[role="title"] {{ font-family: {TITLE_FAMILY}; font-size: 19px; font-weight: 700; }}
QLabel[role="panel"] {{ font-family: {TITLE_FAMILY}; font-size: 15px; font-weight: 700; }}
QLabel[role="section"] {{ font-family: {TITLE_FAMILY}; font-size: 13px; font-weight: 700; }}
QLabel[role="project"] {{ font-family: {TITLE_FAMILY}; font-size: 15px; font-weight: 700; }}
QLabel[role="hint"] {{ color: {t["ink2"]}; font-size: 11px; }}
QLabel[role="second"] {{ color: {t["ink2"]}; }}
QLabel[role="symbol"] {{ color: {t["ink2"]}; }}
QLabel[role="good"] {{ color: {t["olive"]}; }}
QLabel[role="bad"] {{ color: {t["flame"]}; }}
QLabel[role="figure"] {{ font-family: {TITLE_FAMILY}; font-size: 13px; font-weight: 600; }}
QLabel[role="caution"] {{ background: {t["ambert"]}; border: 1px solid {t["rule"]};
    border-radius: 5px; padding: 6px; }}
QLabel[role="reading"] {{ background: {t["ambert"]}; border: 1px solid {t["crest"]};
    border-radius: 3px; padding: 2px 6px; }}
QLabel[role="refusal"] {{ background: {t["flamet"]}; border: 1px solid {t["flame"]};
    border-radius: 3px; padding: 2px 6px; }}
QLineEdit, QComboBox {{ background: {t["field"]}; border: 1px solid {t["rule2"]};
    border-radius: 3px; padding: 0 6px; min-height: 22px; selection-background-color: {t["olive"]};
    selection-color: {t["onolive"]}; }}
QLineEdit[kind="number"] {{ font-size: 13px; font-family: "{MEDIUM_FAMILY}"; }}
QLineEdit:focus, QComboBox:focus {{ border: 2px solid {t["crest"]}; padding: 0 5px;
    min-height: 20px; }}
QLineEdit[refused="true"] {{ border: 2px solid {t["flame"]}; padding: 0 5px; min-height: 20px; }}
QLineEdit[unknown="true"] {{ border: 1px dashed {t["rule2"]}; }}
QComboBox::drop-down {{ border: none; width: 16px; }}
QComboBox::down-arrow {{ image: none; width: 0; height: 0; border-left: 4px solid {t["field"]};
    border-right: 4px solid {t["field"]}; border-top: 5px solid {t["ink2"]}; }}
QComboBox QAbstractItemView {{ background: {t["field"]}; border: 1px solid {t["rule2"]};
    selection-background-color: {t["olivet"]}; selection-color: {t["ink"]}; }}
QPushButton {{ background: {t["card"]}; border: 1px solid {t["rule2"]}; border-radius: 4px;
    padding: 3px 12px; min-height: 18px; font-family: "{MEDIUM_FAMILY}"; }}
QPushButton:hover {{ background: {t["olivet"]}; }}
QPushButton:focus, QToolButton:focus, QCheckBox:focus {{ border: 2px solid {t["crest"]};
    padding: 2px 11px; }}
QPushButton:checked {{ background: {t["olivet"]}; border-bottom: 3px solid {t["olive"]}; }}
QPushButton:disabled, QToolButton:disabled {{ color: {t["rule2"]}; }}
QPushButton[role="main"] {{ background: {t["olive"]}; color: {t["onolive"]}; border: none; }}
QToolButton {{ background: {t["card"]}; border: 1px solid {t["rule2"]}; border-radius: 4px;
    padding: 2px 6px; }}
QToolButton:focus {{ padding: 1px 5px; }}
QToolButton::menu-indicator {{ image: none; }}
QMenuBar {{ background: transparent; font-size: 13px; }}
QMenuBar::item {{ padding: 5px 8px; background: transparent; }}
QMenuBar::item:selected {{ background: {t["olivet"]}; border-radius: 3px; }}
QMenu {{ background: {t["sheet"]}; border: 1px solid {t["rule2"]}; padding: 4px; }}
QMenu::item {{ padding: 5px 24px 5px 20px; }}
QMenu::item:selected {{ background: {t["olivet"]}; }}
QMenu::item:disabled {{ color: {t["rule2"]}; }}
QMenu::separator {{ height: 1px; background: {t["rule"]}; margin: 4px 8px; }}
QScrollArea {{ border: none; background: transparent; }}
QScrollBar:vertical {{ background: transparent; width: 10px; }}
QScrollBar::handle:vertical {{ background: {t["rule"]}; border-radius: 4px; min-height: 24px; }}
QScrollBar::handle:vertical:hover {{ background: {t["rule2"]}; }}
QScrollBar:horizontal {{ background: transparent; height: 10px; }}
QScrollBar::handle:horizontal {{ background: {t["rule"]}; border-radius: 4px; min-width: 24px; }}
QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
QSplitter::handle {{ background: {t["rule"]}; }}
QSplitter::handle:hover {{ background: {t["crest"]}; }}
QFrame[role="rule"] {{ background: {t["rule"]}; border: none; max-height: 1px; }}
QFrame[role="card"] {{ background: {t["card"]}; border: 1px solid {t["rule"]};
    border-radius: 5px; }}
QFrame[role="card"][chosen="true"] {{ border: 1px solid {t["olive"]};
    border-bottom: 3px solid {t["olive"]}; background: {t["olivet"]}; }}
QFrame[role="card"]:focus {{ border: 2px solid {t["crest"]}; }}
QFrame[role="tray"] {{ background: {t["tray"]}; border-radius: 5px; }}
QTableView, QTextBrowser, QListWidget {{ background: {t["field"]};
    border: 1px solid {t["rule2"]}; border-radius: 4px; gridline-color: {t["grid"]};
    selection-background-color: {t["olivet"]}; selection-color: {t["ink"]}; }}
QHeaderView::section {{ background: {t["tray"]}; border: none; padding: 3px 6px; }}
QCheckBox {{ background: transparent; }}
QCheckBox::indicator {{ width: 14px; height: 14px; border: 1px solid {t["rule2"]};
    border-radius: 3px; background: {t["field"]}; }}
QCheckBox::indicator:checked {{ background: {t["olive"]}; }}
"""
