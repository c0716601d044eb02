"""What a wall supply does when it is asked too much, and whether boards start on it.

Fold-back follows I(V) = I_short + (I_burst - I_short) V/V_knee, V_knee = V - R I_burst; every other
behaviour gives its burst current down to the knee.
"""

from dataclasses import dataclass
from math import sqrt

FOLD_BACK = "fold-back"
HICCUP = "hiccup"


@dataclass(frozen=True)
class Supply:
    """Volts at no load, ohms of its regulation, burst current and, folding back, that into a short
    circuit (A).
    """

    voltage: float
    regulation: float
    burst: float
    short: float | None = None

    @property
    def knee(self) -> float:
        """Volts at its terminals at the burst current."""
        return self.voltage - self.regulation * self.burst

    @property
    def largest_power(self) -> float:
        """W at the knee."""
        return self.knee * self.burst

    def current_at(self, volts: float) -> float:
        """A it can give while its terminals stand at ``volts``."""
        if self.short is None:
            return self.burst
        return self.short + (self.burst - self.short) * min(volts / self.knee, 1.0)

    def start_margin(self, start_voltage: float, amperes: float, watts: float) -> float:
        """A to spare when boards that start at ``start_voltage`` take ``amperes`` and ``watts``; it
        does not start where that is 0 or less.
        """
        return self.current_at(start_voltage) - amperes - watts / start_voltage

    def recovers_above(self, amperes: float, watts: float) -> float:
        """Volts above which it recovers under a load: the largest at which it gives just as much.

        (I_short + m V) V = A V + P; 0 where it can always carry the load.
        """
        short = self.burst if self.short is None else self.short
        slope = (self.burst - short) / self.knee
        spare = short - amperes
        if slope <= 0:
            return watts / spare if spare > 0 else self.knee
        root = (-spare + sqrt(spare**2 + 4 * slope * watts)) / (2 * slope)
        return min(max(root, 0.0), self.knee)


def silent_share(tripped: float, retries_after: float) -> float:
    """Share of the time that a hiccuping supply is off: it works ``tripped`` s, rests the other."""
    return retries_after / (retries_after + tripped)
