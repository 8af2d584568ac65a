"""The HTTP of a run: what is asked, what is done, and what is refused; on a real server."""

from __future__ import annotations

import io
import json
import re
import shlex
from pathlib import Path
from threading import Thread
from urllib.request import urlopen

import pytest
from PIL import Image

import fendra as fd
from fendra.page import data
from fendra.page.served.calls import CALLS, openapi
from helpers import free_port, until
from page_served import OnBench, Running, ask

DOCS = Path(__file__).parents[2] / "docs"


@pytest.fixture
def run(serve, design_file):
    return serve(Running, design_file)


def state(run):
    return ask(f"{run.address}/api/state")[1]


def signal(run, name):
    return next(each for each in state(run)["signals"] if each["name"] == name)


def test_the_state_is_as_it_is_described(run):
    told = data.State.model_validate(state(run))
    assert (told.design, told.rate.wanted) == ("Heron", 50)
    assert told.scenes == ["no news", "parked", "riding"]


def test_the_state_is_of_now_also_where_no_page_is_open(run):
    """Heron's speed is smoothed over 0.1 s: soon it is near, wherever it came from."""
    for value in (20, 4):
        ask(f"{run.address}/api/signals/speed", "PUT", {"value": value})
        until(lambda value=value: abs(signal(run, "speed")["value"] - value) < 0.5, f"{value} km/h")


def test_a_signal_is_taken_over_lost_and_let_go_of(run):
    address = f"{run.address}/api/signals/speed"
    assert ask(address, "PUT", {"value": 21}) == (200, {"done": True})
    assert (signal(run, "speed")["hand"], signal(run, "speed")["held"]) == ("set", [21.0])
    ask(f"{address}/lose", "POST")
    assert (signal(run, "speed")["hand"], signal(run, "speed")["held"]) == ("lost", None)
    ask(address, "DELETE")
    assert signal(run, "speed")["hand"] is None


def test_several_signals_at_once_are_all_set_or_none_is(run):
    ask(f"{run.address}/api/signals", "PUT", {"signals": {"speed": 5, "left": True, "rpm": 100}})
    ask(f"{run.address}/api/signals", "PUT", {"signals": {"rpm": None}})
    status, answer = ask(f"{run.address}/api/signals", "PUT", {"signals": {"speed": 9, "x": 1}})
    assert (status, answer["problem"]) == (404, "the design has no signal 'x'")
    held = {each["name"]: each["held"] for each in state(run)["signals"] if each["hand"]}
    assert held == {"speed": [5.0], "left": [1.0]}


def test_level_on_scene_preset_and_cues(run):
    ask(f"{run.address}/api/level", "PUT", {"value": 0.25})
    ask(f"{run.address}/api/scene", "PUT", {"value": "parked"})
    ask(f"{run.address}/api/cues/evening%20ride", "PUT")
    until(lambda: state(run)["scene"] == "parked", "the scene")
    assert state(run)["cues"] == ["evening ride"]
    ask(f"{run.address}/api/release", "POST")
    assert (state(run)["level"], state(run)["scene_by_hand"]) == (1.0, None)
    ask(f"{run.address}/api/cues/evening%20ride", "POST")
    assert (state(run)["level"], state(run)["scene_by_hand"]) == (0.25, "parked")
    kept = json.loads((run.path.parent / "heron.cues.json").read_text(encoding="utf-8"))
    assert kept["evening ride"]["level"] == 0.25
    ask(f"{run.address}/api/cues/evening%20ride", "DELETE")
    assert state(run)["cues"] == []
    ask(f"{run.address}/api/on", "PUT", {"value": False})
    until(lambda: not any(map(any, parts(run)["tail-bar"])), "the dark")


def parts(run):
    """The newest frame, by part; there is none before the first is sent."""
    address = f"{run.address}/api/frame.json"
    until(lambda: ask(address)[0] == 200, "the first frame")
    return ask(address)[1]["parts"]


