"""Conditions: can they ever hold, and does one scene always hide another?

If a condition only compares signals with numbers, it is tried in every case that it can tell apart:
each signal at, below and above each number that it is compared with.
"""

from __future__ import annotations

import ast
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from itertools import product
from typing import Any

import numpy as np

from fendra.core.arrays import Truths
from fendra.core.checks import Subject, check
from fendra.core.document.design import Design
from fendra.core.document.signal import Signal
from fendra.core.errors import ExpressionError, GraphError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.bounds import Bounds
from fendra.core.graph.fixed import compute_fixed
from fendra.core.graph.functions import clamp
from fendra.core.graph.narrow import Narrower
from fendra.core.graph.node import Graph, Node
from fendra.core.graph.ops import Kind
from fendra.core.graph.passes import is_const, simplify
from fendra.core.graph.trace import Tracer, Value
from fendra.core.insight.timeline import timeline_of
from fendra.core.insight.visible import barely_lit, layers_seen
from fendra.core.language.expression import Scope, compile_expression
from fendra.core.language.reader import read
from fendra.core.signals.inputs import words
from fendra.core.signals.kinds import kind_of

MOST_CASES = 20_000
"""The most cases that are tried; a condition with more is not judged."""
ANOTHER_TAPE = "Try a tape on which its condition is true."


@dataclass
class _Reading:
    """For each signal that is fed, the numbers that conditions compare it with."""

    design: Design
    numbers: dict[str, set[float]] = field(default_factory=dict)
    is_simple: bool = True

    def read(self, text: str) -> None:
        """Note what a condition compares; `is_simple` becomes false if it does more."""
        try:
            self._visit(read(text))
        except (ExpressionError, RecursionError):
            self.is_simple = False

    def _visit(self, node: ast.expr) -> None:
        match node:
            case ast.BoolOp():
                for value in node.values:
                    self._visit(value)
            case ast.UnaryOp(op=ast.Not()):
                self._visit(node.operand)
            case ast.Constant(value=bool()):
                pass
            case ast.Name():
                self._signal(node.id)
            case ast.Call(func=ast.Name(id="lost"), args=[ast.Name(id=name)]):
                self.numbers.setdefault(f"lost:{name}", set()).add(0.5)
            case ast.Compare():
                self._compare(node)
            case _:
                self.is_simple = False

    def _signal(self, name: str) -> None:
        signal = self.design.signals.get(name)
        if signal is None or not kind_of(signal).is_truth or kind_of(signal).remembers(signal):
            self.is_simple = False
        elif isinstance(signal.of, str):
            self.read(signal.of)
        else:
            self.numbers.setdefault(name, set()).add(0.5)

    def _compare(self, node: ast.Compare) -> None:
        terms = [node.left, *node.comparators]
        names = [term.id for term in terms if isinstance(term, ast.Name)]
        values = [_number(term) for term in terms if not isinstance(term, ast.Name)]
        if len({*names}) != 1 or None in values:
            self.is_simple = False
            return
        signal = self.design.signals.get(names[0])
        if signal is None or signal.of is not None or not kind_of(signal).compares:
            self.is_simple = False
            return
        known = self.numbers.setdefault(names[0], set())
        for value in values:
            if isinstance(value, str):
                known.add(float(signal.numbers.get(value, -1)))
            elif value is not None:
                known.add(value)


def _number(term: ast.expr) -> float | str | None:
    match term:
        case ast.Constant(value=str() as word):
            return word
        case ast.Constant(value=bool()):
            return None
        case ast.Constant(value=int() | float() as number):
            return float(number)
        case ast.UnaryOp(op=ast.USub(), operand=ast.Constant(value=int() | float() as number)):
            return -float(number)
    return None


def cases(design: Design, texts: Sequence[str]) -> dict[str, Any] | None:
    """Values of signals, as columns, in which conditions can differ; None if there is no way to
    tell.

    texts: the conditions, all read in the same cases.
    """
    reading = _Reading(design)
    for text in texts:
        reading.read(text)
    if not reading.is_simple:
        return None
    values = {name: _values(design.signals.get(name), n) for name, n in reading.numbers.items()}
    if np.prod([len(each) for each in values.values()], dtype=float) > MOST_CASES:
        return None
    rows = np.array([*product(*values.values())], np.float32).reshape(-1, len(values))
    return {name: rows[:, i] for i, name in enumerate(values)} or {"": np.zeros(1, np.float32)}


