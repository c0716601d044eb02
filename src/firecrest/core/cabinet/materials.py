"""What cases are made of: stiffness, density, Poisson's number.

Estimates: 25 % on stiffness, 8 % on density; of plywood and wood the root of both directions.
"""

from dataclasses import dataclass

from firecrest.core.arrays import Number, least


@dataclass(frozen=True)
class Material:
    """E in Pa, density in kg/m3, Poisson's number."""

    stiffness: Number
    density: Number
    poisson: Number


@dataclass(frozen=True)
class Infill:
    """A print: ``skin`` of walls or floors on either face in m, ``infill`` share between."""

    skin: Number
    infill: Number


MATERIALS = {
    "birch plywood": Material(8.0e9, 680.0, 0.20),
    "poplar plywood": Material(4.5e9, 450.0, 0.20),
    "light plywood": Material(4.5e9, 430.0, 0.20),
    "fibreboard (MDF)": Material(3.0e9, 750.0, 0.25),
    "chipboard": Material(2.5e9, 650.0, 0.25),
    "spruce board": Material(2.5e9, 460.0, 0.35),
    "oak board": Material(3.5e9, 700.0, 0.35),
    "acrylic sheet": Material(3.0e9, 1190.0, 0.37),
    "aluminium": Material(7.0e10, 2700.0, 0.33),
    "solid PLA print": Material(3.3e9, 1240.0, 0.35),
    "PETG print": Material(2.0e9, 1270.0, 0.38),
    "wood-filled PLA print": Material(2.6e9, 1150.0, 0.35),
}
FILAMENTS = ("solid PLA print", "PETG print", "wood-filled PLA print")


def material_share(infill: Infill | None, t: Number) -> Number:
    """Of a wall ``t`` thick that is material: all of it but of a print."""
    if infill is None:
        return 1.0
    return least(((2 * infill.skin + infill.infill * (t - 2 * infill.skin)) / t, 1.0))
