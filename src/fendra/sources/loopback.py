"""What the computer itself plays: the monitor of an output, by the package soundcard.

PulseAudio and PipeWire have a monitor of each output, and Windows lends what an output plays
(WASAPI). macOS gives it to no program; a virtual sound device of its user's can.

The package runs in a process of its own: where the sound server ends, its library may end the
process with it, and that must not be the run's.
"""

from __future__ import annotations

import contextlib
import subprocess
import sys
import warnings
from collections.abc import Callable
from threading import Thread
from typing import Any

import numpy as np

from fendra.core.errors import NEVER, SourceError
from fendra.core.names import listed
from fendra.core.quoting import visible
from fendra.sources import package
from fendra.system.process import NAME

RATE_HZ, BLOCK = 48_000, 480
"""Samples a second, and at a time: 10 ms."""
READY = b"+"
"""The first byte that the process writes; blocks of float32 follow."""
NO_LOOPBACK = (
    "macOS lends it to no program. Install a virtual sound device, send the sound there, and name "
    "it, as in audio:NAME"
)


def monitors() -> list[tuple[str, Any]]:
    """The outputs that can be listened to: their names, and soundcard's microphones of them."""
    soundcard = package("soundcard")
    found = [each for each in soundcard.all_microphones(include_loopback=True) if each.isloopback]
    return [(str(each.name).removeprefix("Monitor of "), each) for each in found]


def find_monitor(name: str) -> Any:
    """The output whose name has this text; the usual output if it is empty. Raises SourceError."""
    try:
        every = monitors()
        wanted = name or str(package("soundcard").default_speaker().name)
    except SourceError:
        raise
    except Exception as exc:  # each system has errors of its own
        told = f" ({str(exc)[:100]})" if str(exc) else ""
        who = "neither PulseAudio nor PipeWire" if NAME == "linux" else "no sound device"
        raise SourceError(f"{who} answers{told}") from exc
    for theirs, microphone in every:
        if wanted.casefold() in theirs.casefold():
            return microphone
    names = listed([theirs for theirs, _ in every]) if every else "none"
    raise SourceError(f"there is no output like '{wanted}'; here: {names}")


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
        self._thread: Thread | None = None
        self._process = subprocess.Popen(
            [sys.executable, "-P", "-m", "fendra.sources.loopback", name],
            stdin=subprocess.DEVNULL, stdout=subprocess.PIPE, stderr=subprocess.PIPE,
        )  # fmt: skip
        assert self._process.stdout is not None
        if self._process.stdout.read(1) != READY:
            problem = self._said()
            self.close()
            raise SourceError(f"what the computer plays cannot be heard: {problem}", code=NEVER)
        self._take = take
        self._thread = Thread(target=self._run, name="loopback", daemon=True)
        self._thread.start()

    def _said(self) -> str:
        """The last line that the process wrote about its end."""
        assert self._process.stderr is not None
        lines = self._process.stderr.read().decode("utf-8", errors="replace").strip().splitlines()
        return visible(lines[-1][:200]) if lines else "its process has ended"

    def _run(self) -> None:
        assert self._process.stdout is not None
        with contextlib.suppress(OSError, ValueError):  # it is closed
            while len(data := self._process.stdout.read(BLOCK * 4)) == BLOCK * 4:
                self._take(np.frombuffer(data, np.float32).reshape(-1, 1))

    @property
    def active(self) -> bool:
        return self._process.poll() is None

    def close(self) -> None:
        """Listen no more."""
        self._process.terminate()
        self._process.wait()
        if self._thread is not None:
            self._thread.join(1)
        for pipe in (self._process.stdout, self._process.stderr):
            if pipe is not None:
                pipe.close()


def main() -> None:
    """Write what an output plays to standard output, until nobody reads it."""
    warnings.simplefilter("ignore")  # gaps in the sound
    try:
        microphone = find_monitor(sys.argv[1])
        recorder = microphone.recorder(samplerate=RATE_HZ, channels=1, blocksize=BLOCK)
    except Exception as exc:
        sys.exit(str(exc) or type(exc).__name__)
    with recorder as sound, contextlib.suppress(BrokenPipeError, KeyboardInterrupt):
        sys.stdout.buffer.write(READY)
        while True:
            block = sound.record(numframes=BLOCK)
            sys.stdout.buffer.write(np.ascontiguousarray(block, np.float32).tobytes())
            sys.stdout.buffer.flush()


if __name__ == "__main__":
    main()
