"""Positions from CSV, SVG and JSON, layouts out and in again, and text that keeps what it had."""

from __future__ import annotations

import json
import tomllib

import numpy as np
import pytest
from hypothesis import given

import fendra as fd
from fendra.core.errors import FendraError, FileError, LayoutError
from fendra.core.toml_text import value_text
from fendra.files.csv_places import read_csv
from fendra.files.design_file import check_text
from fendra.files.design_text import NewLine, add_lines
from fendra.files.layout_file import read_json, to_csv, to_json, to_lines, write_layout
from fendra.files.placement import Placement, by_name, centred, only
from fendra.files.svg_places import Drawing
from strategies import designs, examples

DEMOS = ["heron.toml", "drone.toml", "pad.toml", "cabinet.toml", "bare.toml"]

# ---- A layout that is written and read again is the same -----------------------------------------


def same(first: fd.Layout, second: fd.Layout) -> None:
    assert second.line_names == first.line_names
    assert second.line_sizes == first.line_sizes
    assert second.part_names == first.part_names
    for column in ("line", "part", "address", "index", "names"):
        assert list(getattr(second, column)) == list(getattr(first, column)), column
    assert second.position == pytest.approx(first.position, abs=1e-5)
    assert second.facing == pytest.approx(first.facing, abs=1e-5)
    assert second.leds.spot.tolist() == first.leds.spot.tolist()
    assert second.leds.position == pytest.approx(first.leds.position, abs=1e-5)
    kept = ("name", "kind", "line", "first", "count", "skipped", "leds", "spots")
    for one, two in zip(first.parts, second.parts, strict=True):
        assert [getattr(one, key) for key in kept] == [getattr(two, key) for key in kept]


def again(layout: fd.Layout, design: fd.Design, kind: str, unit: str = "mm") -> fd.Layout:
    keys: dict = {}
    if kind == "csv":
        placements = read_csv(to_csv(layout))
    else:
        placements, keys = read_json(to_json(design, layout))
    unit_mm = {"mm": 1.0, "in": 25.4}[unit]
    lines = to_lines(placements, line="main", part="p", unit_mm=unit_mm, keys=keys)
    text = add_lines(f'fendra = 1\nunits = "{unit}"\n', lines)
    return fd.Design.from_values(tomllib.loads(text)).layout()


@pytest.mark.parametrize("kind", ["csv", "json"])
@pytest.mark.parametrize("name", DEMOS)
def test_every_demo_layout_comes_back_as_it_was(name, kind):
    design = fd.load(fd.demo_file(name))
    same(design.layout(), again(design.layout(), design, kind))


@examples(40)
@given(designs())
def test_import_of_an_exported_layout_gives_the_same_layout(raw):
    """Shared addresses, copies, hidden and skipped ones included; also in inches."""
    raw = {**raw, "layer": []}
    first = raw["line"][0]["part"]
    twin = {**first[-1], "name": "twin", "at": [0, 0, 7000], "parallel_to": first[-1]["name"]}
    first.append(twin)
    if first[-2]["shape"] in ("strip", "ring", "grid"):
        first[-2]["skip"] = [0]
    design = fd.Design.from_values(raw)
    same(design.layout(), again(design.layout(), design, "json"))
    same(design.layout(), again(design.layout(), design, "csv", "in"))


def test_a_layout_goes_into_a_file_by_its_ending(tmp_path):
    design = fd.load(fd.demo_file("drone.toml"))
    written = write_layout(tmp_path / "d.csv", design, design.layout()).read_text(encoding="utf-8")
    rows = written.splitlines()
    assert rows[0] == "line,address,part,index,name,x,y,z,facing_x,facing_y,facing_z,skipped"
    assert rows[1] == "wings,0,shifter,,,,,,,,,yes"
    assert rows[2] == "wings,1,right.edge,0,,80.0,60.0,0.0,0.0,1.0,0.0,"
    assert len(rows) == 1 + 1 + 56
    plain = json.loads(write_layout(tmp_path / "d.json", design, design.layout()).read_text())
    assert plain["lines"][0] == {
        "name": "wings", "pin": "PA8", "led": "ws2812b", "order": "GRB", "addresses": 35,
    }  # fmt: skip
    assert len(plain["leds"]) == 57
    with pytest.raises(FileError, match=r"\.csv or a \.json"):
        write_layout(tmp_path / "d.txt", design, design.layout())


