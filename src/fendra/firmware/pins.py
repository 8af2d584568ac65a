"""Which line and which signal is at which pin of the chip that firmware is made for."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

from fendra.core.engines.c99.text import float_literal
from fendra.core.engines.c99.wire import LinePlace
from fendra.core.errors import FirmwareError
from fendra.core.names import listed
from fendra.core.signals.door import door_of, on_and_off
from fendra.core.signals.inputs import inputs_of
from fendra.core.signals.kinds import kind_of
from fendra.firmware.chips import Chip, Serial, Timer, port_and_bit
from fendra.firmware.doors import door_in_c

if TYPE_CHECKING:
    from fendra.core.composition.plan import Plan
    from fendra.core.document.signal import Pin, Signal
    from fendra.core.engines.c99 import Emitted


@dataclass(frozen=True)
class LinePin:
    """A line at its pin.

    field, macro: its names in C. kind: of its data. width: bytes of an address; size: of a frame.
    timer, output, dma, unit: what sends there, where there is such a thing.
    """

    line: str
    field: str
    macro: str
    led: str
    kind: str
    pin: str
    port: str
    bit: int
    width: int
    size: int
    clock: str = ""
    clock_port: str = ""
    clock_bit: int = 0
    timer: int = 0
    output: int = 0
    dma: int = 0
    unit: int = 0


@dataclass(frozen=True)
class InputPin:
    """A signal at its pin. is_moment: it is news when it comes on, and not while it stays. needs:
    switch or analogue. is_on: what is true in C while it is on. take: the number that the signal
    takes, in C, of the number `raw` of an analogue pin.
    """

    signal: str
    field: str
    is_moment: bool
    needs: str
    pull: str
    pin: str
    about: str
    port: str = ""
    bit: int = 0
    channel: int = 0
    is_on: str = ""
    take: str = "raw"


@dataclass(frozen=True)
class Wiring:
    """All of it, and in words what is other than the design says."""

    lines: tuple[LinePin, ...]
    inputs: tuple[InputPin, ...]
    serial: Serial | None
    notes: tuple[str, ...]


def wire(
    plan: Plan, chip: Chip, controller: str | None, emitted: Emitted, *, is_receiver: bool
) -> Wiring:  # fmt: skip
    """Give every line and every input its pin.

    Where the design is for this very chip, its pins hold; where it is for another one, pins that
    the chip does not have become others, and a note says which. Raises FirmwareError where a pin
    cannot do what is asked of it.
    """
    fields = dict(zip(plan.fed, emitted.fields, strict=True))
    wiring = _Wiring(plan, chip, controller, fields, is_receiver=is_receiver)
    return wiring.wire(emitted.lines)


def inputs_in_words(plan: Plan, controller: str | None, emitted: Emitted) -> dict[str, str]:
    """What a board that is to be filled in reads at a pin, by the field of the signal."""
    design, fields = plan.design, dict(zip(plan.fed, emitted.fields, strict=True))
    found = {}
    for name, pin in inputs_of(design, controller).items() if controller else ():
        if name not in fields:
            continue
        field = fields[name]
        if pin.kind == "analogue":
            told = f"{_taken(design.signals[name], pin, field)}, raw 0 to 1 of full scale"
        else:
            told = f"{'0' if pin.invert else '1'} when it is connected to {_level(pin)}"
        found[field] = f"pin {pin.name}: {told}"
    return found


def _taken(signal: Signal, pin: Pin, field: str) -> str:
    """What a signal takes of the number `raw` of an analogue pin, in C."""
    door = door_of(signal, pin)
    return "raw" if door is None else door_in_c(door, "raw", f"signals->{field}.value")


def _level(pin: Pin) -> str:
    """What a pin is connected to while its switch is closed."""
    return "ground" if pin.pull == "up" else "the logic's voltage"


class _Wiring:
    def __init__(
        self, plan: Plan, chip: Chip, controller: str | None, fields: dict[str, str],
        *, is_receiver: bool,
    ) -> None:  # fmt: skip
        self._origin, self._chip, self._fields = plan.origin, chip, fields
        self._design = design = plan.design
        given = design.controllers[controller] if controller else None
        self._is_own = given is not None and given.type == chip.name
        self._inputs = inputs_of(design, controller) if controller else {}
        uses = given.uses.values() if given and self._is_own else ()
        used = [pin for pins in uses for pin in ([pins] if isinstance(pins, str) else pins)]
        self._taken = {chip.type.own_name(pin) for pin in used}
        self._is_receiver = is_receiver
        self.notes: list[str] = []

    def wire(self, lines: tuple[LinePlace, ...]) -> Wiring:
        links = self._chip.serial if self._is_receiver else ()
        if self._is_receiver and not links:
            raise FirmwareError(
                f"{self._chip.about} has no serial link, so it cannot be a receiver. "
                "Leave out --receiver, or take a larger controller."
            )
        if len(links) == 1:  # lines have to keep away from the only one
            self._taken |= {links[0].tx, links[0].rx}
        wanted = [self._design.line[line.number].pin for line in lines]
        wanted += [pin.name for pin in self._inputs.values()]
        self._wanted = {self._chip.type.own_name(pin) for pin in wanted if pin}
        pinned = tuple(self._line(line) for line in lines)
        most = self._chip.words.get("most_one_wire")
        one_wire = [line.line for line in pinned if line.kind != "clocked"]
        if most is not None and len(one_wire) > most:
            raise FirmwareError(
                f"{self._chip.about} sends {most} one-wire lines, and here are {len(one_wire)}. "
                "Put two of them behind each other on one pin."
            )
        inputs = tuple(self._input(name, pin) for name, pin in self._inputs.items())
        free = [each for each in links if not {each.tx, each.rx} & self._taken]
        serial = links[0] if len(links) == 1 else next(iter(free), None)
        if links and serial is None:
            pins = [f"{each.tx} and {each.rx}" for each in links]
            raise FirmwareError(
                "no serial link is free: one needs "
                f"{listed(pins)}. Move what is there to other pins."
            )
        return Wiring(pinned, inputs, serial, tuple(self.notes))

    def _line(self, bytes_of: LinePlace) -> LinePin:
        line = self._design.line[bytes_of.number]
        what = f"line '{line.name}'"
        is_clocked = line.led_type.data == "clocked"
        links = self._chip.clocked
        able = self._chip.inputs if is_clocked else self._chip.outputs
        clocks = self._chip.inputs
        if is_clocked and links is not None:
            able = tuple(data for data, (clock, _) in links.items() if clock not in self._taken)
        pin = self._choose(what, line.pin, able)
        port, bit = port_and_bit(pin)
        timer = self._chip.timers.get(pin, Timer(0, 0, 0))
        clock, clock_port, clock_bit, unit = "", "", 0, 0
        if is_clocked:
            if links is not None:
                clocks, unit = (links[pin][0],), links[pin][1]
            clock = self._choose(f"the clock of {what}", line.clock, clocks)
            clock_port, clock_bit = port_and_bit(clock)
        return LinePin(
            line.name, bytes_of.field, bytes_of.macro, line.led, line.led_type.data or "one-wire",
            self._chip.label(pin), port, bit, len(line.wire_order), bytes_of.size,
            self._chip.label(clock), clock_port, clock_bit, timer.number, timer.output, timer.dma, unit,
        )  # fmt: skip

    def _input(self, name: str, pin: Pin) -> InputPin:
        chip, signal, needs = self._chip, self._design.signals[name], pin.kind or "switch"
        is_moment = kind_of(signal).is_moment
        able = tuple(chip.channels) if needs == "analogue" else chip.inputs
        at = self._choose(f"signal '{name}'", pin.name, able)
        line = self._origin.lines.get(("signals", name))
        where = f" ({self._origin.file}:{line})" if line else ""
        if needs == "analogue":
            about = f"0 to 1 of full scale{where}"
            port, bit = port_and_bit(at) if at in chip.inputs else ("", 0)
            field = self._fields[name]
            return InputPin(
                name, field, is_moment, needs, pin.pull, chip.label(at), about, port, bit,
                chip.channels[at], take=_taken(signal, pin, field),
            )  # fmt: skip
        port, bit = port_and_bit(at)
        is_low = (pin.pull == "up") != pin.invert
        about = f"{'off' if pin.invert else 'on'} when it is connected to {_level(pin)}{where}"
        read = chip.words["reads"].format(port=port)
        is_on = f"({read} & (1u << {bit})) {'==' if is_low else '!='} 0u"
        on, off = on_and_off(signal)
        return InputPin(
            name, self._fields[name], is_moment, needs, pin.pull, chip.label(at), about, port, bit,
            is_on=is_on, take=f"{is_on} ? {float_literal(on)} : {float_literal(off)}",
        )  # fmt: skip

    def _choose(self, what: str, pin: str, able: tuple[str, ...]) -> str:
        """The pin by the name that counts, or another where the design is for another chip."""
        own = self._chip.type.own_name(pin)
        if pin and own in able and own not in self._taken:
            self._taken.add(own)
            return own
        if pin and self._is_own:
            free = [each for each in able if each not in self._taken | self._wanted]
            taken = " is taken" if own in self._taken else f" of {self._chip.about} cannot do it"
            raise FirmwareError(
                f"{what}: pin {pin}{taken}. "
                + (f"Free are {listed(free[:8])}." if free else "None is free that can.")
            )
        chosen = next(self._free(able), None)
        if chosen is None:
            raise FirmwareError(f"{what}: {self._chip.about} has no pin left that can do it.")
        self._taken.add(chosen)
        why = f"{pin} is none here that can" if pin else "the design names none"
        self.notes.append(f"{what} is at {self._chip.label(chosen)}: {why}.")
        return chosen

    def _free(self, able: tuple[str, ...]) -> Iterator[str]:
        return (pin for pin in able if pin not in self._taken and pin not in self._wanted)
