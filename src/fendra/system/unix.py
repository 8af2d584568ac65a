"""Linux and macOS: terminals, signals, service managers and owners of files."""

from __future__ import annotations

import _posixshmem
import importlib
import mmap
import os
import select
import signal
import socket
import stat
import subprocess
import sys
import termios
import tty
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from threading import Event

assert sys.platform != "win32"  # the type checker reads this file for Unix alone

STOPS = ("SIGINT", "SIGTERM", "SIGHUP")
"""The signals that end a run."""
SHOWS_COLOURS = True
LIBRARY_ENDING = ".so"
COMPILERS = (("cc",), ("clang",), ("gcc",))
"""Compilers, as they are called, in the order in which they are tried."""
LIBRARY_FLAGS = ("-fPIC", "-shared")
LIBRARIES = ("-lm",)
COMPILER_CURE = (
    "Install one (on Debian: apt install gcc libc6-dev; on macOS: xcode-select --install)."
)
ACTIVATE = "bin/activate"
_OF_DEVICES, _CAPS = 1, 0x10000
"""kCGEventSourceStateHIDSystemState, kCGEventFlagMaskAlphaShift."""
A_PORT = "/dev/cu.usbserial-10" if sys.platform == "darwin" else "/dev/ttyUSB0"
"""A serial port, as it may be called here."""


def make_ready() -> None:
    """A terminal of Unix shows colours as it is."""


@contextmanager
def typed() -> Iterator[Callable[[float], str | None] | None]:
    """While the block runs, the terminal hands over each key as it is pressed. Gives a function:
    seconds to wait in, letters out, None at the end; None without a terminal of our own.
    """
    if not (sys.stdin and sys.stdin.isatty() and _is_in_front(sys.stdin.fileno())):
        yield None
        return
    handle = sys.stdin.fileno()
    before = termios.tcgetattr(handle)

    def read(wait_s: float) -> str | None:
        if not select.select([handle], [], [], wait_s)[0]:
            return ""
        try:
            data = os.read(handle, 256)
        except OSError:
            return None
        return data.decode("utf-8", errors="ignore") if data else None

    try:
        tty.setcbreak(handle)
        yield read
    finally:
        with suppress(termios.error):
            termios.tcsetattr(handle, termios.TCSADRAIN, before)


def _is_in_front(terminal: int) -> bool:
    """Whether the terminal is ours now; a background process that reads it would be stopped."""
    with suppress(OSError):
        return os.tcgetpgrp(terminal) == os.getpgrp()
    return False


def enter_pressed(wait_s: float) -> bool:
    """Whether the user presses Enter within this time."""
    is_ready = bool(select.select([sys.stdin], [], [], wait_s)[0])
    if is_ready:
        sys.stdin.readline()
    return is_ready


@contextmanager
def fine_timers() -> Iterator[None]:
    """Timers of Unix are fine as they are."""
    yield


@contextmanager
def told_of_closing(stop: Callable[[], object], over: Event) -> Iterator[None]:
    """A terminal of Unix that closes sends SIGHUP, which is one of `STOPS`."""
    del stop, over
    yield


def tell_manager(address: str, text: str) -> bool:
    """Send a datagram to the service manager that started this process; False if it cannot."""
    with suppress(OSError), socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM) as there:
        there.sendto(text.encode(), f"\0{address[1:]}" if address[0] == "@" else address)
        return True
    return False


def end_group(process: subprocess.Popen[str]) -> None:
    """End a process, started in a session of its own, with all that it has started."""
    with suppress(ProcessLookupError):
        os.killpg(process.pid, signal.SIGKILL)


def replace(new: Path, old: Path) -> None:
    """Put a file into another's place. Raises OSError."""
    new.replace(old)


def keep_owner(path: Path, before: os.stat_result) -> None:
    """Give a file the owner that another had, if we may."""
    with suppress(PermissionError):
        os.chown(path, before.st_uid, before.st_gid)


def is_others(about: os.stat_result) -> bool:
    """Whether somebody else owns a file or may write to it."""
    return about.st_uid != os.getuid() or bool(about.st_mode & 0o022)


def is_read_by_others(about: os.stat_result) -> bool:
    """Whether others than its owner may read or write a file."""
    return bool(about.st_mode & 0o077)


def is_private(place: Path) -> bool:
    """Whether only its owner and the system's administrator can change the contents of a folder.

    That holds if neither it nor any folder above it belongs to somebody else or can be written by
    others, except folders like /tmp, in which each user may change only his own files.
    """
    real = place.resolve()
    return all(map(_is_safe, {place, *place.absolute().parents, real, *real.parents}))


def _is_safe(item: Path) -> bool:
    about = item.stat()
    is_own = about.st_uid in (0, os.getuid())
    is_shared = bool(about.st_mode & 0o022)
    return is_own and (not is_shared or bool(about.st_mode & stat.S_ISVTX))


