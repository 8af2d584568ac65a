"""Patterns on an output: each step for its time, kept alive, and darkness at the end."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.probe.bench import make_bench
from fendra.core.probe.patterns import PATTERNS
from fendra.live.play import KEEP_S, play
from fendra.outputs.memory import MemoryOutput
from helpers import FakeClock, strip

MADE = fd.Design.from_values({"line": [{"name": "a", "part": [strip(count=4)]}]})
BENCH = make_bench(MADE, MADE.layout())


def played(pattern, speed, **keys):
    """The lit addresses of every frame, when it was sent, and what was said."""
    clock, output, words = FakeClock(), MemoryOutput(), []
    sent = []
    deliver = output._send

    def note(frame):
        deliver(frame)
        sent.append((round(clock(), 6), np.flatnonzero(frame.rgb.any(axis=1)).tolist()))

    output._send = note
    steps = PATTERNS[pattern].steps(BENCH, speed)
    count = play(
        BENCH, steps, 0.2, [output], say=words.append, clock=clock, sleep=clock.sleep, **keys
    )
    return sent, words, count


def test_a_walk_goes_at_its_speed_and_ends_dark():
    sent, words, count = played("walk", 4.0)
    assert sent == [(0, [0]), (0.25, [1]), (0.5, [2]), (0.75, [3]), (1.0, [])]
    assert len(words) == count == 4


def test_a_picture_that_stays_is_sent_again_and_again():
    sent, words, _ = played("count", 10.0)
    times = [at for at, lit in sent if lit]
    assert times == [KEEP_S * i for i in range(6)]  # three seconds
    assert len(words) == 1


def test_enter_steps_and_the_same_pattern_is_not_begun_again():
    """The stand-in for a terminal: Enter comes at every third look."""
    looks = iter([False, False, True] * 4)
    sent, words, count = played(
        "walk", 1000.0, enter=lambda _: next(looks), is_stepped=True, times=None
    )
    assert [lit for _, lit in sent] == [[0]] * 3 + [[1]] * 3 + [[2]] * 3 + [[3]] * 3 + [[]]
    assert (len(words), count) == (4, 4)


def test_enter_ends_a_pattern_that_moves_by_itself():
    looks = iter([False] * 40 + [True])
    sent, words, _ = played("axes", 10.0, enter=lambda _: next(looks), is_stepped=True, times=None)
    assert sent[-1][1] == []
    assert len(words) == 1


@pytest.mark.parametrize("times", [1, 3])
def test_it_is_played_so_often_and_said_once(times):
    clock_steps = len(PATTERNS["lines"].steps(BENCH, 10))
    _, words, count = played("lines", 10.0, times=times)
    assert count == times * clock_steps
    assert len(words) == 1


def test_whatever_ends_it_leaves_the_lines_dark():
    def enter(_):
        raise KeyboardInterrupt

    output = MemoryOutput()
    steps = PATTERNS["walk"].steps(BENCH, 4.0)
    with pytest.raises(KeyboardInterrupt):
        play(BENCH, steps, 0.2, [output], say=print, enter=enter)
    assert [frame.rgb.any() for frame in output.frames] == [True, False]
    assert not output.is_open


class OnWire(MemoryOutput):
    """Keeps the bytes of the first line as they go down the wire."""

    def __init__(self):
        super().__init__()
        self.bytes = []

    def _send(self, frame):
        self.bytes.append(self.wire.bytes(frame.rgb)[0])


@pytest.mark.parametrize("leds", [None, 9])
def test_every_address_of_the_wire_is_lit_also_one_that_nobody_sees_or_the_design_has_not(leds):
    """Two hidden addresses, a strip of four whose second is skipped: six addresses, or nine."""
    hidden = {"name": "shifter", "shape": "hidden", "count": 2}
    part = strip(count=4, skip=[1])
    made = fd.Design.from_values(
        {"line": [{"name": "a", "led": "ws2812b", "part": [hidden, part]}]}
    )
    bench = make_bench(made, made.layout(), leds=leds)
    clock, output = FakeClock(), OnWire()
    steps = PATTERNS["walk"].steps(bench, 4.0)
    play(bench, steps, 0.2, [output], say=str, clock=clock, sleep=clock.sleep)
    count = leds or 6
    lit = [[i for i in range(count) if any(sent[3 * i : 3 * i + 3])] for sent in output.bytes]
    assert {len(sent) for sent in output.bytes} == {3 * count}
    assert lit == [*([i] for i in range(count)), []]
