"""The page of a run in real browsers: two pages and a phone on one run, placing, text, the bench."""

from __future__ import annotations

import time

import pytest

from helpers import until
from page_served import OnBench, Running, ask


class Live:
    """A page of a run as a person has it before them."""

    def __init__(self, browser, address, **keys):
        keys = {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce", **keys}
        self.context = browser.new_context(**keys)
        self.page = self.context.new_page()
        self.page.set_default_timeout(60_000)
        self.errors = []
        self.page.on("pageerror", lambda error: self.errors.append(str(error)))
        self.page.goto(address)

    def until(self, truth, *args):
        until(lambda: self.page.evaluate(truth, *args), truth, seconds=60)
        return self

    def ready(self):
        """Frames have come, and what there is to see is on the screen."""
        self.until("Boolean(globalThis.fendra?.frames > 0 && fendra.state)")
        return self.until("document.querySelector('main.page') !== null")

    def tab(self, name):
        self.page.get_by_role("tab", name=name).click()


@pytest.fixture
def live(chromium):
    """Opens pages of runs, and closes them."""
    pages = []

    def open_page(address, **keys):
        pages.append(Live(chromium, address, **keys))
        return pages[-1]

    yield open_page
    for each in pages:
        errors = each.errors
        each.context.close()
        assert errors == []


PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
WITH_PANEL = """
[[panel]]
signal = "lean"
name = "How far it leans"

[[panel]]
control = "level"

[[panel]]
signal = "left"
"""
HELD = "name => fendra.state.signals.find((each) => each.name === name).held"


def test_two_pages_and_a_phone_on_one_run_see_what_one_of_them_does(serve, live, design_file):
    text = design_file.read_text(encoding="utf-8")
    design_file.write_text(text[: text.index("[[panel]]")] + WITH_PANEL, encoding="utf-8")
    run = serve(Running, design_file)
    one, two = live(f"{run.address}/").ready(), live(f"{run.address}/").ready()
    phone = live(f"{run.address}/panel", **PHONE).until(
        "document.querySelector('main.panel') !== null"
    )
    # The panel has what its author put there, in that order, and nothing else.
    labels = phone.page.evaluate(
        "[...document.querySelectorAll('.panel .name, .panel .level span')].map((e) => e.textContent)"
    )
    assert labels == ["How far it leans", "Master level 100 %", "left"]
    # By a slider of the phone, seen by both pages.
    phone.page.get_by_role("slider", name="lean, deg").fill("-12")
    for page in (one, two):
        page.until(f"JSON.stringify(({HELD})('lean')) === '[-12]'")
    assert run.steering.held()["signals"] == {"lean": [-12.0]}
    # A switch of one, seen by the other and by the phone; let go of by the other.
    one.page.get_by_label("left", exact=True).click()
    two.until(f"JSON.stringify(({HELD})('left')) === '[1]'")
    phone.until("document.querySelectorAll('.panel .wide.on').length === 1")
    two.page.locator("li.signal.held", has_text="left").get_by_role(
        "button", name="release"
    ).click()
    one.until(f"({HELD})('left') === null")
    # Scene and on and off.
    two.page.get_by_role("button", name="parked").first.click()
    one.until("fendra.state.scene === 'parked'")
    one.page.get_by_role("button", name="Light is on").click()
    two.until("fendra.state.on === false && !fendra.picture.seen().some((byte) => byte > 0)")


def test_the_frames_are_those_that_go_to_the_outputs(serve, live, design_file):
    run = serve(Running, design_file, outputs=["memory:"])
    page = live(f"{run.address}/").ready()
    ask(f"{run.address}/api/signals", "PUT", {"signals": {"speed": 20, "brake": 1, "lights": True}})
    page.until("fendra.picture.seen()[3 * 150] > 100")
    sent = run.session.senders[0]
    until(lambda: sent.sent > 0, "frames")
    shown = bytes(page.page.evaluate("[...fendra.picture.seen()]"))
    output = run.session.senders[0].output
    until(lambda: shown in {frame.seen.tobytes() for frame in [*output.frames]}, "that frame")


def test_killed_and_begun_again_the_pages_come_back_by_themselves(serve, live, design_file):
    run = serve(Running, design_file)
    port = run.server.port
    page = live(f"{run.address}/").ready()
    phone = live(f"{run.address}/panel", **PHONE).until(
        "document.querySelector('main.panel') !== null"
    )
    run.end()
    page.until("fendra.status === 'lost'")
    phone.until("fendra.status === 'lost'")
    page.page.get_by_text("The run has stopped. This page waits for it.").wait_for()
    again = serve(Running, design_file, port=port)
    before = page.page.evaluate("fendra.frames")
    page.until(f"fendra.status === 'open' && fendra.frames > {before} + 5")
    phone.until("fendra.status === 'open'")
    phone.page.get_by_role("button", name="Light is on").click()
    until(lambda: not again.steering.held()["on"], "the phone's word")


def test_a_token_of_the_address_is_kept_and_leaves_it_and_without_one_it_is_told_what_to_do(
    serve, live, design_file
):
    run = serve(Running, design_file, host="0.0.0.0")
    stranger = live(f"{run.address}/").until("fendra.status === 'refused'")
    stranger.page.get_by_text(
        "A token is needed: open the address that the terminal shows."
    ).wait_for()
    page = live(f"{run.address}/#token={run.server.tokens.look}").ready()
    assert page.page.url == f"{run.address}/"
    assert page.page.get_by_role("button", name="Light is on").is_disabled()
    assert page.page.get_by_role("tab").all_inner_texts() == ["signals", "run"]
    page.page.reload()
    page.ready()


def places(page, name):
    """Where the LEDs of a part are on the screen."""
    return page.page.evaluate(
        """(name) => {
      const part = fendra_part(name);
      return part;
      function fendra_part(name) {
        const i = fendra.picture.look.parts.indexOf(name);
        return [...document.querySelectorAll("circle[data-led]")]
          .filter((each) => fendra.picture.spots.part[Number(each.dataset.led)] === i)
          .map((each) => { const box = each.getBoundingClientRect(); return [box.x + box.width / 2, box.y + box.height / 2]; });
      }
    }""",
        name,
    )


def drag(page, start, end):
    page.page.mouse.move(*start)
    page.page.mouse.down()
    page.page.mouse.move((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    page.page.mouse.move(*end)
    page.page.mouse.up()


def test_a_part_dragged_on_the_map_changes_its_numbers_in_the_file_and_nothing_else(
    serve, live, design_file
):
    """From its 5 mm grid the hub goes by whole steps: both numbers that changed are of that grid."""
    run = serve(Running, design_file)
    before = design_file.read_text(encoding="utf-8")
    page = live(f"{run.address}/").ready()
    page.tab("place")
    page.until("document.querySelectorAll('svg.map text').length === 6")
    x, y = places(page, "hub-left")[3]
    drag(page, (x, y), (x + 20, y + 17))
    until(lambda: design_file.read_text(encoding="utf-8") != before, "the edit")
    after = design_file.read_text(encoding="utf-8")
    old, new = before.splitlines(), after.splitlines()
    changed = [i for i, (a, b) in enumerate(zip(old, new, strict=True)) if a != b]
    assert [old[i] for i in changed] == ["centre = [-420, 570, 420]"]
    x_mm, y_mm, z_mm = map(float, new[changed[0]].removeprefix("centre = [").rstrip("]").split(","))
    assert -400 < x_mm < -340
    assert 500 < y_mm < 570
    assert (x_mm % 5, y_mm % 5, z_mm) == (0, 0, 420)
    # The run has taken it up, and undo brings the file back, letter for letter.
    page.page.get_by_role("button", name="undo").click()
    until(lambda: design_file.read_text(encoding="utf-8") == before, "the undo")
    page.page.get_by_role("button", name="redo").click()
    until(lambda: design_file.read_text(encoding="utf-8") == after, "the redo")


def test_leds_in_a_frame_become_a_group_and_get_a_layer(serve, live, design_file):
    run = serve(Running, design_file)
    page = live(f"{run.address}/").ready()
    page.tab("place")
    page.until("document.querySelectorAll('svg.map text').length === 6")
    row = places(page, "tail-bar")
    left, right = min(row)[0], max(row)[0]
    middle = (left + right) / 2
    drag(page, (left - 8, row[0][1] - 14), (middle, row[0][1] + 14))
    page.page.get_by_label("Name of the group").fill("tail-first-half")
    page.page.get_by_role("button", name="make it a group").click()
    until(
        lambda: 'tail-first-half = "tail-bar[0-14]"' in design_file.read_text(encoding="utf-8"),
        "it",
    )
    page.page.get_by_label("Colour of the new layer").fill("#00ff40")
    page.page.get_by_role("button", name="put a layer on it").click()
    until(lambda: 'colour = "#00ff40"' in design_file.read_text(encoding="utf-8"), "the layer")
    assert design_file.read_text(encoding="utf-8").endswith(
        '[[layer]]\nname = "solid by hand"\non = "tail-bar[0-14]"\neffect = "solid"\ncolour = "#00ff40"\n'
    )


def test_a_trail_drawn_over_leds_runs_as_it_was_drawn(serve, live, design_file):
    run = serve(Running, design_file)
    page = live(f"{run.address}/").ready()
    page.tab("place")
    page.until("document.querySelectorAll('svg.map text').length === 6")
    page.page.get_by_label("draw a trail over LEDs").check()
    row = places(page, "tail-bar")
    page.page.mouse.move(*row[9])
    page.page.mouse.down()
    for place in (8, 7, 6, 5, 4):
        page.page.mouse.move(*row[place])
    page.page.mouse.up()
    page.page.get_by_label("Name of the group").fill("backwards")
    page.page.get_by_role("button", name="make it a trail").click()
    wanted = 'backwards = { join = ["-tail-bar[4-9]"] }'
    until(lambda: wanted in design_file.read_text(encoding="utf-8"), "the trail")


def test_text_is_checked_as_one_writes_and_an_editors_change_comes_in(serve, live, design_file):
    run = serve(Running, design_file)
    page = live(f"{run.address}/").ready()
    page.tab("text")
    page.until("document.querySelector('.cm-content')?.innerText.includes('Heron')")
    # Another program changes the file, and nothing is written here yet: it comes in.
    text = design_file.read_text(encoding="utf-8")
    design_file.write_text(text.replace("rate = 50 ", "rate = 40 "), encoding="utf-8")
    page.until("document.querySelector('.cm-content').innerText.includes('rate = 40')")
    page.page.get_by_role("textbox", name="The design's text").click()
    page.page.keyboard.press("Control+Home")
    page.page.keyboard.type("colour = 5\n")
    page.until("document.querySelector('.cm-lintRange-error, .cm-lint-marker-error') !== null")
    page.page.get_by_text("not saved yet").wait_for()
    page.page.keyboard.press("Control+s")
    until(lambda: design_file.read_text(encoding="utf-8").startswith("colour = 5\n"), "the text")
    page.until(
        "document.querySelector('.findings').innerText.includes(\"there is no key 'colour'\")"
    )


def test_what_is_written_here_and_what_an_editor_saved_do_not_overwrite_each_other(
    serve, live, design_file
):
    run = serve(Running, design_file)
    page = live(f"{run.address}/").ready()
    page.tab("text")
    page.until("document.querySelector('.cm-content')?.innerText.includes('Heron')")
    page.page.get_by_role("textbox", name="The design's text").click()
    page.page.keyboard.press("Control+Home")
    page.page.keyboard.type("# mine\n")
    theirs = design_file.read_text(encoding="utf-8").replace("rate = 50 ", "rate = 40 ")
    design_file.write_text(theirs, encoding="utf-8")
    page.page.get_by_text("The file has changed elsewhere.").wait_for()
    page.page.get_by_role("textbox", name="The design's text").click()
    page.page.keyboard.press("Control+s")
    page.page.get_by_text("the file changed meanwhile", exact=False).first.wait_for()
    assert design_file.read_text(encoding="utf-8") == theirs
    page.page.get_by_role("button", name="keep mine").click()
    until(lambda: design_file.read_text(encoding="utf-8").startswith("# mine\n"), "mine")
    assert "rate = 50 " in design_file.read_text(encoding="utf-8")
    page.page.get_by_text("saved", exact=True).wait_for()


def test_the_bench_by_a_phone(serve, live, design_file):
    bench = serve(OnBench, design_file)
    phone = live(f"{bench.address}/", **PHONE).until("document.querySelector('.bench') !== null")
    page = phone.page
    page.get_by_role("button", name="colours").click()
    page.get_by_label("Line", exact=True).select_option("deck")
    phone.until("fendra.state.bench.line === 'deck'")
    for question, seen in (("red", "blue"), ("green", "red"), ("blue", "green")):
        group = page.get_by_role("group", name=f"What did you see when {question} was sent?")
        group.get_by_role("button", name=seen).click()
    page.get_by_role("button", name="That is what I see").click()
    page.get_by_role("button", name="Write it into the design").click()
    until(lambda: 'order = "' in design_file.read_text(encoding="utf-8"), "the cure")
    phone.until("fendra.state.bench.verdict.includes('written into heron.toml')")
    # GRB bytes: red was sent second, and shows as blue; green was sent first, and shows as red.
    assert 'order = "RBG"' in design_file.read_text(encoding="utf-8")


def test_a_page_that_is_not_looked_at_costs_the_loop_nothing(serve, design_file):
    run = serve(Running, design_file)
    time.sleep(0.2)
    assert run.served.watch.viewers == 0
    assert not run.served.watch._waiting
