"""A real screen, captured: an X server without a display, where there is one."""

from __future__ import annotations

import shutil
import subprocess

import numpy as np
import pytest

import fendra as fd
from fendra.core.layout import place
from fendra.sources import DRIVERS
from helpers import design, layer


@pytest.fixture
def screen(monkeypatch):
    if shutil.which("Xvfb") is None:
        pytest.skip("Xvfb is not installed")
    with subprocess.Popen(
        ["Xvfb", "-displayfd", "1", "-screen", "0", "640x480x24", "-br"],
        stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True,
    ) as server:  # fmt: skip
        monkeypatch.setenv("DISPLAY", f":{server.stdout.readline().strip()}")
        yield
        server.kill()


def test_a_screen_is_captured_again_and_again(screen):
    """A black screen, and a floor of a tenth below which nothing goes."""
    made = design(layer(colour="picture"), signals={"picture": {"kind": "picture"}})
    source = DRIVERS.from_text("screen:1,rate=100,floor=0.1")
    source.open(made, place(made))
    lights = [light for _ in range(5) for _, light in source.read(0.5)]
    source.close()
    assert len(lights) >= 4
    for light in lights:
        assert light.shape == (8, 3)
        assert light == pytest.approx(np.full((8, 3), 0.1))


def test_a_screen_that_is_not_there_is_said(screen):
    made = design(layer(), signals={"picture": {"kind": "picture"}})
    with pytest.raises(fd.SourceError, match="there is no screen 9; there are 1"):
        DRIVERS.from_text("screen:9").open(made, place(made))
