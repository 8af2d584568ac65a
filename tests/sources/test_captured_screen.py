"""A real screen, captured: an X server without a display, where there is one."""

from __future__ import annotations

import shutil
import subprocess

import numpy as np
import pytest

import fendra as fd
from fendra.core.layout import place
from fendra.live.settings import Settings
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


def test_its_settings_follow_signals_as_layers_read_them(screen):
    """A dark screen and a floor that is a signal: 0.2 by day, and 0.05 at night."""
    made = design(
        layer(colour="picture"),
        signals={
            "picture": {"kind": "picture"}, "night": {"kind": "switch"},
            "least": {"of": "0.05 if night else 0.2"}, "hit": {"kind": "event"},
        },
    )  # fmt: skip
    source = DRIVERS.from_text("screen:1,rate=100,floor=least,curve=night,settle=0")
    assert source.follows == {"least"}
    settings = Settings(made.examined.subject.recorded, [source])
    source.open(made, place(made))
    for at_s, night, floor in ((0.0, 0.0, 0.2), (0.1, 1.0, 0.05)):
        settings.step(at_s, {"night": night, "hit": 1.0})
        ((_, light),) = source.read(0.5)
        assert light == pytest.approx(np.full((8, 3), floor), abs=1e-4)
    source.close()
    assert settings._value("least") == pytest.approx(0.05)
    later = design(
        layer(colour="picture"),
        signals={
            **made.model_dump()["signals"],
            "least": {"of": "(0.1 if night else 0.4) + (0.5 if toggle(hit) else 0)"},
        },
    )
    settings.use(later.examined.subject.recorded)
    settings.step(0.2, {})  # nothing new: it is still night, and nothing is hit again
    assert settings._value("least") == pytest.approx(0.1)
    settings.step(0.3, {"hit": 1.0})
    assert settings._value("least") == pytest.approx(0.6)


def test_a_setting_of_nought_is_a_value():
    made = design(layer(), signals={"picture": {"kind": "picture"}, "mood": {}})
    source = DRIVERS.from_text("screen:1,saturation=mood")
    settings = Settings(made.examined.subject.recorded, [source])
    assert source.value_of("mood") is None
    settings.step(0.0, {"mood": 0.0})
    assert source.value_of("mood") == 0.0


def test_a_setting_that_is_no_signal_and_one_out_of_range_are_told():
    made = design(layer(), signals={"picture": {"kind": "picture"}, "mood": {}})
    with pytest.raises(fd.SourceError, match=r"there is no signal 'moot'\. Did you mean 'mood'"):
        DRIVERS.from_text("screen:1,saturation=moot").open(made, place(made))
    with pytest.raises(
        fd.SourceError, match=r"saturation: 9 is out of range\. Write a number from 0 to 4"
    ):
        DRIVERS.from_text("screen:1,saturation=9")


def test_wayland_is_told_with_what_can_be_done(monkeypatch):
    monkeypatch.setenv("WAYLAND_DISPLAY", "wayland-0")
    made = design(layer(), signals={"picture": {"kind": "picture"}})
    with pytest.raises(fd.SourceError, match="Wayland lets no program see the screen"):
        DRIVERS.from_text("screen:1").open(made, place(made))
