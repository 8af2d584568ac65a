"""The expression language: one small language for groups, trails, conditions and parameters.

Python's expression grammar, cut down to numbers, names, comparison, `and or not`, arithmetic,
`a if c else b` and a fixed list of functions. It compiles into the same graph as effects.
"""

from __future__ import annotations

import ast
import math
import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.errors import ExpressionError, GraphError
from fendra.core.graph import functions
from fendra.core.graph.clock import Clock
from fendra.core.graph.ops import LARGEST, Kind
from fendra.core.graph.trace import Tracer, Value
from fendra.core.language import vocabulary
from fendra.core.language.reader import read, too_deep
from fendra.core.language.slips import commas_in
from fendra.core.language.unknown import unknown_name
from fendra.core.language.vocabulary import (
    OF_ANY_NUMBER,
    OF_CONDITIONS,
    PLACE_OF,
    PLAIN,
    TEXT_COLUMNS,
    plain,
    timed,
    truth_of,
)  # fmt: skip
from fendra.core.light.colours import COLOUR_NAMES, is_colour, parse_colour
from fendra.core.names import counted, did_you_mean

DEEPEST = 100


@dataclass
class Scope:
    """The names that an expression may use.

    look_up: gives the value of a name, or None if there is no such name.
    names: all names that `look_up` knows, for "did you mean". of_leds: names that each LED has a
    value of its own for, where one value for all is needed.
    words: for a name that stands for a text (`part`), its texts and their numbers.
    lost: for `lost(signal)`; None if there are no signals.
    clock: for functions that need time; None if there is no time.
    places: gives where the LEDs of a part, group or trail are, (n, 3), in their order, for
    `x_of('keys', key)`; None if there are none.
    raw: a switch before it is held, for `rate_of(left)`. picture: a picture's colours, LED by LED;
    None for what is no picture. items: the names of a vector's numbers, for `down[rank]`; None for
    what is none.
    """

    tracer: Tracer
    look_up: Callable[[str], Value | None]
    names: Iterable[str]
    words: Mapping[str, Mapping[str, int]] = field(default_factory=dict)
    lost: Callable[[str], Value | None] | None = None
    clock: Clock | None = None
    places: Callable[[str], Floats | None] | None = None
    raw: Callable[[str], Value | None] | None = None
    picture: Callable[[str], Value | None] | None = None
    items: Callable[[str], Sequence[str] | None] | None = None
    of_leds: Sequence[str] = ()


def compile_expression(
    text: str, scope: Scope, want: Kind | None, *, colour: bool = False,
    texts: Mapping[str, int] | None = None,
) -> Value:  # fmt: skip
    """Record an expression; the value is a float or a truth as `want` says, or a colour.

    texts: words that it may give, and their numbers, as in `'turbo' if speed > 20 else 'calm'`.

    A float or a colour may still be out of all bounds: whoever asked clamps or tames it.

    Raises ExpressionError with the place in the text and a remedy.
    """
    return _Compiler(text, scope, colour, texts).run(want)


