"""The state of a run, for its page: signals as layers read them, sources, outputs, pace, supplies.

The loop computes none of it. It hands over a frame and its new values; the watcher takes the newest
and works out the rest in its own thread.
"""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable, Mapping
from threading import Lock
from typing import Any

import numpy as np

from fendra.core.composition.record import WHY
from fendra.core.film import Frame
from fendra.live.conditioned import Conditioned
from fendra.live.loop import Loop
from fendra.live.session import Session
from fendra.live.steering import Steering, presets_of
from fendra.live.trouble import Trouble

MOST_WAITING = 500
"""Frames whose news wait for whoever looks; older ones are left out."""


class Watch:
    """Watches a session. It works nothing out while nobody looks.

    told: called from the loop's thread with each frame while somebody looks; it may not wait.
    """

    def __init__(self, session: Session, steering: Steering) -> None:
        self.session, self.steering = session, steering
        self._lock = Lock()
        self._waiting: deque[tuple[Frame, Mapping[str, Any]]] = deque(maxlen=MOST_WAITING)
        self._of = steering.running
        self._conditioned = Conditioned(self._of.subject.recorded)
        self._is_behind = True
        self._viewers = 0
        self.told: list[Callable[[Frame], object]] = []
        self.begun_s = time.time()
        session.loop.watchers.append(self._take)

    @property
    def loop(self) -> Loop:
        return self.session.loop

    @property
    def frame(self) -> Frame | None:
        """The newest frame."""
        return self.loop.frame

    def look(self, by: int) -> None:
        """So many more look, or fewer."""
        with self._lock:
            self._viewers += by
            if self._viewers <= 0:
                self._waiting.clear()
                self._is_behind = True

    @property
    def viewers(self) -> int:
        return self._viewers

    def _take(self, frame: Frame, news: Mapping[str, Any]) -> None:
        """A frame, from the loop; never waits."""
        if self._viewers > 0:
            self._waiting.append((frame, news))
            for tell in self.told:
                tell(frame)

    def _caught_up(self) -> Conditioned:
        """The signals in the newest frame."""
        running = self.steering.running
        with self._lock:
            if self._of is not running:
                self._conditioned = Conditioned(running.subject.recorded)
                self._of, self._is_behind = running, True
            if self._is_behind or self._viewers <= 0:  # frames are followed while somebody looks
                self._is_behind = False
                lost = {*self.session.inbox.lost()}
                known = {
                    name: value
                    for name, value in [*self.loop.known.items()]
                    if name.partition(".")[0].partition("[")[0] not in lost
                }
                self._conditioned.step(self.loop.program.at_s, known)
            while self._waiting:
                frame, news = self._waiting.popleft()
                self._conditioned.step(frame.at_s, news)
            return self._conditioned

    def state(self) -> dict[str, Any]:
        """All that is known of the run just now, as plain values."""
        loop, session, now_s = self.loop, self.session, time.perf_counter()
        stats, frame = loop.stats, loop.frame
        rate_hz, late_s, worst_s = stats.lately()
        design, held = self.steering.design, self.steering.held()
        conditioned = self._caught_up()
        return {
            "design": design.name,
            "at_s": round(loop.program.at_s, 3),
            "running_s": round(time.time() - self.begun_s, 1),
            "engine": loop.program.engine.name,
            "rate": {
                "wanted": design.rate,
                "now": round(rate_hz, 2),
                "late_ms": round(late_s * 1000, 3),
                "late_p99_ms": round(worst_s * 1000, 3),
                "left_out": stats.late,
                "made": stats.rendered,
            },
            "on": held["on"],
            "level": held["level"],
            "scene": loop.program.scene or None,
            "scene_by_hand": held["scene"],
            "scenes": [scene.name for scene in design.scene],
            "signals": self._signals(conditioned, held["signals"], now_s),
            "layers": [
                {
                    "name": layer.name,
                    "on": bool(_read(conditioned, f"layer:{i}:on")),
                    "preset": held["presets"].get(layer.name) or layer.preset or None,
                    "presets": presets_of(design, layer),
                }
                for i, layer in enumerate(design.layer)
            ],
            "sources": [
                {
                    "name": feeder.source_name,
                    "what": str(feeder.source),
                    "refused": feeder.source.refused,
                    "skipped": feeder.source.skipped,
                    "ended": feeder.has_ended,
                    **_trouble(feeder.trouble, now_s),
                }
                for feeder in session.feeders
            ]
            + [
                {
                    "name": str(polled), "what": str(polled), "refused": 0, "skipped": 0,
                    "ended": False, "problem": None, "since_s": None,
                }
                for polled in [*loop.polled]
            ],
            "outputs": [
                {
                    "name": sender.output_name,
                    "what": str(sender.output),
                    "sent": sender.sent,
                    "replaced": sender.mailbox.replaced,
                    "busy_ms": round(sender.busy_s * 1000, 3),
                    **_trouble(sender.trouble, now_s),
                }
                for sender in session.senders
            ],
            "supplies": [] if frame is None else self._supplies(frame),
            "pages": self._viewers,
        }  # fmt: skip

    def _signals(
        self, conditioned: Conditioned, held: Mapping[str, Any], now_s: float
    ) -> list[dict[str, Any]]:
        found = []
        lost = {*self.session.inbox.lost(now_s)}
        for name, signal in self.steering.design.signals.items():
            heard = self.session.inbox.heard.get(name)
            is_heard = heard is not None and heard.count > 0
            by_hand = None if name not in held else "lost" if held[name] is None else "set"
            is_lost = _read(conditioned, f"{WHY}lost:{name}")
            found.append(
                {
                    "name": name,
                    "value": _read(conditioned, f"{WHY}signal:{name}"),
                    "raw": _plain(heard.raw) if is_heard and heard is not None else None,
                    "lost": name in lost if is_lost is None else bool(is_lost),
                    "age_s": round(now_s - heard.at_s, 3) if is_heard and heard else None,
                    "rate_hz": round(heard.rate_hz, 2) if is_heard and heard else 0.0,
                    "source": heard.source if is_heard and heard else "",
                    "refused": heard.refused if heard else 0,
                    "problem": heard.problem if heard and heard.refused else "",
                    "computed": signal.of is not None,
                    "hand": by_hand,
                    "held": held.get(name),
                }
            )
        return found

    def _supplies(self, frame: Frame) -> list[dict[str, Any]]:
        subject = self.steering.read.subject
        if len(subject.layout) != len(frame.rgb):
            return []  # the design has changed under this frame
        loads = subject.budget.loads
        amps = loads.supply_a(loads.line_a(frame.rgb))
        return [
            {
                "name": feeding.name,
                "amps": round(float(amps[i]), 3),
                "limit_a": feeding.amps if feeding.budget_a is None else feeding.budget_a,
                "let_through": frame.let_through.get(feeding.name),
            }
            for i, feeding in enumerate(loads.feedings)
        ]


def _read(conditioned: Conditioned, name: str) -> float | bool | list[float] | None:
    """A value of the graph, as JSON has it."""
    value = conditioned.value(name)
    if value is None:
        return None
    flat = np.ravel(value)
    return [round(float(v), 6) for v in flat] if flat.size > 1 else flat[0].item()


def _trouble(trouble: Trouble, now_s: float) -> dict[str, Any]:
    since_s = trouble.since_s
    return {
        "problem": trouble.problem or None,
        "since_s": None if since_s is None else round(now_s - since_s, 1),
    }


def _plain(raw: Any) -> Any:
    """A raw value for JSON; long or unusual values as text."""
    if isinstance(raw, bool) or raw is None or isinstance(raw, int):
        return raw
    if isinstance(raw, float):
        return raw if np.isfinite(raw) else None
    if isinstance(raw, (list, tuple)) and len(raw) <= 256:
        return [_plain(item) for item in raw]
    return str(raw)[:200]
