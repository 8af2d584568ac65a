"""This interpreter without what Windows lacks: Fendra's room of systems takes its Windows form, with
a console and timers made up here; no module of Fendra can import a module of Unix alone.

It is installed for a test run by the plugin beside it, and for programs that tests start by
`sitecustomize`.
"""

from __future__ import annotations

import builtins
import ctypes
import importlib.machinery
import os
import signal
import sys
import types
from collections import deque

GONE = ("termios", "tty", "pty", "fcntl", "grp", "pwd", "resource", "evdev")
TRUE_PLATFORM = sys.platform
CALLS = (
    "openpty", "mkfifo", "getpgrp", "tcgetpgrp", "killpg", "fork", "getuid", "chown", "set_blocking",
)  # fmt: skip


class Console:
    """A console of Windows: the calls that came, and keys that wait to be read."""

    def __init__(self) -> None:
        self.calls: list[tuple[str, tuple[object, ...]]] = []
        self.keys: deque[str] = deque()
        self.handlers: list[object] = []

    def __getattr__(self, name: str) -> object:
        if name.startswith("_"):
            raise AttributeError(name)

        def call(*words: object) -> int:
            self.calls.append((name, words))
            if name == "SetConsoleCtrlHandler":
                handler, is_added = words
                (self.handlers.append if is_added else self.handlers.remove)(handler)
            return 1

        return call

    def kbhit(self) -> bool:
        return bool(self.keys)

    def getwch(self) -> str:
        return self.keys.popleft()


CONSOLE = Console()


class _WindowsForms:
    """Finds the modules of the rooms that know systems, and runs each as on Windows."""

    def find_spec(self, name, path=None, target=None):
        if not name.startswith(("fendra.system.", "fendra.computer.")):
            return None
        spec = importlib.machinery.PathFinder.find_spec(name, path, target)
        run = spec.loader.exec_module

        def exec_module(module):
            before, sys.platform = sys.platform, "win32"
            try:
                run(module)
            finally:
                sys.platform = before

        spec.loader.exec_module = exec_module
        return spec


def install() -> None:
    """Take away what Windows lacks, for code of Fendra; once."""
    if any(isinstance(finder, _WindowsForms) for finder in sys.meta_path):
        return
    sys.meta_path.insert(0, _WindowsForms())
    msvcrt = types.ModuleType("msvcrt")
    msvcrt.kbhit, msvcrt.getwch = CONSOLE.kbhit, CONSOLE.getwch
    ctypes.windll = types.SimpleNamespace(
        kernel32=CONSOLE, winmm=CONSOLE, user32=CONSOLE, shell32=CONSOLE, powrprof=CONSOLE
    )
    ctypes.WINFUNCTYPE = ctypes.CFUNCTYPE
    signal.SIGBREAK = signal.SIGUSR2
    sys.modules["evdev"] = None
    usual = builtins.__import__

    def import_(name, globals=None, locals=None, fromlist=(), level=0):
        whose = (globals or {}).get("__name__", "")
        if name == "msvcrt" and whose.startswith("fendra."):
            return msvcrt
        if whose.startswith("fendra.") and level == 0 and name.partition(".")[0] in GONE:
            raise ModuleNotFoundError(f"No module named '{name}' (as on Windows)", name=name)
        here = sys.platform
        if not name.startswith("fendra"):  # the packages that it imports are those of this system
            sys.platform = TRUE_PLATFORM
        try:
            return usual(name, globals, locals, fromlist, level)
        finally:
            sys.platform = here

    builtins.__import__ = import_
    for name in CALLS:
        _take_away(name)


def _take_away(name: str) -> None:
    """A call of the system that code of Fendra cannot make."""
    usual = getattr(os, name)

    def call(*words, **options):
        whose = sys._getframe(1).f_globals.get("__name__", "")
        if whose.startswith("fendra."):
            raise AttributeError(f"module 'os' has no attribute '{name}' (as on Windows)")
        return usual(*words, **options)

    setattr(os, name, call)