@pytest.mark.parametrize(
    ("rows", "says"),
    [
        ("a,0,p,1,1\na,2,p,2,2", "are not consecutive"),
        ("a,1,p,1,1", "the addresses from 0 on are missing"),
        ("a,0,p,1,1\na,1,p,1,2\na,1,q,2,2", "begins within another part's addresses"),
        ("a,0,p,1,1\na,one,p,2,2", "row 3: address 'one' is not a whole number"),
    ],
)
def test_layouts_with_holes_are_refused(rows, says):
    with pytest.raises(LayoutError, match=says):
        to_lines(read_csv(f"line,address,part,x,y\n{rows}\n"), line="a", part="p")


@pytest.mark.parametrize(
    "text", ["{}", "[]", "nonsense", '{"fendra_layout": 2}', '{"fendra_layout": 1, "lines": 3}']
)
def test_other_json_is_refused(text):
    with pytest.raises(LayoutError, match="layout"):
        read_json(text)


# ---- CSV ------------------------------------------------------------------------------------------

BOARD = """# made by hand
Ref,Val,Package,PosX,PosY,Rot,Side
D1,led,smd,100.0,-50.0,0.0,top
D10,led,smd,119.05,-50.0,90.0,top
D2,led,smd,138.1,-50.0,180.0,bottom
C1,100n,0402,100.0,-60.0,0.0,top
"""


def test_a_placement_export_is_read_by_its_usual_heads():
    found = by_name(only(read_csv(BOARD), "D*"))
    assert [(p.name, p.position, p.facing) for p in found] == [
        ("D1", (100, -50, 0), None),
        ("D2", (138.1, -50, 0), (0, 0, -1)),
        ("D10", (119.05, -50, 0), None),
    ]
    moved = np.array([p.position for p in centred(found)])
    assert moved == pytest.approx(np.array([(-19.05, 0, 0), (19.05, 0, 0), (0, 0, 0)]))


@pytest.mark.parametrize(
    ("text", "keys"),
    [
        ("Designator;Mid X;Mid Y\nD1;12,7;25,4\n", {}),
        ("a\tb\tc\nD1\t12.7\t25.4\n", {"columns": {"name": "a", "x": "b", "y": "c"}}),
        ("id,x (in),y (in)\nD1,0.5,1\n", {}),
        ("id,x,y\nD1,0.5,1\n", {"unit": "in"}),
        ("id,x,y\nD1,500mil,1in\n", {}),
        ("name,Center-X(mm),Center-Y(mm)\nD1,12.7,25.4\n", {"unit": "in"}),
        ('"id","x","y"\r\n"D1","12.7mm","25.4mm"\r\n', {}),
    ],
)
def test_units_and_separators_are_understood(text, keys):
    (led,) = read_csv(text, **keys)
    assert led.name == "D1"
    assert led.position == pytest.approx((12.7, 25.4, 0))


def test_leds_may_face_the_way_they_are_turned():
    found = read_csv(BOARD, facing="rotation")
    assert [p.facing for p in found][:3] == [(1, 0, 0), (0, 1, 0), (-1, 0, 0)]


@pytest.mark.parametrize(
    ("text", "keys", "says"),
    [
        ("", {}, "the file is empty"),
        ("x,y\n", {}, "heads but no rows"),
        ("a,b\n1,2\n", {}, r"no column holds x. Name it: x=HEAD. The heads are: a, b"),
        ("x,y\n1,2\nfoo,3\n4,\n", {}, r"row 3: x is 'foo', which is not a number; row 4: y is ''"),
        ("x,y\n" + "a,b\n" * 9, {}, r"and 6 rows more"),
        ("x,y\n1,2\n", {"columns": {"x": "PosX"}}, r"there is no column 'PosX'"),
        ("x,y\n1,2\n", {"columns": {"wide": "x"}}, r"no column can hold 'wide'"),
        ("x,y\n1,2\n", {"facing": "rotation"}, r"no column holds the rotation"),
        ("x,y\n1,1e9\n", {}, r"out of range"),
    ],
)
def test_what_is_wrong_with_a_csv_is_said_with_its_rows(text, keys, says):
    with pytest.raises(LayoutError, match=says):
        read_csv(text, **keys)


