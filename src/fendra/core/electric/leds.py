"""LED types: what the chips on a line are."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class LedType:
    """One LED type; figures from its data sheet, typical.

    order: the colour channels in the order on the wire.
    bit_s: time of one bit, in seconds; reset_s: silence that ends a frame.
    leds_a_chip: LEDs that one chip, so one address, drives together.
    channel_a, idle_a: what a chip draws for one channel at full, and with all of them dark, in
    amperes (data sheets, typical; the upper figure where they give two).
    """

    name: str
    about: str
    order: str
    bits: int
    bit_s: float
    reset_s: float
    leds_a_chip: int
    channel_a: float
    idle_a: float


LED_TYPES: dict[str, LedType] = {
    led.name: led
    for led in (
        LedType("ws2812b", "5 V, one wire", "GRB", 24, 1.25e-6, 280e-6, 1, 0.020, 0.001),
        LedType(
            "sk6812-rgbw",
            "5 V, one wire, fourth channel white",
            "GRBW",
            32,
            1.25e-6,
            80e-6,
            1,
            0.018,
            0.001,
        ),
        LedType(
            "ws2811",
            "12 V strip, one wire, one address for three LEDs",
            "RGB",
            24,
            1.25e-6,
            280e-6,
            3,
            0.0185,
            0.001,
        ),
        LedType(
            "ws2815",
            "12 V, one wire with backup data",
            "GRB",
            24,
            1.25e-6,
            280e-6,
            1,
            0.005,
            0.002,
        ),
    )
}


def line_time_s(pixels: int, led: LedType) -> float:
    """Time to send one frame down a line, in seconds.

    Every bit takes `led.bit_s`; the frame ends with `led.reset_s` of silence
    (data sheet, "data transfer time").

    >>> round(line_time_s(100, LED_TYPES["ws2812b"]) * 1000, 2)
    3.28
    """
    return pixels * led.bits * led.bit_s + led.reset_s
