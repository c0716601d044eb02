"""Opening the window: application, fonts, theme, left-over work, and the document asked for."""

import argparse
import gc
import os
import sys
from importlib import resources
from pathlib import Path

from firecrest.core.errors import FirecrestError
from firecrest.design.design import Design
from firecrest.design.project import Project, project_of
from firecrest.files.demos import blank_design, read_demo_project

WARM_UP_MS = 1500


def run_window(arguments: list[str]) -> int:
    """Open the window and run until it closes; 2 when it cannot be opened."""
    parser = argparse.ArgumentParser(prog="firecrest open")
    parser.add_argument("file", nargs="?", help="a .firecrest file or a bare design.json")
    parser.add_argument("--demo", help="open a shipped demo")
    asked = parser.parse_args(arguments)
    if not _has_display():
        print(
            "firecrest: there is no display. `firecrest assess FILE` needs none; with Xvfb "
            "installed, `xvfb-run -a firecrest open` opens the window.",
            file=sys.stderr,
        )
        return 2
    try:
        begin = read_demo_project(asked.demo) if asked.demo else project_of(blank_design())
    except FirecrestError as error:
        print(f"firecrest: {error}", file=sys.stderr)
        return 2
    from PySide6.QtCore import QTimer

    from firecrest.app.ending import SignalWatch, watch_mistakes

    application = make_application()
    window = make_window(begin)
    SignalWatch(window, window.end_at_once)
    watch_mistakes(window.session.keep_journal, window.tell_mistake)
    window.show()
    if asked.file:
        window.open_path(Path(asked.file))
    elif not asked.demo:
        window.show_start()
    QTimer.singleShot(0, window, lambda: offer_left_over(window))
    QTimer.singleShot(0, window, lambda: _clean_up(window))
    QTimer.singleShot(WARM_UP_MS, window, _warm_up)
    return int(application.exec())


def _has_display() -> bool:
    platform = os.environ.get("QT_QPA_PLATFORM", "")
    if platform and not platform.startswith(("xcb", "wayland")):
        return True
    return bool(os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"))


def make_application() -> "QApplication":  # type: ignore[name-defined]  # noqa: F821
    """The application with our fonts, icon and theme; the same one when it exists already."""
    gc.disable()  # before the many objects of starting; see ``collecting``
    from PySide6.QtGui import QIcon
    from PySide6.QtWidgets import QApplication

    from firecrest.app.collecting import Collector
    from firecrest.app.settings import chosen_unit, settings
    from firecrest.app.theme.size import desktop_share, text_size
    from firecrest.app.theme.style import holder, load_fonts
    from firecrest.present.text.units import units

    running = QApplication.instance()
    application = running if isinstance(running, QApplication) else QApplication(sys.argv[:1])
    if not application.findChildren(Collector):
        Collector(application)
        application.setApplicationName("firecrest")
        application.setOrganizationName("firecrest")
        application.setApplicationDisplayName("Firecrest")
        application.setStyle("Fusion")
        load_fonts()
        application.setWindowIcon(QIcon(_icon()))
    units.follow(chosen_unit)
    dots = application.primaryScreen().logicalDotsPerInch()
    text_size.choose(
        desktop=desktop_share(application.font(), dots), zoom=settings.get("zoom", 1.0)
    )
    holder.choose(settings.get("theme", "desktop"))
    return application


def _icon() -> "QPixmap":  # type: ignore[name-defined]  # noqa: F821
    from PySide6.QtGui import QPixmap

    icon = QPixmap()
    icon.loadFromData((resources.files("firecrest.app") / "resources" / "icon.svg").read_bytes())
    return icon


def make_window(begin: Design | Project) -> "MainWindow":  # type: ignore[name-defined]  # noqa: F821
    """A window on a project, or on a design as the only variant of one."""
    from firecrest.app.collecting import keep_loaded
    from firecrest.app.main_window import MainWindow
    from firecrest.app.session import Session

    keep_loaded()
    return MainWindow(Session(begin))


def offer_left_over(window: "MainWindow") -> None:  # type: ignore[name-defined]  # noqa: F821
    """Offer the unsaved work of windows that ended without closing, one after the other.

    One window opens one of them; what is not answered is kept for the next start.
    """
    from firecrest.files.journal import left_over

    items = left_over()
    while items:
        item = items.pop(0)
        answer = window.messages.restore(item.document.design.name, len(items))
        if answer == "drop":
            item.journal.drop()
        elif answer == "open" and window.may_leave():
            window.restore(item)
            break
        else:
            item.journal.let_go()
    for item in items:
        item.journal.let_go()


def _clean_up(window: "MainWindow") -> None:  # type: ignore[name-defined]  # noqa: F821
    """Start the child process; its first job removes what killed writers left beside documents."""
    from firecrest.app.settings import settings
    from firecrest.app.work import Task
    from firecrest.files.atomic import clean_litter_of

    Task(window).start(clean_litter_of, settings.get("recent", []))


def _warm_up() -> None:
    """Load what first use would wait for."""
    from firecrest.core.reading import units_library

    units_library()
