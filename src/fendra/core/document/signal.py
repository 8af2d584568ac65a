"""The keys of a signal in a design."""

from __future__ import annotations

import itertools
import re
from functools import cached_property
from keyword import iskeyword
from typing import TYPE_CHECKING, Annotated, Literal, TypeAlias

from pydantic import AfterValidator, Field

from fendra.core.document.choice import Spots
from fendra.core.names import SIGNAL_NAME
from fendra.core.values import Model, Number, Plain, Seconds, one_of

if TYPE_CHECKING:
    _Choices: TypeAlias = list[str] | dict[str, int]
    Of: TypeAlias = str | dict[str, Plain]
    _Sources: TypeAlias = "str | From | list[str | From]"
    _UpDown: TypeAlias = float | tuple[float, float]
    _Cells: TypeAlias = int | str
    _Pins: TypeAlias = "str | Pin"
else:
    _Choices = one_of(list=list[str], table=dict[str, int])
    Of = one_of(text=str, table=dict[str, Plain])
    _NotNegative = Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)]
    _Pair = Annotated[tuple[_NotNegative, _NotNegative], Field(strict=False)]
    _UpDown = one_of(number=_NotNegative, numbers=_Pair)
    _Cells = one_of(number=Annotated[int, Field(ge=1, le=200)], text=Literal["guess"])


def _differ(ends: tuple[float, float]) -> tuple[float, float]:
    if ends[0] == ends[1]:
        raise ValueError("the two raw values are equal, but they must differ")
    return ends


