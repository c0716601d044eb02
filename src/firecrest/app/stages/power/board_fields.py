"""Figures of every amplifier board, one column each, and ways to add and remove boards."""

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from firecrest.app.session import Session
from firecrest.app.stages.base import column, columns, numbers
from firecrest.app.stages.power.feeding import button, rail_rows
from firecrest.app.widgets.choices import bound_check, bound_combo, labelled
from firecrest.app.widgets.plain import label
from firecrest.design.amplifiers import Amplifier
from firecrest.design.design import Design
from firecrest.design.edits import boards as board_edits
from firecrest.design.edits import power as edits
from firecrest.design.edits.paths import Path
from firecrest.present.power import power

RUNS = ("cut_off", "start_voltage", "highest_supply", "idle_current", "sleep_current",
        "sleep_after", "current_limit", "bulk_capacitance", "heat_resistance")  # fmt: skip
SOUNDS = ("gain", "input_resistance", "noise", "noise_ratio")


def board_column(session: Session) -> QWidget:
    """Every board, and a way to add one."""
    boards = session.design.power.amplifiers
    names = [name for _, name in power.amplifier_names(session.design)]
    holder = QWidget()
    rows = QVBoxLayout(holder)
    rows.setContentsMargins(0, 0, 0, 0)
    for number, (place, board) in enumerate(boards):
        rows.addWidget(_board(session, number, place, board.part, names[number]))
        if len(boards) > 1:
            remove = partial(board_edits.remove_board, place=place)
            rows.addWidget(button(session, f"Remove {names[number]}", remove))
    rows.addWidget(button(session, "Add another board", board_edits.add_board))
    return holder


def _board(session: Session, number: int, place: int, part: Amplifier, name: str) -> QWidget:
    """Claims, what it runs on, what it sounds like, beside each other."""
    fitted: Path = ("power", "boards", place)
    here: Path = (*fitted, "part")
    dealt = label(power.outputs_words(session.design, number), "hint")
    dealt.setWordWrap(True)
    runs = [
        *rail_rows(session, fitted),
        *numbers(session, *((*here, n) for n in RUNS)),
        labelled("Stands in", bound_combo(session, (*fitted, "stands"), power.PLACES)),
    ]
    weighted = bound_check(session, (*here, "noise_weighted"), "Noise is A-weighted")
    sounds = [*numbers(session, *((*here, n) for n in SOUNDS)), weighted, dealt]
    return columns(
        column(name, "what it claims", *_claims(session, place, part)),
        column("Runs", name, *runs),
        column("Sounds", name, *sounds),
    )


def _claims(session: Session, place: int, part: Amplifier) -> list[QWidget]:
    here: Path = ("power", "boards", place, "part")
    claims: list[Path] = [(*here, "claims", k) for k in range(len(part.claims))]
    for n, kind in enumerate(part.other_outputs):
        claims += [(*here, "other_outputs", n, "claims", k) for k in range(len(kind.claims))]
    rows: list[QWidget] = []
    for claim in claims:
        rows += numbers(session, *((*claim, n) for n in ("power", "load", "supply", "thd")))
    rows.append(_claim_buttons(session, place, len(part.claims)))
    rows.append(bound_check(session, (*here, "bridged"), "Bridge-tied outputs"))
    rows.append(bound_check(session, (*here, "boosted"), "Has its own boost converter"))
    return rows


def _claim_buttons(session: Session, board: int, count: int) -> QWidget:
    """Add a claim to a board, or take the last one away."""

    def _edit(action: Callable[..., tuple[str, Design]], *arguments: int) -> None:
        session.attempt(lambda: session.apply(*action(session.design, *arguments)))

    holder = QWidget()
    row = QHBoxLayout(holder)
    row.setContentsMargins(0, 2, 0, 2)
    add = QPushButton("Add claim")
    add.clicked.connect(lambda: _edit(edits.add_claim, board))
    row.addWidget(add)
    remove = QPushButton("Remove last")
    remove.setEnabled(count > 1)
    remove.clicked.connect(lambda: _edit(edits.remove_claim, board, count - 1))
    row.addWidget(remove)
    row.addStretch(1)
    return holder
