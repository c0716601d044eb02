import gc

from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication

from firecrest.app.collecting import WHOLE_EVERY, Collector


def test_collects_by_itself_off_young_often_and_all_now_and_then(qapp, monkeypatch):
    taken = []
    collector = Collector(qapp, lambda generation: taken.append(generation) or 0)
    assert not gc.isenabled()
    for _ in range(WHOLE_EVERY):
        collector.collect()
    assert taken == [1] * (WHOLE_EVERY - 1) + [2]
    monkeypatch.setattr(QGuiApplication, "mouseButtons", lambda: Qt.MouseButton.LeftButton)
    collector.collect()
    assert len(taken) == WHOLE_EVERY, "a drag is not held up"
    collector.deleteLater()
