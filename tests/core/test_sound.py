"""Sound: tones in their bands, as loud as they are, and beats when they begin."""

from __future__ import annotations

import numpy as np
import pytest

from fendra.core.senses.sound import Listener, band_edges, weight_db

RATE_HZ = 44_100


def tone(hz, seconds=1.0, level=0.5):
    return level * np.sin(2 * np.pi * hz * np.arange(int(seconds * RATE_HZ)) / RATE_HZ)


@pytest.mark.parametrize(
    ("hz", "a", "c"), [(31.62, -39.4, -3.0), (100, -19.1, -0.3), (1000, 0, 0), (7943, -1.1, -3.0)]
)
def test_weights_are_those_of_the_standard(hz, a, c):
    """IEC 61672-1, table 3, whose frequencies are whole tenths of powers of ten."""
    assert weight_db(np.array([float(hz)]), "A")[0] == pytest.approx(a, abs=0.1)
    assert weight_db(np.array([float(hz)]), "C")[0] == pytest.approx(c, abs=0.1)
    assert weight_db(np.array([float(hz)]), "none")[0] == 0


def test_bands_are_even_to_the_ear():
    """From 50 to 12,800 Hz are eight octaves."""
    assert band_edges(8, 50, 12_800) == pytest.approx([50 * 2**i for i in range(9)])


@pytest.mark.parametrize("hz", [120, 500, 2000, 7000])
def test_a_tone_is_in_its_band(hz):
    listener = Listener(RATE_HZ, bands=8, low_hz=50, high_hz=12_800, weighting="none")
    last = listener.feed(tone(hz))[-1]
    assert int(np.argmax(last.bands)) == int(np.log2(hz / 50))
    assert last.level > 0.9


def test_with_a_fixed_gain_ten_times_less_is_20_db_less():
    """36 dB are the span: 20 dB less is 0.56 less of it."""
    levels = []
    for level in (0.7, 0.07):
        listener = Listener(RATE_HZ, weighting="none", gain_db=3.0, attack_s=0)
        levels.append(listener.feed(tone(1000, 0.5, level))[-1].level)
    assert levels[0] - levels[1] == pytest.approx(20 / 36, abs=0.01)


def test_the_automatic_gain_brings_what_is_quiet_up_and_keeps_silence_silent():
    listener = Listener(RATE_HZ)
    quiet = listener.feed(tone(1000, 12, 0.02))
    assert quiet[0].level < 0.5
    assert quiet[-1].level > 0.9
    silent = Listener(RATE_HZ).feed(np.random.default_rng(1).normal(size=RATE_HZ * 20) * 1e-6)
    assert silent[-1].level == 0


def test_it_rises_quickly_and_falls_slowly():
    listener = Listener(RATE_HZ, attack_s=0.01, release_s=0.5)
    listener.feed(tone(1000))
    falling = [look.level for look in listener.feed(np.zeros(RATE_HZ))]
    at = round(0.5 / listener.hop_s)
    assert falling[at] == pytest.approx(np.exp(-1), abs=0.06)


def test_beats_are_found_when_they_begin():
    """Ten clicks, half a second apart, in a little noise: ten onsets within 50 ms of them."""
    sound = np.random.default_rng(1).normal(size=RATE_HZ * 6) * 0.002
    at_s = np.arange(10) * 0.5 + 0.5
    for start in (at_s * RATE_HZ).astype(int):
        sound[start : start + 3000] += tone(300, 3000 / RATE_HZ) * np.exp(-np.arange(3000) / 600)
    listener = Listener(RATE_HZ)
    looks = listener.feed(sound)
    times = (np.arange(len(looks)) * listener.hop + listener.window) / RATE_HZ
    found = times[[look.onset > 0 for look in looks]]
    assert len(found) == 10
    assert np.abs(found - at_s).max() < 0.05