def test_a_frame_comes_as_numbers_and_as_a_picture(run):
    ask(f"{run.address}/api/signals", "PUT", {"signals": {"brake": 1, "speed": 20, "lights": True}})
    until(lambda: parts(run)["tail-bar"][3][0] > 150, "the brake light")
    assert {name: len(leds) for name, leds in parts(run).items()} == {
        "hub-left": 16, "nose-bar": 24, "hub-right": 16, "deck-left": 36, "deck-right": 36,
        "tail-bar": 30,
    }  # fmt: skip
    picture = Image.open(io.BytesIO(ask(f"{run.address}/api/frame.png")[1]))
    assert picture.size == (640, 400)
    red, green, _ = (max(c.get_flattened_data()) for c in picture.crop((0, 220, 640, 400)).split())
    assert red > 200 > green


@pytest.mark.parametrize(
    ("method", "path", "body", "status", "why"),
    [
        ("PUT", "signals/sped", {"value": 1}, 404, "Did you mean 'speed'"),
        ("PUT", "signals/parked", {"value": 1}, 422, "computed"),
        ("PUT", "signals/left", {"value": "perhaps"}, 422, "left"),
        ("PUT", "signals/speed", {"valu": 1}, 422, 'write it as in {"value": 12.5}'),
        ("PUT", "level", {"value": "half"}, 422, "from 0 to 1"),
        ("PUT", "scene", {"value": "parkd"}, 404, "Did you mean 'parked'"),
        ("PUT", "layers/rpm/preset", {"value": "indicator"}, 404, "no preset"),
        ("PUT", "cues/..x", None, 422, "a cue's name begins"),
        ("POST", "cues/none", None, 404, "there is no cue 'none'"),
        ("PUT", "bench/pattern", {"pattern": "walk"}, 404, "fendra probe DESIGN --page"),
        (
            "POST",
            "design/edit",
            {"edits": [{"do": "fly"}], "version": "x"},
            409,
            "changed meanwhile",
        ),
    ],
)
def test_what_makes_no_sense_is_answered_in_words(run, method, path, body, status, why):
    answer = ask(f"{run.address}/api/{path}", method, body)
    assert answer[0] == status
    assert why in answer[1]["problem"]


def test_what_is_no_json_or_no_such_path_is_answered(run):
    assert ask(f"{run.address}/api/level", "PUT", raw=b"0.5 of it")[0] == 422
    assert ask(f"{run.address}/api/level", "PUT", raw=b"[" * 9000)[0] == 422
    assert ask(f"{run.address}/api/lvl", "PUT", {"value": 1})[0] == 404
    assert ask(f"{run.address}/api/level", "POST", {"value": 1})[0] == 405


def test_changes_come_as_server_sent_events(run):
    with urlopen(f"{run.address}/api/events", timeout=20) as stream:
        told = iter(stream.readline, b"")

        def next_change():
            for line in told:
                if line.startswith(b"data: "):
                    return json.loads(line[6:])
            return None

        assert next_change()["by_hand"] == {}
        ask(f"{run.address}/api/signals/speed", "PUT", {"value": 7})
        until(lambda: next_change()["by_hand"] == {"speed": [7.0]}, "the change")


def test_the_description_names_every_call_and_validates_what_it_shows(run):
    told = ask(f"{run.address}/api/openapi.json")[1]
    assert told == json.loads(json.dumps(openapi()))
    named = {(m.upper(), path) for path, calls in told["paths"].items() for m in calls}
    assert named == {(c.method, c.path.replace(":path", "")) for c in CALLS} | {
        ("GET", "/api/events")
    }
    text = json.dumps(told)
    for name in re.findall(r'"#/components/schemas/(\w+)"', text):
        assert name in told["components"]["schemas"]
    for call in CALLS:
        assert (call.body is None) == (call.example is None) or call.path.startswith("/api/design")
        if call.example is not None:
            call.body.model_validate(call.example)


