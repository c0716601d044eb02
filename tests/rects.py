"""Rectangles as tests look at them."""


def inside(rect, area):
    """Whether a rectangle lies wholly in another."""
    across = area.x <= rect.x and rect.x + rect.width <= area.x + area.width
    return across and area.y <= rect.y and rect.y + rect.height <= area.y + area.height
