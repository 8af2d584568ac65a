"""Windows: its console, its timers, how a run is ended there, and what its files allow."""

from __future__ import annotations

import ctypes
import msvcrt
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from multiprocessing import shared_memory
from pathlib import Path
from threading import Event

assert sys.platform == "win32"  # the type checker reads this file for Windows alone

STOPS = ("SIGINT", "SIGTERM", "SIGBREAK")
"""The signals that end a run; SIGBREAK is Ctrl-Break."""
LIBRARY_ENDING = ".dll"
COMPILERS = (("clang",), ("gcc",), ("cc",))
"""Compilers, as they are called, in the order in which they are tried."""
LIBRARY_FLAGS = ("-shared",)
LIBRARIES: tuple[str, ...] = ()
COMPILER_CURE = 'Install one: winget install LLVM.LLVM, or pip install "fendra[firmware]".'
ACTIVATE = "Scripts/activate"
A_PORT = "COM3"
"""A serial port, as it may be called here."""

_OUT, _ERR = -11, -12
_COLOURS = 0x0004
"""ENABLE_VIRTUAL_TERMINAL_PROCESSING: the console understands the codes of colours."""
_LONGEST_END_S = 4.5
"""Windows ends a process five seconds after its console has been closed."""
_LIGHTS = (("caps", 0x14), ("num", 0x90), ("scroll", 0x91))
"""Lights of a keyboard, by the virtual key that switches each."""
_TIMER_THROTTLING, _FINE = 4, 0x4
"""PROCESS_POWER_THROTTLING: whether a hidden window's process keeps fine timers."""


def make_ready() -> None:
    """Let the console show colours, and write any letter into pipes and files."""
    kernel = ctypes.windll.kernel32
    for number in (_OUT, _ERR):
        handle, mode = ctypes.c_void_p(kernel.GetStdHandle(number)), ctypes.c_uint32()
        if kernel.GetConsoleMode(handle, ctypes.byref(mode)):
            kernel.SetConsoleMode(handle, mode.value | _COLOURS)
    for stream in () if os.environ.get("PYTHONIOENCODING") else (sys.stdout, sys.stderr):
        if stream is not None and not stream.isatty() and hasattr(stream, "reconfigure"):
            stream.reconfigure(encoding="utf-8")


@contextmanager
def typed() -> Iterator[Callable[[float], str | None] | None]:
    """While the block runs, the console hands over each key as it is pressed. Gives a function:
    seconds to wait in, letters out; None without a console.
    """
    yield _keys if sys.stdin is not None and sys.stdin.isatty() else None


def _keys(wait_s: float) -> str:
    until_s = time.perf_counter() + wait_s
    while not msvcrt.kbhit():
        if time.perf_counter() >= until_s:
            return ""
        time.sleep(0.01)
    letters = ""
    while msvcrt.kbhit():
        letter = msvcrt.getwch()
        if letter in "\0\xe0":  # an arrow or a function key: two codes
            msvcrt.getwch()
        elif letter == "\x03":
            signal.raise_signal(signal.SIGINT)
        else:
            letters += letter
    return letters


def enter_pressed(wait_s: float) -> bool:
    """Whether the user presses Enter within this time."""
    until_s = time.perf_counter() + wait_s
    while (left_s := until_s - time.perf_counter()) > 0:
        if "\r" in _keys(left_s):
            return True
    return False


class _Throttling(ctypes.Structure):
    _fields_ = [
        ("version", ctypes.c_uint32), ("control", ctypes.c_uint32), ("state", ctypes.c_uint32),
    ]  # fmt: skip


@contextmanager
def fine_timers() -> Iterator[None]:
    """While the block runs, waits end within a millisecond and not in steps of 15.6 ms, also while
    the window is hidden.
    """
    kernel, winmm = ctypes.windll.kernel32, ctypes.windll.winmm
    throttling = _Throttling(1, _FINE, 0)
    this_process = ctypes.c_void_p(-1)  # as GetCurrentProcess gives it
    with suppress(AttributeError):  # Windows 7 has no such call
        kernel.SetProcessInformation(
            this_process, _TIMER_THROTTLING, ctypes.byref(throttling), ctypes.sizeof(throttling)
        )
    winmm.timeBeginPeriod(1)
    try:
        yield
    finally:
        winmm.timeEndPeriod(1)


