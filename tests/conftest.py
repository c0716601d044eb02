"""Fixtures: the demo, and a window whose settings and journals live in a temporary folder."""

import os

import pytest
from hypothesis import settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from firecrest.files.demos import blank_design, read_demo

settings.register_profile("untimed", deadline=None)  # how fast a machine is, is no test
settings.load_profile("untimed")


@pytest.fixture(scope="session")
def slipway():
    return read_demo("slipway")


@pytest.fixture(scope="session")
def blank():
    return blank_design()


class Answers:
    """Answers the window's questions by itself, and keeps what it was told."""

    def __init__(self):
        self.keep, self.restored = "drop", True
        self.left_over, self.changed, self.read_only = "open", "cancel", True
        self.open_to = self.save_to = self.name = self.paper = None
        self.told = []

    def keep_changes(self, _name):
        return self.keep

    def restore(self, _name, _more):
        return self.left_over

    def changed_elsewhere(self, name, difference):
        self.told.append((name, difference))
        return self.changed

    def replace_read_only(self, _name):
        return self.read_only

    def tell(self, title, text):
        self.told.append((title, text))

    def open_path(self, _folder):
        return self.open_to

    def save_path(self, _suggested):
        return self.save_to

    def new_name(self, _name, _title="Rename"):
        return self.name

    def open_any(self, _title, _kinds):
        return self.open_to

    def open_many(self, _title, _kinds):
        return self.open_to or []

    def save_as(self, _title, _suggested, _kinds):
        return self.save_to

    def printer(self):
        return self.paper

    def confirm(self, title, text, _yes):
        self.told.append((title, text))
        return self.restored


@pytest.fixture
def settings(tmp_path, monkeypatch):
    """A fresh store of settings and journals."""
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    return tmp_path


@pytest.fixture
def make_window(qapp, qtbot, settings, monkeypatch):
    """Makes windows on a design; they are closed at the end."""
    from PySide6.QtCore import QCoreApplication, QEvent

    from firecrest.app import start
    from tests.app.helpers import hold_advice

    hold_advice(monkeypatch)
    start.make_application()
    made = []

    def make(design):
        window = start.make_window(design)
        window.messages = Answers()
        made.append(window)
        window.show()
        qtbot.waitExposed(window)
        return window

    yield make
    for window in made:
        window.close()
        window.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


@pytest.fixture
def window(make_window, slipway):
    return make_window(slipway)
