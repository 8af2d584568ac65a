"""A stand-in lamp array: a keyboard that takes reports as the standard says, and checks each one.

    python -m fendra.demo.lamp_array

Written from USB HID Usage Tables 1.4 (section 26) with the standard library alone and the sizes of
its own reports, so that it checks the sender instead of repeating it. A report that the standard
does not allow is refused and counted, with its reason.
"""

from __future__ import annotations

import argparse
import contextlib
import json
import socket
import struct
import sys
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from fendra.demo import uhid

DESCRIPTOR = bytes.fromhex(
    "05 59 09 01 a1 01"
    "85 11 09 02 a1 02 09 03 15 00 27 ff ff 00 00 75 10 95 01 b1 03"
    "09 04 09 05 09 06 09 07 09 08 15 00 27 ff ff ff 7f 75 20 95 05 b1 03 c0"
    "85 12 09 20 a1 02 09 21 15 00 27 ff ff 00 00 75 10 95 01 b1 02 c0"
    "85 13 09 22 a1 02 09 21 15 00 27 ff ff 00 00 75 10 95 01 b1 02"
    "09 23 09 24 09 25 09 27 09 26 15 00 27 ff ff ff 7f 75 20 95 05 b1 02"
    "09 28 09 29 09 2a 09 2b 09 2c 09 2d 15 00 26 ff 00 75 08 95 06 b1 02 c0"
    "85 14 09 50 a1 02 09 03 09 55 15 00 25 08 75 08 95 02 b1 02"
    "09 21 15 00 27 ff ff 00 00 75 10 95 06 b1 02"
    + "09 51 09 52 09 53 09 54"
    * 6
    + "15 00 26 ff 00 75 08 95 18 b1 02 c0"
    "85 15 09 60 a1 02 09 55 15 00 25 08 75 08 95 01 b1 02"
    "09 61 09 62 15 00 27 ff ff 00 00 75 10 95 02 b1 02"
    "09 51 09 52 09 53 09 54 15 00 26 ff 00 75 08 95 04 b1 02 c0"
    "85 16 09 70 a1 02 09 71 15 00 25 01 75 08 95 01 b1 02 c0"
    "c0"
)
"""Reports 0x11 to 0x16; six lamps a multi update."""
ATTRIBUTES, REQUEST, RESPONSE, MULTI, RANGE, CONTROL = range(0x11, 0x17)
SIZES = {ATTRIBUTES: 23, REQUEST: 3, RESPONSE: 29, MULTI: 39, RANGE: 10, CONTROL: 2}
AT_ONCE = 6
KEYBOARD = 1
CONTROLS, ACCENT, BRANDING = 0x01, 0x02, 0x04


KEYS = bytes.fromhex(
    "1e 1f 20 21 22 23 24 25 26 27 2d 2e"  # 1 to 0, - and =
    "14 1a 08 15 17 1c 18 0c 12 13 2f 30"  # q to p, [ and ]
    "04 16 07 09 0a 0b 0d 0e 0f 33 34 28"  # a to l, ; ' and Enter
    "1d 1b 06 19 05 11 10 36 37 38 e5 2c"  # z to m, , . / Shift and Space
)
"""The keys of the stand-in, by their usages of the Keyboard page."""


@dataclass
class Lamp:
    """A lamp of the stand-in: place in micrometres, purposes, levels, key."""

    x_um: int
    y_um: int
    z_um: int
    purposes: int = CONTROLS
    levels: tuple[int, int, int, int] = (255, 255, 255, 1)
    is_programmable: bool = True
    key: int = 0


def keyboard() -> list[Lamp]:
    """A small keyboard: four rows of twelve keys, a badge that is white only, and a bar of nine."""
    pitch_um = 19_050
    keys = [
        Lamp(12_000 + column * pitch_um + row * 4_700, 15_000 + row * pitch_um, 2_500,
             key=KEYS[row * 12 + column])
        for row in range(4) for column in range(12)
    ]  # fmt: skip
    badge = Lamp(230_000, 4_000, 1_000, BRANDING, (1, 1, 1, 15), is_programmable=False)
    bar = [Lamp(20_000 + i * 25_000, 92_000, 6_000, ACCENT, (63, 63, 63, 1)) for i in range(9)]
    return [*keys, badge, *bar]


