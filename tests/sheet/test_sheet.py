"""The build sheet: one page that holds all that it needs, and says what is true."""

from __future__ import annotations

import base64
import re
from html.parser import HTMLParser

import pytest

import fendra as fd
from fendra.sheet.page import make_page
from fendra.sheet.steps import bench_steps
from fendra.sheet.tables import feed_table, line_tables, materials, supply_table
from helpers import layer, strip
from targets import film_of

VOID = {"meta", "img", "br", "input"}


class Page(HTMLParser):
    """What stands in a page, and whether every tag that opens closes."""

    def __init__(self, text: str) -> None:
        super().__init__()
        self.open: list[str] = []
        self.words: list[str] = []
        self.tags: list[tuple[str, dict[str, str | None]]] = []
        self.feed(text)

    def handle_starttag(self, tag, attrs):
        self.tags.append((tag, dict(attrs)))
        if tag not in VOID:
            self.open.append(tag)

    def handle_endtag(self, tag):
        assert self.open.pop() == tag

    def handle_data(self, data):
        if self.open and self.open[-1] != "style":
            self.words.append(" ".join(data.split()))

    @property
    def text(self) -> str:
        return " ".join(filter(None, self.words))


@pytest.fixture(scope="module")
def heron():
    return film_of("heron")


@pytest.fixture(scope="module")
def page(heron, tmp_path_factory):
    design, film = heron
    path = design.sheet(tmp_path_factory.mktemp("sheet") / "sheet.html", film)
    return Page(path.read_text(encoding="utf-8")), path


def test_it_is_whole_and_needs_nothing_from_elsewhere(page):
    made, path = page
    assert made.open == []
    text = path.read_text(encoding="utf-8")
    assert text.lstrip().startswith("<!doctype html>")
    pictures = [attrs["src"] for tag, attrs in made.tags if tag == "img"]
    assert len(pictures) == 4  # map, wiring, current, voltage
    for picture in pictures:
        head, _, held = picture.partition("base64,")
        assert head == "data:image/svg+xml;"
        assert b"</svg>" in base64.b64decode(held)
    assert not {"script", "link", "iframe"} & {tag for tag, _ in made.tags}
    rest = re.sub(r"base64,[\w+/=]+", "", text)
    assert not re.search(r"https?:|url\(|@import", rest)


def test_it_says_the_figures_of_the_budget(page, heron):
    made, _ = page
    text = made.text
    for words in (
        "Heron", "Electric cargo trike", "158 mA", "7.41 A", "4.8 A", "2.86 A", "24 W", "0.8 m of 1.5 mm²",
        "pin GP3, through the level shifter", "DO of hub-left, 0.19 m", "0 – 15", "4.36 V at LED 71",
        "battery, 48 V, 13 cells", "level shifter, a channel a line", "141 h", "474 of 270,336",
    ):  # fmt: skip
        assert words in text, words
    for part in heron[0].layout().part_names:
        assert part in text
    assert "Peak of 'deck', 2.86 A at 32 s: 'running light, front'" in text
    boxes = [attrs for tag, attrs in made.tags if tag == "input"]
    steps = bench_steps(heron[0].budget(heron[1]), "heron.toml")
    assert len(boxes) == sum(len(each) for _, each in steps) > 20
    assert all(attrs["type"] == "checkbox" for attrs in boxes)


def test_it_is_the_same_each_time(heron):
    design, _ = heron
    subject = design.examined.sound
    assert make_page(subject, []) == make_page(subject, [])


def test_a_design_without_a_supply_or_controller_and_with_odd_names_has_one(tmp_path):
    made = fd.Design.from_values(
        {
            "name": "<b>& co",
            "line": [
                {"name": "a", "part": [strip("bar", 30), {"name": "lead", "shape": "hidden"}]}
            ],
            "layer": [layer(name="<script>x</script>")],
        }
    )
    page = Page(made.sheet(tmp_path / "sheet.html").read_text(encoding="utf-8"))
    assert page.open == []
    assert "<b>& co" in page.text
    assert "To look at first" in page.text
    assert "not seen" in page.text


def test_a_wrong_design_has_none(tmp_path):
    made = fd.Design.from_values({"line": [{"name": "a", "led": "no such", "part": [strip()]}]})
    with pytest.raises(fd.DesignError, match="no LED type"):
        made.sheet(tmp_path / "sheet.html")
    assert not (tmp_path / "sheet.html").exists()


