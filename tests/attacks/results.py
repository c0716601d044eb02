"""What an attack tried and what failed."""

import time
import traceback
from dataclasses import dataclass, field
from pathlib import Path

SHOWN = 40


@dataclass
class Result:
    """Tries and failures of one attack, within a count and a time."""

    name: str
    count: int
    seconds: float
    tried: int = 0
    failed: list[str] = field(default_factory=list)
    facts: dict[str, object] = field(default_factory=dict)
    began: float = field(default_factory=time.monotonic)

    def rounds(self):
        """Numbers of the tries, until the count or the time is used up."""
        while self.tried < self.count and time.monotonic() - self.began < self.seconds:
            yield self.tried
            self.tried += 1

    def fail(self, what):
        """Remember a failure."""
        self.failed.append(what)

    def lines(self):
        """The result as lines of a table, failures below it."""
        facts = ", ".join(f"{k} {v}" for k, v in self.facts.items())
        took = time.monotonic() - self.began
        yield f"{self.name:<13} {self.tried:>7} {len(self.failed):>7} {took:>8.0f} s  {facts}"
        for what in self.failed[:SHOWN]:
            yield f"    {what}"
        if len(self.failed) > SHOWN:
            yield f"    and {len(self.failed) - SHOWN} more"


def mistake(error):
    """An error that is not ours, in a line: what, and where in our own files."""
    frames = traceback.extract_tb(error.__traceback__)
    ours = [f for f in frames if "firecrest" in f.filename]
    places = " ".join(f"{Path(f.filename).name}:{f.lineno}" for f in ours[-3:])
    return f"{type(error).__name__} {error!s:.60} ({places})"
