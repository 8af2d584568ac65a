"""A run's demands on its process: a clean end by signals, and quiet for its frames.

A program that owns its process, as the command line does, runs a session inside of both. A library
that is one guest among others leaves them out.
"""

from __future__ import annotations

import gc
import signal
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from queue import SimpleQueue
from threading import Event, Thread

from fendra.system.process import STOPS, fine_timers, told_of_closing

SWITCH_S = 0.0005
"""How long another thread may keep Python from the loop, as one that compiles a saved design."""


@contextmanager
def undisturbed() -> Iterator[None]:
    """While the block runs, Python's own work delays no frame: threads switch quickly, timers are
    fine, and the garbage collector skips the objects that exist now.
    """
    before_s = sys.getswitchinterval()
    sys.setswitchinterval(SWITCH_S)
    gc.collect()
    keep_quiet()
    try:
        with fine_timers():
            yield
    finally:
        gc.unfreeze()
        sys.setswitchinterval(before_s)


RELOADS = 16
"""Clear what old designs left after this many reloads; that takes a few frames."""
_reloads = 0


def keep_quiet() -> None:
    """Let what there is by now, as a reloaded design, not be looked through for rubbish either."""
    global _reloads  # noqa: PLW0603 - it counts for the whole process
    _reloads += 1
    if _reloads % RELOADS == 0:
        gc.unfreeze()
        gc.collect()
    gc.freeze()


IMPATIENT = 3
"""The number of Ctrl-C that end a run at once, without a clean end."""


@contextmanager
def stopped_by_signals(stop: Callable[[], object]) -> Iterator[None]:
    """While the block runs, Ctrl-C, Ctrl-Break, SIGTERM and a closed terminal end it cleanly,
    however often they come; the third Ctrl-C ends it at once.

    stop: called by a thread of its own. A signal may come while the main thread holds the lock
    that `stop` needs, and the two would wait for each other.
    """
    pressed = 0
    asked: SimpleQueue[bool] = SimpleQueue()

    def end(number: int, _frame: object) -> None:
        nonlocal pressed
        pressed += number == signal.SIGINT
        if pressed >= IMPATIENT:
            raise KeyboardInterrupt
        asked.put(True)

    def stop_when_asked() -> None:
        while asked.get():
            stop()

    stopper = Thread(target=stop_when_asked, name="stop", daemon=True)
    stopper.start()
    over = Event()
    before = {}
    try:
        for number in (getattr(signal, name) for name in STOPS):
            before[number] = signal.signal(number, end)
    except ValueError:  # not the main thread: whoever runs it ends it
        before = {}
    try:
        with told_of_closing(lambda: asked.put(True), over):
            yield
    finally:
        over.set()
        for number, handler in before.items():
            signal.signal(number, handler)
        asked.put(False)
        stopper.join(1)
