"""The page in Chromium, opened from disk: its bytes are the film's, and hands and keys move it."""

from __future__ import annotations

import base64

import numpy as np
import pytest

import fendra as fd
from helpers import design, finished, layer, strip, tape

SHIPPED = {
    "heron": "ride.csv", "drone": "flight.csv", "pad": "typing.csv", "cabinet": "game.csv",
    "swift": "glide.csv", "bare": "lever.csv",
}  # fmt: skip

SMALL = {"viewport": {"width": 240, "height": 160}}
"""Where nobody looks: a picture takes a browser without a graphics card long."""

FILM = """async ([run, frames]) => {
    const film = await fendra.runs[run].film(frames);
    let text = "";
    for (let i = 0; i < film.length; i += 30000)
        text += String.fromCharCode(...film.subarray(i, i + 30000));
    return btoa(text);
}"""


def film_in(page, frames, run=0) -> bytes:
    return base64.b64decode(page.run(FILM, [run, frames]))


@pytest.mark.parametrize("name", SHIPPED)
def test_over_its_whole_tape_it_shows_the_bytes_of_the_film(opened, tmp_path, name):
    made = fd.load(fd.demo_file(f"{name}.toml"))
    played = fd.read_tape(fd.demo_file(SHIPPED[name]), made)
    page = opened(made.page(tmp_path / "page.html", played).path, **SMALL).ready()
    film = made.compile().film(played)
    assert film_in(page, len(film)) == film.rgb.tobytes()


@pytest.mark.parametrize("count", [12, 7000])
def test_finished_light_of_four_leds_at_once_too(opened, tmp_path, count):
    """White balanced, ceilings, dither; the large one is painted by vector instructions."""
    keys = finished(signals={"s": {"smooth": 0.1}})
    keys["line"][1]["part"] = [strip("far", count, at=[0, 50])]
    layers = [layer("gradient", name="a", colours=["#ffd0a0", "navy"], rate=0.3),
              layer("pulse", name="b", blend="add", level="s"),
              layer("flicker", name="c", on="face", level=0.4)]  # fmt: skip
    made = fd.Design.from_values({"name": "Test", "layer": layers, **keys})
    played = tape(s=np.linspace(0, 1, 30))
    page = opened(made.page(tmp_path / "page.html", played).path, **SMALL).ready()
    film = made.compile().film(played)
    assert film_in(page, len(film)) == film.rgb.tobytes()
    page.run("fendra.goTo(0.7)")
    expected = film.frame(played.start_s + 0.7)
    assert page.frame() == expected.rgb.tobytes()
    assert bytes(page.run("[...fendra.first.module.seen()]")) == expected.seen.tobytes()
    amps = page.run("fendra.first.module.amps()")
    idle = {supply["name"]: supply["idle_a"] for supply in page.run("fendra.first.look.supplies")}
    loads = made.budget().loads
    (drawn,) = loads.supply_a(loads.line_a(expected.rgb))
    assert amps["s"] + idle["s"] == pytest.approx(drawn, abs=1e-9)


def test_it_asks_for_nothing_but_its_file_and_says_no_error(opened, heron):
    page = opened(heron[2]).ready()
    page.page.wait_for_timeout(300)
    assert (page.asked, page.errors) == ([heron[2].as_uri()], [])
    assert page.run("fendra.isPlaying") is False  # motion is reduced here


def test_it_plays_by_itself_and_pauses_by_a_key(opened, heron):
    page = opened(heron[2], reduced_motion="no-preference").ready()
    page.until("fendra.time > 0.3")
    page.page.keyboard.press(" ")
    assert page.run("fendra.isPlaying") is False
    before = page.run("fendra.first.frame")
    page.page.keyboard.press(".")
    page.page.keyboard.press(".")
    page.page.keyboard.press(",")
    assert page.run("fendra.first.frame") == before + 1


def test_the_track_is_dragged_to_a_moment(opened, heron):
    made, played, path = heron
    page = opened(path).ready()
    box = page.page.get_by_role("slider", name="Moment").bounding_box()
    page.page.mouse.move(box["x"] + 5, box["y"] + 20)
    page.page.mouse.down()
    page.page.mouse.move(box["x"] + 0.35 * box["width"], box["y"] + 20)
    page.page.mouse.up()
    frame = page.run("fendra.first.frame")
    film = made.compile().film(played)
    assert frame == pytest.approx(0.35 * (len(film) - 1), abs=3)
    assert page.frame() == film.rgb[frame].tobytes()
    page.run("fendra.goTo(4.2)")  # and back, from a moment that is kept
    assert page.frame() == film.rgb[210].tobytes()


