"""Settings: the values of parameters, as values of the graph."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from typing import Any

from fendra.core.composition.media import Media
from fendra.core.document.design import Design
from fendra.core.effects.numerals import SIZE, TIMES, Hole
from fendra.core.effects.parameters import Parameter
from fendra.core.errors import ExpressionError, GraphError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.clock import Clock
from fendra.core.graph.fixed import compute_fixed
from fendra.core.graph.functions import clamp
from fendra.core.graph.node import STATE, Graph, Rate
from fendra.core.graph.ops import Kind
from fendra.core.graph.passes import drop_unused
from fendra.core.graph.trace import Tracer, Value
from fendra.core.language.expression import Scope, compile_expression
from fendra.core.language.lookup import BY, ELSE, entries, looked_up
from fendra.core.language.report import report_expression
from fendra.core.layout.choice import Choice, named
from fendra.core.layout.columns import ORDER_COLUMNS, SPOT_COLUMNS, look_up_in, words
from fendra.core.layout.space import Space, shares
from fendra.core.layout.table import Layout
from fendra.core.light.colours import COLOUR_NAMES, colour_meant, is_colour, parse_colour
from fendra.core.names import cannot_stand, in_words, must_be, nearest, truth_of
from fendra.core.signals.record import Signals
from fendra.core.toml_text import value_text
from fendra.core.units import WITH_UNIT, plain_number
from fendra.core.values import Plain, Setting

MEASURED = frozenset({"x", "y", "z", "radius", "index", "rank", "address"})
"""Columns that are lengths or counts: a place made of them is brought to 0 to 1."""

SHARES = frozenset({"along", "across", "up"})
"""Columns that go from 0 to 1 by themselves."""

_NUMBER = re.compile(r"[+-]?\d+(?:\.\d+)?")
_HOLE = re.compile(r"\{([^{}]*)\}")


class Settings:
    """Records parameters. Mistakes are reported, and the default replaces them."""

    def __init__(
        self,
        layout: Layout,
        tracer: Tracer,
        clock: Clock,
        signals: Signals,
        report: Report,
        choices: Mapping[str, Choice],
        media: Media,
    ) -> None:
        self._layout, self._choices, self._media = layout, choices, media
        self._tracer, self._clock = tracer, clock
        self._signals, self._report, self._dropped = signals, report, signals.dropped
        self._words = words(layout)

    def of_effect(
        self, parameters: Mapping[str, Parameter], given: Mapping[str, tuple[Setting, KeyPath]],
        space: Space,
    ) -> dict[str, Any]:  # fmt: skip
        """Every parameter of an effect. given: the values of some of them, and their places."""
        found = {}
        for name, parameter in parameters.items():
            setting, path = given.get(name, (None, ()))
            value = None if setting is None else self.value(setting, parameter, path, space)
            if value is None:
                value = self._default(parameter, space)
            if isinstance(value, Value):
                self._tracer.label(value, name)
            found[name] = value
        return found

    def value(
        self, setting: Setting, parameter: Parameter, path: KeyPath, space: Space | None = None
    ) -> Any:
        """The written value, converted for the parameter's kind; None if it is wrong."""
        match parameter.kind:
            case "numbers" | "colours":
                return self._list(setting, parameter, path, space)
            case "place":
                return self._place(setting, path, space)
            case "text":
                return self._text(setting, path)
            case "word":
                return self._word(setting, parameter, path)
            case "picture":
                return self._picture(setting, path)
        if isinstance(setting, dict):
            return self._looked_up(setting, parameter, path, space)
        if isinstance(setting, list):
            self._wrong(parameter, setting, path)
            return None
        return self._one(setting, parameter, path, space)

    def number(self, setting: Setting, path: KeyPath, space: Space | None = None) -> Value:
        """A share from 0 to 1; unknown if its value is wrong."""
        value = self.value(setting, Parameter("number", 1.0), path, space)
        return self._tracer.input("wrong:number", Kind.FLOAT) if value is None else value

    def condition(self, text: bool | str, path: KeyPath) -> Value:
        """A condition for all LEDs at once; unknown if it is wrong."""
        if isinstance(text, bool):
            return self._tracer.const(text)
        value = self._expression(text, Parameter("truth", True), path, None)
        return self._tracer.input("wrong:truth", Kind.TRUTH) if value is None else value

    def _default(self, parameter: Parameter, space: Space) -> Any:
        if parameter.default is None:
            return None
        default = parameter.default
        plain = list(default) if isinstance(default, tuple) else default
        return self.value(plain, parameter, (), space)

    def _one(
        self, setting: Plain, parameter: Parameter, path: KeyPath, space: Space | None
    ) -> Value | None:
        value = self._literal(setting, parameter, path)
        if value is None and isinstance(setting, str):
            return self._expression(setting, parameter, path, space)
        return value

    def _literal(self, setting: Plain, parameter: Parameter, path: KeyPath) -> Value | None:
        """A literal's value; None if it is an expression, or wrong and reported."""
        match parameter.kind:
            case "colour" | "colours" if isinstance(setting, str):
                return self._tracer.const(parse_colour(setting)) if is_colour(setting) else None
            case "truth" if isinstance(setting, (bool, str)):
                return self._tracer.const(setting) if isinstance(setting, bool) else None
            case "number" | "numbers" if isinstance(setting, str):
                return None
            case "number" | "numbers" if isinstance(setting, (int, float)) and not isinstance(
                setting, bool
            ):
                if parameter.low <= setting <= parameter.high:
                    return self._tracer.const(float(setting))
                unit = f" {parameter.unit}" if parameter.unit else ""
                message = f"{setting:g}{unit} is out of range."
                remedy = f"It goes from {parameter.low:g} to {parameter.high:g}{unit}."
                self._report.error(path, "out-of-range", message, remedy)
                return None
        self._wrong(parameter, setting, path)
        return None

    def _wrong(self, parameter: Parameter, setting: Setting, path: KeyPath) -> None:
        wanted, remedy = _WANTED[parameter.kind]
        items = setting if isinstance(setting, list) else []
        meant = colour_meant(", ".join(f"{x:g}" for x in items if isinstance(x, (int, float))))
        if meant is not None and parameter.kind == "colour":
            remedy = f'Write "{meant}".'
        self._report.error(path, "wrong-type", must_be(wanted, setting), remedy)

    def _list(
        self, setting: Setting, parameter: Parameter, path: KeyPath, space: Space | None
    ) -> list[Value] | None:
        if isinstance(setting, dict):
            self._wrong(parameter, setting, path)
            return None
        words = [word.strip() for word in setting.split(",")] if isinstance(setting, str) else []
        if len(words) > 1 and all(is_colour(word) or _NUMBER.fullmatch(word) for word in words):
            remedy = f"Write {value_text([_plain(word) for word in words])}."
            self._report.error(
                path, "wrong-type", must_be(_WANTED[parameter.kind][0], setting), remedy
            )
            return None
        items = self._each(setting) if isinstance(setting, list) else self._each([setting])
        if not items and parameter.default:
            self._report.error(path, "wrong-type", "the list is empty.", "Write one or more.")
            return None
        found = [
            self._one(item, parameter, (*path, i) if isinstance(setting, list) else path, space)
            for i, item in enumerate(items)
        ]
        values = [value for value in found if value is not None]
        return values if len(values) == len(found) else None

    def _each(self, items: Sequence[Plain]) -> list[Plain]:
        """The items of a list; a vector in it is replaced by its numbers."""
        found: list[Plain] = []
        for item in items:
            numbers = self._signals.items(item.strip()) if isinstance(item, str) else None
            found += [item] if numbers is None else numbers
        return found

    def _looked_up(
        self, table: dict[str, Plain], parameter: Parameter, path: KeyPath, space: Space | None
    ) -> Value | None:
        """A value for each word or number of a lookup table."""
        by = table.get(BY)
        words = self._signals.words.get(by.strip()) if isinstance(by, str) else None
        numbers = entries(table, words, path, self._report)
        if numbers is None:
            return None
        place = self._expression(
            str(by), Parameter("number", 0.0, "", -1e9, 1e9), (*path, BY), None
        )
        keys = [*numbers, *([ELSE] if ELSE in table else [])]
        values = {key: self._one(table[key], parameter, (*path, key), space) for key in keys}
        known = {key: value for key, value in values.items() if value is not None}
        if place is None or not known or (ELSE in table and ELSE not in known):
            return None
        items = [(number, known[key]) for key, number in numbers.items() if key in known]
        return looked_up(place, items, known.get(ELSE))

    def _place(self, setting: Setting, path: KeyPath, space: Space | None) -> Value | None:
        """A place from 0 to 1: counts and lengths are scaled to that."""
        assert space is not None
        if not isinstance(setting, str):
            message = must_be("a place", setting)
            self._report.error(path, "wrong-type", message, "Write a column, as in: by = 'x'.")
            return None
        if setting.strip() in SHARES:
            return self._tracer.column(setting.strip(), space.name)
        before = len(self._tracer.nodes)
        value = self._expression(setting, Parameter("number", 0.0, "", -1e9, 1e9), path, space)
        if value is None:
            return None
        if setting.strip() == "angle":
            return value * (1.0 / 360.0)
        columns = {str(node.payload) for node in self._tracer.nodes[before:] if node.op == "column"}
        if value.rate != Rate.SPOT or not columns & MEASURED:
            return clamp(value, -1e6, 1e6)
        values = fixed_values(self._tracer, value, space)
        name = f"place.{len(space.extra)}"
        space.extra[name] = shares(values)
        return self._tracer.column(name, space.name)

    def _text(self, setting: Setting, path: KeyPath) -> list[str | Hole] | None:
        if not isinstance(setting, str):
            message = must_be("a text", setting)
            self._report.error(path, "wrong-type", message, "Write it in quotes.")
            return None
        pieces: list[str | Hole] = []
        end = 0
        for hole in _HOLE.finditer(setting):
            pieces.append(setting[end : hole.start()])
            end = hole.end()
            expression, _, form = (part.strip() for part in hole[1].partition(":"))
            form = form or "3"
            if form not in TIMES and not SIZE.fullmatch(form):
                message = f"'{form}' is not a form for a number."
                forms = ", ".join(TIMES)
                remedy = (
                    "Write how many characters, such as {speed:4.1} or {minute:02}, or "
                    f"{forms}."
                )
                self._report.error(path, "wrong-value", message, remedy)
                form = "3"
            number = Parameter("number", 0.0, "", -1e9, 1e9)
            value = self._expression(expression, number, path, None)
            if value is not None:
                pieces.append(Hole(value, form))
        return [piece for piece in [*pieces, setting[end:]] if piece != ""]

    def _word(self, setting: Setting, parameter: Parameter, path: KeyPath) -> str | None:
        if isinstance(setting, str) and setting in parameter.words:
            return setting
        self._report.error(path, "wrong-value", *cannot_stand(setting, parameter.words))
        return None

    def _picture(self, setting: Setting, path: KeyPath) -> Any:
        if not isinstance(setting, str):
            self._wrong(Parameter("text", ""), setting, path)
            return None
        found = self._media.pictures.get(setting)
        if found is None:
            unread = f"the picture '{setting}' has not been read.", "Read the design from a file."
            self._report.error(path, "file", *self._media.failures.get(setting, unread))
        return found

    def _expression(
        self, text: str, parameter: Parameter, path: KeyPath, space: Space | None
    ) -> Value | None:
        is_truth = parameter.kind == "truth"
        is_colour_wanted = parameter.kind in ("colour", "colours")
        if is_colour_wanted:
            meant = None if text.strip() in self._signals.names else colour_meant(text)
            if meant is not None or text.startswith("#"):
                remedy = "After # come three or six digits, 0 to 9 and a to f."
                remedy = remedy if meant is None else f'Write "{meant}".'
                self._report.error(path, "colour", f"{in_words(text)} is not a colour.", remedy)
                return None
        truth = truth_of(text) if is_truth and text.strip() not in self._signals.names else None
        if truth is not None:
            remedy = f"Write {value_text(truth)}, without quotes."
            self._report.error(path, "wrong-type", must_be("true or false", text), remedy)
            return None
        if parameter.kind in ("number", "numbers") and WITH_UNIT.fullmatch(text.strip()):
            self._tell_unit(text.strip(), parameter, path)
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
                    "this differs from LED to LED, but one value for all is needed",
                    remedy="Use signals here, not columns.",
                    text=text,
                )
        except ExpressionError as exc:
            known = {*self._signals.names, *self._dropped}
            if is_colour_wanted and text.isalnum() and text not in known:
                near = nearest(text, COLOUR_NAMES)
                remedy = 'Write "#rrggbb", or a CSS name such as "orange".'
                remedy = remedy if near is None else f"Did you mean '{near}'?"
                self._report.error(path, "colour", f"there is no colour '{text}'.", remedy)
            else:
                report_expression(exc, path, self._report, self._dropped)
            return None
        if is_truth:
            return value
        low, high = (0.0, 1.0) if is_colour_wanted else (parameter.low, parameter.high)
        return clamp(value, low, high)

    def _tell_unit(self, text: str, parameter: Parameter, path: KeyPath) -> None:
        """Report a number with a unit; the remedy is the number in the parameter's own unit."""
        number = plain_number(text, parameter.unit)
        wanted = f" in {parameter.unit}" if parameter.unit else ""
        remedy = f"Write a plain number{wanted}."
        if number is not None:
            remedy = f"Write {number:.6g}{wanted and f', which is{wanted}'}."
        message = f"numbers have no unit; you wrote {in_words(text)}."
        self._report.error(path, "wrong-unit", message, remedy)

    def _scope(self, space: Space | None) -> Scope:
        columns = look_up_in(self._tracer, space.name) if space is not None else None

        def look_up(name: str) -> Value | None:
            signal = self._signals.look_up(name)
            if signal is not None or columns is None or space is None:
                return signal
            if name in ORDER_COLUMNS:
                return self._tracer.column(name, space.name)
            return columns(name)

        names = [*self._signals.names]
        known_words = dict(self._signals.words)
        if space is not None:
            names += [*SPOT_COLUMNS, *ORDER_COLUMNS]
            known_words |= self._words

        def picture(name: str) -> Value | None:
            return None if space is None else self._signals.picture(name, space.name)

        return Scope(
            self._tracer, look_up, names, known_words, self._signals.lost, self._clock,
            self._places, self._signals.raw, picture, self._signals.items,
            (*SPOT_COLUMNS, *ORDER_COLUMNS) if space is None else (),
        )  # fmt: skip

    def _places(self, name: str) -> Any:
        """Where the LEDs of a choice are, in its order; in the design's unit."""
        choice = named(self._layout, name, self._choices)
        if choice is None:
            return None
        return self._layout.in_unit(self._layout.position[choice.ordered])


