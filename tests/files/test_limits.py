"""Too much of anything is an error that says how much is too much, at once and in little memory."""

from __future__ import annotations

import json
import struct
import zlib

import pytest

import fendra as fd
from fendra.core.limits import LAYERS, LEDS, LINES, PARTS, SIGNALS
from fendra.files.csv_places import read_csv
from fendra.files.design_file import check_file, check_text
from fendra.files.layout_file import read_json
from fendra.files.media import read_picture
from fendra.files.svg_places import Drawing
from helpers import design, layer, make_pipe, strip

LINE = '[[line]]\nname = "a"\n[[line.part]]\nname = "p"\nshape = "strip"\nstart = [0, 0]\nend = [9, 0]\ncount = 2\n'
LAYER = '[[layer]]\nname = "l"\non = "p"\neffect = "solid"\n'


def parts(number):
    row = '{{ name = "p{}", shape = "strip", start = [0, {}], end = [9, 0], count = 1 }}'
    return f'[[line]]\nname = "a"\npart = [{", ".join(row.format(i, i) for i in range(number))}]\n'


@pytest.mark.parametrize(
    ("text", "says"),
    [
        (".".join("a" * 3000) + " = 1\n" + LINE, "levels of tables"),
        (f"x = {'[' * 3000}{']' * 3000}\n", "nested too deeply"),
        (f"{LINE}x = {'{a=' * 200}1{'}' * 200}\n", "levels of tables"),
        (f'about = "{"x" * 10_001}"\n{LINE}', "10,001 characters. The limit is 10,000 characters"),
        (f"outline = [{'[[0,0],[1,1]],' * 90_000}]\n{LINE}", "too many keys"),
        (LINE + LAYER * (LAYERS.most + 1), f"The limit is {LAYERS.in_words}"),
        (LINE * (LINES.most + 1), f"The limit is {LINES.in_words}"),
        (LINE + "[signals]\n" + "".join(f"s{i} = {{}}\n" for i in range(SIGNALS.most + 1)), f"The limit is {SIGNALS.in_words}"),
        (parts(PARTS.most + 1), f"The limit is {PARTS.in_words}"),
        (LINE.replace("count = 2", f"count = {LEDS.most + 1}"), f"at most {LEDS.most}"),
        (LINE.replace("count = 2", f"count = {LEDS.most}") * 2, f"The limit is {LEDS.in_words}"),
        (LINE.replace("count = 2", "pitch = 0.00001"), "Write a number of at least 0.01"),
        ("".join(f"k{i} = 1\n" for i in range(20_000)) + LINE, "20,000 wrong keys"),
        (LINE + LAYER + "".join(f"k{i} = 1\n" for i in range(20_000)), "20,000 such keys"),
    ],
)  # fmt: skip
def test_too_much_in_a_design_is_one_error_that_says_the_most(text, says, tmp_path):
    checked = check_text(text, "a.toml", folder=tmp_path)
    assert says in "\n".join(map(str, checked.findings))
    assert len(checked.findings) < 250


def test_a_design_of_fifty_megabytes_is_not_read(tmp_path):
    path = tmp_path / "a.toml"
    with path.open("wb") as file:
        file.truncate(50_000_000)
    with pytest.raises(
        fd.FileError, match="is too large: the limit is 2,000,000 bytes of a design"
    ):
        check_file(path)


def test_metres_taken_for_millimetres_are_found_at_once():
    made = design(
        layer(), line=[{"name": "a", "part": [strip(count=3000, start=[0, 0], end=[50, 0])]}]
    )
    [found] = [f for f in made.check() if f.code == "unit"]
    assert "0.017 mm apart; no LED is that small" in found.message
    assert "5 metres are 5000" in found.remedy
    assert any("Even a dozen more feeds" in f.remedy for f in made.check())


@pytest.mark.parametrize("feeds", [1, 2, 3])
def test_several_feeds_of_one_led_share_its_current(feeds):
    """Leads of one length and thickness, side by side: a share each."""
    feed = [{"at": 0, "wire": {"metres": 0.5, "mm2": 0.5}}] * feeds
    made = design(line=[{"name": "a", "feed": feed, "part": [strip(count=1)]}], layer=[])
    [line] = made.budget().lines
    assert line.lead_a == pytest.approx([line.most_a / feeds] * feeds)


SVG = '<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm" viewBox="0 0 9 9">%s</svg>'
DOT = '<circle cx="1" cy="1" r="1"/>'


@pytest.mark.parametrize(
    ("inside", "says"),
    [
        ('<g id="a"><use href="#a"/></g>', "contains itself"),
        ('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>', "contains itself"),
        (f'<g id="g0">{DOT * 10}</g>' + "".join(f'<g id="g{i}">{f"<use href={chr(34)}#g{i - 1}{chr(34)}/>" * 10}</g>' for i in range(1, 12)), "stand for too much"),
        ("<g>" * 5000 + DOT + "</g>" * 5000, "nested too deeply"),
        (DOT * 200_000, "it holds too much; the limit is 20,000 places"),
        ('<circle cx="1" cy="1" r="1" transform="rotate(abc)"/>', "this is not SVG"),
        ('<circle cx="1" cy="1" r="1" transform="matrix(1,2)"/>', "this is not SVG"),
        ('<circle cx="1e308" cy="1e308" r="1"/>', "out of range"),
        ('<circle cx="1e300" cy="1" r="1" transform="scale(1e300)"/>', "out of range"),
    ],
)  # fmt: skip
def test_an_odd_svg_is_one_error(inside, says):
    with pytest.raises(fd.LayoutError, match=says):
        Drawing(SVG % inside).marks()


