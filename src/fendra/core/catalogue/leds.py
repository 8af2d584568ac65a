"""LED types: the chips on a line, and the figures that a design may change."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Any, Literal, Self, TypeAlias

from pydantic import AfterValidator, Field, model_validator

from fendra.core.catalogue.data_files import read_catalogue
from fendra.core.light.balance import EVEN, Shares, gains_of
from fendra.core.names import in_words, number_meant
from fendra.core.values import Model, one_of

MICRO = 1e-6


def check_order(order: str) -> str:
    """Check a colour order, and return it. Raises ValueError if it is not one."""
    if sorted(order) not in (["B", "G", "R"], ["B", "G", "R", "W"]):
        upper = order.upper()
        is_order = upper != order and sorted(upper) in (["B", "G", "R"], ["B", "G", "R", "W"])
        raise ValueError(
            "a colour order has the letters R, G and B, and W for a white channel, each once; "
            f'you wrote {in_words(order)}. Write: order = "{upper if is_order else "GRB"}"'
        )
    return order


Order = Annotated[str, AfterValidator(check_order)]
Volts = Annotated[float, Field(ge=0.5, le=60)]
Milliamps = Annotated[float, Field(ge=0, le=2000)]
Microseconds = Annotated[float, Field(ge=0, le=100_000)]
_Gain = Annotated[float, Field(ge=0.05, le=1)]
_Gains = Annotated[tuple[_Gain, _Gain, _Gain], Field(strict=False)]
_Share = Annotated[float, Field(ge=0.05, le=0.9)]
_Chromaticity = Annotated[tuple[_Share, _Share], Field(strict=False)]


if TYPE_CHECKING:
    _Currents: TypeAlias = float | dict[str, float]
else:
    _Currents = one_of(number=Milliamps, table=dict[Literal["R", "G", "B", "W"], Milliamps])


class Measured(Model):
    """The measured current, or power, of a number of LEDs at full white.

    Attributes:
        amps: current in all, A, with the current of dark LEDs included
        watts: instead of `amps`: power in all, W, at the voltage of the type
        leds: how many LEDs were measured
        lit: the channels that were at full; red, green and blue by default, or white alone
            if there is a white channel, because Fendra shows white with it
    """

    amps: Annotated[float, Field(gt=0, le=10_000)] | None = None
    watts: Annotated[float, Field(gt=0, le=100_000)] | None = None
    leds: Annotated[int, Field(ge=1, le=1_000_000)]
    lit: Literal["RGB", "RGBW", "W"] | None = None

    @model_validator(mode="after")
    def _is_said_once(self) -> Self:
        if (self.amps is None) == (self.watts is None):
            raise ValueError("write either `amps` or `watts`, and the number of `leds`")
        return self

    def amps_at(self, volts: float) -> float:
        """The current. volts: of the type, at which the power was measured.

        >>> round(Measured(watts=2.1, leds=60).amps_at(5.0), 3)
        0.42
        """
        return self.amps if self.amps is not None else (self.watts or 0.0) / volts


class LedFigures(Model):
    """An LED type, in a design or in the catalogue. Keys that you leave out come from `like`.

    Attributes:
        like: a type of the catalogue; for a name of the catalogue, that type
        about: for people
        order: colour channels in the order on the wire: R, G, B, and W for white
        volts: nominal voltage, V
        least_volts: below this voltage colours shift, V
        most_volts: above this voltage the LEDs die, V
        channel_ma: what a chip draws for a channel at full, mA: one number, or one for each
            channel, `{ R = 16, G = 11, B = 13 }`
        idle_ma: what a chip draws when dark, mA
        measured: a measured current instead of `channel_ma`
        data: `one-wire` or `clocked`
        bit_us: time of a bit, or of the clock, us
        reset_us: silence after a frame, us
        logic_volts: the lowest voltage that the first chip reads as a 1, V
        leds_a_chip: LEDs that one chip drives
        ohm_per_metre: of the strip's own copper, there and back together
        white: shares of red, green and blue that look white together: `[1, 0.8, 0.6]`
        white_point: instead of `white`: the chromaticity x, y (CIE 1931) of all three at
            full, from a meter
    """

    like: str | None = None
    about: str | None = None
    order: Order | None = None
    volts: Volts | None = None
    least_volts: Volts | None = None
    most_volts: Volts | None = None
    channel_ma: _Currents | None = None
    idle_ma: Milliamps | None = None
    measured: Measured | None = None
    data: Literal["one-wire", "clocked"] | None = None
    bit_us: Annotated[float, Field(ge=0.02, le=1000)] | None = None
    reset_us: Microseconds | None = None
    logic_volts: Volts | None = None
    leds_a_chip: Annotated[int, Field(ge=1, le=1000)] | None = None
    ohm_per_metre: Annotated[float, Field(ge=0.001, le=100)] | None = None
    white: _Gains | None = None
    white_point: _Chromaticity | None = None


@dataclass(frozen=True)
class LedType:
    """One LED type, with all its figures.

    order: the colour channels in the order on the wire. channel_ua, idle_ua: what a chip draws for
    each channel of `order` at full, and when dark, in whole microamperes, so that sums are exact.
    sheet_ua: the data sheet's figures, if channel_ua was measured. white: the shares of red, green
    and blue that look white together.
    """

    name: str
    about: str
    order: str
    volts: float
    least_volts: float
    most_volts: float
    channel_ua: Mapping[str, int]
    idle_ua: int
    sheet_ua: Mapping[str, int]
    data: str
    bit_s: float
    reset_s: float
    logic_volts: float
    leds_a_chip: int
    ohm_per_metre: float
    white: Shares = EVEN

    @property
    def bits(self) -> int:
        """Of one chip; clocked types have a byte for the level before the colours."""
        return 8 * (len(self.order) + (self.data == "clocked"))

    @property
    def has_own_device(self) -> bool:
        """Whether a device feeds and drives it that is none of the design's, as a keyboard does."""
        return self.idle_ua == 0 and not any(self.channel_ua.values())

    @property
    def idle_a(self) -> float:
        """The current of a dark chip, in amperes."""
        return self.idle_ua * MICRO

    @property
    def white_letters(self) -> str:
        """The channels that white lights: the white channel, if there is one."""
        return "W" if "W" in self.order else "RGB"

    def white_a(self, level: float = 1.0) -> float:
        """The current of a chip at white of a level, 0 to 1 linear, in amperes.

        >>> round(LED_TYPES["ws2812b"].white_a(), 6)
        0.061
        """
        lit = sum(self.channel_ua[letter] for letter in self.white_letters)
        return (self.idle_ua + level * lit) * MICRO


