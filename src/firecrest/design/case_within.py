"""What is built into a case besides braces: boxes of their own within it, and a grille."""

from pydantic.dataclasses import dataclass

from firecrest.design.fields import MODEL, choice, identity, number, text
from firecrest.design.mount import Mount


@dataclass(frozen=True, kw_only=True, config=MODEL)
class InnerBox:
    """A box behind a panel, which closes it: for the amplifier, or for a way with its own air.

    ``holds`` names the chamber that it is; without one it is for boards and takes air only.
    """

    id: str = identity("inner")
    name: str = text("Name", default="Amplifier chamber")
    mount: Mount = Mount(panel="back")
    chamber: str = identity("main", "Stands in")
    holds: str = choice("Is the chamber", default="")
    width: float = number("Inner box, width", "length", 0.01, 3, "mm", default=0.12, digits=0)
    height: float = number("Inner box, height", "length", 0.01, 3, "mm", default=0.1, digits=0)
    depth: float = number(
        "Inner box, depth",
        "length",
        0.01,
        3,
        "mm",
        default=0.06,
        digits=0,
        help="From the inside of the panel to its own back, outside.",
    )
    wall: float = number("Inner box, wall", "length", 0.0005, 0.1, "mm", default=0.006, digits=1)
    vent: float = number(
        "Vent slots, height",
        "length",
        0,
        0.5,
        "mm",
        default=0.0,
        digits=1,
        help="One slot low and one high through its panel, as wide as its inside; 0 is sealed.",
    )
    rise: float = number(
        "Warmer by",
        "temperature difference",
        1,
        80,
        "K",
        default=20.0,
        digits=0,
        help="How much warmer than the air outside the chamber may get.",
    )


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Grille:
    """A grille before a panel. It is taken to let all sound through."""

    panel: str = identity("front", "Panel")
    gap: float = number(
        "Grille, clear of the panel",
        "length",
        0,
        0.2,
        "mm",
        default=0.012,
        digits=1,
        help="From the panel's face to the inside of the cloth or mesh.",
    )
    thickness: float = number("Grille, thick", "length", 0, 0.05, "mm", default=0.002, digits=1)
    mass: float = number("Grille, weight", "mass", 0, 20, "g", default=0.08, digits=0)
    price: float = number("Grille, price", "money", 0, 1e4, "€", default=0.0, digits=1)
