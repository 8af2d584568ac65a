"""The live loop: even, never waiting, never making up for what is late."""

from __future__ import annotations

from threading import Event, Thread

import pytest

import fendra as fd
from fendra.live.loop import Loop, memory_of, recall, run_live, told_by
from fendra.live.mailbox import Mailbox
from fendra.live.sender import Sender
from fendra.outputs.memory import MemoryOutput
from fendra.sources.tape import TapeSource
from helpers import FakeClock, design, layer, strip, tape


def lit() -> fd.Design:
    return design(layer(level="s"), signals={"s": {}}, rate=50)


def run(source, output, progress=None):
    clock = FakeClock()
    program = lit().compile()
    report = run_live(
        program, source, output, clock=clock, sleep=clock.sleep,
        progress=lambda at_s: progress(clock, at_s) if progress else None,
    )  # fmt: skip
    return clock, report


def test_it_tells_what_the_limiter_held_back():
    """Eight LEDs on 0.25 A: at full white, 0.488 A, half of the light is let through."""
    line = [{"name": "a", "supply": "s", "part": [strip()]}]
    made = design(
        layer(when="s > 0.5"), line=line, signals={"s": {}}, supplies={"s": {"budget": 0.248}}
    )
    clock, program = FakeClock(), made.compile()
    ramp = TapeSource(tape(s=[0] * 20 + [1] * 21))
    report = run_live(program, ramp, MemoryOutput(), clock=clock, sleep=clock.sleep)
    assert (report.rendered, report.limited) == (101, 51)
    assert report.least == pytest.approx(0.5, abs=0.003)
    assert report.last is not None
    assert report.last.let_through == {"s": pytest.approx(report.least)}
    assert run(TapeSource(tape(s=[1, 1])), MemoryOutput())[1].least == 1.0


def test_frames_come_at_their_times_and_equal_the_film():
    ramp = tape(s=[i / 20 for i in range(21)])
    output = MemoryOutput()
    clock, report = run(TapeSource(ramp), output)
    assert report.rendered == 51
    assert clock.now_s == pytest.approx(51 / 50)
    assert report.late == 0
    film = lit().compile().film(ramp)
    assert report.sent + report.replaced == 51
    assert output.frames[-1] is report.last
    for frame in output.frames:
        assert frame.rgb.tobytes() == film.frame(frame.at_s).rgb.tobytes()
    assert report.last.at_s == 1.0


def test_late_frames_are_left_out_and_not_made_up_for():
    """At 0.2 s the computer hangs for 0.1 s: five frames at 50 a second are missed."""

    def hang(clock, at_s):
        if at_s == pytest.approx(0.2):
            clock.sleep(0.1)

    _, report = run(TapeSource(tape(s=[0] * 21)), MemoryOutput(), hang)
    assert report.late == 4  # the fifth is due just then
    assert report.rendered == 51 - 4


def test_a_slow_output_gets_the_newest_frame_and_stops_nobody():
    class Slow(MemoryOutput):
        def _send(self, frame):
            super()._send(frame)
            begun.set()
            go_on.wait(5)

    begun, go_on = Event(), Event()

    def block(_clock, at_s):
        if at_s == 0:
            begun.wait(5)
        if at_s >= 0.99:
            go_on.set()

    output = Slow()
    _, report = run(TapeSource(tape(s=[0] * 21)), output, block)
    assert [frame.at_s for frame in output.frames][:: len(output.frames) - 1] == [0.0, 1.0]
    assert report.replaced >= 48
    assert report.sent + report.replaced == 51


def test_an_output_that_fails_ends_the_run_with_its_error():
    class Broken(MemoryOutput):
        def _send(self, frame):
            raise fd.OutputError("the port is gone")

    output = Broken()
    with pytest.raises(fd.OutputError, match="the port is gone"):
        run_live(lit().compile(), TapeSource(tape(s=[0] * 21)), output)
    assert not output.is_open


def test_ctrl_c_is_an_end_like_another():
    def press(_clock, at_s):
        if at_s >= 0.5:
            raise KeyboardInterrupt

    output = MemoryOutput()
    _, report = run(TapeSource(tape(s=[0] * 41), loop=True), output, press)
    assert report.rendered == 26
    assert report.last.at_s == 0.5
    assert not output.is_open


def test_a_tape_can_loop_and_goes_on_in_time():
    source = TapeSource(tape(rate_hz=1, s=[1, 2, 3]), loop=True, gap_s=1.0)
    heard = [source.news(at_s).get("s") for at_s in (0, 1, 2, 2.5, 3, 4, 5, 6, 9)]
    assert heard == [1, 2, 3, None, 1, 2, 3, 1, 1]
    assert not source.has_ended(1e9)
    once = TapeSource(tape(rate_hz=1, s=[1, 2, 3]))
    assert (once.has_ended(2.0), once.has_ended(2.01)) == (False, True)


