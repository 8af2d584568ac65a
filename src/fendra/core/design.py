"""The design: the whole document, as a TOML file holds it or Python builds it.

The keys, their types and ranges are here; what they mean together is checked by
`fendra.core.checks`.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import reduce
from keyword import iskeyword
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Literal, TypeAlias

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, PrivateAttr

from fendra.core.connection import Connection
from fendra.core.electric.controllers import CONTROLLERS, ControllerType
from fendra.core.electric.leds import LED_TYPES, LedFigures, LedType, Order, all_types
from fendra.core.electric.supplies import Amps, Supply
from fendra.core.electric.wires import Jump, Wire
from fendra.core.findings import Path
from fendra.core.layout.shapes import (
    MOST_LEDS,
    SHAPES,
    Count,
    Length,
    Name,
    Number,
    Part,
    Point,
    Title,
)
from fendra.core.media import Media
from fendra.core.mix import Blend
from fendra.core.model import Model, one_of
from fendra.core.names import SIGNAL_NAME, did_you_mean
from fendra.core.signals.model import Pin, Seconds, Signal

if TYPE_CHECKING:
    AnyPart: TypeAlias = Part
else:
    AnyPart = Annotated[reduce(or_, SHAPES.values()), Field(discriminator="shape")]


if TYPE_CHECKING:
    _Texts: TypeAlias = str | list[str]
    _Near: TypeAlias = str | Point
    _At: TypeAlias = int | str
else:
    _Texts = one_of(text=str, list=list[str])
    _Near = one_of(text=str, numbers=Point)
    _At = one_of(number=Annotated[int, Field(ge=0, le=MOST_LEDS)], text=Literal["end"])


def _check_controller(name: str) -> str:
    if name not in CONTROLLERS:
        remedy = did_you_mean(name, CONTROLLERS, "types")
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


class Controller(Model):
    """What the lines are plugged into, and its limits.

    type: one of the known controllers, for its RAM, pins and logic. ram: bytes; pins: those that
    there are, as names and ranges (`D2-D13`); logic_volts: what they give for a 1; all of these
    instead of the type's. regulator_amps: what its own regulator can give to LEDs. link: by what
    frames come. most_leds: addresses on all of its lines; most_leds_a_line: on each of them. uses:
    what else it does, and by which pins. shared: things inside it that only one can use at a time,
    each with the pins and uses that need it.
    """

    type: Annotated[str, AfterValidator(_check_controller)] | None = None
    about: str = ""
    ram: Annotated[int, Field(ge=1, le=2**40)] | None = None
    pins: list[str] = []
    logic_volts: Annotated[float, Field(ge=0.5, le=24)] | None = None
    regulator_amps: Amps | None = None
    link: Link | None = None
    most_leds: Count | None = None
    most_leds_a_line: Count | None = None
    uses: dict[str, _Texts] = {}
    shared: dict[str, list[str]] = {}

    @property
    def known_type(self) -> ControllerType | None:
        """Its type's figures, where it has one."""
        return CONTROLLERS[self.type] if self.type else None


class Feed(Model):
    """A place where power goes into a line.

    at: the address, from 0, or the line's end. wire: the lead to it, if not the supply's own.
    """

    at: _At
    wire: Wire | None = None


class Line(Model):
    """One data line of a controller, with its parts in wire order.

    controller: which one, where there are several. pin: its name for the pin; clock: for that of
    the clock, where the LEDs have one. led: the LED type.
    order: colour order, if not the type's own. supply: what feeds it. feed: where power goes in; at
    the first LED if not given. jump: the wire from part to part. level_shifter: something lifts the
    data to the LEDs' voltage. most_leds: addresses that it may have.
    """

    name: Name
    controller: Name | None = None
    pin: str = ""
    clock: str = ""
    led: str = "ws2812b"
    order: Order | None = None
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


class GroupTable(Model):
    """A choice of spots, narrowed down; each key takes from what is left by those before it.

    of: what to begin with: a condition, a name, or a list of them. without: what to leave out.
    near: a point, or the name of a part, group or trail for its middle; with within, the spots so
    near to it; with nearest, so many that are nearest to it. outermost: so many that are farthest
    from the middle of them all.
    """

    of: _Texts = "all"
    without: _Texts = []
    near: _Near | None = None
    within: Length | None = None
    nearest: Count | None = None
    outermost: Count | None = None


