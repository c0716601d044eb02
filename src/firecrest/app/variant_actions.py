"""What the window does with variants."""

from functools import partial
from typing import get_args

from PySide6.QtGui import QAction
from PySide6.QtWidgets import QMenu

from firecrest.app.held_key import HeldKey
from firecrest.app.page_actions import PageActions
from firecrest.app.widgets.plain import menu_text
from firecrest.design.edits import variants
from firecrest.design.project import Letter, Standing, variant_of

STANDINGS: tuple[Standing, ...] = get_args(Standing)


class VariantActions(PageActions):
    """The variants' half of the main window."""

    held_key: HeldKey
    actions_by_id: dict[str, QAction]

    def copy_variant(self) -> None:
        """Copy the variant in force and work on the copy."""
        self.session.attempt(self.session.copy_in_force)

    def next_variant(self, steps: str = "1") -> None:
        """The next variant, or the one before."""
        self.session.switch_by(int(steps))

    def toggle_beside(self) -> None:
        """Show the other variant behind this one in every plot, or let go of it.

        Held for longer, the key shows it for as long as it is held.
        """
        session = self.session
        if session.beside is not None:
            session.show_beside(None)
        elif (other := session.other()) is None:
            session.refused.emit("There is no other variant yet: Ctrl+D copies this one.")
        else:
            session.show_beside(other)
            self.held_key.begin()

    def toggle_ghost(self) -> None:
        """Hold the present state behind all that follows, to compare with; or let go of it."""
        session = self.session
        session.beside = None
        session.keep_ghost(session.assessment if session.kept is None else None)
        self.actions_by_id["ghost"].setChecked(session.kept is not None)

    def rename_variant(self, letter: Letter | None = None) -> None:
        """Give a variant a name."""
        session = self.session
        letter = letter or session.project.in_force
        own = variant_of(session.project, letter)
        name = self.messages.variant_name(letter, own.name)
        if name is not None and name != own.name:
            session.attempt(
                lambda: session.apply_project(
                    *variants.rename_variant(session.project, letter, name)
                )
            )

    def delete_variant(self, letter: Letter | None = None) -> None:
        """Take a variant out; undo brings it back."""
        session = self.session
        own = letter or session.project.in_force
        session.attempt(
            lambda: session.apply_project(*variants.delete_variant(session.project, own))
        )

    def move_variant(self, steps: str, letter: Letter | None = None) -> None:
        """A variant further left or right."""
        session = self.session
        own = letter or session.project.in_force
        made = variants.move_variant(session.project, own, int(steps))
        if made[1] != session.project:
            session.apply_project(*made)

    def stand(self, letter: Letter, standing: Standing) -> None:
        """A variant is tried, built or measured."""
        session = self.session
        if variant_of(session.project, letter).standing != standing:
            session.apply_project(*variants.set_standing(session.project, letter, standing))

    def fill_variant_menu(self, menu: QMenu, letter: Letter) -> None:
        """What can be done with one variant."""
        project, session = self.session.project, self.session
        own = variant_of(project, letter)
        menu.addAction("&Rename…", partial(self.rename_variant, letter))
        menu.addAction(
            "&Copy",
            lambda: session.attempt(
                lambda: session.apply_project(*variants.copy_variant(session.project, letter))
            ),
        )
        behind = menu.addAction("Show &behind this one", partial(session.show_beside, letter))
        behind.setEnabled(letter != project.in_force)
        menu.addSeparator()
        for standing in STANDINGS:
            action = menu.addAction(menu_text(standing.capitalize()))
            action.setCheckable(True)
            action.setChecked(own.standing == standing)
            action.triggered.connect(lambda _=False, s=standing: self.stand(letter, s))
        menu.addSeparator()
        menu.addAction("Move &left", partial(self.move_variant, "-1", letter))
        menu.addAction("Move r&ight", partial(self.move_variant, "1", letter))
        menu.addAction("&Delete", partial(self.delete_variant, letter)).setEnabled(
            len(project.variants) > 1
        )
