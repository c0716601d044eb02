"""The page for paper: saved as a file, or printed."""

from typing import TYPE_CHECKING

from firecrest.app.regions import Regions
from firecrest.app.theme.style import holder
from firecrest.app.widgets.chart import Chart
from firecrest.core.errors import FirecrestError
from firecrest.files.atomic import write_file

if TYPE_CHECKING:
    from PySide6.QtGui import QTextDocument

PAGES = "Page (*.pdf)"


class PageActions(Regions):
    """The paper half of the main window."""

    def save_page(self) -> None:
        """The promises, why, and the plots on show, as a PDF."""
        from firecrest.app.exporting import document_pdf

        name = self.session.design.name
        path = self.messages.save_as("Save as a page", f"{name}.pdf", PAGES)
        if path is None:
            return
        try:
            write_file(path, document_pdf(self._page(), name))
        except FirecrestError as error:
            self.messages.tell("Not saved", str(error))

    def print_page(self) -> None:
        """The same on paper."""
        from firecrest.app.exporting import print_document

        printer = self.messages.printer()
        if printer is not None:
            print_document(self._page(), printer)

    def _page(self) -> "QTextDocument":
        from firecrest.app.printing import page_of

        charts = [
            c for c in self.stage.findChildren(Chart) if c.isVisibleTo(self.stage) and c.content
        ]
        plots = [chart.picture() for chart in charts]
        with holder.on_paper():
            return page_of(self.session.assessment, self.stage.title, plots)
