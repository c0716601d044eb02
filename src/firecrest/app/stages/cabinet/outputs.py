"""What leaves the Cabinet stage as files: drawing, templates, cut list with its sheets."""

import re
from pathlib import Path as FilePath

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from firecrest.app.exporting import Picture, Table, export, kinds
from firecrest.app.session import Session
from firecrest.app.stages.base import numbers
from firecrest.app.template_pages import templates_pdf
from firecrest.app.widgets.choices import CalmCombo, labelled
from firecrest.app.widgets.plain import label, tip
from firecrest.assessment.cabinet.drawing import Drawing, drawing_of
from firecrest.assessment.cabinet.template import Template, template_of, templates_of
from firecrest.core.cabinet.templates import PAGES
from firecrest.core.errors import FileError
from firecrest.design.edits.paths import Path
from firecrest.files.atomic import write_file
from firecrest.files.meshes import Mesh, shell_meshes, stl, threemf
from firecrest.files.small_meshes import small_meshes
from firecrest.files.templates import template_dxf, template_svg

SHEET: Path = ("box", "case", "sheet")
ALL = "all panels"
MESH_KINDS = "Pieces (*.3mf);;One file a piece (*.stl)"
TEMPLATE_KINDS = "Pages at 1:1 (*.pdf);;For a router or laser (*.dxf);;Drawing (*.svg)"


class Outputs(QWidget):
    """Buttons that write templates, drawing and cut list."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 6, 0, 0)
        box.setSpacing(3)
        box.addWidget(label("Templates at 1:1", "section"))
        self.panel, self.page = CalmCombo(), CalmCombo()
        self.panel.setAccessibleName("Panel of the template")
        self.panel.setSizeAdjustPolicy(CalmCombo.SizeAdjustPolicy.AdjustToContents)
        self.page.setAccessibleName("Paper of the template")
        self.page.addItems(list(PAGES))
        box.addWidget(labelled("Panel", self.panel))
        box.addWidget(labelled("Paper", self.page))
        for field in numbers(session, (*SHEET, "bush"), (*SHEET, "cutter")):
            box.addWidget(field)
        save = QPushButton("Save template…")
        save.clicked.connect(self.save_template)
        tip(save, "As pages (PDF), DXF with layers, or SVG")
        box.addWidget(save)
        box.addWidget(label("For a printer", "section"))
        mesh = QPushButton("Save the shell…")
        mesh.clicked.connect(self.save_mesh)
        tip(mesh, "The bare case as closed meshes in mm, split to the bed: 3MF, or an STL a piece")
        box.addWidget(mesh)
        small = QPushButton("Save small parts…")
        small.clicked.connect(self.save_small)
        tip(
            small, "Rings round frames that stand proud, plates with their holes, feet, inner boxes"
        )
        box.addWidget(small)

    def refresh(self) -> None:
        """The panels there are; the one chosen stays where it still is."""
        names = [ALL, *self._drawing().plates]
        if [self.panel.itemData(k) for k in range(self.panel.count())] != names:
            chosen = self.panel.currentData()
            self.panel.clear()
            for name in names:
                self.panel.addItem(name.replace("-", " "), name)
            self.panel.setCurrentIndex(max(names.index(chosen) if chosen in names else 0, 0))

    def _drawing(self) -> Drawing:
        return drawing_of(self.session.assessment)

    def chosen(self) -> list[Template]:
        """Templates of the panel chosen, or of all."""
        drawing = self._drawing()
        sheet = drawing.case.sheet
        bush = (sheet.bush - sheet.cutter) / 2 if sheet.bush > 0 else 0.0
        name = self.panel.currentData()
        if name in drawing.plates:
            return [template_of(drawing, name, bush)]
        return list(templates_of(drawing, bush))

    def save_template(self) -> None:
        """Ask where to, and write."""
        messages = self.window().messages  # type: ignore[attr-defined]
        name = self.panel.currentText().replace(" ", "-")
        path = messages.save_as("Save the template", f"{name}.pdf", TEMPLATE_KINDS)
        if path is not None:
            self.session.attempt(lambda: self.export_template(path))

    def export_template(self, path: FilePath) -> None:
        """Write in the format of the suffix: pages, or a file for each panel; FileError if not."""
        writers = {".dxf": template_dxf, ".svg": template_svg}
        suffix, templates = path.suffix.lower(), self.chosen()
        if suffix == ".pdf":
            title = f"{self.session.design.name}: templates"
            write_file(path, templates_pdf(templates, self.page.currentText(), title))
        elif suffix in writers:
            for template in templates:
                many = len(templates) > 1
                own = path.with_stem(f"{path.stem}-{template.name}") if many else path
                write_file(own, writers[suffix](template))
        else:
            raise FileError(f"{path.name}: choose a name that ends in .pdf, .dxf or .svg.")

    def save_mesh(self) -> None:
        """Ask where to, and write the shell."""
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Save the shell", "case.3mf", MESH_KINDS)
        if path is not None:
            self.session.attempt(lambda: self.export_mesh(path))

    def save_small(self) -> None:
        """Ask where to, and write what a wooden case can have printed."""
        messages = self.window().messages  # type: ignore[attr-defined]
        path = messages.save_as("Save small parts", "small-parts.3mf", MESH_KINDS)
        if path is not None:
            self.session.attempt(lambda: write_meshes(path, small_meshes(self._drawing())))

    def export_mesh(self, path: FilePath) -> None:
        """Write all pieces of the shell; FileError if not."""
        write_meshes(path, shell_meshes(self._drawing()))


def write_meshes(path: FilePath, meshes: list[Mesh]) -> None:
    """Write all as one 3MF, or an STL for each; FileError if not."""
    suffix = path.suffix.lower()
    if suffix not in (".3mf", ".stl"):
        raise FileError(f"{path.name}: choose a name that ends in .3mf or .stl.")
    if suffix == ".3mf":
        write_file(path, threemf(meshes))
        return
    for mesh in meshes:
        many = len(meshes) > 1
        name = mesh.name if mesh.count == 1 else f"{mesh.name} x{mesh.count}"
        plain = re.sub(r"[^\w.]+", "-", name)
        own = path.with_stem(f"{path.stem}-{plain}") if many else path
        write_file(own, stl(mesh))


def save_table(session: Session, window: QWidget, table: Table, picture: Picture) -> None:
    """Ask where to, and write the cut list as a table, or the sheets as a picture."""
    messages = window.messages  # type: ignore[attr-defined]
    path = messages.save_as("Save the cut list", "cut-list.csv", kinds())
    if path is not None:
        session.attempt(lambda: export(path, picture, table))


def save_drawing(session: Session, window: QWidget, picture: Picture) -> None:
    """Ask where to, and write the drawing."""
    messages = window.messages  # type: ignore[attr-defined]
    path = messages.save_as("Save the drawing", "cabinet.pdf", kinds(table=False))
    if path is not None:
        session.attempt(lambda: export(path, picture))