def test_tables_by_hand():
    """Two feeds on ten LEDs: each bears half of 0.61 A, so a fuse of 0.5 A; a copy takes its data."""
    made = fd.Design.from_values(
        {
            "supplies": {"s": {"volts": 5, "amps": 3, "wire": {"metres": 0.5, "mm2": 0.5}}},
            "line": [
                {"name": "a", "pin": "D6", "supply": "s", "feed": [{"at": 0}, {"at": "end"}],
                 "part": [strip("one", 4), strip("two", 6, at=[100.0, 0.0]),
                          strip("copy", 4, at=[0.0, 9.0], parallel_to="one")]},
            ],
        }
    )  # fmt: skip
    budget = made.budget()
    feeds = feed_table(budget).rows
    assert [row[2] for row in feeds] == ["0, LED 0 of one", "9, LED 5 of two"]
    assert [row[3] for row in feeds] == ["0.5 m of 0.5 mm²"] * 2
    ((_, _, table),) = line_tables(budget)
    by_part = {row[0]: row for row in table.rows}
    assert by_part["one"][3:6] == ("0 – 3", "pin D6", "0")
    assert by_part["two"][3:6] == ("4 – 9", "DO of one, 0.07 m", "9")
    assert by_part["copy"][3:6] == ("0 – 3", "the same wire as one", "")
    what = {row[0]: row[1] for row in materials(budget).rows}
    assert what["LEDs, ws2812b (5 V, one wire)"] == "14 LEDs"
    assert what["wire, 0.5 mm²"] == "1.1 m each"  # two leads of 0.5 m, a jump of 0.07 m
    (supply,) = supply_table(budget).rows
    assert supply[1] == "5 V, 3 A"
    steps = dict(bench_steps(budget, "a.toml"))
    assert steps["The map"][1].command == "fendra probe a.toml colours --line a --to serial:PORT"


SHIPPED = {"drone": "flight", "pad": "typing", "cabinet": "game", "bare": "lever"}


@pytest.mark.parametrize("name", SHIPPED)
def test_every_shipped_design_has_a_sheet_that_names_its_parts_and_figures(tmp_path, name):
    made = fd.load(fd.demo_file(f"{name}.toml"))
    film = made.compile().film(fd.read_tape(fd.demo_file(f"{SHIPPED[name]}.csv")))
    page = Page(made.sheet(tmp_path / "sheet.html", film).read_text(encoding="utf-8"))
    assert page.open == []
    budget = made.budget(film)
    for row in made.layout().parts:
        assert row.name in page.text
    for line in budget.lines:
        assert f"{line.sag.lowest_v:.2f} V at LED {line.sag.at}" in page.text
        assert f"the last LED is number {line.addresses - 1}." in page.text
    for supply in budget.supplies:
        assert f"at {supply.draw.at_s:.4g} s" in page.text
    pictures = [attrs["src"] for tag, attrs in page.tags if tag == "img"]
    volts = {line.feeding.volts for line in budget.lines}
    assert len(pictures) == 2 + len(budget.supplies) + len(volts)
    assert "To look at first" not in page.text


def test_a_measured_type_a_clocked_line_and_a_line_that_sags_are_written_down(tmp_path):
    """Both figures of a measured type; where else to feed; that data and clock go there."""
    made = fd.Design.from_values(
        {
            "leds": {"mine": {"like": "ws2812b", "measured": {"amps": 1.26, "leds": 60}}},
            "supplies": {"s": {"volts": 5, "amps": 40, "wire": {"metres": 1.0, "mm2": 6}}},
            "line": [
                {"name": "long", "led": "mine", "supply": "s", "part": [strip("p", 290)]},
                {"name": "clocked", "led": "apa102", "supply": "s",
                 "part": [strip("q", 10, at=[0.0, 50.0])]},
            ],
            "layer": [layer()],
        }
    )  # fmt: skip
    budget = made.budget()
    (first, second) = budget.lines
    assert first.led.channel_ua["R"] == round(20_000 / 3)
    page = Page(made.sheet(tmp_path / "sheet.html", view="left").read_text(encoding="utf-8"))
    for words in ("20 mA", "6.67 mA", "apa102, BGR", "seen from its left"):
        assert words in page.text or words in str(page.tags), words
    places = ", ".join(map(str, first.extra))
    assert f"long: for full white feed it at LED {places} too" in page.text
    assert second.extra == ()


def test_a_first_pixel_that_lifts_the_data_is_no_chip():
    drone = fd.load(fd.demo_file("drone.toml")).budget()
    assert [line.shifter for line in drone.lines] == ["pixel", "chip"]
    how_many = {row[0]: row[1] for row in materials(drone).rows}
    assert how_many["level shifter, a channel a line"] == "1"
    words = [step.words for step in dict(bench_steps(drone, "x"))["Before you switch on"]]
    assert "The first pixel, which nobody sees, lifts the data of wings." in words
    assert "Level shifters are in the data of body." in words
