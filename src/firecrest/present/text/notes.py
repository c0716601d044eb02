"""Notes from below in words: one sentence for each code."""

from collections.abc import Callable, Mapping
from typing import Any

from firecrest.core.errors import MissingFigureError, NoAirError
from firecrest.core.note import Note
from firecrest.present.text.units import told

FIGURES = {
    "xmax": "Xmax",
    "pe": "the rated power",
    "max_current": "the current limit",
    "input_current": "the input current",
}
"""Figures of parts that no symbol names."""


def _needs(figure: str, part: str) -> str:
    return str(MissingFigureError(FIGURES.get(figure, figure), part))


SENTENCES: Mapping[str, str | Callable[..., str]] = {
    # what stands in the way
    "figure": _needs,
    "protection board": "needs the current limit of the protection board",
    "no air": lambda chamber: str(NoAirError(chamber)),
    "cancelled": "The sources cancel: nothing reaches the listener. Check polarity and channels.",
    # promises
    "voice ends": "the voice ends below the promised bass reach",
    "nothing left": "nothing clean can be played: one part has nothing to give",
    "high-pass": "needs a high-pass",
    "band short": "the band is {short:.1f} dB short",
    "level not held": "{level:.1f} dB cannot be held: {most:.1f} dB can",
    "wall": "runs from the wall",
    "lowest": "{frequency:g} Hz or lower",
    "inside": "inside the band",
    "none": "none",
    "side": "{side}",
    # estimates
    "sine": "A sine has no spectrum: programme level, low-note check and runtime use {line:g} Hz",
    "current limit": "Current limit of {part}: {reserve:g} × its largest clean peak",
    "losses": lambda part, share: f"Losses of {part}: {100 * share:g} % of its output current",
    "claims": lambda part, thd: f"Claims of {part}: taken at {100 * thd:g} % distortion",
    "port speed": lambda share: (
        f"Air speed in the port: by the shape of its edges, at 50 Hz and 70 mm; ±{100 * share:g} %"
    ),
    "fibre": lambda chamber, share: (
        f"Fibre in {chamber}: by its flow resistance, ±{100 * share:g} % of what it adds; the "
        "noise of air through leaks is left out"
    ),
    "travel": lambda part, share: f"Travel of {part}: estimated, ±{100 * share:g} %",
    # curves as they were read
    "unsorted curve": "The lines were not in the order of frequency; they are now.",
    "doubled lines": "{count} frequencies stood twice; the first line counts.",
    "lines below": "{count} lines at 0 Hz or below are left out.",
    "thinned curve": "{count:,} points were thinned to {kept:,}, {density:g} an octave.",
    "no angle": "No angle is stated: it counts as on the axis.",
    # claims that contradict each other
    "beyond supply": "{power:g} W into {load:g} Ω is more than {supply:g} V can swing",
    "too efficient": "the efficiency is higher than the drop allows",
    "drop falls": "the drop falls with current: the claims disagree",
    "drop at idle": "the claims leave less than no drop at idle",
    # dangers
    "no protection board": (
        "{cell} without a protection board. Nothing stops overcharge, deep discharge or a "
        "short circuit: fit a board for this pack."
    ),
    "board above cells": (
        "the protection board opens above {board:g} A, the cells bear {cells:g} A. Choose "
        "a board that opens below that, or more cells in parallel."
    ),
    "charger too strong": (
        "the charger gives {charger:g} A, the cells bear {cells:g} A while charging."
    ),
    "charger too high": ("the charger goes to {charger:g} V, this pack is full at {pack:g} V."),
    "charged below freezing": (
        "below 0 °C lithium cells are not to be charged: metal grows in them."
    ),
    "step up overfed": (
        "{part} steps up to {gives:g} V but gets up to {gets:g} V: it passes that on."
    ),
    # how a part fits
    "leaves no air": "leaves no air",
    "as pack": "as {series}S {parallel}P",
    "frame unknown": "frame not known",
    "too wide": lambda over: f"{told(over, 'length', 'mm', 0)} too wide",
    "too deep": lambda over: f"{told(over, 'length', 'mm', 0)} too deep",
    "too long": lambda over: f"{told(over, 'length', 'mm', 0)} too long",
    "new cut-out": "new cut-out",
    "in place": "in place",
    "cut-out unknown": "fits, cut-out not known",
    "same cut-out": "same cut-out",
    "adapter": "adapter ring",
    "by volume": "by volume",
    "fits": "fits",
}


def said(note: Note | None) -> str:
    """A note in words; "" where there is none."""
    if note is None:
        return ""
    words, figures = SENTENCES[note.code], dict[str, Any](note.figures)
    return words.format(**figures) if isinstance(words, str) else words(**figures)


def is_code(note: Note | None, code: str) -> bool:
    """Whether a note is of ``code``."""
    return note is not None and note.code == code
