"""Pictures of this computer's screens, by the package mss: X11, Windows and macOS."""

from __future__ import annotations

import os
from typing import Any

from fendra.core.errors import NEVER, SourceError
from fendra.sources import package

WAYLAND = (
    "Wayland lets no program see the screen but through its portal, for which there is no package "
    "yet. Sign in to a session on X11, or capture with another program into a folder of pictures"
)


def grabber() -> Any:
    """What captures screens: it has `monitors`, all together first, and `grab`. Raises SourceError
    where a session lets nobody capture, and the system's own errors.
    """
    if os.environ.get("WAYLAND_DISPLAY"):
        raise SourceError(f"the screen cannot be captured: {WAYLAND}", code=NEVER)
    mss = package("mss")
    return (getattr(mss, "MSS", None) or mss.mss)()


def screens() -> list[tuple[int, str]]:
    """Every screen: its number and size. Raises SourceError."""
    try:
        with grabber() as held:
            return [
                (number, f"{screen['width']} x {screen['height']} pixels")
                for number, screen in enumerate(held.monitors[1:], 1)
            ]
    except SourceError:
        raise
    except Exception as exc:  # of each system its own
        raise SourceError(f"no screen can be captured: {exc}") from exc
