"""The live loop: frames at an even rate, handed to an output that may be slow.

The loop never waits for the output, which has a thread and a mailbox of its own, and never
makes up for frames that are late: it goes on with the newest.
"""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass
from threading import Thread

from fendra.core.errors import OutputError
from fendra.core.film import Frame
from fendra.core.program import Program
from fendra.live.mailbox import Mailbox
from fendra.outputs import Output
from fendra.sources import Source


@dataclass(frozen=True)
class RunReport:
    """What a run came to.

    rendered: frames made. sent: frames delivered. replaced: frames that a newer one took the
    place of, since the output was busy. late: frames left out, since the loop was late.
    limited: frames that a limiter held back; least: the smallest share of the light that it let
    through, 0 to 1. last: the last frame delivered, if any. seconds: how long it ran.
    """

    rendered: int
    sent: int
    replaced: int
    late: int
    limited: int
    least: float
    last: Frame | None
    seconds: float


class _Sender(Thread):
    """Takes frames from a mailbox to an open output, until the mailbox closes or it fails."""

    def __init__(self, output: Output) -> None:
        super().__init__(name=f"sends to {output}", daemon=True)
        self.output = output
        self.mailbox: Mailbox[Frame] = Mailbox()
        self.last: Frame | None = None
        self.error: OutputError | None = None

    def run(self) -> None:
        while (frame := self.mailbox.take()) is not None:
            try:
                self.output.send(frame)
            except OutputError as exc:
                self.error = exc
                return
            self.last = frame


def run_live(
    program: Program,
    source: Source,
    output: Output,
    *,
    progress: Callable[[float], None] | None = None,
    clock: Callable[[], float] = time.monotonic,
    sleep: Callable[[float], None] = time.sleep,
) -> RunReport:
    """Run a program on a source's news until the source ends; frames go to the output.

    News of signals that the program does not take is left out.

    progress: called after each frame with the seconds since the beginning. clock, sleep: for
    tests. A KeyboardInterrupt ends the run as the end of the source does. Raises OutputError
    where the output cannot be opened or fails.
    """
    rate = program.design.rate
    program.reset()
    output.open(program.design)
    sender = _Sender(output)
    sender.start()
    start = clock()
    place = late = rendered = limited = 0
    least = 1.0
    try:
        while not source.has_ended(place / rate) and sender.error is None:
            at_s = place / rate
            news = {name: v for name, v in source.news(at_s).items() if name in program.fed}
            frame = program.frame(news, at=at_s)
            sender.mailbox.put(frame)
            rendered += 1
            share = min(frame.let_through.values(), default=1.0)
            limited, least = limited + (share < 1.0), min(least, share)
            if progress is not None:
                progress(at_s)
            now_s = clock() - start
            behind = max(int(now_s * rate) - (place + 1), 0)
            late += behind
            place += 1 + behind
            sleep(max(place / rate - now_s, 0.0))
    except KeyboardInterrupt:
        pass  # the usual way to end a run
    finally:
        sender.mailbox.close()
        sender.join()
        output.close()
    if sender.error is not None:
        raise sender.error
    replaced = sender.mailbox.replaced
    seconds = clock() - start
    return RunReport(rendered, output.sent, replaced, late, limited, least, sender.last, seconds)
