"""The side panel where there is room for it, and a drawer with an edge to pull where not."""

from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QToolButton, QWidget

from firecrest.app.theme.size import fix
from firecrest.app.widgets.plain import tip
from firecrest.app.widgets.side import SidePanel

EDGE = 28


class Drawer(QWidget):
    """Holds the panel beside the stage; ``set_small`` makes it a drawer over the stage."""

    toggled = Signal(bool)

    def __init__(self, side: SidePanel) -> None:
        super().__init__()
        self.side = side
        self._small, self._wanted, self._moves = False, True, 0
        self.edge = QToolButton()
        fix(self.edge, width=EDGE)
        self.edge.setSizePolicy(
            self.edge.sizePolicy().Policy.Fixed, self.edge.sizePolicy().Policy.Expanding
        )
        self.edge.clicked.connect(self.toggle)
        self.edge.hide()
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(0)
        self._row.addWidget(side)
        self._row.addWidget(self.edge)
        side.installEventFilter(self)
        side.moves.counted.connect(self._count)
        self._count(0)

    def set_small(self, small: bool) -> None:
        """A drawer, closed, or the panel in its place as it was last wanted there."""
        if small == self._small:
            return
        self._small = small
        self.edge.setVisible(small)
        if small:
            self._row.removeWidget(self.side)
            self.side.setParent(self.parentWidget())
            self.side.hide()
        else:
            self._row.insertWidget(0, self.side)
            self.side.setVisible(self._wanted)
        self.toggled.emit(not self.side.isHidden())

    def show_panel(self, on: bool) -> None:
        """Open or close; where there is room this is how it is wanted from now on."""
        if not self._small:
            self._wanted = on
        self.side.setVisible(on)
        self._label()
        self.place()
        self.toggled.emit(on)

    def toggle(self) -> None:
        """Open what is closed, close what is open."""
        self.show_panel(self.side.isHidden())
        if self._small and not self.side.isHidden():
            self.side.setFocus(Qt.FocusReason.OtherFocusReason)

    def place(self) -> None:
        """An open drawer lies over the stage, at the edge."""
        if self._small and not self.side.isHidden():
            spot = self.geometry()
            left = spot.left() - self.side.width()
            if self.isRightToLeft():
                left = spot.right() + 1
            self.side.setGeometry(left, spot.top(), self.side.width(), spot.height())
            self.side.raise_()

    def _count(self, moves: int) -> None:
        """How many moves wait in the drawer."""
        self._moves = moves
        self._label()

    def _label(self) -> None:
        arrow = "‹" if self.side.isHidden() is not self.isRightToLeft() else "›"
        self.edge.setText(f"{arrow}\n{self._moves}" if self._moves else arrow)
        self.edge.setAccessibleName(f"Why, and next moves: {self._moves}")
        tip(self.edge, "Why, and next moves (F9)")

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Esc closes the drawer from anywhere in it."""
        escape = isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape
        if self._small and escape and event.type() == QEvent.Type.KeyPress:
            self.show_panel(False)
            self.edge.setFocus(Qt.FocusReason.OtherFocusReason)
            return True
        return super().eventFilter(watched, event)