@contextmanager
def told_of_closing(stop: Callable[[], object], over: Event) -> Iterator[None]:
    """While the block runs, a console that is closed, a user who signs out and a computer that
    shuts down call `stop`. Windows ends the process when the handler returns, so that waits for
    `over`.
    """

    def handle(event: int) -> bool:
        if event < 2:  # Ctrl-C and Ctrl-Break are signals
            return False
        stop()
        over.wait(_LONGEST_END_S)
        return True

    handler = ctypes.WINFUNCTYPE(ctypes.c_int, ctypes.c_uint32)(handle)
    ctypes.windll.kernel32.SetConsoleCtrlHandler(handler, True)
    try:
        yield
    finally:
        ctypes.windll.kernel32.SetConsoleCtrlHandler(handler, False)


def tell_manager(address: str, text: str) -> bool:
    """Service managers of Windows take no such datagrams."""
    del address, text
    return False


def end_group(process: subprocess.Popen[str]) -> None:
    """End a process with all that it has started."""
    with suppress(OSError, subprocess.SubprocessError):
        subprocess.run(
            ["taskkill", "/F", "/T", "/PID", str(process.pid)],
            capture_output=True, timeout=10, check=False,
        )  # fmt: skip


def replace(new: Path, old: Path) -> None:
    """Put a file into another's place. Another program, such as a virus scanner, may have it open
    for a moment. Raises OSError.
    """
    for wait_s in (0.02, 0.1, 0.4):
        with suppress(PermissionError):
            new.replace(old)
            return
        time.sleep(wait_s)
    new.replace(old)


def keep_owner(path: Path, before: os.stat_result) -> None:
    """A file of Windows has its folder's owner."""
    del path, before


def is_others(about: os.stat_result) -> bool:
    """A user's folders on Windows are his own, unless he says otherwise."""
    del about
    return False


def is_read_by_others(about: os.stat_result) -> bool:
    """As `is_others`."""
    del about
    return False


def is_private(place: Path) -> bool:
    """As `is_others`."""
    del place
    return True


def remove_loaded(path: Path) -> None:
    """Remove a library that may be loaded. Windows then only lets it be renamed; the next run
    removes it. Raises OSError.
    """
    try:
        path.unlink(missing_ok=True)
    except PermissionError:
        path.replace(path.with_suffix(".old"))


def holders(port: Path) -> list[str]:
    """Windows does not tell who holds a port."""
    del port
    return []


def may_not(port: Path) -> str:
    """The cure if we may not use a port."""
    del port
    return "End the program that uses it: a serial monitor, a slicer, another run."


class DeviceFile:
    """Devices of Windows are no files."""

    def __init__(self, path: Path) -> None:
        raise OSError(95, f"devices such as {path} are files on Linux alone")

    def take(self, wait_s: float) -> bytes:
        del wait_s
        return b""

    def close(self) -> None:
        """Nothing is open."""


class NamedPipe:
    """Pipes of Windows have no place among the files."""

    def __init__(self, path: Path) -> None:
        raise OSError(95, f"pipes such as {path} are files on Linux and macOS alone")

    def give(self, data: bytes) -> None:
        del data

    def close(self) -> None:
        """Nothing is open."""


def lights() -> dict[str, bool]:
    """Which lights of the keyboards are on, by name."""
    user = ctypes.windll.user32
    return {name: bool(user.GetKeyState(code) & 1) for name, code in _LIGHTS}


class SharedMemory:
    """Memory that another program shares by a name, to read: see `shared`. Raises OSError."""

    def __init__(self, name: str) -> None:
        self._memory = shared_memory.SharedMemory(name)

    def read(self, most: int) -> bytes:
        held = self._memory.buf
        return b"" if held is None else bytes(held[:most])

    def close(self) -> None:
        self._memory.close()
