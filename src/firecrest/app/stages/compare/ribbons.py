"""One ribbon a variant: what gives first along the frequency axis of the plot above."""

from collections.abc import Sequence

import numpy as np
from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QPaintEvent
from PySide6.QtWidgets import QWidget

from firecrest.app.theme.size import canvas, fix, ratio, sized, text_size
from firecrest.app.theme.style import colour, holder, text_font, theme
from firecrest.app.widgets.chart import LEFT, RIGHT
from firecrest.app.widgets.patterns import limit_brush
from firecrest.app.widgets.plain import tip
from firecrest.present.plot.plot import TintRun

STEP, HIGH = 13, 10


class Ribbons(QWidget):
    """Tinted and patterned like the ceiling, so that limits can be followed from row to row."""

    def __init__(self) -> None:
        super().__init__()
        self._rows: list[tuple[str, bool, tuple[TintRun, ...]]] = []
        self._x_range = (30.0, 1000.0)
        holder.changed.connect(self.update)
        text_size.changed.connect(self._fit)

    def show_rows(
        self, rows: Sequence[tuple[str, bool, tuple[TintRun, ...]]], x_range: tuple[float, float]
    ) -> None:
        """(letter, in force, runs) of each variant."""
        self._rows, self._x_range = list(rows), x_range
        said = [
            f"{letter}: " + ", ".join(f"{r.name} from {r.x[0]:.0f} Hz" for r in runs)
            for letter, _, runs in rows
        ]
        self.setAccessibleName("What gives first. " + ". ".join(said))
        tip(self, "What gives first, along the same axis:\n" + "\n".join(said))
        self._fit()
        self.update()

    def _fit(self) -> None:
        fix(self, height=STEP * max(len(self._rows), 1) + 2)

    def sizeHint(self) -> QSize:
        return QSize(sized(300), self.height())

    def paintEvent(self, event: QPaintEvent) -> None:
        p = canvas(self)
        factor = text_size.factor
        left, right = float(LEFT), self.width() / factor - RIGHT
        low, high = np.log(self._x_range)

        def _at(frequency: float) -> float:
            share = (np.log(frequency) - low) / (high - low)
            return left + float(np.clip(share, 0.0, 1.0)) * (right - left)

        for k, (letter, here, runs) in enumerate(self._rows):
            top = 1.0 + STEP * k
            p.setFont(text_font(11, medium=here))
            p.setPen(colour("ink"))
            name = QRectF(0, top - 2, left - 6, STEP + 2)
            p.drawText(name, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, letter)
            for run in runs:
                a, b = _at(float(run.x[0])), _at(float(run.x[-1]))
                if b - a > 0.5:
                    fill, line = theme().fill(run.code), theme().line(run.code)
                    brush = limit_brush(run.code, fill, line, ratio(self))
                    p.fillRect(QRectF(a, top, b - a, HIGH), brush)