def test_a_pattern_that_is_like_no_name_says_which_there_are():
    with pytest.raises(LayoutError, match="The names are: D1, D10, D2, C1"):
        only(read_csv(BOARD), "LED*")


# ---- SVG ------------------------------------------------------------------------------------------


def svg(body: str, size: str = 'width="200mm" height="100mm" viewBox="0 0 400 200"') -> Drawing:
    return Drawing(f'<svg xmlns="http://www.w3.org/2000/svg" {size}>{body}</svg>')


def places(placements) -> dict[str, tuple[float, ...]]:
    return {p.name: p.position[:2] for p in placements}


def test_shapes_of_a_drawing_are_leds_with_transforms_units_and_names():
    """Half a mm a unit; y grows upward from the lower edge of a drawing 100 mm high."""
    drawing = svg(
        '<g id="leds" transform="translate(20,10)"><circle id="one" cx="10" cy="10" r="3"/>'
        '<rect id="two" x="30" y="10" width="4" height="4" transform="rotate(45 32 12)"/></g>'
        '<ellipse id="three" cx="50" cy="50" rx="3" ry="1"/>'
        '<defs><circle id="stamp" r="2"/></defs><use href="#stamp" id="four" x="100" y="50"/>'
        '<circle id="unseen" cx="1" cy="1" r="1" display="none"/>'
    )
    found = drawing.marks()
    assert places(found) == {"one": (15, 90), "two": (26, 89), "three": (25, 75), "four": (50, 75)}
    assert [p.name for p in only(found, "leds")] == ["one", "two"]


def test_a_drawing_without_a_size_is_in_pixels_or_in_the_unit_that_is_said():
    body = '<circle id="a" cx="96" cy="0" r="1"/>'
    assert svg(body, 'width="96" height="96"').marks()[0].position[:2] == pytest.approx(
        (25.4, 25.4)
    )
    own = Drawing(f'<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9">{body}</svg>', 1.0)
    assert own.marks()[0].position[:2] == pytest.approx((96, 9))


MARKS = {
    "circle": '<circle cx="10" cy="20" r="3" {}/>',
    "ellipse": '<ellipse cx="10" cy="20" rx="5" ry="2" {}/>',
    "rect": '<rect x="7" y="18" width="6" height="4" {}/>',
}
"""The middle of each is at 10, 20 of 400 by 200 units of half a mm; y goes downward there."""

TURNED = {
    "translate(5 -4)": (15, 16),
    "rotate(90)": (-20, 10),
    "rotate(30)": (10 * 0.8660254 - 20 * 0.5, 10 * 0.5 + 20 * 0.8660254),
    "rotate(90 12 20)": (12, 18),
    "scale(2)": (20, 40),
    "scale(2 -1)": (20, -20),
    "skewX(45)": (30, 20),
    "skewY(45)": (10, 30),
    "matrix(0 1 -1 0 50 3)": (30, 13),
    "translate(5 -4) rotate(90) scale(2)": (-35, 16),
}


@pytest.mark.parametrize("transform", [*TURNED])
@pytest.mark.parametrize("shape", [*MARKS])
def test_every_shape_is_where_every_transform_puts_it(shape, transform):
    """Each by itself, in a group that has the transform, and used from elsewhere."""
    x, y = TURNED[transform]
    there = pytest.approx([x / 2, 100 - y / 2], abs=2e-3)
    attribute = f'transform="{transform}"'
    own = svg(MARKS[shape].format(attribute))
    grouped = svg(f"<g {attribute}>{MARKS[shape].format('')}</g>")
    defs = f"<defs>{MARKS[shape].format('id=' + chr(34) + 'led' + chr(34))}</defs>"
    used = svg(f'{defs}<use href="#led" {attribute}/>')
    for drawing in (own, grouped, used):
        (mark,) = drawing.marks()
        assert [*mark.position[:2]] == there


@pytest.mark.parametrize("transform", [*TURNED])
@pytest.mark.parametrize(
    "way",
    ['<line x1="0" y1="0" x2="10" y2="20" {}/>', '<polyline points="0,0 5,10 10,20" {}/>',
     '<path d="M0,0 L10,20" {}/>', '<path d="M0,0 C5,10 5,10 10,20" {}/>'],
)  # fmt: skip
def test_every_path_ends_where_every_transform_puts_it(way, transform):
    x, y = TURNED[transform]
    places = svg(way.format(f'transform="{transform}"')).along(None, count=3)
    assert [*places[-1].position[:2]] == pytest.approx([x / 2, 100 - y / 2], abs=2e-3)