@dataclass
class LampArrayDevice:
    """The device: its lamps, the colours that it shows, and what was wrong with reports.

    shown: levels of red, green, blue and intensity for each lamp, since the last complete update.
    updates: when each one was complete, in seconds. wrong: the reports that it refused, and why.
    """

    lamps: list[Lamp] = field(default_factory=keyboard)
    interval_us: int = 10_000
    latency_us: int = 4_000
    clock: Callable[[], float] = time.perf_counter
    is_autonomous: bool = True
    updates: list[float] = field(default_factory=list)
    wrong: list[str] = field(default_factory=list)
    reports: int = 0

    def __post_init__(self) -> None:
        self.shown = [(0, 0, 0, 0)] * len(self.lamps)
        self._waiting: dict[int, tuple[int, int, int, int]] = {}
        self._asked = 0

    def get(self, report: int) -> bytes | None:
        """A feature report; None if it refuses."""
        if report == ATTRIBUTES:
            return bytes([report]) + struct.pack(
                "<H5I", len(self.lamps), 265_000, 100_000, 8_000, KEYBOARD, self.interval_us
            )
        if report == RESPONSE:
            number, lamp = self._asked, self.lamps[self._asked]
            self._asked = (number + 1) % len(self.lamps)  # it goes on by itself
            place = (lamp.x_um, lamp.y_um, lamp.z_um, self.latency_us, lamp.purposes)
            return bytes([report]) + struct.pack(
                "<H5I6B", number, *place, *lamp.levels, lamp.is_programmable, lamp.key
            )
        self.wrong.append(f"report {report:#x} cannot be read")
        return None

    def set(self, data: bytes) -> bool:
        """Take a feature report; False if it refuses."""
        self.reports += 1
        problem = self._taken(data)
        if problem:
            self.wrong.append(problem)
        return not problem

    def _taken(self, data: bytes) -> str:
        """Take a report; the reason why it cannot be, or nothing."""
        report = data[0] if data else 0
        if report not in (REQUEST, MULTI, RANGE, CONTROL):
            return f"report {report:#x} cannot be set"
        if len(data) != SIZES[report]:
            return f"report {report:#x} has {len(data)} bytes"
        take = {
            REQUEST: self._request, MULTI: self._multi, RANGE: self._range, CONTROL: self._control,
        }  # fmt: skip
        return take[report](data[1:])

    def _request(self, data: bytes) -> str:
        (number,) = struct.unpack("<H", data)
        if number >= len(self.lamps):
            return f"there is no lamp {number}"
        self._asked = number
        return ""

    def _multi(self, data: bytes) -> str:
        count, flags = data[0], data[1]
        ids = struct.unpack(f"<{AT_ONCE}H", data[2 : 2 + 2 * AT_ONCE])
        colours = [(*data[at : at + 4],) for at in range(2 + 2 * AT_ONCE, len(data), 4)]
        if not 1 <= count <= AT_ONCE:
            return f"a multi update of {count} lamps"
        if len({*ids[:count]}) < count:
            return "a multi update sets a lamp twice"
        if any(ids[count:]) or any(any(colour) for colour in colours[count:]):
            return "a multi update has values behind its last lamp"
        return self._update({i: c for i, c in zip(ids[:count], colours, strict=False)}, flags)  # noqa: C416

    def _range(self, data: bytes) -> str:
        flags, first, last = struct.unpack("<BHH", data[:5])
        if first > last:
            return f"a range from {first} to {last}"
        return self._update(dict.fromkeys(range(first, last + 1), tuple(data[5:9])), flags)

    def _update(self, colours: dict[int, Any], flags: int) -> str:
        if self.is_autonomous:
            return "an update while the device shows its own light"
        if flags & ~1:
            return f"flags {flags:#x}"
        for number, colour in colours.items():
            if number >= len(self.lamps):
                return f"there is no lamp {number}"
            if any(v > most for v, most in zip(colour, self.lamps[number].levels, strict=True)):
                return f"lamp {number} has no level {colour}"
        self._waiting |= colours
        if not flags & 1:
            return ""
        now_s = self.clock()
        early = bool(self.updates) and now_s - self.updates[-1] < self.interval_us / 1e6 - 1e-4
        self.updates.append(now_s)
        for number, colour in self._waiting.items():
            self.shown[number] = colour
        self._waiting = {}
        return "an update sooner than the device takes them" if early else ""

    def _control(self, data: bytes) -> str:
        if data[0] > 1:
            return f"autonomous mode {data[0]}"
        self.is_autonomous = bool(data[0])
        return ""

    def serve(self, line: socket.socket) -> None:
        """Answer a program until it leaves; see `fendra.system.hid`."""
        with line, line.makefile("rwb") as stream:
            while len(head := stream.read(4)) == 4:
                what, report, size = head[:1], head[1], int.from_bytes(head[2:], "little")
                answer: bytes | None = None
                match what:
                    case b"D":
                        answer = DESCRIPTOR
                    case b"G":
                        answer = self.get(report)
                    case b"S":
                        answer = b"" if self.set(stream.read(size)) else None
                count = 0xFFFF if answer is None else len(answer)
                stream.write(count.to_bytes(2, "little") + (answer or b""))
                stream.flush()

    def report(self) -> dict[str, Any]:
        """What it saw, as plain values."""
        spans = [after - before for before, after in zip(self.updates, self.updates[1:])]  # noqa: B905
        rate = len(spans) / sum(spans) if spans and sum(spans) > 0 else 0.0
        return {
            "updates": len(self.updates), "reports": self.reports, "rate_hz": round(rate, 2),
            "wrong": self.wrong, "autonomous": self.is_autonomous,
            "shown": [list(colour) for colour in self.shown],
        }  # fmt: skip