def test_the_design_is_edited_undone_and_redone_and_an_editors_own_change_is_taken_in(run):
    before = run.path.read_bytes()
    sheet = ask(f"{run.address}/api/design")[1]
    move = {"do": "move", "part": "tail-bar", "by": [0, -7.5, 0]}
    edit = {"edits": [move], "version": sheet["version"]}
    sheet = ask(f"{run.address}/api/design/edit", "POST", edit)[1]
    after = run.path.read_bytes()
    assert after == before.replace(b"[-240, -620, 520]", b"[-240, -627.5, 520]").replace(
        b"[240, -620, 520]", b"[240, -627.5, 520]"
    )
    assert (sheet["can_undo"], sheet["can_redo"]) == (True, False)
    assert ask(f"{run.address}/api/design/edit", "POST", edit)[0] == 409  # of the old text
    assert ask(f"{run.address}/api/design/undo", "POST")[1]["can_redo"]
    assert run.path.read_bytes() == before
    ask(f"{run.address}/api/design/redo", "POST")
    assert run.path.read_bytes() == after
    run.path.write_bytes(after + b"# by an editor\n")
    assert not ask(f"{run.address}/api/design")[1]["can_undo"]
    assert ask(f"{run.address}/api/design/undo", "POST")[0] == 422
    assert run.path.read_bytes().endswith(b"# by an editor\n")


def test_an_edit_that_would_make_the_design_wrong_is_not_made(run):
    before = run.path.read_bytes()
    sheet = ask(f"{run.address}/api/design")[1]
    for edit, why in (
        ({"do": "group", "name": "x", "of": "tail-baa[0-2]"}, "wrong"),
        ({"do": "set", "path": ["line", 0, "part", 0], "key": "count", "value": -3}, "wrong"),
        ({"do": "set", "path": ["line", 9], "key": "name", "value": "x"}, "no such table"),
        ({"do": "move", "part": "tail", "by": [1, 0, 0]}, "no part 'tail'"),
        ({"do": "move", "part": "tail-bar", "by": [1, 0]}, "3 numbers"),
        ({"do": "led", "part": "tail-bar", "index": 0, "by": [1, 0, 0]}, "shape 'points'"),
    ):
        body = {"edits": [edit], "version": sheet["version"]}
        answer = ask(f"{run.address}/api/design/edit", "POST", body)
        assert answer[0] in (404, 422), edit
        assert why in answer[1]["problem"], edit
    assert run.path.read_bytes() == before


def test_a_layer_a_group_and_a_trail_are_made_of_chosen_leds(run):
    sheet = ask(f"{run.address}/api/design")[1]
    edits = [
        {"do": "group", "name": "ends", "of": ["tail-bar[0-2]", "tail-bar[27-29]"]},
        {"do": "trail", "name": "over", "of": {"of": "nose-bar", "by": "-x"}},
        {
            "do": "layer",
            "values": {"name": "mark", "on": "ends", "effect": "solid", "colour": "#00ff00"},
        },
    ]
    sheet = ask(
        f"{run.address}/api/design/edit", "POST", {"edits": edits, "version": sheet["version"]}
    )[1]
    assert {"ends", "over"} <= {*sheet["groups"]}
    assert sheet["layers"][-1]["colours"] == {"colour": "#00ff00"}
    assert not [each for each in sheet["findings"] if each["severity"] == "error"]


# ---- The bench


