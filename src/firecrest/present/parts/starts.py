"""What a new part of each kind starts from: as little as its model needs, named so."""

from typing import Any

from firecrest.core.errors import DesignError
from firecrest.design.amplifiers import Amplifier, Claim, DspBoard
from firecrest.design.parts import DriverPart, RadiatorPart
from firecrest.design.sources import Cell, CellPoint, WallSupply


def new_part(kind: str) -> Any:
    """A new part; figures that a model cannot do without are round ones, to be overwritten."""
    if kind == "driver":
        return DriverPart(name="New driver")
    if kind == "radiator":
        return RadiatorPart(name="New radiator")
    if kind == "amplifier":
        return Amplifier(name="New amplifier", claims=(Claim(power=20, load=4, supply=12),))
    if kind == "cell":
        table = (
            CellPoint(charge=0, rest_voltage=3.0, resistance=0.04),
            CellPoint(charge=0.5, rest_voltage=3.7, resistance=0.03),
            CellPoint(charge=1, rest_voltage=4.2, resistance=0.03),
        )
        return Cell(name="New cell", capacity=9000, table=table)
    if kind == "supply":
        return WallSupply(kind="wall", name="New supply", voltage=12, continuous_current=2)
    if kind == "dsp":
        return DspBoard(name="New DSP board")
    raise DesignError(f"There is no kind of part called {kind}.")
