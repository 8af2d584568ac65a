"""Inputs of signals: which scale do their numbers have, and do their keys have an effect?"""

from __future__ import annotations

from collections.abc import Iterator

from fendra.core.checks import Subject, check
from fendra.core.document.design import Design
from fendra.core.document.signal import From, Input, Pin, Signal
from fendra.core.findings import KeyPath, Report
from fendra.core.names import counted, did_you_mean
from fendra.core.signals.door import is_one_way
from fendra.core.signals.inputs import pin_of, split_source
from fendra.core.signals.kinds import KINDS, kind_of, listed_kinds
from fendra.core.signals.pins import PIN_KINDS
from fendra.core.toml_text import value_text


def _named_sources(signal: Signal) -> list[From]:
    return [given for given in signal.sources if given != From()]


def _inputs(signal: Signal, name: str) -> Iterator[tuple[KeyPath, Input, str]]:
    """Every input of a signal: its place in the file, its keys, and its name in messages."""
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
            remedy = "Remove it, and give it to the inputs that need it."
            report.error(("signals", name, "curve"), "two-inputs", message, remedy)
        if (signal.calibrate is not None and signal.scale is None) or (
            own and signal.scale is None and any(given.calibrate is not None for given in own)
        ):  # fmt: skip
            message = (
                "the number of cells is guessed from the voltage, and nothing gives the voltage."
            )
            remedy = "Write curve = [[raw, volts], [raw, volts]] instead of calibrate."
            where = ("calibrate",) if signal.calibrate is not None else ()
            report.error(("signals", name, *where), "two-inputs", message, remedy)
        bare = [(path, given, called) for path, given, called in inputs if not given.is_calibrated]
        if signal.is_calibrated and len(bare) > 1 and kind_of(signal).measures:
            key = "calibrate" if signal.calibrate is not None else "curve"
            others = " and ".join(called for _, _, called in bare)
            message = f"{others} have different scales, and `{key}` is for both."
            report.warning(("signals", name, key), "two-inputs", message, _whose(signal, bare))


def _whose(signal: Signal, bare: list[tuple[KeyPath, Input, str]]) -> str:
    """The text to write for the last input without a scale, so that the others stay as they are."""
    path, given, _ = bare[0]
    key = "calibrate" if signal.calibrate is not None else "curve"
    written = signal.calibrate or signal.curve
    values = given.model_dump(exclude_unset=True)
    if isinstance(given, Pin):
        values.pop("kind", None)
        raws = signal.calibrate or [raw for raw, _ in signal.curve]
        if not 0 <= min(raws) <= max(raws) <= 1:  # a pin does not give this
            key, written = "calibrate", (0.0, 1.0)
    return f"Set it for each: {path[2]} = {value_text({**values, key: written})}."


@check
def input_settings(subject: Subject, report: Report) -> None:
    """Unknown sources, and keys of an input that have no effect."""
    design = subject.design
    for name, signal in design.signals.items():
        for path, given, called in _inputs(signal, name):
            if isinstance(given, From):
                _hold_source(given, path, design, report)
            if signal.kind not in KINDS:
                continue
            useful = kind_of(signal).of_input
            if isinstance(given, Pin):
                _hold_keys(given, path, report)
            if isinstance(given, Pin) and given.kind == "switch":
                useful = useful & {"invert"} or frozenset({"invert"})
            for key in sorted(given.model_fields_set & {*Input.model_fields} - useful):
                what = f"{called} gives {listed_kinds([KINDS[signal.kind]])}"
                what += (
                    " by on and off" if isinstance(given, Pin) and given.kind == "switch" else ""
                )
                message = f"{what}; `{key}` has no effect."
                report.warning((*path, key), "no-effect", message, "Remove it.")
            if given.bands and len(given.bands) + 1 != len(signal.numbers):
                words = len(signal.numbers)
                message = (
                    f"{counted(words, 'word')} have {words - 1} borders between "
                    f"them; there are {len(given.bands)}."
                )
                remedy = "Write where each word but the first begins, in ascending order."
                report.error((*path, "bands"), "wrong-value", message, remedy)


def _hold_keys(pin: Pin, path: KeyPath, report: Report) -> None:
    """Keys of a pin that its kind does not have."""
    all_keys: frozenset[str] = frozenset().union(*(each.keys for each in PIN_KINDS.values()))
    for key in sorted(pin.model_fields_set & (all_keys - PIN_KINDS[pin.kind or "switch"].keys)):
        message = f"a pin of kind {pin.kind} has no `{key}`; it has no effect."
        report.warning((*path, key), "no-effect", message, "Remove it.")


def _hold_source(given: From, path: KeyPath, design: Design, report: Report) -> None:
    source, _ = split_source(given.name)
    if source and source not in design.sources:
        remedy = did_you_mean(source, design.sources, "sources")
        report.error(path, "unknown-name", f"there is no source '{source}'.", remedy)
