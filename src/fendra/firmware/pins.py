"""Which line and which signal is at which pin of the chip that firmware is made for."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

from fendra.core.engines.c99.names import identifier
from fendra.core.engines.c99.text import float_literal
from fendra.core.engines.c99.wire import LinePlace
from fendra.core.errors import FirmwareError
from fendra.core.names import listed
from fendra.core.signals.door import door_of, on_and_off
from fendra.core.signals.inputs import inputs_of
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.pins import PIN_KINDS, pin_names
from fendra.firmware.chips import Chip, Serial, Timer, port_and_bit
from fendra.firmware.doors import door_in_c

if TYPE_CHECKING:
    from fendra.core.composition.plan import Plan
    from fendra.core.document.line import Autopilot, Controller, Peers
    from fendra.core.document.signal import Pin, Signal
    from fendra.core.engines.c99 import Emitted


@dataclass(frozen=True)
class LinePin:
    """A line at its pin.

    field, macro: its names in C. kind: of its data. width: bytes of an address; size: of a frame.
    timer, unit: the part of the chip that sends there, if any.
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
    timer: Timer | None = None
    unit: int = 0


@dataclass(frozen=True)
class At:
    """A pin of the chip, and in C: its bit, and the code that pulls it low and releases it."""

    pin: str
    port: str
    bit: int
    read: str
    low: str
    free: str

    @property
    def high(self) -> str:
        """The condition in C that holds while it is high."""
        return f"({self.read} != 0u)"


@dataclass(frozen=True)
class InputPin:
    """A signal at its pin, or its pins.

    is_moment: it is new when it comes on, not while it stays. needs: the kind of pin. digital: the
    pins that are on or off, in the order of the design. pin: their names. is_on: C that is true
    while a switch is on. take: the number that the signal takes, in C, from the raw number `raw`.
    words: what else the kind needs, for the templates.
    """

    signal: str
    field: str
    is_moment: bool
    needs: str
    pull: str
    pin: str
    about: str
    digital: tuple[At, ...] = ()
    port: str = ""
    bit: int = 0
    channel: int = 0
    is_on: str = ""
    take: str = "raw"
    words: Mapping[str, Any] = dataclasses.field(default_factory=dict)

    @property
    def has_edges(self) -> bool:
        """Whether interrupts watch its pins."""
        return self.needs in EDGES


EDGES = ("pulses", "servo", "knob")
"""Kinds of pins that tell by their edges."""


@dataclass(frozen=True)
class Wiring:
    """The whole wiring, and notes about differences from the design."""

    lines: tuple[LinePin, ...]
    inputs: tuple[InputPin, ...]
    serial: Serial | None
    notes: tuple[str, ...]


def wire(
    plan: Plan, chip: Chip, controller: str | None, emitted: Emitted, *, is_receiver: bool,
    has_peers: bool = False,
) -> Wiring:  # fmt: skip
    """Give every line and every input its pin.

    If the design is for this very chip, its pins count. If it is for another one, pins that the
    chip does not have become others, and a note says which. Raises FirmwareError if a pin cannot do
    what the design asks.
    """
    fields = dict(zip(plan.fed, emitted.fields, strict=True))
    wiring = _Wiring(plan, chip, controller, fields, is_receiver=is_receiver, has_peers=has_peers)
    return wiring.wire(emitted.lines)


def inputs_in_words(plan: Plan, controller: str | None, emitted: Emitted) -> dict[str, str]:
    """The pins that a board to fill in must read, in words, by the field of the signal."""
    design, fields = plan.design, dict(zip(plan.fed, emitted.fields, strict=True))
    found = {}
    for name, pin in inputs_of(design, controller).items() if controller else ():
        if name not in fields:
            continue
        field = fields[name]
        if pin.kind == "switch":
            told = f"{'0' if pin.invert else '1'} when it is connected to {_level(pin)}"
        elif pin.kind in ("knob", "matrix"):
            told = _tells(pin)
        else:
            told = f"{_taken(design.signals[name], pin, field)}, raw {_tells(pin)}"
        found[field] = f"pin {', '.join(each for each, _ in pin_names(pin)) or 'inside'}: {told}"
    return found


