"""Sound files: a WAV to listen with, and WAVs of what was rendered."""

import io
import warnings
from pathlib import Path

import numpy as np

from firecrest.core.arrays import Real
from firecrest.core.errors import FileError, guarded
from firecrest.core.voice.programme_sound import RATE
from firecrest.files.atomic import write_file
from firecrest.files.bounded import read_bytes

LONGEST = 64 * 2**20
MOST_SECONDS = 60.0
LEAST_SECONDS = 0.2


def read_sound(path: Path) -> tuple[Real, int]:
    """(samples, how many a second) of up to a minute of a WAV, mono.

    Raises FileError when it is none, or holds nothing to hear.
    """
    from scipy.io import wavfile

    data = read_bytes(path, LONGEST)
    with guarded(path.name, FileError), warnings.catch_warnings():
        warnings.simplefilter("ignore")  # chunks that are no sound are left out
        try:
            rate, samples = wavfile.read(io.BytesIO(data))
        except (ValueError, EOFError) as error:
            raise FileError(f"{path.name} is no WAV that can be read: {error}.") from error
        if not 8000 <= rate <= 384000:
            raise FileError(f"{path.name} has {rate} samples a second; 8000 to 384000 can be used.")
        plain = samples.astype(np.float64)
        if plain.ndim > 1:
            plain = plain.mean(axis=1)
        plain = plain[: int(MOST_SECONDS * rate)]
        if len(plain) < LEAST_SECONDS * rate:
            raise FileError(f"{path.name} is too short: {LEAST_SECONDS:g} s at the least.")
        plain = plain - plain.mean()
        top = float(np.max(np.abs(plain)))
        if not np.isfinite(top) or top == 0:
            raise FileError(f"{path.name} holds nothing to hear.")
        return plain, int(rate)


def sound_bytes(samples: Real) -> bytes:
    """Samples at 48 kHz, -1 to 1, as a WAV of 16 bits."""
    from scipy.io import wavfile

    out = io.BytesIO()
    whole = np.round(np.clip(samples, -1.0, 1.0) * 32767).astype(np.int16)
    wavfile.write(out, RATE, whole)
    return out.getvalue()


def write_sound(path: Path, samples: Real) -> None:
    """Write samples as a WAV; FileError when the folder does not take it."""
    write_file(path, sound_bytes(samples))
