"""The drawing of one design: its shell, what stands where in it, and what follows from both.

All of it is floats, and worked out when it is first asked for.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from firecrest.assessment.assess import Assessment, cabinet_of
from firecrest.assessment.cabinet.contents import FEET
from firecrest.assessment.cabinet.rollup import CabinetResult, infill_of
from firecrest.assessment.power.flows import spent
from firecrest.core.arrays import Real
from firecrest.core.cabinet import parts as core
from firecrest.core.cabinet.balance import Balance, Weighed, balance
from firecrest.core.cabinet.braces import Brace, solid_of, split
from firecrest.core.cabinet.frames import Frame
from firecrest.core.cabinet.materials import Material
from firecrest.core.cabinet.outlines import View, outline
from firecrest.core.cabinet.plates import Resonance, resonance
from firecrest.core.cabinet.sections import Inside
from firecrest.core.cabinet.shapes.shell import Body, Field, Shell
from firecrest.core.cabinet.solids import Solid, shifted
from firecrest.core.cabinet.weighing import (
    brace_masses,
    case_mass,
    cut_away,
    foot_masses,
    part_masses,
    shell_body,
)
from firecrest.design.case import Case
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path
from firecrest.design.shapes import inside_of, shape_of, shell_of
from firecrest.design.standing import FAR, braces_of, is_divider, panels_of, plate_of

KEPT_SOLIDS, KEPT_SHELLS = 512, 32


NOWHERE = core.Mount("")


@dataclass(frozen=True)
class Sited:
    """A part with where its place stands in the design, and its frame in the case's."""

    path: Path
    part: core.Part
    at: Frame

    def __hash__(self) -> int:
        return self._hash

    @cached_property
    def _hash(self) -> int:
        """Worked out once: whatever is remembered of a part is found by it."""
        return hash((self.path, self.part, self.at))

    def solid(self, swept: bool = True) -> Solid | None:
        """What it occupies; ``swept``: a radiator wherever it moves."""
        return self._moving if swept else self._still

    @cached_property
    def _moving(self) -> Solid | None:
        return _solid(self, True)

    @cached_property
    def _still(self) -> Solid | None:
        return _solid(self, False)

    @cached_property
    def at_rest(self) -> "Sited":
        """The same part at the case's origin, wherever it is on panels that look alike."""
        part = replace(self.part, mount=NOWHERE)
        return Sited((), part, Frame((0.0, 0.0, 0.0), self.at.u, self.at.v, self.at.t))


@lru_cache(KEPT_SHELLS)
def _shell(case: Case) -> Shell:
    """Remembered by value, so that what is measured against it stays measured."""
    return shell_of(shape_of(case))


def feet_of(case: Case) -> list[tuple[float, float]]:
    """Places of a case's feet in x and z; none without feet."""
    if case.feet is None:
        return []
    inset, stands_on = case.feet.inset, _shell(case).stands_on
    low, high = stands_on.min(axis=0), stands_on.max(axis=0)
    return [
        (float(x), float(z))
        for x in (low[0] + inset, high[0] - inset)
        for z in (low[1] + inset, high[1] - inset)
    ][:FEET]


@lru_cache(KEPT_SHELLS)
def case_outline(case: Case, view: View, inside: bool = False) -> Real:
    """Outline of a case on a view, remembered by value."""
    return outline(shape_of(case), view, inside=inside)


@lru_cache(KEPT_SOLIDS)
def _known(s: Sited) -> Sited:
    """The first of all that are equal: most parts stay where they are from edit to edit."""
    return s


@lru_cache(KEPT_SOLIDS)
def _solid(s: Sited, swept: bool) -> Solid | None:
    """Remembered by value: parts are made anew with every edit, and mostly come out the same; one
    that moves along its panel is made of the one at rest.
    """
    own = _solid_at_rest(s.at_rest, swept)
    return None if own is None else shifted(own, np.array(s.at.o, dtype=float))


@lru_cache(KEPT_SOLIDS)
def _solid_at_rest(s: Sited, swept: bool) -> Solid | None:
    return core.solid_of(s.part, s.at, swept)


@dataclass(frozen=True, eq=False)
class Standing:
    """A brace with its solid."""

    brace: Brace
    solid: Solid


@lru_cache(KEPT_SHELLS)
def _standing(case: Case) -> tuple[Standing, ...]:
    """Remembered by value, as everything is measured against them."""
    inside = inside_of(shape_of(case))
    made = ((brace, solid_of(brace, inside)) for brace in braces_of(case))
    return tuple(Standing(brace, solid) for brace, solid in made if solid is not None)


