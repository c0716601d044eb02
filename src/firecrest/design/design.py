"""The whole design, and the rules that tie its branches together."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Self

from pydantic import model_validator
from pydantic.dataclasses import dataclass

from firecrest.core.voice.chain import HIGHEST
from firecrest.design.blocks import Block, HighPass, LowPass, OwnCrossover
from firecrest.design.box import OUTSIDE, Box
from firecrest.design.brief import Brief
from firecrest.design.fields import MODEL, text
from firecrest.design.ids import HasId
from firecrest.design.outputs import carried
from firecrest.design.power import BUS, Power
from firecrest.design.shapes import shape_problems
from firecrest.design.sources import Pack
from firecrest.design.voice import Channel, Voice

SCHEMA_VERSION = 8


@dataclass(frozen=True, kw_only=True, config=MODEL)
class Design:
    """An immutable design; every edit makes a new one through this constructor."""

    name: str = text("Name")
    brief: Brief
    box: Box
    power: Power
    voice: Voice = Voice()
    note: str = text("Note", default="", longest=4000)

    @model_validator(mode="after")
    def _hangs_together(self) -> Self:
        """References between branches; ValueError text becomes the maker's message."""
        problems = [*_names(self), *_case_room(self), *_power(self), *_filters(self)]
        if problems:
            raise ValueError("; ".join(problems))
        return self


def _doubled(kind: str, elements: Sequence[HasId]) -> list[str]:
    """A complaint for each id used twice."""
    ids = [element.id for element in elements]
    return [f"two {kind} have the id {i}" for i in sorted(set(ids)) if ids.count(i) > 1]


def _names(design: Design) -> list[str]:
    """Chambers and channels exist where they are referred to."""
    box, voice = design.box, design.voice
    chambers, channels = [c.id for c in box.chambers], [c.id for c in voice.channels]
    problems = _doubled("chambers", box.chambers) + _doubled("channels", voice.channels)
    problems += _doubled("driver groups", box.groups) + _doubled("openings", box.openings)
    if OUTSIDE in chambers:
        problems.append(f"a chamber cannot have the id {OUTSIDE}")
    inner = [g.chamber for g in box.groups] + [o.chamber for o in box.openings]
    inner += [item.chamber for item in box.case.contents]
    outer = [g.front for g in box.groups] + [o.opens_to for o in box.openings]
    problems += [f"there is no chamber {n}" for n in inner if n not in chambers]
    problems += [f"there is no chamber {n}" for n in outer if n not in (*chambers, OUTSIDE)]
    for element in box.openings:
        if element.chamber == element.opens_to:
            problems.append(f"an opening of {element.chamber} leads back into it")
    for group in box.groups:
        away = [point.travel for point in group.driver.large]
        if any(b <= a for a, b in pairwise(away)):
            problems.append(f"the table of {group.driver.name} must rise in travel")
        if group.coils != "as stated" and group.driver.coils != 2:
            problems.append(f"{group.driver.name} has one coil, its wiring says {group.coils}")
        if group.chamber == group.front:
            problems.append(f"{group.driver.name} faces the chamber behind it")
        if group.channel not in channels:
            problems.append(f"there is no voice channel {group.channel}")
    fed = {group.channel for group in box.groups}
    problems += [f"voice channel {c} drives nothing" for c in channels if c not in fed]
    return problems


def _case_room(design: Design) -> list[str]:
    """Walls leave room, and chambers share no more than the interior."""
    case = design.box.case
    problems = list(shape_problems(case))
    known = [c.id for c in design.box.chambers]
    problems += [
        f"there is no chamber {f.chamber}" for f in case.fittings if f.chamber not in known
    ]
    if sum(c.share for c in design.box.chambers) > 1 + 1e-9:
        problems.append("the chambers share more than the interior")
    return problems


