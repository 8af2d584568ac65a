"""Windows: its own calls for windows and sessions, pycaw for the volume, the session of media."""

from __future__ import annotations

import asyncio
import ctypes
import sys
from ctypes import wintypes
from typing import Any, ClassVar

from fendra.computer.covers import colours_of
from fendra.computer.parts import Part, needs
from fendra.computer.sensors import program_of

assert sys.platform == "win32"  # the type checker reads this file for Windows alone

_FULL = (2, 3, 4)
"""QUNS_BUSY, QUNS_RUNNING_D3D_FULL_SCREEN, QUNS_PRESENTATION_MODE: a program fills the screen."""
_DESKTOP_READ = 0x0001
_NAME = 2
_SUSPENDS, _RESUMES = 0x0004, (0x0007, 0x0012)
"""PBT_APMSUSPEND, PBT_APMRESUMESUSPEND and PBT_APMRESUMEAUTOMATIC."""
_CALLBACK = 2
"""DEVICE_NOTIFY_CALLBACK."""


class Window(Part):
    """The program in front, and whether it fills the screen."""

    names: ClassVar = ("front", "full_screen")

    def read(self) -> dict[str, Any]:
        user, shell = ctypes.windll.user32, ctypes.windll.shell32
        process, state = wintypes.DWORD(), ctypes.c_int()
        user.GetWindowThreadProcessId(user.GetForegroundWindow(), ctypes.byref(process))
        shell.SHQueryUserNotificationState(ctypes.byref(state))
        front = program_of(process.value) if process.value else ""
        return {"front": front, "full_screen": state.value in _FULL}


class _LastInput(ctypes.Structure):
    _fields_ = [("size", ctypes.c_uint), ("at_ms", ctypes.c_uint)]


class Idle(Part):
    """Seconds since a key was pressed or the mouse moved."""

    names: ClassVar = ("idle",)

    def read(self) -> dict[str, Any]:
        last = _LastInput(ctypes.sizeof(_LastInput), 0)
        ctypes.windll.user32.GetLastInputInfo(ctypes.byref(last))
        now_ms = ctypes.windll.kernel32.GetTickCount()
        return {"idle": ((now_ms - last.at_ms) & 0xFFFF_FFFF) / 1000}


class _Subscription(ctypes.Structure):
    _fields_ = [("callback", ctypes.c_void_p), ("context", ctypes.c_void_p)]


class Session(Part):
    """Whether the user's session is locked, and whether the computer is going to sleep."""

    names: ClassVar = ("locked", "asleep")

    def __init__(self) -> None:
        self._is_asleep = False
        made = ctypes.WINFUNCTYPE(ctypes.c_uint, ctypes.c_void_p, ctypes.c_uint, ctypes.c_void_p)
        self._callback = made(self._told)  # it is called as long as it is kept
        self._asks = _Subscription(ctypes.cast(self._callback, ctypes.c_void_p), None)
        self._handle = ctypes.c_void_p()
        if ctypes.windll.powrprof.PowerRegisterSuspendResumeNotification(
            _CALLBACK, ctypes.byref(self._asks), ctypes.byref(self._handle)
        ):
            self.lacks = {"asleep": "the system does not tell"}

    def _told(self, _context: Any, event: int, _setting: Any) -> int:
        if event == _SUSPENDS:
            self._is_asleep = True
        elif event in _RESUMES:
            self._is_asleep = False
        return 0

    def read(self) -> dict[str, Any]:
        user = ctypes.windll.user32
        desktop = user.OpenInputDesktop(0, False, _DESKTOP_READ)
        name = ctypes.create_unicode_buffer(64)
        if desktop:
            user.GetUserObjectInformationW(desktop, _NAME, name, 128, None)
            user.CloseDesktop(desktop)
        return {"locked": name.value != "Default", "asleep": self._is_asleep}

    def close(self) -> None:
        if self._handle:
            ctypes.windll.powrprof.PowerUnregisterSuspendResumeNotification(self._handle)


class Volume(Part):
    """The volume of what it plays, 0 to 1, and whether it is muted."""

    names: ClassVar = ("volume", "muted")

    def __init__(self) -> None:
        pycaw = needs("pycaw", lambda: __import__("pycaw.pycaw", fromlist=["AudioUtilities"]))
        self._end = pycaw.AudioUtilities.GetSpeakers().EndpointVolume

    def read(self) -> dict[str, Any]:
        return {
            "volume": float(self._end.GetMasterVolumeLevelScalar()),
            "muted": bool(self._end.GetMute()),
        }


class Media(Part):
    """The music that plays: its title, artist, and the colours of its cover."""

    names: ClassVar = ("playing", "title", "artist", "cover", "cover2", "cover3")

    def __init__(self) -> None:
        self._control = needs(
            "winrt-Windows.Media.Control",
            lambda: __import__("winrt.windows.media.control", fromlist=["x"]),
        )
        self._streams = needs(
            "winrt-Windows.Storage.Streams",
            lambda: __import__("winrt.windows.storage.streams", fromlist=["x"]),
        )
        self._title, self._colours = "", list[str]()

    def read(self) -> dict[str, Any]:
        return asyncio.run(self._read())

    async def _read(self) -> dict[str, Any]:
        kind = self._control.GlobalSystemMediaTransportControlsSessionManager
        session = (await kind.request_async()).get_current_session()
        if session is None:
            return {"playing": False, "title": "", "artist": ""}
        about = await session.try_get_media_properties_async()
        playing = self._control.GlobalSystemMediaTransportControlsSessionPlaybackStatus.PLAYING
        if about.title != self._title:
            self._title, self._colours = about.title, await self._cover(about.thumbnail)
        found = {
            "playing": session.get_playback_info().playback_status == playing,
            "title": about.title, "artist": about.artist,
        }  # fmt: skip
        return found | dict(zip(("cover", "cover2", "cover3"), self._colours, strict=False))

    async def _cover(self, picture: Any) -> list[str]:
        if picture is None:
            return []
        stream = await picture.open_read_async()
        held = self._streams.Buffer(stream.size)
        await stream.read_async(held, held.capacity, self._streams.InputStreamOptions.READ_AHEAD)
        return colours_of(bytes(held))


PARTS: tuple[type[Part], ...] = (Window, Idle, Session, Media, Volume)
