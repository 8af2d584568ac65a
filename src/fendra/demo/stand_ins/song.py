"""Sound: a beat, a bass line and a bell, as a WAV file."""

from __future__ import annotations

import wave
from pathlib import Path

import numpy as np

from fendra.demo.stand_ins import WritesFiles

RATE_HZ = 44_100
BEAT_S = 0.5


def song(seconds: float = 16.0) -> np.ndarray:
    """Samples, -1 to 1: a drum every half second, a bass that walks, a bell on every fourth beat.

    >>> samples = song(2.0)
    >>> samples.shape, bool(abs(samples).max() <= 1)
    ((88200,), True)
    """
    time = np.arange(int(seconds * RATE_HZ)) / RATE_HZ
    into = time % BEAT_S
    beat = (time // BEAT_S).astype(int)
    drum = np.sin(2 * np.pi * (60 * into + 40 * (1 - np.exp(-into * 30)) / 30)) * np.exp(-into * 14)
    notes = np.array([55.0, 55.0, 65.4, 73.4, 82.4, 73.4, 65.4, 61.7])[beat % 8]
    bass = np.sin(2 * np.pi * np.cumsum(notes) / RATE_HZ) * 0.35
    bell = np.sin(2 * np.pi * 2093 * into) * np.exp(-into * 6) * (beat % 4 == 2)
    hiss = np.random.default_rng(1).normal(size=len(time)) * np.exp(-((into - 0.25) % BEAT_S) * 40)
    mixed = 0.55 * drum + bass + 0.25 * bell + 0.08 * hiss
    return np.asarray(mixed / np.abs(mixed).max() * 0.9)


class Song(WritesFiles):
    """Writes the file."""

    about = "a song, as a file that plays without being heard"
    design = "cabinet.toml"
    file = "game.csv"

    def start(self) -> str:
        path = Path(self.address or "song.wav")
        samples = (song() * 32_767).astype("<i2")
        with wave.open(str(path), "wb") as file:
            file.setnchannels(1)
            file.setsampwidth(2)
            file.setframerate(RATE_HZ)
            file.writeframes(samples.tobytes())
        return f"audio:{path}"
