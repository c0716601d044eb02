"""The guide in a window of its own, beside the work: opened at the page and word in question."""

from PySide6.QtCore import Qt, QUrl
from PySide6.QtGui import QTextCursor, QTextDocument
from PySide6.QtWidgets import QDialog, QHBoxLayout, QListWidget, QTextBrowser, QWidget

from firecrest.app.theme.size import fix, sized
from firecrest.present.text.guide import page_named, pages

SIZE, LIST_WIDTH = (820, 620), 170


class GuideWindow(QDialog):
    """Pages on the left, the page on the right; links lead from page to page."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Guide")
        self.resize(*(sized(pixels) for pixels in SIZE))
        self.list = QListWidget()
        self.list.setAccessibleName("Pages of the guide")
        fix(self.list, width=LIST_WIDTH)
        self.list.addItems([page.title for page in pages()])
        self.browser = QTextBrowser()
        self.browser.setAccessibleName("Page of the guide")
        self.browser.setOpenLinks(False)
        self.browser.anchorClicked.connect(self._follow)
        row = QHBoxLayout(self)
        row.addWidget(self.list)
        row.addWidget(self.browser, 1)
        self.list.currentRowChanged.connect(self._show_row)

    def open_at(self, key: str, word: str = "") -> None:
        """Show a page, scrolled to the first place that names ``word``."""
        page = page_named(key)
        self.list.setCurrentRow(pages().index(page))
        self.browser.moveCursor(QTextCursor.MoveOperation.Start)
        words = word.split()
        while words and not self._scroll_to(" ".join(words)):
            words.pop()  # the page may name it more shortly
        self.show()
        self.activateWindow()
        self.browser.setFocus(Qt.FocusReason.OtherFocusReason)

    def _scroll_to(self, word: str) -> bool:
        """The first place of ``word``, whole words before parts of them."""
        for flag in (QTextDocument.FindFlag.FindWholeWords, QTextDocument.FindFlag(0)):
            if self.browser.find(word, flag):
                bar = self.browser.verticalScrollBar()
                bar.setValue(bar.value() + self.browser.cursorRect().top())
                return True
        return False

    def _show_row(self, row: int) -> None:
        if row >= 0:
            self.browser.setMarkdown(pages()[row].text)

    def _follow(self, link: QUrl) -> None:
        """A link to another page; those that lead out of the guide stay unfollowed."""
        name = link.fileName()
        if name.endswith(".md"):
            self.open_at(name.removesuffix(".md"))
