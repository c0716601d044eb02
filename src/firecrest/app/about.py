"""About: version, what the figures are and are not, and the licences of what is shipped."""

from importlib import metadata, resources

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QTextBrowser, QVBoxLayout, QWidget

from firecrest import __version__
from firecrest.app.actions import ACTIONS
from firecrest.app.theme.size import sized
from firecrest.app.widgets.plain import label

PACKAGES = ("PySide6_Essentials", "numpy", "scipy", "pydantic", "Pint", "typer")
TEXT = """<h3>Firecrest {version}</h3>
<p>Sizes small self-powered loudspeakers against their promises. Firecrest itself is under the MIT
licence.</p>
<p>Figures come from linear lumped models and stated estimates; they are no guarantee of safety.
Work on mains is for licensed people; lithium packs need a protection board and the right
charger.</p>
<h4>Fonts</h4><p>Manrope: SIL Open Font License 1.1. Clear Sans: Apache License 2.0. Their full
texts are below and in the package, under app/resources/licences.</p>
<h4>Packages</h4><ul>{packages}</ul>
<h4>SIL Open Font License (Manrope)</h4><pre>{ofl}</pre>
<h4>Apache License (Clear Sans)</h4><pre>{apache}</pre>"""


def about_text() -> str:
    """The whole text, as rich text."""
    folder = resources.files("firecrest.app") / "resources" / "licences"
    lines = [f"<li>{n} {metadata.version(n)}: {_licence(n)}</li>" for n in PACKAGES]
    return TEXT.format(
        version=__version__,
        packages="".join(lines),
        ofl=(folder / "manrope" / "OFL.txt").read_text(encoding="utf-8"),
        apache=(folder / "clear-sans" / "LICENSE").read_text(encoding="utf-8"),
    )


def _licence(package: str) -> str:
    """Licence of a package by its expression, a short name, or its classifier."""
    facts = metadata.metadata(package)
    for key in ("License-Expression", "License"):
        if key in facts and len(facts[key]) < 60:
            return str(facts[key])
    approved = [c for c in facts.get_all("Classifier") or [] if c.startswith("License ::")]
    return approved[0].split(" :: ")[-1] if approved else "see its package"


def keys_text() -> str:
    """All shortcuts, from the table of actions."""
    rows = "".join(
        f"<tr><td>{a.shortcut.replace('; ', ', ')}&nbsp;&nbsp;</td>"
        f"<td>{a.text.replace('&', '').rstrip('…')}</td></tr>"
        for a in ACTIONS
        if a.shortcut
    )
    plots = (
        "<tr><td>← → &nbsp;</td><td>plot: crosshair one step, with Shift a third of an octave</td>"
        "</tr><tr><td>Home End</td><td>plot: crosshair to the ends</td></tr>"
        "<tr><td>W</td><td>plot: worst frequency</td></tr>"
        "<tr><td>T</td><td>plot: the data as a table</td></tr>"
        "<tr><td>+ − 0</td><td>plot: closer about the crosshair, further, the whole range</td></tr>"
        "<tr><td>↑ ↓</td><td>number field: one step of the last digit; Shift ×10, Ctrl ×0.1</td>"
        "</tr><tr><td>Enter, Esc</td><td>number field: keep, restore</td></tr>"
        "<tr><td>F4</td><td>number field: where this number comes from</td></tr>"
    )
    return f"<h3>Keys</h3><table>{rows}{plots}</table>"


def text_dialog(parent: QWidget, title: str, html: str) -> QDialog:
    """A dialog that shows rich text."""
    dialog = QDialog(parent)
    dialog.setWindowTitle(title)
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.resize(sized(620), sized(560))
    column = QVBoxLayout(dialog)
    column.addWidget(label(title, "panel"))
    browser = QTextBrowser()
    browser.setOpenExternalLinks(False)
    browser.setHtml(html)
    column.addWidget(browser)
    buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
    buttons.rejected.connect(dialog.reject)
    column.addWidget(buttons)
    return dialog
