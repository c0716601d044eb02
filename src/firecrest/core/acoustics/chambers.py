"""Chamber air: compliance, tuning, and the leak and absorption that quality figures stand for.

Source: Small, JAES 20 (1972) 798-808 (closed), JAES 21 (1973) 363-372 (vented losses).
"""

from collections.abc import Sequence

import numpy as np

from firecrest.core.acoustics.openings import OUTSIDE, Opening
from firecrest.core.air import Air
from firecrest.core.arrays import Number, Real
from firecrest.core.circuit.elements import Chamber


def compliance(volume: Number, air: Air) -> Number:
    """Acoustic compliance V_eff/(rho c^2) in m3/Pa of ``volume`` in m3."""
    return volume / air.stiffness


def closed_resonance(fs: Number, vas_total: Number, volume: Number) -> Number:
    """Resonance Fs sqrt(1 + Vas/V) of drivers with ``vas_total`` (m3) on closed ``volume``."""
    return fs * np.sqrt(1.0 + vas_total / volume)


def openings_that_tune(openings: Sequence[Opening], chamber: int) -> list[Opening]:
    """The openings of a chamber that lead outside; where there are none, those to other chambers.

    Which end of an opening is named first makes no difference.
    """
    own = [o for o in openings if chamber in (o.chamber, o.opens_to)]
    return [o for o in own if OUTSIDE in (o.chamber, o.opens_to)] or own


def tuning(box: Number, openings: Sequence[Opening]) -> Real:
    """Frequency in Hz at which the air ``box`` (m3/Pa) and its openings resonate, cone at rest.

    Largest root x = w^2 of C - sum n/(x M) - sum n Sp^2/(x Mp - 1/Cp) = 0. One kind of opening
    has the closed form (1/C + 1/C_opening)/M; several kinds are found by bisection above the
    highest radiator resonance, where the sum rises with x.
    Source: Small, JAES 22 (1974) 592-601, eq. 3; several kinds: own derivation.
    """
    if not openings:
        raise ValueError("a chamber without an opening has no tuning")
    terms = [opening.resonator() for opening in openings]
    if len(terms) == 1:
        inverse_mass, own = terms[0]
        return np.asarray(np.sqrt(own + inverse_mass / np.asarray(box)) / (2 * np.pi))
    low = np.max(np.broadcast_arrays(*(np.asarray(own) for _, own in terms)), axis=0)
    high = low + sum(inverse for inverse, _ in terms) / np.asarray(box)
    for _ in range(60):
        middle = 0.5 * (low + high)
        spare = box - sum(inverse / np.maximum(middle - own, 1e-30) for inverse, own in terms)
        low, high = np.where(spare < 0, middle, low), np.where(spare < 0, high, middle)
    return np.asarray(np.sqrt(0.5 * (low + high)) / (2 * np.pi))


def lossy_chamber(
    box: Number, reference: Number, leak_q: Number | None, absorption_q: Number | None
) -> Chamber:
    """Chamber whose leak and absorption have the stated Q at ``reference`` Hz.

    R_leak = QL/(w C) beside the air, R_a = 1/(w C QA) in series with it; None is lossless.
    """
    omega = 2 * np.pi * np.asarray(reference)
    leak = 0.0 if leak_q is None else omega * box / leak_q
    absorption = 0.0 if absorption_q is None else 1.0 / (omega * box * absorption_q)
    return Chamber(box, leak, absorption)
