"""Rows that pages of the box are made of: presets, and edits that name themselves."""

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QComboBox, QWidget

from firecrest.app.session import Session
from firecrest.app.widgets.choices import CalmCombo, unhook
from firecrest.design.design import Design

OWN = "own figures"
Rows = list[QWidget]


def do(session: Session, make: Callable[[Design], tuple[str, Design]]) -> None:
    """Apply an edit that names itself; a refusal is told."""
    session.attempt(lambda: session.apply(*make(session.design)))


def preset_combo(
    session: Session,
    name: str,
    words: Sequence[str],
    in_force: Callable[[Design], int | None],
    choose: Callable[[Design, int], tuple[str, Design]],
) -> QComboBox:
    """A drop-down of presets; what is none of them shows as own figures."""
    combo = CalmCombo()
    combo.setAccessibleName(name)
    combo.addItems([*words, OWN])

    def _show() -> None:
        now = in_force(session.design)
        combo.setCurrentIndex(len(words) if now is None else now)

    def _chosen(place: int) -> None:
        if place < len(words):
            do(session, lambda design: choose(design, place))
        _show()

    combo.activated.connect(_chosen)
    session.changed.connect(_show)
    combo.destroyed.connect(lambda: unhook(session, _show))
    _show()
    return combo