class LedError(ValueError):
    """Figures that make no LED type. key: the one that is wrong; is_missing: or is not there."""

    def __init__(
        self, key: str, message: str, remedy: str = "", *, is_missing: bool = False
    ) -> None:
        super().__init__(message)
        self.key, self.message, self.remedy, self.is_missing = key, message, remedy, is_missing


_NEEDED = ("order", "volts", "channel_ma", "idle_ma")


def led_type(name: str, figures: LedFigures, catalogue: Mapping[str, LedFigures]) -> LedType:
    """All figures of a type, including the figures of the type in `like`.

    Raises LedError if a figure is missing, or if figures contradict each other.
    """
    like = figures.like or (name if name in catalogue else None)
    if like is not None and like not in catalogue:
        remedy = number_meant(like, catalogue, "types")
        raise LedError("like", f"there is no LED type '{like}' in the catalogue.", remedy)
    said: dict[str, Any] = {} if like is None else dict(catalogue[like])
    own = {key: value for key, value in figures if value is not None}
    if "order" in own and like is not None and len(own["order"]) != len(said["order"]):
        said.pop("channel_ma")  # of other channels
    said |= own
    for key in _NEEDED:
        if said.get(key) is None:
            remedy = "Add it, or name a type that this one is like: like = 'ws2812b'."
            raise LedError(key, f"`{key}` is missing.", remedy, is_missing=True)
    order, volts = said["order"], said["volts"]
    if "volts" in own and like is not None:  # limits of another voltage say nothing of this one
        for key in ("least_volts", "most_volts", "logic_volts"):
            if key not in own and volts != catalogue[like].volts:
                said[key] = None
    least, most = said.get("least_volts") or 0.8 * volts, said.get("most_volts") or 1.1 * volts
    if not least <= volts <= most:
        raise LedError(
            "volts",
            f"{volts:g} V is not between least_volts, {least:g} V, and most_volts, {most:g} V.",
            "Write them so that the nominal voltage is between them.",
        )
    sheet = _channels(said["channel_ma"], order)
    idle_ua, per = round(said["idle_ma"] * 1000), said.get("leds_a_chip") or 1
    measured: Measured | None = said.get("measured")
    return LedType(
        name,
        said.get("about") or "",
        order,
        volts,
        least,
        most,
        sheet if measured is None else _scaled(sheet, idle_ua, measured, order, per, volts),
        idle_ua,
        sheet,
        said.get("data") or "one-wire",
        (said.get("bit_us") or 1.25) * MICRO,
        (280.0 if said.get("reset_us") is None else said["reset_us"]) * MICRO,
        said.get("logic_volts") or 0.7 * min(volts, 5.0),
        per,
        said.get("ohm_per_metre") or 0.2,
        _white(said),
    )


