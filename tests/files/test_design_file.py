"""Design files: all problems at once, each with its line and remedy, and never a traceback."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.files.design_file import check_text
from fendra.front import Design
from fendra.toml_places import key_lines
from helpers import strip
from strategies import examples

HERON = fd.demo_file("heron.toml").read_text(encoding="utf-8")

SMALL = """
name = "Small"
[[line]]
name = "a"
[[line.part]]
name = "bar"
shape = "strip"
count = 8
start = [0, 0]
end = [70, 0]
[signals.speed]
[groups]
half = "x > 30"
[[layer]]
name = "glow"
on = "half"
effect = "solid"
colour = "red"
level = "speed / 50"
"""


def said(text: str) -> dict[int, str]:
    """Line to what is said there; here, no line is spoken of twice."""
    findings = check_text(text, "t").findings
    assert len({finding.line for finding in findings}) == len(findings), list(map(str, findings))
    return {finding.line: f"{finding.message} {finding.remedy}" for finding in findings}


def test_the_shipped_design_has_no_findings():
    assert check_text(HERON, "heron.toml").findings == ()


@pytest.mark.parametrize(
    ("was", "now", "line", "says"),
    [
        ('name = "Small"', 'nmae = "Small"', 2, "Did you mean 'name'?"),
        ("count = 8", "count = 0", 8, "no LEDs"),
        ("count = 8", "count = 'eight'", 8, "this must be a whole number; you wrote \"eight\"."),
        ("count = 8", "cuont = 8", 8, "Did you mean 'count'?"),
        ('shape = "strip"', 'shape = "stripe"', 5, "there is no shape 'stripe'. Did you mean 'strip'?"),
        ('on = "half"', 'on = "hlaf"', 16, "no part, line, group or trail 'hlaf'. Did you mean 'half'?"),
        ('effect = "solid"', 'effect = "slid"', 17, "no effect 'slid'. Did you mean 'solid'?"),
        ('colour = "red"', 'color = "red"', 18, "no parameter 'color'. Did you mean 'colour'?"),
        ('colour = "red"', 'colour = "rde"', 18, "no colour 'rde'. Did you mean 'red'?"),
        ('colour = "red"', 'colour = "#12"', 18, "three or six digits"),
        ('colour = "red"', "colour = 7", 18, "this must be a colour; you wrote 7."),
        ('level = "speed / 50"', 'level = "sped / 50"', 19, "there is no signal 'sped'. Did you mean 'speed'?"),
        ('level = "speed / 50"', 'level = "speed /"', 19, "ends too early"),
        ('level = "speed / 50"', "level = 50", 19, "50 is out of range. It goes from 0 to 1"),
        ('half = "x > 30"', 'half = "x >> 30"', 13, "operator"),
        ("[signals.speed]", "[signals.'my speed']", 11, "a signal's name is used in expressions"),
        ("[signals.speed]", "[signals.class]", 11, "so no signal can have this name; choose another"),
        ("[[line.part]]", "[[line.prat]]", 5, "no key 'prat' here. Did you mean 'part'?"),
        ("[[layer]]", "[[layer]", 14, "Write: [[layer]]"),
        ("start = [0, 0]", "start = [0]", 9, "too few values"),
        ("start = [0, 0]", "start = [0, 0, 0, 0]", 9, "there are 4 values; at most 3 are allowed"),
        ("end = [70, 0]", "end = [70, 1e9]", 10, "1e+09 is out of range. Write a number of at most 1e+06."),
        ("count = 8", "", 5, "a strip needs `count`, `pitch` or `per_metre`"),
        ("end = [70, 0]", "", 5, "has either an `end` or a `direction`; give one"),
        ('shape = "strip"', "", 5, "'shape' is missing. The shapes are: arc, assembly, frame, grid"),
        ('level = "speed / 50"', "level = [1]", 19, "this must be a number; you wrote a list of 1."),
        ('colour = "red"', "colour = { r = 1 }", 18, "a lookup table needs `by`"),
        ('name = "a"', "", 3, "'name' is missing"),
        ("[signals.speed]", "[signals.speed]\nkind = 'nmber'", 12, "Did you mean 'number'?"),
    ],
)  # fmt: skip
def test_each_mistake_is_said_at_its_line_with_a_remedy(was, now, line, says):
    found = said(SMALL.replace(was, now, 1))
    if line:
        assert says in found[line]
    else:
        assert found == {}


def test_all_problems_come_at_once():
    text = SMALL
    for was, now in [
        ("count = 8", "count = 0"), ("half = \"x > 30\"", "half = \"y2 > 30\""), ("red", "rde"),
        ("[signals.speed]", "[signals.speed]\nsmoth = 1"), ("solid", "slid"), ("/ 50", "/ fifty"),
    ]:  # fmt: skip
        text = text.replace(was, now, 1)
    text += '[[layer]]\nname = "x"\non = "bar"\neffect = "blink"\nduty = 2\nwhen = "speed"\n'
    assert sorted(said(text)) == [8, 12, 14, 18, 20, 25, 26]


def test_loading_a_wrong_file_raises_every_error(tmp_path):
    path = tmp_path / "d.toml"
    path.write_text(SMALL.replace("solid", "slid").replace("count = 8", "count = 0"))
    with pytest.raises(fd.DesignError) as caught:
        fd.load(path)
    assert [f.line for f in caught.value.findings] == [8, 17]
    assert f"{path}:8: error: line[1].part[1].count: this part has no LEDs." in str(caught.value)


def test_paths_keep_their_numbers_when_something_before_is_wrong():
    """The second layer stays layer[2] though the first is left out."""
    text = (
        SMALL.replace('effect = "solid"\n', "")
        + '[[layer]]\nname = "x"\non = "bra"\neffect = "solid"\n'
    )
    found = [str(f) for f in check_text(text, "t").findings]
    assert any("layer[1]: " in line or "layer[1].effect" in line for line in found)
    assert any(
        "layer[2].on: there is no part, line, group or trail 'bra'" in line for line in found
    )


@pytest.mark.parametrize("case", ["missing", "folder", "bytes"])
def test_files_that_cannot_be_read_are_said_in_one_line(case, tmp_path):
    path = tmp_path / "d.toml"
    if case == "folder":
        path.mkdir()
    elif case == "bytes":
        path.write_bytes(b"name = '\xff'")
    with pytest.raises(fd.FileError) as caught:
        fd.load(path)
    assert "\n" not in str(caught.value)


def test_keys_are_found_whatever_stands_between():
    text = '''# [no.table]
a = """
[also.none]
b = 1
"""
[x]
list = [
  1, # ]
  [2],
]
"quoted key".inner = "= #"
[[x.y]]
[[x.y]]
z = {q = 1}
'''
    lines = key_lines(text)
    assert lines[("a",)] == 2
    assert lines[("x", "list")] == 7
    assert lines[("x", "quoted key", "inner")] == 11
    assert lines[("x", "y", 1)] == 13
    assert lines[("x", "y", 1, "z")] == 14
    assert ("b",) not in lines


JUNK = [
    "0", "-1", "inf", "nan", "1e400", "true", "[]", "{}", "[[1, 2]]", "''", "'x'", "'('", "'speed'", "'left'",
    "'lost(speed)'", "'lost(x)'", "'1 / 0'", "'part == 1'", "'cycle(x)'", "'hold(1, 2)'", "'red'", "'é'",
    "99999999999999999999", "1979-05-27", "{a = 1}", "'speed.x'", "'x if'", "0.5", "'mix(1, 2, 3)'",
]  # fmt: skip
TABLES = [
    "[[layer]]",
    "[[line]]",
    "[line]",
    "[signals]",
    "[x]",
    "[[line.part]]",
    "layer = 3",
    "line = []",
]


@examples(60)
@given(st.randoms(use_true_random=False), st.integers(1, 4))
def test_no_mutated_design_file_ends_in_a_traceback(rng: random.Random, changes: int):
    """Lines dropped, doubled, renamed, given junk, broken: findings with a line, or a program."""
    lines = HERON.split("\n")
    for _ in range(changes):
        i = rng.randrange(len(lines))
        key, equals, _value = lines[i].partition("=")
        match rng.randrange(6):
            case 0:
                del lines[i]
            case 1:
                lines.insert(i, rng.choice(lines))
            case 2 if equals:
                lines[i] = f"{key}= {rng.choice(JUNK)}"
            case 3 if equals:
                lines[i] = (
                    f"{rng.choice(['name', 'of', 'x', 'shape', 'a.b'])} ={lines[i].partition('=')[2]}"
                )
            case 4 if lines[i]:
                j = rng.randrange(len(lines[i]))
                lines[i] = lines[i][:j] + rng.choice("[]{}=\"'#.,0é\t") + lines[i][j + 1 :]
            case _:
                lines[i] = rng.choice(TABLES)
    checked = check_text("\n".join(lines), "mutated.toml", Design)
    assert all(f.line is not None and 1 <= f.line <= len(lines) + 1 for f in checked.findings)
    if checked.has_errors:
        assert str(checked.findings[0])
        return
    assert isinstance(checked.design, Design)
    checked.design.compile().frame(at=0.1)


@pytest.mark.parametrize(
    ("keys", "says"),
    [
        ('shape = "strip"\nstart = [0, 0]\nend = [9, 0]\ncount = 4\nskip = [-1]', "skip[1]: -1 is out of range. Write a number of at least 0."),
        ('shape = "strip"\nstart = [0, 0]\nend = [9, 0]\ncount = 4\nfacing = ["up", "sidewise"]', "facing[2]: this must be back, down, front, in, left, out, right or up; you"),
        ('shape = "strip"\nstart = [0, 0]\nend = [9, 0]\ncount = 4\nfacing = [0, 0, 0]', "a direction of length 0 leads nowhere"),
        ('shape = "strip"\nstart = [0, 0]\nend = [9, 0]\ndirection = "front"\ncount = 4', "either an `end` or a `direction`; give one of them"),
        ('shape = "strip"\ndirection = "front"\ncount = 4', "needs `count`, and `pitch` or `per_metre`"),
        ('shape = "strip"\nstart = [0, 0]\nend = [9, 0]\npitch = 1\nper_metre = 9', "mean the same"),
        ('shape = "path"\npoints = [[0, 0]]\ncount = 3', "points: there are 1 values; at least 2 are needed."),
        ('shape = "path"\npoints = [[0, 0], { via = [5, 0], to = [9, 0] }]\ncount = 3', "three points that are not on a straight line"),
        ('shape = "path"\npoints = [[0, 0], { va = [5, 5], to = [9, 0] }]\ncount = 3', "there is no key 'va' here. Did you mean 'via'?"),
        ('shape = "arc"\nradius = 9\nstart_angle = 0\nend_angle = 400\ncount = 3', "at most 360 degrees"),
        ('shape = "grid"\ncolumns = 2000\nrows = 2000\npitch = 1', "a part has at most 100000 LEDs"),
        ('shape = "grid"\ncolumns = 2\nrows = 2\npitch = [1, 2, 3]', "pitch: there are 3 values; at most 2 are allowed."),
        ('shape = "frame"\nwidth = 9\nheight = 9', "a frame needs LEDs on a side"),
        ('shape = "frame"\nwidth = 9\nheight = 9\ntop = 3\ngap = 9', "the gap is as long as the bottom side"),
        ('shape = "frame"\nwidth = 9\nheight = 9\ntop = 3\nfirst = "gap"', "the chain begins at the gap, but there is no gap"),
        ('shape = "keys"', "keys need `keys`, a `file` or `columns`"),
        ('shape = "keys"\ncolumns = [{ keys = 3, shft = 1 }]', "Did you mean 'shift'?"),
        ('shape = "points"', "points need `points` or a `file`"),
        ('shape = "assembly"', "use: 'use' is missing"),
        ('shape = ["keys"]\nfile = "a.csv"', "there is no shape '['keys']'"),
    ],
)  # fmt: skip
def test_mistakes_in_parts_are_said_in_words(keys, says):
    text = f'[[line]]\nname = "a"\n[[line.part]]\nname = "p"\n{keys}\n'
    found = [str(finding) for finding in check_text(text, "t").findings]
    assert any(says in finding for finding in found), found
    assert not any("input should" in finding.lower() for finding in found)


def test_a_file_without_a_line_says_that_alone():
    (finding,) = check_text("[groups]\ng = \"part == 'x'\"\n", "t").findings
    assert finding.message == "there is no line here."


# ---- What is left out takes nothing else with it --------------------------------------------------------------

TWO = """line = [{ name = "l", part = [
    { name = "bar", shape = "strip", start = [0, 0], end = [70, 0], count = 8 },
    { name = "dot", shape = "ring", radius = -1, count = 3 },
] }]
[presets.warm]
effect = 7
[[scene]]
name = "one"
when = 3
[[scene]]
name = "two"
[[layer]]
name = "first"
on = "bar"
[[layer]]
name = "second"
on = "dot"
effect = "solid"
preset = "warm"
scene = ["one", "two"]
[[layer]]
name = "third"
on = "bra"
effect = "solid"
"""


def test_names_of_what_was_left_out_are_not_told_again():
    """A part, a preset and a scene that are wrong are each told once; what uses them is left in peace."""
    found = [
        str(finding) for finding in check_text(TWO, "t").findings if finding.severity == "error"
    ]
    assert len(found) == 5, found
    for words in ("line[1].part[2].radius: ", "presets.warm.effect: ", "scene[1].when: ",
                  "layer[1]", "layer[3].on: there is no part, line, group or trail 'bra'"):  # fmt: skip
        assert sum(words in text for text in found) == 1, (words, found)
    assert not any("missing" in text and "presets" in text for text in found)


def test_one_wrong_layer_leaves_the_others():
    """Three layers, of which the middle one cannot be read: the third is still the third."""
    text = SMALL + '[[layer]]\nname = 7\non = "bar"\neffect = "solid"\n'
    text += '[[layer]]\nname = "z"\non = "bar"\neffect = "slid"\n'
    found = [str(finding) for finding in check_text(text, "t").findings]
    assert any("layer[2].name: " in line for line in found)
    assert any("layer[3].effect: there is no effect 'slid'" in line for line in found)
    assert len(found) == 2


def test_a_design_is_of_the_first_format_unless_it_says_so_and_there_is_no_other():
    said = fd.Design.from_values({"fendra": 1, "line": [{"name": "a", "part": [strip()]}]})
    assert fd.Design.from_values({"line": [{"name": "a", "part": [strip()]}]}) == said
    (found,) = [
        f for f in check_text("fendra = 2\n" + SMALL, "t").findings if f.severity == "error"
    ]
    assert found.path == ("fendra",)


def test_what_is_wrong_deep_in_a_signal_leaves_the_other_signals():
    """One number of a curve is a word; the misspelt name in another signal is told all the same."""
    more = '[signals.speed]\ncurve = [[0, 1], [1, "fast"]]\n[signals.full]\nof = "sped + 1"\n'
    found = check_text(SMALL.replace("[signals.speed]\n", more), "t").findings
    errors = [str(finding) for finding in found if finding.severity == "error"]
    assert len(errors) == 2, errors
    assert "curve" in errors[0]
    assert "'sped'" in errors[1]


def test_the_names_of_a_wrong_part_stay():
    """A group and a layer on parts whose keys are wrong are not wrong themselves."""
    text = """name = "x"
line = [{ name = "l", part = [
  { name = "bar", shape = "strip", start = [0, 0], end = [70, 0], count = -8 },
  { name = "rim", shape = "wheel", radius = 30, count = 9 },
] }]
groups.both = "part == 'bar' or part == 'rim'"

[[layer]]
name = "glow"
on = "rim"
effect = "solid"

[[layer]]
name = "warn"
on = "bar"
effect = "solid"
"""
    found = [str(finding) for finding in check_text(text, "t").findings]
    assert len(found) == 2, found
    assert "count" in found[0]
    assert "'wheel'" in found[1]
    *_, third = check_text(text.replace('on = "rim"', 'on = "rimm"'), "t").findings
    assert "Did you mean 'rim'?" in str(third)
