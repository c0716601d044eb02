"""The shipped parts: enough of every kind, consistent, plausible, and no two alike."""

from itertools import combinations
from math import pi, sqrt

import pytest

from firecrest.assessment.figures import derivation_of, radiator_derivation, suspects_of
from firecrest.assessment.lower.parts import read_amplifier
from firecrest.core.acoustics.driver import half_space_sensitivity
from firecrest.shelf.stock import shipped_entries

ENTRIES = shipped_entries()
BAD = [e for e in ENTRIES if e.notes.startswith("A bad sheet")]
OF = {kind: [e for e in ENTRIES if e.kind == kind] for kind in {e.kind for e in ENTRIES}}
DRIVERS = [e for e in OF["driver"] if not derivation_of(e.part).missing]
INCH = 0.0254


def test_there_is_enough_of_every_kind():
    least = {"driver": 40, "radiator": 15, "amplifier": 15, "cell": 10, "supply": 8, "dsp": 5}
    assert {kind: len(OF[kind]) >= n for kind, n in least.items()} == dict.fromkeys(least, True)
    kinds = {e.part.kind for e in OF["driver"]}
    assert kinds == {"full range", "woofer", "subwoofer", "midrange", "tweeter", "horn tweeter"}
    cones = [e.part.size for e in DRIVERS if "tweeter" not in e.part.kind]
    assert min(cones) <= 1.51 * INCH
    assert max(cones) >= 11.9 * INCH
    assert sum(e.part.coils == 2 for e in OF["driver"]) >= 4
    assert len({e.part.chemistry for e in OF["cell"]}) == 3
    assert {e.part.form for e in OF["supply"]} >= {"laptop brick", "house battery", "power bank"}
    forms = {e.part.form for e in OF["amplifier"]}
    assert forms == {"board", "plate", "headphone output", "phone output"}
    assert max(e.part.channels for e in OF["amplifier"]) >= 6
    assert min(min(c.supply or 99 for c in e.part.claims) for e in OF["amplifier"]) <= 5
    assert len({e.id for e in ENTRIES}) == len({e.name for e in ENTRIES}) == len(ENTRIES)


def contradictions(entry):
    """Shares by which a part's figures, or an amplifier's claims, disagree."""
    if entry.kind == "driver":
        return [c.apart for c in derivation_of(entry.part).contradictions]
    if entry.kind == "radiator":
        return [c.apart for c in radiator_derivation(entry.part).contradictions]
    if entry.kind == "amplifier":
        return [1.0 for kind in read_amplifier(entry.part) for _ in kind.contradictions]
    return []


@pytest.mark.parametrize("entry", [e for e in ENTRIES if e not in BAD], ids=lambda e: e.id)
def test_no_shipped_part_contradicts_itself(entry):
    assert contradictions(entry) == []


def test_five_marked_sheets_contradict_themselves():
    assert len(BAD) == 5
    for entry in BAD:
        assert max(contradictions(entry)) > 0.02
        assert suspects_of(entry.part)


def test_no_two_drivers_are_scaled_copies():
    """Neither the same triple, nor proportional ones, nor one driver made larger."""
    facts = {}
    for entry in DRIVERS:
        f = derivation_of(entry.part).figures
        facts[entry.id] = (f["fs"], f["qts"], f["vas"] / f["sd"] ** 2)
    for a, b in combinations(facts, 2):
        fs, qts, spring = (x / y for x, y in zip(facts[a], facts[b], strict=True))
        assert max(abs(fs - 1), abs(qts - 1), abs(spring - 1)) > 0.03, (a, b)
        assert max(fs, qts, spring) / min(fs, qts, spring) > 1.03, (a, b)
        assert max(abs(qts - 1), abs(fs / spring - 1)) > 0.03, (a, b)


