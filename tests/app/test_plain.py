"""Names from files are shown letter by letter: no label, tooltip or dialog obeys markup in them."""

import json
import re
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QAction, QTextDocument
from PySide6.QtGui import Qt as QtText
from PySide6.QtWidgets import QApplication, QLabel, QMessageBox, QWidget

import firecrest
from firecrest.app.messages import Messages
from firecrest.app.widgets.plain import menu_text, tip_text
from firecrest.app.widgets.side import SentenceRow
from firecrest.design.project import project_of
from firecrest.design.text import project_from_json, project_to_json
from firecrest.files.demos import read_demo
from firecrest.shelf.entry import made_entry
from firecrest.shelf.exchange import Taking, take
from tests.app.helpers import rested, settle, wait

BAD = '<img src="/dev/zero">'
NAMES = ("name", "note")


def hostile(node):
    """A tree of JSON with markup in every name."""
    if isinstance(node, dict):
        return {
            key: f"{BAD}{value}"[:80] if key in NAMES and isinstance(value, str) else hostile(value)
            for key, value in node.items()
        }
    return [hostile(item) for item in node] if isinstance(node, list) else node


def hostile_design(name):
    return project_from_json(
        json.dumps(hostile(json.loads(project_to_json(project_of(read_demo(name))))))
    ).design


def obeyed(window):
    """Texts on show, or one pointing away, that would be read as markup."""
    found = []
    for widget in [window, *window.findChildren(QWidget)]:
        if QtText.mightBeRichText(widget.toolTip()) and "<img" in widget.toolTip():
            found.append((type(widget).__name__, widget.toolTip()))
        if isinstance(widget, QLabel):
            plain = widget.textFormat() == Qt.TextFormat.PlainText
            rich = widget.textFormat() == Qt.TextFormat.RichText and "<img" not in widget.text()
            if not plain and not rich:
                found.append(("label", widget.text()))
    tips = [action.toolTip() for action in window.findChildren(QAction)]
    return found + [("action", t) for t in tips if QtText.mightBeRichText(t) and "<img" in t]


@pytest.fixture
def window(make_window):
    window = make_window(hostile_design("slipway"))
    part = (
        project_from_json(project_to_json(project_of(window.session.design)))
        .design.box.groups[0]
        .driver
    )
    entry = made_entry("driver", part, notes=BAD)
    window.session.shelf.attempt(lambda shelf: take(shelf, Taking((entry,), (), ())))
    window.entry_id = entry.id
    return window


def test_every_stage_and_page_with_markup_in_every_name(window):
    assert BAD in window.project.text(), "it is shown as it is written"
    for key in ("promise", "parts", "size", "power", "voice"):
        window.show_stage(key)
        settle()
        assert obeyed(window) == [], key
    window.session.edit(("name",), BAD + "&other")
    window.session.shelf.refused.emit(f"{BAD} cannot be")
    settle()
    assert window.notice.text() == f"{BAD} cannot be"
    assert obeyed(window) == []


def test_the_pages_of_the_parts_stage(window):
    window.show_stage("parts")
    stage = window.stage
    wait(stage)
    assert any(BAD in r.entry.name for r in stage.shelf.table.rows_model.rows)
    assert obeyed(window) == []
    model = stage.shelf.table.rows_model
    for row in range(model.rowCount()):
        for column in range(model.columnCount()):
            told = model.data(model.index(row, column), Qt.ItemDataRole.ToolTipRole)
            assert not (told and QtText.mightBeRichText(told) and "<img" in told)
    stage.open_entry(window.entry_id)
    settle()
    assert obeyed(window) == []
    stage.open_path(("box", "groups", 0, "driver"))
    for view in ("figures", "wiring"):
        stage.choose_view(view)
        settle()
        assert obeyed(window) == [], view
    stage.paste(True)
    QApplication.clipboard().setText(f"{BAD} fs 50 Hz {BAD}")
    settle()
    assert obeyed(window) == []


@pytest.mark.parametrize("name", ["breakwater", "boathouse-bandpass", "lantern"])
def test_the_views_of_the_size_stage(make_window, name):
    window = make_window(hostile_design(name))
    window.show_stage("size")
    stage = window.stage
    box = window.session.design.box
    for kind in ("chambers", "groups", "openings"):
        for place in range(len(getattr(box, kind))):
            stage.select(("box", kind, place))
            rested(stage.later, window.side.moves)
            assert obeyed(window) == [], (kind, place)
    for view in ("response", "travel", "impedance", "delay", "pressure", "ports"):
        stage.show_view(view)
        settle()
        assert obeyed(window) == [], view
    stage.open_starts()
    settle()
    assert obeyed(window) == []


def test_every_question_and_notice_is_plain(window, monkeypatch):
    boxes = []

    def look(box):
        assert box.textFormat() == Qt.TextFormat.PlainText
        boxes.append(box.text())
        return 0

    monkeypatch.setattr(QMessageBox, "exec", look)
    messages = Messages(window)
    assert messages.keep_changes(BAD) == "cancel"
    assert messages.restore(BAD, 2) == "later"
    assert messages.changed_elsewhere(BAD, BAD) == "cancel"
    assert not messages.replace_read_only(BAD)
    assert not messages.confirm("Take", f"{BAD}\n\n{BAD}", BAD)
    messages.tell(BAD, f"{BAD}\n\n{BAD}")
    assert len(boxes) == 6
    assert all(BAD in text for text in boxes)


def test_a_tooltip_shows_markup_and_leaves_the_rest_alone():
    assert tip_text("5 < 6 & more") == "5 < 6 & more"
    assert "<img" not in tip_text(BAD)
    assert menu_text("a & b") == "a && b"


def test_labels_tooltips_and_dialogs_are_made_in_one_place():
    app = Path(firecrest.__file__).parent / "app"
    for file in app.rglob("*.py"):
        text = file.read_text(encoding="utf-8")
        if file.name != "plain.py":
            assert not re.search(r"(?<!class )\bQLabel\(", text.replace("DragLabel(", "")), file
            assert ".setToolTip(" not in text.replace("action.setToolTip(tip_text(", ""), file
        if file.name != "messages.py":
            assert "QMessageBox" not in text, file
        assert "QSettings" not in text, file
        assert not re.search(r"\bQ[A-Z]\w+\([^()]*\b(?:singleShot|interval)=", text), file


def test_a_text_with_a_ring_around_it_is_as_high_as_its_lines(window):
    """At every width: a line too many put it lower than its mark."""
    made = window.side.findChild(SentenceRow)._text
    ring = made.contentsMargins()
    assert ring.left() == 2
    inside = QTextDocument()
    inside.setDefaultFont(made.font())
    inside.setDocumentMargin(0)
    inside.setHtml(made.text())
    for width in range(180, 260, 3):
        inside.setTextWidth(width - ring.left() - ring.right())
        assert made.heightForWidth(width) == inside.size().height() + ring.top() + ring.bottom()
