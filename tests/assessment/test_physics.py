"""What must hold of any design, whatever its figures: monotone limits, scaling laws, waveforms."""

import dataclasses

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.unplaced import unplaced

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import assess
from firecrest.assessment.openings.port import port_area, port_outer_volume
from firecrest.assessment.wiring import driver_count, wiring_of
from firecrest.core.note import note
from firecrest.design.box import Port
from firecrest.design.case import ContentItem
from firecrest.design.edits.paths import replace_at, set_number

SLIPWAY = unplaced("slipway")
BETTER = {
    "cone travel": ("box", "groups", 0, "driver", "xmax"),
    "radiator travel": ("box", "openings", 0, "radiator", "xmax"),
    "coil power": ("box", "groups", 0, "driver", "pe"),
    "board current": ("power", "source", "board", "max_current"),
    "full scale": ("power", "boards", 1, "part", "full_scale"),
}


def top(design):
    return assess(design).acoustic.top.level


@pytest.mark.parametrize("path", BETTER.values(), ids=BETTER)
@pytest.mark.parametrize("factor", [0.3, 0.7])
def test_a_stronger_part_never_lowers_the_ceiling(path, factor):
    value = SLIPWAY
    for step in path:
        value = value[step] if isinstance(step, int) else getattr(value, step)
    weak = top(set_number(SLIPWAY, path, value * factor))
    assert np.all(weak <= top(SLIPWAY) + 1e-9)


@settings(max_examples=20)
@given(st.floats(0.02, 1.0), st.floats(0.02, 1.0))
def test_a_fuller_pack_never_lowers_the_ceiling(a, b):
    low, high = sorted((a, b))
    path = ("brief", "conditions", "charge")
    tops = [top(set_number(SLIPWAY, path, charge)) for charge in (low, high)]
    assert np.all(tops[0] <= tops[1] + 1e-9)


def test_the_ceiling_in_free_travel_does_not_depend_on_gain_in_the_voice():
    """A level change moves what the DSP may do, not what cone, radiator or amplifier bear."""
    quiet = assess(set_number(SLIPWAY, ("voice", "channels", 0, "gain"), -6.0)).acoustic
    plain = assess(SLIPWAY).acoustic
    for a, b in zip(quiet.limits, plain.limits, strict=True):
        if a.name in ("cone", "radiator", "swing", "coil", "amplifier current"):
            np.testing.assert_allclose(a.factor, b.factor * 10 ** (6 / 20), rtol=1e-9)
    np.testing.assert_allclose(quiet.unit_level, plain.unit_level - 6.0, atol=1e-9)


def test_twice_the_distance_is_6_db_less_everywhere():
    far = assess(set_number(SLIPWAY, ("brief", "listening", "distance"), 4.0))
    assert assess(SLIPWAY).promise("loudness").predicted - far.promise(
        "loudness"
    ).predicted == pytest.approx(20 * np.log10(2), abs=1e-9)


@pytest.mark.parametrize(
    ("place", "gain"), [("pole", -6.0206), ("wall", 6.0206), ("corner", 12.0412)]
)
def test_places_move_every_level_alike(place, gain):
    moved = assess(replace_at(SLIPWAY, ("brief", "listening", "place"), place)).acoustic
    np.testing.assert_allclose(
        moved.unit_level, assess(SLIPWAY).acoustic.unit_level + gain, atol=1e-3
    )


def test_instant_limits_by_waveform():
    """A sine at the ceiling just reaches the limit that gives first, and none other."""
    a = assess(SLIPWAY).acoustic
    turn = np.exp(1j * np.linspace(0, 2 * np.pi, 4001))
    for point in range(0, 241, 12):
        drive = min(float(limit.factor[point]) for limit in a.limits)
        x = a.transfers.excursion[0][point] * drive
        r = a.transfers.openings[0][point] * drive
        first = a.limits[int(a.top.first[point])].name
        cone = np.max(np.sqrt(2) * np.real(x * turn)) / a.ratings.x_max[0]
        radiator = np.max(np.sqrt(2) * np.real(r * turn)) / a.ratings.openings[0]
        assert max(cone, radiator) <= 1 + 1e-6
        if first in ("cone", "radiator"):
            assert {"cone": cone, "radiator": radiator}[first] == pytest.approx(1.0, abs=1e-6)