def _power(design: Design) -> list[str]:
    """Boards, outputs, claims, rails and the source agree."""
    power, source = design.power, design.power.source
    boards = [board for _, board in power.amplifiers]
    problems = _doubled("boards", power.boards) + _doubled("converters", power.converters)
    if not boards or sum(board.kind == "dsp" for board in power.boards) != 1:
        return [*problems, "a design has one DSP board and at least one amplifier board"]
    rails = [BUS, *(c.id for c in power.converters)]
    fed = [*power.boards, *power.other_loads]
    problems += [f"there is no rail {item.rail}" for item in fed if item.rail not in rails]
    problems += carried(boards, design.voice.channels)[1]
    for board in boards:
        part = board.part
        if part.efficiency and not 0 <= part.efficiency.claim < len(part.claims):
            problems.append(f"{part.name} has no claim {part.efficiency.claim}")
        if part.own_mains != (source.kind == "mains"):
            problems.append(f"{part.name} and the source disagree about a mains supply of its own")
        if part.own_mains and board.rail != BUS:
            problems.append(f"{part.name} has a mains supply of its own and no converter")
    if isinstance(source, Pack):
        charge = [point.charge for point in source.cell.table]
        if any(b <= a for a, b in pairwise(charge)):
            problems.append(f"the table of {source.cell.name} must rise in charge")
        warmth = [point.temperature for point in source.cell.warmth]
        if any(b <= a for a, b in pairwise(warmth)):
            problems.append(f"the table of {source.cell.name} must rise in temperature")
    return problems


def _filters(design: Design) -> list[str]:
    """What the chosen filters need."""
    if not any(board.kind == "dsp" for board in design.power.boards):
        return []
    rate = design.power.dsp.sample_rate
    problems = []
    for channel in design.voice.channels:
        problems += _block_problems(channel.blocks, rate)
        problems += _own_problems(design, channel)
        if channel.mix == "sub" and channel.left_share + channel.right_share == 0:
            problems.append(
                f"{channel.name} takes left from right: nothing is left of a mono sound"
            )
    names = [preset.name for preset in design.voice.presets]
    if len(set(names)) < len(names):
        problems.append("two presets have one name")
    for preset in design.voice.presets:
        for chain in preset.chains:
            problems += _block_problems(chain.blocks, rate)
    return problems


def _own_problems(design: Design, channel: Channel) -> list[str]:
    """An amplifier's own crossover is as it is built in, once, and behind all others."""
    own = [b for b in channel.blocks if isinstance(b, OwnCrossover)]
    boards = [board for _, board in design.power.amplifiers if board.id == channel.board]
    if not own or not boards:
        return []
    built_in, name = boards[0].part.own_filter, boards[0].part.name
    if built_in is None:
        return [f"{name} has no crossover of its own, but {channel.name} uses it"]
    if len(own) > 1 or channel.blocks[-1] is not own[0]:
        return [f"the crossover of {name} comes once, and last"]
    block = own[0]
    if (block.side, block.family, block.order) != (built_in.side, built_in.family, built_in.order):
        return [f"the crossover of {name} is fixed: its family and slope are the board's"]
    if not built_in.lowest <= block.frequency <= built_in.highest:
        return [f"the crossover of {name} goes from {built_in.lowest:g} to {built_in.highest:g} Hz"]
    if block.turn and not built_in.phase:
        return [f"the crossover of {name} has no phase knob"]
    return []


def _block_problems(blocks: Sequence[Block], rate: float) -> list[str]:
    """What the blocks of one chain cannot do at a sample rate."""
    problems = []
    for block in blocks:
        own = isinstance(block, OwnCrossover)
        if not own and block.frequency > HIGHEST * rate:
            problems.append(f"{block.frequency:g} Hz is too high for the DSP's sample rate")
        if isinstance(block, HighPass | LowPass | OwnCrossover) and (
            block.family == "linkwitz_riley" and block.order % 2
        ):
            problems.append("Linkwitz-Riley needs an even order")
    return problems
