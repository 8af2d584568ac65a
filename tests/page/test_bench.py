"""The bench of a page: outputs that fail come back, and a cure reaches the wire at once."""

from __future__ import annotations

import pytest

import fendra as fd
from fendra.core.errors import LayoutError, OutputError
from fendra.outputs.memory import MemoryOutput
from fendra.page.served.bench import LiveBench
from helpers import until


class Wire(MemoryOutput):
    """Keeps the bytes of the line `tail`; fails where it is told to."""

    def __init__(self):
        super().__init__()
        self.bytes, self.fails, self.opened, self.closed = [], False, 0, 0

    def _open(self, design):
        if self.fails:
            raise OutputError("the port is busy")
        self.opened += 1

    def _send(self, frame):
        if self.fails:
            raise OutputError("the port is gone")
        self.bytes.append(frame.line_bytes()[2])

    def _close(self):
        self.closed += 1


@pytest.fixture
def bench(design_file):
    """The bench of Heron, on a wire that a test can break."""
    wire, told = Wire(), []
    live = LiveBench(design_file, fd.load(design_file).examined, [wire], told.append)
    live.wire, live.told_of = wire, told
    live.show("colours", "tail")
    live.start()
    yield live
    live.stop()
    live.join()


def test_a_cure_reaches_the_wire_at_once_and_in_the_end_all_is_dark(bench):
    """Red is sent: of GRB the second byte, after the cure, by RGB, the first."""
    until(lambda: any(map(any, bench.wire.bytes)), "a picture")
    first = bench.wire.bytes[-1]
    assert (first[0], first[1] > 0, first[2]) == (0, True, 0)
    bench.saw("green red blue")
    bench.apply(0)
    until(lambda: bench.wire.bytes[-1][0] > 0, "the other order")
    assert bench.wire.bytes[-1][1:3] == bytes(2)
    bench.stop()
    bench.join()
    assert not any(bench.wire.bytes[-1])
    assert bench.wire.opened == bench.wire.closed == 1


def test_an_output_that_fails_is_told_once_and_comes_back(bench):
    until(lambda: bench.wire.bytes, "a picture")
    bench.wire.fails = True
    until(lambda: bench.state().problem == "the port is busy", "the trouble")
    assert bench.told_of == ["the port is gone. Retrying."]
    bench.wire.fails = False
    count = len(bench.wire.bytes)
    until(lambda: len(bench.wire.bytes) > count, "the picture again")
    until(lambda: bench.state().problem == "", "the end of the trouble")
    assert bench.told_of[-1].endswith("works again.")


def test_a_cure_that_needs_a_measure_is_shown_and_not_written(bench, design_file):
    """A line that stays dark is plugged in somewhere else, and only its maker can see where."""
    before = design_file.read_bytes()
    bench.show("lines")
    bench.saw("tail=dark")
    assert bench.state().ways[0][-1] == ""  # the page shows no button for it
    with pytest.raises(LayoutError, match="only you can measure"):
        bench.apply(0)
    assert design_file.read_bytes() == before


@pytest.mark.parametrize(
    "pattern", ["lines", "parts", "colours", "walk", "count", "corners", "axes"]
)
def test_the_answers_of_the_buttons_are_answers_that_are_understood(bench, pattern):
    """The first button of each question: some verdict follows, and no error."""
    bench.show(pattern, "tail", "tail-bar" if pattern in ("corners", "walk") else None)
    asks = bench.state().asks
    assert asks
    answers = [(ask.key, ask.options[0] if ask.options else "30") for ask in asks]
    bench.saw(" ".join(f"{key}={value}" if key else value for key, value in answers))
    assert bench.state().verdict