def test_steady_tones_are_judged_harder_than_programme():
    path = ("brief", "listening", "steady_tone")
    weak = set_number(SLIPWAY, ("box", "groups", 0, "driver", "pe"), 2.0)
    tone = assess(replace_at(weak, path, True)).acoustic
    music = assess(weak).acoustic
    heat = [next(x for x in a.limits if x.name == "coil").factor for a in (music, tone)]
    np.testing.assert_allclose(heat[0] / heat[1], 10 ** (8.9897 / 20), rtol=1e-4)


def test_everything_inside_is_taken_off_the_air():
    air = assess(SLIPWAY).cabinet.air[0]
    item = ContentItem(name="Sandbag", count=2, volume=0.0003, mass=0.5, price=1.0)
    more = replace_at(SLIPWAY, ("box", "case", "contents"), (*SLIPWAY.box.case.contents, item))
    rolled = assess(more).cabinet
    assert rolled.air[0] == pytest.approx(air - 0.0006)
    assert rolled.mass == pytest.approx(assess(SLIPWAY).cabinet.mass + 1.0)
    assert rolled.price == pytest.approx(assess(SLIPWAY).cabinet.price + 2.0)


def test_ports_take_their_bore_and_wall():
    tube = Port(diameter=0.05, length=0.1, wall=0.003)
    assert port_area(tube) == pytest.approx(np.pi * 0.025**2)
    assert port_outer_volume(tube) == pytest.approx(np.pi * 0.028**2 * 0.1)
    slot = Port(shape="slot", width=0.1, height=0.02, length=0.1, wall=0.01)
    assert port_area(slot) == pytest.approx(0.002)
    assert port_outer_volume(slot) == pytest.approx(0.11 * 0.03 * 0.1)


def test_a_slot_and_a_pipe_of_equal_area_tune_alike():
    area = np.pi * 0.025**2
    base = replace_at(SLIPWAY, ("box", "openings"), ())
    pipe = replace_at(base, ("box", "openings"), (Port(diameter=0.05, length=0.1, wall=0.0),))
    slot = replace_at(
        base,
        ("box", "openings"),
        (Port(shape="slot", width=0.1, height=float(area / 0.1), length=0.1, wall=0.0),),
    )
    a, b = (assess(d).acoustic.model.tuning[0] for d in (pipe, slot))
    assert a == pytest.approx(b, rel=1e-9)


def test_drivers_are_counted_over_outputs():
    group = dataclasses.replace(SLIPWAY.box.groups[0], in_parallel=2)
    assert driver_count(group, wiring_of(SLIPWAY.voice.channels)) == 4


def test_two_channels_of_opposite_polarity_cancel_in_shared_air():
    """Two equal groups on two channels in one chamber: turned against each other, no bass."""
    group = SLIPWAY.box.groups[0]
    channel = dataclasses.replace(SLIPWAY.voice.channels[0], outputs=1)
    both = tuple(
        dataclasses.replace(channel, id=n, inverted=n == "right") for n in ("left", "right")
    )
    box = dataclasses.replace(
        SLIPWAY.box,
        groups=tuple(dataclasses.replace(group, id=n, channel=n) for n in ("left", "right")),
    )
    voice = dataclasses.replace(SLIPWAY.voice, channels=both)
    turned = dataclasses.replace(SLIPWAY, box=box, voice=voice)
    assert assess(turned).acoustic is None
    assert assess(turned).promise("loudness").reason == note("cancelled")
    straight = dataclasses.replace(
        turned,
        voice=dataclasses.replace(
            voice, channels=tuple(dataclasses.replace(c, inverted=False) for c in both)
        ),
    )
    np.testing.assert_allclose(
        assess(straight).acoustic.unit_level, assess(SLIPWAY).acoustic.unit_level, atol=1e-9
    )
    assert assess(straight).promise("loudness").predicted == pytest.approx(
        assess(SLIPWAY).promise("loudness").predicted, abs=1e-6
    )


def test_a_driver_between_two_chambers_does_not_count_its_leak_as_radiation():
    chambers = tuple(
        dataclasses.replace(SLIPWAY.box.chambers[0], id=n, share=0.5) for n in ("main", "front")
    )
    port = Port(diameter=0.06, length=0.08, chamber="front")
    box = dataclasses.replace(
        SLIPWAY.box,
        chambers=chambers,
        openings=(port,),
        groups=(dataclasses.replace(SLIPWAY.box.groups[0], front="front"),),
    )
    a = assess(dataclasses.replace(SLIPWAY, box=box)).acoustic
    assert not a.model.network.leaks_count
    assert a.model.tuning[0] is None
    assert a.model.tuning[1] > 60
    low, high = (a.unit_level[np.argmin(np.abs(EDIT_GRID - f))] for f in (a.model.tuning[1], 900))
    assert low > high + 20
