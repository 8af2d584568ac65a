"""A run under faults: `python benchmarks/soak.py --minutes 30`.

Every kind of source that comes over a network or a port is flooded with the worst that
tests/live/test_floods.py has; the ports come and go; the design is saved broken and whole again.
Says once a minute how much memory the run takes, and in the end how many frames it made of those
that it should have made, and how late they were.
"""

from __future__ import annotations

import argparse
import contextlib
import importlib.util
import os
import random
import re
import shutil
import socket
import subprocess
import sys
import tempfile
import threading
import time
from pathlib import Path
from types import ModuleType

import psutil

HERE = Path(__file__).parent.parent
DESIGN = """
name = "Soak"
rate = 50
[[line]]
name = "a"
[[line.part]]
name = "bar"
shape = "strip"
start = [0, 0]
end = [1590, 0]
count = 160
[signals.s]
range = [0, 1]
lost_after = 1
[signals.mode]
kind = "choice"
choices = ["calm", "wild"]
[signals.bands]
kind = "vector"
size = 3
[[layer]]
name = "mark"
on = "bar"
effect = "gauge"
value = "s"
[[layer]]
name = "turn"
on = "bar"
effect = "sweep"
rate = "0.2 + s"
level = "0.5 if mode == 'wild' else 0.2"
blend = "add"
[sources.udp]
type = "udp"
address = "UDP"
[sources.osc]
type = "osc"
address = "OSC"
[sources.mavlink]
type = "mavlink"
address = "MAVLINK"
[sources.lines]
type = "lines"
address = "LINES"
MQTT
[outputs.serial]
type = "serial"
address = "SERIAL"
baud = 500000
[outputs.light]
type = "sacn"
address = "127.0.0.1:SACN"
"""


def floods() -> ModuleType:
    """The tests of floods, as a module."""
    spec = importlib.util.spec_from_file_location("floods", HERE / "tests/live/test_floods.py")
    assert spec is not None
    assert spec.loader is not None
    sys.path.insert(0, str(HERE / "tests"))
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def worst_packets() -> list[bytes]:
    """The packets of the tests, and some that are none."""
    return [*floods().WORST.values(), b'{"s": 0.5, "mode": "wild"}', os.urandom(200)]


class Ports(threading.Thread):
    """Serial ports by links to pseudo-terminals, which come, are fed or read, and go."""

    def __init__(self, links: list[Path], packets: list[bytes], over: threading.Event) -> None:
        super().__init__(daemon=True)
        self.links, self.packets, self.over = links, packets, over
        self.opened = 0

    def run(self) -> None:
        while not self.over.is_set():
            ours = []
            for link in self.links:
                one, two = os.openpty()
                os.set_blocking(one, False)
                link.unlink(missing_ok=True)
                link.symlink_to(os.ttyname(two))
                os.close(two)
                ours.append(one)
                self.opened += 1
            until_s = time.monotonic() + random.uniform(2, 8)
            while time.monotonic() < until_s and not self.over.is_set():
                for handle in ours:
                    with contextlib.suppress(OSError):
                        os.read(handle, 65_536)
                    with contextlib.suppress(OSError):
                        os.write(handle, random.choice(self.packets)[:500] + b"\ns=0.4\n")
                time.sleep(0.01)
            for link, handle in zip(self.links, ours, strict=True):
                link.unlink(missing_ok=True)
                os.close(handle)
            self.over.wait(random.uniform(0.5, 2))


def flood(port: int, packets: list[bytes], rate: float, over: threading.Event) -> None:
    out = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
    begun_s, sent = time.monotonic(), 0
    while not over.is_set():
        for packet in packets:
            with contextlib.suppress(OSError):
                out.sendto(packet, ("127.0.0.1", port))
            sent += 1
        time.sleep(max(begun_s + sent / rate - time.monotonic(), 0))


def flood_broker(port: int, packets: list[bytes], over: threading.Event) -> None:
    import paho.mqtt.client as paho

    client = paho.Client(paho.CallbackAPIVersion.VERSION2)
    while not over.is_set():
        with contextlib.suppress(OSError):
            client.connect("127.0.0.1", port)
            client.loop_start()
            break
        time.sleep(0.5)
    while not over.is_set():
        for packet in packets:
            topic = random.choice(["soak/s", "soak/mode", "soak/state/memory", "soak/x/y"])
            client.publish(topic, packet)
        time.sleep(0.02)
    client.loop_stop()


