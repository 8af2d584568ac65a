"""Senders: a thread for each output, which takes frames from its mailbox and keeps it going."""

from __future__ import annotations

import time
from collections.abc import Callable
from threading import Event, Thread

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, OutputError, internal_error
from fendra.core.film import Frame
from fendra.core.layout import Layout
from fendra.live.mailbox import Mailbox
from fendra.live.trouble import Trouble
from fendra.outputs import Output


class Sender(Thread):
    """Opens an output, and again whenever it fails; sends the newest frame, in the end the last.

    name: the output's, in the design. sent: frames delivered. busy_s: how long a frame takes to be
    delivered, lately. last: the last frame that was. loss: what was made and is lost, when it ends.
    can_never: it has sent nothing, and waiting does not mend that.
    layout: whose rows the frames have, if it is not the design's own, as on the bench.
    """

    def __init__(
        self, name: str, output: Output, design: Design,
        tell: Callable[[str], object] = lambda _: None, *,
        layout: Layout | None = None, clock: Callable[[], float] = time.perf_counter,
    ) -> None:  # fmt: skip
        super().__init__(name=f"sends to {name}", daemon=True)
        self.output, self.output_name = output, name
        self.mailbox: Mailbox[Frame] = Mailbox()
        self.trouble = Trouble(str(output), tell)
        self.sent = 0
        self.busy_s = 0.0
        self.loss = ""
        self.can_never = False
        self.last: Frame | None = None
        self._design, self._layout, self._clock = design, layout, clock
        self._is_over = Event()

    def end(self) -> None:
        """Send what is still in the mailbox, and end. A failure now is not retried."""
        self._is_over.set()
        self.mailbox.close()

    def run(self) -> None:
        while not self._works(self._serve) and not self._is_over.wait(self.trouble.wait_s):
            pass
        before = self.trouble.problem
        if not self._works(self.output.finish, is_last=True):
            self.loss = self.trouble.problem
        elif before:
            self.trouble.problem = before

    def _serve(self) -> None:
        """Open the output and send to it until it fails or all is over."""
        try:
            self.output.open(self._design, self._layout)
            self._send_on()
        finally:
            self.output.close()

    def _works(self, work: Callable[[], None], *, is_last: bool = False) -> bool:
        """Whether some work succeeded; a failure is reported."""
        try:
            work()
        except OutputError as exc:
            self.can_never = exc.code == NEVER and not self.sent
            self.trouble.failed(exc, is_last=is_last or self._is_over.is_set())
        except Exception as exc:  # a driver of somebody's own may do anything
            error = internal_error(exc, f"in {self.output}")
            self.trouble.failed(OutputError(error), is_last=is_last or self._is_over.is_set())
        else:
            return True
        return False

    def _send_on(self) -> None:
        while (frame := self.mailbox.take()) is not None:
            if frame.design is not self._design:
                self._design = frame.design
                if self._layout is not None:
                    self._layout = frame.layout
                self.output.use(self._design, self._layout)
            start_s = self._clock()
            self.output.send(frame)
            self.busy_s += (self._clock() - start_s - self.busy_s) * 0.1
            self.sent += 1
            self.last = frame
            self.can_never = False
            self.trouble.works()
            self.trouble.note(self.output.notice)