def test_a_slider_that_is_moved_moves_the_light_as_a_program_would(opened, tmp_path):
    """Without a tape; the brake by keys, the switch by a click; news of them in every frame."""
    made = fd.load(fd.demo_file("heron.toml"))
    page = opened(made.page(tmp_path / "page.html").path).ready()
    page.run("fendra.goTo(1)")
    page.page.get_by_role("slider", name="brake").press("End")
    page.page.get_by_role("button", name="lights", exact=True).click()
    page.run("fendra.goTo(2)")
    program = made.compile(engine="numpy")
    for frame in range(101):  # the lights are on while they are lost, so a click puts them out
        expected = program.frame({"brake": 1, "lights": 0} if frame >= 50 else {}, at=frame / 50)
    assert page.frame() == expected.rgb.tobytes()
    page.page.locator(".signal.held").get_by_text("by hand").first.wait_for()
    assert page.run("fendra.deeds.length") == 2


def test_a_signal_is_lost_and_let_go_by_hand(opened, heron):
    made, played, path = heron
    page = opened(path, "t=12.4").ready()
    page.page.get_by_role("button", name="speed: lost").click()
    page.run("fendra.goTo(13.4)")
    without = {name: values for name, values in played.signals.items() if name != "speed"}
    kept = played.signals["speed"].copy()
    kept[played.times > 12.4 - 1e-6] = np.nan
    other = fd.Tape(played.times, {"speed": kept, **without}, "other")
    assert page.frame() == made.compile().film(other).rgb[670].tobytes()
    page.run("fendra.tell()")
    page.page.locator(".signal").first.locator(".value.lost").wait_for()
    page.page.get_by_text("back to the tape").click()
    assert page.run("fendra.deedOf('speed')") is None


def test_a_link_shows_the_same_moment_again(opened, heron):
    page = opened(heron[2], "t=12.4&view=left&show=names").ready()
    page.page.get_by_role("slider", name="rpm").press("Home")
    page.page.get_by_role("button", name="wires").click()
    page.until("location.hash.includes('rpm') && location.hash.includes('wires')")
    address = page.run("location.hash").removeprefix("#")
    again = opened(heron[2], address).ready()
    assert (again.frame(), again.run("fendra.time")) == (page.frame(), page.run("fendra.time"))
    for name in ("left", "names", "wires"):
        again.page.get_by_role("button", name=name, exact=True, pressed=True).first.wait_for()


def test_a_touched_led_says_what_it_is_and_why(opened, heron):
    made, played, path = heron
    page = opened(path, "t=24&led=130&view=back").ready()
    layout = made.layout()
    spot = int(layout.leds.spot[130])
    film = made.compile().film(played)
    told = film.explain("tail-bar:2", 24.0)
    said = f"line {told.line}, address {told.address}; bytes {' '.join(map(str, told.rgb))}"
    page.page.get_by_role("tabpanel").get_by_text(said).wait_for()
    assert layout.part_names[int(layout.part[spot])] == "tail-bar"
    on = [touch.layer for touch in told.touches if touch.is_on]
    lit = page.page.locator(".touch:not(.off) .name").all_inner_texts()
    assert [text.strip() for text in lit] == on[::-1]
    box = page.page.locator(".view").bounding_box()
    page.page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.until("!location.hash.includes('led=130')")


def test_an_event_happens_at_the_led_that_is_touched(opened, tmp_path):
    """In inches: a ripple from the LED at x = 3 in, off centre."""
    made = fd.Design.from_values({
        "units": "in", "signals": {"hit": {"kind": "event"}},
        "line": [{"name": "a", "part": [
            {"name": "bar", "shape": "strip", "start": [1, 2], "end": [5, 2], "count": 9}]}],
        "layer": [layer("ripple", trigger="hit", x="hit.x", y="hit.y", speed=6, colour="red")],
    })  # fmt: skip
    page = opened(made.page(tmp_path / "page.html").path).ready()
    page.page.get_by_role("button", name="at an LED").click()
    box = page.page.locator(".view").bounding_box()
    page.page.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    values = page.run("fendra.deeds[0].values")
    assert values == pytest.approx([1, 3, 2, 0], abs=1e-4)
    page.run("fendra.goTo(0.3)")
    program = made.compile(engine="numpy")
    rate = made.rate
    for frame in range(int(0.3 * rate) + 1):
        news = {"hit": {"x": 3, "y": 2}} if frame == 0 else {}
        expected = program.frame(news, at=frame / rate)
    assert page.frame() == expected.rgb.tobytes()
    assert any(page.frame())


def test_an_axis_of_a_gamepad_moves_a_signal(opened, heron):
    """From -1 to 1 over lean's -30 to 30 degrees; a speed, which has no left, from the middle on."""
    script = "navigator.getGamepads = () => [{ axes: [globalThis.axis ?? 0, 0] }]"
    page = opened(heron[2], "t=12.4", script).ready()
    for axis, signal in ((0, "lean"), (1, "speed")):
        page.page.get_by_label(f"axis {axis}").select_option(signal)
    page.run("globalThis.axis = 0.5")
    page.until("fendra.deedOf('lean')?.values[0] === 15")
    assert page.run("fendra.deedOf('speed').values") == [0]


