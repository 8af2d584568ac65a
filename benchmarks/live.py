"""How quick and how even a live run is: `python benchmarks/live.py WHAT`, one of these:

latency: from a value that is sent by UDP to the sACN packet that shows it, 120 frames a second of
300 LEDs, all on loopback. binary: the same with binary packets of 64 bytes. large: 100,000 LEDs to
sACN at 60 frames a second. soak: ten minutes of the first with news all the while, its memory and
its rate; `--minutes` says how long. screen: captures of a screen of 1920 x 1080 a second, under
Xvfb.
"""

from __future__ import annotations

import argparse
import json
import socket
import struct
import subprocess
import sys
import tempfile
import threading
import time
from pathlib import Path

import numpy as np
import psutil

DESIGN = """
name = "Bench"
rate = RATE

LINES

[signals.s]
smooth = 0

[signals.rpm]
range = [0, 6000]
smooth = 0.08
lost_after = 0.5

[[layer]]
name = "drift"
on = "all"
effect = "gradient"
colours = ["#ff0040", "#00c0ff", "#40ff00"]
rate = 0.2

[[layer]]
name = "hubs"
on = "all"
effect = "spin"
rate = "rpm / 600"
by = "index / 40"
colour = "#ff8a00"
level = 0.5

[[layer]]
name = "mark"
on = "mark"
effect = "solid"
colour = "white"
level = "s"
"""


LAYOUT = """
[[packet]]
length = 64
mark = { byte = 1, value = 2 }
fields = { s = { byte = 4, type = "f32" }, rpm = { byte = 8, type = "f32" } }
"""