def _plain(word: str) -> float | str:
    return float(word) if _NUMBER.fullmatch(word) else word


_WANTED = {
    "colour": (
        "a colour", 'Write "#rrggbb", a CSS name, or an expression that gives a colour.'
    ),
    "colours": ("a list of colours", "Write them in brackets, as in: ['red', 'gold']."),
    "truth": ("a condition", "Write true, false, or an expression in quotes."),
    "number": ("a number", "Write a number, or an expression in quotes."),
    "numbers": ("a list of numbers", "Write them in brackets, as in: [0, 0.3, 1]."),
    "text": ("a text", "Write it in quotes."),
}  # fmt: skip


def fixed_values(tracer: Tracer, value: Value, space: Space) -> Any:
    """The values over a space's spots of what no frame changes: (n,) float64."""
    roots = {name: place for name, place in tracer.roots.items() if name.startswith(STATE)}
    graph = drop_unused(
        Graph(tuple(tracer.nodes), {**roots, "wanted": value.place}, dict(tracer.start))
    )
    columns = {
        (space.name, str(node.payload)): space.values(str(node.payload))
        for node in graph.nodes
        if node.op == "column"
    }
    values = compute_fixed(graph, columns, lambda _: (len(space),))[graph.roots["wanted"]]
    if values.shape != (len(space),):
        raise GraphError("a place is one number for each LED")
    return values.astype(float)


def written(
    design: Design, number: int, names: Sequence[str]
) -> dict[str, tuple[Setting, KeyPath]]:  # fmt: skip
    """The written parameters of a layer, and where: its preset's, and its own over them.

    names: of the parameters that count.
    """
    layer = design.layer[number]
    found: dict[str, tuple[Setting, KeyPath]] = {}
    preset = design.presets.get(layer.preset)
    if preset is not None:
        for name, setting in preset.parameters.items():
            found[name] = setting, ("presets", layer.preset, name)
    for name, setting in layer.parameters.items():
        found[name] = setting, ("layer", number, name)
    return {name: item for name, item in found.items() if name in names}