def test_in_a_notebook_s_cell_it_runs_as_well(opened, heron, tmp_path):
    """In a frame that may run scripts and nothing else, and has no address of its own."""
    made, played, _ = heron
    cell = tmp_path / "cell.html"
    cell.write_text(f"<!doctype html>{made.page(tape=played)._repr_html_()}", encoding="utf-8")
    page = opened(cell)
    inside = page.page.frame_locator("iframe")
    inside.get_by_role("slider", name="speed").press("End")
    inside.get_by_role("button", name="left", exact=True).first.click()
    inside.get_by_text("by hand").first.wait_for()
    assert page.errors == []


def test_two_looks_stand_side_by_side_on_the_same_signals(opened, tmp_path):
    first, second = (design(layer("solid", colour=colour, level="s"), signals={"s": {}})
                     for colour in ("red", "blue"))  # fmt: skip
    played = tape(s=np.linspace(0, 1, 20))
    path = first.page(tmp_path / "page.html", played, other=second, labels=("a", "b")).path
    page = opened(path, **SMALL).ready()
    for run, made in enumerate((first, second)):
        film = made.compile().film(played)
        assert film_in(page, len(film), run) == film.rgb.tobytes()
    page.run("fendra.do('s', 'set', [0.5])")
    shown = [page.run(f"[...fendra.runs[{run}].module.rgb().slice(0, 3)]") for run in range(2)]
    assert [shown[0][1:], shown[1][:2]] == [[0, 0], [0, 0]]
    assert shown[0][0] == shown[1][2] > 0
    assert page.page.locator(".view .label").all_inner_texts() == ["a", "b"]


def test_more_than_three_flashes_a_second_are_asked_about_first(opened, tmp_path):
    made = design(layer("blink", colour="white", rate=8), signals={"s": {}})
    page = opened(made.page(tmp_path / "page.html").path, **SMALL).ready()
    page.page.get_by_role("button", name="Play").click()
    asked = page.page.get_by_role("alertdialog", name="Flashes")
    asked.wait_for()
    assert page.run("fendra.isPlaying") is False
    assert page.run("fendra.time") < 1.5
    asked.get_by_role("button", name="dimmed").click()
    assert page.run("[fendra.flashes, fendra.isPlaying]") == ["dimmed", True]


def test_on_a_phone_nothing_runs_over_and_all_has_a_name(opened, heron):
    page = opened(
        heron[2], "t=12.4", viewport={"width": 390, "height": 844}, has_touch=True
    ).ready()
    assert page.run("document.documentElement.scrollWidth") == 390
    assert page.run("document.documentElement.scrollHeight") == 844
    unnamed = """[...document.querySelectorAll('button, input, select, [role=slider]')]
        .filter((each) => !(each.innerText || each.ariaLabel || each.title)).length"""
    assert page.run(unnamed) == 0
    for tab in ("layers", "LED", "signals"):
        page.page.get_by_role("tab", name=tab).tap()
        page.page.get_by_role("tab", name=tab, selected=True).wait_for()


def test_by_keys_alone_it_is_turned_and_seen_from_all_sides(opened, heron):
    page = opened(heron[2], "t=1").ready()
    page.page.locator(".view").focus()
    for key, side in zip(
        "123456", ("top", "bottom", "front", "back", "left", "right"), strict=True
    ):
        page.page.keyboard.press(key)
        page.until(f"location.hash.includes('view={side}')")
    page.page.keyboard.press("ArrowLeft")
    page.page.keyboard.press("+")
    page.until("location.hash.includes('view=85')")
    page.page.keyboard.press("Tab")
    assert page.run("document.activeElement.tagName") == "BUTTON"


SENTENCES = {
    "no WebGL": ("HTMLCanvasElement.prototype.getContext = () => null", "cannot draw in space"),
    "no WebAssembly": ("delete globalThis.WebAssembly", "has no WebAssembly"),
    "damaged": (
        "const parse = JSON.parse; JSON.parse = (text) => parse(text.slice(1))",
        "is damaged. Make the page again with `fendra page`",
    ),
}


@pytest.mark.parametrize("what", SENTENCES)
def test_what_cannot_be_shown_is_said_in_a_sentence(opened, heron, what):
    script, said = SENTENCES[what]
    page = opened(heron[2], script=script)
    page.page.get_by_text(said).wait_for()
    if what == "no WebGL":
        assert page.ready().page.get_by_role("slider", name="speed").is_visible()
