"""WAVs in and out."""

import io

import numpy as np
import pytest
from scipy.io import wavfile

from firecrest.core.errors import FileError
from firecrest.core.voice.rendering import at_rate
from firecrest.files.sound import read_sound, sound_bytes, write_sound

T = np.arange(44100) / 44100


def wav(tmp_path, rate, samples):
    path = tmp_path / "mine.wav"
    wavfile.write(path, rate, samples)
    return path


@pytest.mark.parametrize("kind", [np.int16, np.int32, np.float32, np.uint8])
def test_every_usual_wav_is_read_as_mono_at_48_khz(tmp_path, kind):
    wave = np.sin(2 * np.pi * 500 * T)
    top = {np.int16: 32000, np.int32: 2**31 - 100, np.uint8: 120, np.float32: 0.9}[kind]
    shift = 128 if kind is np.uint8 else 0
    both = np.stack((wave * top + shift, wave * top + shift), axis=1).astype(kind)
    own, rate = read_sound(wav(tmp_path, 44100, both))
    assert (len(own), rate) == (44100, 44100)
    found = at_rate(own, rate, 48000)
    assert len(found) == 48000
    assert np.max(np.abs(found)) == pytest.approx(0.5)
    turns = np.count_nonzero(np.diff(np.sign(found[4000:44000])) > 0)
    assert turns == pytest.approx(500 * 40000 / 48000, abs=2)


def test_what_is_written_is_read_again(tmp_path):
    samples = 0.5 * np.sin(2 * np.pi * 300 * np.arange(24000) / 48000)
    write_sound(tmp_path / "a.wav", samples)
    own, _ = read_sound(tmp_path / "a.wav")
    np.testing.assert_allclose(at_rate(own, 48000, 48000), samples, atol=2e-4)
    rate, _ = wavfile.read(io.BytesIO(sound_bytes(samples)))
    assert rate == 48000


@pytest.mark.parametrize(
    ("samples", "said"),
    [(np.zeros(20000, np.int16), "nothing to hear"), (np.ones(50, np.int16), "too short")],
)
def test_what_cannot_be_heard_is_refused(tmp_path, samples, said):
    with pytest.raises(FileError, match=said):
        read_sound(wav(tmp_path, 44100, samples))


def test_what_is_no_wav_is_refused(tmp_path):
    path = tmp_path / "x.wav"
    path.write_bytes(b"RIFFjunk" * 40)
    with pytest.raises(FileError, match="no WAV"):
        read_sound(path)
