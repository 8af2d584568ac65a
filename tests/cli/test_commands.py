"""The commands, through the program's own entry, on the demo's files and on bad ones."""

from __future__ import annotations

import contextlib
import json
import os
import subprocess
import sys
import threading
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

import fendra as fd
from fendra.demo.controller import Receiver
from fendra.system.ends import far_end
from helpers import keep_in

HERON, RIDE = fd.demo_file("heron.toml"), fd.demo_file("ride.csv")


@pytest.fixture
def short_ride(tmp_path):
    """The first second of the ride, and the five seconds round the first turn."""
    lines = RIDE.read_text().splitlines()
    path = tmp_path / "short.csv"
    path.write_text("\n".join([lines[0], *lines[401:421]]) + "\n")
    return path


@pytest.mark.parametrize(
    "command",
    [
        "demo", "new", "schema", "check", "sheet", "map", "layout", "import", "probe", "effects",
        "presets", "film", "page", "compare", "explain", "run", "listen", "simulate", "emit", "trust",
    ],
)  # fmt: skip
def test_every_command_has_help_with_an_example(fendra, command):
    code, out, _ = fendra(command, "--help")
    assert code == 0
    assert f"Example: fendra {command} " in " ".join(out.split())


def test_the_program_says_its_version_and_its_commands(fendra):
    assert fendra("--version")[1] == f"fendra {fd.__version__}\n"
    out = fendra("--help")[1]
    assert "Begin with: fendra demo" in out
    assert all(f"\n  {command} " in out for command in ("check", "map", "film", "run", "demo"))


def test_check_of_a_sound_design(fendra):
    code, out, err = fendra("check", HERON)
    assert (code, err) == (0, "")
    assert "Heron (Electric cargo trike): 158 LEDs, 3 lines, 11 signals, 3 scenes, 15 layers" in out
    assert out.endswith("0 errors, 0 warnings, 0 notes\n")


def test_check_of_a_wrong_design_in_words_and_json(fendra, tmp_path):
    path = tmp_path / "wrong.toml"
    path.write_text(HERON.read_text().replace('effect = "cloud"', 'effect = "clod"'))
    code, out, _ = fendra("check", path)
    assert code == 1
    assert "there is no effect 'clod'. Did you mean 'cloud'?" in out
    code, out, _ = fendra("check", path, "--json")
    said = json.loads(out)
    (finding,) = said["findings"]
    assert (code, said["ok"], said["design"]) == (1, False, "Heron")
    line = path.read_text().splitlines().index('effect = "clod"') + 1
    assert (finding["line"], finding["code"], finding["severity"]) == (
        line,
        "unknown-effect",
        "error",
    )
    assert finding["path"] == ["layer", 11, "effect"]
    assert fendra("check", HERON, "--json")[0] == 0


@pytest.mark.parametrize(
    ("words", "code", "says"),
    [
        (["check", "none.toml"], 2, "there is no file 'none.toml'"),
        (["check", RIDE], 1, "ride.csv:1: error: this is a tape, not a design."),
        (["check"], 2, "Missing argument"),
        (["chek", HERON], 2, "No such command"),
        (["film", HERON, "--tape", "none.csv"], 2, "there is no file 'none.csv'"),
        (["film", HERON, "--tape", HERON], 2, "heron.toml: this is a design, not a tape. It needs"),
        (["film", HERON, "--tape", RIDE, "--at", "200"], 2, "--at 200 is not on the tape, which goes from 0 to 90 s"),
        (["map", HERON, "--out", "map.xyz"], 2, "map.xyz"),
        (["run", HERON, "--tape", RIDE, "--to", "seril:/dev/x"], 2, "Did you mean 'serial'?"),
        (["run", HERON, "--tape", RIDE, "--to", "serial:/dev/ttyNone7"], 1, "there is no port /dev/ttyNone7"),
    ],
)  # fmt: skip
def test_bad_usage_and_bad_input_end_in_words_and_never_in_a_traceback(fendra, words, code, says):
    got, out, err = fendra(*words)
    assert got == code
    assert says in " ".join((out + err).split())
    assert "Traceback" not in out + err


def test_a_tape_with_none_of_the_signals_is_refused(fendra, tmp_path):
    (tmp_path / "other.csv").write_text("time,heat\n0,1\n")
    code, _, err = fendra("film", HERON, "--tape", "other.csv")
    assert code == 2
    assert "It has heat; the design has speed, rpm" in err