def test_a_path_that_leaves_the_drawing_or_holds_too_many_is_one_error():
    with pytest.raises(fd.LayoutError, match="leaves the drawing"):
        Drawing(SVG % '<path d="M0 0 L1e308 1e308"/>').along(None, count=3)
    with pytest.raises(fd.LayoutError, match="too many would fit"):
        Drawing(SVG % '<path d="M0 0 L9 0"/>').along(None, pitch_mm=1e-6)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        (f"name,x,y\nA,1{' ' * 100_000}x,2\n", "which is not a number"),
        ("name,x,y,address\nA,1,2," + "9" * 5000, "not a whole number below a million"),
        ("name,x,y\n" + "A,1,2\n" * 20_001, "too many rows; the limit is 20,000"),
        (",".join(f"c{i}" for i in range(50_000)) + "\n1\n", r"c29, \.\.\."),
        ("line,address,part,x,y,skipped\na,,p,1,2,\na,,p,,,yes\n", "some LEDs of part 'p' have no place"),
    ],
)  # fmt: skip
def test_an_odd_csv_is_one_error(text, says):
    from fendra.files.layout_file import to_lines

    with pytest.raises(fd.LayoutError, match=says) as caught:
        to_lines(read_csv(text), line="a", part="b")
    assert len(str(caught.value)) < 500


LED = {"line": "a", "address": 0, "part": "p", "index": 0, "name": "", "position": [0, 0, 0],
       "facing": [0, 0, 1], "skipped": False}  # fmt: skip


@pytest.mark.parametrize("wrong", [
    {"position": [1e308, 0, 0]}, {"position": [float("nan")] * 3}, {"position": [10**400, 0, 0]},
    {"position": [1, 2]}, {"position": "abc"}, {"address": 10**400}, {"address": -5},
    {"name": ["x"]}, {"line": {"a": 1}}, {"part": "x" * 5000},
])  # fmt: skip
def test_an_odd_layout_is_one_error(wrong):
    text = json.dumps({"fendra_layout": 1, "lines": [{"name": "a"}], "leds": [{**LED, **wrong}]})
    with pytest.raises(fd.LayoutError, match="this is not a layout") as caught:
        read_json(text)
    assert len(str(caught.value)) < 300
    for deep in (
        "[" * 100_000,
        '{"fendra_layout":' * 3000,
        "5",
        '{"fendra_layout": 1, "lines": 5}',
    ):
        with pytest.raises(fd.LayoutError, match="this is not a layout"):
            read_json(deep)


def png(width, height):
    def chunk(kind, data):
        return (
            struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
        )

    head = struct.pack(">IIBBBBB", width, height, 8, 6, 0, 0, 0)
    body = zlib.compress(bytes(1000))
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", body) + chunk(b"IEND", b"")


@pytest.mark.parametrize(
    ("make", "says"),
    [
        (lambda path: path.write_bytes(png(50_000, 50_000)), "not a readable picture"),
        (lambda path: path.write_bytes(png(6_300, 6_300)), "Make it smaller: the limit is 4,000,000"),
        (lambda path: path.write_bytes(png(99, 99)), "not a readable picture"),
        (lambda path: path.write_bytes(b"no picture at all"), "not a readable picture"),
        pytest.param(make_pipe, "is a pipe; name a plain file", marks=pytest.mark.unix),
        pytest.param(
            lambda path: path.symlink_to("/dev/zero"), "is a device; name a plain file",
            marks=pytest.mark.unix,
        ),
        (lambda path: path.mkdir(), "is a folder"),
    ],
)  # fmt: skip
def test_a_picture_that_is_none_or_a_bomb_is_one_error(tmp_path, make, says):
    make(tmp_path / "p.png")
    with pytest.raises(fd.FileError, match=says):
        read_picture(tmp_path / "p.png")


@pytest.mark.parametrize(
    "call", ["hold(on, {})", "pulse(on, {})", "dwell(on, {})", "debounce(on, {})"]
)
@pytest.mark.parametrize("time", ["-1", "86401"])
def test_a_time_that_nobody_can_wait_for_is_an_error_with_its_place(call, time):
    made = design(layer(when=call.format(time)), signals={"on": {"kind": "switch"}})
    [found] = [f for f in made.check() if f.severity == "error"]
    assert f"a time is from 0 to 86400 seconds, and this is {time}" in found.message
    assert "^" in found.excerpt


@pytest.mark.parametrize(
    "text", [f"s > {'9' * 400}", f"{'9' * 400} + s > 1", f"not s == -{'9' * 400}"]
)
def test_a_number_of_four_hundred_digits_is_an_error_with_its_place(text):
    found = design(layer(when=text), layer(when="s > 0.5"), signals={"s": {}}).check()
    [error] = [f for f in found if f.severity == "error"]
    assert "99999999... is not a usable number" in error.message
    assert not [f for f in found if f.code == "internal"]
