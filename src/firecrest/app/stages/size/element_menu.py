"""What the picture offers of a room or element by itself: more of it, its place, and its end."""

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import QPoint
from PySide6.QtWidgets import QMenu, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.size.rows import do
from firecrest.app.widgets.plain import menu_text
from firecrest.design.design import Design
from firecrest.design.edits.box import remove_opening
from firecrest.design.edits.paths import Path
from firecrest.present.size.openings import owner_kind
from firecrest.proposals import elements

Edit = Callable[[Design], tuple[str, Design]]
REMOVE = "Remove"


def edits_of(design: Design, owner: Path) -> dict[str, Edit]:
    """What can be done with the thing at ``owner``, by its words."""
    place = int(owner[2])
    order: dict[str, Edit] = {
        "Move earlier": partial(elements.moved, path=owner, by=-1),
        "Move later": partial(elements.moved, path=owner, by=1),
    }
    if owner_kind(design, owner) == "chambers":
        return {
            "Add a chamber": partial(elements.add_chamber, place=place),
            **order,
            REMOVE: partial(elements.remove_chamber, place=place),
        }
    if owner_kind(design, owner) == "groups":
        return {
            "Duplicate": partial(elements.duplicate_group, place=place),
            **order,
            REMOVE: partial(elements.remove_group, place=place),
        }
    return {**order, REMOVE: partial(remove_opening, path=owner)}


def remove(session: Session, owner: Path) -> None:
    """Take the thing at ``owner`` away; a refusal is told."""
    do(session, edits_of(session.design, owner)[REMOVE])


def open_menu(session: Session, owner: Path, parent: QWidget, spot: QPoint) -> None:
    """Offer it all at ``spot`` of the screen."""
    menu = QMenu(parent)
    for words, edit in edits_of(session.design, owner).items():
        menu.addAction(menu_text(words)).triggered.connect(partial(do, session, edit))
    menu.exec(spot)
    menu.deleteLater()