RANGES = {
    "full range": {"fs": (40, 250), "qts": (0.3, 1.0), "level": (77, 91), "xmax": (1e-3, 6e-3)},
    "woofer": {"fs": (20, 90), "qts": (0.2, 0.6), "level": (82, 96), "xmax": (3e-3, 10e-3)},
    "subwoofer": {"fs": (18, 45), "qts": (0.3, 0.6), "level": (80, 90), "xmax": (7e-3, 20e-3)},
    "midrange": {"fs": (60, 400), "qts": (0.25, 0.7), "level": (85, 98), "xmax": (0.5e-3, 4e-3)},
    "tweeter": {"fs": (400, 2500), "qts": (0.3, 1.0), "level": (84, 94), "xmax": (0.1e-3, 1e-3)},
    "horn tweeter": {
        "fs": (400, 1500),
        "qts": (0.3, 0.7),
        "level": (88, 98),
        "xmax": (0.1e-3, 1e-3),
    },
}


@pytest.mark.parametrize("entry", DRIVERS, ids=lambda e: e.id)
def test_drivers_are_plausible_for_their_class(entry):
    part, f = entry.part, derivation_of(entry.part).figures
    ranges = RANGES[part.kind]
    for key in ("fs", "qts"):
        assert ranges[key][0] <= f[key] <= ranges[key][1], key
    assert ranges["level"][0] <= half_space_sensitivity(f) <= ranges["level"][1]
    assert ranges["xmax"][0] <= part.xmax <= ranges["xmax"][1]
    dome = "tweeter" in part.kind or entry.id == "hazel-m5-4"
    across = sqrt(4 * f["sd"] / pi) / part.size
    assert (0.9 < across < 1.35) if dome else (0.72 < across < 0.9)
    assert 0.68 <= f["re"] / part.nominal <= 1.0
    usual = 1.2 * (part.size / 0.133) ** 2.2
    assert dome or usual / 4 < part.mass < usual * 4
    assert 2 <= part.price <= 250
    assert part.cut_out < part.frame
    assert part.xmech is None or part.xmax < part.xmech <= 0.5 * part.frame
    assert 0.97 < part.frame / part.size < 8
    assert 0 < part.displacement < 0.02


@pytest.mark.parametrize("entry", OF["radiator"], ids=lambda e: e.id)
def test_radiators_are_plausible(entry):
    part = entry.part
    if part.sd is None:
        assert part.frame is not None
        return
    f = radiator_derivation(part).figures
    assert 15 <= f["fp"] <= 55
    assert 0.15 <= f["mmp"] / part.mass <= 0.3
    assert 0.7 < sqrt(4 * part.sd / pi) / part.size < 0.9
    assert 3e-3 <= part.xmax <= 20e-3
    assert 3 <= part.price <= 60


@pytest.mark.parametrize("entry", OF["cell"], ids=lambda e: e.id)
def test_cells_are_plausible(entry):
    part = entry.part
    mid = part.table[len(part.table) // 2].rest_voltage
    low, high = {
        "lithium ion": (3.5, 3.8),
        "lithium iron phosphate": (3.2, 3.35),
        "nickel metal hydride": (1.2, 1.36),
    }[part.chemistry]
    assert low <= mid <= high
    watt_hours = mid * part.capacity / 3600 / part.mass
    assert 60 <= watt_hours <= 290
    assert all(a.charge < b.charge for a, b in zip(part.table, part.table[1:], strict=False))
    assert part.table[0].rest_voltage < part.table[-1].rest_voltage
    assert 1500 < part.mass / part.volume < 3500


@pytest.mark.parametrize("entry", OF["amplifier"] + OF["dsp"], ids=lambda e: e.id)
def test_boards_are_plausible(entry):
    part = entry.part
    assert part.volume <= part.length * part.width * part.height
    assert 0.002 <= part.mass <= 3
    assert 100 < part.mass / (part.length * part.width * part.height) < 5000
    if entry.kind == "amplifier":
        assert part.least_load <= max(c.load for c in part.claims)
        assert 0 <= part.gain <= 34


@pytest.mark.parametrize("entry", OF["supply"], ids=lambda e: e.id)
def test_supplies_are_plausible(entry):
    part = entry.part
    assert 5 <= part.voltage <= 24
    assert (part.energy is not None) == (part.form in ("house battery", "power bank"))
    if part.energy:
        assert 50 < part.energy / 3600 / part.mass < 250
