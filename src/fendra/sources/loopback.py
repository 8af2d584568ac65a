"""What the computer itself plays: the monitor of an output, by the package soundcard.

PulseAudio and PipeWire have a monitor of each output, and Windows lends what an output plays
(WASAPI). macOS gives it to no program; a virtual sound device of its user's can.
"""

from __future__ import annotations

import warnings
from collections.abc import Callable
from threading import Event, Thread
from typing import Any

from fendra.core.errors import NEVER, SourceError
from fendra.core.names import listed
from fendra.sources import package
from fendra.system.process import NAME

RATE_HZ, BLOCK = 48_000, 480
"""Samples a second, and at a time: 10 ms."""
NO_LOOPBACK = (
    "macOS lends it to no program. Install a virtual sound device, send the sound there, and name "
    "it, as in audio:NAME"
)


def monitors() -> list[tuple[str, Any]]:
    """The outputs that can be listened to: their names, and soundcard's microphones of them."""
    soundcard = package("soundcard")
    found = [each for each in soundcard.all_microphones(include_loopback=True) if each.isloopback]
    return [(str(each.name).removeprefix("Monitor of "), each) for each in found]


class Loopback:
    """Listens to what an output plays. take: gets each block, (n, 1) float32. name: a part of the
    output's name; the usual output if empty. Raises SourceError. latency_s: from a sound to its
    block. active: whether it goes on.
    """

    samplerate = RATE_HZ
    latency_s = BLOCK / RATE_HZ

    def __init__(self, name: str, take: Callable[[Any], None]) -> None:
        if NAME == "macos":
            raise SourceError(f"what the computer plays cannot be heard: {NO_LOOPBACK}", code=NEVER)
        self._microphone = self._found(name)
        self._take, self._over = take, Event()
        self._opened, self.problem = Event(), ""
        self._thread = Thread(target=self._run, name="loopback", daemon=True)
        self._thread.start()
        self._opened.wait(5)
        if self.problem:
            raise SourceError(f"what the computer plays cannot be heard: {self.problem}")

    @staticmethod
    def _found(name: str) -> Any:
        try:
            every = monitors()
            wanted = name or str(package("soundcard").default_speaker().name)
        except SourceError:
            raise
        except Exception as exc:  # each system has errors of its own
            told = f" ({str(exc)[:100]})" if str(exc) else ""
            who = "neither PulseAudio nor PipeWire" if NAME == "linux" else "no sound device"
            problem = f"what the computer plays cannot be heard: {who} answers{told}"
            raise SourceError(problem, code=NEVER) from exc
        for theirs, microphone in every:
            if wanted.casefold() in theirs.casefold():
                return microphone
        names = listed([theirs for theirs, _ in every]) if every else "none"
        raise SourceError(f"there is no output like '{wanted}'; here: {names}", code=NEVER)

    def _run(self) -> None:
        try:
            with warnings.catch_warnings():
                warnings.simplefilter("ignore")  # gaps in the sound
                recorder = self._microphone.recorder(
                    samplerate=RATE_HZ, channels=1, blocksize=BLOCK
                )
                with recorder as sound:
                    self._opened.set()
                    while not self._over.is_set():
                        self._take(sound.record(numframes=BLOCK))
        except Exception as exc:  # each system has errors of its own
            self.problem = str(exc)[:100] or type(exc).__name__
            self._opened.set()

    @property
    def active(self) -> bool:
        return self._thread.is_alive()

    def close(self) -> None:
        """Listen no more."""
        self._over.set()
        self._thread.join(1.0)
