"""A stand-in for LEDs on SPI: reads the bytes that a device would clock out, as the LEDs would.

Written from the data sheets' figures alone, so that it checks the sender instead of repeating it.
"""

from __future__ import annotations

from itertools import groupby

SHORT_S, LONG_S, TOLERANCE_S = 0.4e-6, 0.8e-6, 0.15e-6
"""How long the line is high for a 0 and for a 1, and the tolerance (ws2812b, typical)."""
MOST_LOW_S = 5e-6
"""A longer low than this, between pulses, may end the frame."""


class PulseError(ValueError):
    """A pulse that no LED of this type understands."""


def read_one_wire(data: bytes, speed_hz: float, *, reset_s: float) -> list[bytes]:
    """The frames that one-wire LEDs read; each ends with a silence of `reset_s` or more.

    Raises PulseError for a pulse whose width is out of tolerance, and for bits that are not whole
    bytes.
    """
    bits = "".join(f"{byte:08b}" for byte in data)
    frames: list[bytes] = []
    heard = ""
    for level, run in groupby(bits):
        seconds = len([*run]) / speed_hz
        if level == "1":
            heard += _bit(seconds)
        elif seconds >= reset_s:
            if heard:
                frames.append(_bytes(heard))
            heard = ""
        elif heard and seconds > MOST_LOW_S:
            raise PulseError(f"the line is low for {seconds * 1e6:.2f} us within a frame")
    if heard:
        raise PulseError(f"{len(heard)} bits come without a silence behind them")
    return frames


def _bit(seconds: float) -> str:
    for bit, width in (("0", SHORT_S), ("1", LONG_S)):
        if abs(seconds - width) <= TOLERANCE_S:
            return bit
    raise PulseError(f"the line is high for {seconds * 1e9:.0f} ns")


def _bytes(bits: str) -> bytes:
    if len(bits) % 8:
        raise PulseError(f"{len(bits)} bits are no whole bytes")
    return int(bits, 2).to_bytes(len(bits) // 8, "big")


def read_clocked(data: bytes, leds: int) -> list[bytes]:
    """The light of each LED of a clocked chain, as its three bytes.

    Each LED passes the clock on half a bit late, so that the chain needs half a clock more for
    each. Raises PulseError if the start, an LED's own bits or the end is not as it must be.
    """
    if data[:4] != bytes(4):
        raise PulseError("the frame does not begin with 32 zero bits")
    shown = [data[4 + 4 * i : 8 + 4 * i] for i in range(leds)]
    for number, led in enumerate(shown):
        if len(led) < 4 or led[0] >> 5 != 0b111:
            raise PulseError(f"LED {number} hears no start of its own")
    rest = len(data) - 4 - 4 * leds
    if rest * 8 < leds / 2:
        raise PulseError(f"{rest} bytes at the end are too few clocks for {leds} LEDs")
    return [led[1:] for led in shown]
