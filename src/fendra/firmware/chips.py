"""The chips that there is a board layer for: which pin is which bit, and what it can do.

Pins as in the data sheets: ATmega328P (DS40002061), STM32F103x8 (DS5319) and its reference manual
(RM0008, tables 46 to 53 and 78).
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

from fendra.core.catalogue.controllers import CONTROLLERS, ControllerType


@dataclass(frozen=True)
class Timer:
    """A timer's output at a pin, and the DMA channel that its update asks."""

    number: int
    output: int
    dma: int


@dataclass(frozen=True)
class Usart:
    """A serial link: its pins, where it is turned on, its clock's divider, its interrupt."""

    name: str
    tx: str
    rx: str
    enable: str
    enable_bit: str
    divider: int
    interrupt: int

    @property
    def tx_at(self) -> tuple[str, int]:
        """The port and the place in it of TX."""
        return port_and_bit(self.tx)

    @property
    def rx_at(self) -> tuple[str, int]:
        """The port and the place in it of RX."""
        return port_and_bit(self.rx)


@dataclass(frozen=True)
class Chip:
    """One chip with a board layer.

    target: the folder of its templates. about: in words. outputs: pins for one-wire data, in the
    order in which they are given out. inputs: pins for switches, likewise. channels: of pins that
    read a voltage. timers, usarts: what the hardware has for them.
    """

    name: str
    target: str
    about: str
    outputs: tuple[str, ...]
    inputs: tuple[str, ...]
    channels: Mapping[str, int]
    timers: Mapping[str, Timer] = field(default_factory=dict)
    usarts: tuple[Usart, ...] = ()

    @property
    def type(self) -> ControllerType:
        """Its figures."""
        return CONTROLLERS[self.name]

    def label(self, pin: str) -> str:
        """A pin as boards call it, with the chip's own name behind."""
        others = [other for other, own in self.type.own_names.items() if own == pin]
        return f"{others[0]} ({pin})" if others else pin


def port_and_bit(pin: str) -> tuple[str, int]:
    """The port and the place in it of a pin.

    >>> port_and_bit("PD6"), port_and_bit("PA15")
    (('D', 6), ('A', 15))
    """
    found = re.fullmatch(r"P([A-Z])(\d+)", pin)
    if found is None:
        raise ValueError(f"'{pin}' is no pin of a port")
    return found[1], int(found[2])


def _pins(port: str, *numbers: int) -> tuple[str, ...]:
    return tuple(f"P{port}{number}" for number in numbers)


_AVR_PINS = (*_pins("D", 6, 7, 5, 4, 3, 2), *_pins("B", 0, 1, 2, 3, 4, 5), *_pins("C", *range(6)))

_TIMERS = {
    **{pin: Timer(1, i + 1, 5) for i, pin in enumerate(_pins("A", 8, 9, 10, 11))},
    **{pin: Timer(2, i + 1, 2) for i, pin in enumerate(_pins("A", 0, 1, 2, 3))},
    **{pin: Timer(3, i + 1, 3) for i, pin in enumerate((*_pins("A", 6, 7), *_pins("B", 0, 1)))},
    **{pin: Timer(4, i + 1, 7) for i, pin in enumerate(_pins("B", 6, 7, 8, 9))},
}

CHIPS: Mapping[str, Chip] = {
    chip.name: chip
    for chip in (
        Chip(
            "atmega328p",
            "avr",
            "an ATmega328P at 16 MHz",
            outputs=_AVR_PINS,
            inputs=(*_pins("D", 2, 3, 4, 5, 6, 7), *_pins("B", *range(6)), *_pins("C", *range(6)),
                    *_pins("D", 0, 1)),
            channels={**{f"PC{i}": i for i in range(6)}, "A6": 6, "A7": 7},
        ),
        Chip(
            "stm32f103",
            "arm",
            "an STM32F103 (Cortex-M3 at 72 MHz)",
            outputs=(*_pins("A", 8), *_pins("B", 6, 7, 8, 9), *_pins("A", 6, 7), *_pins("B", 0, 1),
                     *_pins("A", 0, 1, 2, 3, 9, 10, 11)),
            inputs=(*_pins("B", 12, 13, 14, 15, 3, 4, 5, 10, 11), *_pins("A", *range(13), 15),
                    *_pins("B", 0, 1, 6, 7, 8, 9), *_pins("C", 13, 14, 15)),
            channels={**{f"PA{i}": i for i in range(8)}, "PB0": 8, "PB1": 9},
            timers=_TIMERS,
            usarts=(
                Usart("USART1", "PA9", "PA10", "RCC_APB2ENR", "1u << 14", 1, 37),
                Usart("USART2", "PA2", "PA3", "RCC_APB1ENR", "1u << 17", 2, 38),
                Usart("USART3", "PB10", "PB11", "RCC_APB1ENR", "1u << 18", 2, 39),
            ),
        ),
    )
}  # fmt: skip
"""By controller type."""

TARGETS = {"generic": "", **{chip.target: chip.name for chip in reversed([*CHIPS.values()])}}
"""What can be emitted for, and the chip that is meant where the design's controller is none."""
