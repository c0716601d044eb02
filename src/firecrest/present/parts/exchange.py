"""What stays and what moves when a part is exchanged, so that nobody has to guess."""

from dataclasses import dataclass

from firecrest.assessment.assess import Assessment
from firecrest.core.units import THIN_SPACE
from firecrest.design.box import RadiatorSet
from firecrest.present.frame.bindings import tuning
from firecrest.present.text.units import told
from firecrest.present.text.words import joined

WORTH_TELLING = 0.005
"""A tuning that moves less than this share is the same one."""


@dataclass(frozen=True)
class Moved:
    """A chamber whose tuning moved, in Hz."""

    chamber: int
    name: str
    before: float
    after: float


def moved_tunings(before: Assessment, after: Assessment) -> list[Moved]:
    """Tunings that another part has moved, of chambers that are open in both."""
    found = []
    for k, chamber in enumerate(after.design.box.chambers[: len(before.design.box.chambers)]):
        was, now = tuning(k).read(before), tuning(k).read(after)
        if was and now and abs(now / was - 1) > WORTH_TELLING:
            found.append(Moved(k, chamber.name, was, now))
    return found


def exchange_words(before: Assessment, after: Assessment) -> str:
    """What stays as it was set for the part before, and what moved; empty when nothing did."""
    stays = [*_masses(before, after), *_filters(before, after)]
    said = f"{joined(stays)} {'stay' if len(stays) > 1 else 'stays'} as set." if stays else ""
    several = len(after.design.box.chambers) > 1
    for item in moved_tunings(before, after):
        where = f" of {item.name}" if several else ""
        was, now = (f"{v:.1f}" for v in (item.before, item.after))
        said += f" Tuning{where} moves from {was} to {now}{THIN_SPACE}Hz."
    return said.strip()


def _masses(before: Assessment, after: Assessment) -> list[str]:
    """Added masses that now sit on another radiator."""
    old = {o.id: o for o in before.design.box.openings if isinstance(o, RadiatorSet)}
    return [
        f"{told(o.added_mass, 'mass', 'g', 0)} of added mass on each {o.radiator.name}"
        for o in after.design.box.openings
        if isinstance(o, RadiatorSet)
        and o.added_mass
        and o.id in old
        and old[o.id].radiator.name != o.radiator.name
    ]


def _filters(before: Assessment, after: Assessment) -> list[str]:
    """Filters that were set for another driver."""
    old = {g.id: g.driver.name for g in before.design.box.groups}
    changed = {g.channel for g in after.design.box.groups if old.get(g.id) != g.driver.name}
    count = sum(len(c.blocks) for c in after.design.voice.channels if c.id in changed)
    return [f"{count} filter{'s' if count > 1 else ''} of the voice"] if count else []