class Trail(Model):
    """An ordered path over spots.

    of: as a group's. join: names, one run after the other; `-name` runs it from its end. by: the
    order, an expression; else the order of the wire. from_middle: begins at the middle and goes
    both ways at once. reverse: begins at the end.
    """

    of: _Texts | None = None
    join: list[str] = []
    by: str | None = None
    from_middle: bool = False
    reverse: bool = False


Plain: TypeAlias = bool | Annotated[float, Field(allow_inf_nan=False)] | str
"""A literal, or a text that holds a colour or an expression."""

Setting: TypeAlias = Plain | list[Plain] | dict[str, Plain]
"""What a parameter may be: plain; a list of plain ones; or a table of them, to look up in."""


class Preset(BaseModel):
    """An effect with parameters, under a name. All keys but these are the effect's parameters."""

    model_config = ConfigDict(extra="allow", frozen=True, strict=True)
    __pydantic_extra__: dict[str, Setting]

    effect: str
    about: str = ""

    @property
    def parameters(self) -> dict[str, Setting]:
        """The effect's parameters as they are written."""
        return self.__pydantic_extra__


class Layer(BaseModel):
    """An effect on a choice of spots. All keys but these are the effect's parameters.

    on: a part, group or trail, or `all`. effect, or preset: what it shows. canvas: on which its
    spots are placed anew. scene: the scenes that it belongs to; every one, if not given. when: the
    condition; least_on: how long it stays on at least, s. priority: layers are painted from the
    lowest on, and in the order of the file where they are equal. blend: how it is painted; cover:
    how much of it, 0 to 1. hides_below: nothing that is beneath shows on its spots. level: 0 to 1
    as the eye sees it. fade_in, fade_out: s.
    """

    model_config = ConfigDict(extra="allow", frozen=True, strict=True)
    __pydantic_extra__: dict[str, Setting]

    name: Title
    on: str
    effect: str = ""
    preset: str = ""
    canvas: str = ""
    scene: _Texts = []
    when: bool | str = True
    least_on: Seconds = 0.0
    priority: Annotated[int, Field(ge=-1000, le=1000)] = 0
    blend: Blend = "over"
    cover: Setting = 1.0
    hides_below: bool = False
    level: Setting = 1.0
    fade_in: Seconds = 0.0
    fade_out: Seconds = 0.0

    @property
    def parameters(self) -> dict[str, Setting]:
        """The effect's parameters as they are written."""
        return self.__pydantic_extra__

    @property
    def scenes(self) -> tuple[str, ...]:
        """The scenes that it belongs to; none is every one."""
        return (self.scene,) if isinstance(self.scene, str) else tuple(self.scene)


class Scene(Model):
    """A set of layers, shown while it is chosen: the first one in the file whose condition holds.

    when: the condition. button: a condition that, each time it comes true, steps on to the next of
    the scenes that have it. fade: the time in which it takes over from another, s.
    """

    name: Name
    about: str = ""
    when: bool | str = True
    button: str = ""
    fade: Seconds = 0.0


class OnCanvas(Model):
    """Where a part, group or assembly is on a canvas.

    at: its middle. turn: degrees, counter-clockwise. scale: how much larger than it is.
    """

    at: Point
    turn: Number = 0.0
    scale: Annotated[float, Field(gt=0, le=1e6)] = 1.0


def _check_signal_name(name: str) -> str:
    if not SIGNAL_NAME.fullmatch(name):
        raise ValueError(
            "a signal's name stands in expressions: a letter, then letters, digits and _"
        )
    if iskeyword(name):
        raise ValueError(
            f"'{name}' is a word that no expression can have as a name; choose another"
        )
    return name


SignalName: TypeAlias = Annotated[str, AfterValidator(_check_signal_name)]


if TYPE_CHECKING:
    Group: TypeAlias = str | list[str] | GroupTable
else:
    Group = one_of(text=str, list=list[str], table=GroupTable)


