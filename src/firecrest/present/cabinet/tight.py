"""Tight spots, balance and panels in words."""

from collections.abc import Sequence

import numpy as np

from firecrest.assessment.assess import Assessment
from firecrest.assessment.cabinet.drawing import Drawing
from firecrest.assessment.cabinet.leads import reaches
from firecrest.assessment.cabinet.spot import Spot
from firecrest.assessment.cabinet.spots import spots_in
from firecrest.assessment.cabinet.walking import walking
from firecrest.core.units import figure
from firecrest.design.standing import is_divider
from firecrest.present.cabinet.words import plain_panel
from firecrest.present.size.facts import Fact
from firecrest.present.text.pieces import Piece, Sentence
from firecrest.present.text.units import told

TIPS = np.radians(10.0)
TOLD, CARD = 6, 2
"""Tight spots that are told at once."""
EXPLAINED = 2
"""Those that cannot be which are told beside the promises."""


LEADS = {"source": "Lead from the source", "drivers": "Leads to the drivers"}


def _mm(value: float) -> str:
    return told(value, "length", "mm", 1 if abs(value) < 0.01 else 0)


def spot_text(spot: Spot) -> str:
    """A tight spot as one sentence."""
    first = spot.names[0]
    panel = spot.names[1] if len(spot.names) > 1 else ""
    other = plain_panel(panel)
    wall = other if is_divider(panel) else f"the {other}"
    sentences = {
        "wall": f"{first} to {wall}: {_mm(spot.gap)}",
        "pair": f"{first} to {other}: {_mm(spot.gap)}",
        "brace": f"{first} to {other.lower()}: {_mm(spot.gap)}",
        "frames": f"Frames of {first} and {other}: {_mm(spot.gap)} apart",
        "frame edge": f"Frame of {first}: {_mm(spot.gap)} to the edge of {wall}",
        "cut-out edge": f"Cut-out of {first}: {_mm(spot.gap)} to the walls beside {wall}",
        "magnet": f"Behind the magnet of {first}: {_mm(spot.gap)} to {wall}",
        "removable": f"{first} does not come out: magnet {_mm(-spot.gap)} wider than its hole",
        "port end": f"Before the open end of {first}: {_mm(spot.gap)} free",
        "knob": f"{first}: its panel is {_mm(-spot.gap)} too thick, thin it by a pocket",
        "ground": f"Below {first}: {_mm(spot.gap)} of feet",
        "chamber": f"{first} stands in another chamber than it is said to",
        "within": f"{first} to the wall of {other.lower()}: {_mm(spot.gap)}",
        "vents": f"{first}: vent slots {_mm(spot.gap)} high",
        "plug": f"{first}: {_mm(spot.gap)} for plugs",
        "lead": f"{LEADS.get(first, first)}, {_mm(spot.gap)} long, to {other}",
        "draught": f"{first} lies level: no draught through its panel",
        "fins": f"Fins of {first}: {_mm(spot.gap)} free {other}",
        "fins lie": f"Fins of {first} do not stand upright",
        "grille": f"{first} at full travel to the grille: {_mm(spot.gap)}",
    }
    if spot.impossible and spot.kind in ("within", "grille"):
        into = "the grille" if spot.kind == "grille" else f"the wall of {other.lower()}"
        return f"{first} reaches {_mm(-spot.gap)} into {into}"
    if spot.impossible and spot.kind == "wall":
        return f"{first} stands {_mm(-spot.gap)} into {wall}"
    if spot.impossible and spot.kind in ("pair", "brace"):
        return f"{first} and {other} are in one place"
    if spot.impossible and spot.kind in ("frame edge", "cut-out edge"):
        return f"{first} reaches {_mm(-spot.gap)} beyond {wall}"
    return sentences[spot.kind]


