"""Ways come and go: a channel of the voice with drivers of its own in a chamber of their own."""

from firecrest.assessment.voicing.crossovers import edge, in_order
from firecrest.core.errors import DesignError
from firecrest.design.blocks import HighPass, LowPass, followed, passes
from firecrest.design.box import DriverGroup
from firecrest.design.design import Design
from firecrest.design.edits.paths import rebuilt
from firecrest.design.ids import found, fresh
from firecrest.design.outputs import output_kinds
from firecrest.design.starts import START_SATELLITE, START_TWEETER
from firecrest.design.voice import Channel, Voice
from firecrest.proposals.layouts import with_own_chamber

HANDOVER = 400.0
"""Corner in Hz at which a new way takes over from the first one."""
SPAN, HIGHEST_HANDOVER = 7.0, 3000.0
"""How far a way in the middle reaches, and the highest corner that is proposed, Hz."""
TWEETERS = 1500.0
"""Hz from which a new way begins with a tweeter."""


def with_way(design: Design) -> tuple[str, Design]:
    """(label, design) with one more way: small drivers in a closed chamber of their own.

    It takes over from the highest way where that is crossed over below and open above, else from
    the first. That one gets a low-pass, the new one a high-pass at the same corner. DesignError
    when no board has an output left.
    """
    box, voice = design.box, design.voice
    place, handover = _handover(voice)
    first = voice.channels[place]
    board = board_with_room(design, first.board, 1)
    name = "high" if len(voice.channels) == 1 else f"way {len(voice.channels) + 1}"
    id = fresh([c.id for c in voice.channels], name)
    high = HighPass(kind="high_pass", frequency=handover, family="linkwitz_riley", order=4)
    low = LowPass(kind="low_pass", frequency=handover, family="linkwitz_riley", order=4)
    below = first
    if len(voice.channels) == 1 and first.name == Channel().name:
        below = rebuilt(below, name="low")  # it does not play all any more
    if not any(passes(block) == "low_pass" for block in first.blocks):
        below = rebuilt(below, blocks=followed(first.blocks, low))
    channel = Channel(id=id, name=name, board=board, blocks=(high,))
    group = DriverGroup(
        id=fresh([g.id for g in box.groups], f"drivers {name}"),
        driver=START_TWEETER if handover >= TWEETERS else START_SATELLITE,
        chamber=box.groups[0].chamber,
        channel=id,
    )
    made = rebuilt(
        design,
        voice=rebuilt(voice, channels=(*_put(voice, place, below), channel)),
        box=rebuilt(box, groups=(*box.groups, group)),
    )
    return f"Add way {name}", with_own_chamber(made, len(box.groups))


def _handover(voice: Voice) -> tuple[int, float]:
    """(channel, Hz) from which, and where, a new way takes over."""
    top = in_order(voice)[-1]
    begins, ends = (edge(voice.channels[top], kind) for kind in ("high_pass", "low_pass"))
    if begins is None or ends is not None:
        return 0, HANDOVER
    alike = [
        c
        for c in voice.channels
        if (own := edge(c, "high_pass")) is not None and own[1].frequency == begins[1].frequency
    ]
    if len(alike) > 1:  # two sides of one way
        return 0, HANDOVER
    return top, min(SPAN * begins[1].frequency, HIGHEST_HANDOVER)


def _put(voice: Voice, place: int, channel: Channel) -> list[Channel]:
    """The channels with another one at ``place``."""
    return [channel if k == place else old for k, old in enumerate(voice.channels)]


def board_with_room(design: Design, wanted: str, outputs: int) -> str:
    """Id of a board with so many outputs free: the ``wanted`` one, or else another.

    DesignError says how many the wanted one has when there is none.
    """
    boards = [board for _, board in design.power.amplifiers]
    first = found(boards, wanted)
    for board in (first, *boards):
        used = sum(c.outputs for c in design.voice.channels if c.board == board.id)
        if used + outputs <= len(output_kinds(board)):
            return board.id
    count = "one more output" if outputs == 1 else f"{outputs} more outputs"
    raise DesignError(
        f"One more way takes {count}, and {first.part.name} has {len(output_kinds(first))}: choose "
        "another board in Parts, or add one in Power."
    )


def without_way(design: Design, place: int) -> tuple[str, Design]:
    """(label, design) without a channel, its drivers, and the chambers that are empty then.

    Their air goes to the first chamber that stays. DesignError for the last channel, and where
    what is left would not hold together.
    """
    box, voice = design.box, design.voice
    if len(voice.channels) == 1:
        raise DesignError("The last way stays: a box needs a channel that drives it.")
    gone = voice.channels[place]
    groups = tuple(g for g in box.groups if g.channel != gone.id)
    used = {chamber for g in groups for chamber in (g.chamber, g.front)}
    used |= {c.id for c in box.chambers if all(g.chamber != c.id for g in box.groups)}
    kept = [c for c in box.chambers if c.id in used]
    freed = sum(c.share for c in box.chambers if c.id not in used)
    kept[0] = rebuilt(kept[0], share=min(kept[0].share + freed, 1.0))
    ids = {c.id for c in kept}
    contents = tuple(
        item if item.chamber in ids else rebuilt(item, chamber=kept[0].id)
        for item in box.case.contents
    )
    made = rebuilt(
        design,
        voice=rebuilt(voice, channels=tuple(c for c in voice.channels if c is not gone)),
        box=rebuilt(
            box,
            case=rebuilt(box.case, contents=contents),
            chambers=tuple(kept),
            groups=groups,
            openings=tuple(o for o in box.openings if o.chamber in ids),
        ),
    )
    return f"Remove way {gone.name}", made
