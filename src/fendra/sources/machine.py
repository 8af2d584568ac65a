"""The computer itself: load, memory, temperature, and which program is running or in front.

Names: `load`, `memory`, `battery` (0 to 1), `temperature` (C, the hottest), `network` (bytes a
second), `front` (the program in front, under X11), and for each of `programs` the switches `running
NAME` and `front NAME`.
"""

from __future__ import annotations

import contextlib
import os
import shutil
import subprocess
import time
from typing import Annotated, Any

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.core.signals.inputs import split_source
from fendra.drivers import Names, Options
from fendra.sources import News, Source, package


class MachineOptions(Options):
    """Options of the computer.

    Attributes:
        rate: how often it is read, Hz
        programs: names of programs to watch
    """

    rate: Annotated[float, Field(gt=0, le=20)] = 2.0
    programs: Names = ()


def _asked_for(design: Design) -> set[str]:
    """The names that signals of a design may ask this source for."""
    names = {
        each.name or name for name, signal in design.signals.items() for each in signal.sources
    }
    return {split_source(name)[1] for name in names}


class MachineSource(Source):
    """The computer that this runs on."""

    Options = MachineOptions
    options: MachineOptions

    def __str__(self) -> str:
        return "this computer"

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - places are nothing
        self._psutil = package("psutil")
        self._psutil.cpu_percent()  # counts from here on
        self._bytes = self._sent_and_received()
        self._at_s = time.perf_counter()
        self._can_see_front = shutil.which("xdotool") is not None
        wanted = _asked_for(design) | {f"front {name}" for name in self.options.programs}
        cannot = self._cannot()
        missing = sorted({name.partition(" ")[0] for name in wanted} & {*cannot})
        if missing:
            why = "; ".join(f"no {name}: {cannot[name]}" for name in missing)
            self.notice = f"{self} cannot give everything: {why}."

    def _cannot(self) -> dict[str, str]:
        """The values that it cannot give here, and why."""
        found = {}
        if getattr(self._psutil, "sensors_battery", lambda: None)() is None:
            found["battery"] = "the system has none"
        if not getattr(self._psutil, "sensors_temperatures", dict)():
            found["temperature"] = "the system reports no sensor"
        if self._psutil.net_io_counters() is None:
            found["network"] = "the system reports no network"
        if not self._can_see_front:
            found["front"] = (
                "Wayland does not tell" if os.environ.get("WAYLAND_DISPLAY")
                else "it needs X11 and the program xdotool"
            )  # fmt: skip
        elif not os.environ.get("DISPLAY"):
            found["front"] = "there is no X11 screen (DISPLAY is not set)"
        return found

    def _sent_and_received(self) -> int:
        counts = self._psutil.net_io_counters()
        return 0 if counts is None else int(counts.bytes_sent + counts.bytes_recv)

    def _read(self, wait_s: float) -> News:
        if time.perf_counter() - self._at_s < 1 / self.options.rate:
            time.sleep(min(wait_s, 1 / self.options.rate))
            return ()
        psutil = self._psutil
        now_s, count = time.perf_counter(), self._sent_and_received()
        news: dict[str, Any] = {
            "load": psutil.cpu_percent() / 100,
            "memory": psutil.virtual_memory().percent / 100,
            "network": (count - self._bytes) / (now_s - self._at_s),
        }
        self._at_s, self._bytes = now_s, count
        with contextlib.suppress(Exception):  # some systems have no such thing
            news["battery"] = psutil.sensors_battery().percent / 100
        with contextlib.suppress(Exception):
            chips = psutil.sensors_temperatures().values()
            news["temperature"] = max(sensor.current for chip in chips for sensor in chip)
        if self.options.programs:
            names = self._running()
            news |= {f"running {name}": name in names for name in self.options.programs}
        if self._can_see_front:
            with contextlib.suppress(Exception):
                front = news["front"] = self._front()
                news |= {f"front {name}": front == name for name in self.options.programs}
        return news.items()

    def _running(self) -> set[str]:
        found = set()
        for process in self._psutil.process_iter(["name"]):
            name = process.info["name"] or ""
            found |= {name, name.removesuffix(".exe")}
        return found

    def _front(self) -> str:
        """The name of the program whose window is in front."""
        command = ["xdotool", "getactivewindow", "getwindowpid"]
        told = subprocess.run(
            command, capture_output=True, encoding="utf-8", errors="replace", timeout=1, check=True
        )
        return str(self._psutil.Process(int(told.stdout)).name())

    def _close(self) -> None:
        pass
