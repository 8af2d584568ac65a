"""Mapping from the command line: new designs, the schema, the map, the listing, import, the bench."""

from __future__ import annotations

import json
import os
import select
import subprocess
import sys
import tomllib
from pathlib import Path

import jsonschema
import numpy as np
import pytest
from PIL import Image

import fendra as fd
from fendra.core.signals.inputs import fed

DEMOS = ["heron", "drone", "pad", "cabinet", "bare"]
KINDS = {"trike": "heron", "drone": "drone", "pad": "pad", "cabinet": "cabinet", "bare": "bare"}

BOARD = "Ref,PosX,PosY,Side\nD1,0,0,top\nD10,20,0,top\nD2,40,0,bottom\nR1,9,9,top\n"


# ---- new and schema --------------------------------------------------------------------------------


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_a_new_design_passes_the_check_and_plays_its_tape(fendra, tmp_path, kind):
    code, out, err = fendra("new", "My Thing", "--like", kind)
    assert (code, err) == (0, "")
    assert "my-thing.toml: a design like" in out
    assert "Next:" in out
    text = (tmp_path / "my-thing.toml").read_text()
    assert text.startswith("#:schema ./fendra.schema.json\n")
    assert tomllib.loads(text)["name"] == "My Thing"
    assert f"{KINDS[kind]}.toml" not in text
    code, out, _ = fendra("check", "my-thing.toml")
    assert code == 0
    assert out.endswith("0 errors, 0 warnings, 0 notes\n")
    (film,) = [row for row in text.splitlines() if "fendra film" in row]
    tape = film.split("--tape ")[1].split()[0]
    design = fd.load("my-thing.toml")
    assert {*fed(design).values()} <= {*fd.read_tape(tape).signals}
    schema = json.loads((tmp_path / "fendra.schema.json").read_text())
    jsonschema.Draft202012Validator(schema).validate(tomllib.loads(text))


def test_a_new_design_never_writes_over_one_that_is_there(fendra, tmp_path):
    (tmp_path / "lamp.toml").write_text("mine")
    code, _, err = fendra("new", "Lamp")
    assert code == 2
    assert "'lamp.toml' exists already" in err
    assert (tmp_path / "lamp.toml").read_text() == "mine"
    assert not (tmp_path / "fendra.schema.json").exists()
    assert fendra("new", "  ")[0] == 2
    assert fendra("new", "Lamp", "--into", "other/folder")[0] == 0
    assert (tmp_path / "other" / "folder" / "lamp.toml").exists()


def test_the_schema_takes_what_the_check_takes_and_refuses_what_it_refuses(fendra, tmp_path):
    code, out, _ = fendra("schema")
    assert code == 0
    validator = jsonschema.Draft202012Validator(json.loads(out))
    validator.check_schema(json.loads(out))
    for name in DEMOS:
        values = tomllib.loads(fd.demo_file(f"{name}.toml").read_text())
        validator.validate(values)
        values["line"][0]["part"][0]["cuont"] = 3
        assert not validator.is_valid(values)
    assert ">>>" not in out  # descriptions are for people, not for Python
    assert fendra("schema", "--out", "s.json")[1] == "schema: s.json\n"
    assert (tmp_path / "s.json").read_text(encoding="utf-8") == out


# ---- map and layout ----------------------------------------------------------------------------------


def test_the_map_has_views_highlights_and_formats(fendra, tmp_path):
    drone = fd.demo_file("drone.toml")
    for words, path in [
        (["--view", "bottom", "--out", "b.png"], "b.png"),
        (["--view", "left", "--show", "span", "--out", "l.svg"], "l.svg"),
        (["--show", "tips", "--out", "t.pdf"], "t.pdf"),
    ]:
        code, out, _ = fendra("map", drone, *words)
        assert (code, out) == (0, f"map: {path}\n")
        assert (tmp_path / path).stat().st_size > 10_000
    with Image.open("b.png") as picture:
        assert picture.size == (1280, 800)
    assert "Kestrel: 56 LEDs on 2 lines" in (tmp_path / "l.svg").read_text()
    code, _, err = fendra("map", drone, "--show", "tps")
    assert code == 2
    assert "Did you mean 'tips'?" in err
    assert fendra("map", drone, "--view", "above")[0] == 2


