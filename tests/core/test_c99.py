"""The emitted C as text: what it holds, and what it leaves out."""

from __future__ import annotations

import dataclasses
import re
import subprocess
import sys

import numpy as np
import pytest

import fendra as fd
from fendra.core.catalogue.controllers import CONTROLLERS
from fendra.core.engines.c99.cost import Cost, cost_of
from fendra.core.engines.c99.names import Names, identifier
from fendra.core.engines.c99.tables import Tables, list_of_spots, rule
from fendra.core.engines.c99.text import (
    Piece,
    comment,
    float_literal,
    operation,
    statement,
    without_comments,
)
from fendra.core.engines.runs import are_scattered
from fendra.core.graph.ops import Binds, Kind
from fendra.core.layout.wire import bytes_of_lines
from helpers import design, layer, strip

HERON = fd.demo_file("heron.toml")


@pytest.fixture(scope="module")
def heron():
    return fd.load(HERON).emit()


def function(text, name):
    """The body of a function of the emitted code."""
    return re.search(rf"\b{name}\(.*?\n\{{\n(.*?)\n\}}", text, re.DOTALL)[1]


@pytest.mark.slow
def test_the_same_design_gives_the_same_text_whatever_the_hash_seed():
    code = (
        "import fendra as fd; e = fd.load(fd.demo_file('heron.toml')).emit();"
        "import hashlib; print(hashlib.sha256((e.header + e.source).encode()).hexdigest())"
    )
    seen = {
        subprocess.run(
            [sys.executable, "-c", code], env={"PYTHONHASHSEED": seed}, check=True,
            capture_output=True,
        ).stdout
        for seed in ("0", "1", "2")
    }  # fmt: skip
    assert len(seen) == 1


def test_it_needs_nothing_but_four_headers_and_four_functions(heron):
    included = re.findall(r"#include (\S+)", heron.header + heron.source)
    needed = {"<math.h>", "<stdbool.h>", "<stdint.h>", "<string.h>", '"heron.h"'}
    assert {*included} == needed | {"<avr/pgmspace.h>"}  # that one on 8-bit parts alone
    bare = re.sub(r"#define .*", "", without_comments(heron.source))
    called = {*re.findall(r"\b(\w+)\(", bare)} - {
        "if",
        "for",
        "return",
        "while",
        "defined",
        "__attribute__",
    }
    called = {name for name in called if not name.startswith(("READ_", "SKIP_WHERE"))}
    own = {*re.findall(r"\b(\w+)\([^;{}]*\)\n\{", bare)}
    assert called - own == {"fabsf", "floorf", "memset"}
    assert "double" not in bare


def test_each_layer_and_signal_is_commented_with_its_line_in_the_file(heron):
    lines = HERON.read_text(encoding="utf-8").splitlines()
    found = re.findall(r'(Layer \d+, "(.*?)"|Signal (\w+)) \(heron\.toml:(\d+)\)', heron.source)
    assert {name for _, name, _, _ in found if name} == {item.name for item in fd.load(HERON).layer}
    for _, layer_name, signal, line in found:
        if signal:
            assert lines[int(line) - 1] == f"[signals.{signal}]"
        else:
            assert lines[int(line) - 1 : int(line) + 1] == ["[[layer]]", f'name = "{layer_name}"']


def test_a_layer_runs_over_its_own_leds_and_costs_one_test_while_it_is_off():
    source = design(
        layer(), layer(on="some", colour="red", level="s", when="go"), count=300,
        signals={"s": {}, "go": {"kind": "switch"}}, groups={"some": "x > 500 and x < 800"},
    ).emit().source  # fmt: skip
    assert "from = later(first, 51), to = earlier(end, 80);" in source
    painting = function(source, "paint")
    assert re.search(
        r"if \(now->go\) \{\s+paint_n1_solid_layer\(now, first, end, light\);", painting
    )
    assert re.search(r"if \(now->go\) \{[^}]*level", function(source, "advance"))