@contextlib.contextmanager
def serving(device: LampArrayDevice, port: int = 0) -> Any:
    """Serve a device on this computer while the block runs; gives its address."""
    over = threading.Event()
    with socket.create_server(("127.0.0.1", port)) as door:
        door.settimeout(0.1)

        def answer() -> None:
            while not over.is_set():
                with contextlib.suppress(OSError):  # nobody yet, or somebody has gone
                    line, _ = door.accept()
                    line.settimeout(None)
                    device.serve(line)

        thread = threading.Thread(target=answer, name="lamp array", daemon=True)
        thread.start()
        try:
            yield f"socket://127.0.0.1:{door.getsockname()[1]}"
        finally:
            over.set()
            thread.join(1)


def main() -> None:
    """The command line of the stand-in."""
    parser = argparse.ArgumentParser(
        prog="python -m fendra.demo.lamp_array", description="A stand-in lamp array."
    )
    parser.add_argument("--port", type=int, default=9500, help="where it is served [9500]")
    parser.add_argument("--for", dest="seconds", type=float, help="end after this time")
    parser.add_argument("--uhid", action="store_true", help="a HID device of this Linux; as root")
    options = parser.parse_args()
    device = LampArrayDevice()
    if options.uhid:
        with Path("/dev/uhid").open("r+b", buffering=0) as system:
            print("a keyboard among the devices; list it: fendra devices lamps", flush=True)
            with contextlib.suppress(KeyboardInterrupt):
                uhid.serve(device, DESCRIPTOR, system)
        return
    with serving(device, options.port) as address:
        print(f"a keyboard of {len(device.lamps)} lamps at lamps:{address}", flush=True)
        with contextlib.suppress(KeyboardInterrupt):
            time.sleep(options.seconds or 1e9)
    seen = device.report() | {"shown": [c for c in device.report()["shown"] if any(c)][:4]}
    print(json.dumps(seen))


if __name__ == "__main__":
    main()
    sys.exit(0)
