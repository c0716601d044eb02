"""Presets of leak and damping as choices: their words, the one in force, and setting one."""

from firecrest.core.acoustics.losses import DAMPING, TIGHTNESS, damping_of, tightness_of
from firecrest.design.design import Design
from firecrest.design.edits.box import set_damping, set_tightness

TIGHTNESS_WORDS = tuple(p.words for p in TIGHTNESS)
DAMPING_WORDS = tuple(p.words for p in DAMPING)


def tightness_in_force(design: Design, place: int) -> int | None:
    """Place of the preset a chamber was set by; None with figures of its own."""
    if place >= len(design.box.chambers):
        return None
    chamber = design.box.chambers[place]
    preset = tightness_of(chamber.leak_q) if chamber.leak_resistance is None else None
    return None if preset is None else TIGHTNESS.index(preset)


def damping_in_force(design: Design, place: int) -> int | None:
    """Place of the preset a chamber was set by; None with figures of its own."""
    if place >= len(design.box.chambers):
        return None
    chamber = design.box.chambers[place]
    if chamber.fill_resistivity is not None:
        return None
    preset = damping_of(chamber.stuffing, chamber.absorption_q)
    return None if preset is None else DAMPING.index(preset)


def with_tightness(design: Design, place: int, preset: int) -> tuple[str, Design]:
    """(label, design) with a chamber set by one of ``TIGHTNESS_WORDS``."""
    return set_tightness(design, place, TIGHTNESS[preset])


def with_damping(design: Design, place: int, preset: int) -> tuple[str, Design]:
    """(label, design) with a chamber set by one of ``DAMPING_WORDS``."""
    return set_damping(design, place, DAMPING[preset])
