"""What only some kinds of part have on their sheet: claims of a board, the table of a cell."""

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from firecrest.app.editing import Editing
from firecrest.app.stages.base import column, grid_of, numbers
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import bound_check, bound_combo, labelled
from firecrest.app.widgets.number_field import NumberEdit
from firecrest.app.widgets.plain import label
from firecrest.design.amplifiers import Amplifier
from firecrest.design.design import Design
from firecrest.design.edits import parts as part_edits
from firecrest.design.edits import power as edits
from firecrest.design.edits.paths import Path
from firecrest.design.parts import DriverPart
from firecrest.design.sources import Cell, WallSupply
from firecrest.present.frame.bindings import at_path
from firecrest.present.power import power
from firecrest.proposals.placing import with_own_mains

CHEMISTRIES = [(c, c) for c in power.CHEMISTRIES]
OUTPUTS = ("channels", "least_load", "current_limit")
CELL_FIELD, CLAIM_FIELD = 62, 62


def extras(editing: Editing, part: object, path: Path) -> list[QWidget]:
    """Further columns of a part's sheet."""
    if isinstance(part, Amplifier):
        return [_claims(editing, part, path), _other_outputs(editing, part, path)]
    if isinstance(part, Cell):
        return [_table(editing, part, path), _warmth(editing, part, path)]
    if isinstance(part, WallSupply):
        return [_behaviour(editing, path)]
    return []


class ListEdit(NumberEdit):
    """A number of one item of a list; it rests when its item goes."""

    def __init__(self, editing: Editing, path: Path, width: int) -> None:
        super().__init__(editing, at_path(editing.design, path))
        fix(self, width=width)
        self.setProperty("dense", True)
        self.setProperty("path", ".".join(map(str, path)))
        editing.changed.connect(self.refresh)

    def refresh(self) -> None:
        """Show what is in force."""
        if self.session.has(self.binding.path):
            self.show_value()


def _fields(editing: Editing, paths: list[Path], width: int) -> list[QWidget]:
    return [ListEdit(editing, path, width) for path in paths]


def _buttons(
    editing: Editing,
    word: str,
    add: Callable[[Design], tuple[str, Design]],
    remove: Callable[[Design], tuple[str, Design]],
) -> QWidget:
    """Add one more, or take the last one away."""
    holder = QWidget()
    row = QHBoxLayout(holder)
    row.setContentsMargins(0, 2, 0, 2)
    for text, action in ((f"Add {word}", add), ("Remove last", remove)):
        button = QPushButton(text)
        button.clicked.connect(
            lambda _=False, a=action: editing.attempt(lambda: editing.apply(*a(editing.design)))
        )
        row.addWidget(button)
    row.addStretch(1)
    return holder


def _claims(editing: Editing, part: Amplifier, path: Path) -> QWidget:
    """Power into a load at a supply and a distortion, one row a claim."""
    heads: list[QWidget] = [label(t, "hint") for t in ("watts", "into", "at", "distortion")]
    names = ("power", "load", "supply", "thd")
    rows = [
        _fields(editing, [(*path, "claims", k, n) for n in names], CLAIM_FIELD)
        for k in range(len(part.claims))
    ]
    last, board = len(part.claims) - 1, int(path[2])
    return column(
        "What it claims",
        "per output",
        grid_of([heads, *rows]),
        _buttons(
            editing,
            "claim",
            lambda d: edits.add_claim(d, board),
            lambda d: edits.remove_claim(d, board, last),
        ),
        *_efficiency(editing, part, path),
        bound_check(editing, (*path, "bridged"), "Bridge-tied outputs"),
        bound_check(editing, (*path, "boosted"), "Has its own boost converter"),
        bound_check(
            editing,
            (*path, "own_mains"),
            "Has its own mains supply",
            lambda design, on: with_own_mains(design, path, on),
        ),
    )


