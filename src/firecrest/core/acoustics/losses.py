"""Leak and damping in a maker's words, each with the range of figures it stands for.

Source: typical figures in Small, JAES 21 (1973) 363-372 and 438-444 (QL 5 to 20, QA from about 100
empty to some tens lined, a few when filled) and JAES 20 (1972) 798-808 (filling: up to a fifth
more air). Stated estimates: measure the box to know.
"""

from dataclasses import dataclass


@dataclass(frozen=True)
class Tightness:
    """How well a box is closed: leak Q, likely from ``low`` to ``high``."""

    key: str
    words: str
    leak_q: float
    low: float
    high: float


@dataclass(frozen=True)
class Damping:
    """What lies in a chamber: (likely, low, high) of apparent growth and of absorption Q."""

    key: str
    words: str
    stuffing: tuple[float, float, float]
    absorption_q: tuple[float, float, float]


TIGHTNESS = (
    Tightness("print", "airtight print", 20.0, 14.0, 40.0),
    Tightness("wood", "normal wood", 10.0, 7.0, 15.0),
    Tightness("gasket", "leaky gasket", 6.0, 4.5, 8.0),
    Tightness("lid", "leaky lid", 4.0, 3.0, 5.0),
)
DAMPING = (
    Damping("empty", "empty", (0.0, 0.0, 0.01), (100.0, 150.0, 60.0)),
    Damping("lined", "lined", (0.05, 0.03, 0.08), (40.0, 70.0, 25.0)),
    Damping("filled", "filled", (0.15, 0.10, 0.20), (8.0, 15.0, 5.0)),
)


def tightness_of(leak_q: float | None) -> Tightness | None:
    """The preset a leak Q was set by; None for any other figure."""
    return next((p for p in TIGHTNESS if p.leak_q == leak_q), None)


def damping_of(stuffing: float, absorption_q: float | None) -> Damping | None:
    """The preset these figures were set by; None for any other figures."""
    figures = (stuffing, absorption_q)
    return next((p for p in DAMPING if (p.stuffing[0], p.absorption_q[0]) == figures), None)
