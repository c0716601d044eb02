"""What opens a chamber, one module per kind."""

from firecrest.core.acoustics.openings.outside import OUTSIDE
from firecrest.core.acoustics.openings.port import Port
from firecrest.core.acoustics.openings.radiator import Radiator

__all__ = ["OUTSIDE", "Opening", "Port", "Radiator"]

Opening = Port | Radiator
