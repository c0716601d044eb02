"""Cautions where they apply: short, never blocking, deferring to local codes."""

from typing import Any

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.dangers import dangers
from firecrest.core.power.chemistry import CHEMISTRIES
from firecrest.design.amplifiers import Amplifier
from firecrest.design.sources import Cell, Pack, WallSupply
from firecrest.present.text.notes import said

HARMFUL = 85.0
"""dB above which long listening harms ears."""

CAUTION_PACK = (
    "Lithium pack: use a protection board, matched cells and a fuse at the pack; charge only with "
    "the right charger, never unattended, never below 0 °C. Check your carrier's and local rules "
    "before you ship or fly it."
)
CAUTION_MAINS = (
    "Mains voltage kills. Leave mains wiring to licensed people and follow local codes; prefer a "
    "certified external supply."
)
CAUTION_HEARING = (
    "Above about 85 dB for long, or 100 dB briefly, hearing suffers. Near the box it is louder "
    "than at the listener: wear protection when you test at level."
)


CAUTION_NICKEL = (
    "Nickel pack: a short circuit burns leads, so fuse it at the pack; charge only with a charger "
    "for these cells that notices when they are full, never unattended."
)
CAUTION_LEAD = (
    "Lead battery: it holds acid and gives off gas that can explode, so leave its case open to the "
    "air and flames away; fuse it at its terminal, keep rings and tools off, and charge it only "
    "with a charger for this kind."
)
CAUTION_BATTERY = (
    "A battery of this kind can melt metal and burn: fuse it at its terminal, keep rings and tools "
    "away, give it air, and charge it only with the right charger. On boats and vehicles follow "
    "the local rules."
)


CAUTION_CAR = (
    "Car outlet: its fuse and thin leads bear about 8 A, and starting the engine resets what hangs "
    "on it. Do not leave a box plugged in unattended, and fasten it down before you drive."
)
CAUTION_BANK = (
    "Power bank: there are lithium cells in it. Keep it whole, dry and out of the sun, give it air "
    "while it works, charge it with its own charger, and check your carrier's rules before you "
    "ship or fly it."
)


CAUTION_CHARGING = (
    "Charge lithium cells only between 0 and 45 °C, never unattended, on something that cannot "
    "burn."
)
CAUTION_WIRING = (
    "The fuse belongs at the source, before anything else. Insulate every joint, keep leads off "
    "edges and hot parts, and unplug the pack before you work on it. Local codes come first; mains "
    "is for licensed people."
)


def lithium(pack: Pack) -> bool:
    """Whether the cells of a pack are lithium ones."""
    return CHEMISTRIES[pack.cell.chemistry].lithium


def danger_words(assessment: Assessment) -> list[str]:
    """What would hurt someone or burn, the worst first."""
    return [f"Danger: {said(danger)}" for danger in dangers(assessment.design)]


def caution(assessment: Assessment) -> str:
    """The caution that goes with the source."""
    source = assessment.design.power.source
    if source.kind == "pack":
        return part_caution(source.cell)
    return part_caution(source) or CAUTION_MAINS


def part_caution(part: Any) -> str:
    """The caution that goes with a part, at its own sheet; empty for harmless ones."""
    if isinstance(part, Cell):
        own = {"nickel metal hydride": CAUTION_NICKEL, "lead acid": CAUTION_LEAD}
        return own.get(part.chemistry, CAUTION_PACK)
    if isinstance(part, WallSupply):
        own = {
            "house battery": CAUTION_BATTERY,
            "power bank": CAUTION_BANK,
            "car outlet": CAUTION_CAR,
        }
        return own.get(part.form, CAUTION_MAINS)
    if isinstance(part, Amplifier) and part.own_mains:
        return CAUTION_MAINS
    return ""


def hearing_caution(assessment: Assessment) -> str:
    """The caution for ears where the box reaches their limit at the listener or at 1 m."""
    distance = assessment.design.brief.listening.distance
    level = assessment.promise("loudness").predicted
    level = assessment.design.brief.loudness.level if level is None else level
    nearest = level + max(0.0, 20 * float(np.log10(distance)))
    return CAUTION_HEARING if nearest >= HARMFUL else ""
