"""Small edits of a design's text: what is not meant stays, letter for letter."""

from __future__ import annotations

import difflib
import tomllib

import pytest

import fendra as fd
from fendra.core.errors import FileError
from fendra.core.probe.cures import Change, Exchange, Move
from fendra.files.edit import (
    read_exact,
    with_cures,
    with_layer,
    with_table,
    with_values,
    write_exact,
)

TEXT = """\
# A lamp.
name = 'Lamp'          # its name
level =   0.90         # bright

[[line]]
name = "a"   # the first
order = "GRB"
\t
[[line.part]]
name = "bar"
shape = "strip"
start = [ 0, 1.50 ]    # from here
end = [
  70,   # to the right
  1.5,
]
count = 8

# The second line has a comment of its own.
[[line]]
name = "b"
part = [{ name = "far", shape = "strip", start = [0, 50], end = [70, 50], count = 8 }]

# ---- Layers

[[layer]]
name = "glow"
on = "all"
effect = "solid"
"""


def changes(before, after):
    """The lines that went and came."""
    lines = difflib.ndiff(before.splitlines(keepends=True), after.splitlines(keepends=True))
    return [line for line in lines if line[0] in "+-"]


def test_a_number_changes_and_its_comment_stays_where_it_is():
    assert changes(TEXT, with_values(TEXT, (), {"level": 0.5})) == [
        "- level =   0.90         # bright\n",
        "+ level =   0.5         # bright\n",
    ]


def test_of_a_place_only_the_number_changes_that_is_another():
    """y stays written as 1.50, and the list as it is laid out."""
    after = with_values(TEXT, ("line", 0, "part", 0), {"start": (2.5, 1.5), "end": (72.5, 1.5)})
    assert changes(TEXT, after) == [
        "- start = [ 0, 1.50 ]    # from here\n",
        "+ start = [ 2.5, 1.50 ]    # from here\n",
        "-   70,   # to the right\n",
        "+   72.5,   # to the right\n",
    ]


def test_a_place_within_an_inline_table():
    after = with_values(TEXT, ("line", 1, "part", 0), {"start": [5, 50]})
    assert changes(TEXT, after)[1].endswith("start = [5, 50], end = [70, 50], count = 8 }]\n")


def test_a_height_of_0_is_written_where_it_was_and_nowhere_else():
    text = TEXT.replace("start = [ 0, 1.50 ]", "start = [ 0, 1.50, 0 ]")
    after = with_values(text, ("line", 0, "part", 0), {"start": (3, 1.5, 0), "end": (70, 2, 0)})
    assert changes(text, after) == [
        "- start = [ 0, 1.50, 0 ]    # from here\n",
        "+ start = [ 3, 1.50, 0 ]    # from here\n",
        "-   1.5,\n",
        "+   2,\n",
    ]
    lifted = with_values(TEXT, ("line", 0, "part", 0), {"start": (0, 1.5, 9), "at": (4, 5, 0)})
    part = tomllib.loads(lifted)["line"][0]["part"][0]
    assert (part["start"], part["at"]) == ([0, 1.5, 9], [4, 5])


def test_a_key_more_and_a_key_less():
    after = with_values(TEXT, ("line", 0, "part", 0), {"at": [0, 0, 9]})
    assert tomllib.loads(after)["line"][0]["part"][0]["at"] == [0, 0, 9]
    assert len(changes(TEXT, after)) == 1
    assert changes(TEXT, with_values(TEXT, ("line", 0), {"order": None})) == ['- order = "GRB"\n']


def test_windows_line_ends_stay(tmp_path):
    path = tmp_path / "lamp.toml"
    path.write_bytes(TEXT.replace("\n", "\r\n").encode())
    write_exact(path, with_layer(with_values(read_exact(path), (), {"level": 1}), {"name": "x"}))
    held = path.read_bytes()
    assert held.count(b"\n") == held.count(b"\r\n")
    assert held.decode().replace("\r\n", "\n") == with_layer(
        with_values(TEXT, (), {"level": 1}), {"name": "x"}
    )


def test_a_group_comes_into_its_table_or_into_a_new_one():
    assert changes(TEXT, with_table(TEXT, "groups", "ends", ["bar[0]", "bar[7]"])) == [
        "+ \n", "+ [groups]\n", '+ ends = ["bar[0]", "bar[7]"]\n',
    ]  # fmt: skip
    text = f'[groups]\none = "bar"   # it\n\n{TEXT}'
    assert changes(text, with_table(text, "groups", "two words", "far")) == [
        '+ "two words" = "far"\n'
    ]


def test_a_layer_comes_last_after_an_empty_line():
    after = with_layer(TEXT, {"name": "new", "on": "bar", "effect": "solid", "colour": "#ff0000"})
    assert (
        after
        == f'{TEXT}\n[[layer]]\nname = "new"\non = "bar"\neffect = "solid"\ncolour = "#ff0000"\n'
    )


@pytest.mark.parametrize(
    ("text", "gap"),
    [("", ""), ("a = 1", "\n\n"), ("a = 1\n", "\n"), ("a = 1\n\n", ""), ("# it\n", "\n")],
)
def test_one_empty_line_stands_before_what_is_added(text, gap):
    assert with_layer(text, {"name": "x"}) == f'{text}{gap}[[layer]]\nname = "x"\n'


def test_lines_change_places_with_their_comments_and_what_follows_stays():
    after = with_cures(TEXT, [Exchange(("line", 0), ("line", 1))])
    assert [line["name"] for line in tomllib.loads(after)["line"]] == ["b", "a"]
    assert after.index("# The second line") < after.index('name = "b"') < after.index('name = "a"')
    assert after.endswith(TEXT[TEXT.index("# ---- Layers") :])
    assert sorted(after.split()) == sorted(TEXT.split())


def test_parts_change_places_and_their_line_gets_its_order():
    text = fd.demo_file("heron.toml").read_text(encoding="utf-8")
    way = [
        Exchange(("line", 0, "part", 0), ("line", 0, "part", 2)),
        Change(("line", 0), "order", "RGB"),
    ]
    line = tomllib.loads(with_cures(text, way))["line"][0]
    assert [part["name"] for part in line["part"]] == ["hub-right", "nose-bar", "hub-left"]
    assert line["order"] == "RGB"
    moved = with_cures(text, [Move(("line", 0, "part", 0), ("line", 0, "part", 2), False)])
    names = [part["name"] for part in tomllib.loads(moved)["line"][0]["part"]]
    assert names == ["nose-bar", "hub-right", "hub-left"]


def test_what_is_not_there_is_refused_and_nothing_is_written():
    with pytest.raises(FileError, match="no such table"):
        with_values(TEXT, ("line", 7), {"name": "c"})
    with pytest.raises(FileError, match="Fendra cannot change this file as it is written"):
        with_cures(TEXT, [Exchange(("line", 1, "part", 0), ("line", 0, "part", 0))])


def test_the_shipped_designs_come_back_as_they_were():
    for name in ("heron.toml", "drone.toml", "pad.toml", "cabinet.toml", "swift.toml"):
        text = read_exact(fd.demo_file(name))
        before = tomllib.loads(text).get("level", 1.0)
        once = with_values(text, (), {"level": 0.123})
        twice = with_values(once, (), {"level": before if "level" in tomllib.loads(text) else None})
        assert twice.split() == text.split()
        assert len(changes(text, once)) <= 2, name
