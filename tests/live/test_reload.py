"""Reloading with a clock of our own: no frame is dropped, and the rate may change."""

from __future__ import annotations

from itertools import pairwise

from fendra.core.signals.courses import written
from fendra.live.connect import Connected, check_connections, connect
from fendra.live.loop import Loop
from fendra.live.sender import Sender
from fendra.outputs.memory import MemoryOutput
from fendra.sources.hand import HandSource
from helpers import FakeClock, design, layer


class Straight(Sender):
    """A sender without a thread: every frame arrives at once."""

    def start(self):
        self.output.open(self._design)
        self.mailbox.put = self.take

    def take(self, frame):
        self.output.send(frame)
        self.sent += 1

    def end(self):
        pass

    def join(self, timeout=None):
        pass


def run(changes, seconds=1.0, rate=50.0):
    """A loop in which other programs are taken up at some moments; gives its frames."""
    clock = FakeClock()
    made = design(layer(level="s"), signals={"s": {}}, rate=rate, leaving="keep")
    sender = Straight("memory", MemoryOutput(), made)
    courses, _ = written(made, sets=["s=1"])
    left = dict(changes)

    def change(since_s):
        for at_s in [at_s for at_s in left if since_s >= at_s - 1e-9]:
            loop.use(left.pop(at_s).compile())

    loop = Loop(
        made.compile(), polled=[HandSource(made, courses)], senders=[sender], clock=clock,
        sleep=clock.sleep, progress=change, for_s=seconds,
    )  # fmt: skip
    report = loop.run()
    return sender.output.frames, report


def test_no_frame_is_dropped_when_another_design_is_taken_up():
    red = design(layer(level="s", colour="red"), signals={"s": {}})
    others = {
        0.2: red,
        0.5: design(layer("blink"), leaving="keep"),
    }
    frames, report = run(others)
    assert report.late == 0
    assert [round((b.at_s - a.at_s) * 1000) for a, b in pairwise(frames)] == [20] * 49
    assert frames[10].rgb[0].tolist() == [255, 255, 255]
    assert frames[11].rgb[0].tolist() == [255, 0, 0]


def test_another_rate_counts_from_there_on():
    frames, report = run({0.4: design(layer(), rate=100.0, leaving="keep")})
    steps = [round((b.at_s - a.at_s) * 1000) for a, b in pairwise(frames)]
    assert set(steps) == {20, 10}
    assert steps == sorted(steps, reverse=True)
    assert frames[-1].at_s == 0.99
    assert report.late == 0


def test_values_by_hand_are_courses_that_begin_when_they_are_said():
    made = design(
        layer(level="s"), signals={"s": {}, "mode": {"kind": "choice", "choices": ["a", "b"]}}
    )
    hand = HandSource(made)
    assert hand.news(0.0) == {}
    hand.say("s=0:10:2s")
    hand.say("mode=b")
    assert hand.news(1.0) == {"s": 5.0, "mode": 1.0}
    hand.say("s=3")
    assert hand.news(1.5)["s"] == 3.0
    hand.say("mode=a,b:1s")
    assert [hand.news(at_s)["mode"] for at_s in (1.6, 2.6, 3.6)] == [0.0, 1.0, 0.0]
    hand.say("s=")
    assert "s" not in hand.news(3.7)
    hand.use(design(layer(), signals={"other": {}}))
    assert hand.news(4.0) == {}


def test_sources_and_outputs_of_a_design_are_connected_or_those_that_are_said_instead():
    made = design(
        layer(), sources={"game": {"type": "udp", "address": "9400"}},
        outputs={"main": {"type": "null"}, "look": {"type": "memory", "lines": ["line"]}},
    )  # fmt: skip
    own = connect(made)
    assert {n: str(s) for n, s in own.sources.items()} == {"game": "UDP 127.0.0.1:9400"}
    assert {*own.outputs} == {"main", "look"}
    told = connect(made, sources=["osc:9000", "phone=osc:9001", "osc:9002"], outputs=["null:"])
    assert {*told.sources} == {"osc", "phone", "osc-2"}
    assert isinstance(told, Connected)


def test_what_is_wrong_with_connections_is_found_before_anything_is_opened():
    made = design(
        layer(), sources={"a": {"type": "udpp"}, "b": {"type": "mqtt", "adress": "x"}, "c": {"type": "tape"}},
        outputs={"d": {"type": "sacn", "priority": 201}, "e": {"type": "null", "lines": ["x"]}},
    )  # fmt: skip
    found = {finding.path: str(finding.message) for finding in check_connections(made)}
    assert "no source 'udpp'" in found["sources", "a", "type"]
    assert "no key 'adress'" in found["sources", "b", "adress"]
    assert ("sources", "c", "address") in found
    assert "201 is out of range" in found["outputs", "d", "priority"]
    assert "no line 'x'" in found["outputs", "e"]
