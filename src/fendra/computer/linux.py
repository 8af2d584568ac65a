"""Linux: X11 for windows, logind and the session's bus for the rest, PulseAudio or PipeWire for the
volume. Wayland tells other programs nothing of its windows.
"""

from __future__ import annotations

import os
import sys
from contextlib import suppress
from pathlib import Path
from typing import Any, ClassVar
from urllib.parse import unquote, urlparse

from fendra.computer.covers import MOST, colours_of
from fendra.computer.parts import CannotTell, Part, needs
from fendra.computer.sensors import program_of

assert sys.platform != "win32"  # the type checker reads this file for Unix alone

_COVER_BYTES = 20_000_000
_ANSWERS_S = 1.0


def _display() -> Any:
    """The X11 display. Raises CannotTell."""
    if not os.environ.get("DISPLAY"):
        if os.environ.get("WAYLAND_DISPLAY"):
            raise CannotTell("Wayland tells other programs nothing of its windows")
        raise CannotTell("there is no X11 screen (DISPLAY is not set)")
    display = needs("python-xlib", lambda: __import__("Xlib.display", fromlist=["Display"]))
    try:
        return display.Display()
    except Exception as exc:
        raise CannotTell(f"the X11 screen {os.environ['DISPLAY']} cannot be reached") from exc


class Window(Part):
    """The program in front, and whether it fills the screen."""

    names: ClassVar = ("front", "full_screen")

    def __init__(self) -> None:
        self._display = _display()
        if os.environ.get("WAYLAND_DISPLAY"):
            why = "Wayland tells of windows of X11 alone"
            self.lacks = {"front": why, "full_screen": why}
        self._root = self._display.screen().root
        self._atoms = {
            name: self._display.intern_atom(name)
            for name in ("_NET_ACTIVE_WINDOW", "_NET_WM_PID", "_NET_WM_STATE",
                         "_NET_WM_STATE_FULLSCREEN")
        }  # fmt: skip

    def read(self) -> dict[str, Any]:
        window = self._active()
        if window is None:
            return {"front": "", "full_screen": False}
        pid = self._values(window, "_NET_WM_PID")
        states = self._values(window, "_NET_WM_STATE")
        front = ""
        with suppress(Exception):  # it may have ended
            front = program_of(int(pid[0]))
        return {
            "front": front,
            "full_screen": self._atoms["_NET_WM_STATE_FULLSCREEN"] in states or self._fills(window),
        }

    def _active(self) -> Any:
        found = self._values(self._root, "_NET_ACTIVE_WINDOW")
        if found and found[0]:
            return self._display.create_resource_object("window", int(found[0]))
        focus = self._display.get_input_focus().focus
        is_window = hasattr(focus, "id") and focus.id not in (0, self._root.id)
        return focus if is_window else None

    def _values(self, window: Any, name: str) -> list[int]:
        from Xlib import X

        told = window.get_full_property(self._atoms[name], X.AnyPropertyType)
        return [*told.value] if told is not None else []

    def _fills(self, window: Any) -> bool:
        """Whether it is as large as the screen, as games without a window manager are."""
        mine, whole = window.get_geometry(), self._root.get_geometry()
        return (mine.width, mine.height) == (whole.width, whole.height)

    def close(self) -> None:
        self._display.close()


class Idle(Part):
    """Seconds since a key was pressed or the mouse moved."""

    names: ClassVar = ("idle",)

    def __init__(self) -> None:
        if os.environ.get("WAYLAND_DISPLAY"):
            raise CannotTell("Wayland does not tell when a key was pressed")
        self._display = _display()
        if not self._display.has_extension("MIT-SCREEN-SAVER"):
            raise CannotTell("this X11 screen does not count it (MIT-SCREEN-SAVER)")

    def read(self) -> dict[str, Any]:
        from Xlib.ext import screensaver

        told = screensaver.query_info(self._display.screen().root)
        return {"idle": told.idle / 1000}

    def close(self) -> None:
        self._display.close()


class _Bus:
    """A connection to a bus of D-Bus. Raises CannotTell."""

    def __init__(self, which: str) -> None:
        blocking = needs("jeepney", lambda: __import__("jeepney.io.blocking", fromlist=["x"]))
        try:
            self._line = blocking.open_dbus_connection(bus=which)
        except (OSError, KeyError, ValueError) as exc:
            raise CannotTell(f"there is no {which.lower()} bus of D-Bus here") from exc

    def ask(self, name: str, path: str, interface: str, method: str,
            signature: str = "", *words: Any) -> Any:  # fmt: skip
        """Call a method; gives its values. Raises OSError and the package's errors."""
        from jeepney import DBusAddress, new_method_call
        from jeepney.wrappers import unwrap_msg

        address = DBusAddress(path, bus_name=name, interface=interface)
        call = new_method_call(address, method, signature or None, words)
        return unwrap_msg(self._line.send_and_get_reply(call, timeout=_ANSWERS_S))

    def property(self, name: str, path: str, interface: str, key: str) -> Any:
        """A property's value."""
        (told,) = self.ask(
            name, path, "org.freedesktop.DBus.Properties", "Get", "ss", interface, key
        )
        return told[1]

    def listen(self, interface: str, member: str) -> Any:
        """A queue of a signal's messages."""
        from jeepney import DBusAddress, MatchRule, new_method_call

        rule = MatchRule(type="signal", interface=interface, member=member)
        bus = DBusAddress("/org/freedesktop/DBus", "org.freedesktop.DBus", "org.freedesktop.DBus")
        self._line.send_and_get_reply(
            new_method_call(bus, "AddMatch", "s", (rule.serialise(),)), timeout=_ANSWERS_S
        )
        return self._line.filter(rule)

    def pump(self) -> None:
        """Take the messages that have come."""
        with suppress(TimeoutError):
            while True:
                self._line.recv_messages(timeout=0.001)

    def names(self) -> list[str]:
        """The names of those on the bus."""
        bus = "org.freedesktop.DBus"
        return list(self.ask(bus, "/org/freedesktop/DBus", bus, "ListNames")[0])

    def close(self) -> None:
        self._line.close()