LEVEL = ("knob", "draught", "fins lie")
"""Kinds of which no length is asked."""
WHY = {
    "wall": "5 mm for tolerance and rattle, 3 mm from what moves.",
    "pair": "5 mm for tolerance and rattle, 3 mm from what moves, at full travel with sag.",
    "brace": "5 mm for tolerance and rattle.",
    "frames": "3 mm of panel between two frames.",
    "frame edge": "4 mm of panel beside a frame.",
    "cut-out edge": "A cut-out lies within the flat of the panel's inside.",
    "magnet": "10 mm of air behind a magnet, so that it stays cool and can be taken out.",
    "removable": "Mount it from inside, through another opening or a screwed panel.",
    "port end": "One bore free before the open end, or the tuning shifts and the port chuffs.",
    "knob": "A pocket from inside, never below 3 mm: then a plate instead.",
    "ground": "The cone's area round the gap, then travel, sag and 10 mm for soft ground.",
    "chamber": "Move it, or change its chamber.",
    "within": "5 mm for tolerance and rattle, 3 mm from what moves.",
    "vents": "Two slots that carry the boards' heat off by draught alone, at the promised level.",
    "plug": "15 mm for a plug and the bend of its wire, six times as thick; plugs are taken to "
    "leave a board on the side away from its panel.",
    "lead": "Along the walls, and 100 mm more so that the panel comes off.",
    "draught": "Warm air rises: one slot low and one high need an upright panel.",
    "fins": "20 mm free above and below fins, or no air passes them: an estimate.",
    "fins lie": "Warm air rises along upright fins; lying ones keep it.",
    "grille": "3 mm from what moves at full travel; a frame that is not recessed stands proud.",
}


def _wanted(spot: Spot) -> str:
    """What is called for, or that it cannot be at all."""
    if spot.impossible:
        return "cannot be"
    return "" if spot.kind in LEVEL else f"of {_mm(spot.wanted)}"


def impossible_sentences(assessment: Assessment) -> list[Sentence]:
    """What cannot be built as it stands, in so many sentences at most; each leads to its place."""
    if not assessment.cabinet.placed:
        return []
    found = [s for s in spots_in(assessment) if s.impossible][:EXPLAINED]
    return [
        Sentence(
            "short", (Piece(spot_text(s), (*s.paths[-1], "u")), Piece(": it cannot be built."))
        )
        for s in found
    ]


def tight_facts(spots: Sequence[Spot]) -> list[Fact]:
    """The tight spots, then how far apart all else is."""
    tight = [s for s in spots if s.tight]
    found = [
        Fact(spot_text(s), _wanted(s), "short" if s.impossible else "close", WHY[s.kind])
        for s in tight[:TOLD]
    ]
    found += _more(tight[TOLD:])
    loose = [s for s in spots if not s.tight and s.kind in ("wall", "pair", "brace", "magnet")]
    if loose:
        least = min(s.gap for s in loose)
        words = "All else" if tight else "Everything"
        found.append(Fact(words, f"{_mm(least)} apart or more", "met"))
    return found


def _more(spots: Sequence[Spot]) -> list[Fact]:
    """How many are not told one by one; none where all are."""
    if not spots:
        return []
    worst = any(s.impossible for s in spots)
    return [Fact(f"{len(spots)} more", "", "short" if worst else "close")]


def lead_facts(assessment: Assessment, drawing: Drawing) -> list[Fact]:
    """How long the leads have to be for what has a place."""
    return [
        Fact(
            LEADS[reach.key],
            f"{told(reach.needs, 'length', 'm', 2)} reach",
            "",
            f"The longest, to {reach.to}, along the walls and 100 mm more so that the panel comes "
            "off. No lead may cross a radiator's travel.",
        )
        for reach in reaches(assessment.design, drawing)
    ]


def card_facts(drawing: Drawing, spots: Sequence[Spot]) -> list[Fact]:
    """The two tightest spots, all else, and how it tips: for the drawing's own corner."""
    facts, tight = tight_facts(spots), [s for s in spots if s.tight]
    told_ones = facts[: min(len(tight), CARD)]
    rest = _more(tight[CARD:]) or [f for f in facts if f.mark == "met"]
    angle = float(np.degrees(drawing.balance.tip_angle))
    return [*told_ones, *rest, Fact("Tips over at", f"{figure(angle, 0)}°", _tip_mark(drawing))]