def _values(signal: Signal | None, numbers: Iterable[float]) -> list[float]:
    """Values in which conditions can differ; whether a signal is lost is true or not."""
    return [0.0, 1.0] if signal is None else kind_of(signal).cases(signal, numbers)


def _recorded(
    design: Design, text: str, leaf: Callable[[Tracer, str, Kind], Value]
) -> Graph | None:  # fmt: skip
    """A condition as a graph with the root `holds`; None if it asks for time, or is wrong.

    leaf: gives the value of a signal that is fed, or of `lost:` and its name.
    """
    tracer = Tracer()

    def look_up(name: str) -> Value | None:
        name = name.removesuffix(":number")
        signal = design.signals.get(name)
        if signal is None:
            return None
        if signal.of is None:
            value = leaf(tracer, name, Kind.FLOAT)
            return value > 0.5 if kind_of(signal).is_truth else value
        kind = Kind.TRUTH if kind_of(signal).is_truth else Kind.FLOAT
        if not isinstance(signal.of, str) or kind_of(signal).has_words:
            raise GraphError("a choice's computation is not analysed")
        value = compile_expression(signal.of, scope, kind)
        return value if signal.range is None or kind is Kind.TRUTH else clamp(value, *signal.range)

    scope = Scope(
        tracer, look_up, [*design.signals], words(design),
        lambda name: leaf(tracer, f"lost:{name}", Kind.TRUTH),
    )  # fmt: skip
    try:
        tracer.roots["holds"] = compile_expression(text, scope, Kind.TRUTH).place
    except (ExpressionError, GraphError, RecursionError):
        return None
    return simplify(tracer.graph())


def holds(design: Design, text: str, columns: dict[str, Any]) -> Truths | None:
    """Whether a condition holds in each of some cases; None if that cannot be known."""
    space = "cases"

    def leaf(tracer: Tracer, name: str, kind: Kind) -> Value:
        column = tracer.column(name, space)
        return column > 0.5 if kind is Kind.TRUTH else column

    graph = _recorded(design, text, leaf)
    wanted = {(space, name): values for name, values in columns.items()}
    if graph is None or any(
        node.op == "column" and (space, node.payload) not in wanted for node in graph.nodes
    ):
        return None
    count = len(next(iter(columns.values())))
    result = compute_fixed(graph, wanted, lambda _: (count,))[graph.roots["holds"]]
    return np.broadcast_to(result, (count,))


def _is_out_of_bounds(design: Design, when: str) -> bool:
    """Whether the ranges of its signals alone keep a condition from ever holding."""

    def bounds(node: Node) -> Bounds | None:
        signal = design.signals.get(str(node.payload))
        if signal is None or node.op != "input":
            return None
        return Bounds(*kind_of(signal).bounds(signal))

    graph = _recorded(design, when, lambda tracer, name, kind: tracer.input(name, kind))
    if graph is None:
        return False
    narrower = Narrower(bounds)
    (place,) = narrower.add_graph(graph)[graph.roots["holds"]]
    return is_const(narrower.nodes[place], False)


_NEVER = {
    "layer": "layer never shows", "scene": "scene is never chosen",
    "rhythms": "rhythm never begins",
}  # fmt: skip


@check(stops=False)
def impossible_conditions(subject: Subject, report: Report) -> None:
    """Conditions of layers and scenes that can never hold."""
    design = subject.design
    places: list[tuple[KeyPath, bool | str]] = [
        (("layer", i, "when"), layer.when) for i, layer in enumerate(design.layer)
    ]
    places += [(("scene", i, "when"), scene.when) for i, scene in enumerate(design.scene)]
    places += [(("rhythms", name, "when"), beat.when) for name, beat in design.rhythms.items()]
    nodes = subject.plan.graph.nodes
    never = {paint.layer for paint in subject.plan.paints if is_const(nodes[paint.on], False)}
    for path, when in places:
        if path[0] == "layer" and path[1] in never:
            continue  # said by `dark_layers`
        if _can_hold(design, when):
            continue
        what = _NEVER[str(path[0])]
        message = f"the condition can never be true, so this {what}."
        report.warning(path, "never-shows", message, "Look at the ranges of its signals.")