def test_what_tape_and_design_do_not_share_is_said(fendra, tmp_path):
    (tmp_path / "other.csv").write_text("time,heat,speed,brake\n0,1,2,0\n0.1,1,2,0\n")
    code, out, _ = fendra("film", HERON, "--tape", "other.csv", "--seconds", "0.1")
    assert code == 0
    assert (
        "not on the tape, so they have their fallback: rpm, throttle, left, right, battery, lean, lights"
        in out
    )
    assert "on the tape, but not signals of the design: heat" in out


def test_map_writes_a_picture(fendra, tmp_path):
    code, out, _ = fendra("map", HERON)
    assert (code, out) == (0, "map: heron-map.png\n")
    with Image.open(tmp_path / "heron-map.png") as picture:
        assert picture.size == (1280, 800)
    assert fendra("map", HERON, "--out", "m.svg")[0] == 0
    assert "<svg" in (tmp_path / "m.svg").read_text()


def test_film_writes_strip_still_and_animation(fendra, tmp_path, short_ride):
    code, out, err = fendra(
        "film", HERON, "--tape", short_ride, "--into", "out", "--at", "20.8", "--seconds", "0.5"
    )
    assert (code, err) == (0, "")
    assert [line.split(": ")[1] for line in out.splitlines()] == [
        str(Path("out", f"heron{end}")) for end in ("-strip.png", "-still.png", ".gif")
    ]
    with Image.open(tmp_path / "out" / "heron.gif") as animation:
        assert (animation.n_frames, animation.info["duration"]) == (10, 50)


def test_a_failed_film_leaves_what_was_there(fendra, tmp_path, short_ride):
    (tmp_path / "heron-strip.png").write_text("old")
    (tmp_path / "broken.toml").write_text(HERON.read_text().replace('"cloud"', '"clod"'))
    (tmp_path / "heron.toml").write_text((tmp_path / "broken.toml").read_text())
    code, _, err = fendra("film", "heron.toml", "--tape", short_ride)
    assert code == 1
    assert "no effect 'clod'" in err
    assert (tmp_path / "heron-strip.png").read_text() == "old"


@pytest.mark.parametrize("command", ["film", "run"])
def test_an_engine_that_cannot_be_made_is_one_note_and_the_rest_goes_on(
    fendra, short_ride, monkeypatch, command
):
    monkeypatch.setenv("CC", "no-such-compiler")
    end = far_end()
    words = [command, HERON, "--tape", short_ride, "--engine", "native"]
    words += ["--seconds", "0.1"] if command == "film" else ["--to", f"serial:{end.address}"]
    threading.Thread(target=drain, args=(end,), daemon=True).start()
    code, out, err = fendra(*words)
    end.close()
    assert (code, err) == (0, "")
    assert (
        out.count("note: no C compiler: 'no-such-compiler', which CC names, does not exist.") == 1
    )
    assert "animation: " in out or "frames sent" in out


def drain(end):
    """Read a port until nobody writes to it any more."""
    with contextlib.suppress(OSError, ValueError):
        while end.take(1.0) is not None:
            pass


def test_an_unknown_engine_is_refused_with_those_there_are(fendra, short_ride):
    code, _, err = fendra("film", HERON, "--tape", short_ride, "--engine", "natve")
    assert code == 2
    assert "'natve' is not one of 'auto', 'numpy', 'native'" in err


@pytest.mark.parametrize("engine", ["numpy", "native", "wasm"])
def test_run_sends_a_tape_to_a_controller(fendra, short_ride, monkeypatch, tmp_path, engine):
    keep_in(monkeypatch, "cache", tmp_path / "cache")
    end = far_end()
    receiver = Receiver([168, 216, 90])

    def listen():
        while (data := end.take(1.0)) is not None:
            receiver.feed(data)

    listener = threading.Thread(target=listen, daemon=True)
    listener.start()
    stays = tmp_path / "heron.toml"
    stays.write_text(HERON.read_text().replace("level = 0.9", 'leaving = "keep"\nlevel = 0.9', 1))
    code, out, _ = fendra(
        "run", stays, "--tape", short_ride, "--engine", engine,
        "--to", f"serial:{end.address},baud=115200",
    )  # fmt: skip
    listener.join(5)
    end.close()
    assert code == 0
    assert "can carry 23 frames a second; the design makes 50" in out
    assert f"{receiver.frames} frames sent" in out
    assert receiver.damaged == receiver.lost == 0
    film = fd.load(HERON).compile().film(fd.read_tape(short_ride))
    # Frames that this computer left out, being late, make a lag differ by a step of 255 or two; the
    # LED at the end of a gauge that follows it may be lit further. It may have been late at the end.
    assert any(
        all(
            (np.abs(np.subtract([*shown], [*made])).reshape(-1, 3).max(axis=1) > 3).sum() <= 2
            for shown, made in zip(receiver.shown, film.frame(at_s).line_bytes(), strict=True)
        )
        for at_s in 20.95 - np.arange(25) / 50
    )


