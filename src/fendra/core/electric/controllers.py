"""Controller types: how much memory they have, and which pins can carry data out."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True)
class ControllerType:
    """One controller type; figures from its data sheet.

    ram: bytes that a program can use. pins: those that can be an output, by every usual name,
    as names and ranges of them (`D2-D13`).
    """

    name: str
    about: str
    ram: int
    pins: tuple[str, ...]


CONTROLLERS: dict[str, ControllerType] = {
    controller.name: controller
    for controller in (
        ControllerType(
            "atmega328p",
            "8 bit, 16 MHz, 2 KB RAM, 32 KB flash",
            2048,
            ("D0-D13", "A0-A5", "PB0-PB5", "PC0-PC5", "PD0-PD7"),
        ),
        ControllerType(
            "atmega2560",
            "8 bit, 16 MHz, 8 KB RAM, 256 KB flash",
            8192,
            ("D0-D53", "A0-A15", "PA0-PA7", "PB0-PB7", "PC0-PC7", "PD0-PD7", "PE0-PE7",
             "PF0-PF7", "PG0-PG5", "PH0-PH7", "PJ0-PJ7", "PK0-PK7", "PL0-PL7"),
        ),
        ControllerType(
            "rp2040", "32 bit, 264 KB RAM", 264 * 1024, ("GP0-GP29", "GPIO0-GPIO29")
        ),
        ControllerType(
            "esp8266",
            "32 bit, about 40 KB RAM free",
            40 * 1024,
            ("GPIO0-GPIO5", "GPIO12-GPIO16", "D0-D8"),
        ),
        ControllerType(
            "esp32",
            "32 bit, about 300 KB RAM free",
            300 * 1024,
            ("GPIO0-GPIO5", "GPIO12-GPIO33", "D0-D5", "D12-D33", "IO0-IO5", "IO12-IO33"),
        ),
        ControllerType(
            "stm32f103",
            "32 bit, 20 KB RAM, 64 or 128 KB flash",
            20 * 1024,
            ("PA0-PA15", "PB0-PB15", "PC13-PC15"),
        ),
        ControllerType(
            "stm32f4",
            "32 bit, 128 KB RAM and more",
            128 * 1024,
            ("PA0-PA15", "PB0-PB15", "PC0-PC15", "PD0-PD15", "PE0-PE15"),
        ),
    )
}  # fmt: skip

_RANGE = re.compile(r"([A-Za-z_]*)(\d+)-\1(\d+)")


def unfold_pins(pins: Iterable[str]) -> list[str]:
    """Pin names with every range written out.

    >>> unfold_pins(["D2-D4", "A0"])
    ['D2', 'D3', 'D4', 'A0']
    """
    found = []
    for pin in pins:
        span = _RANGE.fullmatch(pin)
        if span is None:
            found.append(pin)
        else:
            low, high = int(span[2]), int(span[3])
            found += [f"{span[1]}{number}" for number in range(low, min(high, low + 255) + 1)]
    return found
