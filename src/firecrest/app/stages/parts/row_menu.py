"""What can be done with a part on the shelf: marks, copies, and where it is used."""

from collections.abc import Callable

from PySide6.QtWidgets import QMenu

from firecrest.app.shelf_keeper import ShelfKeeper
from firecrest.app.widgets.plain import menu_text
from firecrest.shelf.entry import Entry
from firecrest.shelf.store import Shelf

USES_SHOWN = 8


def fill_menu(menu: QMenu, shelf: ShelfKeeper, entry: Entry) -> None:
    """Fill an empty menu for one entry."""

    def act(text: str, action: Callable[[Shelf], object]) -> None:
        menu.addAction(text).triggered.connect(lambda: shelf.attempt(action))

    act(
        "No favourite any more" if entry.favourite else "Favourite",
        lambda shelf: shelf.mark(entry.id, favourite=not entry.favourite),
    )
    act("Duplicate", lambda shelf: shelf.duplicate(entry.id))
    act(
        "Back on the shelf" if entry.archived else "Put away",
        lambda shelf: shelf.mark(entry.id, archived=not entry.archived),
    )
    menu.addSeparator()
    used = shelf.ask(lambda shelf: shelf.used_in(entry.id)) or []
    for project, day in used[:USES_SHOWN]:
        menu.addAction(menu_text(f"Used in {project}, saved {day}")).setEnabled(False)
    if not used:
        menu.addAction("Not used in a saved design yet").setEnabled(False)
