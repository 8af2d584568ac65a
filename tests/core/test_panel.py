"""`[page]` and `[[panel]]`: what is wrong with them is said with its line and its cure."""

from __future__ import annotations

import pytest

import fendra as fd
from fendra.files.design_file import check_text

HEAD = """
[[line]]
name = "a"
part = [{ name = "bar", shape = "strip", start = [0, 0], end = [70, 0], count = 8 }]
[signals.speed]
[signals.double]
of = "speed * 2"
[signals.desk]
kind = "picture"
[[layer]]
name = "glow"
on = "bar"
effect = "solid"
level = "speed + double"
"""


def said(text):
    return [
        str(each)
        for each in check_text(HEAD + text, "x.toml").findings
        if "panel" in str(each) or "page" in str(each)
    ]


def test_what_is_right_is_taken_as_it_is_written():
    text = '[page]\nport = 8081\n[[panel]]\nsignal = "speed"\nname = "How fast"\n[[panel]]\ncontrol = "cues"\n'
    design = check_text(HEAD + text, "x.toml").design
    assert said(text) == []
    assert (design.served.port, design.served.name, design.served.hosts) == (8081, "fendra", [])
    assert [(row.signal, row.control, row.name) for row in design.panel] == [
        ("speed", None, "How fast"), (None, "cues", None),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ('[page]\nprt = 1\n', "page.prt: there is no key 'prt' here. Did you mean 'port'?"),
        ('[page]\nport = 0\n', "page.port: "),
        ('[page]\nname = "My Heron"\n', "small letters, digits and -, as in heron-2"),
        ('[page]\nhosts = ["http://a/"]\n', "a host is only its name, in small letters, as in trike.home"),
        ('[[panel]]\nsignal = "sped"\n', "there is no signal 'sped'. Did you mean 'speed'?"),
        ('[[panel]]\nsignal = "double"\n', "signal 'double' is computed or a picture, so you cannot set it by hand"),
        ('[[panel]]\nsignal = "desk"\n', "signal 'desk' is computed or a picture, so you cannot set it by hand"),
        ('[[panel]]\ncontrol = "levl"\n', "Did you mean 'level'?"),
        ('[[panel]]\ncontrol = "scene"\n', "this design has no scenes to choose from. Remove the row."),
        ('[[panel]]\nname = "x"\n', "has either a `signal` or a `control`"),
        ('[[panel]]\nsignal = "speed"\ncontrol = "on"\n', "has either a `signal` or a `control`"),
        ('[[panel]]\nsignal = "speed"\nnme = "x"\n', "there is no key 'nme' here. Did you mean 'name'?"),
    ],
)  # fmt: skip
def test_what_is_wrong_is_said_with_its_line_and_its_cure(text, message):
    [*_, found] = said(text)
    assert message in found
    assert found.startswith("x.toml:1")  # of the lines below the head, which has 15


def test_python_builds_them_by_the_names_of_the_file():
    line = [{"name": "a", "part": [{"name": "b", "shape": "points", "points": [[0, 0]]}]}]
    made = fd.Design.from_values(
        {"line": line, "page": {"port": 9000}, "panel": [{"control": "on"}]}
    )
    assert made.served.port == 9000
    assert made.with_values(made.model_dump(by_alias=True)).served.port == 9000
