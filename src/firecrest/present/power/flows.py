"""Where each watt-hour goes, in a few named streams that add up, and what of it is sound."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import isfinite

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.flows import Spent, spent
from firecrest.core.power.flow import SOURCE
from firecrest.core.units import figure
from firecrest.present.power.hours import level_of

STREAMS: tuple[tuple[str, tuple[str, ...]], ...] = (
    ("Coil heat", ("drivers",)),
    ("Amp losses", ("output resistance", "switching")),
    ("Amp idle", ("amplifier idle",)),
    ("DSP, loads", ("modules", "regulators")),
    ("Converters", ("converters",)),
    ("Source, leads", ("cells", "protection board", "supply", "leads")),
)
LEAST = 1e-4
"""Share of the source below which a stream is not drawn."""


@dataclass(frozen=True)
class Stream:
    """A stream: name, figure with unit, share of the source."""

    name: str
    text: str
    share: float


@dataclass(frozen=True)
class FlowPicture:
    """Title, unit line, streams that add up, the thread of sound, and a sentence."""

    title: str
    unit: str
    streams: tuple[Stream, ...]
    sound: Stream
    sentence: str
    items: Mapping[str, float]


def flow_picture(assessment: Assessment, use: str) -> FlowPicture | None:
    """Where it goes at a use; None where nothing can be heard, on an own mains supply, and where
    the source cannot carry it.
    """
    level = level_of(assessment, use)
    found = None if level is None else spent(assessment, level)
    if found is None or not isfinite(found.watts[SOURCE]):
        return None
    if found.watt_hours is not None and found.hours:
        items, sound = found.watt_hours, found.sound_hours or 0.0
        title, unit = f"Where {figure(items[SOURCE], 0)} Wh go", "Wh a charge"
    else:
        items, sound = found.watts, found.sound
        title, unit = f"Where {figure(items[SOURCE], 1)} W go", "W, at half charge"
        unit = unit if assessment.design.power.source.kind == "pack" else "W"
    whole = items[SOURCE]
    streams = tuple(
        Stream(name, _amount(value), value / whole)
        for name, keys in STREAMS
        if (value := sum(items.get(key, 0.0) for key in keys)) > LEAST * whole
    )
    return FlowPicture(
        title, unit, streams, Stream("Sound", _amount(sound), sound / whole),
        _sentence(found), items,
    )  # fmt: skip


def _amount(value: float) -> str:
    return figure(value, 0 if value >= 99.5 else 1 if value >= 0.95 else 2)


def _sentence(found: Spent) -> str:
    """How much of it does nothing but wait."""
    waits = sum(found.watts[key] for key in ("amplifier idle", "modules", "regulators"))
    share = waits / found.watts[SOURCE]
    return (
        f"{figure(found.watts[SOURCE], 1)} W on average; amplifier idle, DSP and loads take "
        f"{figure(waits, 1)} W of it, {share:.0%}, whether it plays or not. Means leave out the "
        "ripple of the current: cells lose a few per cent more of their small part."
    )