def test_the_listing_has_a_row_a_part(fendra):
    code, out, _ = fendra("layout", fd.demo_file("cabinet.toml"))
    assert code == 0
    assert out.split()[:4] == ["line", "address", "part", "shape"]
    rows = out.splitlines()[2:]  # the heads go on below as well
    assert max(map(len, out.splitlines())) <= 80
    first = " ".join(rows[:2]).split()  # its cells go on below where they are too long
    assert first[:4] == ["marquee", "0-255", "sign", "grid"]
    assert sorted(first[4:]) == sorted(
        ["279,", "200,", "1537", "-279,", "200,", "1537", "begins", "up", "front"]
    )
    assert "side-right" in [row.split()[2] for row in rows if row.startswith("sides")]
    assert rows[-1] == "455 LEDs. Addresses: marquee 256, screen 79, sides 20. Unit: mm."


def test_the_listing_as_json_and_every_led_into_files(fendra, tmp_path):
    drone = fd.demo_file("drone.toml")
    said = json.loads(fendra("layout", drone, "--json")[1])
    assert said["lines"] == {"wings": 35, "body": 22}
    tip = next(part for part in said["parts"] if part["part"] == "left.tip")
    assert tip["start"] == [-640, 10, 0]
    assert (tip["first"], tip["last"], tip["direction"], tip["facing"]) == (32, 34, "back", "mixed")
    for name in ("leds.csv", "leds.json"):
        assert fendra("layout", drone, "--out", name)[1] == f"56 LEDs: {name}\n"
        code, out, _ = fendra("import", name, "--into", f"{name}.toml")
        assert code == 0
        assert "56 LEDs added" in out
        back, first = fd.load(f"{name}.toml").layout(), fd.load(drone).layout()
        assert back.line_sizes == first.line_sizes
        assert back.position == pytest.approx(first.position, abs=1e-5)
    assert fendra("layout", drone, "--out", "leds.txt")[0] == 2


# ---- import -------------------------------------------------------------------------------------------


def test_import_writes_text_to_the_screen_or_adds_it_to_a_design(fendra, tmp_path):
    (tmp_path / "board.csv").write_text(BOARD)
    code, out, _ = fendra("import", "board.csv", "--only", "D*", "--order", "name", "--middle")
    assert code == 0
    ((part,),) = [line["part"] for line in tomllib.loads(out)["line"]]
    assert part == {
        "name": "board", "shape": "points", "points": [[-20, 0], [20, 0], [0, 0]],
        "facing": ["up", "down", "up"], "names": ["D1", "D2", "D10"],
    }  # fmt: skip
    before = fd.demo_file("pad.toml").read_text()
    (tmp_path / "pad.toml").write_text(before)
    words = ["--only", "D*", "--into", "pad.toml", "--line", "pad", "--part", "under"]
    code, out, _ = fendra("import", "board.csv", *words)
    assert code == 0
    assert "pad.toml: 3 LEDs added as 'under' on line 'pad'" in out
    after = (tmp_path / "pad.toml").read_text()
    left = iter(after.splitlines())
    assert all(row in left for row in before.splitlines())  # in order: `in` moves on
    code, _, err = fendra("import", "board.csv", *words)
    assert code == 2
    assert "there is already a part 'under'" in err
    assert (tmp_path / "pad.toml").read_text() == after


def test_import_of_a_drawing_follows_its_path_or_takes_its_shapes(fendra, tmp_path):
    (tmp_path / "way.svg").write_text(
        '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm" viewBox="0 0 100 50">'
        '<path id="way" d="M0,50 L100,50"/><circle id="b2" cx="10" cy="40" r="1"/>'
        '<circle id="b10" cx="20" cy="40" r="1"/><circle id="b1" cx="30" cy="40" r="1"/></svg>'
    )

    def points(*words):
        return tomllib.loads(fendra("import", "way.svg", *words)[1])["line"][0]["part"][0]

    assert points("--per-metre", "20")["points"] == [[0, 0], [50, 0], [100, 0]]
    assert points("--count", "2")["points"] == [[0, 0], [100, 0]]
    assert points()["names"] == ["b2", "b10", "b1"]
    assert points("--order", "name")["names"] == ["b1", "b2", "b10"]
    assert points("--order", "path")["names"] == ["b2", "b10", "b1"]
    assert points("--only", "b1*")["points"] == [[20, 10], [30, 10]]


