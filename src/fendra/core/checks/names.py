"""Names: each once, and none that means something else."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.core.checks import Subject, check
from fendra.core.findings import KeyPath, Report
from fendra.core.language.vocabulary import FUNCTIONS
from fendra.core.layout.choice import ALL
from fendra.core.layout.columns import ORDER_COLUMNS, SPOT_COLUMNS
from fendra.core.names import did_you_mean
from fendra.core.signals.kinds import kind_of

RESERVED = frozenset(
    {*SPOT_COLUMNS, *ORDER_COLUMNS, *FUNCTIONS, "and", "or", "not", "if", "else"}
    | {"True", "False", "None", "at", "in", "is", "lambda", "for"}
)
"""Names that have another meaning in expressions."""


@check
def duplicate_names(subject: Subject, report: Report) -> None:
    """Two lines, parts or layers with one name, so that a name is ambiguous."""
    design = subject.design
    _each_once(
        "line", ((("line", i, "name"), line.name) for i, line in enumerate(design.line)), report
    )
    parts = [((*part.path, "name"), part.name) for part in subject.layout.parts]
    parts += [((*path, "name"), name) for name, path in subject.layout.assemblies]
    _each_once("part", parts, report)
    layers = ((("layer", i, "name"), layer.name) for i, layer in enumerate(design.layer))
    _each_once("layer", layers, report)
    scenes = ((("scene", i, "name"), scene.name) for i, scene in enumerate(design.scene))
    _each_once("scene", scenes, report)


def _each_once(what: str, names: Iterable[tuple[KeyPath, str]], report: Report) -> None:
    seen: set[str] = set()
    for path, name in names:
        if name in seen:
            message = f"two {what}s have the name '{name}'."
            report.error(path, "duplicate-name", message, f"Give this {what} a name of its own.")
        seen.add(name)


@check
def reserved_names(subject: Subject, report: Report) -> None:
    """Names that an expression or `on` reads as something else."""
    for name in subject.design.signals:
        if name in RESERVED:
            message = f"in expressions '{name}' has another meaning."
            report.error(
                ("signals", name), "reserved-name", message, "Give the signal another name."
            )
    for part in subject.layout.parts:
        if part.name == ALL:
            message = f"'{ALL}' means every LED."
            report.error(
                (*part.path, "name"), "reserved-name", message, "Give the part another name."
            )


@check
def panel_rows(subject: Subject, report: Report) -> None:
    """Signals of the panel that do not exist, or that cannot be set by hand."""
    design = subject.design
    settable = [
        name
        for name, signal in design.signals.items()
        if signal.of is None and not kind_of(signal).is_picture
    ]
    for number, row in enumerate(design.panel):
        path = ("panel", number, "signal")
        if row.control == "scene" and not design.scene:
            message = "this design has no scenes to choose from."
            report.error(("panel", number, "control"), "unknown-name", message, "Remove the row.")
        if row.signal is None or row.signal in settable:
            continue
        if row.signal in design.signals:
            message = (
                f"signal '{row.signal}' is computed or a picture, so you cannot set it by hand."
            )
            report.error(path, "wrong-value", message, "Name another signal.")
        else:
            message = f"there is no signal '{row.signal}'."
            remedy = did_you_mean(row.signal, settable, "signals")
            report.error(path, "unknown-name", message, remedy)