def test_the_bench_shows_a_pattern_hears_what_was_seen_and_writes_the_cure(serve, design_file):
    bench = serve(OnBench, design_file)
    before = design_file.read_text(encoding="utf-8")
    ask(f"{bench.address}/api/bench/pattern", "PUT", {"pattern": "colours", "line": "tail"})
    asked = ask(f"{bench.address}/api/state")[1]["bench"]
    assert [each["text"][-18:] for each in asked["asks"]] == [
        "when red was sent?", "en green was sent?", "hen blue was sent?",
    ]  # fmt: skip
    until(lambda: parts(bench)["tail-bar"][0][0] > 0, "red on the tail")
    assert parts(bench)["nose-bar"][0] == [0, 0, 0]
    told = ask(f"{bench.address}/api/bench/saw", "POST", {"text": "green red blue"})[1]
    assert told["ways"] == [['heron.toml:95: write order = "RGB"']]
    assert ask(f"{bench.address}/api/bench/apply", "POST", {"way": 0}) == (200, {"done": True})
    assert design_file.read_text(encoding="utf-8") == before.replace(
        'pin = "GP4"\nled = "ws2812b"\nsupply = "deck"\nlevel_shifter = true      # from the controller\'s 3.3 V to 5 V\n',
        'pin = "GP4"\nled = "ws2812b"\nsupply = "deck"\nlevel_shifter = true      # from the controller\'s 3.3 V to 5 V\norder = "RGB"\n',
    )
    assert "written into heron.toml" in ask(f"{bench.address}/api/state")[1]["bench"]["verdict"]
    assert ask(f"{bench.address}/api/bench/apply", "POST", {"way": 0})[0] == 404


def test_the_bench_refuses_names_and_answers_that_there_are_not(serve, design_file):
    bench = serve(OnBench, design_file)
    show = f"{bench.address}/api/bench/pattern"
    assert ask(show, "PUT", {"pattern": "wlak"})[1]["problem"].endswith("Did you mean 'walk'?")
    assert ask(show, "PUT", {"pattern": "walk", "line": "tale"})[0] == 404
    assert ask(f"{bench.address}/api/bench/saw", "POST", {"text": "tale=red"})[0] == 404
    assert ask(f"{bench.address}/api/level", "PUT", {"value": 1})[0] == 404


# ---- What the docs show


def curls(page):
    """The calls that a page of the docs shows: method, path and what is sent along."""
    for line in (DOCS / page).read_text(encoding="utf-8").splitlines():
        if line.startswith("curl ") and "127.0.0.1:8480" in line and "-N" not in line:
            words = shlex.split(line)
            method = words[words.index("-X") + 1] if "-X" in words else "GET"
            (address,) = (word for word in words if word.startswith("http"))
            body = json.loads(words[words.index("-d") + 1]) if "-d" in words else None
            yield method, address.partition(":8480")[2], body


def test_every_call_that_the_docs_show_does_what_they_say(run):
    """But for the version of a text, which nobody can know before, and the bench, which is elsewhere."""
    shown = [*curls("live-page.md"), *curls("http.md")]
    assert len(shown) > 20
    cues = ("PUT", "/api/cues/evening", None)
    for method, path, body in [cues, *shown]:
        if "/bench/" in path or "/design/" in path:
            continue
        if (method, path) == ("POST", "/api/cues/evening"):
            ask(f"{run.address}/api/cues/evening", "PUT")
        status, answer = ask(f"{run.address}{path}", method, body)
        assert status == 200, (path, answer)


def test_a_run_from_python_has_its_page_while_it_runs(design_file):
    session = fd.load(design_file).live(sources=[], outputs=["null:"], page=str(free_port()))
    (address,) = session.addresses
    thread = Thread(target=session.run)
    thread.start()
    try:
        until(lambda: ask(f"{address}api/state")[0] == 200, "the page")
        session.inbox.put("me", "speed", 12)
        ask(f"{address}api/level", "PUT", {"value": 0.5})
        assert ask(f"{address}api/state")[1]["level"] == 0.5
        assert ask(f"{address}api/design")[0] == 404  # nobody would take up what changes in it
    finally:
        session.loop.stop()
        thread.join()
    with pytest.raises(OSError, match="refused"):
        ask(f"{address}api/state")
