"""The fuse at the source: rating and type, and why. Typical classes; the fuse's own sheet decides.

A fuse must carry what plays, open on a short circuit without bursting, and bear the inrush into the
boards' capacitors: a charge through R gives an integral of V^2 C/(2 R) A^2 s.
"""

from dataclasses import dataclass

LONG_FACTOR = 1.25
"""A fuse carries its rating for years only with a quarter to spare."""
INRUSH_SHARE = 0.3
"""Of the melting integral that inrush may take, so that it survives thousands."""
INRUSH_OHMS = 0.02
"""Ohm of board and capacitors that a source adds to its own while they charge."""


@dataclass(frozen=True)
class FuseKind:
    """A class of fuses: the ratings it is sold in, the volts it breaks, the short circuit it may be
    asked to break (A), and its melting integral over its rating squared (s).
    """

    name: str
    volts: float
    breaks: float
    melting: float
    ratings: tuple[float, ...]

    def inrush(self, rating: float) -> float:
        """A^2 s that it bears at each switching on."""
        return INRUSH_SHARE * self.melting * rating**2


# fmt: off
BLADE = FuseKind("blade", 32.0, 1000.0, 1.2,
                 (1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 40))
SLOW_TUBE = FuseKind("ceramic tube, slow", 125.0, 1500.0, 5.0,
                     (0.5, 0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10, 12.5, 16, 20,
                      25, 30, 40))
# fmt: on
KINDS = {kind.name: kind for kind in (BLADE, SLOW_TUBE)}


@dataclass(frozen=True)
class Asked:
    """What a fuse must bear: A for long and of a test tone at clipping, V of the source, A of its
    short circuit, A^2 s of inrush.
    """

    long: float
    bench: float
    volts: float
    short_circuit: float
    inrush: float

    @property
    def least(self) -> float:
        """A that its rating must reach."""
        return max(LONG_FACTOR * self.long, self.bench)


@dataclass(frozen=True)
class Fuse:
    """A fuse, and which demand made it as large as it is: "bench", "long" or "inrush"."""

    kind: FuseKind
    rating: float
    reason: str


def fuse_for(asked: Asked) -> Fuse | None:
    """The first class whose smallest sufficient rating passes everything, else the larger slow tube
    that does; None: it needs a soft start.
    """
    by_current = "bench" if asked.bench >= LONG_FACTOR * asked.long else "long"
    for kind in (BLADE, SLOW_TUBE):
        rating = next((r for r in kind.ratings if r >= asked.least), None)
        if rating is not None and passes(kind, rating, asked):
            return Fuse(kind, rating, by_current)
    larger = (r for r in SLOW_TUBE.ratings if r >= asked.least and passes(SLOW_TUBE, r, asked))
    rating = next(larger, None)
    return None if rating is None else Fuse(SLOW_TUBE, rating, "inrush")


def passes(kind: FuseKind, rating: float, asked: Asked) -> bool:
    """Whether a fuse of ``kind`` breaks what it must and bears the inrush."""
    breaks = kind.volts >= asked.volts and kind.breaks >= asked.short_circuit
    return breaks and asked.inrush <= kind.inrush(rating)


def inrush(volts: float, farads: float, resistance: float) -> tuple[float, float]:
    """(peak A, A^2 s) into ``farads`` behind a source of ``resistance`` ohm."""
    ohms = resistance + INRUSH_OHMS
    if farads <= 0.0:
        return 0.0, 0.0
    return volts / ohms, volts**2 * farads / (2 * ohms)