@dataclass(frozen=True, eq=False)
class Drawing:
    """A case and what has a place in it; ``band`` is the top of what it plays as bass, Hz.

    ``heat`` is what boards give off in W at the promised level, where a vented chamber asks.
    """

    case: Case
    rolled: CabinetResult
    band: float
    heat: float = 0.0

    @cached_property
    def shell(self) -> Shell:
        """The case without anything in it."""
        return _shell(self.case)

    @cached_property
    def frames(self) -> dict[str, Frame]:
        """Its flat panels, and the faces of its dividers."""
        return panels_of(self.case)

    @property
    def plates(self) -> tuple[str, ...]:
        """Names of the panels and dividers that are cut, each once."""
        return tuple(name for name in self.frames if not name.endswith(FAR))

    @cached_property
    def sited(self) -> tuple[Sited, ...]:
        """Everything with a place."""
        found = []
        for thing in self.rolled.things:
            for part, path in zip(thing.parts, thing.paths, strict=True):
                found.append(_known(Sited(path, part, core.placed(part, self.frames))))
        return tuple(found)

    @cached_property
    def standing(self) -> tuple[Standing, ...]:
        """Braces and dividers."""
        return _standing(self.case)

    @cached_property
    def inside(self) -> Inside:
        """The air within the walls."""
        return inside_of(self.rolled.shape)

    @property
    def material(self) -> Material:
        """What the panels are of."""
        return Material(self.case.stiffness, self.case.density, self.case.poisson)

    @cached_property
    def fields(self) -> Mapping[str, Field]:
        """Free fields of the panels, as braces split them."""
        shell = self.shell
        return split(shell.fields, self.rolled.braces, shell.low, shell.high)

    @cached_property
    def resonances(self) -> dict[str, Resonance]:
        """First resonance of every flat panel; a ball that is cut at its pole has none there."""
        infill = infill_of(self.case)
        return {
            name: resonance(field, self.material, infill, self.band)
            for name, field in self.fields.items()
            if field.r is None or float(field.r) > 0
        }

    @cached_property
    def feet(self) -> list[tuple[float, float]]:
        """Places of the feet in x and z; none without feet."""
        return feet_of(self.case)

    @cached_property
    def weighed(self) -> tuple[Weighed, ...]:
        """Masses with where they sit; what has no place is in the middle of the inside."""
        shell = self.shell
        parts = [s.part for s in self.sited]
        body = shell_body(shell, parts)
        found = [
            case_mass(body, self.material, infill_of(self.case), float(shell.printed_wall)),
            *brace_masses(self.rolled.braces, self.inside, self.case.density, self._holes),
            *part_masses((s.part, s.at) for s in self.sited),
        ]
        for thing in self.rolled.things:
            mass = float(thing.item.count * thing.item.mass) * thing.loose
            if mass > 0:
                found.append(Weighed(thing.item.name, mass, shell.inside.centre))
        feet = self.case.feet
        if feet is not None:
            low = float(shell.lowest)
            found += foot_masses(self.feet, feet.mass, low, feet.height)
        return tuple(found)

    @property
    def _holes(self) -> Mapping[int, Sequence[Body]]:
        """What parts on dividers take of them, by the number among all braces."""
        dividers = [k for k, b in enumerate(self.rolled.braces) if b.divider]
        found: dict[int, list[Body]] = {}
        for s in self.sited:
            if is_divider(s.part.mount.panel):
                own = dividers[plate_of(s.part.mount.panel)]
                found.setdefault(own, []).extend(cut_away(s.part, s.at))
        return found

    @cached_property
    def balance(self) -> Balance:
        """Where the weight sits and how it tips."""
        feet = self.case.feet
        stands: Real = np.array(self.feet) if feet is not None else self.shell.stands_on
        high = 0.0 if feet is None else feet.height
        return balance(self.weighed, stands, float(self.shell.lowest) - high)


def drawing_of(assessment: Assessment) -> Drawing:
    """The drawing of an assessed design."""
    design = assessment.design
    band = assessment.memo(_band, assessment)
    heat = 0.0
    if any(box.vent > 0 for box in design.box.case.inner):
        heat = assessment.memo(_heat, assessment)
    return assessment.memo(Drawing, design.box.case, assessment.cabinet, band, heat)


WARM = ("output resistance", "switching", "amplifier idle", "modules", "regulators", "converters")
"""Items of what playing takes that warm the boards."""


def _heat(assessment: Assessment) -> float:
    """W that all boards give off at the promised level; 0 where nothing can be heard."""
    found = spent(assessment, assessment.design.brief.loudness.level)
    return 0.0 if found is None else round(sum(found.watts.get(k, 0.0) for k in WARM), 2)


def drawing_of_design(design: Design) -> Drawing:
    """The drawing of a design that is only looked at."""
    return Drawing(design.box.case, cabinet_of(design), BASS_TOP)


BASS_TOP = 200.0
MULTIPLE = 4.0


def _band(assessment: Assessment) -> float:
    """Top of what the case plays as bass: four times the promised note, 200 Hz at least."""
    return max(BASS_TOP, MULTIPLE * assessment.design.brief.bass.frequency)