def save(path: Path, text: str, over: threading.Event) -> None:
    """Save the design whole, broken in one way or another, and whole again."""
    broken = (text[: len(text) // 2], text.replace("count = 160", "count = 'x'"), "", "\0" * 50,
              text.replace('"gauge"', '"gaug"'), "a." * 500 + "b = 1\n" + text)  # fmt: skip
    while not over.wait(3):
        path.write_text(random.choice(broken), encoding="utf-8")
        over.wait(1.5)
        path.write_text(f"{text}\n# {random.random()}\n", encoding="utf-8")


def main() -> int:
    """Run it; 1 where memory grows or frames are left out."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--minutes", type=float, default=30)
    seconds = parser.parse_args().minutes * 60
    over, packets = threading.Event(), worst_packets()
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        free_port = floods().free_port
        ports = {key: free_port() for key in ("UDP", "OSC", "MAVLINK", "SACN", "BROKER")}
        links = [folder / "lines", folder / "serial"]
        text = DESIGN.replace("LINES", str(links[0])).replace("SERIAL", str(links[1]))
        broker = None
        if shutil.which("mosquitto"):
            command = ["mosquitto", "-p", str(ports["BROKER"])]
            broker = subprocess.Popen(command, stderr=subprocess.DEVNULL)
            table = f'[sources.mqtt]\ntype = "mqtt"\naddress = "127.0.0.1:{ports["BROKER"]}"'
            text = text.replace("MQTT", f'{table}\nroot = "soak"')
        text = text.replace("MQTT", "")
        for key, port in ports.items():
            text = text.replace(f'"{key}"', f'"{port}"').replace(f":{key}", f":{port}")
        path = folder / "soak.toml"
        path.write_text(text, encoding="utf-8")
        ports_thread = Ports(links, packets, over)
        work = [ports_thread, *(
            threading.Thread(target=flood, args=(ports[key], packets, 700, over), daemon=True)
            for key in ("UDP", "OSC", "MAVLINK")
        )]  # fmt: skip
        work.append(threading.Thread(target=save, args=(path, text, over), daemon=True))
        if broker is not None:
            work.append(
                threading.Thread(
                    target=flood_broker, args=(ports["BROKER"], packets, over), daemon=True
                )
            )
        said = (folder / "said.txt").open("w+")
        run = subprocess.Popen(
            [sys.executable, "-m", "fendra", "run", str(path), "--for", str(seconds), "--stats"],
            stdout=said, stderr=said, stdin=subprocess.DEVNULL,
        )  # fmt: skip
        process = psutil.Process(run.pid)
        for thread in work:
            thread.start()
        memory = []
        begun_s = time.monotonic()
        while run.poll() is None:
            with contextlib.suppress(psutil.NoSuchProcess):
                memory.append(process.memory_info().rss / 1e6)
                if len(memory) % 12 == 0:
                    minutes = (time.monotonic() - begun_s) / 60
                    print(f"{minutes:5.1f} min  {memory[-1]:.1f} MB", flush=True)
            time.sleep(5)
        over.set()
        if broker is not None:
            broker.kill()
        said.seek(0)
        text = said.read()
        lines = text.splitlines()
        print("\n".join(lines[-16:]))
        late = re.search(r"(\d+) left out, since this computer was late", text)
        left_out = int(late[1]) if late else 0
        wanted = seconds * 50
        third = len(memory) // 3
        grown = max(memory[-third:]) - max(memory[third : 2 * third])
        print(
            f"{len(lines)} lines told, {ports_thread.opened} ports opened; frames left out: "
            f"{left_out} of {wanted:.0f} ({left_out / wanted:.2%}); memory: "
            f"{memory[third]:.1f} MB after a third, {memory[-1]:.1f} MB in the end, peak grown by "
            f"{grown:.1f} MB from the second third to the last; exit {run.returncode}; "
            f"{text.count('Traceback')} tracebacks, {text.count('internal error')} internal errors"
        )
        is_well = run.returncode == 0 and grown < 8 and left_out < 0.02 * wanted
        return int(not is_well or "Traceback" in text or "internal error" in text)


if __name__ == "__main__":
    sys.exit(main())
