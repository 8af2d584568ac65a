"""How late frames are under a flood: `python benchmarks/flood.py`.

Heron at 50 frames a second, fed by UDP, for some seconds each: nothing, then ten thousand packets a
second of each kind that tests/live/test_floods.py has, all of them, and nothing again.
"""

from __future__ import annotations

import argparse
import subprocess
import sys

import numpy as np

import fendra as fd
from fendra.live.connect import connect
from fendra.live.process import undisturbed
from fendra.live.session import Session
from soak import floods

FLOODS = floods()
SENDER, WORST, free_port = FLOODS.SENDER, FLOODS.WORST, FLOODS.free_port
PLAIN = [b'{"speed": 12.5, "rpm": 3000, "x%d": 1}' % number for number in range(16)]


def run(name: str, packets: list[bytes], seconds: float, rate: float) -> None:
    """One run, and how late its frames began."""
    port = free_port()
    made = fd.load(fd.demo_file("heron.toml"))
    connected = connect(made, sources=[f"udp:{port}"], outputs=["null:"])
    session = Session(made.compile(), connected, for_s=seconds)
    sender = None
    if packets:
        command = [sys.executable, "-c", SENDER, str(port), str(rate)]
        sender = subprocess.Popen(command, stdin=subprocess.PIPE, text=True)
        assert sender.stdin is not None
        sender.stdin.write("\n".join(packet.hex() for packet in packets))
        sender.stdin.close()
    with undisturbed():
        report = session.run()
    if sender is not None:
        sender.kill()
        sender.wait()
    late_ms = np.array([row[0] for row in session.loop.stats._lately]) * 1000
    heard = sum(each.count for each in session.inbox.heard.values())
    source = session.feeders[0].source
    print(
        f"{name:<10} {report.rendered:>5} frames, {report.late:>3} left out; late: median "
        f"{np.median(late_ms):.2f}, 99 % {np.percentile(late_ms, 99):.2f}, most "
        f"{late_ms.max():.2f} ms; heard {heard}, skipped {source.skipped}, refused {source.refused}"
    )


def main() -> None:
    """Every kind, one after the other."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--seconds", type=float, default=5)
    parser.add_argument("--rate", type=float, default=10_000)
    options = parser.parse_args()
    kinds = {"nothing": [], "plain": PLAIN, **{name: [data] for name, data in WORST.items()}}
    kinds |= {"all": [*PLAIN, *WORST.values()], "nothing ": []}
    for name, packets in kinds.items():
        run(name, packets, options.seconds, options.rate)


if __name__ == "__main__":
    main()
