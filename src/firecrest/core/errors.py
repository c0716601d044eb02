"""The one family of errors that leaves Firecrest: what happened, where, what to do."""

from collections.abc import Iterator
from contextlib import contextmanager


class FirecrestError(Exception):
    """Base of every error a maker can meet; its text is a sentence to act on."""

    unforeseen = False


class MissingFigureError(FirecrestError):
    """A figure that a result needs is not known.

    ``figure`` names it in words, ``part`` the part that lacks it.
    """

    def __init__(self, figure: str, part: str) -> None:
        super().__init__(f"needs {figure} of {part}")
        self.figure = figure
        self.part = part


class RangeError(FirecrestError):
    """A number lies outside the accepted range, or is not reachable."""


class DesignError(FirecrestError):
    """A design does not hold together; the text names the place in it."""


class NoAirError(DesignError):
    """A chamber is full."""

    def __init__(self, chamber: str) -> None:
        super().__init__(
            f"No air is left in chamber {chamber}: what is in it takes more than it holds."
        )


class FileError(FirecrestError):
    """A file cannot be read or written; what was there before is untouched."""


class ReadingError(FirecrestError):
    """A typed text cannot be read as the quantity that was asked for."""


class ShelfError(FirecrestError):
    """The shelf, or a part for it, cannot be read or written; what was there stays."""


class ShelfBusyError(ShelfError):
    """Another program writes to the shelf at this moment; the same will do a little later."""


class ChangedElsewhereError(FileError):
    """A file is not as it was when it was opened or saved here; nothing was written."""


@contextmanager
def guarded(what: str, kind: type[FirecrestError]) -> Iterator[None]:
    """The edge of a reader: whatever else goes wrong inside becomes an error of ``kind``.

    Such an error is a mistake of the reader's: ``unforeseen`` is set on it, so that tests and
    attacks find it, while the person at the window gets a sentence and loses nothing.
    """
    try:
        yield
    except FirecrestError:
        raise
    except Exception as error:
        told = kind(f"{what} cannot be read ({type(error).__name__}). Nothing was changed.")
        told.unforeseen = True
        raise told from error