def _can_hold(design: Design, when: bool | str) -> bool:
    """False if a condition holds in no case at all."""
    if isinstance(when, bool):
        return when
    columns = cases(design, [when])
    result = None if columns is None else holds(design, when, columns)
    return not _is_out_of_bounds(design, when) if result is None else bool(result.any())


@check(stops=False)
def hidden_scenes(subject: Subject, report: Report) -> None:
    """Scenes whose condition holds only if the condition of a higher one holds as well."""
    design = subject.design
    for i, below in enumerate(design.scene):
        for above in design.scene[:i]:
            if above.button or not _is_covered(design, below.when, above.when):
                continue
            message = (
                f"whenever its condition is true, that of '{above.name}' above is "
                "true as well, so this scene is never chosen."
            )
            remedy = "Put it above, or make the conditions exclude each other."
            report.warning(("scene", i, "when"), "never-shows", message, remedy)
            break


def _is_covered(design: Design, below: bool | str, above: bool | str) -> bool:
    """Whether one condition holds in every case in which another does, and there is such a case."""
    if above is True:
        return True
    texts = [str(below), str(above)]
    columns = cases(design, texts)
    if columns is None:
        return False
    first, second = (holds(design, text, columns) for text in texts)
    if first is None or second is None or not first.any():
        return False
    return bool(second[first].all())


@check(stops=False)
def scenes_and_layers(subject: Subject, report: Report) -> None:
    """Scenes without a layer of their own, and presets and rhythms that no layer uses."""
    design = subject.design
    used = {name for layer in design.layer for name in layer.scenes}
    for i, scene in enumerate(design.scene):
        if scene.name not in used:
            message = f"no layer belongs to scene '{scene.name}'."
            remedy = f'Write scene = "{scene.name}" in a layer, or leave it dark.'
            report.note(("scene", i, "name"), "unused", message, remedy)
    presets = {layer.preset for layer in design.layer}
    for name in design.presets:
        if name not in presets:
            message = f"no layer uses preset '{name}'."
            report.note(("presets", name), "unused", message, "Use it in a layer, or remove it.")
    rhythms = {layer.rhythm for layer in design.layer}
    for name in design.rhythms:
        if name not in rhythms:
            message = f"no layer has rhythm '{name}'."
            remedy = f'Write rhythm = "{name}" in layers, or remove it.'
            report.note(("rhythms", name), "unused", message, remedy)


@check(stops=False)
def never_on_the_tape(subject: Subject, report: Report) -> None:
    """Layers that never show, and scenes that are never chosen, over a given tape."""
    if subject.film is None:
        return
    design, timeline = subject.design, timeline_of(subject.plan, subject.film)
    never = {course.name for course in timeline.layers if not (course.there > 0).any()}
    seen = layers_seen(subject.plan, subject.film, timeline)
    recorded = {paint.layer for paint in subject.plan.paints}
    barely = barely_lit(subject.plan, subject.film, timeline)
    for i, layer in enumerate(design.layer):
        if layer.name in never:
            message = "on this tape this layer is never on."
            report.note(("layer", i, "when"), "never-on-tape", message, ANOTHER_TAPE)
        elif i in recorded and i not in seen and i not in barely:
            message = "on this tape this layer is on but never seen: it is dark, or covered."
            report.note(("layer", i), "never-on-tape", message, "See why with `fendra explain`.")
    cure = "" if design.dither else ", or set dither = true for the design"
    for i, light in barely.items():
        message = f"on this tape its brightest light is byte {round(light)} of 255."
        remedy = f"Hues break up at such low light: raise `level`{cure}."
        report.note(("layer", i), "barely-lit", message, remedy)
    for i, course in enumerate(timeline.scenes):
        if not (course.there > 0).any():
            message = "on this tape this scene is never chosen."
            report.note(("scene", i, "when"), "never-on-tape", message, ANOTHER_TAPE)