def test_several_runs_are_ranges_and_scattered_leds_a_list():
    source = design(
        layer(on="ends"), layer(on="odd"), count=40,
        groups={"ends": "x < 60 or x > 330", "odd": "index % 2 == 1"},
    ).emit().source  # fmt: skip
    assert "ends_runs[2] IN_FLASH = {\n    {0, 6, 0},\n    {34, 40, 6},\n};" in source
    listed = re.search(r"uint8_t odd_leds\[20\] IN_FLASH = \{\n(.*?)\n\}", source)[1]
    assert [int(item) for item in listed.split(",")] == [*range(1, 40, 2)]


def test_a_layer_that_is_never_on_or_shows_nothing_is_not_there():
    source = design(
        layer(colour="red"), layer(when=False), layer("sweep", colour="black", blend="add")
    ).emit().source  # fmt: skip
    assert "paint_n0_solid_layer" in source
    assert "paint_n1" not in source
    assert "paint_n2" not in source


def test_channels_that_are_always_dark_cost_nothing():
    source = design(layer(colour="red", level="s", on="bar"), signals={"s": {}}).emit().source
    assert "light->red[at] = " in function(source, "paint_n0_solid_layer")
    assert "green" not in function(source, "paint_n0_solid_layer")


def test_memory_begins_as_the_graph_says():
    """A switch that is held starts as if it had been off for ever; all else is zero."""
    emitted = design(
        layer(when="on"), signals={"on": {"kind": "switch", "lost_after": 0.5, "hold": 1.0}}
    ).emit()
    start = re.findall(r"state->(\w+) = (\w+);", function(emitted.source, "test_init"))
    assert start == [("on_since", "2147483647u"), ("on_since_2", "2147483647u")]


@pytest.mark.parametrize(
    ("values", "text"),
    [
        ([3.0] * 5, "3.0f"),
        ([-0.0] * 2, "-0.0f"),
        (range(9), "(float)k"),
        (range(11, -1, -1), "(float)(11 - k)"),
        (range(4, 40, 3), "(float)(4 + 3 * k)"),
        (np.arange(130) / 129, "(float)k / 129.0f"),
        (np.arange(9) / 8, "(float)k * 0.125f"),
        (np.arange(200)[::-1] / 199, "(float)(199 - k) / 199.0f"),
        (np.float32(0.1) + np.float32(0.3) * np.arange(5, dtype=np.float32), "0.1f + 0.3f * (float)k"),
    ],
)  # fmt: skip
def test_values_that_follow_a_rule_need_no_table(values, text):
    tables = Tables(Names())
    assert tables.read(np.array([*values], np.float32), Kind.FLOAT, "t").text == text
    assert not [*tables]


@pytest.mark.parametrize(
    ("values", "text", "c_type", "held"),
    [
        ([5, 200, 5, 9], "(float)READ_U8(t[k])", "uint8_t", [5, 200, 5, 9]),
        ([-5, 100, 5, 9], "(float)READ_I8(t[k])", "int8_t", [-5, 100, 5, 9]),
        ([256, 1, 1, 1], "(float)READ_U16(t[k])", "uint16_t", [256, 1, 1, 1]),
        ([-129, 1, 1, 1], "(float)READ_I16(t[k])", "int16_t", [-129, 1, 1, 1]),
        (np.array([0, 2, 1, 2]) / 2, "(float)READ_U8(t[k]) * 0.5f", "uint8_t", [0, 2, 1, 2]),
        (
            np.array([0, 1, 3, 7] * 32) / 7,
            "(float)READ_U8(t[k]) / 7.0f",
            "uint8_t",
            [0, 1, 3, 7] * 32,
        ),
        (np.array([0, 1, 3, 7]) / 7, "READ_F32(t[k])", "float", np.array([0, 1, 3, 7]) / 7),
        ([0.0, -0.0, 1.0, 7.0], "READ_F32(t[k])", "float", [0.0, -0.0, 1.0, 7.0]),
        ([0.3, 0.7, 0.11, 0.5], "READ_F32(t[k])", "float", [0.3, 0.7, 0.11, 0.5]),
        ([1e9, 70_000.0, 3.0, 4.0], "READ_F32(t[k])", "float", [1e9, 70_000.0, 3.0, 4.0]),
    ],
)
def test_tables_are_as_small_as_they_exactly_fit(values, text, c_type, held):
    tables = Tables(Names())
    assert tables.read(np.array(values, np.float32), Kind.FLOAT, "t").text == text
    (table,) = tables
    assert table.c_type == c_type
    assert table.values.astype(np.float32).tobytes() == np.array(held, np.float32).tobytes()