class _Compiler:
    def __init__(
        self, text: str, scope: Scope, colour: bool, texts: Mapping[str, int] | None
    ) -> None:
        self._text = text
        self._scope = scope
        self._colour = colour
        self._texts = texts
        self._depth = 0

    def run(self, want: Kind | None) -> Value:
        try:
            value = self._value(read(self._text))
        except GraphError as exc:
            raise ExpressionError(str(exc), names=exc.names, text=self._text) from exc
        except RecursionError as exc:
            raise too_deep() from exc
        if self._colour:
            if value.width != 3:
                raise ExpressionError(
                    "this gives a number, but a colour is needed",
                    remedy="Name colours in quotes: mix('red', 'blue', 0.5).",
                    text=self._text,
                )
            return value
        if value.width == 3:
            raise ExpressionError("this gives a colour, but a number is needed", text=self._text)
        if want is Kind.TRUTH and value.kind is not Kind.TRUTH:
            raise ExpressionError(
                "this gives a number, but a condition is needed",
                remedy=_compared(self._text),
                text=self._text,
            )
        return value if want is Kind.TRUTH else self._number(value)

    def _number(self, value: Value) -> Value:
        return functions.select(value, 1.0, 0.0) if value.kind is Kind.TRUTH else value

    def _error(
        self, node: ast.AST, problem: str, remedy: str = "", *, code: str = "expression",
        names: Sequence[str] = (),
    ) -> ExpressionError:  # fmt: skip
        return ExpressionError(
            problem, remedy=remedy, code=code, names=names, text=self._text,
            column=self._column(node),
        )  # fmt: skip

    def _column(self, node: ast.AST) -> int:
        lead = len(self._text) - len(self._text.lstrip())
        offset = getattr(node, "col_offset", 0)
        return lead + len(self._text.strip().encode()[:offset].decode(errors="ignore"))

    def _value(self, node: ast.expr) -> Value:
        self._depth += 1
        if self._depth > DEEPEST:
            raise too_deep()
        try:
            return self._dispatch(node)
        except GraphError as exc:
            raise self._error(node, str(exc), names=exc.names) from exc
        finally:
            self._depth -= 1

    def _dispatch(self, node: ast.expr) -> Value:
        match node:
            case ast.Constant():
                return self._constant(node)
            case ast.Name():
                return self._name(node)
            case ast.Attribute(value=ast.Name(id=whole), attr=part):
                return self._part(node, f"{whole}.{part}")
            case ast.Subscript(value=ast.Name(id=whole), slice=ast.Constant(value=int() as place)):
                return self._part(node, f"{whole}[{place}]")
            case ast.Subscript(value=ast.Name(id=whole)):
                return self._item(node, whole)
            case ast.BoolOp():
                values = [self._truth(item) for item in node.values]
                result = values[0]
                for value in values[1:]:
                    result = result & value if isinstance(node.op, ast.And) else result | value
                return result
            case ast.UnaryOp(op=ast.Not()):
                return ~self._truth(node.operand)
            case ast.UnaryOp(op=ast.USub()):
                return -self._number(self._value(node.operand))
            case ast.UnaryOp(op=ast.UAdd()):
                return self._number(self._value(node.operand))
            case ast.BinOp():
                return self._arithmetic(node)
            case ast.Compare():
                return self._comparison(node)
            case ast.IfExp():
                condition = self._truth(node.test)
                a, b = self._value(node.body), self._value(node.orelse)
                if a.kind is not b.kind:
                    a, b = self._number(a), self._number(b)
                return functions.select(condition, a, b)
            case ast.Call():
                return self._call(node)
        if isinstance(node, ast.Tuple):
            pointed = commas_in(self._text)
            if pointed is not None:
                problem = "numbers have a point, not a comma."
                raise self._error(node, problem, f"Write: {pointed}")
            problem = "there are several values, but one is needed."
            raise self._error(node, problem, "Write one of them.")
        raise self._error(
            node,
            "this is not part of the expression language",
            (
                "It has numbers, names, + - * / // %, comparisons, and, or, not, a if c "
                "else b, and functions such as clamp(speed / 25, 0, 1)."
            ),
        )

    def _constant(self, node: ast.Constant) -> Value:
        value = node.value
        if isinstance(value, str):
            if self._texts is not None:
                if value not in self._texts:
                    remedy = did_you_mean(value, self._texts, "choices")
                    raise self._error(node, f"'{value}' is not one of the choices.", remedy)
                return self._scope.tracer.const(float(self._texts[value]))
            if self._colour and is_colour(value):
                return self._scope.tracer.const(parse_colour(value))
            if self._colour:
                remedy = did_you_mean(value, COLOUR_NAMES, "colours")
                raise self._error(node, f"there is no colour '{value}'.", remedy)
            raise self._error(
                node,
                f"the text '{value}' is not allowed here; a number is needed",
                ("Compare a text with a name that contains one, as in: part == 'tail-bar'."),
            )
        if isinstance(value, bool):
            return self._scope.tracer.const(value)
        if isinstance(value, (int, float)) and abs(value) <= LARGEST and math.isfinite(value):
            return self._scope.tracer.const(float(np.float32(value)))
        raise self._error(node, f"{value!r:.40} is not a usable number")

    def _name(self, node: ast.Name) -> Value:
        if self._colour and self._scope.picture is not None:
            picture = self._scope.picture(node.id)
            if picture is not None:
                return picture
        value = self._scope.look_up(node.id)
        if value is not None:
            return value
        said = unknown_name(
            node.id, self._text, names=self._scope.names, texts=self._scope.words,
            of_leds=self._scope.of_leds, has_signals=self._scope.lost is not None,
            is_colour_wanted=self._colour,
        )  # fmt: skip
        raise self._error(node, *said, code="unknown-name", names=(node.id,))

    def _part(self, node: ast.Attribute | ast.Subscript, name: str) -> Value:
        """A part of a signal: `hit.x` of an event, `sound[3]` of a vector."""
        value = self._scope.look_up(name)
        if value is None:
            self._value(node.value)  # reports an error in the name itself
            raise self._error(node, f"unknown name '{name}'")
        return value

    def _item(self, node: ast.Subscript, name: str) -> Value:
        """The number of a vector at a computed place; beyond the ends, the last one."""
        items = self._scope.items(name) if self._scope.items is not None else None
        if items is None:
            self._value(node.value)  # reports an error in the name itself
            raise self._error(node, f"'{name}' is not a vector and has no numbers to choose")
        place = functions.nearest(vocabulary.tame(self._number(self._value(node.slice))))
        values = [self._scope.look_up(item) for item in items]
        held = functions.clamp(place, 0.0, float(len(items) - 1))
        return functions.pick([value for value in values if value is not None], held)

    def _truth(self, node: ast.expr) -> Value:
        value = self._value(node)
        if value.kind is not Kind.TRUTH or value.width != 1:
            raise self._error(
                node,
                "a condition is needed here, but this is a number",
                _compared(ast.unparse(node)),
            )
        return value

    def _arithmetic(self, node: ast.BinOp) -> Value:
        a, b = self._number(self._value(node.left)), self._number(self._value(node.right))
        match node.op:
            case ast.Add():
                return a + b
            case ast.Sub():
                return a - b
            case ast.Mult():
                return a * b
            case ast.Div():
                return a / b
            case ast.FloorDiv():
                return a // b
            case ast.Mod():
                return a % b
        raise self._error(
            node,
            "this operator is not part of the expression language",
            "The operators are + - * / // %; for a square write x * x.",
        )

    def _comparison(self, node: ast.Compare) -> Value:
        terms = [node.left, *node.comparators]
        result: Value | None = None
        for left, op, right in zip(terms, node.ops, terms[1:], strict=False):
            one = self._compare_pair(left, op, right)
            result = one if result is None else result & one
        assert result is not None
        return result

    def _compare_pair(self, left: ast.expr, op: ast.cmpop, right: ast.expr) -> Value:
        if isinstance(op, (ast.In, ast.NotIn)):
            raise self._error(left, "`in` is not a word of expressions.", _one_of(left, op, right))
        text = self._text_comparison(left, right)
        if text is None:
            text = self._text_comparison(right, left)
        if text is not None:
            if not isinstance(op, (ast.Eq, ast.NotEq)):
                raise self._error(left, "texts can only be compared with == and !=.")
            return text if isinstance(op, ast.Eq) else ~text
        a, b = self._number(self._value(left)), self._number(self._value(right))
        if a.width != 1 or b.width != 1:
            raise self._error(left, "colours cannot be compared")
        match op:
            case ast.Lt():
                return a < b
            case ast.LtE():
                return a <= b
            case ast.Gt():
                return a > b
            case ast.GtE():
                return a >= b
            case ast.Eq():
                return a == b
            case ast.NotEq():
                return a != b
        raise self._error(
            left, "this comparison is not part of the language", "Use < <= > >= == or !=."
        )

    def _text_comparison(self, name: ast.expr, text: ast.expr) -> Value | None:
        """`part == 'tail-bar'`: the name's texts are known by number."""
        if not isinstance(name, ast.Name) or name.id not in self._scope.words:
            return None
        words = self._scope.words[name.id]
        if not isinstance(text, ast.Constant) or not isinstance(text.value, str):
            remedy = f"Write: {name.id} == '...'"
            words_there = re.match(r"[\w-]+", self._text[self._column(text) :])
            if words_there is not None and words_there[0] in words:
                remedy = f"Write: {name.id} == '{words_there[0]}'"
            raise self._error(text, f"compare '{name.id}' with a text in quotes.", remedy)
        if text.value not in words:
            what, problem = f"{name.id}s", f"there is no {name.id} '{text.value}'."
            if name.id not in TEXT_COLUMNS:  # of a signal
                what, problem = "words", f"'{name.id}' has no word '{text.value}'."
            remedy = did_you_mean(text.value, words, what)
            raise self._error(text, problem, remedy, names=(name.id, text.value))
        column = self._scope.look_up(f"{name.id}:number")
        assert column is not None
        return column == float(words[text.value])

    def _functions(self) -> dict[str, tuple[int, Callable[..., Value]]]:
        """Name to number of arguments and meaning, of the functions that are allowed here."""
        clock = self._scope.clock
        return PLAIN if clock is None else PLAIN | timed(clock)

    def _call(self, node: ast.Call) -> Value:
        if not isinstance(node.func, ast.Name) or node.keywords:
            raise self._error(node, "write a function as in: clamp(speed / 25, 0, 1)")
        name = node.func.id
        if name == "lost" and self._scope.lost is not None:
            return self._lost(node)
        if name == "rate_of" and self._scope.clock is not None:
            return self._rate_of(node, self._scope.clock)
        if name == "curve":
            return self._curve(node)
        if name == "distance" and self._scope.look_up("x") is not None:
            return self._distance(node)
        if name in PLACE_OF and self._scope.places is not None:
            return self._place_of(node, PLACE_OF.index(name))
        table = self._functions()
        if name not in table:
            known = [*table, *(["lost"] if self._scope.lost else [])]
            known += ["curve", *(["rate_of"] if self._scope.clock else [])]
            known += [*PLACE_OF] if self._scope.places is not None else []
            known += ["distance"] * (self._scope.look_up("x") is not None)
            remedy = did_you_mean(name, known, "functions")
            raise self._error(node, f"there is no function '{name}'.", remedy, names=(name,))
        count, function = table[name]
        if name in OF_ANY_NUMBER and len(node.args) < count:
            raise self._error(node, f"{name} takes {count} values or more, as in: {name}(a, b)")
        if name not in OF_ANY_NUMBER and len(node.args) != count:
            raise self._error(
                node,
                (f"{name} takes {counted(count, 'value')}; you wrote {len(node.args)}."),
                f"Write {count}, as in: {name}({', '.join('abcdef'[:count])}).",
            )
        values = [self._value(arg) for arg in node.args]
        if name not in OF_CONDITIONS:
            values = [self._number(value) for value in values]
        return function(*values)

    def _place_of(self, node: ast.Call, axis: int) -> Value:
        """Where the LED of a part, group or trail is whose place in it is a number."""
        name = PLACE_OF[axis]
        example = f"{name} takes a name and a number, as in: {name}('keys', key)"
        what = node.args[0].value if node.args and isinstance(node.args[0], ast.Constant) else None
        if len(node.args) != 2 or not isinstance(what, str):
            raise self._error(node, example)
        assert self._scope.places is not None
        places = self._scope.places(what)
        if places is None or len(places) == 0:
            problem = "has no LEDs" if places is not None else "is not a part, group or trail"
            raise self._error(node.args[0], f"'{what}' {problem}", names=(what,))
        number = self._number(self._value(node.args[1]))
        return functions.table(places[:, axis].tolist(), functions.to_uint(number))

    def _distance(self, node: ast.Call) -> Value:
        """The distance of a spot from a point (x, y), or (x, y, z)."""
        if len(node.args) not in (2, 3):
            raise self._error(node, "distance takes x, y, or x, y, z, as in: distance(0, 120) < 50")
        total: Value | None = None
        for axis, arg in zip("xyz", node.args, strict=False):
            column = self._scope.look_up(axis)
            assert column is not None
            step = column - self._number(self._value(arg))
            total = step * step if total is None else total + step * step
        assert total is not None
        return functions.sqrt(total)

    def _rate_of(self, node: ast.Call, clock: Clock) -> Value:
        """How often a second a condition becomes true; for a switch, before `hold`."""
        if len(node.args) != 1:
            raise self._error(node, "rate_of takes one condition, as in: rate_of(left)")
        arg = node.args[0]
        raw = self._scope.raw(arg.id) if self._scope.raw and isinstance(arg, ast.Name) else None
        return clock.rate_of(truth_of(self._value(arg) if raw is None else raw, "rate_of(left)"))

    def _curve(self, node: ast.Call) -> Value:
        """Along straight lines between points."""
        if len(node.args) < 5 or len(node.args) % 2 == 0:
            raise self._error(
                node, "curve takes a number, and points x, y, as in: curve(lux, 0, 1, 50, 0.2)"
            )
        x, *rest = [self._number(self._value(arg)) for arg in node.args]
        points = [*map(plain, rest)]
        return functions.curve(x, [*zip(points[::2], points[1::2], strict=True)])

    def _lost(self, node: ast.Call) -> Value:
        assert self._scope.lost is not None
        if len(node.args) != 1 or not isinstance(node.args[0], ast.Name):
            raise self._error(node, "lost takes the name of one signal, as in: lost(speed)")
        value = self._scope.lost(node.args[0].id)
        if value is None:
            name = node.args[0].id
            remedy = did_you_mean(name, self._scope.names, "names here")
            raise self._error(node.args[0], f"'{name}' is not a signal.", remedy, names=(name,))
        return value


def _compared(text: str) -> str:
    """The cure for a number in the place of a condition; long ones are not written out.

    >>> _compared("brake")
    'Compare it. Write: brake > 0.5'
    """
    text = text.strip()
    is_plain = len(text) <= 40 and " if " not in text
    return f"Compare it. Write: {text} > 0.5" if is_plain else "Compare it, for example: ... > 0.5."


def _one_of(name: ast.expr, op: ast.cmpop, choices: ast.expr) -> str:
    """The expression for "is one of several", or "is not"."""
    each = choices.elts if isinstance(choices, (ast.Tuple, ast.List, ast.Set)) else [choices]
    sign, joint = ("==", " or ") if isinstance(op, ast.In) else ("!=", " and ")
    text = joint.join(f"{ast.unparse(name)} {sign} {ast.unparse(one)}" for one in each)
    return f"Write: ({text})" if len(each) > 1 else f"Write: {text}"
