"""Dither: light between two bytes alternates between them, from frame to frame.

At low light a byte is a large step: 2.4, 1.3 and 0.6 of 255 become 2, 1 and 1, and a warm white
turns pink. Shown as 2, 3, 2, 3 the mean is nearer to what is meant.

It must not flicker. Each pattern begins anew after so few frames that it is quicker than
`SLOWEST_HZ`; green goes up where red and blue go down, and every LED where its neighbours go the
other way, so that the light of an LED, and of two side by side, changes little. LEDs whose
brightest channel is below one byte are rounded: they would blink.
"""

from __future__ import annotations

import numpy as np

from fendra.core.arrays import Array

SLOWEST_HZ = 25.0
"""No pattern is slower: at so little light the eye follows no flicker as quick as that."""
MOST_FRAMES = 8


def dither_frames(rate_hz: float) -> int:
    """After how many frames a pattern begins anew, at a rate: 2, 4 or 8; 1 is no dither at all.

    >>> [dither_frames(rate) for rate in (30, 50, 60, 100, 250)]
    [1, 2, 2, 4, 8]
    """
    frames = 1
    while frames < MOST_FRAMES and rate_hz / (2 * frames) >= SLOWEST_HZ - 1e-6:
        frames *= 2
    return frames


def offsets(frames: int) -> list[float]:
    """What is added to light in bytes before it is rounded, in each frame of a pattern.

    Frames that follow each other are far apart: places with their bits turned round.

    >>> offsets(2), offsets(4)
    ([-0.25, 0.25], [-0.375, 0.125, -0.125, 0.375])
    """
    bits = frames.bit_length() - 1
    places = [int(f"{place:0{bits}b}"[::-1], 2) for place in range(frames)]
    return [(place + 0.5) / frames - 0.5 for place in places]


def offset_arrays(frames: int, spots: int) -> Array:
    """Those of every channel and spot in each frame of a pattern: (frames, 3, spots) float32."""
    turns, channels, rows = np.ogrid[:frames, :3, :spots]
    table = np.array(offsets(frames), np.float32)
    return np.asarray(table[(turns + channels + rows) % frames])