def test_an_led_that_a_layer_leaves_as_it_is_is_passed_over_where_floats_are_software():
    """A sweep covers few LEDs: the others are left before anything is computed for their colour. A
    flash that is dark costs nothing but a test, on every target."""
    source = design(
        layer(colour="red", level=0.2), layer("sweep", colour="lime"),
        layer("blink", colour="blue", rate=2),
    ).emit().source  # fmt: skip
    sweep = function(source, "paint_n1_sweep_layer")
    before, _, after = sweep.partition("SKIP_WHERE(cover == 0.0f);")
    assert "light->" not in before
    assert "light->" in after
    assert function(source, "paint_n2_blink_layer").count("return;") == 1
    assert "SKIP_WHERE" not in function(source, "paint_n0_solid_layer")


def test_what_follows_from_one_of_two_constants_is_one_of_two_constants():
    """A level that a condition chooses is made light when the code is written, not for each LED."""
    source = design(
        layer(level="0.8 if x * s > 0 else 0.1"), signals={"s": {}}, count=20
    ).emit().source  # fmt: skip
    body = function(source, "paint_n0_solid_layer")
    assert "0.5668129" in body  # the light of 0.8 and of 0.1, as the eye sees it
    assert "0.0112601" in body
    assert body.count("?") == 1
    assert "/" not in body.replace("/*", "")


def test_equal_tables_are_one():
    tables, values = Tables(Names()), np.array([4, 9, 1], np.float32)
    first = tables.read(values, Kind.FLOAT, "a")
    second = tables.read(values, Kind.FLOAT, "b")
    assert first.text == second.text == "(float)READ_U8(a[k])"
    assert tables.read(np.array([True, False, True]), Kind.TRUTH, "c").text == "READ_U8(c[k]) != 0"
    assert len([*tables]) == 2


@pytest.mark.parametrize(
    ("last", "c_type"), [(255, "uint8_t"), (256, "int16_t"), (32_768, "int32_t")]
)
def test_lists_of_leds_are_of_the_smallest_type_that_compares_with_an_int(last, c_type):
    assert list_of_spots("t", np.array([1, last])).c_type == c_type


def test_leds_are_scattered_where_they_stand_in_short_rows():
    assert not are_scattered(np.arange(100, 200))
    assert not are_scattered(np.array([*range(16), *range(40, 56)]))
    assert are_scattered(np.arange(1, 40, 2))
    assert not are_scattered(np.array([7]))


@pytest.mark.parametrize("value", [0.1, 1 / 3, 1e-45, 16777217.0, 3.4e38, -0.0, 1e9, 255.49998])
def test_float_literals_are_read_back_to_the_bit(value):
    text = float_literal(value)
    assert text.endswith("f")
    assert np.float32(text[:-1]).tobytes() == np.float32(value).tobytes()


def test_expressions_have_the_parentheses_they_need():
    a, b, c = (Piece(name, Binds.ATOM) for name in "abc")
    assert operation("sub", [a, operation("sub", [b, c])]).text == "a - (b - c)"
    assert operation("sub", [operation("sub", [a, b]), c]).text == "a - b - c"
    assert operation("mul", [operation("add", [a, b]), c]).text == "(a + b) * c"
    assert operation("neg", [operation("neg", [a])]).text == "-(-a)"
    assert operation("or", [operation("and", [a, b]), c]).text == "(a && b) || c"
    assert operation("select", [operation("less", [a, b]), c, a]).text == "a < b ? c : a"
    assert operation("abs", [operation("sub", [a, b])]).text == "fabsf(a - b)"
    assert operation("to_float", [operation("uint_shift", [a, b])]).text == "(float)(a >> b)"


