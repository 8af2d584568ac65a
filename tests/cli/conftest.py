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
    """Calls the program, and presses Ctrl-C as soon as something is seen; as `fendra` otherwise.
    Fails where it is not seen, and where the program goes on after the first Ctrl-C.
    """

    def call(*words, seen, seconds=60.0):
        over, lock, wrong = threading.Event(), threading.Lock(), []

        def press():
            with lock:
                if over.is_set():
                    return
                if sys.platform == "win32":
                    signal.raise_signal(signal.SIGINT)  # it wakes the main thread there
                else:
                    signal.pthread_kill(threading.main_thread().ident, signal.SIGINT)

        def watch():
            try:
                until_s = time.monotonic() + seconds
                while not (over.wait(0.005) or seen()):
                    if time.monotonic() > until_s:
                        wrong.append("what was waited for was not seen")
                        break
            except BaseException as exc:
                wrong.append(exc)
                raise
            finally:
                press()
            while not over.wait(20):
                wrong.append("Ctrl-C did not end it")
                press()

        watcher = threading.Thread(target=watch, daemon=True)
        before = signal.signal(signal.SIGINT, signal.default_int_handler)  # nohup ignores it
        watcher.start()
        try:
            said = fendra(*words)
        finally:
            with lock:
                over.set()
            signal.signal(signal.SIGINT, before)
        watcher.join(5)
        assert not wrong, (wrong, *said)
        return said

    return call
