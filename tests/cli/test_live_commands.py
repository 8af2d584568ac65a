"""`fendra run`, `listen` and `simulate`; as programs of their own where a terminal is part of it."""

from __future__ import annotations

import contextlib
import itertools
import json
import os
import re
import select
import signal
import socket
import subprocess
import sys
import threading
import time
import tomllib
from pathlib import Path

import numpy as np
import pytest

import fendra as fd
from fendra.cli.run import Unheard
from fendra.cli.status import Foot
from fendra.demo.spi_strip import read_one_wire
from helpers import free_port, until
from outputs.sacn_receiver import Receiver

FENDRA = [sys.executable, "-m", "fendra"]
DESIGN = """
name = "Little"
rate = 100
leaving = "LEAVING"

[[line]]
name = "a"
part = [{ name = "bar", shape = "strip", start = [0, 0], end = [70, 0], count = 8 }]

[[line]]
name = "b"
part = [{ name = "other", shape = "strip", start = [0, 50], end = [70, 50], count = 8 }]

[signals.s]   # how bright it is
lost_after = 0.5

[signals.pedal]
range = [0, 1]   # at rest and at full

[[layer]]
name = "glow"
on = "all"
effect = "solid"
level = "s"
cover = "0.5 + pedal / 2"
"""


@pytest.fixture
def little(tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    path = tmp_path / "little.toml"
    path.write_text(DESIGN.replace("LEAVING", "dark"))
    return path


def telling(port, *rounds):
    """A thread that sends things by UDP, round after round, until it is told to stop."""
    over = threading.Event()

    def tell():
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
            for things in itertools.cycle(rounds):
                if over.wait(0.01):
                    return
                for thing in things:
                    data = thing if isinstance(thing, bytes) else json.dumps(thing).encode()
                    there.sendto(data, ("127.0.0.1", port))

    threading.Thread(target=tell, daemon=True).start()
    return over


class Terminal:
    """A program in a terminal of its own: what it writes, and keys that are pressed."""

    def __init__(self, words, columns=110, rows=30):
        import pty

        self.pid, self.handle = pty.fork()
        if self.pid == 0:
            os.environ |= {"TERM": "xterm-256color", "COLORTERM": "truecolor", "COLUMNS": str(columns),
                           "LINES": str(rows)}  # fmt: skip
            os.execv(words[0], words)
        self.text = ""

    def wait_for(self, pattern, seconds=20.0):
        until_s = time.monotonic() + seconds
        while not re.search(pattern, self.text):
            left_s = until_s - time.monotonic()
            assert left_s > 0, f"{pattern!r} did not come in {self.text[-2000:]!r}"
            self.read(min(left_s, 0.2))
        return re.search(pattern, self.text)

    def read(self, seconds):
        if select.select([self.handle], [], [], seconds)[0]:
            with contextlib.suppress(OSError):
                self.text += os.read(self.handle, 65_536).decode(errors="replace")

    def type(self, text):
        os.write(self.handle, text.encode())

    def end(self, number=signal.SIGINT):
        """Send a signal; gives the exit code."""
        os.kill(self.pid, number)
        return self.wait()

    def wait(self, seconds=20.0):
        until_s = time.monotonic() + seconds
        while time.monotonic() < until_s:
            done, status = os.waitpid(self.pid, os.WNOHANG)
            if done:
                self.read(0.1)
                return os.waitstatus_to_exitcode(status)
            self.read(0.1)
        os.kill(self.pid, signal.SIGKILL)
        os.waitpid(self.pid, 0)
        raise AssertionError(f"it did not end; it said {self.text[-500:]!r}")

    def close(self):
        with contextlib.suppress(OSError):
            os.close(self.handle)


class Network:
    """A receiver of sACN, written from the standard, on a port of this computer."""

    def __init__(self):
        self.port, self.seen, self.shown = free_port(), Receiver(), []
        self._there = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._there.bind(("127.0.0.1", self.port))
        self._over = threading.Event()
        self._reader = threading.Thread(target=self._read, daemon=True)
        self._reader.start()

    def _read(self):
        self._there.settimeout(0.05)
        while not self._over.is_set():
            with contextlib.suppress(TimeoutError):
                self.seen.feed(self._there.recv(2000))
                self.shown.append(self.slots(1))

    def slots(self, universe):
        known = self.seen.universes.get(universe)
        return b"" if known is None else known.slots

    def close(self):
        self._over.set()
        self._reader.join(5)
        self._there.close()


@pytest.fixture
def network():
    made = Network()
    yield made
    made.close()


@pytest.fixture
def told(monkeypatch):
    """What a run says while it goes on, as it says it."""
    said, tell = [], Foot.tell
    monkeypatch.setattr(Foot, "tell", lambda foot, text: (said.append(text), tell(foot, text)))
    return said


def test_telemetry_becomes_light_on_the_network(little, network, told, fendra_until, monkeypatch):
    """JSON by UDP in, sACN out; dark in the end."""
    monkeypatch.setattr(Unheard, "AFTER_S", 0.3)
    from_port = free_port()
    over = telling(from_port, [{"s": 1, "pedal": 1, "odd": 3}], [{"s": 1, "pedal": 0.9}])
    code, out, err = fendra_until(
        "run", little, "--from", f"udp:{from_port}", "--to", f"sacn:127.0.0.1:{network.port}",
        "--stats", seen=lambda: network.shown.count(b"\xff" * 24) > 20 and told,
    )  # fmt: skip
    over.set()
    until(lambda: network.seen.universes[2].ended == 3, "the end of the stream")
    assert code == 0
    assert b"\xff" * 24 in network.shown
    assert network.slots(1) == bytes(24)
    assert "Little: UDP 127.0.0.1:" in out
    assert re.search(r"^ +ms +began late +took", out, re.M)
    assert re.search(r"No signal uses: odd\.", err)


def test_what_makes_no_sense_is_told_once_and_counted(little, network, told, fendra_until):
    """Light comes of what is sent behind it, so by then all of it has been read."""
    port, nonsense = free_port(), [b'{"s": "fast"}', b"\xff\xff", b"{"]
    over = telling(port, *([*nonsense, {"s": 1, "pedal": pedal}] for pedal in (1, 0.9)))
    code, out, err = fendra_until(
        "run", little, "--from", f"udp:{port}", "--to", f"sacn:127.0.0.1:{network.port}",
        seen=lambda: network.shown.count(b"\xff" * 24) > 40 and len(told) > 1,
    )  # fmt: skip
    over.set()
    assert code == 0
    refused = "A value for s makes no sense: signal 's' needs a number, but got 'fast'."
    assert err.count(refused) == 1
    assert err.count(f"UDP 127.0.0.1:{port} received a value that makes no sense: ") == 1
    assert int(re.search(r"^(\d+) values rejected$", out, re.M)[1]) > 20
    assert "  s: 'fast'" in out


def test_a_port_that_hears_this_computer_alone_says_so_where_nothing_comes(little, fendra):
    here, all_ = free_port(), free_port()
    to = ["--from", f"udp:{here}", "--from", f"osc:0.0.0.0:{all_}", "--to", "null:", "--for", "3.6"]
    code, out, err = fendra("run", little, *to)
    assert code == 0
    assert f"UDP 127.0.0.1:{here}, OSC 0.0.0.0:{all_} (every network) to nowhere" in out
    hint = "which only listens to programs on this computer; for others write 0.0.0.0:"
    assert f"Nothing arrives from UDP 127.0.0.1:{here}, {hint}{here}." in err
    assert err.count(hint) == 1


@pytest.mark.unix
def test_values_are_typed_while_it_runs_and_the_status_says_how_it_goes(little):
    port = free_port()
    run = Terminal([*FENDRA, "run", str(little), "--from", f"udp:{port}", "--to", "film:run.raw",
                    "--to", "null:"])  # fmt: skip
    try:
        run.wait_for(
            r"Little  +\d+\.\d frames/s  late \d+\.\d, \d+\.\d ms  dropped \d+  lost: s, pedal"
        )
        run.type("s=1\r")
        run.wait_for(r"lost: pedal")
        run.type("nobody=1\r")
        run.wait_for("the design has no signal 'nobody'")
        assert run.end() == 0
    finally:
        run.close()
    assert re.search(r"\d+ frames sent", run.text)
    film = np.fromfile("run.raw", np.uint8).reshape(-1, 16, 3)
    assert film.max() > 50
    assert not film[-1].any()


@pytest.mark.unix
@pytest.mark.parametrize("number", ["SIGTERM", "SIGHUP"])
def test_a_signal_ends_it_with_the_leaving_look(little, number):
    little.write_text(DESIGN.replace("LEAVING", "dark"))
    run = Terminal(
        [*FENDRA, "run", str(little), "--set", "s=1", "--set", "pedal=1", "--to", "film:run.raw"]
    )
    try:
        run.wait_for(r"frames/s")
        assert run.end(getattr(signal, number)) == 0
    finally:
        run.close()
    film = np.fromfile("run.raw", np.uint8).reshape(-1, 16, 3)
    assert film[len(film) // 2].min() == 255
    assert not film[-1].any()


@pytest.mark.unix
def test_a_closed_terminal_ends_it_cleanly(little):
    run = Terminal([*FENDRA, "run", str(little), "--set", "s=1", "--to", "film:run.raw"])
    run.wait_for(r"frames/s")
    run.close()
    until_s = time.monotonic() + 15
    while not os.waitpid(run.pid, os.WNOHANG)[0]:
        assert time.monotonic() < until_s, "it did not end"
        time.sleep(0.05)
    assert not np.fromfile("run.raw", np.uint8)[-48:].any()


@pytest.mark.unix
def test_the_terminal_shows_the_layout(little):
    run = Terminal([*FENDRA, "run", str(little), "--set", "s=1", "--to", "terminal:"])
    try:
        run.wait_for(r"\x1b\[\?1049h")
        run.wait_for("▀|▄")
        run.wait_for("frames/s")
        assert run.end() == 0
    finally:
        run.close()
    assert "\x1b[?1049l" in run.text


BACKGROUND = """import signal, subprocess, sys
behind = subprocess.Popen(sys.argv[1:], process_group=0)
signal.signal(signal.SIGINT, lambda *_: behind.send_signal(signal.SIGINT))
sys.exit(behind.wait())"""


@pytest.mark.unix
def test_it_runs_in_the_background_of_a_terminal_where_nobody_can_type(little):
    """In a process group of its own, as a shell puts it there with `&`."""
    words = [sys.executable, "-c", BACKGROUND, *FENDRA, "run", str(little), "--set", "s=1"]
    run = Terminal([*words, "--to", "null:"])
    try:
        run.wait_for("frames/s")
        assert run.end() == 0
    finally:
        run.close()
    assert re.search(r"\d+ frames sent", run.text)


def test_part_of_a_design_runs_on_a_node(little, fendra):
    """A device on SPI drives one line: with `--lines` the design needs not say which."""
    Path("spi").write_bytes(b"")
    words = ["run", little, "--set", "s=1", "--set", "pedal=1", "--to", "spi:spi", "--for", "0.3"]
    assert "takes one line; say which" in fendra(*words)[2]
    assert fendra(*words, "--lines", "b")[0] == 0
    frames = read_one_wire(Path("spi").read_bytes(), 2_400_000, reset_s=280e-6)
    assert frames[1:-1]
    assert {*frames[1:-1]} == {b"\xff" * 24}
    code, _, err = fendra(*words, "--lines", "c")
    assert code == 2
    assert "the design has no line 'c'" in err


@pytest.mark.unix
def test_two_nodes_with_one_clock_show_one_picture(little):
    """A second of a constant motion on both: frames of one moment are the same bytes."""
    text = DESIGN.replace("LEAVING", "keep").replace(
        'effect = "solid"', 'effect = "pulse"\nrate = 1.7'
    )
    little.write_text(text.replace('level = "s"\n', ""))
    films, networks, nodes = [], [Network(), Network()], []
    for name, network in zip(("one", "two"), networks, strict=True):
        words = [
            *FENDRA,
            "run",
            little,
            "--set",
            "pedal=1",
            "--in-phase",
            "--to",
            f"film:{name}.npz",
        ]
        words += ["--to", f"sacn:127.0.0.1:{network.port}"]
        nodes.append(subprocess.Popen(words, stdout=subprocess.DEVNULL))
    for network in networks:
        until(lambda network=network: network.shown, "the first frame")
    begun = [len(network.shown) for network in networks]
    for network, before in zip(networks, begun, strict=True):
        until(lambda n=network, b=before: len(n.shown) > b + 100, "a second of frames")
    for node, network in zip(nodes, networks, strict=True):
        node.send_signal(signal.SIGINT)
        assert node.wait(30) == 0
        network.close()
    for name in ("one", "two"):
        with np.load(f"{name}.npz") as film:
            at_ms = (film["times"] * 1000).round().astype(int).tolist()
            films.append(dict(zip(at_ms, film["rgb"], strict=True)))
    common = {*films[0]} & {*films[1]}
    assert len(common) > 10  # a machine with much to do leaves frames out, in each node others
    assert all((films[0][at] == films[1][at]).all() for at in common)
    assert len({films[0][at].tobytes() for at in common}) > 5


def test_a_run_that_plays_a_tape_once_ends_when_there_is_no_output(little, fendra):
    Path("t.csv").write_text("time,s\n0,0\n60,1\n")
    code, _, err = fendra("run", little, "--tape", "t.csv", "--to", "serial:/dev/ttyNone7")
    assert code == 1
    assert "there is no port /dev/ttyNone7" in err


@pytest.mark.parametrize(
    ("words", "says"),
    [
        (["run", "little.toml"], "say where frames go: --to terminal:"),
        (["run", "little.toml", "--to", "null:", "--from", "udpp:1"], "Did you mean 'udp'?"),
        (["listen", "little.toml"], "say where signals come from"),
        (["simulate", "gane"], "Did you mean 'game'?"),
    ],
)
def test_what_is_missing_is_said_with_the_cure(little, fendra, words, says):
    code, _, err = fendra(*words)
    assert code == 2
    assert says in " ".join(err.replace("│", " ").split())


def test_what_comes_in_is_recorded_and_plays_again(little, network, fendra_until):
    """Each of the values that were sent is a row; by the last of them it has been seen in the light."""
    port = free_port()
    over = telling(port, [{"s": 0.75, "pedal": 0.5}], [{"s": 0.75, "pedal": 0.6}])
    code, _, _ = fendra_until(
        "run", little, "--from", f"udp:{port}", "--to", f"sacn:127.0.0.1:{network.port}",
        "--record", "came.csv", seen=lambda: sum(map(any, network.shown)) > 60,
    )  # fmt: skip
    over.set()
    assert code == 0
    tape = fd.read_tape("came.csv")
    assert {*tape.signals} == {"s", "pedal"}
    assert np.nanmin(tape.signals["s"]) == np.nanmax(tape.signals["s"]) == 0.75
    assert len(tape.times) > 10


def test_listening_shows_every_signal_and_learns_its_range_with_the_comments_kept(
    little, fendra_until
):
    """A pedal from 412 to 3590, which leaves its range of 0 to 1; a signal without a range."""
    port, over, rounds = free_port(), threading.Event(), []

    def pedal():
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
            for i in range(100_000):
                if over.wait(0.004):
                    return
                raw = 412 + (3590 - 412) * (0.5 - 0.5 * np.cos(i / 8))
                raw = min(max(raw, 412 + 0.4), 3590) if i % 50 else 412
                values = {"pedal": 3590 if i % 50 == 25 else raw, "s": i % 50 / 10}
                there.sendto(json.dumps(values).encode(), ("127.0.0.1", port))
                rounds.extend([i] if i % 50 == 0 and is_bound(port) else [])

    threading.Thread(target=pedal, daemon=True).start()
    code, out, _ = fendra_until(
        "listen", little, "--from", f"udp:{port}", "--learn", seen=lambda: len(rounds) > 5
    )
    over.set()
    assert code == 0
    assert re.search(
        r"^pedal +udp +\S+ +\S+ +0\.\d s +\d+\.\d Hz +412 +3590 +[▁▂▃▄▅▆▇█]+", out, re.M
    )
    text = little.read_text()
    assert "# how bright it is" in text
    assert "range = [0, 1]   # at rest and at full" in text
    signals = tomllib.loads(text)["signals"]
    assert signals["pedal"]["calibrate"] == [412, 3590]
    assert signals["s"]["range"] == [0, 4.9]
    assert not [f for f in fd.load(little).check() if f.severity == "error"]


def is_bound(port):
    """Whether somebody listens on a port."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
        try:
            there.bind(("127.0.0.1", port))
        except OSError:
            return True
    return False


def test_a_stand_in_says_how_to_hear_it(little, fendra, fendra_until):
    port, heard = free_port(), []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
        there.bind(("127.0.0.1", port))
        there.setblocking(False)

        def seen():
            with contextlib.suppress(BlockingIOError):
                heard.append(json.loads(there.recv(2000)))
            return heard

        code, out, _ = fendra_until("simulate", "game", "--at", f"127.0.0.1:{port}", seen=seen)
    assert code == 0
    assert {"speed", "rpm", "left"} <= {*heard[0]}
    assert f"--from udp:{port}" in out
    code, listed, _ = fendra("simulate")
    assert code == 0
    assert all(name in listed for name in ("vehicle", "flight", "broker", "song"))


@pytest.mark.unix
def test_the_service_manager_is_told_when_it_is_ready_and_that_it_lives(
    little, tmp_path, fendra_until, monkeypatch
):
    path, told = str(tmp_path / "notify"), []
    monkeypatch.setenv("NOTIFY_SOCKET", path)
    with socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM) as there:
        there.bind(path)
        there.setblocking(False)

        def hear():
            with contextlib.suppress(BlockingIOError):
                while True:
                    told.extend(there.recv(1000).decode().splitlines())

        def seen():
            hear()
            return "WATCHDOG=1" in told and any(line.startswith("STATUS=") for line in told)

        code, _, _ = fendra_until("run", little, "--set", "s=1", "--to", "null:", seen=seen)
        hear()
    assert code == 0
    assert told.count("READY=1") == 1
    assert told.index("READY=1") < told.index("WATCHDOG=1") < told.index("STOPPING=1")
    assert any(re.fullmatch(r"STATUS=\d+\.\d frames/s", line) for line in told)


@pytest.mark.parametrize(
    ("from_", "says"),
    [
        ("udp:PORT", ""),
        ("bus=udp:PORT", ""),
        (
            "other=udp:PORT",
            "s listens to source 'bus', which does not run. Add --from bus=udp:PORT",
        ),
        ("osc:PORT", "s listens to source 'bus', which does not run. Add --from bus=udp:9400"),
    ],
)
def test_a_source_that_signals_name_is_reached_or_it_is_said_how(little, fendra, from_, says):
    """Without a name it stands for the design's only source of its type."""
    port = str(free_port())
    text = little.read_text().replace("lost_after = 0.5", 'source = "bus:s"')
    little.write_text(f'{text}\n[sources.bus]\ntype = "udp"\n')
    _, out, _ = fendra(
        "run", little, "--from", from_.replace("PORT", port), "--to", "null:", "--for", "0.05"
    )
    told = " ".join(out.split())
    assert says.replace("PORT", port) in told
    assert ("which does not run" in told) == bool(says)


def test_what_is_off_is_left_out_of_a_run(little, fendra):
    text = little.read_text()
    little.write_text(
        f'{text}\n[outputs.a]\ntype = "null"\n\n[outputs.b]\ntype = "null"\noff = true\n'
    )
    _, out, _ = fendra("run", little, "--for", "0.05", "--set", "s=1")
    assert "to nowhere; Ctrl-C ends it" in out