def _white(said: Mapping[str, Any]) -> tuple[float, float, float]:
    """The shares of the three channels that look white together."""
    if said.get("white") and said.get("white_point"):
        message = "`white` and `white_point` mean the same."
        raise LedError("white", message, "Remove one of them.")
    if said.get("white_point"):
        try:
            return gains_of(*said["white_point"])
        except ValueError as exc:
            remedy = "Daylight white is [0.3127, 0.329]."
            raise LedError("white_point", f"{exc}.", remedy) from exc
    red, green, blue = said.get("white") or EVEN
    return red, green, blue


def _channels(channel_ma: Any, order: str) -> dict[str, int]:
    if not isinstance(channel_ma, dict):
        return {letter: round(channel_ma * 1000) for letter in order}
    if {*channel_ma} != {*order}:
        raise LedError(
            "channel_ma",
            (f"it has currents for {''.join(sorted(channel_ma))}, but the order is '{order}'."),
            "Write one number for all, or one for each letter of the order.",
        )
    return {letter: round(channel_ma[letter] * 1000) for letter in order}


def _scaled(
    sheet: Mapping[str, int],
    idle_ua: int,
    measured: Measured,
    order: str,
    leds_a_chip: int,
    volts: float,
) -> dict[str, int]:
    """The channels' currents by the same factor, so that together they draw what was measured."""
    lit = measured.lit or ("W" if "W" in order else "RGB")
    if not {*lit} <= {*order}:
        remedy = f"Its channels are '{order}'."
        raise LedError("measured", "it was measured with a channel that it does not have.", remedy)
    chips = measured.leds / leds_a_chip
    amps = measured.amps_at(volts)
    each_ua = amps / MICRO / chips - idle_ua
    if each_ua <= 0:
        raise LedError(
            "measured",
            (
                f"{amps:g} A for {measured.leds} LEDs is no more than they draw when "
                f"dark, {chips * idle_ua * MICRO:g} A."
            ),
            "Measure at full white, or lower idle_ma.",
        )
    by_sheet = sum(sheet[letter] for letter in lit)
    if by_sheet == 0:
        raise LedError("measured", "channel_ma is 0, so it cannot be scaled.", "Write it too.")
    return {letter: round(sheet[letter] * each_ua / by_sheet) for letter in order}


CATALOGUE: Mapping[str, LedFigures] = {
    name: LedFigures.model_validate(keys) for name, keys in read_catalogue("leds").items()
}
LED_TYPES: Mapping[str, LedType] = {
    name: led_type(name, figures, CATALOGUE) for name, figures in CATALOGUE.items()
}


def all_types(said: Mapping[str, LedFigures]) -> dict[str, LedType]:
    """The types of the catalogue, and those that a design adds or changes; wrong ones are left out.

    If the design's change of a type is wrong, the catalogue's type counts.
    """
    found = dict(LED_TYPES)
    for name, figures in said.items():
        try:
            found[name] = led_type(name, figures, CATALOGUE)
        except LedError:
            continue
    return found