def test_long_statements_are_broken_before_an_operator_outside_parentheses():
    lines = statement(f"const float x = {'a' * 50} * (b + c) + {'d' * 50};", "    ")
    assert lines == [f"    const float x = {'a' * 50} * (b + c)", f"        + {'d' * 50};"]


def test_names_are_of_c_and_each_is_given_once():
    names = Names()
    assert [names.take("Brake light!") for _ in range(3)] == [
        "brake_light", "brake_light_2", "brake_light_3",
    ]  # fmt: skip
    assert names.take("float") == "float_2"
    assert names.inner().take("brake light") == "brake_light_4"
    assert identifier("日本") == "unnamed"


# ---- Tables at the limits of small integers --------------------------------------------------------------


def text_of(values, kind=Kind.FLOAT):
    piece = rule(np.asarray(values, kind.dtype), kind)
    return None if piece is None else piece.text


@pytest.mark.parametrize(
    ("values", "text"),
    [
        (np.arange(9) * 3, "(float)(3 * k)"),
        (np.arange(9) * 3 + 5, "(float)(5 + 3 * k)"),
        (9 - np.arange(9), "(float)(9 - k)"),
        (np.arange(10_922) * 3, "(float)(3 * k)"),  # 10,922 * 3 is 32,766
        (np.full(7, 2.5), "2.5f"),
    ],
)
def test_values_in_a_row_are_a_rule(values, text):
    assert text_of(values) == text


def test_products_that_an_int_of_16_bits_does_not_hold_are_no_integers():
    """20,000 LEDs, three apart: 59,997 is beyond 32,767."""
    for values in (np.arange(20_000) * 3, 40_000 - np.arange(300), np.arange(300) * 200):
        assert "(float)(" not in (text_of(values) or "")
    assert text_of(np.arange(40_000) * 3) == "(float)(3 * k)"  # so many have places of 32 bits


@pytest.mark.parametrize(
    ("values", "c_type"),
    [([0, 255, 3], "uint8_t"), ([0, -3, 100], "int8_t"), ([0, 256, 3], "uint16_t"),
     ([-1, 32_767, 5], "int16_t"), ([-1, 32_768, 5], "float"), ([0, 65_536, 5], "float"),
     ([0.37, 2, 7.11], "float")],
)  # fmt: skip
def test_tables_are_of_the_smallest_type_that_holds_them(values, c_type):
    tables = Tables(Names([]))
    tables.read(np.array(values, np.float32), Kind.FLOAT, "t")
    assert [table.c_type for table in tables] == [c_type]


@pytest.mark.parametrize(
    ("values", "c_type", "text"),
    [([9, 7, 262], "uint8_t", "(uint32_t)7u + READ_U8(t[k])"), ([0, 9, 8], "uint8_t", "(uint32_t)READ_U8(t[k])"),
     ([2**31, 2**31 + 65_535, 2**31 + 9], "uint16_t", f"(uint32_t){2**31}u + READ_U16(t[k])"),
     ([5, 65_541, 9], "uint32_t", "READ_U32(t[k])"), ([0, 2**24 + 1, 9], "uint32_t", "READ_U32(t[k])")],
)  # fmt: skip
def test_unsigned_integers_stand_above_the_least_of_them(values, c_type, text):
    tables = Tables(Names([]))
    piece = tables.read(np.array(values, np.uint32), Kind.UINT, "t")
    assert [table.c_type for table in tables] == [c_type]
    assert piece.text == text


@pytest.mark.parametrize(
    ("spots", "c_type"),
    [([1, 4, 255], "uint8_t"), ([1, 4, 256], "int16_t"), ([1, 4, 32_767], "int16_t"),
     ([1, 4, 32_768], "int32_t")],
)  # fmt: skip
def test_lists_of_leds_hold_the_last_of_them(spots, c_type):
    assert list_of_spots("t", np.array(spots)).c_type == c_type


