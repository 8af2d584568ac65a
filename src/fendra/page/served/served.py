"""The server's subject: a run or the bench, with all that a page may ask of it."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import cached_property
from typing import TYPE_CHECKING

from fendra.core.arrays import Bytes
from fendra.core.checks.examine import Examined
from fendra.core.film import Frame, as_seen
from fendra.core.version import VERSION
from fendra.live.steering import Steering
from fendra.live.watch import Watch
from fendra.page import data
from fendra.page.served.access import Gate, Right
from fendra.page.served.bench import LiveBench
from fendra.page.served.cues import Cues
from fendra.page.served.desk import Desk
from fendra.page.served.streams import Streams

if TYPE_CHECKING:
    from fendra.draw.glow import Stage

EVERY_S = 1.0
"""Over how long the share of a processor is taken."""


class Shares:
    """The shares of one processor that two threads take, over about a second."""

    def __init__(self, clock: Callable[[], float] = time.perf_counter) -> None:
        self._clock = clock
        self._since: tuple[float, float, float] | None = None
        self._known = (0.0, 0.0)

    def of(self, loop_s: float, page_s: float) -> tuple[float, float]:
        """The shares over the last second. loop_s, page_s: how long each has worked in all."""
        now_s = self._clock()
        if self._since is None:
            self._since = now_s, loop_s, page_s
        passed_s = now_s - self._since[0]
        if passed_s >= EVERY_S:
            _, loop, page = self._since
            self._known = (
                round(max(loop_s - loop, 0.0) / passed_s, 4),
                round(max(page_s - page, 0.0) / passed_s, 4),
            )
            self._since = now_s, loop_s, page_s
        return self._known


@dataclass
class Served:
    """A run, with `watch` and `steering`, or the bench, with `bench`.

    gate: who may. cues: what was kept. desk: the design's file; None if it may not be changed.
    """

    gate: Gate
    watch: Watch | None = None
    steering: Steering | None = None
    bench: LiveBench | None = None
    cues: Cues | None = None
    desk: Desk | None = None
    shares: Shares = field(default_factory=Shares)
    _drawn: tuple[Examined, Stage] | None = None

    @cached_property
    def streams(self) -> Streams:
        """The streams for pages."""
        streams = Streams(self)
        if self.watch is not None:
            self.watch.told.append(streams.frame)
        if self.steering is not None:
            self.steering.changed.append(streams.changed)
        if self.bench is not None:
            self.bench.told.append(streams.frame)
            self.bench.changed.append(streams.changed)
        return streams

    @property
    def examined(self) -> Examined:
        """The design as it is now."""
        if self.bench is not None:
            return self.bench.examined
        assert self.steering is not None
        return self.steering.read

    def hello(self, right: Right) -> data.Hello:
        """The first message to a page."""
        return data.Hello(
            kind="hello",
            version=VERSION,
            right=int(right),
            has_desk=self.desk is not None and right >= Right.OWN,
            is_bench=self.bench is not None,
        )

    def look(self, by: int) -> None:
        """So many more look, or fewer."""
        if self.watch is not None:
            self.watch.look(by)

    def newest_frame(self) -> Frame | None:
        """The frame that is shown now."""
        if self.bench is not None:
            return self.bench.frame
        return None if self.watch is None else self.watch.frame

    def rgb(self, frame: Frame) -> Bytes:
        """A frame as the eye sees it, a row for each spot of the design: (n, 3) uint8."""
        if self.bench is None:
            return frame.seen
        subject = self.bench.examined.subject
        return as_seen(self.bench.shown(frame), subject.layout, subject.design)

    def state(self) -> data.State:
        """The state of what is served."""
        if self.bench is not None:
            return _state_of_bench(self.bench)
        assert self.watch is not None
        known = self.watch.state()
        loop, page = self.shares.of(self.watch.loop.cpu_s, self.streams.cpu_s)
        rate = {**known.pop("rate"), "loop": loop, "page": page}
        cues = self.cues.names() if self.cues is not None else []
        return data.State.model_validate(
            {
                **known, "kind": "state", "rate": rate, "cues": cues, "bench": None,
                "file": self.desk.stamp() if self.desk is not None else "",
            }
        )  # fmt: skip

    def picture(self) -> bytes:
        """The newest frame as a PNG, 640 by 400 pixels. Raises ValueError without a frame."""
        from io import BytesIO

        from PIL import Image

        frame = self.newest_frame()
        if frame is None:
            raise ValueError("there is no frame yet")
        stage = self._stage()
        rgb = self.rgb(frame)
        if len(stage.layout) != len(rgb):
            raise ValueError("the design has just changed; ask again")
        held = BytesIO()
        Image.fromarray(stage.lit(rgb)).save(held, "PNG")
        return held.getvalue()

    def _stage(self) -> Stage:
        from fendra.core.layout.views import best_view
        from fendra.draw.glow import Stage

        examined = self.examined
        if self._drawn is None or self._drawn[0] is not examined:
            layout = examined.subject.layout
            view = best_view(layout.leds.position, layout.leds.facing)
            stage = Stage(examined.subject.design, layout, (640, 400), view)
            self._drawn = examined, stage
        return self._drawn[1]


def _state_of_bench(bench: LiveBench) -> data.State:
    design = bench.design
    frame = bench.frame
    return data.State(
        kind="state", design=design.name, at_s=0.0 if frame is None else frame.at_s,
        running_s=0.0, engine="",
        rate=data.Pace(**dict.fromkeys(data.Pace.model_fields, 0)),
        on=True, level=1.0, scene=None, scene_by_hand=None, scenes=[], signals=[], layers=[],
        sources=[], outputs=[], supplies=[], cues=[], pages=0, file="",
        bench=bench.state(),
    )  # fmt: skip
