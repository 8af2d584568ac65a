"""The serial output on real pseudo-terminals, and every way in which a port fails."""

from __future__ import annotations

import contextlib
import os
import subprocess
import sys

import pytest

import fendra as fd
from fendra.demo.controller import Receiver
from fendra.live.loop import run_live
from fendra.outputs.serial_port import SerialOutput
from fendra.sources.tape import TapeSource
from fendra.system.ends import far_end
from helpers import design, layer, pipe_like_a_port, tape


@pytest.fixture
def end():
    """The far end of a port: a pseudo-terminal's, or a socket's."""
    made = far_end()
    yield made
    made.close()


@pytest.fixture
def pty():
    ours, theirs = pipe_like_a_port()
    yield ours, os.ttyname(theirs)
    for handle in (ours, theirs):
        with contextlib.suppress(OSError):
            os.close(handle)


def test_frames_arrive_as_they_were_made(end):
    lit = design(layer(colour="#ff8000", level="s"), count=40, signals={"s": {}})
    program, receiver = lit.compile(), Receiver([120])
    with SerialOutput(end.address) as output:
        output.open(lit)
        for step in range(20):
            frame = program.frame(s=step / 19)
            output.send(frame)
            while receiver.frames <= step:
                receiver.feed(end.take(1.0))
            assert receiver.shown == frame.line_bytes()
    assert (receiver.frames, receiver.lost, receiver.damaged) == (20, 0, 0)


def test_it_asks_the_controller_who_it_is(end):
    lit = design(layer(), count=40)
    program, receiver = lit.compile(), Receiver([120])
    with SerialOutput(end.address) as output:
        output.open(lit)
        assert output.controller is None
        output.send(program.frame())
        while not receiver.answer:
            receiver.feed(end.take(1.0))
        end.give(receiver.answer)
        output.send(program.frame())
        assert output.controller.name == "stand-in"
        assert output.controller.sizes == (120,)


def test_a_controller_with_other_lines_is_told_with_both(end):
    """Nothing that is sent would ever be shown there."""
    lit = design(layer(), count=40)
    program, other = lit.compile(), Receiver([90, 30])
    with SerialOutput(end.address) as output:
        output.open(lit)
        output.send(program.frame())
        while not other.answer:
            other.feed(end.take(1.0))
        end.give(other.answer)
        with pytest.raises(
            fd.OutputError, match=r"whose lines have 90 and 30 bytes; this design's"
        ) as no:
            output.send(program.frame())
    assert "this design's have 120. Regenerate its receiver" in str(no.value)


def test_a_port_that_is_not_there_is_one_line():
    output = SerialOutput("/dev/ttyNone7")
    with pytest.raises(fd.OutputError, match=r"^there is no port /dev/ttyNone7\. ") as caught:
        output.open(design(layer()))
    assert "\n" not in str(caught.value)


@pytest.mark.unix
def test_a_file_is_no_port(tmp_path):
    (tmp_path / "file").write_text("keep")
    with pytest.raises(fd.OutputError, match="cannot be opened as a serial port"):
        SerialOutput(str(tmp_path / "file")).open(design(layer()))
    assert (tmp_path / "file").read_text() == "keep"


@pytest.mark.unix
def test_a_busy_port_names_who_holds_it(pty):
    _, port = pty
    hold = f"import serial, time; p = serial.Serial({port!r}, exclusive=True); print('held', flush=True); time.sleep(60)"
    with subprocess.Popen([sys.executable, "-c", hold], stdout=subprocess.PIPE) as holder:
        holder.stdout.readline()
        try:
            with pytest.raises(fd.OutputError, match="is busy") as caught:
                SerialOutput(port).open(design(layer()))
        finally:
            holder.kill()
    if sys.platform == "linux":
        assert f"(process {holder.pid})" in str(caught.value)


@pytest.mark.unix
def test_a_port_that_takes_nothing_is_said_to_be_stuck(pty):
    _, port = pty
    lit = design(layer(), count=5000)
    program = lit.compile()
    with SerialOutput(port, timeout=0.05) as output:
        output.open(lit)
        with pytest.raises(fd.OutputError, match=r"has taken no bytes for 0\.05 s"):  # noqa: PT012
            for _ in range(10):
                output.send(program.frame())


@pytest.mark.unix
def test_a_frame_is_sent_only_when_the_system_s_buffer_is_empty(pty, monkeypatch):
    """So that no old frame waits there; a buffer that does not shrink is a port that is stuck."""
    _, port = pty
    lit = design(layer())
    frame = lit.compile().frame()
    left = [500, 300, 0]
    monkeypatch.setattr("serial.Serial.out_waiting", property(lambda _: left.pop(0)))
    with SerialOutput(port, timeout=0.05) as output:
        output.open(lit)
        output.send(frame)
        assert left == []
        monkeypatch.setattr("serial.Serial.out_waiting", property(lambda _: 500))
        with pytest.raises(fd.OutputError, match="has taken no bytes"):
            output.send(frame)


@pytest.mark.unix
def test_a_port_that_vanishes_ends_the_run_with_one_line():
    ours, theirs = pipe_like_a_port()
    port = os.ttyname(theirs)
    os.close(theirs)
    lit = design(layer(), signals={"s": {}})

    plugged = [ours]

    def unplug(at_s: float) -> None:
        if at_s >= 0.1 and plugged:
            os.close(plugged.pop())

    source = TapeSource(tape(s=[0] * 100))
    with pytest.raises(fd.OutputError, match=r"is gone after \d+ frames") as caught:
        run_live(lit.compile(), source, SerialOutput(port), progress=unplug)
    assert "\n" not in str(caught.value)
