"""The desk, on every part of every shipped design: what is dragged moves, and nothing else does."""

from __future__ import annotations

import difflib
import tomllib

import numpy as np
import pytest

import fendra as fd
from fendra.files.design_file import check_text
from fendra.page.served.desk import Desk, EditError, StaleError

DESIGNS = ("heron", "drone", "pad", "cabinet", "swift", "bare")
BY = (12.5, -3.0, 4.0)


def layout_of(path):
    return check_text(path.read_text(encoding="utf-8"), str(path)).examined.subject.layout


@pytest.fixture
def desk_of(tmp_path):
    """A desk for a shipped design, or for a text, in a folder of its own."""

    def make(name, text=None):
        path = tmp_path / f"{name}.toml"
        held = fd.demo_file(f"{name}.toml").read_bytes() if text is None else text.encode()
        path.write_bytes(held)
        return Desk(path)

    return make


def touched(before, after):
    """The lines that went, and the lines that came."""
    found = difflib.ndiff(before.splitlines(keepends=True), after.splitlines(keepends=True))
    lines = [line for line in found if line[0] in "+-"]
    return [x[2:] for x in lines if x[0] == "-"], [x[2:] for x in lines if x[0] == "+"]


@pytest.mark.parametrize("name", DESIGNS)
def test_a_part_that_is_moved_moves_with_its_leds_alone(desk_of, name):
    desk = desk_of(name)
    sheet = desk.sheet()
    before, text = layout_of(desk.path), sheet.text
    assert sheet.parts
    for part in sheet.parts:
        if not part.is_movable:
            continue
        desk.edit([{"do": "move", "part": part.name, "by": BY}], desk.sheet().version)
        after = layout_of(desk.path)
        mine = np.zeros(len(before), bool)
        mine[part.spots[0] : part.spots[1]] = True
        step = (after.position - before.position) / before.unit_mm
        on_it = [row.name for row in before.parts if f'on = "{part.name}"' in text]
        assert np.allclose(step[mine], BY, atol=0.002), part.name
        if not on_it:
            assert np.allclose(step[~mine], 0), part.name
        went, came = touched(text, desk.sheet().text)
        assert len(went) <= 2
        assert len(came) <= 2
        assert all(line.split("=")[0].strip() in ("start", "end", "centre", "at") for line in came)
        desk.undo()
        assert desk.sheet().text == text


@pytest.mark.parametrize("name", ["heron", "drone", "cabinet"])
def test_a_part_that_is_turned_turns_about_its_middle(desk_of, name):
    desk = desk_of(name)
    sheet = desk.sheet()
    before, text = layout_of(desk.path), sheet.text
    angle = np.radians(30)
    matrix = np.array(
        [[np.cos(angle), -np.sin(angle), 0], [np.sin(angle), np.cos(angle), 0], [0, 0, 1]]
    )
    for part in sheet.parts:
        if not part.is_movable:
            continue
        desk.edit([{"do": "turn", "part": part.name, "degrees": 30}], desk.sheet().version)
        mine = slice(*part.spots)
        middle = np.array(part.middle) * before.unit_mm
        wanted = middle + (before.position[mine] - middle) @ matrix.T
        assert np.allclose(layout_of(desk.path).position[mine], wanted, atol=0.05), part.name
        desk.undo()
    assert desk.sheet().text == text


INCHES = """
units = "in"

[[line]]
name = "a"

[[line.part]]
name = "tips"
shape = "points"
points = [[1, 2], [3.5, 4], [5, 6, 1]]   # the last one stands out
"""


def test_one_led_of_a_part_of_points_moves_alone_in_the_designs_inches(desk_of):
    desk = desk_of("tips", INCHES)
    desk.edit(
        [{"do": "led", "part": "tips", "index": 1, "by": [-0.5, 0.25, 0]}], desk.sheet().version
    )
    assert (
        "points = [[1, 2], [3, 4.25], [5, 6, 1]]   # the last one stands out\n" in desk.sheet().text
    )
    assert layout_of(desk.path).position[1] == pytest.approx([3 * 25.4, 4.25 * 25.4, 0])


def test_several_edits_are_made_all_or_none(desk_of):
    desk = desk_of("heron")
    before = desk.sheet()
    good = {"do": "move", "part": "tail-bar", "by": [1, 0, 0]}
    with pytest.raises(EditError, match="no part 'tale-bar'"):
        desk.edit([good, {"do": "move", "part": "tale-bar", "by": [1, 0, 0]}], before.version)
    assert desk.sheet() == before


def test_a_text_is_written_only_over_the_one_that_was_read(desk_of):
    desk = desk_of("heron")
    sheet = desk.sheet()
    wrong = sheet.text.replace('led = "ws2812b"', 'led = "ws2812"')
    after = desk.write(wrong, sheet.version)  # who writes a text may leave it wrong
    assert [each.code for each in after.findings if each.severity == "error"]
    with pytest.raises(StaleError):
        desk.write(sheet.text, sheet.version)
    # In a design that is wrong already, other things can be put right.
    moved = desk.edit([{"do": "move", "part": "tail-bar", "by": [1, 0, 0]}], after.version)
    assert tomllib.loads(moved.text)["line"][2]["part"][0]["start"] == [-239, -620, 520]


def test_layers_tell_what_can_be_changed_by_touch(desk_of):
    desk = desk_of("heron")
    layers = {each.name: each for each in desk.sheet().layers}
    assert layers["parked"].colours == {"colour": "#2060ff", "ground": "#000420"}
    assert layers["parked"].numbers["level"] == 0.6
    assert layers["brake light"].numbers == {}  # its level is an expression
    edit = {"do": "set", "path": layers["parked"].path, "key": "colour", "value": "#ff0000"}
    before = desk.sheet()
    after = desk.edit([edit], before.version)
    assert touched(before.text, after.text) == (['colour = "#2060ff"\n'], ['colour = "#ff0000"\n'])
