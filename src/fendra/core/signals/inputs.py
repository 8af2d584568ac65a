"""Inputs: the numbers that feed a design's signals, their words, and their pins."""

from __future__ import annotations

from fendra.core.document.design import Design
from fendra.core.document.signal import Pin, Signal
from fendra.core.graph.node import NEWS, VALUE, Graph
from fendra.core.signals.condition import thresholds
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.pins import SERVO_US


def fed(design: Design) -> dict[str, str]:
    """Every number that arrives, and the signal that it belongs to."""
    return {
        part: name
        for name, signal in design.signals.items()
        if signal.of is None
        for part in kind_of(signal).parts(signal, name)
    }


def read_by(graph: Graph, design: Design) -> frozenset[str]:
    """The signals that are fed, and that a graph reads: themselves, a part of them, or as a
    picture.
    """
    shown = {node.payload for node in graph.nodes if node.op == "pixels"}
    read = {
        str(node.payload).removeprefix(VALUE).removeprefix(NEWS)
        for node in graph.nodes
        if node.op == "input"
    }
    return frozenset(
        name
        for name, signal in design.signals.items()
        if signal.of is None and (name in shown or read & {*kind_of(signal).parts(signal, name)})
    )


def words(design: Design) -> dict[str, dict[str, int]]:
    """The words of each signal that has some, and their numbers."""
    signals = design.signals.items()
    return {name: signal.numbers for name, signal in signals if kind_of(signal).has_words}


def moments(design: Design) -> frozenset[str]:
    """Signals that are there in one frame and gone in the next. Told again, they happen again."""
    return frozenset(name for name, signal in design.signals.items() if kind_of(signal).is_moment)


def colours(design: Design) -> frozenset[str]:
    """The numbers that arrive and are colours, each as `pack_colour` packs it."""
    known, signals = fed(design), design.signals
    return frozenset(part for part, name in known.items() if kind_of(signals[name]).wants_colour)


ANY = "*"
"""Stands for every source."""


def split_source(text: str) -> tuple[str, str]:
    """The source and its own name of a signal; no source where any will do.

    >>> split_source("bus:pedal"), split_source("speed")
    (('bus', 'pedal'), ('', 'speed'))
    """
    source, colon, name = text.partition(":")
    return (source, name) if colon else ("", text)


def pin_of(signal: Signal) -> Pin | None:
    """A signal's pin in full; None if it has none."""
    if not signal.pin:
        return None
    pin = signal.pin if isinstance(signal.pin, Pin) else Pin(name=signal.pin)
    kind = kind_of(signal)
    if not pin.kind:
        return pin.model_copy(update={"kind": kind.pin(signal, pin) or "switch"})
    return _servo(signal, pin) if pin.kind == "servo" else pin


def _servo(signal: Signal, pin: Pin) -> Pin:
    """A servo's pin: 1000 to 2000 us are its ends by default."""
    kind, (low, high) = kind_of(signal), SERVO_US
    if kind.measures and not (pin.is_calibrated or signal.is_calibrated):
        return pin.model_copy(update={"calibrate": SERVO_US})
    if kind.is_truth and thresholds(pin) is None and thresholds(signal) is None:
        ends = {"on_at": low + 0.6 * (high - low), "off_at": low + 0.4 * (high - low)}
        return pin.model_copy(update=ends)
    if kind.has_words and not pin.bands and len(signal.numbers) > 1:
        step = (high - low) / (len(signal.numbers) - 1)
        bands = [low + (i + 0.5) * step for i in range(len(signal.numbers) - 1)]
        return pin.model_copy(update={"bands": bands})
    return pin


def heard_by_peers(design: Design) -> dict[str, tuple[str, ...]]:
    """The signals that controllers with peers receive, and the numbers of each."""
    first = next(iter(design.controllers), None)
    talking = {name for name, each in design.controllers.items() if each.peers is not None}
    pins = {name: pin_of(signal) for name, signal in design.signals.items()}
    return {
        name: kind_of(design.signals[name]).parts(design.signals[name], name)
        for name, pin in pins.items()
        if pin is not None and (pin.controller or first) in talking
    }


def inputs_of(design: Design, controller: str) -> dict[str, Pin]:
    """The signals that are connected to a controller, and where."""
    first = next(iter(design.controllers), None)
    pins = {name: pin_of(signal) for name, signal in design.signals.items()}
    return {
        name: pin
        for name, pin in pins.items()
        if pin is not None and (pin.controller or first) == controller
    }
