"""Passive radiator: what follows from its sheet.

Source: Small, "Passive-Radiator Loudspeaker Systems", JAES 22 (1974) 592-601: the radiator is a
mass on its own suspension, Fp = 1/(2 pi root(Mmp Cmp)), Qmp = root(Mmp/Cmp)/Rmp.
"""

from collections.abc import Mapping
from math import pi

from firecrest.core.acoustics.derivation import Derivation, Relation, follow, suspects
from firecrest.core.arrays import root

RELATIONS = (
    Relation("mmp", ("fp", "cmp"), lambda f, c: 1 / ((2 * pi * f) ** 2 * c), "1/((2πFp)²·Cmp)"),
    Relation("cmp", ("fp", "mmp"), lambda f, m: 1 / ((2 * pi * f) ** 2 * m), "1/((2πFp)²·Mmp)"),
    Relation("fp", ("mmp", "cmp"), lambda m, c: 1 / (2 * pi * root(m * c)), "1/(2π√(Mmp·Cmp))"),
    Relation("rmp", ("mmp", "cmp", "qmp"), lambda m, c, q: root(m / c) / q, "√(Mmp/Cmp)/Qmp"),
    Relation("qmp", ("mmp", "cmp", "rmp"), lambda m, c, r: root(m / c) / r, "√(Mmp/Cmp)/Rmp"),
)
RANK = ("sd", "mmp", "cmp", "fp", "rmp", "qmp")
NEEDED = ("sd", "mmp", "cmp", "rmp")


def derive_radiator(stated: Mapping[str, float | None]) -> Derivation:
    """What follows from a radiator's sheet; ``stated`` maps the keys of ``RANK`` to SI or None."""
    return follow(stated, RELATIONS, RANK, NEEDED)


def radiator_suspects(stated: Mapping[str, float | None]) -> tuple[str, ...]:
    """Figures of a radiator's sheet any one of which would explain its contradictions."""
    return suspects(stated, RELATIONS, RANK, NEEDED)
