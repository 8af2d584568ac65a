"""Lines and controllers: the parts of each line, in wire order."""

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
        remedy = number_meant(name, CONTROLLERS, "types", "For others, leave `type` out.")
        raise ValueError(f"there is no controller type '{name}'. {remedy}")
    return name


class Link(Model):
    """How frames arrive at a controller.

    Attributes:
        baud: of a serial port
        network: the protocol, if it is a network
        mbit: what the network carries, Mbit/s
    """

    baud: Annotated[int, Field(ge=300, le=100_000_000)] | None = None
    network: Literal["sacn"] | None = None
    mbit: Annotated[float, Field(gt=0, le=100_000)] = 100.0


class Peers(Model):
    """A serial link of a controller to other controllers, or to a computer.

    Attributes:
        tx: the pin that sends
        rx: the pin that receives
        baud: speed; 500,000 by default
    """

    tx: Annotated[str, Field(min_length=1)]
    rx: Annotated[str, Field(min_length=1)]
    baud: Annotated[int, Field(ge=9600, le=4_000_000)] = 500_000


class Autopilot(Model):
    """A serial port on which a controller receives MAVLink.

    Attributes:
        rx: the pin that receives
        tx: reserved; nothing is sent
        baud: speed
    """

    rx: Annotated[str, Field(min_length=1)]
    tx: str = ""
    baud: Annotated[int, Field(ge=1200, le=4_000_000)] = 57_600


class OwnLamps(Model):
    """A controller that is a lamp array for its computer, over its own USB.

    Attributes:
        kind: what the thing is: keyboard, mouse, game-controller, peripheral, scene, notification,
            chassis, wearable, furniture or art
        usb_id: vendor and product of the device, in hexadecimal; the default is for tests, and
            not for things that you sell
    """

    kind: Literal[
        "keyboard", "mouse", "game-controller", "peripheral", "scene", "notification", "chassis",
        "wearable", "furniture", "art",
    ] = "peripheral"  # fmt: skip
    usb_id: Annotated[str, Field(pattern="^[0-9a-fA-F]{4}:[0-9a-fA-F]{4}$")] = "1209:0001"


class Controller(Model):
    """The board that the lines are plugged into, and its limits.

    Attributes:
        type: one of the known controllers; it brings RAM, pins and logic_volts
        about: for people
        ram: RAM, bytes, if not the type's
        pins: its pins, as names and ranges (`D2-D13`), if not the type's
        logic_volts: what its pins give for a 1, V, if not the type's
        regulator_amps: what its own regulator can give to LEDs, A
        link: how frames arrive: `{ baud = 500_000 }`, or `{ network = "sacn", mbit = 20 }`
        peers: a wire to the design's other controllers; each hears what one of them hears,
            and the first leads
        mavlink: a serial port on which it receives MAVLink from an autopilot
        values: a serial port on which a computer sends it signals, while it makes the light
            itself
        lamps: its LEDs are a lamp array for the computer that its USB is plugged into, which can
            set them: `{ kind = "keyboard" }`; on an RP2040
        most_leds: the most addresses on all its lines together
        most_leds_a_line: the most addresses on each line
        uses: what else it does, and with which pins
        shared: things inside it that only one pin or use can have at a time, each with
            those that need it
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
    lamps: OwnLamps | None = None
    most_leds: Count | None = None
    most_leds_a_line: Count | None = None
    uses: dict[str, Texts] = {}
    shared: dict[str, list[str]] = {}

    @property
    def known_type(self) -> ControllerType | None:
        """Its controller type; None if the design gives none."""
        return self.as_said(CONTROLLERS[self.type]) if self.type else None

    def as_said(self, kind: ControllerType) -> ControllerType:
        """A type's figures, with this controller's own in their place."""
        return replace(
            kind, ram=self.ram or kind.ram, logic_volts=self.logic_volts or kind.logic_volts
        )


class Feed(Model):
    """A place where power goes into a line.

    Attributes:
        at: the address, from 0, or `end`
        wire: the lead to it; the supply's own by default
    """

    at: _At
    wire: Lead | None = None


class Line(Model):
    """One data line of a controller, with its parts in wire order.

    Attributes:
        name: its name, for layers and groups
        controller: the controller, if there are several
        pin: the controller's name for the data pin
        clock: the pin of the clock wire, for LEDs that have one
        led: the LED type
        order: the colour order on the wire, if not the type's
        most: ceiling for its light, 0 to 1 as the eye sees it
        off: its LEDs stay dark; write a condition if they are to come back
        supply: the supply that feeds it
        feed: where power goes in; at the first LED by default
        jump: the power wire from part to part
        level_shifter: something lifts the data to the LEDs' voltage
        most_leds: the most addresses that it may have
        part: its parts, in wire order
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
        """The figures of its LEDs; a ws2812b's if the design's own are wrong."""
        return self._led_type or LED_TYPES.get(self.led, LED_TYPES["ws2812b"])

    def takes_type(self, types: Mapping[str, LedType]) -> None:
        """Look up its LED type among the design's types."""
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
    """Parts that are built as one thing, in its own axes, to be placed often.

    Attributes:
        about: for people
        part: its parts, in wire order
    """

    about: str = ""
    part: Annotated[list[AnyPart], Field(min_length=1)]
