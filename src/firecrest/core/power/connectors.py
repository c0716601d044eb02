"""What connectors and switches bear on direct current: usual classes, their own sheets decide."""

from dataclasses import dataclass

SWITCH_AC_VOLTS = 30.0
"""V d.c. up to which the amperes of a switch that is rated for mains alone hold."""


@dataclass(frozen=True)
class Connector:
    """A class and the A it bears."""

    name: str
    amperes: float


CONNECTORS = (
    Connector("barrel 5.5 mm", 5.0),
    Connector("pin header 2.54", 2.0),
    Connector("pin header 3.96", 5.0),
    Connector("screw terminal", 10.0),
    Connector("blade 2.8 mm", 4.0),
    Connector("blade 4.8 mm", 8.0),
    Connector("blade 6.3 mm", 15.0),
    Connector("pack plug, small", 30.0),
    Connector("pack plug, large", 60.0),
    Connector("magnetic contact", 2.0),
    Connector("USB-C", 3.0),
    Connector("USB-C, marked lead", 5.0),
)
BY_NAME = {connector.name: connector for connector in CONNECTORS}


def that_bear(amperes: float) -> list[Connector]:
    """Classes that bear ``amperes``, the smallest first."""
    return sorted((c for c in CONNECTORS if c.amperes >= amperes), key=lambda c: c.amperes)
