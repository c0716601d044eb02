"""Names of the views above and of the pages below, stage by stage; each can be found by name."""

from typing import Final

Named = tuple[tuple[str, str], ...]
"""Key and name of each."""

SIZE: Final[Named] = (
    ("ceiling", "Ceiling"),
    ("map", "Map"),
    ("response", "Response"),
    ("travel", "Travel"),
    ("impedance", "Impedance"),
    ("delay", "Delay"),
    ("pressure", "Pressure"),
    ("ports", "Ports"),
)
POWER: Final[Named] = (
    ("hours", "Hours"),
    ("boards", "Boards"),
    ("levels", "Levels"),
    ("supplies", "Supplies"),
    ("wiring", "Wiring"),
)
VOICE: Final[Named] = (
    ("sum", "Sum"),
    ("fan", "Off axis"),
    ("power", "Spread"),
    ("phase", "Phase"),
    ("impulse", "Impulse"),
    ("delay", "Delay"),
    ("cross", "Where to cross"),
)
VOICE_PAGES: Final[Named] = (
    ("lanes", "Lanes"),
    ("curves", "Curves"),
    ("line up", "Line up"),
    ("flatten", "Flatten"),
    ("protect", "Protect"),
    ("compare", "Compare"),
)
CABINET: Final[Named] = (("drawing", "Drawing"), ("solid", "Solid"), ("pieces", "Pieces"))
VIEWS: Final[tuple[tuple[str, Named], ...]] = (
    ("size", SIZE),
    ("power", POWER),
    ("voice", VOICE),
    ("cabinet", CABINET),
)
