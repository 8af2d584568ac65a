"""A disk that is full, or that nobody may write to: one line, no half of a file, the old one stays."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest

import fendra as fd
from fendra.live.connect import connect
from fendra.live.session import Session
from fendra.outputs import make_output
from helpers import design, free_port, layer, until

pytestmark = pytest.mark.unix
DESIGN = fd.demo_file("drone.toml")
OLD = "old and dear"


@pytest.fixture
def small_disk(tmp_path):
    """A disk of 256 KB; gives its folder."""
    folder = tmp_path / "small"
    folder.mkdir()
    made = subprocess.run(
        ["mount", "-t", "tmpfs", "-o", "size=256k", "none", str(folder)], capture_output=True,
        text=True, check=False,
    )  # fmt: skip
    if made.returncode:
        pytest.skip(f"no disk can be made here that is full: {made.stderr.strip()}")
    yield folder
    subprocess.run(["umount", "-l", str(folder)], check=True)


def fill(folder: Path) -> None:
    with (folder / "filling").open("wb", buffering=0) as file:
        try:
            while file.write(b"x" * 4096):
                pass
        except OSError:
            pass


WRITERS = {
    "map": ["map", DESIGN, "--out", "{to}.png"],
    "sheet": ["sheet", DESIGN, "--out", "{to}.html"],
    "page": ["page", DESIGN, "--out", "{to}.html"],
    "layout": ["layout", DESIGN, "--out", "{to}.csv"],
    "film": [
        "film",
        DESIGN,
        "--set",
        "armed=1",
        "--for",
        "0.3",
        "--seconds",
        "0.1",
        "--into",
        "{folder}",
    ],
    "compare": [
        "compare",
        DESIGN,
        "--vary",
        "position, left.level=0.5,1",
        "--set",
        "armed=1",
        "--for",
        "0.3",
        "--out",
        "{to}.png",
    ],
    "emit": ["emit", DESIGN, "--out", "{to}"],
    "schema": ["schema", "--out", "{to}.json"],
    "new": ["new", "glider", "--into", "{folder}"],
    "effects": ["effects", "--sheet", "{to}.png"],
    "run, film": ["run", DESIGN, "--for", "0.3", "--to", "film:{to}.npz"],
    "run, gif": ["run", DESIGN, "--for", "0.3", "--to", "gif:{to}.gif"],
    "presets": ["presets", "save", DESIGN, "position, left", "--as", "mine"],
    "trust": ["trust", "own.py"],
}


@pytest.mark.parametrize("name", WRITERS)
def test_every_command_says_it_in_a_line_and_leaves_the_old_file(
    fendra, small_disk, tmp_path, monkeypatch, name
):
    monkeypatch.setenv("FENDRA_PRESETS", str(small_disk / "presets.toml"))
    monkeypatch.setenv("XDG_CONFIG_HOME", str(small_disk / "config"))
    (tmp_path / "own.py").write_text("x = 1\n")
    olds = [small_disk / f"out{end}" for end in (".png", ".html", ".csv", ".json", ".npz", ".gif")]
    for old in olds:
        old.write_text(OLD)
    fill(small_disk)
    before = sorted(path for path in small_disk.rglob("*") if path.is_file())
    words = [
        str(word).replace("{to}", str(small_disk / "out")).replace("{folder}", str(small_disk))
        for word in WRITERS[name]
    ]
    code, out, err = fendra(*words)
    assert code in (1, 2), (out, err)
    said = [line for line in err.splitlines() if "No space left on device" in line]
    assert len(said) == 1, err
    assert "Traceback" not in err
    assert [old.read_text() for old in olds] == [OLD] * len(olds)
    assert sorted(path for path in small_disk.rglob("*") if path.is_file()) == before


def test_a_film_whose_disk_fills_up_keeps_its_frames_and_says_where(small_disk):
    made = design(layer(colour="red"), rate=200.0)
    program, told = made.compile(), []
    connected = connect(made, sources=[], outputs=[f"film:{small_disk / 'ride.npz'}"])
    (small_disk / "ride.npz").write_text(OLD)
    with (small_disk / "filling").open("wb") as file:
        file.write(bytes(62 * 4096))
    session = Session(program, connected, tell=told.append, for_s=2.5)
    session.run()
    [sender] = session.senders
    assert "No space left on device" in sender.loss
    assert "ride.part.npy" in sender.loss
    assert sum("Retrying." in text for text in told) == 1
    assert (small_disk / "ride.npz").read_text() == OLD
    kept = np.load(small_disk / "ride.part.npy")
    program.reset()
    assert 10 < len(kept) < 300
    assert kept["rgb"].tolist() == [program.frame(at=0).rgb.tolist()] * len(kept)
    (small_disk / "filling").unlink()
    with make_output(f"film:{small_disk / 'ride.npz'}") as output:  # room again: a whole film
        output.open(made)
        output.send(program.frame(at=0.1))
    assert np.load(small_disk / "ride.npz")["rgb"].shape == (1, 8, 3)


def test_where_nothing_can_be_kept_the_light_goes_on(fendra, tmp_path, monkeypatch):
    """No home, no folder for settings, none for what is compiled."""
    for name in ("HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME", "XDG_DATA_HOME"):
        monkeypatch.setenv(name, "/proc/nowhere")
    own = f"udp:{free_port()}"  # the design's own port is one, and other tests run it too
    words = ["run", DESIGN, "--from", own, "--for", "0.1", "--to", "null:", "--engine", "native"]
    code, _, err = fendra(*words)
    assert (code, err) == (0, "")
    code, _, err = fendra("trust")
    assert code == 0
    (tmp_path / "own.py").write_text("x = 1\n")
    code, _, err = fendra("trust", "own.py")
    assert code == 2
    assert "cannot be written" in err


def test_a_run_that_is_killed_leaves_its_film_up_to_the_last_frame(tmp_path):
    (tmp_path / "ride.npz").write_text(OLD)
    run = subprocess.Popen(
        [sys.executable, "-m", "fendra", "run", str(DESIGN), "--to", "film:ride.npz"], cwd=tmp_path,
        stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, stdin=subprocess.DEVNULL,
    )  # fmt: skip
    part = tmp_path / "ride.part.npy"
    # While it is made it is there and empty; from its first bytes on NumPy reads it.
    until(lambda: part.exists() and part.stat().st_size > 0, "the film is begun")
    until(lambda: len(np.load(part)) > 20, "frames are written")
    run.kill()
    run.wait()
    film = np.load(part)
    assert len(film) > 20
    assert np.all(np.diff(film["time"]) > 0)
    assert (tmp_path / "ride.npz").read_text() == OLD
