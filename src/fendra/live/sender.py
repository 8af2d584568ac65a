"""Senders: a thread for each output, which takes frames from its mailbox and keeps it going."""

from __future__ import annotations

import time
from collections.abc import Callable
from threading import Event, Thread

from fendra.core.document.design import Design
from fendra.core.errors import OutputError
from fendra.core.film import Frame
from fendra.live.mailbox import Mailbox
from fendra.live.trouble import Trouble
from fendra.outputs import Output


class Sender(Thread):
    """Opens an output, and again whenever it fails; sends the newest frame, in the end the last.

    name: the output's, in the design. sent: frames delivered. busy_s: how long a frame takes to be
    delivered, lately. last: the last frame that was.
    """

    def __init__(
        self, name: str, output: Output, design: Design,
        tell: Callable[[str], object] = lambda _: None, *,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:  # fmt: skip
        super().__init__(name=f"sends to {name}", daemon=True)
        self.output, self.output_name = output, name
        self.mailbox: Mailbox[Frame] = Mailbox()
        self.trouble = Trouble(str(output), tell)
        self.sent = 0
        self.busy_s = 0.0
        self.last: Frame | None = None
        self._design, self._clock = design, clock
        self._is_over = Event()

    def end(self) -> None:
        """Send what is still in the mailbox, and end; what fails now is not tried again."""
        self._is_over.set()
        self.mailbox.close()

    def run(self) -> None:
        while True:
            try:
                self.output.open(self._design)
                self._send_on()
                return
            except OutputError as exc:
                wait_s = self.trouble.failed(exc)
            except Exception as exc:  # a driver of somebody's own may do anything
                wait_s = self.trouble.failed(
                    OutputError(f"{self.output}: {type(exc).__name__}: {exc}")
                )
            finally:
                self.output.close()
            if self._is_over.wait(wait_s):
                return

    def _send_on(self) -> None:
        while (frame := self.mailbox.take()) is not None:
            if frame.design is not self._design:
                self._design = frame.design
                self.output.use(self._design)
            start_s = self._clock()
            self.output.send(frame)
            self.busy_s += (self._clock() - start_s - self.busy_s) * 0.1
            self.sent += 1
            self.last = frame
            self.trouble.works()
