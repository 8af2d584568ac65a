"""The program, called as from a shell."""

from __future__ import annotations

import signal
import sys
import threading
import time

import pytest

from fendra.cli import app


@pytest.fixture
def fendra(monkeypatch, capsys, tmp_path):
    """Calls the program in an empty folder; gives exit code, output and errors."""
    monkeypatch.chdir(tmp_path)

    def call(*words):
        monkeypatch.setattr(sys, "argv", ["fendra", *map(str, words)])
        with pytest.raises(SystemExit) as caught:
            app.main()
        seen = capsys.readouterr()
        return caught.value.code or 0, seen.out, seen.err

    return call


@pytest.fixture
def fendra_until(fendra):
    """Calls the program, and presses Ctrl-C as soon as something is seen; as `fendra` otherwise."""

    def call(*words, seen, seconds=60.0):
        over, lock = threading.Event(), threading.Lock()
        until_s = time.monotonic() + seconds

        def watch():
            while not (seen() or time.monotonic() > until_s):
                if over.wait(0.005):
                    return
            with lock:
                if not over.is_set():
                    signal.pthread_kill(threading.main_thread().ident, signal.SIGINT)

        watcher = threading.Thread(target=watch, daemon=True)
        watcher.start()
        said = fendra(*words)
        with lock:
            over.set()
        watcher.join(5)
        return said

    return call
