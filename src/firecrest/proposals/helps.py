"""What helps when loudness is short: the same design with one thing a maker can change, assessed.

What gives out first is not always what to change: where the output of a box collapses, a little
mass or another tuning brings more than volts do. So each lever is pulled by a step of a usual size
and the gain in loudness and reach decides.
"""

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass

from firecrest.assessment.acoustic import EDIT_GRID
from firecrest.assessment.assess import Assessment
from firecrest.assessment.vary import Figures, assess_many
from firecrest.assessment.voicing.crossovers import crossovers
from firecrest.core.errors import FirecrestError
from firecrest.design.blocks import boost_of
from firecrest.design.box import Port, RadiatorSet, placed, port_at
from firecrest.design.design import Design
from firecrest.design.edits.paths import Path, rebuilt, replace_at, set_number
from firecrest.design.ids import place_of
from firecrest.design.sources import Pack, WallSupply
from firecrest.proposals.inverse import tuning_of, with_tuning
from firecrest.proposals.sizing import scaled

CELLS, VOLTS, GRAMS, SHARE, BOOST, AIR = 2, 1.2, 0.020, 0.15, 2.0, 1.1


@dataclass(frozen=True)
class Lever:
    """One thing to change: its kind, how far, at which place, and the design it makes."""

    kind: str
    step: float
    place: int
    design: Design


@dataclass(frozen=True)
class Help:
    """What a lever brings: dB of loudness, Hz of reach (less is lower; None where unknown)."""

    lever: Lever
    loudness: float
    reach: float | None


def helps(assessment: Assessment) -> list[Help]:
    """Every lever with its gain, most loudness first; none where loudness is not known."""
    if assessment.promise("loudness").predicted is None:
        return []
    levers = list(levers_of(assessment.design))
    designs = [assessment.design, *(lever.design for lever in levers)]
    before, *after = assess_many(designs, EDIT_GRID, assessment.memo)
    found = [
        Help(lever, figures.loudness - before.loudness, _apart(figures, before))
        for lever, figures in zip(levers, after, strict=True)
        if figures.loudness is not None and before.loudness is not None
    ]
    return sorted(found, key=lambda found: -found.loudness)


def _apart(after: Figures, before: Figures) -> float | None:
    """Change of bass reach in Hz."""
    if after.bass_reach is None or before.bass_reach is None:
        return None
    return after.bass_reach - before.bass_reach


def levers_of(design: Design) -> Iterator[Lever]:
    """All levers that a design has."""
    for make in (_swing, _mass, _tuning, _boost, _area, _air, _polarity):
        yield from make(design)


def _numbers(
    kind: str, step: float, place: int, design: Design, path: Path, value: float
) -> Iterator[Lever]:
    """A lever that is another number at ``path``, unless the model refuses it."""
    with suppress(FirecrestError):
        yield Lever(kind, step, place, set_number(design, path, value))


def _swing(design: Design) -> Iterator[Lever]:
    """More volts: two more cells in series, or a supply of a fifth more."""
    source = design.power.source
    if isinstance(source, Pack):
        with suppress(FirecrestError):
            yield Lever("cells", CELLS, 0, _more_cells(design, source))
    elif isinstance(source, WallSupply):
        path = ("power", "source", "voltage")
        yield from _numbers("volts", VOLTS, 0, design, path, source.voltage * VOLTS)


def _more_cells(design: Design, pack: Pack) -> Design:
    """Two more cells in series, the protection board's cut-off raised with them."""
    board = pack.board
    if board is not None and board.cut_off is not None:
        raised = board.cut_off * (pack.series + CELLS) / pack.series
        board = rebuilt(board, cut_off=round(raised, 2))
    made = rebuilt(pack, series=pack.series + CELLS, board=board)
    return replace_at(design, ("power", "source"), made)


def _mass(design: Design) -> Iterator[Lever]:
    """More or less mass on each radiator of a set."""
    for place, item in placed(design.box.openings, RadiatorSet):
        path = ("box", "openings", place, "added_mass")
        for grams in (GRAMS, -GRAMS):
            yield from _numbers("mass", grams, place, design, path, item.added_mass + grams)


def _tuning(design: Design) -> Iterator[Lever]:
    """A port longer or shorter."""
    for place, port in placed(design.box.openings, Port):
        path = ("box", "openings", place, "length")
        for share in (SHARE, -SHARE):
            yield from _numbers("length", share, place, design, path, port.length * (1 + share))


def _boost(design: Design) -> Iterator[Lever]:
    """The largest boost of a channel a little less."""
    for k, channel in enumerate(design.voice.channels):
        boosts = [(boost_of(b), n) for n, b in enumerate(channel.blocks)]
        gain, place = max(boosts, default=(0.0, 0))
        if gain > BOOST:
            path = ("voice", "channels", k, "blocks", place, "gain")
            yield from _numbers("boost", -BOOST, k, design, path, gain - BOOST)


def _area(design: Design) -> Iterator[Lever]:
    """A port wider, at the tuning it has; one more radiator of a set."""
    for place, port in placed(design.box.openings, Port):
        with suppress(FirecrestError):
            yield Lever(
                "width",
                SHARE,
                place,
                _wider(design, place, place_of(design.box.chambers, port.chamber)),
            )
    for place, item in placed(design.box.openings, RadiatorSet):
        path = ("box", "openings", place, "count")
        yield from _numbers("radiator", 1, place, design, path, item.count + 1)


def _air(design: Design) -> Iterator[Lever]:
    """A tenth more air: of a case that keeps its proportions, or of a stated volume."""
    stated = design.box.chambers[0].stated_volume
    with suppress(FirecrestError):
        if stated is not None:
            path = ("box", "chambers", 0, "stated_volume")
            yield Lever("air", AIR, 0, set_number(design, path, stated * AIR))
        else:
            yield Lever("air", AIR, 0, scaled(design, AIR ** (1 / 3)))


def _polarity(design: Design) -> Iterator[Lever]:
    """A way turned over, of those that are crossed over with a lower one; with its like, since
    left and right stay in step.
    """
    met = crossovers(design.voice)
    for lower, frequency in sorted({(c.lower, c.frequency) for c in met}):
        places = [c.higher for c in met if (c.lower, c.frequency) == (lower, frequency)]
        made = design
        for place in places:
            path = ("voice", "channels", place, "inverted")
            made = replace_at(made, path, not design.voice.channels[place].inverted)
        yield Lever("polarity", 1, places[0], made)


def _wider(design: Design, place: int, chamber: int) -> Design:
    port = port_at(design.box, place)
    side = "diameter" if port.shape == "round" else "height"
    tuning = tuning_of(design, chamber)
    made = set_number(design, ("box", "openings", place, side), getattr(port, side) * (1 + SHARE))
    return made if tuning is None else with_tuning(made, tuning, chamber)