def _ascend(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    if len(points) == 1 or any(b[0] <= a[0] for a, b in itertools.pairwise(points)):
        raise ValueError("a curve needs two points or more, the first numbers ascending")
    return points


_Span: TypeAlias = Annotated[tuple[Number, Number], Field(strict=False)]


def _check_signal_name(name: str) -> str:
    if not SIGNAL_NAME.fullmatch(name):
        better = re.sub(r"\W+", "_", name).strip("_0123456789") or "value"
        raise ValueError(
            "a signal's name is used in expressions: a letter, then letters, digits "
            f"and _. Write: [signals.{better}]"
        )
    if iskeyword(name):
        raise ValueError(
            f"'{name}' is a word of expressions, so no signal can have this name; choose another"
        )
    return name


SignalName: TypeAlias = Annotated[str, AfterValidator(_check_signal_name)]

MOST_CELL_V = 5.0
"""No cell has more."""
MOST_PLACES = 256
"""Numbers of a vector."""


def _bands(ends: list[float]) -> list[float]:
    if not ends or any(b <= a for a, b in itertools.pairwise(ends)):
        raise ValueError("the bands must be numbers in ascending order")
    return ends


class Input(Model):
    """One input of a signal: what its raw values mean.

    Attributes:
        calibrate: its raw values at both ends of the signal's scale
        curve: instead, points `[raw, value]` with straight lines between them
        invert: reversed: on where it would be off; a number counted from its other end
        on_at: where its number turns a switch on
        off_at: where its number turns a switch off
        bands: where its number becomes the next word of a choice, in the order of `choices`
    """

    calibrate: Annotated[_Span, AfterValidator(_differ)] | None = None
    curve: Annotated[list[_Span], AfterValidator(_ascend)] = []
    invert: bool = False
    on_at: Number | None = None
    off_at: Number | None = None
    bands: Annotated[list[Number], AfterValidator(_bands)] = []

    @property
    def is_calibrated(self) -> bool:
        """Whether it says itself what its raw numbers mean."""
        return self.calibrate is not None or bool(self.curve)


class From(Input):
    """A source of a signal.

    Attributes:
        name: `SOURCE:NAME`, or a name from any source; the signal's own name by default
    """

    name: str = ""


_Key: TypeAlias = Annotated[int, Field(ge=-1, le=MOST_PLACES - 1)]


class Pin(Input):
    """Where a signal is connected to a controller that runs the design by itself.

    Attributes:
        name: the controller's name for the pin
        kind: what is connected: `switch`, `analogue` (0 to 1 of full scale), `pulses` (a
            second), `servo` (pulse of a remote control, us), `knob` (one that clicks),
            `matrix` (keys in rows and columns) or `temperature` (of the chip, degrees
            Celsius); by default what fits the signal
        pull: what holds the pin while nothing is connected: `up` (on when connected to
            ground), `down` or `none` (on at the logic's voltage)
        controller: the controller, if there are several; the first by default
        per: pulses for one turn, or for one of what you count
        quiet: without pulses for this time the value is 0, s
        other: the second pin of a knob
        edges: how often the pins of a knob change in a click
        step: what a click adds; a twentieth of the range by default
        rows: pins of a matrix's rows
        columns: pins of a matrix's columns
        diodes: the direction of the current through a matrix's diodes: `to rows` or `to
            columns`
        order: the number of the key at each place of a matrix, row by row, -1 for none
        of: the signal whose matrix this signal reads too
        part: the part whose LEDs are under the keys, in their order; an event happens at
            that LED
    """

    name: str = ""
    kind: (
        Literal["switch", "analogue", "pulses", "servo", "knob", "matrix", "temperature"] | None
    ) = None
    pull: Literal["up", "down", "none"] = "up"
    controller: str | None = None
    per: Annotated[float, Field(gt=0, le=1e6)] = 1.0
    quiet: Annotated[Seconds, Field(gt=0, le=60)] = 1.5
    other: str = ""
    edges: Literal[1, 2, 4] = 4
    step: Annotated[float, Field(gt=0, le=1e9)] | None = None
    rows: Annotated[list[str], Field(max_length=32)] = []
    columns: Annotated[list[str], Field(max_length=32)] = []
    diodes: Literal["to rows", "to columns"] = "to rows"
    order: Annotated[list[_Key], Field(max_length=1024)] = []
    of: str = ""
    part: str = ""


if not TYPE_CHECKING:
    _Pins = one_of(text=str, table=Pin)
    _Sources = one_of(text=str, table=From, list=list[one_of(text=str, table=From)])


class Signal(Model):
    """One live value and its conditioning. Keys hold for every input that does not set them
    itself.

    Attributes:
        kind: what it is: a number, a switch, a choice, a colour, a text, an event, a vector
            or a picture
        unit: for people
        about: for people
        source: `SOURCE:NAME`, or a list of those; a table sets the scale of one input; by
            default its own name, from any source
        pin: its pin on a controller that runs the design by itself: a name, or a table with
            `kind`, `pull` and the scale of this input
        choices: the words of a choice or text: `["calm", "wild"]`, counted from 0, or `{
            manual = 0, return = 11 }`; tapes hold the words or the numbers
        size: how many numbers a vector has, up to 256
        on: the LEDs over which a picture is spread, as `on` of a layer
        calibrate: two raw values that become the ends of `range`, or 0 and 1; the first may
            be the larger
        curve: instead, points `[raw, value]` with straight lines between them
        range: lowest and highest value; values outside are held at the ends
        cells: of a battery: the value is the voltage of one cell, after calibration;
            `guess` counts full cells of 4.25 V when it first hears of the pack, which is
            right up to six cells
        dead_band: values this close to `centre` count as `centre`; the ends of the range
            stay
        centre: the middle of the dead band
        average: moving average over this time, s
        slew: the most it may change in a second; `[up, down]`
        smooth: time constant, s; `[rising, falling]`
        on_at: where a number turns a switch on: above it if `on_at` is larger than
            `off_at`, else below it; 0.5 by default
        off_at: where a number turns a switch off again
        debounce: a change of a switch counts after it has lasted this long, s
        dwell: minimum on and off time of a switch, s
        hold: a switch stays on for this time after, s; this bridges the dark half of a
            flasher's pulse
        lost_after: the signal is lost after this time without news, s; never by default
        fallback: its value before the first news and while it is lost: a word for a choice,
            a colour for a colour or picture; by default 0, off, the first word, black
        keep: a controller remembers it while the power is off: a knob at a pin, or a switch
            that steps through scenes
        of: computed from other signals instead of received: an expression; for a choice a
            word or a table
    """

    kind: str = "number"
    unit: str = ""
    about: str = ""
    source: _Sources = ""
    pin: _Pins = ""
    choices: _Choices = []
    size: Annotated[int, Field(ge=1, le=MOST_PLACES)] | None = None
    on: Spots = "all"
    calibrate: Annotated[_Span, AfterValidator(_differ)] | None = None
    curve: Annotated[list[_Span], AfterValidator(_ascend)] = []
    range: _Span | None = None
    cells: _Cells | None = None
    dead_band: Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)] = 0.0
    centre: Number = 0.0
    average: Seconds = 0.0
    slew: _UpDown = 0.0
    smooth: _UpDown = 0.0
    on_at: Number | None = None
    off_at: Number | None = None
    debounce: Seconds = 0.0
    dwell: Seconds = 0.0
    hold: Seconds = 0.0
    lost_after: Seconds | None = None
    fallback: Number | bool | str | None = None
    keep: bool = False
    of: Of | None = None

    @cached_property
    def numbers(self) -> dict[str, int]:
        """The number of each word of a choice or of a text."""
        if isinstance(self.choices, dict):
            return self.choices
        return {word: number for number, word in enumerate(self.choices)}

    @property
    def is_calibrated(self) -> bool:
        """Whether it says what raw numbers mean, for the inputs that do not."""
        return self.calibrate is not None or bool(self.curve)

    @property
    def sources(self) -> tuple[From, ...]:
        """Where it may come from, each in full; without any it is its own name, of any source."""
        given = self.source if isinstance(self.source, list) else [self.source]
        full = (From(name=each) if isinstance(each, str) else each for each in given)
        return tuple(each for each in full if each != From()) or (From(),)

    @property
    def scale(self) -> tuple[float, float] | None:
        """The scale that a calibration turns raw values into: the ends of the range, or 0 and 1.

        For a battery it is the volts of all cells; None if their number is unknown. A range above
        `MOST_CELL_V` is already that of the pack.
        """
        low, high = self.range or (0.0, 1.0)
        if self.cells is None or high > MOST_CELL_V:
            return low, high
        if self.range is None or isinstance(self.cells, str):
            return None
        return low * self.cells, high * self.cells


COMMON = frozenset(
    {"kind", "unit", "about", "source", "pin", "lost_after", "fallback", "of", "keep"}
)
"""The keys that every kind of signals has."""