def test_leds_stand_along_a_path_by_pitch_or_count_corners_included():
    """50 mm to the right, then 50 mm down."""
    drawing = svg('<path id="way" d="M0,0 L100,0 L100,100"/>')
    expected = [(0, 100), (25, 100), (50, 100), (50, 75), (50, 50)]
    assert [p.position[:2] for p in drawing.along("way", pitch_mm=25)] == expected
    assert [p.position[:2] for p in drawing.along(None, count=5)] == expected
    assert [p.position[:2] for p in drawing.along(None, count=2, pitch_mm=25)] == expected[:2]
    # 50 mm, then 45 mm: 7 x 11 mm along it is 27 mm behind the corner, 3-4-5 on the way up.
    bent = svg('<path d="M0,200 h100 l54,-72"/>').along(None, pitch_mm=11)
    assert bent[7].position == pytest.approx((50 + 16.2, 21.6, 0), abs=1e-3)
    quarter = svg('<path d="M0,200 A100,100 0 0 1 100,100"/>').along(None, count=3)
    assert quarter[1].position == pytest.approx((50 - 50 * 0.5**0.5, 50 * 0.5**0.5, 0), abs=1e-3)
    gap = svg('<path d="M0,200 h20 M100,200 h20"/>').along(None, pitch_mm=5)
    assert [p.position[:2] for p in gap] == [(0, 0), (5, 0), (10, 0), (55, 0), (60, 0)]
    closed = svg('<rect x="9" y="9" width="9" height="9"/><polygon points="0,0 80,0 80,80 0,80"/>')
    assert [p.position[:2] for p in closed.along(None, count=4)] == [
        (0, 100), (40, 100), (40, 60), (0, 60),
    ]  # fmt: skip


def test_the_wire_may_follow_a_path():
    drawing = svg(
        '<circle id="c" cx="100" cy="90" r="1"/><circle id="a" cx="10" cy="2" r="1"/>'
        '<circle id="b" cx="98" cy="20" r="1"/><polyline id="way" points="0,0 100,0 100,100"/>'
    )
    marks = drawing.marks()
    assert [p.name for p in drawing.sorted_along(marks, "way")] == ["a", "b", "c"]


@pytest.mark.parametrize(
    ("make", "says"),
    [
        (lambda: Drawing(""), "this is not SVG"),
        (lambda: Drawing("<a/>"), "it has no `svg` element"),
        (lambda: svg("").marks(), "there are no circles, ellipses or rectangles"),
        (lambda: svg("").along(None, count=3), "there is no path"),
        (lambda: svg('<path d="M0,0 L9,9"/><path d="M0,0 L9,9"/>').along(None, count=3), "several paths"),
        (lambda: svg('<path id="way" d="M0,0 L9,9"/>').along("wya", count=3), "Did you mean 'way'"),
        (lambda: svg('<path id="way" d=""/>').along(None, count=3), "the path has no length"),
        (lambda: svg('<path d="M3,3"/>').along(None, count=3), "has no length"),
        (lambda: svg('<path d="M0,0 L100,0"/>').along(None, count=9, pitch_mm=25), "do not fit on a path of 50.0 mm; 3 do"),
    ],
)  # fmt: skip
def test_what_is_wrong_with_a_drawing_is_said(make, says):
    with pytest.raises(LayoutError, match=says):
        make()


# ---- Design text ------------------------------------------------------------------------------------

PART = {"name": "new", "shape": "points", "points": [[1, 2.5]]}


@pytest.mark.parametrize("name", DEMOS)
def test_what_is_added_leaves_every_line_that_was_there(name):
    """Comments, order and spacing stay; what is new stands together, behind its line's last part."""
    text = fd.demo_file(name).read_text(encoding="utf-8")
    values = tomllib.loads(text)
    line = values["line"][0]["name"]
    added = add_lines(
        text, [NewLine(line, [PART]), NewLine("other", [{**PART, "name": "b"}], {"pin": "D1"})]
    )
    left = iter(added.splitlines())
    assert all(row in left for row in text.splitlines())  # in order: `in` moves on
    assert len(added.splitlines()) == len(text.splitlines()) + 5 + 9
    new = tomllib.loads(added)
    assert new["line"][0]["part"] == [*values["line"][0]["part"], PART]
    assert new["line"][-1] == {"name": "other", "pin": "D1", "part": [{**PART, "name": "b"}]}
    assert {key: new[key] for key in new if key != "line"} == {
        key: values[key] for key in values if key != "line"
    }