LOGIN = "org.freedesktop.login1"


class Session(Part):
    """Whether the user's session is locked, and whether the computer is going to sleep."""

    names: ClassVar = ("locked", "asleep")

    def __init__(self) -> None:
        self._bus = _Bus("SYSTEM")
        if LOGIN not in self._bus.names():
            self._bus.close()
            raise CannotTell("this system has no logind")
        self._path = self._session()
        if not self._path:
            self.lacks = {"locked": "logind knows of no session on a screen"}
        self._sleeps = self._bus.listen(f"{LOGIN}.Manager", "PrepareForSleep")
        self._queue = self._sleeps.__enter__()
        self._is_asleep = False

    def _session(self) -> str:
        """The user's session: that of this process, else the one on a screen."""
        manager = "/org/freedesktop/login1"
        with suppress(Exception):
            own = os.environ.get("XDG_SESSION_ID", "")
            if own:
                told = self._bus.ask(LOGIN, manager, f"{LOGIN}.Manager", "GetSession", "s", own)
                return str(told[0])
        with suppress(Exception):
            told = self._bus.ask(LOGIN, manager, f"{LOGIN}.Manager", "ListSessions")
            for _, user, _, seat, path in told[0]:
                if user == os.getuid() and seat:
                    return str(path)
        return ""

    def read(self) -> dict[str, Any]:
        self._bus.pump()
        while self._queue:
            self._is_asleep = bool(self._queue.popleft().body[0])
        found: dict[str, Any] = {"asleep": self._is_asleep}
        if self._path:
            told = self._bus.property(LOGIN, self._path, f"{LOGIN}.Session", "LockedHint")
            found["locked"] = bool(told)
        return found

    def close(self) -> None:
        self._bus.close()


PLAYER = "org.mpris.MediaPlayer2"


class Media(Part):
    """The music that plays (MPRIS): its title, artist, and the colours of its cover."""

    names: ClassVar = ("playing", "title", "artist", "cover", "cover2", "cover3")

    def __init__(self) -> None:
        self._bus = _Bus("SESSION")
        self._art, self._colours = "", list[str]()

    def read(self) -> dict[str, Any]:
        players = [name for name in self._bus.names() if name.startswith(f"{PLAYER}.")]
        for name in sorted(players, key=self._is_silent):
            told = self._bus.property(name, "/org/mpris/MediaPlayer2", f"{PLAYER}.Player",
                                      "Metadata")  # fmt: skip
            about = {key: value[1] for key, value in told.items()}
            artists = about.get("xesam:artist", [])
            found = {
                "playing": not self._is_silent(name),
                "title": str(about.get("xesam:title", "")),
                "artist": ", ".join(artists) if isinstance(artists, list) else str(artists),
            }
            return found | self._cover(str(about.get("mpris:artUrl", "")))
        return {"playing": False, "title": "", "artist": ""}

    def _is_silent(self, name: str) -> bool:
        with suppress(Exception):
            status = self._bus.property(name, "/org/mpris/MediaPlayer2", f"{PLAYER}.Player",
                                        "PlaybackStatus")  # fmt: skip
            return bool(status != "Playing")
        return True

    def _cover(self, art: str) -> dict[str, str]:
        """The colours of a cover in a file; one on the web is not fetched."""
        if art != self._art:
            self._art, self._colours = art, []
            where = urlparse(art)
            path = Path(unquote(where.path))
            with suppress(Exception):  # it may be no picture
                if where.scheme == "file" and path.stat().st_size <= _COVER_BYTES:
                    self._colours = colours_of(path.read_bytes())
        names = ["cover", "cover2", "cover3"][:MOST]
        return dict(zip(names, self._colours, strict=False))

    def close(self) -> None:
        self._bus.close()


class Volume(Part):
    """The volume of what it plays, 0 to 1, and whether it is muted."""

    names: ClassVar = ("volume", "muted")

    def __init__(self) -> None:
        pulsectl = needs("pulsectl", lambda: __import__("pulsectl"))
        try:
            self._pulse = pulsectl.Pulse("fendra", connect=False)
            self._pulse.connect(timeout=_ANSWERS_S)
        except Exception as exc:
            raise CannotTell("neither PulseAudio nor PipeWire answers") from exc

    def read(self) -> dict[str, Any]:
        name = self._pulse.server_info().default_sink_name
        sink = self._pulse.get_sink_by_name(name)
        return {"volume": min(float(sink.volume.value_flat), 1.0), "muted": bool(sink.mute)}

    def close(self) -> None:
        self._pulse.close()


PARTS: tuple[type[Part], ...] = (Window, Idle, Session, Media, Volume)
