"""Other words for what is here: what makers may call a field, a part or a command."""

SYNONYMS = {
    "air volume": "box volume enclosure volume net volume litres cabinet volume",
    "tuning": "box tuning port tuning resonance of the box",
    "added mass, each": "radiator weights washers mass loading",
    "length": "width of the case port tube vent",
    "diameter": "port tube vent pipe",
    "leak loss": "box losses sealing",
    "stuffing": "damping wadding wool fill",
    "cone area": "effective area piston area",
    "travel, one way": "excursion linear stroke",
    "force factor": "motor strength",
    "resonance": "free air resonance",
    "equivalent volume": "compliance volume",
    "rated power": "power handling",
    "cells in series": "battery pack voltage",
    "cells in parallel": "battery pack capacity",
    "capacity": "battery ampere hours",
    "gain": "level volume eq",
    "limiter": "compressor protection",
    "first output": "amplifier channel routing",
    "panel thickness": "wall plywood board sheet",
    "level": "loudness spl volume",
    "loudness": "level spl decibel volume",
    "distance": "listening distance",
    "runtime": "duration playtime battery life hours",
    "compare": "variants side by side difference",
    "copy this variant": "duplicate version alternative",
    "keep as ghost": "compare snapshot overlay freeze trace",
    "add a way": "two-way three-way crossover tweeter channel",
    "paste a sheet": "import data sheet thiele small parameters",
    "take parts from a file": "import library database csv",
    "save as a page": "export pdf report",
    "print": "paper report",
    "worst frequency": "weakest note limit",
    "save": "store write",
    "open": "load file",
    "find on this page": "search filter",
    "size": "box enclosure cabinet sub subwoofer",
    "voice": "dsp eq crossover filters",
    "power": "battery amplifier supply",
    "parts": "driver speaker library database shelf",
    "promise": "goals targets brief requirements",
    "dark": "night theme colours",
    "light": "day theme colours",
}
"""Plain name -> words by which it is found too."""


def other_words(name: str) -> str:
    """Words by which ``name`` is found besides its own."""
    return SYNONYMS.get(name.strip().lower(), "")
