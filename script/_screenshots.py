"""Pictures of every main view at 1280 x 800, from the demo data."""

import os
import sys
import tempfile
from pathlib import Path

os.environ["XDG_CONFIG_HOME"] = tempfile.mkdtemp()
os.environ["XDG_STATE_HOME"] = tempfile.mkdtemp()

from PySide6.QtTest import QTest

from firecrest.app.main_window import STAGES
from firecrest.app.start import make_application, make_window
from firecrest.files.demos import read_demo


def main(folder: Path) -> None:
    """Save every picture to ``folder``."""
    folder.mkdir(parents=True, exist_ok=True)
    application = make_application()
    window = make_window(read_demo("slipway"))
    window.resize(1280, 800)
    window.show()

    def shoot(name: str) -> None:
        for _ in range(3):
            application.processEvents()
        QTest.qWait(120)
        window.grab().save(str(folder / f"{name}.png"))
        print(name)

    window.choose_theme("light")
    for key in STAGES:
        window.show_stage(key)
        shoot(key)
    window.show_stage("size")
    row = window.stage.field(("computed", "air_volume"))
    row.edit.setFocus()
    row.edit.selectAll()
    QTest.keyClicks(row.edit, "0.25 cu ft")
    shoot("size-typing")
    row.edit.restore()
    window.choose_theme("dark")
    shoot("size-dark")


main(Path(sys.argv[1]))