def test_news_that_the_design_does_not_know_is_left_out():
    output = MemoryOutput()
    run(TapeSource(tape(s=[1] * 3, heat=[5] * 3)), output)
    assert output.frames[-1].rgb.min() == 255


def test_a_mailbox_holds_the_newest_only():
    box: Mailbox[int] = Mailbox()
    for number in range(5):
        box.put(number)
    box.close()
    assert (box.take(), box.take(), box.replaced) == (4, None, 4)


def test_taking_waits_until_something_comes():
    box: Mailbox[str] = Mailbox()
    taken = []
    reader = Thread(target=lambda: taken.append(box.take()))
    reader.start()
    box.put("frame")
    reader.join(5)
    assert taken == ["frame"]


# ---- Clocks that drift, are set, and nodes that follow -------------------------------------------------


@pytest.mark.parametrize(
    ("ahead_s", "jump_s", "slip_s"),
    [
        # Ahead of the shared clock frames come later, behind it earlier: half a millisecond at most.
        (0.0002, 0, 0.0002), (-0.0002, 0, -0.0002), (0.2, 0, 0.0005), (-0.2, 0, -0.0005),
        # A clock that was set by more than a second is followed, in whole frames of 20 ms.
        (1.01, -1.02, 0), (-3600.005, 3600, 0),
    ],
)  # fmt: skip
def test_a_shared_clock_is_followed_slowly_or_at_once(ahead_s, jump_s, slip_s):
    loop = Loop(lit().compile(), in_phase=True)
    loop.program.frame(at=5000.0)
    jump, slip = loop._kept_in_phase(ahead_s)
    assert slip == pytest.approx(slip_s)
    assert abs(jump - jump_s) <= 0.0201
    assert jump / 0.02 == pytest.approx(round(jump / 0.02))
    assert loop.program.at_s == pytest.approx(5000.0 + jump)


@pytest.mark.parametrize(("hang_s", "late"), [(0.015, 0), (0.025, 0), (0.045, 1), (0.065, 2)])
def test_a_frame_that_is_due_is_not_late_yet(hang_s, late):
    """Frames of 20 ms: busy for 45 ms from 0.2 s on, that of 0.22 s is left out, that of 0.24 shown."""

    def hang(clock, at_s):
        if at_s == pytest.approx(0.2):
            clock.sleep(hang_s)

    _, report = run(TapeSource(tape(s=[0] * 11)), MemoryOutput(), hang)
    assert (report.late, report.rendered) == (late, 26 - late)


@pytest.mark.parametrize(
    ("age_s", "is_taken"), [(0.0, True), (2.9, True), (3.1, False), (-0.5, False)]
)
def test_only_what_another_node_remembers_of_the_last_seconds_is_taken(age_s, is_taken):
    leader, follower = (lit().compile() for _ in range(2))
    leader.frame(s=1.0, at=10.0)
    follower.frame(at=1.0)
    assert recall(follower, told_by(memory_of(leader)), 10.0 + age_s) is is_taken
    assert recall(follower, told_by({**memory_of(leader), "design": "another"}), 10.0) is False


@pytest.mark.parametrize("frames_ahead", [-7, -1, 0, 1, 5])
def test_what_another_node_remembers_is_taken_in_the_frame_of_its_time(frames_ahead):
    """At 60 frames/s times are no whole milliseconds: frame 10, of 10.16667 s, is told as 10.167."""
    rows = {"name": "a", "part": [strip(count=30)]}
    spin = layer("spin", rate="rpm / 60", by="x / 80")
    made = design(spin, line=[rows], signals={"rpm": {}}, rate=60)
    leader, clock, output = made.compile(), FakeClock(), MemoryOutput()
    leader.frame(rpm=30, at=9.7)
    led, told = {}, {}
    for number in range(31):
        led[number] = leader.frame(at=10 + number / 60)
        told[number] = memory_of(leader)
    loop = Loop(
        made.compile(), senders=[Sender("memory", output, made)], clock=clock, sleep=clock.sleep,
        start_at_s=10.0, for_s=0.5,
    )  # fmt: skip
    loop.inbox.put_number("tacho", "rpm", 30)
    shown = []

    def watch(frame, _):
        shown.append(frame.rgb.copy())
        if len(shown) == 10:  # the next is frame 10
            loop.recall(told[10 + frames_ahead])

    loop.watchers.append(watch)
    loop.run()
    same = [(shown[n] == led[n].rgb).all() for n in range(30)]
    first = 10 + max(frames_ahead, 0)
    assert not any(same[:first])
    assert all(same[first:])
