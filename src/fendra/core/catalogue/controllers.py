"""Controller types: how much memory they have, and which pins can carry data out."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from fendra.core.catalogue.data_files import read_catalogue


@dataclass(frozen=True)
class ControllerType:
    """One controller type; figures from its data sheet.

    ram: bytes that a program can use. bits: of its processor. logic_volts: what its pins give for a
    1. pins: those that can be an output, by every usual name, as names and ranges (`D2-D13`).
    flash: bytes for a program; mhz: of its processor's clock; core: what that is. analogue: pins
    that can read a voltage. same: other names of pins, as names and ranges: the name that counts.
    pulls: what can hold an input by itself. has_thermometer: it can tell its own temperature.
    code_in_ram: its program runs from RAM, and takes room there. start_code: bytes of flash that
    its start takes beyond that of the smallest of its kind.
    """

    name: str
    about: str
    ram: int
    bits: int
    logic_volts: float
    pins: tuple[str, ...]
    flash: int | None = None
    mhz: float | None = None
    core: str = ""
    analogue: tuple[str, ...] = ()
    same: Mapping[str, str] = field(default_factory=dict)
    pulls: tuple[str, ...] = ("up", "down")
    has_thermometer: bool = False
    code_in_ram: bool = False
    start_code: int = 0

    @cached_property
    def own_names(self) -> dict[str, str]:
        """The name that counts of every pin that has several."""
        return {
            other: own
            for others, owns in self.same.items()
            for other, own in zip(unfold_pins([others]), unfold_pins([owns]), strict=True)
        }

    def own_name(self, pin: str) -> str:
        """The name of a pin that counts.

        >>> CONTROLLERS["atmega328p"].own_name("D6")
        'PD6'
        """
        return self.own_names.get(pin, pin)

    @cached_property
    def analogue_pins(self) -> tuple[str, ...]:
        """Pins that can read a voltage, by the names that count."""
        return tuple(self.own_name(pin) for pin in unfold_pins(self.analogue))


def _held(value: Any) -> Any:
    """Lists of the catalogue as tuples."""
    return tuple(value) if isinstance(value, list) else value


CONTROLLERS: Mapping[str, ControllerType] = {
    name: ControllerType(name=name, **{key: _held(value) for key, value in keys.items()})
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
