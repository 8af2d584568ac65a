"""Sound as numbers for light: level, peak, bands, onsets."""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass
from typing import Any, Literal, TypeAlias

import numpy as np

from fendra.core.arrays import Array

Weighting: TypeAlias = Literal["A", "C", "none"]

WINDOW_S, HOP_S = 0.0232, 0.0116
"""How much sound one look takes, and from one look to the next: 1024 and 512 samples at 44.1
kHz."""
FLOOR_DB = -70.0
"""Below this it is silence, whatever the gain."""
SPAN_DB = 36.0
"""From 0 to 1."""
GAIN_FALL_DB_S = 2.0
"""How quickly the automatic gain comes up when it gets quieter."""
ONSET_GAP_S = 0.12
"""The least time from one onset to the next."""


@dataclass(frozen=True)
class SoundLevels:
    """One look at the sound. level, peak: 0 to 1. bands: each 0 to 1. onset: how strong
    one that began just now is, 0 to 1; 0 if none did.
    """

    level: float
    peak: float
    bands: tuple[float, ...]
    onset: float


def weight_db(hz: Array, weighting: Weighting) -> Array:
    """How much less than 1 kHz the ear hears a tone, in dB (IEC 61672-1, annex E).

    >>> [round(float(weight_db(np.array([f]), "A")[0]), 1) for f in (100.0, 1000.0, 10000.0)]
    [-19.1, 0.0, -2.5]
    """
    if weighting == "none":
        return np.zeros_like(hz)
    square = hz**2
    low, high = square + 20.598997**2, square + 12194.217**2
    gain = 12194.217**2 * square / (low * high)
    offset = 0.0619
    if weighting == "A":
        gain = gain * square / np.sqrt((square + 107.65265**2) * (square + 737.86223**2))
        offset = 1.9997
    return np.asarray(20 * np.log10(np.maximum(gain, 1e-12)) + offset)


def band_edges(count: int, low_hz: float, high_hz: float) -> Array:
    """Edges of bands, evenly spaced to the ear: each the same factor above the last."""
    return np.geomspace(low_hz, high_hz, count + 1)


class Listener:
    """Samples in, in pieces of any size; loudness and bands out, once a hop.

    rate_hz: samples a second. bands: how many, evenly spaced to the ear from low_hz to high_hz.
    weighting: the model of the ear. attack_s, release_s: time constants of rising and falling.
    gain_db: dB to add; None adapts, so that the loudest of the last seconds is 1.
    """

    def __init__(
        self, rate_hz: float, *, bands: int = 8, low_hz: float = 40.0, high_hz: float = 16_000.0,
        weighting: Weighting = "A", attack_s: float = 0.01, release_s: float = 0.25,
        gain_db: float | None = None,
    ) -> None:  # fmt: skip
        self.rate_hz = rate_hz
        self.window = max(int(2 ** round(np.log2(rate_hz * WINDOW_S))), 64)
        self.hop = self.window // 2
        self.hop_s = self.hop / rate_hz
        shape = np.hanning(self.window)
        self._shape = shape / np.sqrt((shape**2).mean())  # keeps the power of noise
        hz = np.fft.rfftfreq(self.window, 1 / rate_hz)
        self._weight = 10 ** (weight_db(np.maximum(hz, 1.0), weighting) / 10)
        self._weight[0] = 0.0
        edges = band_edges(bands, low_hz, min(high_hz, rate_hz / 2))
        self._into = _shares(hz, edges)
        self._settle = [1 - np.exp(-self.hop_s / max(t, 1e-4)) for t in (attack_s, release_s)]
        self._held = np.zeros(bands + 1)
        self._peak = 0.0
        self._fixed_db = gain_db
        self._loudest_db = -20.0
        self._loudest_bands_db = -30.0
        self._before: Array | None = None
        self._flux: deque[float] = deque(maxlen=max(int(0.7 / self.hop_s), 4))
        self._since_onset_s = 1.0
        self._rest = np.zeros(0)

    @property
    def latency_s(self) -> float:
        """The time from a sound to its number: half a window, and up to a hop."""
        return self.window / 2 / self.rate_hz + self.hop_s

    def feed(self, samples: Any) -> list[SoundLevels]:
        """Take samples, (n,) or (n, channels), -1 to 1; a look for each hop that they complete."""
        block = np.asarray(samples, float)
        if block.ndim == 2:
            block = block.mean(axis=1)
        sound = np.concatenate([self._rest, np.nan_to_num(block, posinf=1.0, neginf=-1.0)])
        found = []
        while len(sound) >= self.window:
            found.append(self._look(sound[: self.window]))
            sound = sound[self.hop :]
        self._rest = sound
        return found

    def _look(self, sound: Array) -> SoundLevels:
        power = np.abs(np.fft.rfft(sound * self._shape)) ** 2 * (2 / self.window**2)
        heard = power * self._weight
        whole_db = 10 * np.log10(max(heard.sum(), 1e-12))
        bands_db = 10 * np.log10(np.maximum(self._into @ heard, 1e-12))
        fall_db = GAIN_FALL_DB_S * self.hop_s
        self._loudest_db = max(self._loudest_db - fall_db, whole_db, FLOOR_DB + SPAN_DB)
        loudest_band = float(bands_db.max())
        self._loudest_bands_db = max(
            self._loudest_bands_db - fall_db, loudest_band, FLOOR_DB + SPAN_DB
        )
        raw = np.array([_share(whole_db, self._top(self._loudest_db))])
        raw = np.append(raw, _share(bands_db, self._top(self._loudest_bands_db)))
        settle = np.where(raw > self._held, *self._settle)
        self._held = self._held + (raw - self._held) * settle
        self._peak = max(float(raw[0]), self._peak - self.hop_s / 1.5)
        level, *bands = self._held.tolist()
        return SoundLevels(level, self._peak, tuple(bands), self._onset(bands_db))

    def _top(self, loudest_db: float) -> float:
        """The level that counts as 1."""
        return loudest_db if self._fixed_db is None else -self._fixed_db

    def _onset(self, bands_db: Array) -> float:
        """How much louder bands became, compared with the last seconds."""
        now = np.maximum(bands_db, FLOOR_DB)
        before, self._before = self._before, now
        self._since_onset_s += self.hop_s
        if before is None:
            return 0.0
        flux = float(np.maximum(now - before, 0.0).mean())
        usual = float(np.mean(self._flux)) if self._flux else 0.0
        spread = float(np.std(self._flux)) if self._flux else 0.0
        self._flux.append(flux)
        is_loud = now.max() > self._top(self._loudest_bands_db) - SPAN_DB
        if flux < usual + 2 * spread + 3.0 or self._since_onset_s < ONSET_GAP_S or not is_loud:
            return 0.0
        self._since_onset_s = 0.0
        return min(flux / 20.0, 1.0)


def _share(decibels: Any, top_db: float) -> Any:
    """Decibels as a share, 0 to 1: 1 at the top, 0 `SPAN_DB` below it."""
    shown = np.clip((decibels - top_db) / SPAN_DB + 1.0, 0.0, 1.0)
    return np.where(np.asarray(decibels) > FLOOR_DB, shown, 0.0)


def _shares(hz: Array, edges: Array) -> Array:
    """How much of each line of a spectrum belongs to each band: (bands, lines)."""
    half = (hz[1] - hz[0]) / 2
    low, high = hz - half, hz + half
    inside = np.minimum(high[None, :], edges[1:, None]) - np.maximum(low[None, :], edges[:-1, None])
    return np.asarray(np.maximum(inside, 0.0) / (2 * half))
