"""What is played, in words: for the choice of it, and beside the plots that show it."""

import numpy as np

from firecrest.assessment.assess import Acoustic, Assessment
from firecrest.assessment.motion import PROMISE, Motion, Played, motion_of
from firecrest.core.errors import FirecrestError, RangeError
from firecrest.core.reading import read_quantity
from firecrest.core.units import THIN_SPACE, figure

CHOICES: tuple[tuple[Played, str], ...] = (
    (PROMISE, "at the promise"),
    (Played("watts", 1.0), "at 1 W"),
    (Played("full"), "at the amplifier's full"),
)
HELP = (
    "What is played: the promise, or one flat input. Type watts into all drivers or volts at the "
    "loudest output: 10 W, 5 V."
)
MOST = {"volts": 1e3, "watts": 1e5}


def read_played(text: str) -> Played:
    """What a text asks to play; RangeError says what can be typed."""
    for played, words in CHOICES:
        if text.strip().lower() in (words, words.removeprefix("at ")):
            return played
    plain = text.strip().lower().removeprefix("at ")
    kind, quantity, unit = ("volts", "voltage", "V") if plain.endswith("v") else (
        "watts", "power", "W",
    )  # fmt: skip
    try:
        value = read_quantity(plain, quantity, unit)
    except (FirecrestError, ValueError) as error:
        raise RangeError(f"“{text:.30}” is nothing to play: type 10 W, or 5 V.") from error
    if not 0 < value <= MOST[kind]:
        raise RangeError(f"Up to {MOST[kind]:g}{THIN_SPACE}{unit} can be played, above 0.")
    return Played("volts" if kind == "volts" else "watts", value)


def played_text(played: Played) -> str:
    """As it is chosen: "at 1 W"."""
    for known, words in CHOICES:
        if known == played:
            return words
    unit = "V" if played.kind == "volts" else "W"
    return f"at {played.value:g}{THIN_SPACE}{unit}"


def words(motion: Motion, played: Played) -> str:
    """What the plot shows, with the drive it takes."""
    if played == PROMISE:
        return "Below the promised note: a held low note, as the low-note check has it."
    seen = (motion.frequency >= 20) & (motion.frequency <= 500)
    volts = max(float(np.max(np.broadcast_to(v, seen.shape)[seen])) for v in motion.volts)
    watts = float(np.max(motion.watts[seen]))
    return (
        f"One flat input from 20 to 500{THIN_SPACE}Hz: at most {figure(volts, 2)}{THIN_SPACE}V at "
        f"an output and {figure(watts, 2)}{THIN_SPACE}W into all drivers."
    )


def level_notes(assessment: Assessment, a: Acoustic, played: Played) -> tuple[str, ...]:
    """What the response's 0 dB is at the listener with a flat input; nothing at the promise."""
    if played == PROMISE:
        return ()
    drive = float(motion_of(assessment, a, played).drive[0])
    level = a.reaches.reference + 20 * np.log10(drive) if drive > 0 else float("nan")
    distance = assessment.design.brief.listening.distance
    text = played_text(played)
    return (
        f"{text[:1].upper()}{text[1:]}: 0{THIN_SPACE}dB is {figure(level, 1)}{THIN_SPACE}dB "
        f"at {distance:g}{THIN_SPACE}m.",
    )
