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
        ("a + speeed", "there is no column 'speeed'", 4),
        ("a ** 2", "operator", 0),
        ("__import__('os')", "no function '__import__'", 0),
        ("a.real", "'a.real'", 0),
        ("[a]", "not part of the expression language", 0),
        ("lambda: a", "not part of the expression language", 0),
        ("f'{a}'", "not part of the expression language", 0),
        ("min(a)", "takes 2 values", 0),
        ("clamp(x=1)", "write a function as in: clamp", 0),
        ("a + 'text'", "is not allowed here; a number is needed", 4),
        ("on and a", "a condition is needed", 7),
        ("1e30", "is not a usable number", 0),
        ("", "empty", 0),
        ("1" * 2000, "more than 1000", 0),
        ("-" * 150 + "a", "nested too deeply", 0),
        ("a / (a - 2)", "divides by 0", 0),
        ("a if on else", "ends too early", 12),
        ("  a + q", "there is no column 'q'", 6),
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


# ---- Lopsided values -------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("7.9 // 2", 3), ("-7.9 // 2", -4), ("-7 % 3", 2), ("7.5 % 2", 1.5), ("7 % -3", -2),
        ("1 < a < 3 < 2", 0), ("3 > a > 1", 1), ("5 < a < 7", 0), ("2 >= a", 1), ("a >= 2", 1),
        ("2 <= a", 1), ("3 <= a", 0), ("on or b > 0", 1), ("on and b > 0", 0),
        ("clamp(-3, -1, 5)", -1), ("mix(10, 4, 0.25)", 8.5), ("dead_band(3, 1)", 2),
        ("dead_band(-3, 1)", -2), ("smooth(-1)", 0), ("smooth(2)", 1), ("smooth(0.25)", 0.15625),
        ("curve(5, 0, 2, 10, 4)", 3), ("curve(-5, 0, 2, 10, 4)", 2), ("curve(99, 0, 2, 10, 4)", 4),
        ("sine(0.25)", 1), ("sine(-0.25)", -1), ("(a + 1) * -b", 1.5), ("+b", -0.5),
    ],
)  # fmt: skip
def test_an_expression_of_uneven_numbers(text, value):
    assert value_of(text) == pytest.approx(value, abs=2e-5)


@pytest.mark.parametrize(
    ("text", "column"),
    [("  a + q", 6), ("  b +", 5), (" a b", 3), ("curve(1, 2, 3, 4, 5, 6)", 0)],
)
def test_the_caret_stands_under_the_place(text, column):
    with pytest.raises(fd.ExpressionError) as caught:
        value_of(text)
    assert caught.value.column == column
    if "\n" not in text:
        caret = caught.value.excerpt.splitlines()[1]
        assert caret == " " * (4 + column) + "^"


def test_letters_that_take_several_bytes_are_one_place_each():
    made = design(
        layer(when="m == 'größe' and q > 1"),
        signals={"m": {"kind": "choice", "choices": ["größe"]}},
    )
    (found,) = [finding for finding in made.check() if finding.severity == "error"]
    assert found.excerpt.splitlines()[1] == " " * (4 + len("m == 'größe' and ")) + "^"


def test_an_excerpt_needs_a_text_of_one_line():
    assert fd.ExpressionError("no", text="a\nb", column=1).excerpt == ""
    assert fd.ExpressionError("no", text="ab", column=1).excerpt == "    ab\n     ^"
    assert fd.ExpressionError("no").excerpt == ""


def shown(text, *news, signals=None, step=0.1, **keys):
    """What an expression is frame by frame, read from one LED's light."""
    kinds = signals or {"s": {}}
    program = design(layer(cover=text), signals=kinds, count=1, **keys).compile()
    return [
        float(program.engine.light(round(1000 * step * i), given)[0][0, 0])
        for i, given in enumerate(news)
    ]


def test_texts_may_be_the_same_or_not():
    mode = {"mode": {"kind": "choice", "choices": {"a": 1, "b": 4}}}
    news = [{"mode": 1.0}, {"mode": 4.0}]
    assert shown("1 if mode == 'b' else 0", *news, signals=mode) == [0, 1]
    assert shown("1 if mode != 'b' else 0", *news, signals=mode) == [1, 0]
    assert shown("1 if 'b' != mode else 0", *news, signals=mode) == [1, 0]


def test_functions_of_time_by_hand():
    on = {"s": {"kind": "switch"}}
    presses = [{"s": float(v)} for v in (1, 0, 1, 0, 1, 0, 1)]
    assert shown("toggle(s)", *presses, signals=on) == [0, 0, 1, 1, 0, 0, 1]
    assert shown("steps(s, 3) / 2", *presses, signals=on) == [0, 0, 0.5, 0.5, 1, 1, 0]
    assert shown("since(s)", {"s": 1.0}, {"s": 0.0}, {}, signals=on) == pytest.approx([0, 0.1, 0.2])
    ramp = [{"s": v / 10} for v in (0, 10, 10)]
    assert shown("slew(s, 4)", *ramp) == pytest.approx([0, 0.4, 0.8], abs=1e-5)
    assert shown("slew(s, 4)", *[{"s": 1.0}, {"s": 0.0}, {}]) == pytest.approx(
        [1, 0.6, 0.2], abs=1e-5
    )


def test_distances_take_the_third_axis_too():
    part = {"name": "p", "shape": "points", "points": [[3, 4, 0], [3, 4, 12]]}
    line = [{"name": "l", "part": [part]}]
    made = design(
        layer("field", red="distance(0, 0) / 20", green="distance(0, 0, 0) / 20", blue=0), line=line
    )
    rgb = made.compile().frame().rgb
    assert rgb[:, 0].tolist() == [64, 64]
    assert rgb[:, 1].tolist() == [64, 166]


def test_rgb_takes_its_channels_in_their_order():
    made = design(layer(colour="rgb(0.2, 0.4, 0.8)"), count=1)
    assert made.compile().frame().rgb[0].tolist() == [51, 102, 204]


def test_what_is_too_large_either_way_is_nothing():
    """No number of a design is beyond a thousand millions: what a product makes of more is 0."""
    for sign in (1, -1):
        signals = {"s": {}, "big": {"of": f"{sign} * s * s"}}
        assert shown("0.5 + big", {"s": 1e6}, signals=signals) == [0.5]


def test_a_name_that_was_left_out_is_not_told_again_and_another_one_is():
    made = design(layer(when="tap and nobody > 1"), signals={"tap": {"kind": "swich"}})
    messages = [f.message for f in made.check() if f.severity == "error"]
    assert len(messages) == 1
    made = design(layer(when="nobody > 1"), signals={"tap": {"kind": "swich"}})
    assert any("nobody" in f.message for f in made.check())


@pytest.mark.parametrize("text", ["x_of('bar')", "x_of(3, 0)", "x_of('bar', 0, 1)", "x_of()"])
def test_a_place_by_number_takes_a_name_and_a_number(text):
    (found,) = [each for each in design(layer(level=text)).check() if each.severity == "error"]
    assert "x_of takes a name and a number, as in: x_of('keys', key)" in found.message
