"""Supplies: what feeds the lines, and how much it gives."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fendra.core.catalogue.leds import Volts
from fendra.core.catalogue.wires import Lead
from fendra.core.values import Model

USB_PORTS_A: dict[str, float] = {"2.0": 0.5, "3.0": 0.9, "C 1.5 A": 1.5, "C 3 A": 3.0}
"""Kinds of USB port and their current at 5 V: USB 2.0 and 3.2, and USB Type-C as advertised."""

SHARE = 0.8
"""Share of its rating at which a supply is run at most."""

EFFICIENCY = 0.88
"""Efficiency of a step-down converter without figures; usual ones have 0.85 to 0.92."""

RATINGS_A = (1.0, 2.0, 3.0, 5.0, 8.0, 10.0, 15.0, 20.0, 25.0, 30.0, 40.0, 50.0, 60.0)
"""Usual ratings of converters and power supplies, in amperes."""

EMPTY_SHARE = 0.8
"""The share of a battery's nominal voltage when it is nearly empty."""

Amps = Annotated[float, Field(gt=0, le=10_000)]


class Battery(Model):
    """A battery behind a supply.

    Attributes:
        volts: nominal voltage, V
        ah: ampere-hours
        cells: cells in series
    """

    volts: Annotated[float, Field(gt=0, le=1000)] | None = None
    ah: Annotated[float, Field(gt=0, le=10_000)]
    cells: Annotated[int, Field(ge=1, le=300)] | None = None

    @property
    def nominal_volts(self) -> float:
        """The voltage that the design gives, or 3.7 V a cell."""
        return self.volts if self.volts is not None else 3.7 * (self.cells or 1)

    @property
    def lowest_volts(self) -> float:
        """Nearly empty: 3.0 V a cell of lithium, four fifths of the nominal voltage."""
        return EMPTY_SHARE * self.nominal_volts

    @property
    def watt_hours(self) -> float:
        return self.nominal_volts * self.ah


class Converter(Model):
    """A converter between battery and LEDs.

    Attributes:
        efficiency: 0.2 to 1
        amps: rated current of its output, A; Fendra proposes one if you leave it out
    """

    efficiency: Annotated[float, Field(ge=0.2, le=1)] = EFFICIENCY
    amps: Amps | None = None


class Supply(Model):
    """A supply that feeds lines.

    Attributes:
        about: for people
        volts: voltage at its output, V
        amps: rated current, A
        usb: the kind of USB port that it is
        regulator_of: the controller whose own regulator feeds the LEDs
        battery: the battery behind it
        converter: the converter between battery and LEDs
        wire: the lead to each line; 0.3 m of 0.5 mm² by default
        budget: the current that the limiter keeps, A; four fifths of the rating by default
        limiter: `false` switches the limiter off
    """

    about: str = ""
    volts: Volts | None = None
    amps: Amps | None = None
    usb: Literal["2.0", "3.0", "C 1.5 A", "C 3 A"] | None = None
    regulator_of: str | None = None
    battery: Battery | None = None
    converter: Converter | None = None
    wire: Lead = Lead()
    budget: Amps | None = None
    limiter: bool = True

    def ratings_a(self, regulator_a: float | None = None) -> dict[str, float]:
        """Every rated current that the design gives, in amperes, by its key."""
        found = {
            "amps": self.amps,
            "usb": USB_PORTS_A[self.usb] if self.usb else None,
            "converter": self.converter.amps if self.converter else None,
            "regulator_of": regulator_a,
        }
        return {key: amps for key, amps in found.items() if amps is not None}

    def known_volts(self) -> float | None:
        """Its voltage, if the design gives it or it follows from the kind of supply."""
        if self.volts is not None:
            return self.volts
        if self.usb is not None:
            return 5.0
        if self.battery is not None and self.converter is None:
            return self.battery.nominal_volts
        return None
