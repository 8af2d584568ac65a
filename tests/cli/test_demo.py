"""`fendra demo`, in a process of its own, as a newcomer runs it."""

from __future__ import annotations

import re
import subprocess
import sys

import numpy as np
import pytest
from PIL import Image

import fendra as fd
from fendra.demo import ABOUT, FILES


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    folder = tmp_path_factory.mktemp("demo")
    done = subprocess.run(
        [sys.executable, "-m", "fendra", "demo"],
        cwd=folder,
        capture_output=True,
        text=True,
        check=False,
    )
    return folder / "fendra-demo", done


def test_it_ends_well_and_says_what_it_did(demo):
    _, done = demo
    assert (done.returncode, done.stderr) == (0, "")
    for part in (
        "158 LEDs, 3 lines",
        "90 s, 20 rows a second",
        "0 errors",
        "4501 frames",
        "fendra check",
    ):
        assert part in done.stdout


def test_the_controller_shows_what_was_sent(demo):
    _, done = demo
    sent = int(re.search(r"(\d+) frames sent", done.stdout)[1])
    shown = re.search(
        r"controller:\s+(\d+) frames shown, (\d+) lost, (\d+) incomplete, (\d+) damaged",
        done.stdout,
    )
    assert [int(number) for number in shown.groups()] == [sent, 0, 0, 0]
    assert sent > 0  # how many depends on how busy this computer is
    assert "its last frame: the same bytes as the program's" in done.stdout


def test_every_file_is_there_and_is_what_it_is_called(demo):
    folder, _ = demo
    assert {path.name for path in folder.iterdir()} == {*ABOUT} | {
        "heron-map.png", "heron-sheet.html", "heron-still.png", "heron-strip.png", "heron.gif", "heron.html",
    }  # fmt: skip
    for name in ("map", "strip", "still"):
        with Image.open(folder / f"heron-{name}.png") as picture:
            assert picture.width == 1280
    with Image.open(folder / "heron.gif") as animation:
        assert animation.n_frames == 66


def test_the_still_shows_light_where_the_leds_are(demo):
    """Dark at the lower left corner; bright at the tail bar, red, while it brakes."""
    folder, _ = demo
    with Image.open(folder / "heron-still.png") as picture:
        pixels = np.asarray(picture.convert("RGB")).astype(int)
    assert pixels[-40:, :200].max() < 40
    red = (pixels[:, :, 0] > 180) & (pixels[:, :, 1] < 80)
    assert red.sum() > 100


def test_the_files_alone_are_all_that_ship_and_an_edited_one_stays(fendra, tmp_path):
    folder = tmp_path / "fendra-demo"
    folder.mkdir()
    (folder / "heron.toml").write_text("mine")
    code, out, _ = fendra("demo", "--files")
    assert code == 0
    assert (
        {path.name for path in folder.iterdir()}
        == {path.name for path in FILES.iterdir()}
        == {*ABOUT}
    )
    assert (folder / "heron.toml").read_text() == "mine"
    assert (folder / "stripes.py").read_bytes() == fd.demo_file("stripes.py").read_bytes()
    assert out.splitlines()[0].endswith("(exists, left as it is)")
    assert out.splitlines()[-1] == "23 files in fendra-demo/. Go there: cd fendra-demo"


def test_a_controller_that_says_nothing_is_an_error_in_words():
    from fendra.cli.demo import heard

    with pytest.raises(fd.OutputError, match="ended early"):
        heard("")


def test_the_tape_comes_from_the_model(tmp_path):
    """scripts/make_ride.py writes the shipped tape, to the byte, and make_tapes.py the others."""
    import runpy
    from pathlib import Path

    script = Path(__file__).parents[2] / "scripts" / "make_ride.py"
    made = runpy.run_path(str(script))
    written = tmp_path / "ride.csv"
    made["write"](written)
    assert written.read_bytes() == fd.demo_file("ride.csv").read_bytes()
    others = runpy.run_path(str(script.with_name("make_tapes.py")))
    others["main"](tmp_path)
    for name in others["COURSES"]:
        assert (tmp_path / name).read_bytes() == fd.demo_file(name).read_bytes()