def design(leds: int, a_line: int, rate: int) -> str:
    """Lines of so many LEDs; the first one is the mark, which shows the value alone."""
    lines = ['[[line]]\nname = "first"\npart = [{ name = "mark", shape = "strip", start = [0, 0], '
             'end = [10, 0], count = 2 }]\n']  # fmt: skip
    for number in range(-(-leds // a_line)):
        count = min(a_line, leds - number * a_line)
        lines.append(
            f'[[line]]\nname = "l{number}"\npart = [{{ name = "p{number}", shape = "strip", '
            f"start = [0, {number * 20}], end = [{count * 10}, {number * 20}], "
            f"count = {count} }}]\n"
        )
    return DESIGN.replace("RATE", str(rate)).replace("LINES", "\n".join(lines))


def free_port() -> int:
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
        there.bind(("127.0.0.1", 0))
        return int(there.getsockname()[1])


class Run:
    """`fendra run` on the design, from UDP to sACN, all on loopback."""

    def __init__(
        self, text: str, seconds: float, *more: str, receive: bool = True, is_binary: bool = False
    ) -> None:  # fmt: skip
        self.folder = tempfile.TemporaryDirectory()
        path = Path(self.folder.name) / "bench.toml"
        path.write_text(text)
        self.news, self.port = free_port(), free_port()
        self.there = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self.there.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 1 << 24)
        if receive:
            self.there.bind(("127.0.0.1", self.port))
        self.send_from = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self.is_binary = is_binary
        (Path(self.folder.name) / "bench-packets.toml").write_text(LAYOUT)
        source = f"udp:127.0.0.1:{self.news}" + ",layout=bench-packets.toml" * is_binary
        words = ["--from", source, "--to", f"sacn:127.0.0.1:{self.port}"]
        words += ["--for", str(seconds), "--stats", *more]
        self.process = subprocess.Popen(
            [sys.executable, "-m", "fendra", "run", str(path), *words],
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
        )
        self.watched = psutil.Process(self.process.pid)

    def tell(self, **values: float) -> None:
        data = json.dumps(values).encode()
        if self.is_binary:
            data = struct.pack("<BBHff52x", 1, 2, 64, values["s"], values["rpm"])
        self.send_from.sendto(data, ("127.0.0.1", self.news))

    def end(self) -> str:
        out, _ = self.process.communicate()
        self.there.close()
        self.folder.cleanup()
        return out


def latency(samples: int = 600, *, is_binary: bool = False) -> None:
    """From the value to its frame on the wire."""
    run = Run(design(300, 100, 120), samples * 0.05 + 6, is_binary=is_binary)
    run.there.settimeout(2)
    found, level = [], 0
    random = np.random.default_rng(1)
    run.there.recv(2000)
    time.sleep(1)
    used = run.watched.cpu_times()
    start_s = time.perf_counter()
    for _ in range(samples):
        level = 1 - level
        wanted = 255 * level
        time.sleep(random.uniform(0.01, 0.05))
        drain(run.there)
        sent_s = time.perf_counter()
        run.tell(s=level, rpm=3000)
        while True:
            packet = run.there.recv(2000)
            if (
                packet[18:22] == b"\0\0\0\4"
                and packet[113:115] == b"\0\1"
                and packet[126] == wanted
            ):
                break
        found.append(time.perf_counter() - sent_s)
    passed_s = time.perf_counter() - start_s
    now = run.watched.cpu_times()
    share = (now.user + now.system - used.user - used.system) / passed_s
    ms = np.array(found) * 1000
    frame_ms = 1000 / 120
    print(run.end())
    print(f"{samples} values, one frame is {frame_ms:.2f} ms")
    for name, value, bound in (
        ("median", np.median(ms), frame_ms + 1),
        ("99th percentile", np.percentile(ms, 99), frame_ms + 3),
        ("most", ms.max(), np.inf),
    ):
        print(f"{name:<16} {value:6.2f} ms   (wanted: under {bound:.2f})")
    print(f"processor        {share:6.1%} of one core   (wanted: under 20 %)")


def drain(there: socket.socket) -> None:
    there.settimeout(0)
    try:
        while True:
            there.recv(2000)
    except BlockingIOError:
        there.settimeout(2)


def large(seconds: float = 12.0, rate_hz: float = 60.0) -> None:
    """100,000 LEDs at 60 frames a second."""
    run = Run(design(99_998, 1000, rate_hz), seconds, "--engine", "native")
    counts = {"packets": 0}

    def receive() -> None:
        run.there.settimeout(1)
        while run.process.poll() is None:
            try:
                run.there.recv(2000)
                counts["packets"] += 1
            except TimeoutError:
                pass

    threading.Thread(target=receive, daemon=True).start()
    while not counts["packets"]:
        if run.process.poll() is not None:
            raise SystemExit(run.end())
        time.sleep(0.1)
    time.sleep(1)
    before, used, start_s = counts["packets"], run.watched.cpu_times(), time.perf_counter()
    for i in range(int((seconds - 4) * 20)):
        run.tell(s=i % 2, rpm=3000)
        time.sleep(0.05)
    passed_s = time.perf_counter() - start_s
    now, packets = run.watched.cpu_times(), counts["packets"] - before
    share = (now.user + now.system - used.user - used.system) / passed_s
    print(run.end())
    universes = 100 * 6 + 1
    print(
        f"{packets / passed_s:,.0f} packets a second received, of {universes * rate_hz:,.0f} wanted"
    )
    print(f"{packets / passed_s / universes:.1f} frames a second; {share:.0%} of one core")


IDLE = """
import sys, time
period_s, until_s, place, missed = 1 / 120, time.monotonic() + float(sys.argv[1]), 0, 0
start_s = time.monotonic()
while time.monotonic() < until_s:
    behind = max(int((time.monotonic() - start_s) / period_s) - place, 0)
    missed, place = missed + behind, place + 1 + behind
    time.sleep(max(place * period_s - (time.monotonic() - start_s), 0))
print(missed)
"""
"""A loop that does nothing at 120 Hz: what it misses the machine has taken."""


def soak(minutes: float = 10.0) -> None:
    """Memory and rate over a long run with news all the while, beside a loop that does nothing."""
    run = Run(design(300, 100, 120), minutes * 60 + 5)
    words = [sys.executable, "-c", IDLE, str(minutes * 60)]
    idle = subprocess.Popen(words, stdout=subprocess.PIPE, text=True)
    run.there.settimeout(5)
    run.there.recv(2000)
    start_s, rows, tick = time.monotonic(), [], 0
    while (now_s := time.monotonic() - start_s) < minutes * 60 - 5:
        tick += 1
        run.tell(s=tick % 2, rpm=3000 + tick % 500, odd=tick)
        drain(run.there)
        if tick % 200 == 0:
            rows.append((now_s, run.watched.memory_info().rss / 1e6))
        time.sleep(0.01)
    memory = np.array(rows)
    late = memory[len(memory) // 4 :]
    slope = np.polyfit(late[:, 0], late[:, 1], 1)[0] * 60
    print(run.end())
    print(f"a loop that does nothing missed {idle.communicate()[0].strip()} meanwhile")
    print(f"memory {memory[0, 1]:.1f} MB at first, {memory[-1, 1]:.1f} MB in the end")
    print(f"slope over the last three quarters: {slope * 1000:.1f} KB a minute")


def screen(seconds: float = 8.0) -> None:
    """Captures of a 1920 x 1080 screen a second, for 120 LEDs round it; under Xvfb without one."""
    import os

    import fendra as fd
    from fendra.core.layout import place
    from fendra.sources import DRIVERS

    made = fd.Design.from_values(
        {
            "name": "Frame",
            "line": [
                {
                    "name": "a",
                    "part": [
                        {
                            "name": "rim", "shape": "frame", "width": 600, "height": 340,
                            "top": 40, "right": 20, "bottom": 40, "left": 20,
                        }
                    ],
                }
            ],
            "signals": {"screen": {"kind": "picture", "on": "rim"}},
        }
    )  # fmt: skip
    with subprocess.Popen(
        ["Xvfb", ":93", "-screen", "0", "1920x1080x24"], stderr=subprocess.DEVNULL
    ) as server:
        time.sleep(1)
        os.environ["DISPLAY"] = ":93"
        source = DRIVERS.from_text("screen:1,rate=240")
        source.open(made, place(made))
        count, start_s, used = 0, time.perf_counter(), time.process_time()
        while time.perf_counter() - start_s < seconds:
            count += len([*source.read(0.1)])
        passed_s = time.perf_counter() - start_s
        source.close()
        share = (time.process_time() - used) / passed_s
        print(f"{count / passed_s:.0f} captures a second, {share:.0%} of one core")
        server.terminate()


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("what", choices=["latency", "binary", "large", "soak", "screen"])
    parser.add_argument("--minutes", type=float, default=10.0)
    options = parser.parse_args()
    if options.what == "soak":
        soak(options.minutes)
    elif options.what == "binary":
        latency(is_binary=True)
    else:
        {"latency": latency, "large": large, "screen": screen}[options.what]()


if __name__ == "__main__":
    main()
