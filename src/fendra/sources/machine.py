"""The computer itself: load, heat, which program is in front, whether it is locked, what it plays.

Names: `load`, `memory`, `battery` (0 to 1), `plugged`, `network` (bytes a second), `temperature`
(C, the hottest; `temperature CHIP` of one chip), `fan` (turns a minute; `fan CHIP`), `front` (the
program in front), `full_screen`, `idle` (s since the last key), `locked`, `asleep` (it is going to
sleep), `volume` (0 to 1), `muted`, `playing`, `title`, `artist`, `cover`, `cover2` and `cover3`
(colours of the cover); and for each of `programs` the switches `running NAME` and `front NAME`.
"""

from __future__ import annotations

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


ALWAYS = ("load", "memory", "network")
"""Names that are read whether or not a signal wants them: they cost nothing."""


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
        package("psutil")
        from fendra.computer.here import PARTS
        from fendra.computer.parts import Computer

        wanted = {*_asked_for(design), *ALWAYS} | {"front" for _ in self.options.programs}
        self._computer = Computer(PARTS, wanted)
        self._due_s = time.perf_counter()
        self._say_what_it_lacks()

    def _say_what_it_lacks(self) -> None:
        by_reason: dict[str, list[str]] = {}
        for name, why in sorted(self._computer.lacks.items()):
            by_reason.setdefault(why, []).append(name)
        if by_reason:
            why = "; ".join(f"no {', '.join(names)}: {why}" for why, names in by_reason.items())
            self.notice = f"{self} cannot give everything: {why}."

    def _read(self, wait_s: float) -> News:
        left_s = self._due_s - time.perf_counter()
        if left_s > 0:
            time.sleep(min(left_s, wait_s))
            if left_s > wait_s:
                return ()
        self._due_s = time.perf_counter() + 1 / self.options.rate
        news: dict[str, Any] = self._computer.read()
        self._say_what_it_lacks()
        if self.options.programs:
            from fendra.computer.sensors import running

            names = running()
            news |= {f"running {name}": name in names for name in self.options.programs}
        if "front" in news:
            front = news["front"]
            news |= {
                f"front {name}": front == name.removesuffix(".exe")
                for name in self.options.programs
            }
        return news.items()

    def _close(self) -> None:
        if hasattr(self, "_computer"):
            self._computer.close()
