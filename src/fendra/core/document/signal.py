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
        raise ValueError("the two raw values are equal; they must differ")
    return ends


def _ascend(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    if len(points) == 1 or any(b[0] <= a[0] for a, b in itertools.pairwise(points)):
        raise ValueError("a curve has two points or more, in ascending order of the first number")
    return points


_Span: TypeAlias = Annotated[tuple[Number, Number], Field(strict=False)]


def _check_signal_name(name: str) -> str:
    if not SIGNAL_NAME.fullmatch(name):
        better = re.sub(r"\W+", "_", name).strip("_0123456789") or "value"
        raise ValueError(
            "a signal's name stands in expressions: a letter, then letters, digits and _. "
            f"Write: [signals.{better}]"
        )
    if iskeyword(name):
        raise ValueError(
            f"'{name}' is a word that no expression can have as a name; choose another"
        )
    return name


SignalName: TypeAlias = Annotated[str, AfterValidator(_check_signal_name)]

MOST_CELL_V = 5.0
"""No cell has more."""
MOST_PLACES = 256
"""Numbers of a vector."""


def _bands(ends: list[float]) -> list[float]:
    if not ends or any(b <= a for a, b in itertools.pairwise(ends)):
        raise ValueError("the bands begin at numbers in ascending order")
    return ends


class Input(Model):
    """What one input tells, and how it becomes what the signal takes.

    calibrate: its raw values at the ends of the signal's scale. curve: points [raw, value] instead.
    invert: the other way round: on where it would be off; a number from its other end. on_at,
    off_at: where a number turns a switch on and off. bands: the raw values from which on the next
    word of a choice holds.
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
    """A signal's source. name: `SOURCE:NAME`, or a name of any source; the signal's own, if not
    given.
    """

    name: str = ""


_Key: TypeAlias = Annotated[int, Field(ge=-1, le=MOST_PLACES - 1)]


class Pin(Input):
    """Where a signal is connected to a controller that runs the design by itself.

    name: the controller's name for the pin. kind: what is connected; what the signal's kind needs,
    if not given. A switch; analogue: a share of the full scale, 0 to 1; pulses: how many come in a
    second; servo: the pulse of a remote control's receiver, us; knob: one that clicks round;
    matrix: keys in rows and columns; temperature: of the chip itself, degrees Celsius. pull: what
    holds it while nothing is connected; with `up` it is on when it is connected to ground, else
    when it is connected to the logic's voltage. controller: which one, where there are several; the
    first, if not given.

    per: pulses of one turn, or whatever is counted. quiet: without pulses for so long it is 0, s.
    other: the second pin of a knob; edges: how often its pins change in a click; step: what a click
    adds, a twentieth of the range if not given. rows, columns: pins of a matrix; diodes: whether
    they let current through to its rows or to its columns; order: the number of the key at each
    place, row by row, -1 for none. of: the signal whose matrix this is as well. part: whose LEDs
    are under the keys, in their order: an event is where that LED is.
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
    """One live value and its conditioning.

    kind: what it is. choices: the words of a choice, or those of a text that it knows, counted from
    0 or with their numbers. size: how many numbers a vector has. on: what a
    picture is spread over, as of a layer. source: where it comes from, `SOURCE:NAME`, or a list of
    those; each may be a table, which says more of that input.

    calibrate: the raw values that are the ends of `range`. curve: points [raw, value] instead.
    range: lowest and highest value; what comes is held within it. cells: of a battery, whose raw
    value is then divided by them. dead_band: so much on both sides of `centre` is `centre`.
    average: the length of a moving average, s. slew: the most that it changes in a second.
    smooth: time constant, s. Both may be two numbers: for rising and for falling.

    on_at, off_at: where a switch that is a number goes on and off. debounce: a change counts once
    it has stayed for so long, s. dwell: it stays on, and off, at least so long, s. hold: a switch
    stays on so long after, s (bridges the dark half of a flasher's pulse). pin: where it is
    connected to a controller that runs the design by itself. keep: of a knob at a pin where it
    stands, and of a switch that steps through scenes which one is chosen: the controller knows it
    again after it was off.

    What is said here holds for every input that says nothing itself.

    lost_after: without news for so long it is lost, s, and takes the value of `fallback`. of: an
    expression over other signals, instead of news; of a choice also a table of its words.
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
        """What the raw values of a calibration become: the ends of the range, or 0 and 1.

        Of a battery it is the volts of all cells; None where nobody can know how many they are. A
        range above `MOST_CELL_V` is already that of the pack.
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
