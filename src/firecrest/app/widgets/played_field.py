"""What is played in the plots: chosen, or typed as watts or volts."""

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QComboBox

from firecrest.app.editing import Editing
from firecrest.app.theme.size import fix
from firecrest.app.widgets.choices import CalmCombo
from firecrest.app.widgets.plain import tip
from firecrest.assessment.motion import PROMISE
from firecrest.core.errors import FirecrestError
from firecrest.present.plot.playing import CHOICES, HELP, played_text, read_played


class PlayedField(CalmCombo):
    """Tells what was ``chosen``; what cannot be played is refused and stays as it was."""

    chosen = Signal(object)

    def __init__(self, session: Editing) -> None:
        super().__init__()
        self.session, self.played = session, PROMISE
        self.setEditable(True)
        self.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
        self.setAccessibleName("Played")
        fix(self, width=168)
        tip(self, HELP)
        self.addItems([text for _, text in CHOICES])
        self.textActivated.connect(self._take)
        edit = self.lineEdit()
        assert edit is not None
        edit.setAccessibleName("Played, in watts or volts")
        edit.editingFinished.connect(lambda: self._take(self.currentText()))

    def _take(self, text: str) -> None:
        if text == played_text(self.played):
            return
        try:
            self.played = read_played(text)
        except FirecrestError as error:
            self.session.refused.emit(str(error))
        else:
            self.chosen.emit(self.played)
        self.setEditText(played_text(self.played))
