"""Inputs of signals: can each tell what the signal needs, and whose numbers are they?"""

from __future__ import annotations

from collections.abc import Iterator

from fendra.core.catalogue.controllers import ControllerType
from fendra.core.checks import Subject, check
from fendra.core.document.design import Design
from fendra.core.document.signal import From, Input, Pin, Signal
from fendra.core.findings import KeyPath, Report
from fendra.core.names import counted, did_you_mean
from fendra.core.signals.condition import thresholds
from fendra.core.signals.door import is_one_way
from fendra.core.signals.inputs import inputs_of, pin_of, split_source
from fendra.core.signals.kinds import KINDS, kind_of, listed_kinds
from fendra.core.toml_text import value_text


@check
def input_pins(subject: Subject, report: Report) -> None:
    """Signals at pins that cannot tell what the signal needs."""
    known = subject.design.controllers
    for name, controller in known.items():
        for signal, pin in inputs_of(subject.design, name).items():
            given = subject.design.signals[signal]
            _hold_pin(given, signal, pin, controller.known_type, report)
    for signal, each in subject.design.signals.items():
        path: KeyPath = ("signals", signal, "pin")
        at = pin_of(each)
        if at is not None and not known:
            message = f"signal '{signal}' has a pin, and the design has no controller."
            remedy = "Add [controllers.main] with its type."
            report.error(path, "missing-key", message, remedy)
        elif at is not None and at.controller not in (None, *known):
            message = f"there is no controller '{at.controller}'."
            remedy = did_you_mean(str(at.controller), known, "controllers")
            report.error((*path, "controller"), "unknown-name", message, remedy)


def _hold_pin(
    signal: Signal, name: str, pin: Pin, kind: ControllerType | None, report: Report
) -> None:
    path: KeyPath = ("signals", name, "pin")
    if signal.of is not None:
        message = f"'{name}' follows from other signals, so its pin {pin.name} is never read."
        report.error(path, "pin-cannot", message, "Remove pin, or of.")
    elif kind_of(signal).pin(signal, pin) is None:
        report.error(path, "pin-cannot", *_no_pin(signal, name, pin))
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
    elif kind is not None and pin.pull not in (*kind.pulls, "none"):
        message = f"{kind.name} has nothing that pulls pin {pin.name} {pin.pull}."
        remedy = f"Put a resistor of 10 kohm there, and write pin = {_written(pin, pull='none')}."
        report.error(path, "pin-cannot", message, remedy)


def _no_pin(signal: Signal, name: str, pin: Pin) -> tuple[str, str]:
    """Why no pin tells a signal, and what does."""
    if signal.kind == "choice":
        words = [*signal.numbers]
        ends = [round((i + 1) / max(len(words), 2), 2) for i in range(max(len(words) - 1, 1))]
        remedy = f"Write pin = {_written(pin, bands=ends)}: where the next word begins. Of "
        remedy += "several switches, give each a signal, and compute the choice by `of`."
        return f"pin {pin.name} tells 0 to 1, and '{name}' is a word.", remedy
    able = listed_kinds(each for each in KINDS.values() if each.pin(signal, pin) is not None)
    message = f"a pin tells {able}, and '{name}' is a {signal.kind}."
    return message, "Remove it. In the firmware, board_read can set the signal from elsewhere."


def _hold_scale(signal: Signal, name: str, pin: Pin, report: Report) -> None:
    """A pin tells 0 to 1: does that become what the signal takes?"""
    path: KeyPath = ("signals", name, "pin")
    told = f"pin {pin.name} tells 0 to 1 of the full scale"
    ends = thresholds(signal)
    if ends is not None and thresholds(pin) is None and not 0 <= min(ends) <= max(ends) <= 1:
        first, last = (0.6, 0.4) if ends[0] >= ends[1] else (0.4, 0.6)
        message = f"{told}, and '{name}' goes on at {ends[0]:g}."
        remedy = f"Write pin = {_written(pin, on_at=first, off_at=last)}, or where it is for you."
        report.warning(path, "not-calibrated", message, remedy)
    if not kind_of(signal).measures or pin.is_calibrated or signal.is_calibrated:
        return  # with a source as well, `whose_numbers` has something to say
    if signal.cells is not None:
        message = f"{told}, and '{name}' is counted in volts."
        remedy = (
            f"Write pin = {_written(pin, curve=[[0, 0], [1, 25]])}, with the volts at full scale."
        )
        report.warning(path, "not-calibrated", message, remedy)
    elif signal.range not in (None, (0, 1)):
        low, high = signal.range or (0, 1)
        message = f"{told}, and '{name}' is {low:g} to {high:g}."
        remedy = f"Write pin = {_written(pin, calibrate=[0, 1])}, or what it tells at both ends."
        report.warning(path, "not-calibrated", message, remedy)


