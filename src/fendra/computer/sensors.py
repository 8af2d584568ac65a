"""Load, memory, network, battery, temperatures, fans and running programs, by psutil."""

from __future__ import annotations

import time
from contextlib import suppress
from typing import Any, ClassVar

import psutil

from fendra.computer.parts import CannotTell, Part
from fendra.system.process import NAME


class Load(Part):
    """How busy it is: shares of its time and memory, and bytes a second through its network."""

    names: ClassVar = ("load", "memory", "network")

    def __init__(self) -> None:
        psutil.cpu_percent()  # counts from here on
        if psutil.net_io_counters() is None:
            self.lacks = {"network": "the system reports no network"}
        self._bytes, self._at_s = self._passed(), time.perf_counter()

    def read(self) -> dict[str, Any]:
        count, now_s = self._passed(), time.perf_counter()
        spent_s = max(now_s - self._at_s, 1e-6)
        found = {
            "load": psutil.cpu_percent() / 100,
            "memory": psutil.virtual_memory().percent / 100,
            "network": (count - self._bytes) / spent_s,
        }
        self._bytes, self._at_s = count, now_s
        return found

    def _passed(self) -> int:
        counts = psutil.net_io_counters()
        return 0 if counts is None else int(counts.bytes_sent + counts.bytes_recv)


class Battery(Part):
    """The battery of a laptop, 0 to 1, and whether it is plugged in."""

    names: ClassVar = ("battery", "plugged")

    def __init__(self) -> None:
        if getattr(psutil, "sensors_battery", lambda: None)() is None:
            raise CannotTell("the system has none")

    def read(self) -> dict[str, Any]:
        told = psutil.sensors_battery()
        if told is None:
            return {}
        return {"battery": told.percent / 100, "plugged": bool(told.power_plugged)}


class Heat(Part):
    """Temperatures in C: the hottest, and the hottest of each chip as `temperature CHIP`."""

    names: ClassVar = ("temperature",)

    def __init__(self) -> None:
        if NAME == "windows":
            raise CannotTell("Windows tells programs no temperatures; let a monitor send them, "
                             "by UDP or shared memory")  # fmt: skip
        if not getattr(psutil, "sensors_temperatures", dict)():
            raise CannotTell("the system reports no sensor")

    def read(self) -> dict[str, Any]:
        chips = {
            chip: max(sensor.current for sensor in sensors)
            for chip, sensors in psutil.sensors_temperatures().items() if sensors
        }  # fmt: skip
        if not chips:
            return {}
        each = {f"temperature {chip}": heat for chip, heat in chips.items()}
        return {"temperature": max(chips.values()), **each}


class Fans(Part):
    """Fans in turns a minute: the quickest, and each chip's as `fan CHIP`."""

    names: ClassVar = ("fan",)

    def __init__(self) -> None:
        if not getattr(psutil, "sensors_fans", dict)():
            raise CannotTell("the system reports no fan")

    def read(self) -> dict[str, Any]:
        chips = {
            chip: max(fan.current for fan in fans)
            for chip, fans in psutil.sensors_fans().items() if fans
        }  # fmt: skip
        each: dict[str, Any] = {f"fan {chip}": turns for chip, turns in chips.items()}
        return {"fan": max(chips.values()), **each} if chips else {}


PARTS: tuple[type[Part], ...] = (Load, Battery, Heat, Fans)


def running() -> set[str]:
    """The names of all programs that run, with and without `.exe`."""
    found = set()
    for process in psutil.process_iter():
        with suppress(psutil.Error, OSError):  # it has just ended, or the system hides it
            name = process.name()
            found |= {name, name.removesuffix(".exe")}
    return found


def program_of(process: int) -> str:
    """The name of a process, without `.exe`; empty where the system does not tell it."""
    try:
        return str(psutil.Process(process).name()).removesuffix(".exe")
    except (psutil.Error, OSError):  # it has just ended, or belongs to another user
        return ""