def remove_loaded(path: Path) -> None:
    """Remove a library that is loaded: its contents stay until it is let go."""
    path.unlink(missing_ok=True)


def holders(port: Path) -> list[str]:
    """The processes that hold a port, as `name (process 123)`: from /proc on Linux, from lsof on
    macOS.
    """
    if not Path("/proc/self").exists():
        return _listed_holders(port)
    target = port.resolve()
    found = []
    for process in Path("/proc").glob("[0-9]*"):
        try:
            if any(handle.resolve() == target for handle in (process / "fd").iterdir()):
                name = (process / "comm").read_text(encoding="utf-8").strip()
                found.append(f"{name} (process {process.name})")
        except OSError:
            continue  # ended meanwhile, or not ours to see
    return found


def _listed_holders(port: Path) -> list[str]:
    try:
        told = subprocess.run(
            ["lsof", "-F", "pc", "--", str(port)],
            capture_output=True, encoding="utf-8", errors="replace", timeout=5, check=False,
        ).stdout.splitlines()  # fmt: skip
    except (OSError, subprocess.SubprocessError):
        return []
    numbers = [line[1:] for line in told if line.startswith("p")]
    names = [line[1:] for line in told if line.startswith("c")]
    return [f"{name} (process {number})" for name, number in zip(names, numbers, strict=False)]


def may_not(port: Path) -> str:
    """The cure if we may not use a port."""
    return f"Join its group: sudo usermod -aG {port.group()} $USER."


class PseudoTerminal:
    """A serial port whose far end is here: see `ends.FarEnd`."""

    def __init__(self) -> None:
        self._ours, self._theirs = os.openpty()
        tty.setraw(self._theirs)
        os.set_blocking(self._ours, False)
        self.address = os.ttyname(self._theirs)

    def take(self, wait_s: float) -> bytes | None:
        if not select.select([self._ours], [], [], wait_s)[0]:
            return b""
        try:
            data = os.read(self._ours, 65536)
        except BlockingIOError:
            return b""
        except OSError:  # how Linux says that the near end is closed
            return None
        self.hang_up()  # the sender has it open now: let its leaving be seen
        return data or None

    def give(self, data: bytes) -> None:
        with suppress(OSError):  # nobody reads
            os.write(self._ours, data)

    def hang_up(self) -> None:
        if self._theirs >= 0:
            os.close(self._theirs)
            self._theirs = -1

    def close(self) -> None:
        self.hang_up()
        if self._ours >= 0:
            os.close(self._ours)
            self._ours = -1


class DeviceFile:
    """A device, or a pipe, that is read as a file: see `devices`. Raises OSError."""

    def __init__(self, path: Path) -> None:
        self._file = os.open(path, os.O_RDONLY | os.O_NONBLOCK)
        self._is_device = stat.S_ISCHR(os.fstat(self._file).st_mode)

    def take(self, wait_s: float) -> bytes:
        if not select.select([self._file], [], [], wait_s)[0]:
            return b""
        data = os.read(self._file, 4096)
        if not data and self._is_device:
            raise OSError(19, "it was unplugged")
        if not data:  # a pipe without a writer at the moment
            select.select([], [], [], wait_s)
        return data

    def close(self) -> None:
        if self._file >= 0:
            with suppress(OSError):
                os.close(self._file)
            self._file = -1


class NamedPipe:
    """A pipe with a name, to write into: see `devices`. Raises OSError."""

    def __init__(self, path: Path) -> None:
        with suppress(FileExistsError):
            os.mkfifo(path)
        self._path = path
        self._pipe = os.open(path, os.O_RDWR | os.O_NONBLOCK)

    def give(self, data: bytes) -> None:
        with suppress(BlockingIOError):  # nobody reads
            os.write(self._pipe, data)

    def close(self) -> None:
        os.close(self._pipe)
        self._path.unlink(missing_ok=True)


def lights() -> dict[str, bool]:
    """Which lights of the keyboards are on, by name: that of Caps Lock on macOS. A device of Linux
    tells them itself.
    """
    if sys.platform != "darwin":
        return {}
    quartz = importlib.import_module("Quartz")
    return {"caps": bool(quartz.CGEventSourceFlagsState(_OF_DEVICES) & _CAPS)}


class SharedMemory:
    """Memory that another program shares by a name, to read: see `shared`. Raises OSError."""

    def __init__(self, name: str) -> None:
        file = _posixshmem.shm_open(f"/{name.removeprefix('/')}", os.O_RDONLY, 0)
        try:
            self._view = mmap.mmap(file, 0, access=mmap.ACCESS_READ)
        except ValueError as exc:
            raise OSError(22, "it is empty") from exc
        finally:
            os.close(file)

    def read(self, most: int) -> bytes:
        return self._view[:most]

    def close(self) -> None:
        self._view.close()
