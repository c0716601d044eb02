"""Moves in words: an imperative title, and one line of detail."""

from collections.abc import Callable, Mapping
from typing import Any

from firecrest.core.note import Note
from firecrest.core.units import figure
from firecrest.present.text.units import told
from firecrest.present.text.words import PLACES, SHOWN_IN, joined

Words = Callable[..., str]
LONGER = {
    "length": ("longer", "shorter"),
    "height": ("taller", "lower"),
    "depth": ("deeper", "shallower"),
}
FILLED = {"empty": "Take the filling out", "lined": "Line the box", "filled": "Fill the box"}


def _side(side: str, step: float, more: bool) -> str:
    return f"Make the case {told(step, 'length', 'mm', 0)} {LONGER[side][0 if more else 1]}"


def _mass(step: float, part: str) -> str:
    grams = told(abs(step), "mass", "g", 0)
    return f"Put {grams} more on each {part}" if step > 0 else f"Take {grams} off each {part}"


def _count(more: bool, part: str) -> str:
    return f"Add one more {part}" if more else f"Leave out one {part}"


def _strings(more: bool, cell: str) -> str:
    return f"Add a string of {cell}" if more else f"Leave out a string of {cell}"


def _second(part: str, parallel: bool) -> str:
    return f"Add one more {part}, in {'parallel' if parallel else 'series'}"


def _wiring(part: str, way: str, coils: bool) -> str:
    return f"Wire the {'coils of ' if coils else ''}{part} in {way}"


def _fold(bends: int) -> str:
    return f"Fold the port {'once' if bends == 1 else f'{bends} times'}"


def _opening(kind: str) -> str:
    return {
        "sealed": "Close the box",
        "port": "Open the box by a port",
        "radiators": "Open the box by two radiators",
    }[kind]


def _panels(wall: float, brace: bool) -> str:
    return f"Take {told(wall, 'length', 'mm', 1)} panels{', braced' if brace else ''}"


def _own(names: tuple[str, ...], many: bool) -> str:
    own = "chambers of their own" if many else "a chamber of its own"
    return f"Give {joined(list(names))} {own}"


def _less(key: str, value: float) -> str:
    quantity, unit, digits = SHOWN_IN[key]
    asked = told(value, quantity, unit, max(digits, 1) if key in ("loudness", "weight") else digits)
    return f"Promise less: {asked}"


def _both(first: Note, second: Note) -> str:
    other = title(second)
    return f"{title(first)}, and {other[0].lower()}{other[1:]}"


def _turned(sides: tuple[float, ...]) -> str:
    size = " × ".join(told(side, "length", "mm", 0) for side in sides)
    return f"Its place is then {size} seen from the box: length, height, depth."


TITLES: Mapping[str, Words] = {
    "air": lambda volume, more: f"Make the air {told(volume, 'volume', 'L', 2)}",
    "side": _side,
    "tuning": lambda frequency, figure, before, after: (
        f"Tune to {told(frequency, 'frequency', 'Hz', 1)}"
    ),
    "mass": _mass,
    "count": _count,
    "strings": _strings,
    "series": lambda more, series: f"Put {series} cells in series",
    "boost": lambda cut, frequency: (
        f"Cut the boost at {told(frequency, 'frequency', 'Hz', 0)} by {cut:.0f} dB"
    ),
    "high-pass move": lambda corner: f"Add a high-pass at {figure(corner, 1)} Hz",
    "limiter move": lambda volts, channel: f"Set a limiter of {figure(volts, 1)} V on {channel}",
    "part": lambda part: f"Fit {part}",
    "clear": lambda part: f"Move {part} to where it has room",
    "fins up": lambda part: f"Turn {part} so that its fins stand",
    "set anew": lambda: "Set drivers and radiators anew",
    "farther grille": lambda value: f"The grille {told(value, 'length', 'mm', 0)} clear",
    "higher vents": lambda value: f"Vent slots of {told(value, 'length', 'mm', 0)}",
    "longer lead": lambda value: f"Leads of {told(value, 'length', 'm', 2)}",
    "plate": lambda knob: f"{knob} in a plate of its own",
    "higher feet": lambda height: f"Feet of {told(height, 'length', 'mm', 0)}",
    "brace": lambda panel: f"Brace the {panel}",
    "guarded": lambda: "Fit a protection board",
    "board at cells": lambda amperes: f"Let the protection board open at {amperes:g} A",
    "gentle charger": lambda amperes: f"Charge with {amperes:g} A at most",
    "charger volts": lambda volts: f"Charge to {volts:g} V",
    "stronger board": lambda amperes: f"Fit a protection board for {amperes:g} A",
    "stronger converter": lambda part, amperes: f"Take a {part} that bears {amperes:g} A",
    "wire": lambda area: f"Use {told(area, 'area', 'mm²', 2)} for the lead",
    "fuse": lambda rating, kind: f"Fit a fuse of {rating:g} A at the pack",
    "second": _second,
    "wiring": _wiring,
    "fold": _fold,
    "flare": lambda: "Flare both ends of the port",
    "widen": lambda size: f"Widen the port to {told(size, 'length', 'mm', 0)} inside",
    "opening": _opening,
    "panels": _panels,
    "fill": lambda key: FILLED[key],
    "own chamber": _own,
    "line up": lambda loss, frequency: "Line up the ways",
    "balance": lambda names, down: f"Turn {joined(list(names))} down by {figure(down, 1)} dB",
    "turn": lambda: "Turn the box on another side",
    "place": lambda place: f"Promise it {PLACES[place]}",
    "less": _less,
    "both": _both,
}
"""One imperative for each code."""