@pytest.mark.parametrize(
    ("words", "code", "says"),
    [
        (["nothing.csv"], 2, "there is no file 'nothing.csv'"),
        (["board.xls"], 2, "is not a .csv, .svg or .json file"),
        (["board.csv", "--column", "x=Wide"], 2, "board.csv: there is no column 'Wide'"),
        (["board.csv", "--column", "PosX"], 2, "'PosX' has no '='. Write it as in x=PosX"),
        (["board.csv", "--only", "LED*"], 2, "no name matches 'LED*'"),
        (["empty.svg", "--pitch", "5", "--per-metre", "5"], 2, "mean the same"),
        (["board.csv", "--pitch", "5"], 2, "--pitch needs an SVG, and 'board.csv' is not one"),
        (["board.csv", "--order", "path"], 2, "--order path needs an SVG"),
        (["empty.svg", "--column", "x=a"], 2, "--column needs a CSV, and 'empty.svg' is not one"),
        (["board.csv", "--into", "broken.toml"], 2, "is not valid TOML"),
        (["empty.svg"], 2, "empty.svg: this is not SVG"),
    ],
)
def test_an_import_that_cannot_be_done_says_why_and_changes_nothing(
    fendra, tmp_path, words, code, says
):
    (tmp_path / "board.csv").write_text(BOARD)
    (tmp_path / "empty.svg").write_text("")
    (tmp_path / "broken.toml").write_text("[[line")
    found, out, err = fendra("import", *words)
    assert found == code
    assert says in " ".join((out + err).replace("│", " ").split())
    assert (tmp_path / "broken.toml").read_text() == "[[line"


# ---- probe --------------------------------------------------------------------------------------------


def controller(*lines: str):
    words = [word for line in lines for word in ("--line", line)]
    made = subprocess.Popen(
        [sys.executable, "-m", "fendra.demo.controller", *words], stdout=subprocess.PIPE, text=True
    )
    assert made.stdout is not None
    return made, made.stdout.readline().split()[-1]


@pytest.mark.parametrize(
    "pattern", ["lines", "colours", "walk", "count", "corners", "axes", "ramp"]
)
def test_every_pattern_reaches_a_controller_and_ends_dark(fendra, pattern, tmp_path):
    """A strip without a supply: half an ampere is assumed, and said to be."""
    bare = tmp_path / "bare.toml"
    text = fd.demo_file("bare.toml").read_text(encoding="utf-8")
    bare.write_text(text.replace('supply = "usb"\n', ""), encoding="utf-8")
    made, port = controller("30")
    with made:
        code, out, _ = fendra(
            "probe", bare, pattern, "--to", f"serial:{port}", "--speed", 100,
            "--times", 1,
        )  # fmt: skip
        heard = made.communicate(timeout=20)[0]
    assert code == 0
    assert f"Bare to port {port}: {pattern}." in out
    assert "Fendra assumes 0.5 A" in out
    assert "0 lost, 0 incomplete, 0 damaged" in heard
    assert "line 0: 30 LEDs, 000000 000000" in heard


def test_the_level_is_low_within_the_supply_and_held_there(fendra):
    made, port = controller("56", "72", "30")
    with made:
        _, out, _ = fendra(
            "probe", fd.demo_file("heron.toml"), "colours", "--to", f"serial:{port}", "--speed", 200,
            "--level", 1,
        )  # fmt: skip
    assert "The supply limits the level." in out
    # 80 % of 6 A: 158 LEDs at 1 mA when dark, and 158 x 60 mA x level: 0.49 of full light, 0.73 to the eye
    assert "Level 0.73, at most about 4.80 A of the 6 A of 'deck'." in out


@pytest.mark.parametrize(
    ("words", "code", "says"),
    [
        (["--line", "tail", "--saw", "green red blue"], 0, ["the order is RGB, not GRB", 'write order = "RGB"']),
        (["--line", "tail", "--saw", "r, g, b"], 0, ["the order is GRB, as it is written"]),
        (["--line", "tail", "--saw", "red red blue"], 1, ["Line 'tail': impossible: red was seen twice"]),
        (["--saw", "green red blue"], 2, ["which line was that? The lines are: front, deck, tail."]),
        (["--part", "tail-bar", "--saw", "start=right"], 0, ["write reverse = true"]),
        (["--part", "hub-left", "--saw", "start=90 runs=counter-clockwise"], 0, ["write start_angle = 90", 'write direction = "counter-clockwise"']),
        (["--saw", "red=front-right green=front-left"], 1, ["No single mistake explains that.", "heron.toml parts."]),
        (["--saw", "front=green deck=red"], 0, ["Lines 'front' and 'deck' are swapped.", 'heron.toml:42: write pin = "GP3"', 'heron.toml:74: write pin = "GP2"']),
        (["--saw", "nose=green"], 2, ["there is no line and no part 'nose'. Did you mean 'nose-bar'?"]),
        (["--saw", "hub-left=blue"], 0, ["swap [[line.part]] 'hub-left' and [[line.part]] 'hub-right' ("]),
        (["--part", "nose-bar", "--saw", "count=40"], 0, ["Line 'front' has 40 LEDs, but the design says 56.", "write count = 8"]),
        (["--part", "tail-bar", "--saw", "lit=hub-left+nose-bar"], 0, ['heron.toml:42: write pin = "GP4"']),
        (["--saw", "red=front-left green=front-right"], 0, ["The map is right."]),
        (["--saw", "start=left"], 2, ["say which one by --part"]),
        (["--saw", "start=90"], 2, ["say which one by --part"]),
        (["--part", "tail-bar", "--saw", "red=lft"], 2, ["Did you mean 'left'?"]),
        ([], 1, ["there is no port /dev/ttyACM0"]),
        (["--to", "nowhere:x"], 2, ["there is no output 'nowhere'"]),
        (["--part", "tailbar", "--saw", "red=left"], 2, ["Did you mean 'tail-bar'?"]),
    ],
)  # fmt: skip
def test_what_was_seen_leads_to_the_line_to_change(fendra, words, code, says):
    found, out, err = fendra("probe", fd.demo_file("heron.toml"), *words)
    assert found == code
    told = " ".join((out + err).replace("│", " ").split())
    for text in says:
        assert text in told


