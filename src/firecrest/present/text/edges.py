"""What is reckoned with beyond small signals: what it costs here, or that it is left out."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.conditions import softness_of
from firecrest.assessment.portloss import PortLoss, ceiling_loss
from firecrest.core.air import STANDARD_TEMPERATURE
from firecrest.core.units import THIN_SPACE, figure
from firecrest.design.box import Port, placed
from firecrest.design.design import Design
from firecrest.present.text.notes import said
from firecrest.present.text.pieces import Piece, Sentence
from firecrest.present.text.units import told

WORTH_SAYING = 0.5
"""DB that turbulence must take for a sentence of its own."""
NOTICED = 0.05
"""DB below which nothing is told to be taken."""
NEAR_20 = 0.5
"""K from 20 °C within which suspensions are as stated."""
EDGES: Mapping[str, str] = {
    "turbulence": "Turbulence in ports",
    "large_signal": "Bent motors and suspensions",
    "hot_coils": "Hot coils",
    "suspensions": "Suspensions by temperature",
}


@dataclass(frozen=True)
class Edge:
    """One that matters for this design: its key in the brief, its name, what it does here."""

    key: str
    name: str
    text: str


def edges_of(assessment: Assessment) -> list[Edge]:
    """Those that matter here, each with what it costs, or with what is assumed without it."""
    design, a = assessment.design, assessment.acoustic
    told_of = {
        "turbulence": _turbulence(design, a),
        "large_signal": _large_signal(design, a),
        "hot_coils": _hot_coils(design, a),
        "suspensions": _suspensions(design),
    }
    return [Edge(key, EDGES[key], text) for key, text in told_of.items() if text]


def assumed(assessment: Assessment) -> list[str]:
    """Every line of what the figures assume."""
    edges = [f"{edge.name}: {edge.text}" for edge in edges_of(assessment)]
    return [*edges, *(said(estimate) for estimate in assessment.estimates)]


def _turbulence(design: Design, a: Acoustic | None) -> str:
    if not placed(design.box.openings, Port):
        return ""
    if not design.brief.edges.turbulence:
        return "left out; ports as at low level"
    found = None if a is None else ceiling_loss(a)
    if found is None or found.worst[0] < NOTICED:
        return "take nothing to speak of here; the loss by shape is an estimate, ±30 %"
    lost, at = found.worst
    beside = ", together with what bends," if design.brief.edges.large_signal else ""
    taken = f"takes{beside} up to {figure(lost, 1)} dB of the ceiling, at {at:.0f}{THIN_SPACE}Hz"
    return f"{taken}; programme level leaves it out. The loss by shape is an estimate, ±30 %"


def _large_signal(design: Design, a: Acoustic | None) -> str:
    if a is None or not any(g.driver.bends for g in a.sound.inputs.box.groups):
        return ""
    if not design.brief.edges.large_signal:
        return "left out; values as close to rest, up to the limit of the travel"
    return (
        "ceiling, reach at level, travel and speed count them; where no sheet says how, 82 % of Bl "
        "and 75 % of the compliance are left at Xmax, an estimate, ± a third. Bias, offset and "
        "harmonics are left out; programme level too"
    )


def _hot_coils(design: Design, a: Acoustic | None) -> str:
    if not design.brief.edges.hot_coils:
        return "left out; coils stay at 20 °C"
    if a is None or not a.lasting.rises:
        return ""
    lasting = a.lasting
    hottest = max(float(np.ravel(rise)[0]) for rise in lasting.rises)
    cold, hot = (float(np.ravel(x)[0]) for x in (lasting.cold_level, lasting.level))
    if not np.isfinite([cold, hot]).all():
        return "nothing plays here that could warm them"
    word = "softer" if hot <= cold else "louder"
    warm = told(STANDARD_TEMPERATURE + hottest, "temperature", "°C", 0)
    return (
        f"{warm} after half an hour of programme flat out, {figure(abs(cold - hot), 1)} dB {word} "
        "than with coils at 20 °C, as held sines are told but for coil heat. Where no sheet says "
        "how coils heat, an estimate, ±40 %"
    )


def _suspensions(design: Design) -> str:
    conditions = design.brief.conditions
    if abs(conditions.temperature - STANDARD_TEMPERATURE) < NEAR_20:
        return ""
    if not design.brief.edges.suspensions:
        return "left out; as at 20 °C"
    stiffer = 1 / float(softness_of(conditions, design.brief.edges)) - 1
    word = "stiffer" if stiffer > 0 else "softer"
    return f"{abs(100 * stiffer):.0f} % {word} than at 20 °C, an estimate, ±50 % of that"


def turbulence_sentence(assessment: Assessment, a: Acoustic) -> list[Sentence]:
    """Where the ports' own turbulence takes a lot of the ceiling within the promised band."""
    found = ceiling_loss(a)
    edges = assessment.design.brief.edges
    if found is None or edges.large_signal or not edges.turbulence:
        return []
    span = _span(found, assessment.design.brief.bass.frequency)
    if span is None:
        return []
    low, high, lost, at = span
    port = next(k for k, _ in placed(assessment.design.box.openings, Port))
    path = ("box", "openings", port, "edges")
    where = f"From {low:.0f} to {high:.0f}{THIN_SPACE}Hz"
    pieces = (
        Piece(where, frequency=at),
        Piece(" the "),
        Piece("port's own turbulence", path),
        Piece(f" takes up to {figure(lost, 1)} dB of the ceiling."),
    )
    return [Sentence("close" if lost >= 2 * WORTH_SAYING else "met", pieces)]


def _span(found: PortLoss, lowest: float) -> tuple[float, float, float, float] | None:
    """(from Hz, to Hz, most dB, its Hz) of the stretch around the worst where it is worth it."""
    judged = np.where(found.frequency >= lowest / 2 ** (1 / 3), found.loss, 0.0)
    worst = int(np.argmax(judged))
    if judged[worst] < WORTH_SAYING:
        return None
    first = last = worst
    while first > 0 and judged[first - 1] >= WORTH_SAYING / 2:
        first -= 1
    while last < len(judged) - 1 and judged[last + 1] >= WORTH_SAYING / 2:
        last += 1
    f = found.frequency
    return float(f[first]), float(f[last]), float(judged[worst]), float(f[worst])