def _taken(signal: Signal, pin: Pin, field: str) -> str:
    """The value of a signal from the number `raw` of an analogue pin, in C."""
    door = door_of(signal, pin)
    return "raw" if door is None else door_in_c(door, "raw", f"signals->{field}.value")


def _tells(pin: Pin) -> str:
    """The raw numbers of an input, in words."""
    return PIN_KINDS[pin.kind or "switch"].tells


def _knob(signal: Signal, pin: Pin) -> dict[str, Any]:
    """The step of a knob with each click, and the ends of its range."""
    if kind_of(signal).has_words:
        numbers = [*signal.numbers.values()]
        place = numbers.index(round(kind_of(signal).fallback(signal)))
        return {"numbers": numbers, "start": place, "edges": pin.edges}
    low, high = signal.calibrate or signal.scale or (0.0, 1.0)
    start = kind_of(signal).fallback(signal)
    step = pin.step or abs(high - low) / 20
    ends = {"low": min(low, high), "high": max(low, high), "start": start, "step": step}
    return {"numbers": None, "edges": pin.edges, **{k: float_literal(v) for k, v in ends.items()}}


def _level(pin: Pin) -> str:
    """The level that a closed switch connects a pin to."""
    return "ground" if pin.pull == "up" else "the logic's voltage"


def hears_network(chip: Chip, given: Controller | None) -> bool:
    """Whether a receiver on this chip listens to a network instead of a serial port: if it can, and
    the design gives no baud rate.
    """
    has_baud = given is not None and given.link is not None and given.link.baud is not None
    return bool(chip.words.get("has_network")) and not has_baud


def _wire_of(given: Controller, *, has_peers: bool) -> Peers | Autopilot | None:
    """The serial link that the design gives to a controller which makes the light itself."""
    wires = {"peers": given.peers if has_peers else None, "mavlink": given.mavlink}
    wires["values"] = given.values
    found = {name: wire for name, wire in wires.items() if wire is not None}
    if len(found) > 1:
        raise FirmwareError(
            f"{listed([*found], 'and')} are each a serial link, but the firmware has "
            "one. Keep one of them on this controller."
        )
    return next(iter(found.values()), None)


