"""Recording: a design with its layout becomes one graph."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

import numpy as np

from fendra.core.design import Design, Layer, Setting
from fendra.core.effects import EFFECTS, Led, Look, Parameter
from fendra.core.electric.limiter import make_limits
from fendra.core.electric.loads import make_loads
from fendra.core.errors import ExpressionError, GraphError
from fendra.core.findings import Path, Report
from fendra.core.graph.clock import Clock
from fendra.core.graph.expr import Scope, compile_expression
from fendra.core.graph.functions import clamp, lightness_to_linear
from fendra.core.graph.node import Rate
from fendra.core.graph.ops import Kind
from fendra.core.graph.passes import simplify
from fendra.core.graph.trace import Tracer, Value
from fendra.core.layout.choice import ALL, Choice, report_expression
from fendra.core.layout.columns import (
    ORDER_COLUMNS,
    SPOT_COLUMNS,
    column_values,
    look_up_in,
    words,
)
from fendra.core.layout.table import Layout
from fendra.core.light import COLOUR_NAMES, is_colour, parse_colour
from fendra.core.mix import Recording, Slot
from fendra.core.names import did_you_mean, in_words
from fendra.core.signals import Signals

LEVEL = Parameter("number", 1.0, "", 0.0, 1.0)


def record(
    design: Design,
    layout: Layout,
    choices: Mapping[str, Choice],
    report: Report,
    dropped: Iterable[str] = (),
) -> Recording:
    """Record a whole design. What is wrong goes into the report, and is left out.

    dropped: names that the file has, but that were left out of the design before.
    """
    recorder = _Recorder(design, layout, choices, report, frozenset(dropped))
    recorder.signals.record_all()
    slots = []
    for i, layer in enumerate(design.layer):
        with recorder.tracer.within(("layer", i)):
            slots.append(recorder.layer(i, layer))
    with recorder.tracer.within(("level",)):
        level = recorder.setting(design.level, LEVEL, ("level",))
        recorder.root("master", lightness_to_linear(level))
    graph = simplify(recorder.tracer.graph())
    columns = {
        (str(node.space), str(node.payload)): _column(
            layout, choices[str(node.space)], str(node.payload)
        )
        for node in graph.nodes
        if node.op == "column"
    }
    placed = tuple(
        Slot(
            i,
            layer.on,
            layer.blend,
            graph.roots[f"layer:{i}:on"],
            graph.roots[f"layer:{i}:paint"],
            graph.roots[f"layer:{i}:rest"],
        )
        for i, (layer, is_recorded) in enumerate(zip(design.layer, slots, strict=True))
        if is_recorded
    )
    spots = {name: choice.spots for name, choice in choices.items()}
    fed = tuple(name for name, signal in design.signals.items() if signal.of is None)
    limits = make_limits(make_loads(design, layout))
    return Recording(graph, placed, columns, spots, len(layout), fed, limits)


def _column(layout: Layout, choice: Choice, name: str) -> np.ndarray[Any, np.dtype[np.float64]]:
    if name in ORDER_COLUMNS:
        return {"along": choice.along, "rank": choice.rank}[name]
    return column_values(layout, name)[choice.spots]


class _Recorder:
    def __init__(
        self,
        design: Design,
        layout: Layout,
        choices: Mapping[str, Choice],
        report: Report,
        dropped: frozenset[str],
    ) -> None:
        self.tracer = Tracer()
        self._clock = Clock(self.tracer)
        self._choices = choices
        self._report = report
        self._dropped = dropped
        self._words = words(layout)
        self.signals = Signals(design, self.tracer, self._clock, report, dropped)

    def root(self, name: str, value: Value) -> None:
        self.tracer.roots[name] = value.place

    def layer(self, number: int, layer: Layer) -> bool:
        """Record one layer; False where it is wrong."""
        path: Path = ("layer", number)
        choice = self._choices.get(layer.on)
        if choice is None and layer.on not in self._dropped:
            remedy = did_you_mean(layer.on, self._choices, "parts, groups and trails")
            message = f"there is no part, group or trail '{layer.on}'."
            self._report.error((*path, "on"), "unknown-name", message, remedy)
        on = self._condition(layer, (*path, "when"))
        space = layer.on if choice is not None else ALL
        level = self.setting(layer.level, LEVEL, (*path, "level"), space)
        self.tracer.label(level, "level")
        if layer.effect not in EFFECTS:
            remedy = did_you_mean(layer.effect, EFFECTS, "effects")
            message = f"there is no effect '{layer.effect}'."
            self._report.error((*path, "effect"), "unknown-effect", message, remedy)
            return False
        settings = self._settings(layer, path, space)
        if choice is None:
            return False
        try:
            led = Led(self.tracer, self._clock, space, choice.ranks, on)
            look = EFFECTS[layer.effect].draw(led, **settings)
            self._paint(number, layer, on, level, look)
        except GraphError as exc:
            self._report.error(path, "effect", f"effect '{layer.effect}': {exc}.")
            return False
        return True

    def _paint(self, number: int, layer: Layer, on: Value, level: Value, look: Look) -> None:
        self.tracer.label(look.cover, "cover")
        cover, is_there = look.cover, on  # a layer runs only while it is there
        if layer.fade_in > 0 or layer.fade_out > 0:
            presence = self._clock.presence(on, layer.fade_in, layer.fade_out)
            self.tracer.label(presence, "presence")
            cover = look.cover * presence
            is_there = on if layer.fade_out <= 0 else on | (presence > 0.0)
        strength, rest = cover * lightness_to_linear(level), 1.0 - cover
        paint = look.colour * strength
        named = {"on": is_there, "share": cover, "strength": strength, "paint": paint, "rest": rest}
        for name, value in named.items():
            self.tracer.label(value, name)
        self.root(f"layer:{number}:on", is_there)
        self.root(f"layer:{number}:paint", paint)
        self.root(f"layer:{number}:rest", rest)

    def _condition(self, layer: Layer, path: Path) -> Value:
        if isinstance(layer.when, bool):
            return self.tracer.const(layer.when)
        value = self._expression(layer.when, Parameter("truth", True), path, None)
        if value is None:
            return self.tracer.const(True)
        return value

    def _settings(self, layer: Layer, path: Path, space: str) -> dict[str, Value]:
        parameters = EFFECTS[layer.effect].parameters
        for name in layer.parameters:
            if name not in parameters:
                known = [*parameters, *Layer.model_fields]
                message = f"effect '{layer.effect}' has no parameter '{name}'."
                remedy = did_you_mean(name, known, "keys of this layer")
                self._report.error((*path, name), "unknown-parameter", message, remedy)
        settings = {
            name: self.setting(
                layer.parameters.get(name, parameter.default), parameter, (*path, name), space
            )
            for name, parameter in parameters.items()
        }
        for name, value in settings.items():
            self.tracer.label(value, name)
        return settings

    def setting(
        self, setting: Setting, parameter: Parameter, path: Path, space: str | None = None
    ) -> Value:
        """A parameter's value; its default where what is written is wrong."""
        value = self._literal(setting, parameter, path)
        if value is None and isinstance(setting, str):
            value = self._expression(setting, parameter, path, space)
        if value is None:
            value = self._literal(parameter.default, parameter, path)
        assert value is not None
        return value

    def _literal(self, setting: Setting, parameter: Parameter, path: Path) -> Value | None:
        wrong = ""
        match parameter.kind:
            case "colour":
                if isinstance(setting, str):
                    return self.tracer.const(parse_colour(setting)) if is_colour(setting) else None
                wrong = "a colour is needed here"
                remedy = "Write '#rrggbb', a CSS name, or an expression that gives a colour."
            case "truth":
                if isinstance(setting, (bool, str)):
                    return self.tracer.const(setting) if isinstance(setting, bool) else None
                wrong = "a condition is needed here"
                remedy = "Write true, false, or an expression in quotes."
            case "number":
                if isinstance(setting, str):
                    return None
                if not isinstance(setting, bool):
                    if parameter.low <= setting <= parameter.high:
                        return self.tracer.const(float(setting))
                    unit = f" {parameter.unit}" if parameter.unit else ""
                    message = f"{setting:g}{unit} is out of range."
                    remedy = f"It goes from {parameter.low:g} to {parameter.high:g}{unit}."
                    self._report.error(path, "out-of-range", message, remedy)
                    return None
                wrong = "a number is needed here"
                remedy = "Write a number, or an expression in quotes."
        self._report.error(path, "wrong-type", f"{wrong}, and this is {in_words(setting)}.", remedy)
        return None

    def _expression(
        self, text: str, parameter: Parameter, path: Path, space: str | None
    ) -> Value | None:
        is_truth = parameter.kind == "truth"
        is_colour_wanted = parameter.kind == "colour"
        if is_colour_wanted and text.startswith("#"):
            message = f"'{text}' is no colour."
            remedy = "Behind # stand three or six digits, 0 to 9 and a to f."
            self._report.error(path, "colour", message, remedy)
            return None
        try:
            value = compile_expression(
                text,
                self._scope(space),
                Kind.TRUTH if is_truth else Kind.FLOAT,
                colour=is_colour_wanted,
            )
            if value.rate & Rate.SPOT and space is None:
                raise ExpressionError(
                    "this differs from LED to LED, and one value for all is needed",
                    remedy="Use signals here, and no columns.",
                    text=text,
                )
        except ExpressionError as exc:
            if is_colour_wanted and text.isalnum() and text not in self.signals.names:
                remedy = did_you_mean(text, COLOUR_NAMES, "colours")
                self._report.error(path, "colour", f"there is no colour '{text}'.", remedy)
            else:
                report_expression(exc, path, self._report, self._dropped)
            return None
        if is_truth:
            return value
        low, high = (0.0, 1.0) if is_colour_wanted else (parameter.low, parameter.high)
        return clamp(value, low, high)

    def _scope(self, space: str | None) -> Scope:
        columns = look_up_in(self.tracer, space) if space is not None else None

        def look_up(name: str) -> Value | None:
            signal = self.signals.look_up(name)
            if signal is not None or columns is None or space is None:
                return signal
            if name in ORDER_COLUMNS:
                return self.tracer.column(name, space)
            return columns(name)

        names = [*self.signals.names]
        if space is not None:
            names += [*SPOT_COLUMNS, *ORDER_COLUMNS]
        known_words = self._words if space is not None else {}
        return Scope(self.tracer, look_up, names, known_words, self.signals.lost, self._clock)
