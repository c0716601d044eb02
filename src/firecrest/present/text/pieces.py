"""Sentences as rows of pieces; one with a ``path`` is a link to the field that moves it most."""

from dataclasses import dataclass

from firecrest.design.edits.paths import Path


@dataclass(frozen=True)
class Piece:
    """Some words; with a ``path`` they lead to a field, with ``frequency`` to a spot on plots."""

    text: str
    path: Path | None = None
    frequency: float | None = None


@dataclass(frozen=True)
class Sentence:
    """A mark (state of a promise), the pieces that follow it, and which promise it is about."""

    mark: str
    pieces: tuple[Piece, ...]
    about: str = ""

    @property
    def plain(self) -> str:
        """The words alone."""
        return "".join(piece.text for piece in self.pieces)
