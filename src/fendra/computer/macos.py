"""macOS: AppKit and Quartz for windows and sessions, AppleScript for the volume. It gives the music
that plays to no other program.
"""

from __future__ import annotations

import subprocess
from typing import Any, ClassVar

from fendra.computer.parts import CannotTell, Part, needs

_ANY_INPUT = 0xFFFF_FFFF
"""kCGAnyInputEventType."""
_SESSION = 0
"""kCGEventSourceStateCombinedSessionState."""
_ON_SCREEN = 1
"""kCGWindowListOptionOnScreenOnly."""


def _quartz() -> Any:
    return needs("pyobjc-framework-Quartz", lambda: __import__("Quartz"))


class Window(Part):
    """The program in front, and whether it fills the screen."""

    names: ClassVar = ("front", "full_screen")

    def __init__(self) -> None:
        self._appkit = needs("pyobjc-framework-Cocoa", lambda: __import__("AppKit"))
        self._quartz = _quartz()

    def read(self) -> dict[str, Any]:
        app = self._appkit.NSWorkspace.sharedWorkspace().frontmostApplication()
        if app is None:
            return {"front": "", "full_screen": False}
        quartz = self._quartz
        whole = quartz.CGDisplayBounds(quartz.CGMainDisplayID()).size
        bounds = [
            window["kCGWindowBounds"]
            for window in quartz.CGWindowListCopyWindowInfo(_ON_SCREEN, 0) or ()
            if window.get("kCGWindowOwnerPID") == app.processIdentifier()
        ]
        fills = any((box["Width"], box["Height"]) == (whole.width, whole.height) for box in bounds)
        return {"front": str(app.localizedName()), "full_screen": fills}


class Idle(Part):
    """Seconds since a key was pressed or the mouse moved."""

    names: ClassVar = ("idle",)

    def __init__(self) -> None:
        self._quartz = _quartz()

    def read(self) -> dict[str, Any]:
        since_s = self._quartz.CGEventSourceSecondsSinceLastEventType(_SESSION, _ANY_INPUT)
        return {"idle": float(since_s)}


class Session(Part):
    """Whether the user's session is locked."""

    names: ClassVar = ("locked", "asleep")

    def __init__(self) -> None:
        self.lacks = {"asleep": "macOS tells it only to programs with windows"}
        self._quartz = _quartz()

    def read(self) -> dict[str, Any]:
        told = self._quartz.CGSessionCopyCurrentDictionary() or {}
        return {"locked": bool(told.get("CGSSessionScreenIsLocked", 0))}


class Media(Part):
    """The music that plays."""

    names: ClassVar = ("playing", "title", "artist", "cover", "cover2", "cover3")

    def __init__(self) -> None:
        raise CannotTell("macOS gives it to no other program")

    def read(self) -> dict[str, Any]:
        return {}


class Volume(Part):
    """The volume of what it plays, 0 to 1, and whether it is muted."""

    names: ClassVar = ("volume", "muted")

    def read(self) -> dict[str, Any]:
        script = "set v to (get volume settings)\n(output volume of v) & (output muted of v)"
        told = subprocess.run(
            ["osascript", "-e", script], capture_output=True, encoding="utf-8", errors="replace",
            timeout=2, check=True,
        )  # fmt: skip
        volume, _, muted = told.stdout.partition(",")
        return {"volume": float(volume) / 100, "muted": muted.strip() == "true"}


PARTS: tuple[type[Part], ...] = (Window, Idle, Session, Media, Volume)