def test_a_name_that_is_taken_is_refused():
    text = fd.demo_file("bare.toml").read_text(encoding="utf-8")
    with pytest.raises(LayoutError, match="there is already a part 'tail-bar'"):
        add_lines(text, [NewLine("main", [{**PART, "name": "tail-bar"}])])
    with pytest.raises(LayoutError, match="is not a list of tables"):
        add_lines("line = 3\n", [])


def test_values_are_written_as_toml_reads_them():
    values = {
        "a": [[1, 2.5], [-0.125, 1e-7]] * 40,
        "b": 'quote " and \\ ',
        "c": True,
        "d": {"x": 1},
    }
    text = "\n".join(f"{key} = {value_text(value)}" for key, value in values.items())
    assert tomllib.loads(text) == values
    assert max(map(len, text.splitlines())) <= 100


# ---- Parts whose places are in a file ------------------------------------------------------------------

KEYS = """
[[line]]
name = "pad"
[[line.part]]
name = "keys"
shape = "keys"
file = "pad.csv"
[[line.part]]
name = "dots"
shape = "points"
file = "dots.csv"
at = [0, 0, 5]
[[layer]]
name = "on"
on = "all"
effect = "solid"
"""


def test_keys_and_points_may_stand_in_files_beside_the_design(tmp_path):
    (tmp_path / "pad.csv").write_text("key,x,y\nesc,0,0\nf1,1.25,0\nspace,3,-4\n")
    (tmp_path / "dots.csv").write_text("x,y\n-50,60\n-50,70\n")
    path = tmp_path / "pad.toml"
    path.write_text(KEYS)
    layout = fd.load(path).layout()
    assert layout.names == ("esc", "f1", "space", "", "")
    assert layout.position[1].tolist() == pytest.approx([1.25 * 19.05, 0, 0])
    assert layout.position[2].tolist() == pytest.approx([3 * 19.05, -4 * 19.05, 0])
    assert layout.position[4].tolist() == [-50, 70, 5]
    values = tomllib.loads(KEYS)
    built = fd.Design.from_values(values, folder=tmp_path)
    assert np.array_equal(built.layout().position, layout.position)
    assert values == tomllib.loads(KEYS)  # what was given is left as it was


@pytest.mark.parametrize(
    ("pad", "says"),
    [
        (None, "there is no file"),
        ("key,x,y\nesc,0,zero\n", "pad.csv: row 2: y is 'zero', which is not a number"),
        ("x,y\n1,2\n", "every key needs a name"),
        ("key,x,y\n", "heads but no rows"),
    ],
)
def test_a_file_that_cannot_be_used_is_one_finding_at_its_line(tmp_path, pad, says):
    (tmp_path / "dots.csv").write_text("x,y\n-50,60\n")
    if pad is not None:
        (tmp_path / "pad.csv").write_text(pad)
    checked = check_text(KEYS, "pad.toml", folder=tmp_path)
    (finding,) = checked.findings
    assert (finding.line, finding.code) == (7, "file")
    assert says in finding.message
    with pytest.raises(FendraError, match=r"file"):
        fd.Design.from_values(tomllib.loads(KEYS), folder=tmp_path)


def test_places_in_two_ways_and_other_kinds_of_file_are_refused(tmp_path):
    (tmp_path / "dots.csv").write_text("x,y\n-50,60\n")
    text = KEYS.replace('file = "pad.csv"', 'file = "pad.svg"').replace(
        "at = [0, 0, 5]", "points = [[0, 0]]"
    )
    found = check_text(text, "pad.toml", folder=tmp_path).findings
    said = [f"{finding.message} {finding.remedy}" for finding in found]
    assert "'pad.svg' is not a .csv. `fendra import` reads other files." in said
    assert "the places are in `points` and in a file. Keep one of them." in said


def test_the_order_of_names_counts_their_numbers():
    names = ["D10", "D2", "led", "D1", "2", "10", ""]
    assert [p.name for p in by_name([Placement(name, None) for name in names])] == [
        "", "D1", "D2", "D10", "led", "2", "10",
    ]  # fmt: skip
