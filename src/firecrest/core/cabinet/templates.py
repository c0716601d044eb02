"""1:1 templates on pages: how many, and which part of the drawing each holds. Lengths in m."""

from math import ceil

PAGES = {"A4": (0.210, 0.297), "Letter": (0.2159, 0.2794)}
MARGIN, OVERLAP = 0.010, 0.010


def grid(size: tuple[float, float], page: tuple[float, float]) -> tuple[int, int]:
    """Pages across and up that a drawing takes."""
    across, up = (
        max(ceil((s - OVERLAP) / (p - 2 * MARGIN - OVERLAP) - 1e-9), 1)
        for s, p in zip(size, page, strict=True)
    )
    return across, up


def tiling(size: tuple[float, float], page: str = "A4") -> tuple[tuple[int, int], bool]:
    """Fewest pages, and whether they lie across."""
    w, h = PAGES[page]
    upright, lying = grid(size, (w, h)), grid(size, (h, w))
    if lying[0] * lying[1] < upright[0] * upright[1]:
        return lying, True
    return upright, False


def pages_of(wide: float, high: float, page: str = "A4") -> int:
    """How many pages a drawing takes."""
    (across, up), _ = tiling((wide, high), page)
    return across * up
