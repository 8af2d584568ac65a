"""Pins of signals: can each tell what its signal needs, and is all there that it needs for that?"""

from __future__ import annotations

from fendra.core.catalogue.controllers import ControllerType
from fendra.core.checks import Subject, check
from fendra.core.document.design import Design
from fendra.core.document.signal import Pin, Signal
from fendra.core.findings import KeyPath, Report
from fendra.core.names import did_you_mean
from fendra.core.signals.condition import thresholds
from fendra.core.signals.inputs import inputs_of, pin_of
from fendra.core.signals.kept import kept_knobs, kept_scenes
from fendra.core.signals.kinds import KINDS, kind_of, listed_kinds
from fendra.core.signals.pins import PIN_KINDS, PinKind
from fendra.core.toml_text import value_text


@check
def input_pins(subject: Subject, report: Report) -> None:
    """Signals at pins that cannot feed them."""
    known = subject.design.controllers
    for name, controller in known.items():
        for signal, pin in inputs_of(subject.design, name).items():
            given = subject.design.signals[signal]
            _hold_pin(given, signal, pin, controller.known_type, subject.design, report)
    for signal, each in subject.design.signals.items():
        path: KeyPath = ("signals", signal, "pin")
        at = pin_of(each)
        if at is not None and not known:
            message = f"signal '{signal}' has a pin, but the design has no controller."
            remedy = "Add [controllers.main] with its type."
            report.error(path, "missing-key", message, remedy)
        elif at is not None and at.controller not in (None, *known):
            message = f"there is no controller '{at.controller}'."
            remedy = did_you_mean(str(at.controller), known, "controllers")
            report.error((*path, "controller"), "unknown-name", message, remedy)


def _hold_pin(
    signal: Signal, name: str, pin: Pin, kind: ControllerType | None, design: Design, report: Report
) -> None:
    path: KeyPath = ("signals", name, "pin")
    if signal.of is not None:
        message = f"'{name}' is computed from other signals, so its pin {pin.name} is never read."
        report.error(path, "pin-cannot", message, "Remove pin, or of.")
    elif signal.kind not in _kind(pin).feeds or (
        pin.kind == "analogue" and not _tells(signal, pin)
    ):
        report.error(path, "pin-cannot", *_no_pin(signal, name, pin))
    elif _lacks(pin):
        report.error(path, "missing-key", *_what_lacks(pin, name))
    elif kind is not None and pin.kind == "temperature" and not kind.has_thermometer:
        message = f"{kind.name} cannot measure its temperature for '{name}'."
        report.error(path, "pin-cannot", message, "Use a sensor at an analogue pin.")
    elif kind is not None and pin.kind == "analogue":
        if kind.own_name(pin.name) not in kind.analogue_pins:
            message = f"pin {pin.name} of {kind.name} cannot read a voltage, which '{name}' needs."
            able = ", ".join(kind.analogue)
            remedy = f"Those that can: {able}." if able else "None of its pins can."
            if kind_of(signal).is_truth:
                switch = value_text({"name": pin.name, "kind": "switch"})
                remedy += f" Or write pin = {switch}, for on and off."
            report.error(path, "pin-cannot", message, remedy)
        else:
            _hold_scale(signal, name, pin, report)
    elif pin.kind == "matrix":
        _hold_matrix(signal, name, pin, design, report)
    elif pin.kind == "servo" and signal.lost_after is None:
        message = f"'{name}' never notices that the receiver has stopped."
        report.note(path, "never-lost", message, f"Add lost_after = 0.5 to [signals.{name}].")
    elif kind is not None and _kind(pin).pulls and pin.pull not in (*kind.pulls, "none"):
        message = f"{kind.name} cannot pull pin {pin.name} {pin.pull}."
        remedy = f"Add a resistor of 10 kohm, and write pin = {_written(pin, pull='none')}."
        report.error(path, "pin-cannot", message, remedy)


@check
def kept(subject: Subject, report: Report) -> None:
    """Signals that are to be kept, and are nothing that anybody sets and leaves so."""
    design = subject.design
    chosen = " ".join(design.scene[i].button for i in kept_scenes(design))
    for name, signal in design.signals.items():
        if signal.keep and name not in kept_knobs(design) and name not in chosen:
            message = (
                f"'{name}' is not a knob at a pin and steps through no scenes: there is "
                "nothing to keep."
            )
            report.warning(("signals", name, "keep"), "no-effect", message, "Remove keep.")


def _kind(pin: Pin) -> PinKind:
    return PIN_KINDS[pin.kind or "switch"]


def _tells(signal: Signal, pin: Pin) -> bool:
    """Whether a pin's values become words of a choice: a voltage needs bands for that."""
    return signal.kind != "choice" or pin.kind in ("servo", "knob") or bool(pin.bands)


def _lacks(pin: Pin) -> bool:
    """Whether an input does not say at which pins it is."""
    if pin.kind == "matrix":
        return not pin.of and not (pin.rows and pin.columns)
    return (not pin.name and pin.kind != "temperature") or (pin.kind == "knob" and not pin.other)


def _what_lacks(pin: Pin, name: str) -> tuple[str, str]:
    if pin.kind == "matrix":
        return (
            f"the matrix of '{name}' needs its rows and columns.",
            'Write pin = { kind = "matrix", rows = ["GP6", "GP7"], columns = ["GP8", "GP9"] }, or '
            "of = the signal that has them.",
        )
    if pin.kind == "knob":
        return (
            f"the knob of '{name}' needs its second pin.",
            f"Write pin = {_written(pin, other='GP3')}.",
        )
    return f"the pin of '{name}' has no name.", f"Write pin = {_written(pin, name='GP2')}."


