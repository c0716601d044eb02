"""What may hum, hiss or thump in this design, and what usually helps: a checklist."""

from collections.abc import Iterator

from firecrest.design.design import Design
from firecrest.present.size.facts import Fact


def hum_list(design: Design) -> list[Fact]:
    """Cause and remedy; only what this design has the cause for."""
    return list(_found(design))


def _found(design: Design) -> Iterator[Fact]:
    power = design.power
    receivers = [b for b in power.boards if b.kind == "receiver"]
    if power.converters and (receivers or len(power.converters) > 1):
        yield Fact(
            "Converter and receiver on one return", "star at the source",
            help="Give each its own return wire to the source: currents of one then lift nothing "
            "at the other.",
        )  # fmt: skip
    if receivers:
        yield Fact(
            "Receiver and board on one source", "filter or isolate it",
            help="A receiver often whistles through the shared supply: an isolated converter, or a "
            "signal isolator, ends it.",
        )  # fmt: skip
    if power.source.kind == "pack" and power.source.charger is not None:
        yield Fact(
            "Player charged from the same supply", "isolate supply or signal",
            help="Phone and box on one charger close a loop through the signal lead.",
        )  # fmt: skip
    if power.source.kind == "wall" or power.source.kind == "mains":
        yield Fact(
            "Two supplies with a common signal ground", "one supply, or an isolator",
            help="A mixer or player on its own supply and this box: the loop hums.",
        )  # fmt: skip
    if len(power.amplifiers) > 1:
        yield Fact(
            "Several boards on one source", "star at the source",
            help="Signal grounds meet at the signal processor only, returns at the source only.",
        )  # fmt: skip
    if power.converters:
        yield Fact(
            "Signal beside a converter or an output", "keep apart, cross at right angles",
            help="A hand's width is usually enough.",
        )  # fmt: skip
    if any(b.part.sleep_current is not None for _, b in power.amplifiers):
        yield Fact(
            "A board that goes to sleep", "bring its mute pin out",
            help="Without muting it thumps when it wakes.",
        )  # fmt: skip
    yield Fact(
        "Metal panel, shaft or knob", "bond it to the return",
        help="What hums when it is touched is not bonded.",
    )  # fmt: skip