def _tip_mark(drawing: Drawing) -> str:
    angle = drawing.balance.tip_angle
    return "short" if angle <= 0 else "close" if angle < TIPS else "met"


def balance_facts(assessment: Assessment, drawing: Drawing) -> list[Fact]:
    """Where the weight sits, how the box tips, and what weighs most."""
    b = drawing.balance
    x, y, z = (float(c) for c in b.centre)
    depth = float(drawing.shell.size[2])
    behind = -z - depth / 2
    side = "left" if x < 0 else "right"
    where = [f"{_mm(abs(behind))} {'behind' if behind >= 0 else 'before'} the middle"]
    if abs(x) >= 0.0015:
        where.append(f"{_mm(abs(x))} to the {side}")
    angle = float(np.degrees(b.tip_angle))
    mark = _tip_mark(drawing)
    help = "How far it can be tilted over its nearest edge; below 10° a hand at it tips it."
    feet = "" if drawing.case.feet is not None else " Without feet: on the edges of its foot."
    found = [
        Fact("Weight sits", ", ".join(where), "", "Parts without places count in the middle."),
        Fact("Above the floor", _mm(y - b.floor), ""),
        Fact("Tips over at", f"{figure(angle, 0)}°", mark, help + feet),
    ]
    found += _walking(assessment, drawing)
    heavy = sorted(drawing.weighed, key=lambda w: -w.mass)[:3]
    said = ", ".join(f"{w.name} {told(w.mass, 'mass', 'kg', 2)}" for w in heavy)
    found.append(Fact("Heaviest", said, ""))
    return found


NEAR = 3.0
"""dB of hold below which a box may walk."""


def _walking(assessment: Assessment, drawing: Drawing) -> list[Fact]:
    """Whether it stays where it stands at its loudest."""
    a = assessment.acoustic
    if a is None:
        return []
    found = walking(assessment, a, drawing)
    slide, hop = found.walk.slide, found.walk.hop
    margin = min((m for m in (slide, hop) if m is not None), default=None)
    help = (
        f"At the loudest it plays, the worst note from 20 Hz up; on {found.friction}, an estimate. "
        f"Opposed drivers and radiators cancel each other's push. Hung freely it would move by "
        f"{told(found.walk.travel, 'length', 'mm', 3)} either way."
    )
    if margin is None or margin > 40:
        return [Fact("Stands still", "nothing pushes it", "met", help)]
    mark = "met" if margin >= NEAR else "close" if margin >= 0 else "short"
    does = "hops" if hop is not None and (slide is None or hop < slide) else "slides"
    at = f"at {figure(found.frequency, 0)} Hz"
    if margin < 0:
        return [Fact("Walks", f"{does} {at}, {figure(-margin, 1)} dB over", mark, help)]
    return [Fact("Stands still", f"{figure(margin, 1)} dB before it {does}, {at}", mark, help)]


FLAGS = {"in the band": "short", "close": "close", "clear": "met"}


def panel_facts(drawing: Drawing) -> list[Fact]:
    """First resonance of each panel, between simply supported and clamped."""
    carried: dict[str, list[str]] = {}
    for s in drawing.sited:
        carried.setdefault(s.part.mount.panel, []).append(s.part.name)
    found = []
    for name, r in drawing.resonances.items():
        on = carried.get(name)
        holes = f" Holes for {', '.join(on)} are left out." if on else ""
        found.append(
            Fact(
                name.capitalize(),
                f"{figure(r.supported, 0)} to {figure(r.clamped, 0)} Hz",
                FLAGS[r.flag],
                "First resonance, from loosely held to clamped edges; the truth lies between. "
                f"Masses on it and the air behind are left out.{holes}",
            )
        )
    return found
