"""The forms of macOS, on packages made up: what they ask for, and what they make of it."""

from __future__ import annotations

import subprocess
import sys
from types import SimpleNamespace

import pytest

from fendra.computer import macos
from fendra.computer.parts import CannotTell


@pytest.fixture
def desk(monkeypatch):
    """A screen of 1440 x 900 with one program in front."""
    app = SimpleNamespace(localizedName=lambda: "Paint", processIdentifier=lambda: 42)
    windows = [
        {"kCGWindowOwnerPID": 7, "kCGWindowBounds": {"Width": 1440, "Height": 900}},
        {"kCGWindowOwnerPID": 42, "kCGWindowBounds": {"Width": 800, "Height": 600}},
    ]
    session = {}
    workspace = SimpleNamespace(frontmostApplication=lambda: app)
    appkit = SimpleNamespace(NSWorkspace=SimpleNamespace(sharedWorkspace=lambda: workspace))
    size = SimpleNamespace(width=1440, height=900)
    quartz = SimpleNamespace(
        CGMainDisplayID=lambda: 1, CGDisplayBounds=lambda _: SimpleNamespace(size=size),
        CGWindowListCopyWindowInfo=lambda which, _: windows if which == 1 else None,
        CGEventSourceSecondsSinceLastEventType=lambda state, kind: 12.5 if (state, kind) == (0, 0xFFFFFFFF) else 0,
        CGSessionCopyCurrentDictionary=lambda: session,
    )  # fmt: skip
    monkeypatch.setitem(sys.modules, "AppKit", appkit)
    monkeypatch.setitem(sys.modules, "Quartz", quartz)
    return SimpleNamespace(windows=windows, session=session)


def test_front_full_screen_idle_and_locked(desk):
    window = macos.Window()
    assert window.read() == {"front": "Paint", "full_screen": False}  # the large one is another's
    desk.windows[1]["kCGWindowBounds"] = {"Width": 1440, "Height": 900}
    assert window.read()["full_screen"] is True
    assert macos.Idle().read() == {"idle": 12.5}
    session = macos.Session()
    assert session.read() == {"locked": False}
    desk.session["CGSSessionScreenIsLocked"] = 1
    assert session.read() == {"locked": True}
    assert "asleep" in session.lacks


def test_the_volume_as_applescript_says_it(monkeypatch):
    def run(words, **_):
        assert words[0] == "osascript"
        return SimpleNamespace(stdout="35, true\n")

    monkeypatch.setattr(subprocess, "run", run)
    assert macos.Volume().read() == {"volume": 0.35, "muted": True}


def test_the_music_and_packages_that_are_missing_are_told(monkeypatch):
    with pytest.raises(CannotTell, match="macOS gives it to no other program"):
        macos.Media()
    monkeypatch.setitem(sys.modules, "Quartz", None)
    with pytest.raises(CannotTell, match="needs the package 'pyobjc-framework-Quartz'"):
        macos.Idle()
