"""The small install: a computer that only runs a design does without the packages of the desk."""

from __future__ import annotations

import subprocess
import sys

import numpy as np
import pytest

import fendra as fd
from fendra.cli.app import DESK
from fendra.core.layout.space import FEW_PLACES, to_nearest

HIDDEN = """
import sys
for name in {names}:
    sys.modules[name] = None
sys.argv = ["fendra", *{words}]
from fendra.cli.app import main
main()
"""


def without_desk(tmp_path, *words):
    code = HIDDEN.format(names=sorted(DESK), words=[*map(str, words)])
    command = [sys.executable, "-c", code]
    return subprocess.run(command, capture_output=True, text=True, cwd=tmp_path, check=False)


@pytest.mark.parametrize(
    ("design", "tape"),
    [
        ("heron", "ride"),
        ("drone", "flight"),
        ("pad", "typing"),
        ("cabinet", "game"),
        ("bare", "lever"),
    ],
)
def test_every_demo_design_runs_without_the_desk(tmp_path, design, tape):
    words = ["run", fd.demo_file(f"{design}.toml"), "--tape", fd.demo_file(f"{tape}.csv")]
    done = without_desk(tmp_path, *words, "--to", "null:", "--for", "0.2")
    assert (done.returncode, "frames sent" in done.stdout) == (0, True), done.stderr


@pytest.mark.parametrize(
    ("words", "made"),
    [
        (["new", "glider", "--like", "drone"], ["glider.toml", "flight.csv", "fendra.schema.json"]),
        (["demo", "--files", "--into", "demo"], ["demo/heron.toml", "demo/wink.gif"]),
        (["schema", "--out", "s.json"], ["s.json"]),
    ],
)
def test_the_small_install_writes_designs_to_begin_with(tmp_path, words, made):
    done = without_desk(tmp_path, *words)
    assert (done.returncode, done.stderr) == (0, "")
    assert [name for name in made if not (tmp_path / name).is_file()] == []


@pytest.mark.parametrize("words", [["map"], ["sheet"], ["page"]])
def test_what_needs_the_desk_says_how_to_get_it(tmp_path, words):
    done = without_desk(tmp_path, *words, fd.demo_file("heron.toml"))
    assert done.returncode == 1
    assert "pip install 'fendra[desk]'" in done.stderr
    assert "Traceback" not in done.stderr


def test_the_nearest_place_is_the_same_with_and_without_the_package():
    """The same bits: else two computers would show different light."""
    from scipy.spatial import KDTree

    places = np.unique(np.random.default_rng(3).normal(0, 250, (400, 2)).round(6), axis=0)
    assert len(places) < FEW_PLACES
    assert (to_nearest(places) == KDTree(places).query(places, k=2)[0][:, 1]).all()
