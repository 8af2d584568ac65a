"""Dither: light between two bytes alternates between them, from frame to frame.

At low light a byte is a large step: 2.4, 1.3 and 0.6 of 255 become 2, 1 and 1, and a warm white
turns pink. Shown as 2, 3, 2, 3 the mean is nearer to what is meant.

It must not flicker. Each pattern begins anew after so few frames that it is quicker than
`SLOWEST_HZ`; green goes up where red and blue go down, and every LED where its neighbours go the
other way, so that the light of an LED, and of two side by side, changes little. Blue, of which the
eye takes little of its brightness and follows no quick change, takes twice as many frames: it is
the least of a warm white, and the first to be lost. LEDs whose brightest channel is below one byte
are rounded: they would blink.
"""

from __future__ import annotations

import numpy as np

from fendra.core.arrays import Array

SLOWEST_HZ = 25.0
"""No pattern of red and green is slower: at so little light the eye follows no flicker as quick."""
BLUE_TAKES = 2
"""Patterns of blue are longer by this factor."""
MOST_FRAMES = 8


def dither_frames(rate_hz: float) -> int:
    """After how many frames a pattern of red and green repeats, at a rate: 2, 4 or 8; 1 means no
    dither.

    >>> [dither_frames(rate) for rate in (30, 50, 60, 100, 250)]
    [1, 2, 2, 4, 8]
    """
    frames = 1
    while frames < MOST_FRAMES and rate_hz / (2 * frames) >= SLOWEST_HZ - 1e-6:
        frames *= 2
    return frames


def offsets(frames: int) -> list[float]:
    """The offsets that are added to light in bytes before rounding, in each frame of a pattern.

    Frames that follow each other are far apart: places with their bits turned round.

    >>> offsets(2), offsets(4)
    ([-0.25, 0.25], [-0.375, 0.125, -0.125, 0.375])
    """
    bits = frames.bit_length() - 1
    places = [int(f"{place:0{bits}b}"[::-1], 2) for place in range(frames)]
    return [(place + 0.5) / frames - 0.5 for place in places]


def offset_arrays(frames: int, spots: int) -> Array:
    """The offsets of every channel and spot, frame by frame until all patterns repeat: (BLUE_TAKES
    * frames, 3, spots) float32. frames: of a pattern of red and green.
    """
    turns, channels, rows = np.ogrid[: BLUE_TAKES * frames, :3, :spots]
    places = turns + channels + rows
    table, blue = (np.array(offsets(n), np.float32) for n in (frames, BLUE_TAKES * frames))
    found = table[places % frames]
    found[:, 2] = blue[places[:, 2] % len(blue)]
    return np.asarray(found)
