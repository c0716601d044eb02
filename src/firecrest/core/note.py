"""What is to be told, as a code and what its words need: whoever shows it makes the sentence."""

from dataclasses import dataclass
from typing import Any

import numpy as np


@dataclass(frozen=True)
class Note:
    """``code`` names the sentence; ``figures`` are names, and numbers in SI and dB."""

    code: str
    figures: tuple[tuple[str, Any], ...] = ()

    def of(self, row: int) -> "Note":
        """The note of one design of many: its own numbers of each column."""

        def _own(value: Any) -> Any:
            if isinstance(value, np.ndarray):
                return float(value.item(row if value.size > 1 else 0))
            return value

        return Note(self.code, tuple((name, _own(value)) for name, value in self.figures))


def note(code: str, **figures: Any) -> Note:
    """A note of ``code``."""
    return Note(code, tuple(figures.items()))