def _tuned(frequency: float, figure: str, before: float, after: float) -> str:
    quantity, unit = ("mass", "g") if figure == "added_mass" else ("length", "mm")
    name = "Added mass, each" if figure == "added_mass" else "Port length"
    return f"{name}: {told(before, quantity, unit, 1)} → {told(after, quantity, unit, 1)}."


DETAILS: Mapping[str, Words] = {
    "clear": lambda part: "The place with most room to walls and to all else.",
    "fins up": lambda part: "Warm air rises along upright fins.",
    "set anew": lambda: "In rows and pairs, by rule; where they sound from moves along.",
    "farther grille": lambda value: "3 mm clear of what moves at full travel.",
    "higher vents": lambda value: "The boards' heat then leaves by draught alone.",
    "longer lead": lambda value: "Along the walls, and 100 mm so that a panel comes off.",
    "plate": lambda knob: "Its bushing is too short for the panel; a plate of 3 mm it holds.",
    "higher feet": lambda height: "What fires down needs its own area round the gap.",
    "brace": lambda panel: "It rings in the band it plays; at two fifths of its length.",
    "guarded": lambda: "It opens before the cells are driven too low, too high, or too hard.",
    "board at cells": lambda amperes: "No more than the cells bear.",
    "gentle charger": lambda amperes: "No more than the cells bear while charging.",
    "charger volts": lambda volts: "Full cells, and no more.",
    "stronger board": lambda amperes: "The cells bear it.",
    "wire": lambda area: "It loses little and bears what its fuse lets by.",
    "fuse": lambda rating, kind: f"A {kind} fuse; it must open before the lead gets hot.",
    "tuning": _tuned,
    "line up": lambda loss, frequency: (
        f"They lose {figure(loss, 1)} dB about {told(frequency, 'frequency', 'Hz', 0)}: "
        "levels, delays and polarities that bring them together."
    ),
    "balance": lambda names, down: "Every way is then about as loud in its own band.",
    "panels": lambda wall, brace: "Outside as it is: more air inside, and lighter.",
    "count": lambda more, part: "Tuned as before.",
    "opening": lambda kind: "From its sensible start, in the same case.",
    "limiter move": lambda volts, channel: "Peak volts at which the first part gives out.",
    "less": lambda key, value: "The box as it is keeps this.",
    "place": lambda place: "Walls hold the bass together; the promise then holds there.",
    "boost": lambda cut, frequency: "Less to ask of everything below it.",
}
"""What a title leaves open, where the change itself gives no reason."""
REASONS: Mapping[str, Words] = {
    "low note": lambda frequency, over: (
        f"A held note of {figure(frequency, 0)} Hz goes {figure(over, 1)} dB too far."
    ),
    "too long by": lambda over: f"It is {told(over, 'length', 'mm', 0)} too long.",
    "air moves": lambda speed, quiet: (
        f"Its air moves at {told(speed, 'speed', 'm/s', 0)}; flared, "
        f"{told(quiet, 'speed', 'm/s', 0)} is quiet (estimate)."
    ),
    "then slower": lambda speed, then, length: (
        f"Its air moves at {told(speed, 'speed', 'm/s', 0)}; then "
        f"{told(then, 'speed', 'm/s', 0)}, {told(length, 'length', 'mm', 0)} long."
    ),
    "shared air": lambda loss, frequency: (
        f"Shared air: pushed by the other channel they take {figure(loss, 1)} dB from the sum at "
        f"{figure(frequency, 0)} Hz."
    ),
    "turned": _turned,
}


def title(note: Note) -> str:
    """What to do."""
    return TITLES[note.code](**dict[str, Any](note.figures))


def detail(note: Note, why: Note | None) -> str:
    """Why, or what it comes to; "" where the title says it all."""
    if why is not None:
        return REASONS[why.code](**dict[str, Any](why.figures))
    words = DETAILS.get(note.code)
    return "" if words is None else words(**dict[str, Any](note.figures))
