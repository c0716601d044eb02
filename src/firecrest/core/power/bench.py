"""What a test tone or a stuck input draws: every output in use at clipping into its least |Z|."""

from collections.abc import Sequence

from firecrest.core.power.amplifier import SINE_AVERAGE
from firecrest.core.power.boards import Boards, Standing
from firecrest.core.power.source import Source

ROUNDS = 200
ROOT = 2**0.5


def bench_current(
    boards: Boards,
    counts: Sequence[int],
    least: Sequence[float],
    source: Source,
    standing: Standing,
) -> float:
    """A of the source with all boards at once, means; the smallest burst limit caps it.

    ``least`` is the |Z| (ohm) of each feed's load, taken as a resistor. The bus V = Voc - R I is
    found by going round until it stands.
    """
    rest, ohms = float(source.voltage), float(source.resistance)
    volts, amperes = rest, 0.0
    for _ in range(ROUNDS):
        amperes = _drawn(boards, counts, least, volts, standing)
        new = max(rest - ohms * amperes, rest / 2)
        if abs(new - volts) < 1e-12:
            break
        volts = 0.5 * (volts + new)
    return float(min([amperes, *(float(most) for most in source.burst.values())]))


def _drawn(
    boards: Boards, counts: Sequence[int], least: Sequence[float], bus: float, standing: Standing
) -> float:
    """A at a bus of ``bus`` V."""
    amperes, watts = float(standing.amperes), float(standing.watts)
    for feed, count, load in zip(boards.feeds, counts, least, strict=True):
        converter, model = boards.converter_of(feed), feed.outputs
        rail = bus if converter is None else float(converter.output_voltage)
        swing = max(rail - float(model.offset), 0.0) / float(model.swing_factor)
        peak = min(swing / (1.0 + float(model.r_out) / load), float(model.current_limit) * load)
        rms = peak / load / ROOT
        power = count * (load + float(model.r_out)) * rms**2
        lost = float(model.loss) * SINE_AVERAGE * count * rms
        if converter is None:
            amperes, watts = amperes + lost, watts + power
        else:
            watts += (power + rail * lost) / float(converter.efficiency)
    return amperes + watts / bus
