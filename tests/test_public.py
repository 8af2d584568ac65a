"""The public face."""

from __future__ import annotations

import re
import subprocess
import sys

import pytest

import fendra as fd


def test_the_public_names_are_a_sorted_list_and_all_there():
    assert fd.__all__ == sorted(fd.__all__)
    assert all(getattr(fd, name) is not None for name in fd.__all__)
    assert set(dir(fd)) >= {*fd.__all__, "__version__"}
    with pytest.raises(AttributeError, match="has no attribute 'lod'"):
        _ = fd.lod


def test_every_error_is_in_the_tree_and_a_fitting_built_in():
    for name in fd.__all__:
        thing = getattr(fd, name)
        if name.endswith("Error") and thing is not fd.FendraError:
            assert issubclass(thing, fd.FendraError)
            assert issubclass(thing, (ValueError, TypeError, OSError, RuntimeError))


@pytest.mark.parametrize(
    ("code", "heavy"),
    [
        ("import fendra", ["numpy", "pydantic", "matplotlib", "pandas", "scipy", "PIL", "rich"]),
        ("import fendra as fd; fd.load(fd.demo_file('heron.toml')).compile().frame(at=0)",
         ["matplotlib", "pandas", "scipy", "PIL", "serial", "rich", "typer"]),
        ("import fendra.cli.app", ["numpy", "pydantic", "matplotlib", "pandas", "PIL"]),
    ],
)  # fmt: skip
def test_heavy_packages_wait_until_they_are_used(code, heavy):
    check = f"{code}; import sys; print([m for m in {heavy} if m in sys.modules])"
    done = subprocess.run([sys.executable, "-c", check], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"


def test_a_design_of_plain_values_says_all_that_is_wrong():
    part = {"name": "bar", "shape": "strip", "start": [0, 0], "end": [9, 0], "cuont": 3}
    values = {"nmae": "x", "line": [{"name": "l", "part": [part]}]}
    with pytest.raises(fd.DesignError, match="no key 'nmae'") as caught:
        fd.Design.from_values(values)
    assert [f.path for f in caught.value.findings] == [
        ("line", 0, "part", 0, "cuont"),
        ("nmae",),
    ]
    assert values["nmae"] == "x"


def test_an_unknown_demo_file_names_those_there_are():
    with pytest.raises(FileNotFoundError, match=r"there are heron\.toml, ride\.csv, .*wing\.toml"):
        fd.demo_file("bike.toml")


BARE = {
    "line": [{"name": "a", "part": [
        {"name": "bar", "shape": "strip", "start": [0, 0], "end": [90, 0], "count": 4}]}],
    "layer": [{"name": "glow", "on": "bar", "effect": "solid"}],
}  # fmt: skip


@pytest.fixture(scope="module")
def objects():
    """One of every object that the public face gives."""
    design = fd.load(fd.demo_file("heron.toml"))
    wrong = {**BARE, "signals": {"idle": {}}}
    tape = fd.read_tape(fd.demo_file("ride.csv")).until(3)
    program = design.compile("numpy")
    film = program.film(tape)
    session = design.live(sources=[], outputs=["null:"], for_s=0.1)
    return {
        "design": design, "tape": tape, "program": program, "film": film,
        "frame": film.frame(1.0), "layout": design.layout(), "budget": film.budget(),
        "emitted": design.emit(), "timeline": film.timeline(), "session": session,
        "explanation": film.explain("tail-bar:4", 2.0), "finding": fd.Design.from_values(wrong).check()[0],
        "project": design.firmware("avr"), "page": design.page(), "report": session.run(),
    }  # fmt: skip


SHOWN = {
    "design": "<Design 'Heron': 3 lines, 6 parts, 11 signals, 3 scenes, 15 layers, 50 frames a second>",
    "tape": "<Tape 'ride': 0 to 3 s, 61 rows, 9 signals: speed, rpm, throttle, brake, ...>",
    "program": "<Program 'Heron': 158 LEDs, on numpy, takes speed, rpm, throttle, brake, ..., last "
    "frame at 3 s>",
    "film": "<Film 'Heron': of tape 'ride', 151 frames, 0 to 3 s, 158 LEDs>",
    "frame": "<Frame 'Heron': at 1 s, 158 LEDs, ",
    "layout": "<Layout: 158 LEDs, 3 lines, 6 parts: hub-left, nose-bar, hub-right, deck-left, ...>",
    "budget": "<Budget 'Heron': 158 mA dark, 7.41 A at full white, at most 4.8 A, peak ",
    "emitted": "<Emitted 'heron': heron.h ",
    "timeline": "<Timeline: 0 to 3 s, 3 scenes, 15 layers>",
    "session": "<Session 'Heron': from nothing, to nowhere>",
    "explanation": "<Explanation 'tail-bar:4': at 2 s, #",
    "finding": "<Finding 'unread': note: signals.idle: no layer reads signal 'idle'.>",
    "project": "<Project 'heron': for atmega328p, 9 files, about ",
    "page": "<Page 'Heron': ",
    "report": "<RunReport: 7 frames sent in 0.1 s",
}


@pytest.mark.parametrize("name", SHOWN)
def test_every_object_is_one_short_line_at_the_prompt_and_has_a_view(objects, name):
    """A report of 29,000 characters says nothing; figures are those that the rest of this suite
    works out."""
    shown = repr(objects[name])
    assert "\n" not in shown
    assert len(shown) <= 162
    assert re.sub(r"\d+ frames sent", "7 frames sent", shown).startswith(SHOWN[name])
    views = ("_repr_html_", "_repr_png_", "_repr_markdown_")
    assert name == "finding" or any(hasattr(objects[name], view) for view in views)
    markdown = getattr(objects[name], "_repr_markdown_", None)
    if markdown is not None:
        head, rule, *rows = markdown().split("\n\n")[1].split("\n")
        assert {line.replace("\\|", "").count("|") for line in (head, rule, *rows)} == {
            head.count("|")
        }


def test_a_long_name_leaves_an_object_one_short_line():
    part = {"name": "bar", "shape": "strip", "start": [0, 0], "end": [9, 0], "count": 3}
    lines = [{"name": f"{i}" * 80, "part": [{**part, "name": f"{i}" * 80}]} for i in range(3)]
    lit = fd.Design.from_values({"name": "a" * 80, "line": lines})
    assert all(len(repr(each)) <= 162 for each in (lit, lit.layout(), lit.compile().frame(at=0)))


def test_a_run_is_printed_as_a_short_report(objects):
    assert re.fullmatch(r"\d+ frames sent in 0\.1 s(, .*)?", str(objects["report"]))


def test_what_a_user_may_call_is_all_that_completion_offers(objects):
    """No word of the library beneath, and every key and method."""
    offered = dir(objects["design"])
    assert not [name for name in offered if name.startswith(("_", "model_", "parse_", "schema"))]
    assert {"name", "layer", "check", "compile", "map", "save_map", "live", "firmware"} <= {
        *offered
    }


WRONG = {
    "an unknown part": (lambda o: o["layout"].spots_of_part("tail-ba"), fd.LayoutError, "Did you mean 'tail-bar'?"),
    "of a frame": (lambda o: o["frame"].part("nope"), fd.LayoutError, "there is no part 'nope'"),
    "of a film": (lambda o: o["film"].part("nope"), fd.LayoutError, "there is no part 'nope'"),
    "of a strip": (lambda o: o["film"].strip(part="nope"), fd.LayoutError, "there is no part 'nope'"),
    "an unknown supply": (lambda o: o["film"].current(supply="nope"), fd.LayoutError, "supply 'nope'"),
    "a list for a tape": (lambda o: o["program"].film([1, 2]), fd.TapeError, "but got a list. Read one"),
    "a path for a tape": (lambda o: o["design"].page(tape="ride.csv"), fd.TapeError, "but got a str"),
    "a list for a film": (lambda o: o["design"].budget([1]), fd.TapeError, "design.compile().film(tape)"),
    "a check of a list": (lambda o: o["design"].check([1]), fd.TapeError, "this needs a film"),
    "a list for a design": (lambda o: type(o["design"]).from_values([1]), fd.DesignError, "this is a list"),
    "other values": (lambda o: o["design"].with_values({"nmae": 1}), fd.DesignError, "Did you mean 'name'?"),
    "a beginning before the start": (lambda o: o["tape"].until(-1), fd.TapeError, "which goes from 0 s to 3 s"),
    "not a time": (lambda o: o["program"].frame(at="x"), fd.ClockError, "at = 'x' is not a time"),
    "no moment": (lambda o: o["film"].frame("x"), fd.ClockError, "at_s = 'x' is not a time"),
    "a target": (lambda o: o["design"].firmware("nope"), fd.FirmwareError, "there is no target 'nope'"),
    "an output": (lambda o: o["design"].live(outputs=["sacn:"]), fd.OutputError, "sacn:192.168.1.60"),
}  # fmt: skip


@pytest.mark.parametrize("name", WRONG)
def test_a_wrong_name_or_thing_raises_the_documented_error(objects, name):
    do, error, says = WRONG[name]
    with pytest.raises(error, match=re.escape(says)):
        do(objects)


def test_old_names_of_pictures_say_the_new_ones(objects, tmp_path):
    film, design = objects["film"], objects["design"]
    for call, new in (
        (lambda: design.map_figure(tmp_path / "a.png"), r"is now save_map\(path\)"),
        (lambda: film.still(1.0, tmp_path / "b.png"), r"is now save_still\(path, at_s\)"),
        (lambda: film.animation(tmp_path / "c.gif", 0, 0.1), r"is now save_animation"),
        (film.strip, r"is now strip_figure\(\)"),
    ):
        with pytest.warns(DeprecationWarning, match=new):
            assert call() is not None
    assert {path.name for path in tmp_path.iterdir()} == {"a.png", "b.png", "c.gif"}


def test_pictures_have_one_rule(objects, tmp_path):
    """NAME(ax) gives axes, NAME_figure() a figure, save_NAME(path) a path."""
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

    film, design = objects["film"], objects["design"]
    assert isinstance(film.strip(part="nose-bar"), Axes)
    assert film.strip(part="nose-bar").images[0].get_array().shape[0] == len(
        film.part("nose-bar")[0]
    )
    assert isinstance(film.strip_figure(), Figure)
    assert isinstance(design.map_figure(), Figure)
    for save in (design.save_map, film.save_strip, film.save_timeline):
        assert save(tmp_path / "x.svg").read_text(encoding="utf-8").startswith("<?xml")
