"""Memory that a simulator shares on this computer, read again and again.

What its bytes are is told as for UDP: `fields`, `packets` or `layout`. It is only read.
"""

from __future__ import annotations

import re
import time
from collections.abc import Callable
from typing import Annotated, Any

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError, reason
from fendra.core.layout import Layout
from fendra.core.limits import PACKET_BYTES
from fendra.sources import News, Source
from fendra.sources.binary import BinaryOptions
from fendra.system.shared import SharedMemory

LOOK_S = 2.0
"""How often the name is looked up anew, in seconds."""
TRIES = 3
"""How often the memory is copied until two copies agree: its writer may be at it."""
NAME = r"[^/\\\0]+(\\[^/\\\0]+)?"
"""A name; on Windows `Local\\NAME` and `Global\\NAME` are names as well."""


class MemoryOptions(BinaryOptions):
    """Options of shared memory.

    Attributes:
        address: the name that its program gives it
        rate: how often it is read, Hz
        alive: the field that changes while the program runs, such as a count of frames; while it
            stands still, nothing is news
    """

    address: Annotated[str, Field(min_length=1, max_length=200)]
    rate: Annotated[float, Field(gt=0, le=500)] = 60.0
    alive: str = ""


class MemorySource(Source):
    """Memory of a simulator."""

    Options = MemoryOptions
    options: MemoryOptions
    example = "memory:rally,layout=rally.toml"

    def __init__(
        self, address: str = "", *, clock: Callable[[], float] = time.perf_counter,
        sleep: Callable[[float], None] = time.sleep, **options: Any,
    ) -> None:  # fmt: skip
        super().__init__(address, **options)
        self._clock, self._sleep = clock, sleep
        self._memory: SharedMemory | None = None

    def __str__(self) -> str:
        return f"memory {self.options.address}"

    def check_files(self) -> None:
        """Check the layout of its bytes."""
        self.options.decoder(self.folder)

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        if not re.fullmatch(NAME, self.options.address):
            raise SourceError(f"'{self.options.address}' is no name of memory", code=NEVER)
        decoder = self.options.decoder(self.folder)
        if decoder is None:
            problem = "write `fields` or `layout`: they say what its bytes are"
            raise SourceError(f"{self}: {problem}", code=NEVER)
        self._decoder = decoder
        self._look()
        self._due_s = self._clock()
        self._sign: Any = None

    def _look(self) -> None:
        """Take the memory of this name as it is now: a program that began again has another."""
        self._close()
        try:
            self._memory = SharedMemory(self.options.address)
        except FileNotFoundError as exc:
            raise SourceError(f"{self} is not there; is its program running?") from exc
        except OSError as exc:
            raise SourceError(f"{self} cannot be read: {reason(exc)}") from exc
        self._looked_s = self._clock()

    def _read(self, wait_s: float) -> News:
        left_s = self._due_s - self._clock()
        if left_s > 0:
            self._sleep(min(left_s, wait_s))
            if left_s > wait_s:
                return ()
        if self._clock() - self._looked_s > LOOK_S:
            self._look()
        period_s = 1 / self.options.rate
        self._due_s = max(self._due_s + period_s, self._clock() - period_s)
        try:
            found = self._decoder.decode(self._copied(), goes_on=True)
        except ValueError as exc:
            self.refuse(str(exc))
            return ()
        if self.options.alive:
            sign = found.get(self.options.alive)
            if sign == self._sign:
                return ()
            self._sign = sign
        return found.items()

    def _copied(self) -> bytes:
        assert self._memory is not None
        before = self._memory.read(PACKET_BYTES.most)
        for _ in range(TRIES):
            after = self._memory.read(PACKET_BYTES.most)
            if after == before:
                break
            before = after
        return before

    def _close(self) -> None:
        if self._memory is not None:
            self._memory.close()
            self._memory = None