def test_pieces_of_any_size_give_the_same_and_what_is_no_number_is_silence():
    sound = tone(440, 0.3)
    whole = Listener(RATE_HZ).feed(sound)
    pieces = Listener(RATE_HZ)
    found = [look for piece in np.array_split(sound, 37) for look in pieces.feed(piece)]
    assert found == whole
    assert Listener(RATE_HZ).feed(np.full((3000, 2), np.nan))[-1].level == 0


def test_the_latency_is_half_a_window_and_a_hop():
    """1024 and 512 samples at 44.1 kHz: 11.6 + 11.6 ms."""
    assert Listener(RATE_HZ).latency_s == pytest.approx(1024 / RATE_HZ)


# ---- Edges of bands, falls, and two channels ------------------------------------------------------------


def test_a_line_of_the_spectrum_counts_in_each_band_by_what_of_it_lies_there():
    """Lines 43.07 Hz apart, each as wide. The tone on the second one, 86.13 Hz, is over 64.6 to
    107.7 Hz: in bands from 75 to 86.13 to 98.9 Hz lie 11.1 and 12.8 of it, 0.6 dB apart."""
    hz = 2 * RATE_HZ / 1024
    listener = Listener(RATE_HZ, bands=2, low_hz=75, high_hz=hz**2 / 75, weighting="none",
                        gain_db=10, attack_s=0)  # fmt: skip
    low, high = listener.feed(tone(hz, level=0.3))[-1].bands
    share = 10 * np.log10((hz**2 / 75 - hz) / (hz - 75)) / 36
    assert high - low == pytest.approx(share, abs=0.003)


def test_the_peak_falls_all_its_way_in_a_second_and_a_half():
    listener = Listener(RATE_HZ, gain_db=0.0, weighting="none")
    first = listener.feed(tone(1000, 0.5, 1.0))[-1].peak
    looks = listener.feed(np.zeros(RATE_HZ))
    after = round(0.6 / listener.hop_s)
    assert looks[after + 1].peak == pytest.approx(first - 0.6 / 1.5, abs=0.03)


def test_a_fixed_gain_lifts_and_the_automatic_one_comes_up_by_2_db_a_second():
    """A sine of full swing is -3 dB; with 20 dB of gain one 20 dB below 0 dB is all of it."""
    levels = [
        Listener(RATE_HZ, gain_db=gain, weighting="none", attack_s=0)
        .feed(tone(1000, 0.5, 0.1))[-1]
        .level
        for gain in (0, 10)
    ]
    assert levels[1] - levels[0] == pytest.approx(10 / 36, abs=0.01)
    assert levels[0] == pytest.approx(1 - 23 / 36, abs=0.02)
    listener = Listener(RATE_HZ, weighting="none", attack_s=0, release_s=0)
    listener.feed(tone(1000, 0.5, 1.0))
    looks = listener.feed(tone(1000, 4.0, 0.1))
    second = round(1 / listener.hop_s)
    assert looks[3 * second].level - looks[second].level == pytest.approx(4 / 36, abs=0.01)


def test_two_channels_are_one_sound_and_the_first_is_not_all():
    both = np.stack([tone(1000, 0.3), np.zeros(round(0.3 * RATE_HZ))], axis=1)
    half = Listener(RATE_HZ, gain_db=0).feed(both)[-1].level
    assert half == Listener(RATE_HZ, gain_db=0).feed(tone(1000, 0.3) / 2)[-1].level


def test_beats_closer_than_an_eighth_of_a_second_are_one():
    """Two clicks, 60 ms apart, are one onset; 200 ms apart two."""
    for gap_s, count in ((0.06, 1), (0.2, 2)):
        sound = np.random.default_rng(1).normal(size=RATE_HZ * 2) * 0.002
        for at_s in (1.0, 1.0 + gap_s):
            start = round(at_s * RATE_HZ)
            sound[start : start + 1500] += tone(300, 1500 / RATE_HZ) * np.exp(
                -np.arange(1500) / 300
            )
        looks = Listener(RATE_HZ).feed(sound)
        assert sum(look.onset > 0 for look in looks) == count, gap_s