def _written(pin: Pin, **more: object) -> str:
    """A pin as it is written, with further keys."""
    return value_text(pin.model_dump(exclude_unset=True, exclude={"kind"}) | more)


def _named_sources(signal: Signal) -> list[From]:
    return [given for given in signal.sources if given != From()]


def _inputs(signal: Signal, name: str) -> Iterator[tuple[KeyPath, Input, str]]:
    """Every input of a signal: where it is written, what is said of it, and what it is called."""
    pin = pin_of(signal)
    if pin is not None:
        yield ("signals", name, "pin"), pin, f"pin {pin.name}"
    is_list = isinstance(signal.source, list)
    for place, given in enumerate(_named_sources(signal)):
        path: KeyPath = ("signals", name, "source", *([place] if is_list else []))
        yield path, given, f"source '{given.name or name}'"


@check
def whose_numbers(subject: Subject, report: Report) -> None:
    """One calibration for inputs that tell different numbers."""
    for name, signal in subject.design.signals.items():
        inputs = [*_inputs(signal, name)] if signal.of is None else []
        own = [given for _, given, _ in inputs if given.is_calibrated]
        if own and signal.curve and not is_one_way(signal.curve):
            message = "this curve goes up and down, so no input can have a scale of its own."
            remedy = "Take it out, and give it to the inputs that it is meant for."
            report.error(("signals", name, "curve"), "two-inputs", message, remedy)
        if (signal.calibrate is not None and signal.scale is None) or (
            own and signal.scale is None and any(given.calibrate is not None for given in own)
        ):  # fmt: skip
            message = "how many cells there are is guessed from volts, and nothing says the volts."
            remedy = "Write curve = [[raw, volts], [raw, volts]] instead of calibrate."
            where = ("calibrate",) if signal.calibrate is not None else ()
            report.error(("signals", name, *where), "two-inputs", message, remedy)
        bare = [(path, given, called) for path, given, called in inputs if not given.is_calibrated]
        if signal.is_calibrated and len(bare) > 1 and kind_of(signal).measures:
            key = "calibrate" if signal.calibrate is not None else "curve"
            others = " and ".join(called for _, _, called in bare)
            message = f"{others} tell different numbers, and `{key}` is for both."
            report.warning(("signals", name, key), "two-inputs", message, _whose(signal, bare))


def _whose(signal: Signal, bare: list[tuple[KeyPath, Input, str]]) -> str:
    """What to write for the last input that says nothing itself, so that the others stay as they
    are.
    """
    path, given, _ = bare[0]
    key = "calibrate" if signal.calibrate is not None else "curve"
    written = signal.calibrate or signal.curve
    values = given.model_dump(exclude_unset=True)
    if isinstance(given, Pin):
        values.pop("kind", None)
        raws = signal.calibrate or [raw for raw, _ in signal.curve]
        if not 0 <= min(raws) <= max(raws) <= 1:  # not what a pin tells
            key, written = "calibrate", (0.0, 1.0)
    return f"Say it of each: {path[2]} = {value_text({**values, key: written})}."


@check
def input_settings(subject: Subject, report: Report) -> None:
    """Sources that there are not, and what is said of an input and does nothing."""
    design = subject.design
    for name, signal in design.signals.items():
        for path, given, called in _inputs(signal, name):
            if isinstance(given, From):
                _hold_source(given, path, design, report)
            if signal.kind not in KINDS:
                continue
            useful = kind_of(signal).of_input
            if isinstance(given, Pin) and given.kind == "switch":
                useful = useful & {"invert"} or frozenset({"invert"})
            for key in sorted(given.model_fields_set & {*Input.model_fields} - useful):
                what = f"{called} tells a {signal.kind}"
                what += (
                    " by on and off" if isinstance(given, Pin) and given.kind == "switch" else ""
                )
                message = f"{what}; `{key}` does nothing there."
                report.warning((*path, key), "no-effect", message, "Remove it.")
            if given.bands and len(given.bands) + 1 != len(signal.numbers):
                words = len(signal.numbers)
                message = (
                    f"{counted(words, 'word')} have {words - 1} borders between them, and here are "
                    f"{len(given.bands)}."
                )
                remedy = "Write where each word but the first begins, in ascending order."
                report.error((*path, "bands"), "wrong-value", message, remedy)


def _hold_source(given: From, path: KeyPath, design: Design, report: Report) -> None:
    source, _ = split_source(given.name)
    if source and source not in design.sources:
        remedy = did_you_mean(source, design.sources, "sources")
        report.error(path, "unknown-name", f"there is no source '{source}'.", remedy)
