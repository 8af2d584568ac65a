"""LED types: what the chips on a line are."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class LedType:
    """One LED type; figures from its data sheet, typical.

    order: the colour channels in the order on the wire.
    bit_s: time of one bit, in seconds; reset_s: silence that ends a frame.
    """

    name: str
    about: str
    order: str
    bits: int
    bit_s: float
    reset_s: float


LED_TYPES: dict[str, LedType] = {
    led.name: led
    for led in (
        LedType("ws2812b", "5 V, one wire", "GRB", 24, 1.25e-6, 280e-6),
        LedType(
            "ws2811", "12 V strip, one wire, one address for three LEDs", "RGB", 24, 1.25e-6, 280e-6
        ),
        LedType("ws2815", "12 V, one wire with backup data", "GRB", 24, 1.25e-6, 280e-6),
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
