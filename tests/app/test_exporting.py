"""What leaves the window: one registry of formats, tables to copy, pages for paper."""

import csv
import io

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog

from firecrest.app.exporting import Table, kinds, table_csv
from firecrest.app.widgets.data_table import DataTable
from tests.app.helpers import menu, settle


@pytest.fixture
def chart(window):
    window.show_stage("size")
    settle()
    return window.stage.chart


def test_a_name_of_another_kind_is_refused_with_those_there_are(window, chart, tmp_path):
    window.messages.save_to = tmp_path / "plot.xls"
    chart.save()
    assert "ends in .png, .svg, .pdf, .csv" in window.notice.text()
    assert list(tmp_path.glob("plot*")) == []
    assert kinds(table=False).count(";;") == 2


def test_what_is_not_known_is_an_empty_cell_and_never_a_word_of_the_machine():
    rows = [[1.0, float("nan")], [float("inf"), None]]
    text = table_csv(Table(("Hz", "dB"), rows)).decode()
    assert list(csv.reader(io.StringIO(text))) == [["Hz", "dB"], ["1", ""], ["", ""]]


def test_a_table_is_read_and_copied_not_changed(qtbot):
    table = DataTable(Table(("Hz", "dB"), [[50.0, float("nan")], [100.0, 90.1234567]]), "t")
    qtbot.addWidget(table)
    table.selectAll()
    QTest.keyClick(table, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    assert QApplication.clipboard().text() == "Hz\tdB\n50\t–\n100\t90.123\n"
    assert table.editTriggers() == table.EditTrigger.NoEditTriggers


def test_rows_of_the_shelf_are_copied_with_their_titles(window):
    window.show_stage("parts")
    settle()
    table = window.stage.shelf.table
    table.selectRow(0)
    QTest.keyClick(table, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    heads, row = QApplication.clipboard().text().splitlines()[:2]
    assert heads.startswith("part\t")
    assert row.split("\t")[0] == table.rows_model.rows[0].entry.name


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_a_page_is_saved_and_printed_on_white(window, chart, tmp_path, theme):
    window.choose_theme(theme)
    window.messages.save_to = tmp_path / "page.pdf"
    menu(window, "page")
    assert window.messages.save_to.read_bytes().startswith(b"%PDF")
    paper = QPrinter()
    paper.setOutputFileName(str(tmp_path / "printed.pdf"))
    window.messages.paper = paper
    menu(window, "print")
    assert (tmp_path / "printed.pdf").read_bytes().startswith(b"%PDF")
    page = window._page()
    assert "Loudness" in page.toPlainText()
    assert "Size: Ceiling" in page.toPlainText()
    plot = page.resource(2, "plot0")
    assert QColor(plot.pixel(3, 3)).lightnessF() > 0.9, "paper is white in every theme"
    window.choose_theme("light")


def test_the_table_of_a_plot_says_what_it_is_of(chart):
    chart.setFocus()
    QTest.keyClick(chart, Qt.Key.Key_T)
    (dialog,) = chart.findChildren(QDialog)
    table = dialog.findChild(DataTable)
    assert table.accessibleName() == "Ceiling as a table"
    dialog.close()
