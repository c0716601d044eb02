"""From the player's socket to full power, and what is heard when nothing plays."""

from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.power.truth import here
from firecrest.core.air import DATA_SHEET_AIR
from firecrest.core.power.flow import REFERENCE_PRESSURE
from firecrest.core.power.gain import (
    HALF_SPACE_VOLTS,
    PLAYERS,
    USUAL_INPUT,
    Driven,
    Hissing,
    Player,
    Processor,
    driven,
    hiss,
    noise_at_output,
    noise_from_ratio,
)
from firecrest.design.amplifiers import Amplifier

SILENT, FAINT = 15.0, 25.0
"""DB(A): below the first nobody hears it, above the second it is plain in a quiet room."""
NEAR = 0.5
"""m at which someone leans in."""


@dataclass(frozen=True)
class GainRow:
    """A board: volts at its input that drive it to full, and what each player comes to."""

    board: int
    full: float
    players: tuple[tuple[Player, Driven], ...]


def gain_rows(assessment: Assessment) -> list[GainRow]:
    """Every amplifier board, through the design's signal processor."""
    dsp = assessment.design.power.dsp
    ohms = USUAL_INPUT if dsp.input_resistance is None else dsp.input_resistance
    scale = dsp.full_scale if dsp.full_scale_input is None else dsp.full_scale_input
    processor = Processor(scale, dsp.full_scale, ohms)
    found = []
    for number, (_, fitted) in enumerate(assessment.design.power.amplifiers):
        part = fitted.part
        line = here(assessment, number)
        full = float(np.sqrt(line.found.watts * line.load)) / 10 ** (part.gain / 20)
        if full <= 0.0:
            continue
        own = USUAL_INPUT if part.input_resistance is None else part.input_resistance
        players = tuple((player, driven(player, own, processor, full)) for player in PLAYERS)
        found.append(GainRow(number, full, players))
    return found


def board_noise(part: Amplifier) -> float | None:
    """V rms at an output as the sheet states it, in volts or as a ratio."""
    if part.noise is not None:
        return part.noise
    if part.noise_ratio is None:
        return None
    first = part.claims[0]
    return noise_from_ratio(first.power, first.load, part.noise_ratio)


def channel_level(assessment: Assessment, channel: str) -> float | None:
    """DB at 1 m in half space of what one output of a channel drives, for 1 V, mass-controlled.

    p = rho Sd Bl/(2 pi Re Mms) of each driver, which gets the share of the volts that its series
    leaves it; equal pressures add. None where the channel drives nothing.
    """
    pressure = 0.0
    for group in assessment.numbers.box.groups:
        constants = group.driver.constants
        if group.channel == channel and constants is not None:
            one = constants.s_d * constants.bl / (2 * np.pi * constants.r_e * constants.m_ms)
            pressure += float(group.in_parallel * DATA_SHEET_AIR.density * one)
    return None if pressure <= 0.0 else 20 * float(np.log10(pressure / REFERENCE_PRESSURE))


@dataclass(frozen=True)
class Hiss:
    """DB(A) at the listener and where someone leans in; boards whose noise is not known."""

    level: float
    near: float
    unknown: tuple[str, ...]


def hiss_of(assessment: Assessment) -> Hiss | None:
    """What all outputs in use hiss; None where nothing can be heard, or no noise is known."""
    a, design = assessment.acoustic, assessment.design
    if a is None:
        return None
    boards, dsp = [b for _, b in design.power.amplifiers], design.power.dsp
    outputs, unknown = [], []
    for (board, _, _), channel in zip(
        assessment.numbers.carried, design.voice.channels, strict=True
    ):
        level = channel_level(assessment, channel.id)
        part = boards[board].part
        own = board_noise(part)
        if own is None:
            unknown.append(part.name)
        if own is None or level is None:
            continue
        noise = noise_at_output(own, part.noise_weighted, 10 ** (part.gain / 20), dsp.noise)
        outputs.append(Hissing(noise, channel.outputs, level + HALF_SPACE_VOLTS))
    if not outputs:
        return None
    distance = design.brief.listening.distance
    return Hiss(hiss(outputs, distance), hiss(outputs, NEAR), tuple(dict.fromkeys(unknown)))