def test_a_terminal_without_umlauts_shows_their_codes_and_json_is_utf_8(tmp_path):
    text = HERON.read_text(encoding="utf-8").replace("Heron", "K\u00e4fer")
    (tmp_path / "d.toml").write_text(text, encoding="utf-8")
    said = {}
    for option in ([], ["--json"]):
        said[len(option)] = subprocess.run(
            [sys.executable, "-m", "fendra", "check", "d.toml", *option], cwd=tmp_path,
            capture_output=True, check=True, env={**os.environ, "PYTHONIOENCODING": "ascii"},
        ).stdout  # fmt: skip
    assert b"K\\xe4fer" in said[0]
    assert json.loads(said[1])["design"] == "K\u00e4fer"


def test_output_into_a_pipe_is_plain(tmp_path, short_ride):
    """No colour, no bar, no carriage return when nobody looks."""
    done = subprocess.run(
        [sys.executable, "-m", "fendra", "film", str(HERON), "--tape", str(short_ride), "--seconds",
         "0.1"], cwd=tmp_path, capture_output=True, check=True,
    )  # fmt: skip
    assert done.stderr == b""
    lines = done.stdout.split(os.linesep.encode())
    assert not {b"\x1b", b"\r"} & {bytes([byte]) for line in lines for byte in line}
    assert len(lines) == 4


def test_check_says_the_budgets_and_with_a_tape_what_it_draws(fendra):
    code, out, _ = fendra("check", HERON, "--tape", RIDE)
    assert code == 0
    for words in ("7.41 A", "2.86 A at 32 s", "4.36 V at LED 71", "270,336 bytes", "141 h"):
        assert words in out
    assert "peak" not in fendra("check", HERON)[1]
    said = json.loads(fendra("check", HERON, "--tape", RIDE, "--json")[1])["budget"]
    (supply,) = said["supplies"]
    assert supply["tape"]["peak_a"] == pytest.approx(2.859, abs=1e-3)
    assert supply["tape"]["layers"][-1] == "battery warning"
    assert (supply["fuse_a"], supply["budget_a"]) == (7.5, pytest.approx(4.8))
    assert [line["rate_hz"] > 400 for line in said["lines"]] == [True] * 3
    assert fendra("check", HERON, "--tape", HERON.with_name("none.csv"))[0] == 2


def test_the_limiter_is_told_of_where_it_acts(fendra, tmp_path, short_ride):
    path = tmp_path / "tight.toml"
    path.write_text(HERON.read_text(encoding="utf-8").replace("amps = 6 }", "amps = 1.5 }"))
    words = "limiter of 'deck': held back"
    film = ["--into", tmp_path, "--seconds", "0.1"]
    assert words in fendra("check", path, "--tape", short_ride)[1]
    assert words in fendra("film", path, "--tape", short_ride, *film)[1]


def test_sheet_writes_one_page(fendra, tmp_path):
    out = tmp_path / "a" / "sheet.html"
    code, said, _ = fendra("sheet", HERON, "--out", out)
    assert (code, said) == (0, f"sheet: {out}\n")
    assert "Bench test" in out.read_text(encoding="utf-8")
    wrong = tmp_path / "wrong.toml"
    wrong.write_text(HERON.read_text(encoding="utf-8").replace("volts = 5\n", "volts = 12\n"))
    code, _, error = fendra("sheet", wrong, "--out", tmp_path / "none.html")
    assert code == 1
    assert "wrong.toml:" in error
    assert "12 V" in error
    assert not (tmp_path / "none.html").exists()
