"""`effects`, `explain`, `compare`, `presets`, and what `film` shows of made-up values."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tomllib

import pytest
from PIL import Image

import fendra as fd
from fendra.cli.effect_examples import example_design, example_text
from fendra.core.effects import EFFECTS
from helpers import OWN_EFFECT, tape
from targets import film_of

HERON = fd.demo_file("heron.toml")

SMALL = """
[[line]]
name = "a"
part = [{ name = "bar", shape = "strip", start = [0, 0], end = [90, 0], count = 10 }]

[signals.s]
range = [0, 1]

[signals.on]
kind = "switch"

[signals.mode]
kind = "choice"
choices = ["calm", "wild"]

[[scene]]
name = "calm"
when = "mode == 'calm'"
fade = 0.5

[[scene]]
name = "wild"

[[layer]]
name = "glow"              # kept
on = "bar"
effect = "blink"
rate = 2                  # twice
colour = "mix('black', 'red', s)"

[[layer]]
name = "over"
on = "bar"
effect = "solid"
scene = "wild"
colour = "blue"
when = "on"
cover = 0.5
"""


@pytest.fixture
def small(tmp_path):
    path = tmp_path / "small.toml"
    path.write_text(SMALL)
    return path


def test_effects_lists_all_of_them_and_shows_one_in_full(fendra):
    code, out, _ = fendra("effects")
    assert code == 0
    assert all(f"\n{name} " in out for name in EFFECTS)
    _, out, _ = fendra("effects", "fill")
    assert "24 LEDs at 80 ms\na step are full after 1.92 s" in out
    assert "step       0.08     s     0.001 to 10    from one LED to the next" in out
    code, _, err = fendra("effects", "fil")
    assert (code, "Did you mean 'fill'?" in err) == (2, True)
    _, out, _ = fendra("effects", "--full")
    assert all(f'effect = "{name}"' in out for name in EFFECTS)


@pytest.mark.parametrize("name", EFFECTS)
def test_the_example_of_every_effect_can_be_pasted_and_lights_something(name):
    line = 'line = [{ name = "a", part = [{ name = "strip", shape = "strip", start = [0, 0], '
    text = f"{line}end = [90, 0], count = 10 }} ] }} ]\n{example_text(name)}\n"
    made = fd.Design.from_values(tomllib.loads(text), folder=fd.demo_file("heart.png").parent)
    assert [f for f in made.check() if f.severity == "error"] == []
    film = example_design(name).compile("numpy").film(fd.Tape(*_beat()))
    assert film.rgb.any()


def _beat():
    import numpy as np

    times = np.arange(60) / 20
    rising = times / 3
    return times, {
        "beat": (times % 1 < 0.2) * 1.0,
        "level": rising,
        "bass": rising,
        "keys[0]": rising,
    }


def test_film_of_made_up_values_with_all_that_goes_with_it(fendra, small, tmp_path):
    words = ["--sweep", "s=0:1:1s", "--steps", "mode=calm,wild:1s", "--toggle", "on=0.5s"]
    code, out, err = fendra("film", small, *words, "--seconds", 0.3, "--timeline", "--scenes",
                            "--animation", "apng", "--diffuser", 10, "--for", 4)  # fmt: skip
    assert (code, err) == (0, "")
    assert [line.split(":")[0] for line in out.splitlines()] == [
        "film strip", "still at 2 s", "animation", "timeline", "scenes"
    ]  # fmt: skip
    for name in ("strip.png", "still.png", "timeline.png", "scenes.png"):
        with Image.open(tmp_path / f"small-{name}") as made:
            assert made.size[0] >= 1280
    with Image.open(tmp_path / "small.apng") as made:
        assert made.n_frames == 6


def test_film_says_what_it_needs_and_what_is_wrong(fendra, small):
    code, _, err = fendra("film", small)
    assert (code, "--sweep" in err) == (2, True)
    for words, says in (
        (["--set", "sped=3"], "the design has no signal 'sped'"),
        (["--set", "mode=cal"], "Its words are calm, wild"),
        (["--sweep", "s=0:1"], "write a sweep as in rpm=0:8000:6s"),
        (["--toggle", "on=soon"], "'soon' is not a time"),
        (["--steps", "s=1,2"], "write steps as in gear=1,2,3:2s"),
        (["--set", "s"], "has no ="),
    ):
        code, _, err = fendra("film", small, *words)
        assert code == 2
        assert says in err


def test_mp4_needs_ffmpeg_and_says_so_before_the_work(fendra, small, monkeypatch, tmp_path):
    made = fendra("film", small, "--set", "s=1", "--animation", "mp4", "--seconds", 0.2)
    if shutil.which("ffmpeg"):
        assert made[0] == 0
        assert (tmp_path / "small.mp4").read_bytes()[4:8] == b"ftyp"
    monkeypatch.setenv("PATH", str(tmp_path))
    code, _, err = fendra("film", small, "--set", "s=1", "--animation", "mp4")
    assert (code, "Install it (Debian: apt-get install ffmpeg)" in err) == (2, True)


def test_explain_goes_from_the_layers_to_the_bytes(fendra, small):
    """Red at a half beneath, blue at half cover over it: 0.25 and 0.5 of linear light."""
    words = ["--set", "s=0.5", "--set", "on=1", "--set", "mode=wild", "--for", 2]
    code, out, _ = fendra("explain", small, *words, "--at", 1.0, "--spot", "bar:4")
    assert code == 0
    lines = out.splitlines()
    assert lines[0] == "bar:4 at 1 s (line a, address 4)"
    assert lines[1] == "scene wild: 100% there, otherwise"
    assert lines[2] == " 1. glow (blink): on, always"
    assert lines[3] == "    reads s = 0.5"
    assert "paints #bc0000 at level 1.00, covers 100%, over: #000000 becomes #bc0000" in lines[5]
    assert lines[6] == " 2. over (solid): on, when on, in scene wild"
    assert "covers 50%, over: #bc0000 becomes #8900bc" in lines[9]
    assert lines[-1] == "bytes: red 64, green 0, blue 128; sent as GRB: 00 40 80"
    _, out, _ = fendra("explain", small, *words, "--set", "on=0", "--at", 1.3, "--spot", "bar:4")
    assert "2. over (solid): off, when on, in scene wild\n    reads on = off" in out
    assert out.splitlines()[-1] == "bytes: red 0, green 0, blue 0; sent as GRB: 00 00 00"
    code, _, err = fendra("explain", small, *words, "--at", 1, "--spot", "bar:12")
    assert (code, "bar:0 to bar:9" in err) == (2, True)


@pytest.mark.parametrize("spot", ["tail-bar:4", "deck-left:20", "nose-bar:3", "hub-right:9"])
def test_what_explain_says_is_what_the_film_shows(spot):
    _, film = film_of("heron")
    part, _, place = spot.partition(":")
    for at in (2.0, 7.6, 24.0, 33.1, 47.66, 47.9, 48.3):
        why = film.explain(spot, at)
        shown = film.frame(at).part(part)[int(place)].tolist()
        assert list(why.rgb) == shown
        assert why.let_through == 1
        assert [int(value * why.master * 255 + 0.5) for value in why.light] == shown


def test_explain_tells_the_layers_of_each_scene_that_is_there_in_a_fade(fendra, small):
    """A tenth of the way from calm to wild: blue is there for wild alone."""
    words = ["--steps", "mode=calm,wild:1s", "--set", "on=1", "--set", "s=1", "--for", 3]
    made = SMALL.replace('name = "wild"\n', 'name = "wild"\nfade = 0.5\n')
    small.write_text(
        made.replace('effect = "blink"\nrate = 2                  # twice', "effect = 'solid'")
    )
    _, out, _ = fendra("explain", small, *words, "--at", 1.04, "--spot", "bar:0")
    assert "scene calm: 88% there, when mode == 'calm'\nscene wild: 12% there, otherwise" in out
    assert "2. over (solid, for scene wild): on, when on, in scene wild" in out
    assert "bytes: red 240, green 0, blue 15" in out  # 0.06 of the blue, 0.94 of the red


def test_compare_marks_what_differs(fendra, small, tmp_path):
    words = ["--set", "s=1", "--for", 2]
    code, out, _ = fendra("compare", small, "--vary", "glow.rate=2,2,1", *words)
    assert code == 0
    assert "bar" in out
    assert "255" in out
    with Image.open(tmp_path / "small-compare.png") as made:
        assert made.size[0] == 1280
    other = tmp_path / "other.toml"
    other.write_text(SMALL.replace("rate = 2  ", "rate = 2.0"))
    assert "no LED differs" in fendra("compare", small, other, *words)[1]
    for wrong in (["--vary", "glow=2"], ["--vary", "gleam.rate=1"], []):
        assert fendra("compare", small, *wrong, *words)[0] == 2
    code, _, err = fendra("compare", small, "--vary", "glow.rade=1,2", *words)
    assert (code, "Did you mean 'rate'?" in err) == (1, True)


def test_a_page_is_written_of_one_look_or_of_two(fendra, small, tmp_path):
    """Beside the design unless it is told where; of two values, and of neither one nor three."""
    code, out, _ = fendra("page", small, "--sweep", "s=0:1:1s")
    assert (code, "page: small.html (0.6" in out) == (0, True)
    one = (tmp_path / "small.html").read_text(encoding="utf-8")
    two = tmp_path / "two.html"
    code, _, _ = fendra("page", small, "--vary", "glow.rate=2,5", "--set", "s=1", "--out", two)
    assert code == 0
    labels = [
        text.read_text(encoding="utf-8").count('"label":')
        for text in (tmp_path / "small.html", two)
    ]
    assert (labels, len(one) < two.stat().st_size) == ([1, 2], True)
    for wrong in (["--vary", "glow.rate=2"], ["--vary", "glow.rate=1,2,3"],
                  [small, "--vary", "glow.rate=1,2"]):  # fmt: skip
        assert fendra("page", small, *wrong, "--set", "s=1")[0] == 2
    code, _, err = fendra("page", small, "--tape", tmp_path / "none.csv", "--out", two)
    assert (code, "there is no file" in err) == (2, True)


def test_presets_go_into_the_library_and_from_there_into_a_design(
    fendra, small, tmp_path, monkeypatch
):
    monkeypatch.setenv("FENDRA_PRESETS", str(tmp_path / "mine" / "presets.toml"))
    assert "no presets yet" in fendra("presets")[1]
    assert fendra("presets", "save", small, "glow", "--as", "slow red")[0] == 0
    assert "slow red  blink   rate = 2" in fendra("presets", "list")[1]
    assert fendra("presets", "take", small, "slow red", "--as", "slow")[0] == 0
    text = small.read_text()
    assert text.startswith(SMALL.rstrip())
    assert tomllib.loads(text)["presets"]["slow"] == {
        "effect": "blink", "rate": 2, "colour": "mix('black', 'red', s)"
    }  # fmt: skip
    assert fendra("presets", "take", small, "slow red", "--as", "slow")[0] == 2
    code, out, _ = fendra("presets", "reset", small, "glow")
    assert (code, "before, it set: rate, colour" in out) == (0, True)
    assert 'name = "glow"              # kept' in small.read_text()
    assert [*tomllib.loads(small.read_text())["layer"][0]] == ["name", "on", "effect"]
    assert fendra("presets", "drop", "slow red")[0] == 0
    code, _, err = fendra("presets", "drop", "slow red")
    assert (code, "no preset 'slow red'" in err) == (2, True)
    assert fendra("presets", "save", small)[0] == 2


def test_a_package_whose_effects_cannot_be_loaded_is_a_finding(monkeypatch):
    from importlib.metadata import EntryPoint

    from fendra.core import registry
    from fendra.core.registry import Registry

    broken = EntryPoint("broken", "no_such_package:effects", "fendra.effects")
    monkeypatch.setattr(registry, "entry_points", lambda **_: [broken])
    again = Registry("fendra.core.electric", "fendra.effects", "an effect")
    assert len(again) == 0
    assert "No module named 'no_such_package'" in again.failures["broken"]
    monkeypatch.setattr(EFFECTS, "failures", again.failures)
    found = fd.load(HERON).check()
    assert [finding.code for finding in found] == ["effect"]


def test_a_package_brings_effects_by_its_entry_point(tmp_path):
    """In a process of its own, as if the package were installed: one that works, one that fails."""
    (tmp_path / "blinkers.py").write_text(OWN_EFFECT)
    about = tmp_path / "blinkers-1.0.dist-info"
    about.mkdir()
    (about / "METADATA").write_text("Metadata-Version: 2.1\nName: blinkers\nVersion: 1.0\n")
    (about / "entry_points.txt").write_text(
        "[fendra.effects]\nstripes = blinkers\nothers = blinkers_that_are_not_there\n"
    )
    (tmp_path / "d.toml").write_text(SMALL.replace('effect = "solid"', 'effect = "stripes"'))
    done = subprocess.run(
        [sys.executable, "-m", "fendra", "check", "d.toml"], cwd=tmp_path, text=True,
        env={**os.environ, "PYTHONPATH": str(tmp_path)}, capture_output=True, check=False,
    )  # fmt: skip
    assert (done.returncode, done.stderr) == (0, "")
    assert "unknown-effect" not in done.stdout
    assert "there is no effect" not in done.stdout
    assert "blinkers: ModuleNotFoundError" in done.stdout
    assert "entry point 'others' cannot be loaded" in done.stdout


def test_things_show_themselves_in_a_notebook(small):
    made = fd.load(small)
    film = made.compile().film(tape(s=[0, 0.5, 1]))
    for thing in (made, film):
        assert thing._repr_png_().startswith(b"\x89PNG")
    assert "| bar |" in made.layout()._repr_markdown_()
    assert "<code>duty</code>" in EFFECTS["blink"]._repr_html_()


def test_a_tape_may_hold_the_words_of_a_choice(fendra, small, tmp_path):
    (tmp_path / "words.csv").write_text("time,mode,s\n0,calm,1\n1,wild,1\n3,wild,1\n")
    code, out, _ = fendra("explain", small, "--tape", "words.csv", "--at", 2, "--spot", "bar:0")
    assert (code, "scene wild: 100% there" in out) == (0, True)
    assert fendra("check", small, "--tape", "words.csv")[0] == 0