def _efficiency(editing: Editing, part: Amplifier, path: Path) -> list[QWidget]:
    """An efficiency of the sheet with the claim it was stated for, or a way to state one."""
    on = part.efficiency is None
    here = (*path, "efficiency")
    word = "State efficiency" if on else "Efficiency is not stated"
    rows: list[QWidget] = list(numbers(editing, (*here, "value"), (*here, "claim")))
    return [*rows, _button(editing, word, lambda d: edits.with_efficiency(d, path, on))]


def _other_outputs(editing: Editing, part: Amplifier, path: Path) -> QWidget:
    """Outputs unlike the first ones, as on a 2.1 board."""
    rows: list[QWidget] = []
    for k in range(len(part.other_outputs)):
        here = (*path, "other_outputs", k)
        rows.append(label(f"Kind {k + 2}", "section"))
        rows += numbers(editing, *((*here, n) for n in OUTPUTS))
        rows.append(bound_check(editing, (*here, "bridged"), "Bridge-tied outputs"))
    rows.append(
        _buttons(
            editing,
            "kind of output",
            lambda d: edits.add_output_kind(d, path),
            lambda d: edits.remove_output_kind(d, path),
        )
    )
    return column("Other outputs", "their claims stand in Power", *rows)


def _button(editing: Editing, text: str, edit: Callable[[Design], tuple[str, Design]]) -> QWidget:
    button = QPushButton(text)
    button.clicked.connect(lambda: editing.attempt(lambda: editing.apply(*edit(editing.design))))
    return button


def _table(editing: Editing, part: Cell, path: Path) -> QWidget:
    """Rest voltage and resistance against charge."""
    heads: list[QWidget] = [label(t, "hint") for t in ("charge", "at rest", "resistance")]
    names = ("charge", "rest_voltage", "resistance")
    rows = [
        _fields(editing, [(*path, "table", k, n) for n in names], CELL_FIELD)
        for k in range(len(part.table))
    ]
    return column(
        "Voltage and resistance",
        "",
        labelled("Chemistry", bound_combo(editing, (*path, "chemistry"), CHEMISTRIES)),
        grid_of([heads, *rows]),
        _buttons(editing, "point", edits.add_cell_point, edits.remove_cell_point),
        _button(editing, "Take the usual table of its kind", edits.with_usual_table),
    )


def _behaviour(editing: Editing, path: Path) -> QWidget:
    """What a supply does when it is asked too much."""
    return column(
        "Protection",
        "",
        labelled("Asked too much", bound_combo(editing, (*path, "behaviour"), power.BEHAVIOURS)),
    )


def _warmth(editing: Editing, part: Cell, path: Path) -> QWidget:
    """Capacity and resistance by temperature: the cell's own, or the usual of its kind."""
    heads: list[QWidget] = [label(t, "hint") for t in ("at", "capacity", "resistance")]
    if part.warmth:
        names = ("temperature", "capacity", "resistance")
        rows = [
            _fields(editing, [(*path, "warmth", k, n) for n in names], CELL_FIELD)
            for k in range(len(part.warmth))
        ]
    else:
        rows = [[label(text, "value") for text in row] for row in power.usual_warmth(part)]
    text = "Take the usual ones" if part.warmth else "Write in own ones"
    swap = partial(edits.with_own_warmth, own=not part.warmth)
    return column(
        "By temperature",
        "" if part.warmth else "usual of its kind, an estimate",
        grid_of([heads, *rows]),
        _button(editing, text, swap),
    )


def large_travel(editing: Editing, part: DriverPart, path: Path) -> QWidget:
    """What is left of a driver's values away from rest, as measured."""
    heads: list[QWidget] = [label(t, "hint") for t in ("at", "Bl", "stiffness", "Le")]
    names = ("travel", "bl", "kms", "le")
    rows = [
        _fields(editing, [(*path, "large", k, n) for n in names], CELL_FIELD)
        for k in range(len(part.large))
    ]
    return column(
        "At large travel",
        "mean of both sides" if rows else "usual over Xmax, an estimate",
        *([grid_of([heads, *rows])] if rows else []),
        _buttons(
            editing,
            "point",
            partial(part_edits.add_travel_point, path=path),
            partial(part_edits.remove_travel_point, path=path),
        ),
    )
