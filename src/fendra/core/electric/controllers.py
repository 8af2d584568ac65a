"""Controller types: how much memory they have, and which pins can carry data out."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from fendra.core.electric.catalogue import read_catalogue


@dataclass(frozen=True)
class ControllerType:
    """One controller type; figures from its data sheet.

    ram: bytes that a program can use. bits: of its processor. logic_volts: what its pins give for a
    1. pins: those that can be an output, by every usual name, as names and ranges (`D2-D13`).
    """

    name: str
    about: str
    ram: int
    bits: int
    logic_volts: float
    pins: tuple[str, ...]


CONTROLLERS: Mapping[str, ControllerType] = {
    name: ControllerType(name, **{**keys, "pins": tuple(keys["pins"])})
    for name, keys in read_catalogue("controllers").items()
}

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