def test_dark_addresses_of_four_channels_are_four_bytes_each():
    """Two hidden, then one of white 5 and red 4 more; a skipped one behind it."""
    line = [{"name": "l", "led": "sk6812-rgbw", "part": [
        {"name": "h", "shape": "hidden", "count": 2}, strip("s", 2, skip=[1])]}]  # fmt: skip
    made = design(layer(colour="rgb(9.2 / 255, 5.2 / 255, 5.2 / 255)"), line=line)
    frame = made.compile().frame(at=0)
    expected = bytes([0] * 8 + [0, 4, 0, 5] + [0] * 4)
    assert frame.line_bytes() == [expected]
    assert bytes_of_lines(made.compile().plan.wires, frame.rgb) == expected
    assert made.emit().lines[0].size == 16
    assert "put_dark(to, 8)" in made.emit().source


def test_a_comment_has_as_many_lines_as_it_needs_and_one_end():
    assert comment("twice", "    ") == ["    /* twice */"]
    words = [f"word{i}" for i in range(40)]
    first, *more = comment(" ".join(words))
    assert first.startswith("/* word0 word1 ")
    assert len(more) == 2
    assert " ".join([first, *more]).count("*/") == 1
    assert " ".join([first, *more]).split() == ["/*", *words, "*/"]


@pytest.mark.parametrize(
    ("level", "is_told"),
    [
        ("s / t", True),  # of either nothing is known
        ("floor(s) / 7", False),  # 0, or a seventh at the least
        ("floor(s) / 1e9 / 1e9 / 1e9 / 1e9", False),  # 1e-36; the smallest normal float is 1.2e-38
        ("floor(s) / 1e9 / 1e9 / 1e9 / 1e9 / 100", True),
        ("max(floor(s), 0.5) / 9e8", False),
    ],
)
def test_only_a_quotient_that_may_be_tiny_is_divided_with_care(level, is_told):
    made = design(layer("field", red=level), signals={"s": {}, "t": {}})
    assert ("quotient(" in made.emit().source) is is_told


def test_costs_by_hand():
    """With one scene alone nothing is mixed; of three scenes the two that cost most count."""
    cost = Cost(flash=0, memory=70, stack=30, operations=1, work=0, layers=((0, 500), (1, 50)), rest=20,
                mix=300, hz=1e6, line_s=0.001, waits=True)  # fmt: skip
    assert (cost.work_of([0]), cost.work_of([0, 1], scenes=1), cost.work_of([1], scenes=2)) == (
        520, 570, 670
    )  # fmt: skip
    assert cost.ram == 100
    assert cost.rate_of(1000) == pytest.approx(500)  # made and sent one after the other
    assert dataclasses.replace(cost, waits=False).rate_of(1000) == pytest.approx(1000)
    assert dataclasses.replace(cost, waits=False).rate_of(500) == pytest.approx(1000)
    layers = [layer("solid", scene=scene) for scene in ("a", "b", "c")]
    layers[1] = layer("cloud", scene="b")
    layers[2] = layer("flicker", scene="c")
    scenes = [{"name": name, "when": f"s > {i}"} for i, name in enumerate("abc")]
    made = design(*layers, scene=scenes, signals={"s": {}})
    found = cost_of(made.emit().count, CONTROLLERS["atmega328p"])
    each = dict(found.layers)
    assert each[0] < each[1]
    assert found.work == pytest.approx(found.rest + 2 * found.mix + each[1] + each[2], abs=3)
    plain = cost_of(design(layer(), signals={"s": {}}).emit().count, CONTROLLERS["atmega328p"])
    assert (plain.mix, found.mix > 0) == (0, True)


def test_what_is_counted_is_each_operation_as_often_as_it_stands():
    counted = (
        design(layer("solid", level="s * t * s + s * 2 * t"), signals={"s": {}, "t": {}})
        .emit()
        .count
    )
    assert counted.frame["mul"] + counted.layers[0].frame["mul"] >= 6  # four, and the lightness
    assert counted.leds == 8
    assert counted.line_bytes == (24,)