def test_the_change_that_is_told_is_at_its_line_of_the_file_and_mends_the_design(fendra, tmp_path):
    """The cabinet's sign, wired from the other lower corner: do what is said, ask again."""
    path = tmp_path / "cabinet.toml"
    path.write_text(fd.demo_file("cabinet.toml").read_text())
    saw = ["--part", "sign", "--saw", "red=top-right green=top-left"]
    said = fendra("probe", path, *saw)[1].splitlines()[1]
    place, what = said.split(": write ")
    number = int(place.rsplit(":", 1)[1])
    rows = path.read_text().splitlines()
    assert rows[number - 1].startswith("first = ")
    rows[number - 1] = what
    path.write_text("\n".join(rows))
    right = ["--part", "sign", "--saw", "red=top-left green=top-right"]
    assert "the map is right" in fendra("probe", path, *right)[1]


def test_patterns_go_to_several_outputs_and_the_words_are_of_their_lines(fendra, tmp_path):
    """Front and tail are plugged in; of deck nothing is said, and its LEDs stay dark."""
    films = [tmp_path / "front.npz", tmp_path / "tail.npz"]
    to = [word for film in films for word in ("--to", f"film:{film},lines={film.stem}")]
    code, out, _ = fendra(
        "probe", fd.demo_file("heron.toml"), "lines", *to, "--speed", 200, "--times", 1
    )
    assert code == 0
    told = " ".join(out.split())
    assert "line 'front' on pin GP2 is red" in told.replace("Line", "line")
    assert "line 'tail' on pin GP4 is blue" in told
    assert "deck'" not in told.split("lines. ")[1]
    for film, colour in zip(films, (0, 2), strict=True):
        rgb = np.load(film)["rgb"]
        assert {*np.flatnonzero(rgb.any(axis=(0, 1)))} == {colour}


class Terminal:
    """The reading end of a pseudo-terminal: what has been written so far."""

    def __init__(self, handle: int) -> None:
        self.handle, self.told = handle, b""

    def wait_for(self, words: bytes) -> None:
        while words not in self.told:
            ready, _, _ = select.select([self.handle], [], [], 20)
            assert ready, f"{words!r} did not come after {self.told!r}"
            self.told += os.read(self.handle, 4096)


@pytest.mark.unix
def test_on_a_terminal_enter_steps_and_then_it_asks():
    made, port = controller("56", "72", "30")
    main, end = os.openpty()
    program = Path(sys.executable).parent / "fendra"
    command = [program, "probe", fd.demo_file("heron.toml"), "colours", "--line", "tail"]
    terminal = Terminal(main)
    with made, subprocess.Popen(
        [*command, "--to", f"serial:{port}"], stdin=end, stdout=end, stderr=end
    ) as probe:  # fmt: skip
        os.close(end)
        for words, answer in [
            (b"Red goes to", b"\n"), (b"Green goes to", b"\n"), (b"Blue goes to", b"\n"),
            (b"White goes to", b"\n"), (b"> ", b"blue green red\n"),
        ]:  # fmt: skip
            terminal.wait_for(words)
            os.write(main, answer)
        terminal.wait_for(b"write order")
        assert probe.wait(timeout=20) == 0
        heard = made.communicate(timeout=20)[0]
    os.close(main)
    assert b"the order is GBR, not GRB" in terminal.told
    assert "0 lost" in heard
