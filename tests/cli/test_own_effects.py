"""Effects of one's own: what may be written, and what a mistake is told."""

from __future__ import annotations

import re
import shutil

import pytest

import fendra as fd
from fendra.core.effects import EFFECTS
from helpers import OWN_EFFECT, with_own_effect


def test_an_effect_of_one_s_own_is_written_as_the_built_in_ones(tmp_path, fendra):
    made = with_own_effect(tmp_path, OWN_EFFECT, size="2 + 2")
    assert made.check() == []
    assert made.compile().frame().rgb[:, 0].tolist() == [255, 255, 0, 0] * 2
    assert "stripes" not in EFFECTS
    shutil.copy(fd.demo_file("lamp.toml"), tmp_path)
    (tmp_path / "mine.py").rename(tmp_path / "stripes.py")
    fd.trust(tmp_path / "stripes.py")
    _, out, _ = fendra("effects", "stripes", "--design", "lamp.toml")
    assert re.search(r"size +4 +LEDs +1 to 100 +from stripe to stripe", out)


HEAD = """
import math
import numpy as np
from fendra.effects import Led, Look, chance, colour, effect, maximum, minimum, select

@effect
def stripes(led: Led, colour=colour("red", "of it")) -> Look:
    \"\"\"Some LEDs are lit.\"\"\"
    x = led.rank
    """
LINE = 9
"""Of the file, where the function's first value is."""


@pytest.mark.parametrize(
    ("look", "red"),
    [
        ("colour, 0.4", [102] * 8),
        ("colour, True", [255] * 8),
        ("colour, x < 3", [255] * 3 + [0] * 5),
        ("colour, x % 3 == 2", [0, 0, 255, 0, 0, 255, 0, 0]),
        ("colour, x != 5", [255] * 5 + [0] + [255] * 2),
        ("colour, x // 4", [0] * 4 + [255] * 4),
        ("colour, (3 - x) % 5 / 5", [153, 102, 51, 0, 204, 153, 102, 51]),
        ("colour, 7 % (x + 1) / 15", [0, 17, 17, 51, 34, 17, 0, 119]),
        ("colour, 7 // (x + 1) / 15", [119, 51, 34, 17, 17, 17, 17, 0]),
        ("colour, np.float32(0.2) * (x % 2)", [0, 51] * 4),
        ("colour, np.float64(3) < x", [0] * 4 + [255] * 4),
        ("colour, minimum(1, maximum(0.2, x))", [51] + [255] * 7),
        ("colour, select(True, x, 0) == 6", [0] * 6 + [255, 0]),
        ("(0.8, 0, 0), 0.5", [102] * 8),
        ("np.array([0.8, 0, 0]), 0.5", [102] * 8),
        ("0.2, 1", [51] * 8),
    ],
)
@pytest.mark.parametrize("engine", ["numpy", "native", "wasm"])
def test_what_one_would_write_works(tmp_path, request, engine, look, red):
    if engine == "native":
        request.getfixturevalue("compiler")
    made = with_own_effect(tmp_path, f"{HEAD}return Look({look})\n")
    assert made.compile(engine=engine).frame().rgb[:, 0].tolist() == red


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ("return Look(colour, 1.0 if x > 3 else 0.0)", "Write select(condition, a, b) for `if`"),
        ("return Look(colour, x > 1 and x < 3)", "&, | and ~"),
        ("return Look(colour, max(x, 1))", "minimum and maximum"),
        ("return Look(colour, math.sin(x))", "Use the functions of fendra.effects"),
        ("return Look(colour, np.sin(x))", "led.fixed(name, values)"),
        ("return Look(colour, np.arange(8) * x)", "led.fixed(name, values)"),
        ("return Look(colour, np.add(x, 1))", "Use the functions of fendra.effects"),
        ("return Look(colour, int(x))", "known only while the light runs"),
        ("return Look(colour, x ** 2)", "Write x * x"),
        ("return Look(colour, maximum(1, 2) * x)", "Use Python's own for those"),
        ("return Look(colour, chance(x, 3))", "Write to_uint(value)"),
        ("x.nothing", "has no attribute 'nothing'"),
    ],
)  # fmt: skip
def test_a_mistake_inside_of_it_names_its_line_and_its_cure(tmp_path, body, says):
    (found,) = with_own_effect(tmp_path, f"{HEAD}pass\n    {body}\n").check()
    assert found.message.startswith(f"effect 'stripes' (mine.py:{LINE + 2}): ")
    assert says in f"{found.message} {found.remedy}"


def test_a_mistake_in_a_function_that_it_calls_names_the_line_there(tmp_path):
    code = f"{HEAD}return Look(colour, half(x))\n\n\ndef half(x):\n    return max(x, 3) / 2\n"
    (found,) = with_own_effect(tmp_path, code).check()
    assert f"(mine.py:{LINE + 5}): `if`" in found.message


@pytest.mark.parametrize(
    ("look", "says"),
    [
        ("3", "it returns a value of type int, but a Look is needed"),
        ("None", "it returns nothing, but a Look is needed"),
        ("Look('red', 1.0)", "the colour of its Look is 'red'"),
        ("Look((1, 0), 1.0)", "the colour of its Look is (1, 0)"),
        ("Look(1.0, colour)", "the cover of its Look is a colour"),
        ("Look(colour, led.number)", "the cover of its Look is <Value column number (uint)>"),
        ("Look(colour, [1.0])", "the cover of its Look is [1.0]"),
    ],
)
def test_a_wrong_look_names_the_function_and_its_cure(tmp_path, look, says):
    (found,) = with_own_effect(tmp_path, f"{HEAD}return {look}\n").check()
    assert found.message.startswith(f"effect 'stripes' (mine.py:6): {says}")
    assert "Look(colour" in found.remedy or "three numbers" in found.remedy


@pytest.mark.parametrize(
    ("code", "says"),
    [
        ("import nothing_at_all", "No module named 'nothing_at_all' (line 1)"),
        ("x = (", "SyntaxError"),
        ("x = 1", "marks no function with @effect"),
        (OWN_EFFECT.replace('number(4, "LEDs", 1, 100, "from stripe to stripe")', "4"),
         "size needs a default of number"),
        (OWN_EFFECT.replace("stripes(", "solid("), "there is already an effect 'solid'"),
        (OWN_EFFECT.replace("led.rank", "led.rnk"), "(mine.py:8): AttributeError: 'Led' object has no attribute 'rnk'"),
        ("raise SystemExit", "fails"),
    ],
)  # fmt: skip
def test_a_wrong_effect_of_one_s_own_is_a_finding_and_no_traceback(tmp_path, code, says):
    found = with_own_effect(tmp_path, code).check()
    assert any(says in finding.message for finding in found if finding.severity == "error"), found
