"""Lines and controllers: what is plugged in where, in wire order."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Literal, TypeAlias

from pydantic import AfterValidator, Field, PrivateAttr

from fendra.core.catalogue.controllers import CONTROLLERS, ControllerType
from fendra.core.catalogue.leds import LED_TYPES, LedType, Order
from fendra.core.catalogue.supplies import Amps
from fendra.core.catalogue.wires import Jump, Lead
from fendra.core.names import number_meant
from fendra.core.shapes import SHAPES, Part
from fendra.core.values import MOST_LEDS, Count, Model, Name, Setting, Texts, one_of

if TYPE_CHECKING:
    AnyPart: TypeAlias = Part
    _At: TypeAlias = int | str
else:
    AnyPart = Annotated[reduce(or_, SHAPES.values()), Field(discriminator="shape")]
    _At = one_of(number=Annotated[int, Field(ge=0, le=MOST_LEDS)], text=Literal["end"])


def _check_controller(name: str) -> str:
    if name not in CONTROLLERS:
        remedy = number_meant(name, CONTROLLERS, "types", "For another one leave `type` out.")
        raise ValueError(f"there is no controller type '{name}'. {remedy}")
    return name


class Link(Model):
    """By what frames come to a controller.

    baud: of a serial port. network: the protocol, where it is a network; mbit: what that carries,
    in millions of bits a second.
    """

    baud: Annotated[int, Field(ge=300, le=100_000_000)] | None = None
    network: Literal["sacn"] | None = None
    mbit: Annotated[float, Field(gt=0, le=100_000)] = 100.0


class Peers(Model):
    """The wire on which the controllers of a design tell each other what they hear.

    tx, rx: its pins, both at the same wire, or crosswise to another's. baud: how fast.
    """

    tx: Annotated[str, Field(min_length=1)]
    rx: Annotated[str, Field(min_length=1)]
    baud: Annotated[int, Field(ge=9600, le=4_000_000)] = 500_000


class Autopilot(Model):
    """A serial port at which a controller hears MAVLink. rx, tx: its pins; nothing is sent."""

    rx: Annotated[str, Field(min_length=1)]
    tx: str = ""
    baud: Annotated[int, Field(ge=1200, le=4_000_000)] = 57_600


class Controller(Model):
    """What the lines are plugged into, and its limits.

    type: one of the known controllers, for its RAM, pins and logic. ram: bytes; pins: those that
    there are, as names and ranges (`D2-D13`); logic_volts: what they give for a 1; all of these
    instead of the type's. regulator_amps: what its own regulator can give to LEDs. link: by what
    frames come. peers: the wire to the other controllers that have one: all hear what one hears,
    and the first of them leads. mavlink: a serial port at which it hears an autopilot. values: one
    at which a computer tells it signals, while it makes the light itself. most_leds: addresses on
    all of its lines; most_leds_a_line: on each of them. uses: what else it does, and by which pins.
    shared: things inside it that only one can use at a time, each with the pins and uses that need
    it.
    """

    type: Annotated[str, AfterValidator(_check_controller)] | None = None
    about: str = ""
    ram: Annotated[int, Field(ge=1, le=2**40)] | None = None
    pins: list[str] = []
    logic_volts: Annotated[float, Field(ge=0.5, le=24)] | None = None
    regulator_amps: Amps | None = None
    link: Link | None = None
    peers: Peers | None = None
    mavlink: Autopilot | None = None
    values: Peers | None = None
    most_leds: Count | None = None
    most_leds_a_line: Count | None = None
    uses: dict[str, Texts] = {}
    shared: dict[str, list[str]] = {}

    @property
    def known_type(self) -> ControllerType | None:
        """Its type, as it is said to be; None without one."""
        return self.as_said(CONTROLLERS[self.type]) if self.type else None

    def as_said(self, kind: ControllerType) -> ControllerType:
        """A type's figures, with what is said of this one in their place."""
        return replace(
            kind, ram=self.ram or kind.ram, logic_volts=self.logic_volts or kind.logic_volts
        )


class Feed(Model):
    """A place where power goes into a line.

    at: the address, from 0, or the line's end. wire: the lead to it, if not the supply's own.
    """

    at: _At
    wire: Lead | None = None


class Line(Model):
    """One data line of a controller, with its parts in wire order.

    controller: which one, where there are several. pin: its name for the pin; clock: for that of
    the clock, where the LEDs have one. led: the LED type. order: colour order, if not the type's
    own. most: the ceiling of its light, 0 to 1 as the eye sees it. off: it stays dark; a condition,
    if it is to come back. supply: what feeds it. feed: where power goes in; at the first LED if not
    given. jump: the wire from part to part. level_shifter: something lifts the data to the LEDs'
    voltage. most_leds: addresses that it may have.
    """

    name: Name
    controller: Name | None = None
    pin: str = ""
    clock: str = ""
    led: str = "ws2812b"
    order: Order | None = None
    most: Setting | None = None
    off: bool | str = False
    supply: str = ""
    feed: list[Feed] = []
    jump: Jump = Jump()
    level_shifter: bool = False
    most_leds: Count | None = None
    part: Annotated[list[AnyPart], Field(min_length=1)]

    _led_type: LedType | None = PrivateAttr(default=None)

    @property
    def led_type(self) -> LedType:
        """The figures of its LEDs; those of a ws2812b where the design gets them wrong."""
        return self._led_type or LED_TYPES.get(self.led, LED_TYPES["ws2812b"])

    def takes_type(self, types: Mapping[str, LedType]) -> None:
        """Look up its LED type among those of the design."""
        self._led_type = types.get(self.led)

    @property
    def wire_order(self) -> str:
        """The colour order on the wire; its letters are the channels of an LED."""
        return self.order or self.led_type.order

    @property
    def channels(self) -> str:
        """The letters of its channels, white last."""
        return "RGBW" if "W" in self.wire_order else "RGB"


class Assembly(Model):
    """Parts that are built as one thing, in its own axes, to be placed as often as it is there."""

    about: str = ""
    part: Annotated[list[AnyPart], Field(min_length=1)]
