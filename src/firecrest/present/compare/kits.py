"""Kits and kinds of box to compare, in words."""

from dataclasses import dataclass

from firecrest.design.brief import Brief
from firecrest.present.text.units import told
from firecrest.proposals.kits import Combination, End
from firecrest.proposals.layouts import Kind

KIND_NAMES: dict[Kind, str] = {"sealed": "sealed", "port": "port", "radiators": "radiators"}
HELD_NAMES = {"air": "with the same air", "outside": "in the same case"}


@dataclass(frozen=True)
class Cell:
    """One combination of a kit: words, mark, and why it cannot be where it cannot."""

    text: str
    mark: str
    tip: str


def end_name(end: End) -> str:
    """An end in words."""
    if end.kind == "sealed":
        return "closed"
    return "port" if end.radiator is None else str(end.radiator.name)


def body_name(length: float) -> str:
    """A body by its outer length."""
    return told(length, "length", "mm", 0)


def cell_of(found: Combination, brief: Brief) -> Cell:
    """What a combination comes to: loudness and bass reach, and whether all musts are kept."""
    if found.design is None:
        return Cell("–", "none", found.refusal)
    figures = found.figures
    loud = "–" if figures.loudness is None else f"{figures.loudness:.1f} dB"
    bass = "–" if figures.bass_reach is None else f"{figures.bass_reach:.0f} Hz"
    musts = [p for p in figures.promises if p.importance == "must"]
    short = [p for p in musts if p.state in ("short", "unknown")]
    mark = "short" if short else "met"
    price = told(figures.price, "money", "€", 0)
    mass = told(figures.mass, "mass", "kg", 2)
    kept = f"{len(musts) - len(short)} of {len(musts)} musts kept"
    level = f"{loud} at {brief.listening.distance:g} m"
    return Cell(f"{loud}, {bass}", mark, f"{level}, {bass}; {mass}, {price}; {kept}")


def variant_name(driver: str, length: float, end: End) -> str:
    """A combination as the name of a variant."""
    return f"{driver}, {body_name(length)}, {end_name(end)}"


def counted(chosen: int, free: int) -> str:
    """What the button that takes them says."""
    if chosen == 0:
        return "Tick what shall be compared"
    word = "variant" if chosen == 1 else "variants"
    room = "" if chosen <= free else f", {free} at most"
    return f"Add {chosen} {word}{room}"
