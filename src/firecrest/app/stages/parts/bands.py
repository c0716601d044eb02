"""Bands that stand first on a sheet: contradictions with their ways out, news on the shelf."""

from collections.abc import Callable, Sequence
from functools import partial

from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout

from firecrest.app.widgets.marks import Mark
from firecrest.app.widgets.plain import label
from firecrest.present.parts.datasheet import Dispute


class Band(QFrame):
    """A tinted band with a mark, a sentence, a second one, and buttons of two lines."""

    def __init__(
        self, text: str, hint: str, buttons: Sequence[tuple[str, str, Callable[[], None]]]
    ) -> None:
        super().__init__()
        self.setProperty("role", "band")
        self.setAccessibleName(f"{text} {hint}")
        box = QVBoxLayout(self)
        box.setContentsMargins(12, 7, 12, 9)
        box.setSpacing(5)
        head = QHBoxLayout()
        head.addWidget(Mark("close"))
        line = label(text, "figure")
        line.setWordWrap(True)
        head.addWidget(line, 1)
        box.addLayout(head)
        if hint:
            more = label(hint)
            more.setWordWrap(True)
            box.addWidget(more)
        row = QHBoxLayout()
        row.setSpacing(8)
        self.buttons: list[QPushButton] = []
        for title, effect, action in buttons:
            button = QPushButton(f"{title}\n{effect}" if effect else title)
            button.setProperty("role", "way")
            button.clicked.connect(lambda _=False, act=action: act())
            row.addWidget(button, 1)
            self.buttons.append(button)
        box.addLayout(row)


def dispute_band(dispute: Dispute, keep: Callable[[int], None]) -> Band:
    """The contradiction of a sheet; ``keep`` gets the number of the way chosen."""
    ways = [
        (choice.label, choice.effect, partial(keep, k)) for k, choice in enumerate(dispute.choices)
    ]
    return Band(dispute.sentence, dispute.culprit, ways)
