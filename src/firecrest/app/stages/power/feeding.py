"""Who is fed by what: converters, other loads, and the rail of each board."""

from collections.abc import Callable

from PySide6.QtWidgets import QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import buttons, numbers
from firecrest.app.widgets.choices import bound_check, bound_combo, bound_text, labelled
from firecrest.app.widgets.plain import label
from firecrest.design.design import Design
from firecrest.design.edits import boards as edits
from firecrest.design.edits.paths import Path
from firecrest.design.edits.power import add_load, remove_load
from firecrest.present.power.power import rails

CONVERTER = (
    "output_voltage",
    "efficiency",
    "input_current",
    "output_current",
    "idle_power",
    "cut_off",
    "mass",
    "price",
)
RECEIVER = ("power", "standby_power", "regulator", "volume", "mass", "price")
STEPS = [(step, step) for step in ("up or down", "up", "down")]
Edit = Callable[[Design], tuple[str, Design]]


def button(session: Session, text: str, edit: Edit) -> QWidget:
    """One button that makes one edit."""

    def press() -> None:
        session.attempt(lambda: session.apply(*edit(session.design)))

    return buttons((text, press))


def rail_rows(session: Session, here: Path) -> list[QWidget]:
    """What feeds the board or load at ``here``, where there is a choice."""
    options = rails(session.design)
    if len(options) == 1:
        return []
    return [labelled("Fed by", bound_combo(session, (*here, "rail"), options))]


def converter_rows(session: Session) -> list[QWidget]:
    """Every converter, and a way to add one."""
    rows: list[QWidget] = []
    for place, converter in enumerate(session.design.power.converters):
        here: Path = ("power", "converters", place)
        rows.append(label(f"Converter {place + 1}", "section"))
        rows.append(labelled("Name", bound_text(session, (*here, "name"))))
        rows.append(labelled("Steps", bound_combo(session, (*here, "step"), STEPS)))
        rows += numbers(session, *((*here, name) for name in CONVERTER))
        rows.append(
            button(
                session,
                f"Remove {converter.name}",
                lambda design, place=place: edits.remove_converter(design, place),  # type: ignore[misc]
            )
        )
    if session.design.power.source.kind != "mains":
        rows.append(button(session, "Add converter", edits.add_converter))
    return rows


def load_rows(session: Session) -> list[QWidget]:
    """Every other load: its name, what it takes and by what regulator."""
    rows: list[QWidget] = []
    for place, load in enumerate(session.design.power.other_loads):
        here: Path = ("power", "other_loads", place)
        rows.append(labelled("Load", bound_text(session, (*here, "name"))))
        rows += numbers(session, *((*here, n) for n in ("power", "efficiency", "standby_power")))
        rows.append(bound_check(session, (*here, "always_on"), "Wired before the switch"))
        rows += rail_rows(session, here)
        rows.append(
            button(
                session,
                f"Remove {load.name}",
                lambda design, place=place: remove_load(design, place),  # type: ignore[misc]
            )
        )
    return [*rows, button(session, "Add load", add_load)]


def receiver_rows(session: Session) -> list[QWidget]:
    """Every receiver board, and a way to add one."""
    rows: list[QWidget] = []
    for place, board in enumerate(session.design.power.boards):
        if board.kind != "receiver":
            continue
        here: Path = ("power", "boards", place)
        rows.append(labelled("Receiver", bound_text(session, (*here, "part", "name"))))
        rows += numbers(session, *((*here, "part", name) for name in RECEIVER))
        rows += rail_rows(session, here)
        rows.append(
            button(
                session,
                f"Remove {board.part.name}",
                lambda design, place=place: edits.remove_receiver(design, place),  # type: ignore[misc]
            )
        )
    return [*rows, button(session, "Add receiver", edits.add_receiver)]