def _hold_matrix(signal: Signal, name: str, pin: Pin, design: Design, report: Report) -> None:
    """Keys: as many as the vector has numbers, each once."""
    path: KeyPath = ("signals", name, "pin")
    places = len(pin.rows) * len(pin.columns)
    parts = [each.name for line in design.line for each in line.part]
    if pin.part and pin.part not in parts:
        message = f"there is no part '{pin.part}'."
        remedy = did_you_mean(pin.part, parts, "parts")
        report.error((*path, "part"), "unknown-name", message, remedy)
    if pin.of and (pin.rows or pin.columns):
        message = f"'{name}' shares the matrix of '{pin.of}', but it has rows and columns too."
        report.error(
            (*path, "of"), "wrong-value", message, "Remove `of`, or remove `rows` and `columns`."
        )
        return
    own = design.signals.get(pin.of)
    at_owner = pin_of(own) if own is not None else None
    first = next(iter(design.controllers), None)
    if at_owner is not None and (at_owner.controller or first) != (pin.controller or first):
        message = f"the matrix of '{pin.of}' is on another controller than '{name}'."
        remedy = f'Write controller = "{at_owner.controller or first}" here too.'
        report.error((*path, "of"), "wrong-value", message, remedy)
        return
    owners = [
        other
        for other, each in design.signals.items()
        if isinstance(each.pin, Pin) and each.pin.kind == "matrix" and each.pin.rows
    ]
    if pin.of and pin.of not in owners:
        message = f"'{pin.of}' has no matrix with rows and columns."
        remedy = did_you_mean(pin.of, owners, "signals with a matrix")
        report.error((*path, "of"), "unknown-name", message, remedy)
        return
    if pin.of:
        return
    if pin.order and len(pin.order) != places:
        message = f"there are {len(pin.order)} numbers for the {places} places of the matrix."
        report.error(
            (*path, "order"),
            "wrong-value",
            message,
            f"Write {places}, -1 for no key.",
        )
        return
    order = [key for key in pin.order if key >= 0] or [*range(places)]
    if len({*order}) < len(order):
        message = f"key {next(key for key in order if order.count(key) > 1)} appears twice."
        report.error((*path, "order"), "wrong-value", message, "Give each key its own number.")
    elif signal.kind == "vector" and max(order) + 1 != (signal.size or 1):
        message = (
            f"the matrix has keys up to {max(order)}, but '{name}' has {signal.size or 1} numbers."
        )
        report.error((*path[:2], "size"), "wrong-value", message, f"Write size = {max(order) + 1}.")


def _no_pin(signal: Signal, name: str, pin: Pin) -> tuple[str, str]:
    """Why no pin can feed a signal, and which sources can."""
    if signal.kind == "choice" and not _tells(signal, pin):
        words = [*signal.numbers]
        ends = [round((i + 1) / max(len(words), 2), 2) for i in range(max(len(words) - 1, 1))]
        remedy = f"Write pin = {_written(pin, bands=ends)}: where the next word begins. Of "
        remedy += "several switches, give each a signal, and compute the choice by `of`."
        return f"pin {pin.name} gives 0 to 1, but '{name}' is a word.", remedy
    remedy = "Remove it. In the firmware, board_read can set the signal from elsewhere."
    is_a = f"but '{name}' is {listed_kinds([KINDS[signal.kind]])}."
    if isinstance(signal.pin, Pin) and signal.pin.kind:
        able = listed_kinds(each for each in KINDS.values() if each.name in _kind(pin).feeds)
        return f"a pin of kind {pin.kind} gives {able}, {is_a}", remedy
    able = " or ".join(kind for kind, each in PIN_KINDS.items() if signal.kind in each.feeds)
    if able:
        remedy = f"Only a pin of kind {able} can feed it: write its `kind` and its pins."
    return f"pin {pin.name} gives one value, {is_a}", remedy


def _hold_scale(signal: Signal, name: str, pin: Pin, report: Report) -> None:
    """A pin gives 0 to 1: does that become a value of the signal?"""
    path: KeyPath = ("signals", name, "pin")
    told = f"pin {pin.name} gives 0 to 1 of full scale"
    ends = thresholds(signal)
    if ends is not None and thresholds(pin) is None and not 0 <= min(ends) <= max(ends) <= 1:
        first, last = (0.6, 0.4) if ends[0] >= ends[1] else (0.4, 0.6)
        message = f"{told}, but '{name}' turns on at {ends[0]:g}."
        remedy = f"Write pin = {_written(pin, on_at=first, off_at=last)}, or your own limits."
        report.warning(path, "not-calibrated", message, remedy)
    if not kind_of(signal).measures or pin.is_calibrated or signal.is_calibrated:
        return  # with a source as well, `whose_numbers` has something to say
    if signal.cells is not None:
        message = f"{told}, but '{name}' is in volts."
        remedy = (
            f"Write pin = {_written(pin, curve=[[0, 0], [1, 25]])}, with the volts at full scale."
        )
        report.warning(path, "not-calibrated", message, remedy)
    elif signal.range not in (None, (0, 1)):
        low, high = signal.range or (0, 1)
        message = f"{told}, but '{name}' is {low:g} to {high:g}."
        remedy = f"Write pin = {_written(pin, calibrate=[0, 1])}, or its values at both ends."
        report.warning(path, "not-calibrated", message, remedy)


def _written(pin: Pin, **more: object) -> str:
    """A pin as it is written, with further keys."""
    return value_text(pin.model_dump(exclude_unset=True, exclude={"kind"}) | more)
