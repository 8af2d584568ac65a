"""The expression language, alone and inside a design."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Tracer
from fendra.core.language.expression import Scope, compile_expression
from helpers import design, layer, reds

NAMES = {"a": 2.0, "b": -0.5, "on": True}


def value_of(text: str, want: Kind = Kind.FLOAT) -> float:
    """An expression over a = 2, b = -0.5 and on = true; all of it folds into a constant."""
    tracer = Tracer()
    names = {name: tracer.const(value) for name, value in NAMES.items()}
    number = compile_expression(text, Scope(tracer, names.get, names), want).number
    assert number is not None
    return number


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1 + 2 * 3", 7), ("-a - -b", -2.5), ("7 // 2", 3), ("-7 // 2", -4), ("-7 % 3", 2),
        ("a / 0.5", 4), ("a if a > 1 else b", 2), ("a if not on else b", -0.5),
        ("1 < a <= 2", 1), ("1 < a < 2", 0), ("a != 2 or on and b < 0", 1),
        ("on + 1", 2), ("min(a, b)", -0.5), ("max(a, b)", 2), ("abs(b)", 0.5), ("floor(b)", -1),
        ("sqrt(a * 8)", 4), ("sqrt(b)", 0), ("clamp(9, 0, a)", 2), ("mix(0, 10, 0.3)", 3),
        ("ramp(a, 0, 8)", 0.25), ("ramp(a, 8, 0)", 0.75), ("ramp(99, 0, 8)", 1),
        ("smooth(0.5)", 0.5), ("smooth(a)", 1),
    ],
)  # fmt: skip
def test_an_expression_means_what_it_says(text, value):
    assert value_of(text) == pytest.approx(value, abs=1e-6)


@pytest.mark.parametrize(
    ("text", "says", "column"),
    [
        ("a +", "ends too early", 3),
        ("a + speeed", "nothing is called 'speeed'", 4),
        ("a ** 2", "operator", 0),
        ("__import__('os')", "no function '__import__'", 0),
        ("a.real", "'a.real' is no part of anything here", 0),
        ("[a]", "not part of the expression language", 0),
        ("lambda: a", "not part of the expression language", 0),
        ("f'{a}'", "not part of the expression language", 0),
        ("min(a)", "takes 2 values", 0),
        ("clamp(x=1)", "called as in", 0),
        ("a + 'text'", "stands where a number is needed", 4),
        ("on and a", "a condition is needed", 7),
        ("1e30", "not a number that can be used", 0),
        ("", "empty", 0),
        ("1" * 2000, "more than 1000", 0),
        ("-" * 150 + "a", "nested too deeply", 0),
        ("a / (a - 2)", "divides by 0", 0),
        ("a if on else", "ends too early", 12),
        ("  a + q", "nothing is called 'q'", 6),
    ],
)
def test_what_is_wrong_is_said_with_its_place(text, says, column):
    with pytest.raises(fd.ExpressionError, match=says) as caught:
        value_of(text)
    assert caught.value.column == column


@given(st.text(alphabet="ab on+-*/%<>=!().,'0123456789eif\n\\_", max_size=40))
def test_no_text_breaks_the_language(text):
    """Any text is an expression or an ExpressionError."""
    try:
        value = value_of(text)
    except fd.ExpressionError:
        return
    assert abs(value) <= 1e9


def test_did_you_mean_names_the_nearest():
    with pytest.raises(fd.DesignError, match="Did you mean 'throttle'"):
        design(layer(level="throtle"), signals={"throttle": {}}).compile()


def test_no_infinity_and_no_nan_comes_out_of_an_expression():
    """Products that overflow become 0, in minimum and maximum too."""
    big = "*".join(["s"] * 5)
    shown = design(layer(level=f"max({big} - {big}, 0.5)"), signals={"s": {}}).compile()
    assert reds(shown.frame(s=1e9, at=0)) == [47] * 8  # what is no number loses to 0.5


def test_constants_that_overflow_are_0_as_well():
    huge = "*".join(["1e9"] * 5)
    signals = {"s": {"of": huge}, "t": {"of": f"{huge} - {huge}"}}
    shown = design(layer(level="0.5 + s + t"), signals=signals).compile()
    assert reds(shown.frame(at=0)) == [47] * 8


def test_odd_literals_warn_nobody(recwarn):
    assert value_of("a if a>1else 3") == 2
    with pytest.raises(fd.ExpressionError):
        value_of("'\\d' == 1")
    assert not recwarn.list


def test_a_colour_may_be_bound():
    """Mixed half and half in linear light, red and blue: 0.5 is byte 128."""
    program = design(layer(colour="mix('red', 'blue', s)"), signals={"s": {}}).compile()
    assert program.frame(s=0.5, at=0).rgb[0].tolist() == [128, 0, 128]


def test_a_parameter_may_differ_from_led_to_led():
    """x is 0, 10, ... 70 mm: the level of gauge-like light follows it."""
    program = design(layer("solid", level="x / 70")).compile()
    shown = reds(program.frame(at=0))
    assert shown[0] == 0
    assert shown[-1] == 255
    assert shown == sorted(shown)
    assert shown[4] == round(255 * ((400 / 7 + 16) / 116) ** 3)  # CIE lightness 57.1