class Design(Model):
    """A design: lines with parts, groups, trails, signals and layers.

    rate: frames a second. level: the master level, 0 to 1 as the eye sees it. units: of all
    lengths in it. outline: lines of points [x, y] that show the thing itself in pictures. leds: LED
    types of its own, and changes to known ones. canvases: places of parts, for effects that go
    across several things. effects: files of effects of its own. sources: what feeds signals;
    outputs: what takes frames. leaving: what they show when a run ends: all dark, the look of
    `standby`, with every signal lost, or what was shown last.
    """

    fendra: Literal[1] = 1
    name: Title = "unnamed"
    about: str = ""
    rate: Annotated[float, Field(ge=1, le=250)] = 50.0
    level: Setting = 1.0
    leaving: Literal["dark", "standby", "keep"] = "dark"
    units: Literal["mm", "in"] = "mm"
    outline: list[list[Annotated[tuple[Number, Number], Field(strict=False)]]] = []
    controllers: dict[Name, Controller] = {}
    leds: dict[Title, LedFigures] = {}
    supplies: dict[Name, Supply] = {}
    assemblies: dict[Name, Assembly] = {}
    line: Annotated[list[Line], Field(min_length=1)]
    groups: dict[Name, Group] = {}
    trails: dict[Name, Trail] = {}
    canvases: dict[Name, dict[str, OnCanvas]] = {}
    sources: dict[Name, Connection] = {}
    outputs: dict[Name, Connection] = {}
    signals: dict[SignalName, Signal] = {}
    effects: list[str] = []
    presets: dict[Name, Preset] = {}
    scene: list[Scene] = []
    layer: list[Layer] = []

    _led_types: dict[str, LedType] = PrivateAttr(default_factory=dict)
    _media: Media = PrivateAttr(default_factory=Media)
    _file: str = PrivateAttr(default="")
    _folder: str = PrivateAttr(default="")
    _lines: dict[Path, int] = PrivateAttr(default_factory=dict)

    def model_post_init(self, context: Any, /) -> None:
        """Give each line its LED type, with what the design says of it."""
        super().model_post_init(context)
        self._led_types = all_types(self.leds)
        for line in self.line:
            line.takes_type(self._led_types)

    def lines_of(self, controller: str) -> list[int]:
        """The places of the lines that are plugged into a controller; all, if it is alone."""
        is_only = len(self.controllers) == 1
        return [
            i
            for i, line in enumerate(self.line)
            if line.controller == controller or (is_only and line.controller is None)
        ]

    @property
    def led_types(self) -> Mapping[str, LedType]:
        """The LED types of the catalogue, and those that the design adds or changes."""
        return self._led_types

    @property
    def media(self) -> Media:
        """What the files that it names hold: effects and pictures."""
        return self._media

    def uses_media(self, media: Media) -> None:
        """Note what the files that it names hold."""
        self._media = media

    @property
    def words(self) -> dict[str, dict[str, int]]:
        """The words of each signal that is a choice or a text, and their numbers."""
        signals = self.signals.items()
        return {n: signal.numbers for n, signal in signals if signal.kind in ("choice", "text")}

    @property
    def fed(self) -> dict[str, str]:
        """Every number that comes in, and the signal that it belongs to."""
        fed = ((name, signal) for name, signal in self.signals.items() if signal.of is None)
        return {part: name for name, signal in fed for part in signal.parts(name)}

    def inputs_of(self, controller: str) -> dict[str, Pin]:
        """The signals that are connected to a controller, and where."""
        first = next(iter(self.controllers), None)
        inputs = {name: signal.input for name, signal in self.signals.items()}
        return {
            name: pin
            for name, pin in inputs.items()
            if pin is not None and (pin.controller or first) == controller
        }

    @property
    def painted(self) -> list[int]:
        """The places of the layers in the order in which they are painted."""
        return sorted(range(len(self.layer)), key=lambda i: self.layer[i].priority)

    def effect_of(self, layer: Layer) -> str:
        """The name of a layer's effect, its own or its preset's; empty where there is none."""
        preset = self.presets.get(layer.preset)
        return layer.effect or (preset.effect if preset is not None else "")

    def settings_of(self, layer: Layer) -> dict[str, Setting]:
        """What is written of the parameters of a layer's effect: its preset's, and its own."""
        preset = self.presets.get(layer.preset)
        return {**(preset.parameters if preset is not None else {}), **layer.parameters}

    @property
    def file(self) -> str:
        """The name of the file that the design was read from; empty for one built in Python."""
        return self._file

    @property
    def folder(self) -> str:
        """The folder in which the files are that it names; empty for the current one."""
        return self._folder

    def is_in(self, folder: str) -> None:
        """Note in which folder it is."""
        self._folder = folder

    @property
    def lines(self) -> Mapping[Path, int]:
        """The line in that file of each table and key, by its path."""
        return self._lines

    def written_in(self, file: str, lines: Mapping[Path, int]) -> None:
        """Note where the design was read from."""
        self._file, self._lines = file, dict(lines)
