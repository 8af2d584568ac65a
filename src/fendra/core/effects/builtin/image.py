"""A picture."""

from __future__ import annotations

import numpy as np

from fendra.core.effects.kit import (
    GraphError,
    Led,
    Look,
    Picture,
    Value,
    effect,
    number,
    sampled,
    select,
    table,
    truth,
)
from fendra.core.effects.kit import (
    picture as picture_file,
)

STEP_S = 0.01
MOST_NUMBERS = 4_000_000


@effect(family="pictures")
def picture(
    led: Led,
    file: Picture | None = picture_file("the picture's file, still or animated"),
    stretch: Value = truth(False, "fills the layer both ways; else it keeps its shape"),
    speed: Value = number(1.0, "", 0.0, 20.0, "of an animation: 1 is its own"),
) -> Look:
    """A PNG or GIF on a grid, or on LEDs anywhere: each LED shows the mean of the pixels round it.

    The picture covers the layer, as you look at it. Where it is transparent, and beside it, the
    layers below show.
    """
    if file is None or led.count == 0:
        return Look((0.0, 0.0, 0.0), 0.0)
    ways = [bool(stretch.number)] if stretch.number is not None else [True, False]
    looks = [_shown(led, file, speed, is_stretched=way) for way in ways]
    if len(looks) == 1:
        return Look(*looks[0])
    (wide, wide_cover), (whole, whole_cover) = looks
    return Look(select(stretch, wide, whole), select(stretch, wide_cover, whole_cover))


def _shown(led: Led, file: Picture, speed: Value, *, is_stretched: bool) -> tuple[Value, Value]:
    """Colour and cover of the picture laid over the LEDs one way or the other."""
    pixels = sampled(file, *_placed(led, file, is_stretched=is_stretched))
    if len(pixels) == 1:
        red, green, blue, cover = (
            led.fixed(name, pixels[0, :, i])
            for i, name in enumerate(("red", "green", "blue", "cover"))
        )
    else:
        place = _place_of(led, file, speed)
        red, green, blue, cover = (_moving(pixels[..., i], place) for i in range(4))
    units = [led.const([1.0 if i == c else 0.0 for i in range(3)]) for c in range(3)]
    return red * units[0] + green * units[1] + blue * units[2], cover


def _placed(
    led: Led, file: Picture, *, is_stretched: bool
) -> tuple[np.ndarray, np.ndarray, tuple[float, float]]:
    """Where on the picture each LED is, and the size of what it shows."""
    flat, pitch = led.flat, led.pitch
    low, high = flat.min(axis=0) - pitch / 2, flat.max(axis=0) + pitch / 2
    size = high - low
    if not is_stretched:
        _, height, width, _ = file.pixels.shape
        scale = max(size[0] / width, size[1] / height) if min(size) <= pitch * 1.01 else min(
            size[0] / width, size[1] / height
        )  # fmt: skip
        middle, size = (low + high) / 2, np.array([width, height]) * scale
        low = middle - size / 2
    place = (flat - low) / size
    return place[:, 0], place[:, 1], (pitch / size[0], pitch / size[1])


def _place_of(led: Led, file: Picture, speed: Value) -> Value:
    """The place of each LED's number in a table of one picture after the other."""
    ends = np.cumsum(file.seconds)
    steps = max(round(ends[-1] / STEP_S), 1)
    shown = np.searchsorted(ends, (np.arange(steps) + 0.5) * STEP_S, side="right")
    shown = np.minimum(shown, len(ends) - 1)
    phase = led.cycle_from_start(speed * float(1.0 / max(ends[-1], STEP_S)))
    step = led.apply("to_uint", phase * float(steps))
    number = led.apply("to_uint", table(shown.tolist(), step))
    first = led.apply("uint_mul", number, led.count)
    return led.apply("uint_add", first, led.number)


def _moving(values: np.ndarray, place: Value) -> Value:
    """A number for each LED and picture, looked up; kept in steps of a 65,535th."""
    if values.size > MOST_NUMBERS:
        raise GraphError(f"{len(values)} pictures for {values.shape[1]} LEDs are too many")
    return table(np.rint(values.ravel() * 65535).tolist(), place) * (1.0 / 65535.0)
