"""Kinds of pins: what is connected, its raw numbers, and the signals that it can feed."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from fendra.core.document.signal import Pin


@dataclass(frozen=True)
class PinKind:
    """A kind of thing that is connected to a pin.

    tells: its raw numbers, in words. feeds: kinds of signals that it can feed. keys: the keys of
    its table, beside those that all pins have. pulls: whether the chip can pull it while nothing is
    connected.
    """

    tells: str
    feeds: frozenset[str]
    keys: frozenset[str] = frozenset()
    pulls: bool = True


PIN_KINDS = {
    "switch": PinKind("on and off", frozenset({"switch", "event"})),
    "analogue": PinKind(
        "0 to 1 of the full scale", frozenset({"number", "switch", "choice"}), pulls=False
    ),
    "pulses": PinKind(
        "pulses a second", frozenset({"number", "switch", "choice"}), frozenset({"per", "quiet"})
    ),
    "servo": PinKind("the length of a pulse in us", frozenset({"number", "switch", "choice"})),
    "knob": PinKind(
        "clicks", frozenset({"number", "choice"}), frozenset({"other", "edges", "step"})
    ),
    "matrix": PinKind(
        "keys",
        frozenset({"vector", "event", "number"}),
        frozenset({"rows", "columns", "diodes", "order", "of", "part"}),
    ),
    "temperature": PinKind(
        "degrees Celsius", frozenset({"number", "switch", "choice"}), pulls=False
    ),
}
"""By the word that a design has for each."""

SERVO_US = (1000.0, 2000.0)
"""The ends of a servo's pulse, where nothing else is said."""


def pin_names(pin: Pin) -> Iterator[tuple[str, tuple[str | int, ...]]]:
    """Every pin of the controller that an input uses, and its key in the input's table."""
    if pin.name and pin.kind not in ("matrix", "temperature"):
        yield pin.name, ()
    if pin.other:
        yield pin.other, ("other",)
    for key in ("rows", "columns"):
        for place, name in enumerate(getattr(pin, key)):
            yield name, (key, place)