class _Wiring:
    def __init__(
        self, plan: Plan, chip: Chip, controller: str | None, fields: dict[str, str],
        *, is_receiver: bool, has_peers: bool,
    ) -> None:  # fmt: skip
        self._plan, self._origin, self._chip, self._fields = plan, plan.origin, chip, fields
        self._design = design = plan.design
        given = design.controllers[controller] if controller else None
        self._is_own = given is not None and given.type == chip.name
        self._inputs = inputs_of(design, controller) if controller else {}
        uses = given.uses.values() if given and self._is_own else ()
        used = [pin for pins in uses for pin in ([pins] if isinstance(pins, str) else pins)]
        self._taken = {chip.type.own_name(pin) for pin in used}
        self._is_receiver = is_receiver
        self._by_network = is_receiver and hears_network(chip, given)
        self._wire = _wire_of(given, has_peers=has_peers) if given and not is_receiver else None
        self.notes: list[str] = []

    def wire(self, lines: tuple[LinePlace, ...]) -> Wiring:
        links = self._chip.serial if self._is_receiver and not self._by_network else ()
        peers = None if self._wire is None else self._link_at(self._wire)
        if self._is_receiver and not links and not self._by_network:
            raise FirmwareError(
                f"{self._chip.about} has no serial link, so it cannot be a receiver. "
                "Leave out --receiver, or use a larger controller."
            )
        if len(links) == 1:  # lines have to keep away from the only one
            self._taken |= {links[0].tx, links[0].rx}
        wanted = [self._design.line[line.number].pin for line in lines]
        wanted += [each for pin in self._inputs.values() for each, _ in pin_names(pin)]
        self._wanted = {self._chip.type.own_name(pin) for pin in wanted if pin}
        pinned = tuple(self._line(line) for line in lines)
        most = self._chip.words.get("most_one_wire")
        one_wire = [line.line for line in pinned if line.kind != "clocked"]
        if most is not None and len(one_wire) > most:
            raise FirmwareError(
                f"{self._chip.about} sends {most} one-wire lines; there are "
                f"{len(one_wire)}. Put two of them one after another on one pin."
            )
        inputs = tuple(self._input(name, pin) for name, pin in self._inputs.items())
        self._hold_edges(inputs)
        free = [each for each in links if not {each.tx, each.rx} & self._taken]
        serial = links[0] if len(links) == 1 else next(iter(free), None)
        if links and serial is None:
            pins = [f"{each.tx} and {each.rx}" for each in links]
            raise FirmwareError(
                f"no serial link is free: one needs {listed(pins)}. Move what is "
                "there to other pins."
            )
        return Wiring(pinned, inputs, peers or serial, tuple(self.notes))

    def _hold_edges(self, inputs: tuple[InputPin, ...]) -> None:
        """Where edges are watched by the number of a pin, each number has one port alone."""
        if "edge_interrupts" not in self._chip.words:
            return
        ports: dict[int, str] = {}
        for at in (at for each in inputs if each.has_edges for at in each.digital):
            if ports.setdefault(at.bit, at.pin) != at.pin:
                raise FirmwareError(
                    f"{self._chip.about} cannot watch {ports[at.bit]} and "
                    f"{at.pin}, because they share a number. Move one of them to a "
                    "pin with another."
                )

    def _link_at(self, wire: Peers | Autopilot) -> Serial:
        """The serial link at the pins that the design names; they are taken."""
        own = self._chip.type.own_name
        for link in self._chip.serial:
            is_there = own(wire.rx) == link.rx and own(wire.tx) in ("", link.tx)
            if is_there and not {link.tx, link.rx} & self._taken:
                self._taken |= {link.rx, *([link.tx] if wire.tx else [])}
                return link
        able = [f"{link.tx} and {link.rx}" for link in self._chip.serial]
        found = f"It has {listed(able)}." if able else "It has none at all."
        raise FirmwareError(
            f"{self._chip.about} has no free serial link with tx {wire.tx or 'at any pin'} and rx "
            f"{wire.rx}. {found}"
        )

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
        timer = self._chip.timers.get(pin)
        clock, clock_port, clock_bit, unit = "", "", 0, 0
        if is_clocked:
            if links is not None:
                clocks, unit = (links[pin][0],), links[pin][1]
            clock = self._choose(f"the clock of {what}", line.clock, clocks)
            clock_port, clock_bit = port_and_bit(clock)
        return LinePin(
            line.name, bytes_of.field, bytes_of.macro, line.led, line.led_type.data or "one-wire",
            self._chip.label(pin), port, bit, len(line.wire_order), bytes_of.size,
            self._chip.label(clock), clock_port, clock_bit, timer, unit,
        )  # fmt: skip

    def _input(self, name: str, pin: Pin) -> InputPin:
        chip, signal, needs = self._chip, self._design.signals[name], pin.kind or "switch"
        line = self._origin.lines.get(("signals", name))
        where = f" ({self._origin.file}:{line})" if line else ""
        parts = kind_of(signal).parts(signal, name)
        field = self._fields[parts[0]].partition("[")[0]
        is_moment = kind_of(signal).is_moment
        plain = InputPin(name, field, is_moment, needs, pin.pull, "", f"{_tells(pin)}{where}")
        if needs == "temperature":
            sensor = chip.words.get("temperature")
            if sensor is None:
                raise FirmwareError(f"signal '{name}': {chip.about} has no temperature sensor.")
            about = f"the chip's temperature in degrees Celsius{where}"
            return replace(
                plain, pin="inside", about=about, channel=sensor["channel"], words=sensor,
                take=_taken(signal, pin, field),
            )  # fmt: skip
        if needs == "analogue":
            at = self._choose(f"signal '{name}'", pin.name, tuple(chip.channels))
            port, bit = port_and_bit(at) if at in chip.inputs else ("", 0)
            return replace(
                plain, pin=chip.label(at), port=port, bit=bit, channel=chip.channels[at],
                take=_taken(signal, pin, field),
            )  # fmt: skip
        if needs == "matrix":
            return self._matrix(plain, name, pin, where)
        able = chip.edge_pins if needs in EDGES else chip.inputs
        ats = [self._at(f"signal '{name}'", each, able) for each, _ in pin_names(pin)]
        called = ", ".join(chip.label(at.pin) for at in ats)
        plain = replace(plain, pin=called, digital=tuple(ats), port=ats[0].port, bit=ats[0].bit)
        if needs == "knob":
            return replace(plain, words=_knob(signal, pin))
        if needs in EDGES:
            words = {"per": float_literal(1 / pin.per), "quiet_us": round(pin.quiet * 1e6)}
            return replace(plain, take=_taken(signal, pin, field), words=words)
        is_low = (pin.pull == "up") != pin.invert
        about = f"{'off' if pin.invert else 'on'} when it is connected to {_level(pin)}{where}"
        is_on = f"{ats[0].read} {'==' if is_low else '!='} 0u"
        on, off = on_and_off(signal)
        return replace(
            plain, about=about, is_on=is_on,
            take=f"{is_on} ? {float_literal(on)} : {float_literal(off)}",
        )  # fmt: skip

    def _matrix(self, plain: InputPin, name: str, pin: Pin, where: str) -> InputPin:
        """Keys; several signals may come from the keys of one matrix."""
        owner = pin.of or name
        signal = self._design.signals[name]
        is_list = kind_of(signal).is_list
        words: dict[str, Any] = {
            "owner": identifier(owner), "places": (), "count": 0, "is_list": is_list
        }  # fmt: skip
        fields = [self._fields[part] for part in kind_of(signal).parts(signal, name)]
        if plain.is_moment:
            words["axes"] = dict(zip("xyz", fields[1:], strict=True))
            layout = self._plan.layout
            if pin.part:
                there = layout.position[layout.rows_of_part(pin.part)]
                words["places"] = [[float_literal(float(at)) for at in each] for each in there]
        if not pin.rows:
            about = f"of the matrix of {owner}{where}"
            return replace(plain, pin="keys", about=about, words={**words, "is_owner": False})
        sides = []
        for key in ("rows", "columns"):
            names = getattr(pin, key)
            sides.append([self._at(f"'{name}', {key}", each, self._chip.inputs) for each in names])
        rows, columns = sides
        is_to_rows = pin.diodes == "to rows"
        order = pin.order or [*range(len(rows) * len(columns))]
        table = [order[i * len(columns) : (i + 1) * len(columns)] for i in range(len(rows))]
        if not is_to_rows:
            table = [[*each] for each in zip(*table, strict=True)]
        words |= {
            "is_owner": True,
            "driven": rows if is_to_rows else columns,
            "sensed": columns if is_to_rows else rows,
            "order": table,
            "count": max(order) + 1,
        }
        called = ", ".join(self._chip.label(at.pin) for at in [*rows, *columns])
        return replace(
            plain, pin=called, pull="up", digital=(*rows, *columns), words=words,
        )  # fmt: skip

    def _at(self, what: str, pin: str, able: tuple[str, ...]) -> At:
        chosen = self._choose(what, pin, able)
        port, bit = port_and_bit(chosen)
        names = {"port": port, "bit": bit, "upper": bit + 16}
        words = self._chip.words
        read, low, free = (words[key].format(**names) for key in ("reads", "low", "free"))
        return At(chosen, port, bit, read, low, free)

    def _choose(self, what: str, pin: str, able: tuple[str, ...]) -> str:
        """The pin by the name that counts, or another if the design is for another chip."""
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
        why = f"{pin} cannot do this on this chip" if pin else "the design names none"
        self.notes.append(f"{what} is at {self._chip.label(chosen)}: {why}.")
        return chosen

    def _free(self, able: tuple[str, ...]) -> Iterator[str]:
        return (pin for pin in able if pin not in self._taken and pin not in self._wanted)
