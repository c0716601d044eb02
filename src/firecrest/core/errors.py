"""The one family of errors that leaves Firecrest: what happened, where, what to do."""


class FirecrestError(Exception):
    """Base of every error a maker can meet; its text is a sentence to act on."""


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


class FileError(FirecrestError):
    """A file cannot be read or written; what was there before is untouched."""


class ReadingError(FirecrestError):
    """A typed text cannot be read as the quantity that was asked for."""


class ShelfError(FirecrestError):
    """The shelf, or a part for it, cannot be read or written; what was there stays."""
